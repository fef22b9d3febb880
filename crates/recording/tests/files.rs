//! Files in and out: what is read comes out the same, at any rate and depth; what is broken is refused in words; the decoders
//! hold whatever bytes they are given.

#![allow(clippy::unwrap_used)]

use std::io::Cursor;

use fogon_recording::{
    LONGEST_S, MOST_BYTES, NoStill, RATE_HZ, Take, Unreadable, dry_voice, read, read_still, read_take,
    wav_24_bit,
};
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
    let mut random = random();
    let mut refused = 0;
    for round in 0..500 {
        let mut bytes = if round % 4 == 0 { flac[..40_000].to_vec() } else { wav[..60_000].to_vec() };
        spoil(&mut bytes, &mut random);
        match read(&bytes) {
            Ok(recording) => assert!(recording.samples.iter().all(|s| s.is_finite())),
            Err(Unreadable::NotARecording(_) | Unreadable::Broken { .. }) => refused += 1,
            Err(_) => {}
        }
        if let Ok(take) = read_take(&bytes) {
            assert!(take.channels.iter().flatten().all(|s| s.is_finite()));
        }
    }
    assert!(refused > 100, "{refused}");
}

/// Numbers below a bound, the same each time.
fn random() -> impl FnMut(usize) -> usize {
    let mut state = 7u64;
    move |below: usize| {
        state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (state >> 33) as usize % below
    }
}

/// Some bytes changed, mostly in the head, where sizes and rates stand, and the end cut off.
fn spoil(bytes: &mut Vec<u8>, random: &mut impl FnMut(usize) -> usize) {
    for _ in 0..=random(24) {
        let at = if random(3) > 0 { random(200) } else { random(bytes.len()) };
        bytes[at] = random(256) as u8;
    }
    bytes.truncate(bytes.len() - random(100));
}

/// A take keeps its channels and its rate; shifted and stretched it is as long as the other clock has it.
#[test]
fn a_take_keeps_its_channels_and_fits_another_clock() {
    let take = read_take(&tone(44_100, 2, 24, SampleFormat::Int, 3.0)).unwrap();
    assert_eq!((take.channels.len(), take.sample_rate_hz), (2, 44_100));
    assert!((take.seconds() - 3.0).abs() < 1e-4);
    let late = take.fitted(0.5, 1000.0).unwrap();
    assert!((late.seconds() - 3.503).abs() < 0.002, "{}", late.seconds());
    assert!(late.channels[0][..22_000].iter().all(|s| s.abs() < 1e-6));
    let early = take.fitted(-1.0, 0.0).unwrap();
    assert!((early.seconds() - 2.0).abs() < 1e-4);
    let back = read_take(&take.wav_24_bit()).unwrap();
    assert!(
        back.channels
            .iter()
            .zip(&take.channels)
            .all(|(a, b)| a.iter().zip(b).all(|(a, b)| (a - b).abs() < 4e-7))
    );
    let at_48 = take.at(48_000).unwrap();
    assert!((amplitude(&at_48.channels[1]) - 0.5).abs() < 0.005);
    let short = Take { channels: vec![vec![0.1; 100]], sample_rate_hz: 48_000 };
    assert!(short.fitted(-1.0, 0.0).unwrap().channels[0].is_empty());
    for (bytes, words) in [
        (tone(16_000, 1, 16, SampleFormat::Int, 3.0), "32000 to 192000"),
        (tone(48_000, 1, 16, SampleFormat::Int, 0.5), "give 1 to 120 s"),
    ] {
        let refused = read_take(&bytes).unwrap_err();
        assert!(refused.to_string().contains(words), "{refused} for {words}");
    }
}

/// A still of one colour as PNG or JPEG, by the encoder of the same crate.
fn still(width: u32, height: u32, format: image::ImageFormat) -> Vec<u8> {
    let mut bytes = Cursor::new(Vec::new());
    let picture = image::RgbImage::from_fn(width, height, |x, _| {
        image::Rgb([if x < width / 2 { 200 } else { 40 }, 90, 60])
    });
    picture.write_to(&mut bytes, format).unwrap();
    bytes.into_inner()
}

#[test]
fn stills_are_read_the_right_way_up_and_within_bounds() {
    use image::ImageFormat::{Jpeg, Png};
    for format in [Png, Jpeg] {
        let read = read_still(&still(640, 360, format)).unwrap();
        assert_eq!((read.width, read.height, read.rgb.len()), (640, 360, 640 * 360 * 3));
        assert!(read.rgb[0].abs_diff(200) < 6 && read.rgb[3 * 639].abs_diff(40) < 6);
    }
    // What is finer than marks can be set is made coarser.
    assert_eq!(read_still(&still(3840, 2160, Jpeg)).unwrap().width, 1920);
    // A camera that was held upright says so in its EXIF (orientation 6: turned by a quarter): head, then the one entry.
    let jpeg = still(640, 360, Jpeg);
    let mut exif = b"Exif\0\0MM\0\x2a\0\0\0\x08\0\x01\x01\x12\0\x03\0\0\0\x01\0\x06\0\0\0\0\0\0".to_vec();
    let mut turned = vec![0xff, 0xd8, 0xff, 0xe1];
    turned.extend((exif.len() as u16 + 2).to_be_bytes());
    turned.append(&mut exif);
    turned.extend(&jpeg[2..]);
    let read = read_still(&turned).unwrap();
    assert_eq!((read.width, read.height), (360, 640));
    assert!(read.rgb[0].abs_diff(200) < 8, "its left half is now its upper one");
    for (bytes, words) in [
        (Vec::new(), "no PNG or JPEG"),
        (b"not a picture".to_vec(), "no PNG or JPEG"),
        (tone(48_000, 1, 16, SampleFormat::Int, 1.0), "no PNG or JPEG"),
        (still(100, 100, Png), "100 x 100"),
        (still(640, 360, Png)[..2000].to_vec(), "cannot be read"),
    ] {
        let refused = read_still(&bytes).unwrap_err();
        assert!(refused.to_string().contains(words), "{refused} for {words}");
    }
    assert!(matches!(read_still(&vec![0; 30_000_001]), Err(NoStill::TooLarge(_))));
    let mut random = random();
    for round in 0..500 {
        let mut bytes = still(320, 200, [Png, Jpeg][round % 2]);
        spoil(&mut bytes, &mut random);
        if let Ok(read) = read_still(&bytes) {
            assert_eq!(read.rgb.len(), read.width * read.height * 3);
        }
    }
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
