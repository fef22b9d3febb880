//! The picture as the camera will see it: a person in a room, in its light, through a lens, at an exposure. Without files,
//! clock or interface; the same input and seed give the same picture, whatever the number of threads.
//!
//! Places are in metres in the plan's own space (x right, y away from the back wall, z up); light is in photometric units.
//!
//! - [`random`]: evenly spread random numbers
//! - [`tree`]: what a ray meets
//! - [`surface`], [`body`]: what it is made of; triangles as one thing
//! - [`panel`], [`source`]: what shines, and points on it
//! - [`scene`], [`lens`]: all of it in its place, and from where it is seen
//! - [`bounce`]: light that surfaces throw back
//! - [`trace`], [`film`]: looking, and what is gathered
//! - [`denoise`]: smoothing; [`develop`]: exposure, white balance, tone
//! - [`stage`]: a plan as a scene; [`render`]: as a picture
//! - [`viewing`]: a picture while the plan changes; [`overlay`]: what it tells

pub mod body;
pub mod bounce;
pub mod denoise;
pub mod develop;
pub mod export;
pub mod film;
pub mod lens;
pub mod overlay;
pub mod panel;
pub mod random;
pub mod render;
pub mod scene;
pub mod source;
pub mod stage;
pub mod surface;
pub mod trace;
pub mod tree;
pub mod viewing;
