//! A calculation, named by the first byte, on whatever follows: refused in words, or numbers.
#![no_main]

use fogon_core::calc;
use libfuzzer_sys::{fuzz_mutator, fuzz_target};

fuzz_target!(|bytes: &[u8]| {
    let Some((first, input)) = bytes.split_first() else { return };
    let all = calc::calculations();
    let name = all[usize::from(*first) % all.len()].name;
    if let Ok(answer) = calc::run(name, input) {
        assert!(answer.is_object() || answer.is_array(), "{name}: {answer}");
    }
});

fuzz_mutator!(|data: &mut [u8], size: usize, max_size: usize, seed: u32| {
    if size < 2 || seed % 16 == 0 {
        return libfuzzer_sys::fuzzer_mutate(data, size, max_size);
    }
    1 + fogon_fuzz::changed(&mut data[1..], size - 1, max_size - 1, seed)
});
