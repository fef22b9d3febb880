//! How the figure holds itself: where elbows, hands, knees and feet come to be. Lengths of limbs over stature after Drillis and
//! Contini 1966 (in Winter, Biomechanics and Motor Control of Human Movement; from memory).
use glam::Vec3;

use crate::shape::at;

/// The figure's own unit: so many for a stature of 1.75 m are metres.
const UPPER_ARM: f32 = 0.305;
const FOREARM: f32 = 0.255;
const SHOULDER: Vec3 = Vec3::new(0.178, -0.266, -0.042);
/// A hand lies so high over what it rests on.
const HAND_HIGH: f32 = 0.0315;

/// What the figure is given to hold itself by; heights and distances in its own space.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Setting {
    /// The floor, below the eyes (negative).
    pub floor: f32,
    /// The seat, below the eyes (negative); none standing.
    pub seat: Option<f32>,
    /// A table before it: its top below the eyes (negative), its near edge before the eyes.
    pub table: Option<[f32; 2]>,
    /// It plays an instrument.
    pub plays: bool,
    /// Turn of the head to the figure's left, rad.
    pub head_turn: f32,
    /// Where the eyes look in the head's own space.
    pub looks_at: Vec3,
}

/// A hand: where the wrist is, where fingers point and where the back of the hand looks.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Hand {
    pub(crate) wrist: Vec3,
    pub(crate) fingers: Vec3,
    pub(crate) back: Vec3,
    /// How far the fingers are bent, rad a joint.
    pub(crate) bent: f32,
    /// Where the forearm comes along.
    pub(crate) forearm: Vec3,
}

/// An arm from shoulder to hand.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Arm {
    pub(crate) shoulder: Vec3,
    pub(crate) elbow: Vec3,
    pub(crate) hand: Hand,
}

/// A leg from hip to foot.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Leg {
    pub(crate) hip: Vec3,
    pub(crate) knee: Vec3,
    pub(crate) ankle: Vec3,
}

/// All limbs; left ones first.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Pose {
    pub(crate) arms: [Arm; 2],
    pub(crate) legs: [Leg; 2],
    /// Where the trunk ends below.
    pub(crate) hips: f32,
    pub(crate) is_seated: bool,
}

impl Pose {
    pub(crate) fn of(setting: &Setting) -> Self {
        let hips = setting.seat.map_or(-0.835, |seat| seat + 0.095);
        Self {
            arms: [1.0, -1.0].map(|side| arm(setting, side)),
            legs: [1.0, -1.0].map(|side| leg(setting, side)),
            hips,
            is_seated: setting.seat.is_some(),
        }
    }
}

/// The same on the other side.
pub(crate) fn mirrored(point: Vec3, side: f32) -> Vec3 {
    at(point.x * side, point.y, point.z)
}

fn arm(setting: &Setting, side: f32) -> Arm {
    let shoulder = mirrored(SHOULDER, side);
    let hand = if setting.plays {
        playing(side)
    } else if let Some(hand) = setting.table.and_then(|table| on_table(table, side)) {
        hand
    } else if let Some(seat) = setting.seat {
        // On the thigh.
        let wrist = mirrored(at(0.145, seat + 0.155 + HAND_HIGH, 0.20), side);
        Hand {
            wrist,
            fingers: mirrored(at(-0.28, -0.10, 1.0), side),
            back: Vec3::Y,
            bent: 0.22,
            forearm: Vec3::Z,
        }
    } else {
        // Hanging, palms to the thighs.
        let wrist = mirrored(at(0.232, -0.800, 0.035), side);
        Hand {
            wrist,
            fingers: mirrored(at(-0.05, -1.0, 0.16), side),
            back: mirrored(at(1.0, -0.05, 0.25), side),
            bent: 0.30,
            forearm: Vec3::Z,
        }
    };
    // The elbow: out, down and back from the line between.
    let way = mirrored(at(0.55, -0.75, -0.55), side);
    let elbow = elbow(shoulder, hand.wrist, way);
    let forearm = (hand.wrist - elbow).normalize_or_zero();
    // A wrist at rest bends little.
    let fingers = (hand.fingers.normalize() + forearm * 1.2).normalize_or(forearm);
    Arm { shoulder, elbow, hand: Hand { fingers, back: hand.back.normalize(), forearm, ..hand } }
}

/// One hand resting on the table beside the other; none where it is out of reach.
fn on_table([top, near]: [f32; 2], side: f32) -> Option<Hand> {
    // The left hand lies a little farther in than the right: nobody sits like a mirror.
    let deep = if side > 0.0 { 0.105 } else { 0.085 };
    let wrist = mirrored(at(0.130, top + HAND_HIGH, near + deep), side);
    let far = wrist.distance(mirrored(SHOULDER, side)) > 0.985 * (UPPER_ARM + FOREARM);
    let fingers = mirrored(at(-0.85, -0.10, 0.62), side);
    (!far).then_some(Hand {
        wrist,
        fingers,
        back: mirrored(at(0.10, 1.0, 0.0), side),
        bent: 0.20,
        forearm: Vec3::Z,
    })
}

/// Left at the neck of the instrument, right over its strings.
fn playing(side: f32) -> Hand {
    if side > 0.0 {
        let (fingers, back) = (at(-0.25, 0.75, 0.60), at(0.55, -0.30, -0.75));
        Hand { wrist: at(0.300, -0.425, 0.165), fingers, back, bent: 0.55, forearm: Vec3::Z }
    } else {
        let (fingers, back) = (at(0.72, -0.62, 0.18), at(0.15, 0.10, 1.0));
        Hand { wrist: at(-0.150, -0.395, 0.235), fingers, back, bent: 0.30, forearm: Vec3::Z }
    }
}

/// Where two limbs of known length meet, to the side of `way`.
fn elbow(shoulder: Vec3, wrist: Vec3, way: Vec3) -> Vec3 {
    let along = wrist - shoulder;
    let distance = along.length().clamp(0.06, 0.995 * (UPPER_ARM + FOREARM));
    let along = along.normalize_or(-Vec3::Y);
    let part = (distance * distance + UPPER_ARM * UPPER_ARM - FOREARM * FOREARM) / (2.0 * distance);
    let off = (UPPER_ARM * UPPER_ARM - part * part).max(0.0).sqrt();
    shoulder + along * part + way.reject_from_normalized(along).normalize_or_zero() * off
}

fn leg(setting: &Setting, side: f32) -> Leg {
    let at = |x: f32, y: f32, z: f32| mirrored(at(x, y, z), side);
    match setting.seat {
        Some(seat) => Leg {
            hip: at(0.095, seat + 0.085, -0.060),
            knee: at(0.125, seat + 0.070, 0.390),
            ankle: at(0.115, setting.floor + 0.085, 0.370),
        },
        None => Leg {
            hip: at(0.092, -0.865, -0.050),
            knee: at(0.098, 0.48 * (setting.floor - 0.865), -0.030).with_y(0.55 * setting.floor - 0.40),
            ankle: at(0.102, setting.floor + 0.085, -0.065),
        },
    }
}
