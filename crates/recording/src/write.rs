//! WAV out.

use std::io::Cursor;

use crate::RATE_HZ;

/// One channel at 48 kHz as a WAV file of 24-bit whole numbers; what goes beyond full scale is held there.
pub fn wav_24_bit(samples: &[f32]) -> Vec<u8> {
    let spec = hound::WavSpec {
        channels: 1,
        sample_rate: RATE_HZ,
        bits_per_sample: 24,
        sample_format: hound::SampleFormat::Int,
    };
    let mut bytes = Vec::with_capacity(samples.len() * 3 + 64);
    let write = || -> hound::Result<()> {
        let mut writer = hound::WavWriter::new(Cursor::new(&mut bytes), spec)?;
        for sample in samples {
            let full = f64::from((1 << 23) - 1);
            writer.write_sample((f64::from(*sample) * full).round().clamp(-full - 1.0, full) as i32)?;
        }
        writer.finalize()
    };
    // Memory takes all that is written to it.
    let done = { write }();
    debug_assert!(done.is_ok());
    bytes
}
