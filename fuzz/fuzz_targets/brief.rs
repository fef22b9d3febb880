//! A brief file: refused in words, or a first few candidates looked at.
#![no_main]

use std::sync::atomic::{AtomicUsize, Ordering};

use fogon_core::arrange::{Stop, propose_until};
use fogon_core::plan::BriefFile;
use libfuzzer_sys::{fuzz_mutator, fuzz_target};

/// One brief in so many is laid out: that takes a hundred times as long as reading it.
const LAID_OUT: usize = 64;
static READ: AtomicUsize = AtomicUsize::new(0);

fuzz_target!(|bytes: &[u8]| {
    let Ok(file) = BriefFile::read(bytes) else { return };
    if READ.fetch_add(1, Ordering::Relaxed) % LAID_OUT != 0 {
        return;
    }
    let asked = AtomicUsize::new(0);
    let late = || asked.fetch_add(1, Ordering::Relaxed) > 3;
    let found = propose_until(&file.name, &file.brief, Stop::NEVER.or_late(&late)).expect("nobody left");
    for proposal in &found.proposals {
        assert!(proposal.plan.check().is_ok() && proposal.score.is_finite());
    }
});

fuzz_mutator!(|data: &mut [u8], size: usize, max_size: usize, seed: u32| {
    fogon_fuzz::changed(data, size, max_size, seed)
});
