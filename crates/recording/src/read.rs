//! WAV and FLAC in.

use std::io::Cursor;
use std::time::{Duration, Instant};

use rubato::audioadapter_buffers::direct::SequentialSliceOfVecs;
use rubato::{Fft, FixedSync, Resampler};
use symphonia::core::codecs::audio::AudioDecoderOptions;
use symphonia::core::errors::Error;
use symphonia::core::formats::probe::Hint;
use symphonia::core::formats::{FormatOptions, TrackType};
use symphonia::core::io::MediaSourceStream;
use symphonia::core::meta::MetadataOptions;
use thiserror::Error;

use crate::RATE_HZ;

/// Largest file that is read, bytes.
pub const MOST_BYTES: usize = 20_000_000;
/// Longest recording, s.
pub const LONGEST_S: f64 = 60.0;
/// Shortest, s.
const SHORTEST_S: f64 = 1.0;
/// Sample rates that are read, Hz.
const RATES_HZ: std::ops::RangeInclusive<u32> = 8_000..=192_000;
/// Frames that the resampler takes at once.
const CHUNK: usize = 1024;
/// A minute of sound is read in well under a second; what takes longer is made to.
const PATIENCE: Duration = Duration::from_secs(10);

/// A recording as one channel at 48 kHz.
#[derive(Debug, Clone, PartialEq)]
pub struct Recording {
    /// Samples, full scale 1.
    pub samples: Vec<f32>,
    /// As the file had it, Hz.
    pub sample_rate_hz: u32,
    /// As the file had it.
    pub channels: usize,
}

impl Recording {
    /// Length, s.
    pub fn seconds(&self) -> f64 {
        self.samples.len() as f64 / f64::from(RATE_HZ)
    }
}

/// Why a file is no recording that can be used.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum Unreadable {
    /// Too many bytes.
    #[error("the file has {0} bytes: give at most {MOST_BYTES}")]
    TooLarge(usize),
    /// Neither WAV nor FLAC, or broken at its head.
    #[error("the file is no WAV or FLAC recording that can be read: {0}")]
    NotARecording(String),
    /// Broken within.
    #[error("the recording is broken after {after_s:.2} s: {why}")]
    Broken {
        /// So much could be read, s.
        after_s: f64,
        /// What the decoder said.
        why: String,
    },
    /// Too short or too long.
    #[error("the recording lasts {0:.2} s: give {SHORTEST_S} to {LONGEST_S} s")]
    Length(f64),
    /// A sample rate that no recorder has.
    #[error("the sample rate is {0} Hz: give 8000 to 192000 Hz")]
    Rate(u32),
    /// More channels than a voice has.
    #[error("the recording has {0} channels: give 1 or 2")]
    Channels(usize),
    /// Numbers that are none.
    #[error("the recording holds values that are no numbers, at {0:.2} s")]
    NotNumbers(f64),
}

/// Reads a file: two channels are mixed to one, any rate becomes 48 kHz.
///
/// # Errors
/// See [`Unreadable`]; nothing of a broken file is kept.
pub fn read(bytes: &[u8]) -> Result<Recording, Unreadable> {
    if bytes.len() > MOST_BYTES {
        return Err(Unreadable::TooLarge(bytes.len()));
    }
    // The decoders of hostile bytes may break down; that is the file's fault, and stays with it.
    std::panic::catch_unwind(|| decoded(bytes))
        .unwrap_or_else(|_| Err(Unreadable::NotARecording("its parts contradict each other".into())))
}

