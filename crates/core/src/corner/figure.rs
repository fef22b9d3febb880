//! The person as solids, and the places that must stay free to get out of the chair. Sizes that nobody gives are Fogon's
//! own rules.

use super::Corner;
use super::thing::{Kind, Piece, Thing, What, upright_box};
use crate::geometry::{DVec2, DVec3, Solid, bearing_vector};
use crate::person::HEAD_RADIUS_M;
use crate::plan::ThingId;

/// Head and torso lie behind the eyes' plumb line by this much, m.
const HEAD_BACK_M: f64 = 0.09;
const TORSO_BACK_M: f64 = 0.12;
/// Half depth of the torso, m.
const TORSO_HALF_DEPTH_M: f64 = 0.12;
/// The chair's middle behind the eyes and its half side, m.
const CHAIR_BACK_M: f64 = 0.15;
const CHAIR_HALF_M: f64 = 0.23;
/// Room to get out of the chair, m (practice: 0.60 m).
pub(crate) const EXIT_M: f64 = 0.60;

/// The head as a solid.
pub fn head(corner: &Corner<'_>) -> Solid {
    let facing = bearing_vector(corner.layout.seat.bearing_deg).truncate();
    let middle = corner.eyes_m.truncate() - facing * HEAD_BACK_M;
    Solid::cylinder(middle, HEAD_RADIUS_M, corner.landmarks.chin_m, corner.landmarks.crown_m)
}

/// Places on the person that are found again in a picture.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FaceMarks {
    /// Top of the head.
    pub crown_m: DVec3,
    /// Between the eyes.
    pub eyes_m: DVec3,
    /// Tip of the chin.
    pub chin_m: DVec3,
    /// The ends of the shoulders, to the person's right and left.
    pub shoulders_m: [DVec3; 2],
}

/// Where they are.
pub fn face_marks(corner: &Corner<'_>) -> FaceMarks {
    let facing = bearing_vector(corner.layout.seat.bearing_deg);
    let right = DVec3::new(facing.y, -facing.x, 0.0) * (corner.brief.person.shoulder_breadth_m() / 2.0);
    let (eyes, marks) = (corner.eyes_m, &corner.landmarks);
    let shoulders = (eyes - facing * TORSO_BACK_M).with_z(marks.shoulder_m);
    FaceMarks {
        crown_m: (eyes - facing * HEAD_BACK_M).with_z(marks.crown_m),
        eyes_m: eyes,
        chin_m: eyes.with_z(marks.chin_m),
        shoulders_m: [shoulders + right, shoulders - right],
    }
}

pub(super) fn person(corner: &Corner<'_>) -> Thing {
    let eyes = corner.eyes_m.truncate();
    let facing = bearing_vector(corner.layout.seat.bearing_deg).truncate();
    let marks = &corner.landmarks;
    let half_shoulders = corner.brief.person.shoulder_breadth_m() / 2.0;
    let torso = eyes - facing * TORSO_BACK_M;
    let mut pieces = vec![Piece { what: What::Head, solid: head(corner) }];
    let mut add = |what, middle, half_width, half_depth, from_z, to_z| {
        pieces.push(Piece { what, solid: upright_box(middle, facing, half_width, half_depth, from_z, to_z) });
    };
    match corner.brief.person.seat_height() {
        Some((seat, _)) => {
            add(What::Torso, torso, half_shoulders, TORSO_HALF_DEPTH_M, seat, marks.shoulder_m);
            add(What::Legs, eyes + facing * 0.15, 0.19, 0.27, seat - 0.02, seat + 0.13);
            add(What::Legs, eyes + facing * 0.36, 0.16, 0.06, 0.0, seat);
            add(What::Chair, eyes - facing * CHAIR_BACK_M, CHAIR_HALF_M, CHAIR_HALF_M, 0.0, seat);
        }
        None => {
            let hip = 0.530 * corner.brief.person.stature_m;
            add(What::Torso, torso, half_shoulders, TORSO_HALF_DEPTH_M, hip, marks.shoulder_m);
            add(What::Legs, torso, 0.19, TORSO_HALF_DEPTH_M, 0.0, hip);
        }
    }
    Thing::new(ThingId::Person, Kind::Person, "you".into(), pieces)
}

/// The three places, one of which must be free to get out of the chair: left, right, behind. Each is its floor
/// outline and the room over it.
pub fn exit_spaces(corner: &Corner<'_>) -> [(&'static str, [DVec2; 4], Solid); 3] {
    let facing = bearing_vector(corner.layout.seat.bearing_deg).truncate();
    let across = DVec2::new(facing.y, -facing.x);
    let chair = corner.eyes_m.truncate() - facing * CHAIR_BACK_M;
    let half = CHAIR_HALF_M;
    let space = |middle: DVec2, half_width: f64, half_depth: f64| {
        let (a, b) = (across * half_width, facing * half_depth);
        let outline = [middle - a - b, middle + a - b, middle + a + b, middle - a + b];
        // A hand above the floor, to step over a stand's low feet is not asked of anyone: start at the floor.
        let solid = Solid::prism(&outline, 0.0, 1.6);
        (outline, solid)
    };
    let (left, left_solid) = space(chair - across * (half + EXIT_M / 2.0), EXIT_M / 2.0, half);
    let (right, right_solid) = space(chair + across * (half + EXIT_M / 2.0), EXIT_M / 2.0, half);
    let (behind, behind_solid) = space(chair - facing * (half + EXIT_M / 2.0), half, EXIT_M / 2.0);
    [("left of", left, left_solid), ("right of", right, right_solid), ("behind", behind, behind_solid)]
}
