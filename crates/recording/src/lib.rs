//! Recordings in and out. Files are read within bounds and never run; samples are mono at 48 kHz.

mod read;
mod write;

use std::sync::OnceLock;

pub use read::{LONGEST_S, MOST_BYTES, Recording, Unreadable, read};
pub use write::wav_24_bit;

/// Samples a second of everything here.
pub const RATE_HZ: u32 = 48_000;

/// The voice that ships: speech synthesis in our own words (`reference/voice`).
const DRY_VOICE: &[u8] = include_bytes!("../assets/dry-voice.flac");

/// A dry voice at 48 kHz.
pub fn dry_voice() -> &'static [f32] {
    static READ: OnceLock<Vec<f32>> = OnceLock::new();
    READ.get_or_init(|| {
        let read = read(DRY_VOICE);
        debug_assert!(read.is_ok(), "the voice that ships reads");
        read.map_or_else(|_| Vec::new(), |recording| recording.samples)
    })
}
