//! Files in and out: what is read comes out the same, at any rate and depth; what is broken is refused in words; the decoders
//! hold whatever bytes they are given.

#![allow(clippy::unwrap_used)]

use std::io::Cursor;

use fogon_recording::{LONGEST_S, MOST_BYTES, RATE_HZ, Unreadable, dry_voice, read, wav_24_bit};
use hound::{SampleFormat, WavSpec, WavWriter};

/// A tone as a WAV file.
fn tone(rate: u32, channels: u16, bits: u16, format: SampleFormat, seconds: f64) -> Vec<u8> {
    let spec = WavSpec { channels, sample_rate: rate, bits_per_sample: bits, sample_format: format };
    let mut bytes = Vec::new();
    let mut writer = WavWriter::new(Cursor::new(&mut bytes), spec).unwrap();
    for i in 0..(seconds * f64::from(rate)) as usize {
        let value = 0.5 * (std::f64::consts::TAU * 440.0 * i as f64 / f64::from(rate)).sin();
        for _ in 0..channels {
            match format {
                SampleFormat::Float => writer.write_sample(value as f32).unwrap(),
                SampleFormat::Int => {
                    writer.write_sample((value * f64::from((1u32 << (bits - 1)) - 1)) as i32).unwrap();
                }
            }
        }
    }
    writer.finalize().unwrap();
    bytes
}

/// Amplitude of 440 Hz in the middle of a recording, by correlation with sine and cosine.
fn amplitude(samples: &[f32]) -> f64 {
    let middle = &samples[samples.len() / 4..3 * samples.len() / 4];
    let (mut sine, mut cosine) = (0.0, 0.0);
    for (i, sample) in middle.iter().enumerate() {
        let phase = std::f64::consts::TAU * 440.0 * i as f64 / f64::from(RATE_HZ);
        sine += f64::from(*sample) * phase.sin();
        cosine += f64::from(*sample) * phase.cos();
    }
    2.0 * f64::hypot(sine, cosine) / middle.len() as f64
}

#[test]
fn every_usual_file_is_read_alike() {
    let kinds = [
        (16, SampleFormat::Int),
        (24, SampleFormat::Int),
        (32, SampleFormat::Int),
        (32, SampleFormat::Float),
    ];
    for (bits, format) in kinds {
        for rate in [16_000, 44_100, 48_000, 96_000] {
            for channels in [1, 2] {
                let recording = read(&tone(rate, channels, bits, format, 1.5)).unwrap();
                assert_eq!((recording.sample_rate_hz, recording.channels), (rate, usize::from(channels)));
                assert!((recording.seconds() - 1.5).abs() < 0.002, "{rate}: {} s", recording.seconds());
                let found = amplitude(&recording.samples);
                assert!((found - 0.5).abs() < 0.005, "{bits} bits at {rate} Hz: {found}");
            }
        }
    }
    // FLAC: the voice that ships, as its own tool tells: 9 s, 48 kHz, one channel.
    assert!((dry_voice().len() as f64 / f64::from(RATE_HZ) - 8.98).abs() < 0.01);
    assert!(dry_voice().iter().any(|s| s.abs() > 0.3) && dry_voice().iter().all(|s| s.abs() < 1.0));
}

#[test]
fn what_is_written_is_read_back() {
    let samples: Vec<f32> = (0..60_000).map(|i| (i as f32 * 0.01).sin() * 0.9).collect();
    let back = read(&wav_24_bit(&samples)).unwrap();
    assert!(samples.iter().zip(&back.samples).all(|(a, b)| (a - b).abs() < 2e-7 * 2.0));
    // Beyond full scale it is held there.
    let loud = read(&wav_24_bit(&[2.0; 48_000])).unwrap();
    assert!(loud.samples.iter().all(|s| (s - 1.0).abs() < 1e-5));
}

#[test]
fn what_is_no_recording_is_refused_in_words() {
    let long = tone(8_000, 1, 16, SampleFormat::Int, LONGEST_S + 1.0);
    let mut hollow = tone(48_000, 1, 32, SampleFormat::Float, 1.5);
    let at = hollow.len() - 40_000;
    hollow[at..at + 4].copy_from_slice(&f32::NAN.to_le_bytes());
    let cut = {
        let whole = tone(48_000, 1, 16, SampleFormat::Int, 2.0);
        whole[..whole.len() / 2].to_vec()
    };
    for (bytes, words) in [
        (Vec::new(), "no WAV or FLAC"),
        (b"RIFF....WAVEfmt ".to_vec(), "no WAV or FLAC"),
        (b"fLaC and then nothing of the kind".to_vec(), "no WAV or FLAC"),
        (b"ID3 a song packed away".to_vec(), "no WAV or FLAC"),
        (vec![0; MOST_BYTES + 1], "at most 20000000"),
        (tone(48_000, 1, 16, SampleFormat::Int, 0.5), "give 1 to 60 s"),
        (long, "give 1 to 60 s"),
        (tone(48_000, 6, 16, SampleFormat::Int, 1.5), "give 1 or 2"),
        (tone(4_000, 1, 16, SampleFormat::Int, 2.0), "8000 to 192000"),
        (hollow, "no numbers"),
        (cut, "broken after"),
    ] {
        let refused = read(&bytes).unwrap_err();
        assert!(refused.to_string().contains(words), "{refused} for {words}");
    }
}

/// Hundreds of spoilt copies of good files: each is read or refused, none brings the reader down.
#[test]
fn spoilt_files_do_no_harm() {
    let flac = include_bytes!("../assets/dry-voice.flac");
    let wav = tone(44_100, 2, 16, SampleFormat::Int, 1.1);
    let mut state = 7u64;
    let mut random = move |below: usize| {
        state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (state >> 33) as usize % below
    };
    let mut refused = 0;
    for round in 0..400 {
        let mut bytes = if round % 4 == 0 { flac[..40_000].to_vec() } else { wav[..60_000].to_vec() };
        for _ in 0..=random(24) {
            // Mostly in the head, where sizes and rates stand.
            let at = if random(3) > 0 { random(200) } else { random(bytes.len()) };
            bytes[at] = random(256) as u8;
        }
        bytes.truncate(bytes.len() - random(100));
        match read(&bytes) {
            Ok(recording) => assert!(recording.samples.iter().all(|s| s.is_finite())),
            Err(Unreadable::NotARecording(_) | Unreadable::Broken { .. }) => refused += 1,
            Err(_) => {}
        }
    }
    assert!(refused > 100, "{refused}");
}

/// A seek table as long as a block can be is no work: the recording is read as without it.
#[test]
fn a_seek_table_costs_nothing() {
    let flac = include_bytes!("../assets/dry-voice.flac");
    // "fLaC", then STREAMINFO: four bytes of head and 34 of content (RFC 9639, section 8.2); its head says that others follow.
    let mut bytes = flac[..42].to_vec();
    bytes[4] &= 0x7f;
    let points = 900_000u32;
    let length = points * 18;
    bytes.push(if flac[4] & 0x80 == 0 { 3 } else { 0x83 });
    bytes.extend(&length.to_be_bytes()[1..]);
    for point in 0..u64::from(points) {
        bytes.extend((u64::from(points) - point).to_be_bytes());
        bytes.extend([0; 10]);
    }
    bytes.extend(&flac[42..]);
    assert_eq!(read(&bytes).unwrap(), read(flac).unwrap());
}
