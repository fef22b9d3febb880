//! A recording: refused in words, or one channel at 48 kHz; as a take, both channels at its own rate.
#![no_main]

use fogon_recording::{LONGEST_S, LONGEST_TAKE_S, RATE_HZ, read, read_take};
use libfuzzer_sys::fuzz_target;

fuzz_target!(|bytes: &[u8]| {
    if let Ok(recording) = read(bytes) {
        assert!(recording.samples.len() as f64 <= (LONGEST_S + 1.0) * f64::from(RATE_HZ));
        assert!(recording.samples.iter().all(|sample| sample.is_finite()));
    }
    if let Ok(take) = read_take(bytes) {
        assert!(take.seconds() <= LONGEST_TAKE_S && take.channels.len() <= 2);
        assert!(take.channels.iter().flatten().all(|sample| sample.is_finite()));
    }
});
