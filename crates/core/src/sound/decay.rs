//! How fast sound dies away in a room: Sabine 1922, Eyring 1930 (ISO 3382-2, EN 12354-6), and the absorption that a time
//! needs.

/// Speed of sound, m/s.
pub const SPEED_M_S: f64 = 343.0;

/// Reverberation time of a furnished living room whose surfaces nobody knows, s (reference time of ISO 16283
/// and ISO 717, from memory).
pub const UNKNOWN_S: f64 = 0.5;

/// K = 24 ln 10 / c, s/m, c over 0 m/s (ISO 3382-2; 0.161 s/m at 343 m/s).
pub fn sabine_constant(speed_m_s: f64) -> f64 {
    24.0 * std::f64::consts::LN_10 / speed_m_s
}

/// Sabine's reverberation time, s: T = K V / (A + 4 m V), absorption in m2, air in 1/m (Sabine 1922; ISO 3382-2); infinite without
/// any absorption.
pub fn sabine_s(volume_m3: f64, absorption_m2: f64, air_m: f64) -> f64 {
    sabine_constant(SPEED_M_S) * volume_m3 / (absorption_m2 + 4.0 * air_m * volume_m3)
}

/// Eyring's reverberation time, s: T = K V / (-S ln(1 - A / S) + 4 m V), absorption below the surface, m2 (Eyring 1930).
pub fn eyring_s(volume_m3: f64, surface_m2: f64, absorption_m2: f64, air_m: f64) -> f64 {
    let surfaces = -surface_m2 * (1.0 - absorption_m2 / surface_m2).ln();
    sabine_constant(SPEED_M_S) * volume_m3 / (surfaces + 4.0 * air_m * volume_m3)
}

/// Absorption that gives an Eyring time beside what the air takes, m2; the formula above turned round.
pub fn absorption_for_m2(volume_m3: f64, surface_m2: f64, eyring_s: f64, air_m: f64) -> f64 {
    let wanted = sabine_constant(SPEED_M_S) * volume_m3 / eyring_s - 4.0 * air_m * volume_m3;
    surface_m2 * (1.0 - (-wanted / surface_m2).exp())
}
