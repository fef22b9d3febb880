//! WAV and FLAC in, within bounds.

use std::io::Cursor;
use std::ops::RangeInclusive;
use std::time::{Duration, Instant};

use symphonia::core::codecs::audio::AudioDecoderOptions;
use symphonia::core::errors::Error;
use symphonia::core::formats::probe::Hint;
use symphonia::core::formats::{FormatOptions, TrackType};
use symphonia::core::io::MediaSourceStream;
use symphonia::core::meta::MetadataOptions;
use thiserror::Error;

use crate::RATE_HZ;
use crate::rate::at_rate;

/// Largest dry voice that is read, bytes.
pub const MOST_BYTES: usize = 20_000_000;
/// Longest dry voice, s.
pub const LONGEST_S: f64 = 60.0;
/// Largest take that is read, bytes: two minutes of two channels at 48 kHz and 32 bits.
pub const MOST_TAKE_BYTES: usize = 50_000_000;
/// Longest take that is measured, s.
pub const LONGEST_TAKE_S: f64 = 120.0;
/// A minute of sound is read in well under a second; what takes longer is made to.
const PATIENCE: Duration = Duration::from_secs(10);
/// A small file may unfold to a large one: no more samples than this, of all channels together.
const MOST_SAMPLES: usize = 26_000_000;

/// What a file may be.
struct Bounds {
    bytes: usize,
    seconds: RangeInclusive<f64>,
    rates_hz: RangeInclusive<u32>,
}

/// A dry voice.
const VOICE: Bounds = Bounds { bytes: MOST_BYTES, seconds: 1.0..=LONGEST_S, rates_hz: 8_000..=192_000 };
/// A take: below 32 kHz nothing of a voice's upper band is left to judge.
const TAKE: Bounds =
    Bounds { bytes: MOST_TAKE_BYTES, seconds: 1.0..=LONGEST_TAKE_S, rates_hz: 32_000..=192_000 };

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

/// A recording as its file has it: one or two channels of one length, full scale 1.
#[derive(Debug, Clone, PartialEq)]
pub struct Take {
    /// Samples by channel.
    pub channels: Vec<Vec<f32>>,
    /// Samples a second.
    pub sample_rate_hz: u32,
}

impl Take {
    /// Length, s.
    pub fn seconds(&self) -> f64 {
        self.channels.first().map_or(0, Vec::len) as f64 / f64::from(self.sample_rate_hz.max(1))
    }
}

/// Why a file is no recording that can be used.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum Unreadable {
    /// Too many bytes.
    #[error("the file is too large: give at most {most} bytes")]
    TooLarge {
        /// So many it may have.
        most: usize,
    },
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
    #[error("the recording lasts {seconds:.2} s: give {} to {} s", .accepted_s.start(), .accepted_s.end())]
    Length {
        /// Its length as far as it was read, s.
        seconds: f64,
        /// What it may be, s.
        accepted_s: RangeInclusive<f64>,
    },
    /// Too many samples for its length.
    #[error("the recording has too many samples: give at most 2 channels of 120 s at 96 kHz")]
    TooManySamples,
    /// A sample rate that no recorder has.
    #[error("the sample rate is {rate_hz} Hz: give {} to {} Hz", .accepted_hz.start(), .accepted_hz.end())]
    Rate {
        /// Its rate, Hz.
        rate_hz: u32,
        /// What it may be, Hz.
        accepted_hz: RangeInclusive<u32>,
    },
    /// More channels than a voice has.
    #[error("the recording has {0} channels: give 1 or 2")]
    Channels(usize),
    /// Numbers that are none.
    #[error("the recording holds values that are no numbers, at {0:.2} s")]
    NotNumbers(f64),
}

/// Reads a dry voice: two channels are mixed to one, any rate becomes 48 kHz.
///
/// # Errors
/// See [`Unreadable`]; nothing of a broken file is kept.
pub fn read(bytes: &[u8]) -> Result<Recording, Unreadable> {
    let Take { channels, sample_rate_hz } = bounded(bytes, &VOICE)?;
    let count = channels.len();
    let mono: Vec<f32> = match channels.as_slice() {
        [left, right] => left.iter().zip(right).map(|(l, r)| (l + r) / 2.0).collect(),
        _ => channels.into_iter().next().unwrap_or_default(),
    };
    let samples = if sample_rate_hz == RATE_HZ { mono } else { at_rate(mono, sample_rate_hz, RATE_HZ)? };
    Ok(Recording { samples, sample_rate_hz, channels: count })
}

