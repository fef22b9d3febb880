//! Everything that can be taken hold of, with its numbers: what lists and drawings offer.

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::{Corner, PlacedThing, is_worn};
use crate::plan::{Plan, Point2, Point3, ScreenType, ThingId};

use super::moves::FromEyes;

/// A thing that a hand can take hold of.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Handle {
    /// The thing's name in answers: `seat`, `camera`, `microphone`, or the id of a light or piece of furniture.
    pub id: String,
    /// Where the layout holds it, as a JSON pointer: `/seat`, `/lights/key`. Furniture that stands where the room has it is
    /// not there yet.
    pub pointer: String,
    /// Letter of its mark; empty for furniture.
    pub letter: String,
    /// What people call it.
    pub name: String,
    /// Where it is, m.
    pub position_m: Point3,
    /// The point it faces, m.
    pub aim_m: Option<Point3>,
    /// The picture's right edge at the depth of the eyes, at the lens's height, m (camera): takes the zoom along.
    pub edge_m: Option<Point3>,
    /// Foot of its stand, m.
    pub foot_m: Option<Point2>,
    /// How it is turned, degrees (seat, furniture).
    pub bearing_deg: Option<f64>,
    /// Where it is as seen from the eyes (lights, camera, microphone).
    pub from_eyes: Option<FromEyes>,
    /// Stays where it is until unlocked.
    pub locked: bool,
    /// Can be moved at all: furniture may be fixed to the room, a microphone may be worn.
    pub movable: bool,
    /// Its height can be changed.
    pub lifts: bool,
}

/// All handles of a plan, in the order in which marks are laid, then furniture.
pub fn handles(plan: &Plan) -> Vec<Handle> {
    let Some(corner) = Corner::of(plan) else { return Vec::new() };
    corner.placed().iter().map(|thing| handle(&corner, thing)).collect()
}

fn handle(corner: &Corner<'_>, thing: &PlacedThing<'_>) -> Handle {
    let plain = Handle {
        id: corner.name(&thing.id),
        pointer: thing.id.pointer().unwrap_or_default(),
        letter: thing.letter.to_owned(),
        name: thing.called.clone(),
        position_m: thing.at_m.into(),
        aim_m: None,
        edge_m: None,
        foot_m: thing
            .carried
            .as_ref()
            .filter(|carried| carried.stands())
            .map(|carried| crate::corner::base_of(carried.support, carried.hold_m).into()),
        bearing_deg: None,
        from_eyes: None,
        locked: thing.is_locked,
        movable: true,
        lifts: false,
    };
    let from_eyes = || {
        let (azimuth_deg, elevation_deg) = corner.light_angles_deg(thing.at_m);
        Some(FromEyes { azimuth_deg, elevation_deg, distance_m: (thing.at_m - corner.eyes_m).length() })
    };
    let layout = corner.layout;
    match &thing.id {
        ThingId::Seat => Handle { bearing_deg: Some(layout.seat.bearing_deg), ..plain },
        ThingId::Camera => {
            let view = &corner.view;
            let axis = view.position_m + view.forward * layout.camera.focus_distance_m;
            let depth = corner.subject_distance_m();
            let half = view.right * (view.frame_width_m(depth) / 2.0);
            let edge = (view.position_m + view.forward * depth + half).with_z(view.position_m.z);
            let (aim_m, edge_m) = (Some(axis.into()), Some(edge.into()));
            Handle { aim_m, edge_m, from_eyes: from_eyes(), lifts: true, ..plain }
        }
        ThingId::Light(id) => {
            let aim_m = corner.lights.iter().find(|light| light.id == id).map(|light| light.aim_m.into());
            Handle { aim_m, from_eyes: from_eyes(), lifts: true, ..plain }
        }
        ThingId::Microphone => {
            let worn = corner.microphone.is_some_and(|(gear, _)| is_worn(gear.mounting));
            let name = if worn { "Microphone, worn or on the camera".to_owned() } else { plain.name };
            Handle { name, from_eyes: from_eyes(), movable: !worn, lifts: true, ..plain }
        }
        ThingId::Screen => {
            let glass = corner.screen.is_some_and(|(gear, _)| gear.screen == ScreenType::Script);
            let movable = !(glass && corner.screen_is_on_camera());
            Handle { from_eyes: from_eyes(), movable, lifts: true, ..plain }
        }
        ThingId::Angle(_) => Handle { from_eyes: from_eyes(), lifts: true, ..plain },
        ThingId::Backdrop => {
            Handle { bearing_deg: layout.backdrop.as_ref().map(|used| used.bearing_deg), ..plain }
        }
        ThingId::Treatment(id) => {
            let on = layout.treatment.get(id).map(|one| one.on.0.as_str());
            Handle { lifts: !matches!(on, Some("floor" | "ceiling")), ..plain }
        }
        ThingId::Furniture(id) => {
            let piece = corner.brief.room.furniture.get(id);
            let bearing_deg = piece.map(|piece| corner.furniture_at(id, piece).1);
            Handle { bearing_deg, movable: piece.is_some_and(|piece| !piece.fixed), ..plain }
        }
        ThingId::Person | ThingId::Opening(_) | ThingId::Mains => Handle { movable: false, ..plain },
    }
}
