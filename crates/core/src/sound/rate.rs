//! The rate at which everything that is heard is worked out.

/// Samples a second.
pub const RATE_HZ: f64 = 48_000.0;