/// Reads a take as it was recorded: both channels, at the file's own rate.
///
/// # Errors
/// See [`Unreadable`]; nothing of a broken file is kept.
pub fn read_take(bytes: &[u8]) -> Result<Take, Unreadable> {
    bounded(bytes, &TAKE)
}

fn bounded(bytes: &[u8], bounds: &Bounds) -> Result<Take, Unreadable> {
    if bytes.len() > bounds.bytes {
        return Err(Unreadable::TooLarge { most: bounds.bytes });
    }
    // The decoders of hostile bytes may break down; that is the file's fault, and stays with it.
    std::panic::catch_unwind(|| decoded(bytes, bounds))
        .unwrap_or_else(|_| Err(Unreadable::NotARecording("its parts contradict each other".into())))
}

fn decoded(bytes: &[u8], bounds: &Bounds) -> Result<Take, Unreadable> {
    let refused = |why: String| Unreadable::NotARecording(why);
    let began = Instant::now();
    let stream =
        MediaSourceStream::new(Box::new(Cursor::new(without_seek_tables(bytes))), Default::default());
    let mut format = symphonia::default::get_probe()
        .probe(&Hint::new(), stream, FormatOptions::default(), MetadataOptions::default())
        .map_err(|_| refused("it begins like neither".into()))?;
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
    let mut all: Vec<Vec<f32>> = Vec::new();
    let mut rate = 0;
    let mut frames: Vec<f32> = Vec::new();
    let seconds =
        |all: &[Vec<f32>], rate: u32| all.first().map_or(0, Vec::len) as f64 / f64::from(rate.max(1));
    loop {
        let broken = |all: &[Vec<f32>], rate: u32, why: String| Unreadable::Broken {
            after_s: seconds(all, rate),
            why,
        };
        if began.elapsed() > PATIENCE {
            return Err(broken(&all, rate, "it takes too long to read".to_owned()));
        }
        let packet = match format.next_packet() {
            Ok(Some(packet)) if packet.track_id == track_id => packet,
            Ok(Some(_)) => continue,
            Ok(None) => break,
            // A file that ends before its header says.
            Err(Error::IoError(error)) => return Err(broken(&all, rate, error.to_string())),
            Err(error) => return Err(broken(&all, rate, error.to_string())),
        };
        let decoded = decoder.decode(&packet).map_err(|error| broken(&all, rate, error.to_string()))?;
        let (found_rate, channels) = (decoded.spec().rate(), decoded.spec().channels().count());
        if !bounds.rates_hz.contains(&found_rate) {
            return Err(Unreadable::Rate { rate_hz: found_rate, accepted_hz: bounds.rates_hz.clone() });
        }
        if !(1..=2).contains(&channels) {
            return Err(Unreadable::Channels(channels));
        }
        if all.is_empty() {
            (all, rate) = (vec![Vec::new(); channels], found_rate);
        } else if all.len() != channels || rate != found_rate {
            return Err(broken(&all, rate, "its channels or its rate change on the way".to_owned()));
        }
        decoded.copy_to_vec_interleaved(&mut frames);
        for (channel, samples) in all.iter_mut().enumerate() {
            samples.extend(frames.iter().skip(channel).step_by(channels));
        }
        if seconds(&all, rate) > *bounds.seconds.end() {
            return Err(length(seconds(&all, rate), bounds));
        }
        if all.iter().map(Vec::len).sum::<usize>() > MOST_SAMPLES {
            return Err(Unreadable::TooManySamples);
        }
    }
    if seconds(&all, rate) < *bounds.seconds.start() {
        return Err(length(seconds(&all, rate), bounds));
    }
    for samples in &all {
        if let Some(at) = samples.iter().position(|sample| !sample.is_finite()) {
            return Err(Unreadable::NotNumbers(at as f64 / f64::from(rate)));
        }
    }
    Ok(Take { channels: all, sample_rate_hz: rate })
}

fn length(seconds: f64, bounds: &Bounds) -> Unreadable {
    Unreadable::Length { seconds, accepted_s: bounds.seconds.clone() }
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
