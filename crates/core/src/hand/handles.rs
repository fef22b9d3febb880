//! Everything that can be taken hold of, with its numbers: what lists and drawings offer.

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::{Corner, Source};
use crate::geometry::DVec3;
use crate::plan::{Plan, Point2, Point3, Support, SupportKind};

use super::FromEyes;

/// A thing that a hand can take hold of.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Handle {
    /// `seat`, `camera`, `microphone`, or the id of a light or piece of furniture.
    pub id: String,
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

/// All handles of a plan: seat, camera, lights, microphone, furniture.
pub fn handles(plan: &Plan) -> Vec<Handle> {
    let Some(corner) = Corner::of(plan) else { return Vec::new() };
    let layout = corner.layout;
    let seen = |at: DVec3| {
        let (azimuth_deg, elevation_deg) = corner.light_angles_deg(at);
        Some(FromEyes { azimuth_deg, elevation_deg, distance_m: (at - corner.eyes_m).length() })
    };
    let foot = |support: &Support, hold: DVec3| {
        matches!(support.kind, SupportKind::Floor | SupportKind::Boom)
            .then(|| Point2::from(crate::corner::base_of(support, hold)))
    };
    let camera = &layout.camera;
    let axis = corner.view.position_m + corner.view.forward * camera.focus_distance_m;
    let view = &corner.view;
    let half = view.right * (view.frame_width_m(corner.subject_distance_m()) / 2.0);
    let edge =
        (view.position_m + view.forward * corner.subject_distance_m() + half).with_z(view.position_m.z);
    let mut all = vec![
        Handle {
            id: "seat".into(),
            letter: "S".into(),
            name: "Seat".into(),
            position_m: corner.eyes_m.into(),
            aim_m: None,
            edge_m: None,
            foot_m: None,
            bearing_deg: Some(layout.seat.bearing_deg),
            from_eyes: None,
            locked: layout.seat.locked,
            movable: true,
            lifts: false,
        },
        Handle {
            id: "camera".into(),
            letter: "C".into(),
            name: "Camera".into(),
            position_m: camera.position_m,
            aim_m: Some(axis.into()),
            edge_m: Some(edge.into()),
            foot_m: foot(&camera.support, corner.view.position_m),
            bearing_deg: None,
            from_eyes: seen(corner.view.position_m),
            locked: camera.locked,
            movable: true,
            lifts: true,
        },
    ];
    let mut lights: Vec<_> = corner.lights.iter().collect();
    let rank = |l: &crate::corner::LightAt<'_>| {
        crate::plan::Role::IN_ORDER.iter().position(|role| *role == l.light.role)
    };
    lights.sort_by_key(|l| rank(l));
    for light in lights {
        let name = match light.source {
            Source::Board(_) => format!("{} (board)", light.id.replace('-', " ")),
            Source::Lamp(_) => light.id.replace('-', " "),
        };
        all.push(Handle {
            id: light.id.into(),
            letter: light.light.role.letter().into(),
            name: crate::units::capital(&name),
            position_m: light.light.position_m,
            aim_m: Some(light.aim_m.into()),
            edge_m: None,
            foot_m: foot(&light.light.support, light.hold_m()),
            bearing_deg: None,
            from_eyes: seen(light.position_m),
            locked: light.light.locked,
            movable: true,
            lifts: true,
        });
    }
    if let (Some((gear, at)), Some(used)) = (corner.microphone, &layout.microphone) {
        let worn = crate::corner::is_worn(gear.mounting);
        all.push(Handle {
            id: "microphone".into(),
            letter: "M".into(),
            name: if worn { "Microphone, worn or on the camera".into() } else { "Microphone".into() },
            position_m: used.position_m,
            aim_m: None,
            edge_m: None,
            foot_m: foot(&used.support, at),
            bearing_deg: None,
            from_eyes: seen(at),
            locked: used.locked,
            movable: !worn,
            lifts: true,
        });
    }
    if let (Some((gear, at)), Some(used)) = (corner.screen, &layout.screen) {
        let on_camera = used.support.kind == SupportKind::On && used.support.on.is_none();
        all.push(Handle {
            id: "screen".into(),
            letter: "D".into(),
            name: crate::units::capital(crate::shot::seeing::name(gear.screen)),
            position_m: used.position_m,
            aim_m: None,
            edge_m: None,
            foot_m: foot(&used.support, at),
            bearing_deg: None,
            from_eyes: seen(at),
            locked: used.locked,
            movable: gear.screen != crate::plan::ScreenType::Script || !on_camera,
            lifts: true,
        });
    }
    for (index, angle) in corner.angles.iter().enumerate() {
        all.push(Handle {
            id: angle.id.into(),
            letter: crate::plan::Angle::letter(index).into(),
            name: crate::units::capital(&angle.id.replace('-', " ")),
            position_m: angle.angle.position_m,
            aim_m: None,
            edge_m: None,
            foot_m: foot(&angle.angle.support, angle.view.position_m),
            bearing_deg: None,
            from_eyes: seen(angle.view.position_m),
            locked: angle.angle.locked,
            movable: true,
            lifts: true,
        });
    }
    if let Some((gear, used)) = corner.backdrop {
        all.push(Handle {
            id: "backdrop".into(),
            letter: "H".into(),
            name: gear.common.label.clone(),
            position_m: DVec3::new(used.position_m.0[0], used.position_m.0[1], 0.0).into(),
            aim_m: None,
            edge_m: None,
            foot_m: None,
            bearing_deg: Some(used.bearing_deg),
            from_eyes: None,
            locked: used.locked,
            movable: true,
            lifts: false,
        });
    }
    for (id, piece) in &corner.brief.room.furniture {
        let (position, bearing_deg) = corner.furniture_at(id, piece);
        all.push(Handle {
            id: id.0.clone(),
            letter: String::new(),
            name: crate::units::capital(&id.0.replace('-', " ")),
            position_m: position.into(),
            aim_m: None,
            edge_m: None,
            foot_m: None,
            bearing_deg: Some(bearing_deg),
            from_eyes: None,
            locked: layout.furniture.get(id).is_some_and(|at| at.locked),
            movable: !piece.fixed,
            lifts: false,
        });
    }
    all
}
