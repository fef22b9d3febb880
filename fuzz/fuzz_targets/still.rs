//! A still: refused in words, or as many pixels as it says.
#![no_main]

use fogon_recording::read_still;
use libfuzzer_sys::fuzz_target;

fuzz_target!(|bytes: &[u8]| {
    if let Ok(still) = read_still(bytes) {
        assert_eq!(still.rgb.len(), still.width * still.height * 3);
    }
});
