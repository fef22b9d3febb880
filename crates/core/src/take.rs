//! The test take: a recording and a still measured, held against the plan and against the last times. Samples and pixels in, measures
//! and sentences out.

pub mod before;
mod measure;
pub mod picture;
mod promise;
pub mod sound;
pub mod sync;
mod told;

pub use measure::{MeasureTold, TakeMeasure};
pub use promise::Promise;
pub use told::{summary, told};
