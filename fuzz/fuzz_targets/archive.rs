//! An archive: refused in words, or read whole.
#![no_main]

use fogon_store::Archive;
use libfuzzer_sys::fuzz_target;

fuzz_target!(|bytes: &[u8]| {
    let _ = Archive::read(bytes);
});
