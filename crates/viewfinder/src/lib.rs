//! The picture as the camera will see it: a person in a room, in its light, through a lens, at an exposure. Without files,
//! clock or interface; the same input and seed give the same picture, whatever the number of threads.
//!
//! Places are in metres in the plan's own space (x right, y away from the back wall, z up); light is in photometric units.
//!
//! - [`tree`]: what a ray meets
//! - [`random`]: evenly spread random numbers
//! - [`panel`]: flat lamps, and points on them

pub mod figure;
pub mod nets;
pub mod panel;
pub mod random;
pub mod tree;
