//! Seeing oneself: how far the eyes leave the lens, and whether a screen can be read from the seat.

/// Smallest angle at which a capital is read, minutes of arc (ISO 9241-303, from memory).
pub const LEGIBLE_ARCMIN: f64 = 16.0;

/// Angle between the lens and a thing beside it, degrees: atan(offset / distance).
pub fn gaze_offset_deg(camera_distance_m: f64, offset_m: f64) -> f64 {
    offset_m.atan2(camera_distance_m).to_degrees()
}

/// Angle under which a capital is seen, minutes of arc: 60 x 2 atan(h / 2D).
pub fn character_arcmin(character_height_mm: f64, viewing_distance_m: f64) -> f64 {
    120.0 * (character_height_mm / (2000.0 * viewing_distance_m)).atan().to_degrees()
}

/// Whether letters under this angle can be read.
pub fn is_legible(arcmin: f64) -> bool {
    arcmin >= LEGIBLE_ARCMIN * (1.0 - 1e-9)
}
