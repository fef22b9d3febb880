//! Daylight: the sun and the sky over a place, what a window lets in of them, and where the windows are as seen from the eyes.
//! Whether their light counts is the brief's to say.

pub mod hue;
pub mod outdoors;
mod readings;
mod sun;
mod sunlight;
mod window;

pub use readings::readings;
pub use sun::{Air, Crossings, Sun, SunPath, YEARS, crossings, sun_at};
pub use sunlight::{Patch, Sunlight};
pub use window::{FloorPatch, daylight_factor_percent, floor_patch, overcast_window};
