//! The API as a browser meets it: the real server on a free port, a real SQLite file, requests over loopback.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod buying;
mod corners;
mod described;
mod every;
mod guarding;
mod hearing;
mod judging;
mod keeping;
mod phones;
mod refusals;
mod running;
mod takes;
mod viewing;
