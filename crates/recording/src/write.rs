//! WAV out.

use std::io::Cursor;

use crate::RATE_HZ;
use crate::read::Take;

/// One channel at 48 kHz as a WAV file of 24-bit whole numbers; what goes beyond full scale is held there.
pub fn wav_24_bit(samples: &[f32]) -> Vec<u8> {
    written(&[samples], RATE_HZ)
}

impl Take {
    /// As a WAV file of 24-bit whole numbers; what goes beyond full scale is held there.
    pub fn wav_24_bit(&self) -> Vec<u8> {
        let channels: Vec<&[f32]> = self.channels.iter().map(Vec::as_slice).collect();
        written(&channels, self.sample_rate_hz)
    }
}

fn written(channels: &[&[f32]], sample_rate: u32) -> Vec<u8> {
    let spec = hound::WavSpec {
        channels: channels.len() as u16,
        sample_rate,
        bits_per_sample: 24,
        sample_format: hound::SampleFormat::Int,
    };
    let length = channels.iter().map(|channel| channel.len()).min().unwrap_or(0);
    let mut bytes = Vec::with_capacity(length * channels.len() * 3 + 64);
    let write = || -> hound::Result<()> {
        let mut writer = hound::WavWriter::new(Cursor::new(&mut bytes), spec)?;
        for at in 0..length {
            for channel in channels {
                let full = f64::from((1 << 23) - 1);
                writer
                    .write_sample((f64::from(channel[at]) * full).round().clamp(-full - 1.0, full) as i32)?;
            }
        }
        writer.finalize()
    };
    // Memory takes all that is written to it.
    let done = { write }();
    debug_assert!(done.is_ok());
    bytes
}