fn decoded(bytes: &[u8]) -> Result<Recording, Unreadable> {
    let refused = |why: String| Unreadable::NotARecording(why);
    let began = Instant::now();
    let stream =
        MediaSourceStream::new(Box::new(Cursor::new(without_seek_tables(bytes))), Default::default());
    let mut format = symphonia::default::get_probe()
        .probe(&Hint::new(), stream, FormatOptions::default(), MetadataOptions::default())
        .map_err(|error| refused(error.to_string()))?;
    let track = format.default_track(TrackType::Audio).ok_or_else(|| refused("it holds no sound".into()))?;
    let params = track
        .codec_params
        .as_ref()
        .and_then(|params| params.audio())
        .ok_or_else(|| refused("its coding is not known".into()))?;
    let track_id = track.id;
    let mut decoder = symphonia::default::get_codecs()
        .make_audio_decoder(params, &AudioDecoderOptions::default())
        .map_err(|error| refused(error.to_string()))?;
    let mut mono: Vec<f32> = Vec::new();
    let (mut rate, mut channels) = (0, 0);
    let mut frames: Vec<f32> = Vec::new();
    loop {
        let after_s = |mono: &[f32], rate: u32| mono.len() as f64 / f64::from(rate.max(1));
        let broken =
            |mono: &[f32], rate: u32, why: String| Unreadable::Broken { after_s: after_s(mono, rate), why };
        if began.elapsed() > PATIENCE {
            return Err(broken(&mono, rate, "it takes too long to read".to_owned()));
        }
        let packet = match format.next_packet() {
            Ok(Some(packet)) if packet.track_id == track_id => packet,
            Ok(Some(_)) => continue,
            Ok(None) => break,
            // A file that ends before its header says.
            Err(Error::IoError(error)) => return Err(broken(&mono, rate, error.to_string())),
            Err(error) => return Err(broken(&mono, rate, error.to_string())),
        };
        let decoded = decoder.decode(&packet).map_err(|error| broken(&mono, rate, error.to_string()))?;
        (rate, channels) = (decoded.spec().rate(), decoded.spec().channels().count());
        if !RATES_HZ.contains(&rate) {
            return Err(Unreadable::Rate(rate));
        }
        if !(1..=2).contains(&channels) {
            return Err(Unreadable::Channels(channels));
        }
        decoded.copy_to_vec_interleaved(&mut frames);
        mono.extend(frames.chunks(channels).map(|frame| frame.iter().sum::<f32>() / channels as f32));
        // A small file may unfold to a large one: no farther than is kept.
        if after_s(&mono, rate) > LONGEST_S {
            return Err(Unreadable::Length(after_s(&mono, rate)));
        }
    }
    let seconds = mono.len() as f64 / f64::from(rate.max(1));
    if seconds < SHORTEST_S {
        return Err(Unreadable::Length(seconds));
    }
    if let Some(at) = mono.iter().position(|sample| !sample.is_finite()) {
        return Err(Unreadable::NotNumbers(at as f64 / f64::from(rate)));
    }
    let samples = if rate == RATE_HZ { mono } else { at_48_khz(mono, rate)? };
    Ok(Recording { samples, sample_rate_hz: rate, channels })
}

/// The bytes of a file in which the seek tables of FLAC (RFC 9639, section 8.5) are padding: a recording that is read from its first
/// sample to its last needs none, and a table of a million entries takes the decoder half a minute.
fn without_seek_tables(bytes: &[u8]) -> Vec<u8> {
    const MARKER: &[u8] = b"fLaC";
    const PADDING: u8 = 1;
    const SEEK_TABLE: u8 = 3;
    let mut bytes = bytes.to_vec();
    if bytes.starts_with(b"RIFF") {
        return bytes;
    }
    let mut at = 0;
    while let Some(found) =
        bytes.get(at..).and_then(|rest| rest.windows(MARKER.len()).position(|w| w == MARKER))
    {
        at += found + MARKER.len();
        // Blocks: whether it is the last and its kind, then its length in three bytes.
        while let Some(&[head, a, b, c]) = bytes.get(at..at + 4) {
            if head & 0x7f == SEEK_TABLE {
                bytes[at] = head & 0x80 | PADDING;
            }
            at += 4 + usize::from(a) * 65_536 + usize::from(b) * 256 + usize::from(c);
            if head & 0x80 != 0 {
                break;
            }
        }
    }
    bytes
}

fn at_48_khz(mono: Vec<f32>, rate: u32) -> Result<Vec<f32>, Unreadable> {
    let refused = |why: String| Unreadable::NotARecording(format!("it cannot be brought to 48 kHz: {why}"));
    let mut resampler = Fft::<f32>::new(rate as usize, RATE_HZ as usize, CHUNK, 1, FixedSync::Both)
        .map_err(|error| refused(error.to_string()))?;
    let length = mono.len();
    let input = [mono];
    let input = SequentialSliceOfVecs::new(&input, 1, length).map_err(|error| refused(error.to_string()))?;
    let output = resampler.process_all(&input, length, None).map_err(|error| refused(error.to_string()))?;
    Ok(output.take_data())
}
