//! Recordings in and out. Files are read within bounds and never run: a dry voice as one channel at 48 kHz, a take as it was recorded, a still as
//! its pixels.

mod rate;
mod read;
mod still;
mod write;

use std::sync::OnceLock;

pub use read::{
    LONGEST_S, LONGEST_TAKE_S, MOST_BYTES, MOST_TAKE_BYTES, Recording, Take, Unreadable, read, read_take,
};
pub use still::{MOST_STILL_BYTES, NoStill, Still, read_still};
pub use write::wav_24_bit;

/// Samples a second of voices.
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
