//! The person as heights: where eyes, mouth and shoulders are, from stature and seat.
//!
//! Drillis and Contini 1966, Body Segment Parameters, as reprinted in Winter, Biomechanics and Motor Control
//! of Human Movement (ratios from memory); individuals scatter by about 0.04 m, so a measured eye height
//! overrides.

use crate::plan::{Brief, Person, Posture};
use crate::reading::{Origin, Quantity, Reading};

/// Seat height where none is given, m. Fogon's own rule.
pub const SEAT_HEIGHT_M: f64 = 0.45;
/// Lean where none is given, m: ordinary seated sway, common practice, no source.
pub const LEAN_M: f64 = 0.05;
/// Shoulder breadth over stature.
pub const SHOULDER_RATIO: f64 = 0.259;
/// Mouth below the eyes over stature. Fogon's own rule: a little below the middle between eyes and chin.
pub const MOUTH_BELOW_EYE_RATIO: f64 = 0.040;
/// Half the breadth of a head, m. Fogon's own rule for the stand-in figure.
pub const HEAD_RADIUS_M: f64 = 0.085;

/// Heights above the floor, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Landmarks {
    /// Top of the head.
    pub crown_m: f64,
    /// Eyes.
    pub eye_m: f64,
    /// Mouth.
    pub mouth_m: f64,
    /// Chin.
    pub chin_m: f64,
    /// Shoulder line.
    pub shoulder_m: f64,
    /// Armpit, midway between shoulder and chest.
    pub armpit_m: f64,
    /// Chest, at the nipples.
    pub chest_m: f64,
    /// Waist, at the navel.
    pub waist_m: f64,
    /// Midway between hip and knee; means nothing on a seat.
    pub mid_thigh_m: f64,
}

/// Heights of the landmarks: ratio x stature standing, seat height + (ratio - 0.480) x stature seated.
pub fn landmarks(stature_m: f64, seat_height_m: Option<f64>) -> Landmarks {
    let at = |ratio: f64| match seat_height_m {
        Some(seat) => seat + (ratio - 0.480) * stature_m,
        None => ratio * stature_m,
    };
    Landmarks {
        crown_m: at(1.000),
        eye_m: at(0.936),
        mouth_m: at(0.936 - MOUTH_BELOW_EYE_RATIO),
        chin_m: at(0.870),
        shoulder_m: at(0.818),
        armpit_m: at(0.769),
        chest_m: at(0.720),
        waist_m: at(0.605),
        mid_thigh_m: at(0.4075),
    }
}

impl Person {
    /// Seat height and whether it was given; `None` standing.
    pub fn seat_height(&self) -> Option<(f64, Origin)> {
        (self.posture == Posture::Seated).then(|| given(self.seat_height_m, SEAT_HEIGHT_M))
    }

    /// How far the head comes forward, and whether that was given.
    pub fn lean(&self) -> (f64, Origin) {
        given(self.lean_m, LEAN_M)
    }

    /// Breadth of the shoulders, m.
    pub fn shoulder_breadth_m(&self) -> f64 {
        SHOULDER_RATIO * self.stature_m
    }
}

/// A value as typed, or the usual one marked as assumed.
pub fn given(value: Option<f64>, usual: f64) -> (f64, Origin) {
    value.map_or((usual, Origin::Assumed), |v| (v, Origin::Typed))
}

/// The landmarks of this brief; a measured eye height shifts them all.
pub fn landmarks_of(brief: &Brief) -> Landmarks {
    let person = &brief.person;
    let found = landmarks(person.stature_m, person.seat_height().map(|(height, _)| height));
    let shift =
        brief.measured_value(Quantity::PersonEyeHeightM).map_or(0.0, |measured| measured - found.eye_m);
    Landmarks {
        crown_m: found.crown_m + shift,
        eye_m: found.eye_m + shift,
        mouth_m: found.mouth_m + shift,
        chin_m: found.chin_m + shift,
        shoulder_m: found.shoulder_m + shift,
        armpit_m: found.armpit_m + shift,
        chest_m: found.chest_m + shift,
        waist_m: found.waist_m + shift,
        mid_thigh_m: found.mid_thigh_m + shift,
    }
}

/// The eye height as a reading.
pub fn readings(brief: &Brief) -> Vec<Reading> {
    let person = &brief.person;
    let found = landmarks(person.stature_m, person.seat_height().map(|(height, _)| height));
    let reading = Reading::new(Quantity::PersonEyeHeightM, found.eye_m)
        .by(
            "seated: seat + (0.936 - 0.480) x stature; standing: 0.936 x stature",
            "Drillis and Contini 1966, in Winter, Biomechanics and Motor Control of Human Movement (from memory)",
        )
        .with("stature", person.stature_m, "m", Origin::Typed)
        .within(0.04)
        .note(format!(
            "People of one stature differ by about {}: measure it and type it in.",
            brief.units.gap(0.04)
        ));
    vec![match person.seat_height() {
        Some((height, from)) => reading.with("seat height", height, "m", from),
        None => reading,
    }]
}
