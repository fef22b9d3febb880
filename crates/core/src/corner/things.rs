//! Everything in the corner that takes up room, as named groups of convex solids. Sizes that nobody gives are Fogon's own
//! rules and stand in the constants below and in the files beside.

use super::camera::camera;
use super::figure::person;
use super::furniture::furniture;
use super::lamp::light_thing;
use super::support::{COLUMN_RADIUS_M, FEET_HEIGHT_M};
use super::thing::{Kind, Piece, Thing, What, upright_box};
use super::{AngleAt, Corner};
use crate::geometry::{DVec2, DVec3, Solid, bearing_vector};
use crate::plan::{
    GearMicrophone, GearMonitor, Hung, Mounting, Part, ScreenType, Support, SupportKind, ThingId,
};

/// Length of a microphone behind its capsule, m.
const MICROPHONE_LENGTH_M: f64 = 0.16;
/// Half the thickness of a backdrop, and the feet of its stands (about 0.3 m on each side: common practice), m.
const BACKDROP_HALF_M: f64 = 0.01;
pub(crate) const BACKDROP_FOOT_M: f64 = 0.30;
/// Thickness of a screen, m.
const SCREEN_DEPTH_M: f64 = 0.03;

/// All things of a corner that take up room: person, furniture, then what the layout places.
pub fn things(corner: &Corner<'_>) -> Vec<Thing> {
    let mut all = vec![person(corner)];
    furniture(corner, &mut all);
    for part in corner.layout.parts() {
        match part {
            // The person sits there; furniture stands above, moved or not; what hangs is flat.
            Part::Seat(_) | Part::Furniture(..) | Part::Treatment(..) => {}
            Part::Camera(_) => {
                let camera = camera(corner, &all);
                all.push(camera);
            }
            Part::Light(id, _) => {
                let light = corner.lights.iter().find(|light| light.id == id);
                all.extend(light.map(|light| light_thing(corner, light)));
            }
            Part::Microphone(used) => all.extend(
                corner.microphone.map(|(gear, at)| microphone_thing(corner, gear, at, &used.support)),
            ),
            Part::Screen(used) => {
                all.extend(corner.screen.map(|(gear, at)| screen_thing(corner, gear, at, &used.support)));
            }
            Part::Backdrop(_) => all.extend(backdrop_thing(corner)),
            Part::Angle(id, _) => {
                let angle = corner.angles.iter().find(|angle| angle.id == id);
                all.extend(angle.map(|angle| angle_thing(corner, angle)));
            }
        }
    }
    all
}

/// The camera of a second angle with what carries it.
pub fn angle_thing(corner: &Corner<'_>, angle: &AngleAt<'_>) -> Thing {
    let view = &angle.view;
    let (front, back) = (0.05, 0.10);
    let middle = view.position_m + view.forward * ((front - back) / 2.0);
    let half = [view.forward * ((front + back) / 2.0), view.right * 0.07, view.up * 0.05];
    let pieces = vec![Piece { what: What::Body, solid: Solid::oriented_box(middle, half) }];
    let mut thing = Thing::new(ThingId::Angle(angle.id.clone()), Kind::Angle, angle.id.words(), pieces);
    let carried = &angle.angle.support;
    let hold = if carried.kind == SupportKind::Floor {
        view.position_m - DVec3::Z * 0.05
    } else {
        view.position_m + DVec3::Z * 0.10
    };
    thing.carried_by(corner, carried, hold, hold);
    thing
}

/// The backdrop with the stands at its ends.
pub fn backdrop_thing(corner: &Corner<'_>) -> Option<Thing> {
    let (gear, used) = corner.backdrop?;
    let facing = bearing_vector(used.bearing_deg).truncate();
    let across = DVec2::new(facing.y, -facing.x);
    let middle = DVec2::from(used.position_m);
    let mut pieces = vec![Piece {
        what: What::Sheet,
        solid: upright_box(middle, facing, gear.width_m / 2.0, BACKDROP_HALF_M, 0.0, gear.height_m),
    }];
    if used.hung == Hung::Stands {
        for side in [-1.0, 1.0] {
            let foot = middle + across * (side * (gear.width_m / 2.0 + COLUMN_RADIUS_M));
            let column = Solid::rod(foot.extend(0.0), foot.extend(gear.height_m), COLUMN_RADIUS_M);
            pieces.push(Piece { what: What::Column, solid: column });
            let feet = Solid::cylinder(foot, BACKDROP_FOOT_M, 0.0, FEET_HEIGHT_M);
            pieces.push(Piece { what: What::Feet, solid: feet });
        }
    }
    Some(Thing::new(ThingId::Backdrop, Kind::Backdrop, gear.common.label.clone(), pieces))
}

/// A screen or mirror that faces the eyes, or a script glass before the lens, with what carries it.
pub fn screen_thing(corner: &Corner<'_>, gear: &GearMonitor, at: DVec3, carried: &Support) -> Thing {
    let (half_width, half_height) = (gear.width().0 / 2.0, gear.height_m() / 2.0);
    let head = if gear.screen == ScreenType::Script {
        // The glass leans over its screen: a box as deep as it is wide.
        let view = &corner.view;
        let sides = [view.forward * half_width, view.right * half_width, view.up * half_width];
        Solid::oriented_box(at, sides)
    } else {
        let facing = (corner.eyes_m - at).try_normalize().unwrap_or(DVec3::Y);
        let across = DVec3::Z.cross(facing).try_normalize().unwrap_or(DVec3::X);
        let up = facing.cross(across);
        let middle = at - facing * (SCREEN_DEPTH_M / 2.0);
        Solid::oriented_box(middle, [facing * (SCREEN_DEPTH_M / 2.0), across * half_width, up * half_height])
    };
    let pieces = vec![Piece { what: What::Head, solid: head }];
    let mut thing = Thing {
        glass: gear.screen == ScreenType::Script,
        ..Thing::new(ThingId::Screen, Kind::Screen, gear.common.label.clone(), pieces)
    };
    let under = at - DVec3::Z * half_height;
    thing.carried_by(corner, carried, under, under);
    thing
}

/// A microphone with what carries it; one that is worn or sits in the camera takes up no room.
pub fn microphone_thing(
    corner: &Corner<'_>,
    gear: &GearMicrophone,
    capsule: DVec3,
    carried: &Support,
) -> Thing {
    let mut thing = Thing::new(ThingId::Microphone, Kind::Microphone, gear.common.label.clone(), Vec::new());
    if !is_worn(gear.mounting) {
        let tail = microphone_tail_m(corner, capsule);
        thing.pieces.push(Piece { what: What::Head, solid: Solid::rod(capsule, tail, COLUMN_RADIUS_M) });
        thing.carried_by(corner, carried, tail, tail);
    }
    thing
}

/// Where a microphone on an arm or a desk is held: the end of its body, m.
pub fn microphone_tail_m(corner: &Corner<'_>, capsule_m: DVec3) -> DVec3 {
    capsule_m + (capsule_m - corner.sounds_from_m()).try_normalize().unwrap_or(DVec3::Z) * MICROPHONE_LENGTH_M
}

/// Worn, or part of the camera: no stand, and nothing to keep out of the picture.
pub fn is_worn(mounting: Mounting) -> bool {
    matches!(mounting, Mounting::Lavalier | Mounting::Headset | Mounting::BuiltIn | Mounting::OnCamera)
}
