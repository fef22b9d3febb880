//! A recording: refused in words, or one channel at 48 kHz.
#![no_main]

use fogon_recording::{LONGEST_S, RATE_HZ, read};
use libfuzzer_sys::fuzz_target;

fuzz_target!(|bytes: &[u8]| {
    if let Ok(recording) = read(bytes) {
        assert!(recording.samples.len() as f64 <= (LONGEST_S + 1.0) * f64::from(RATE_HZ));
        assert!(recording.samples.iter().all(|sample| sample.is_finite()));
    }
});
