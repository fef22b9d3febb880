//! Everything that can be taken hold of, with its numbers: what lists and drawings offer.

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::{Corner, Source};
use crate::geometry::{DVec2, DVec3};
use crate::plan::{Angle, Plan, Point2, Point3, ScreenType, Support, SupportKind};
use crate::units::capital;

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
            bearing_deg: Some(layout.seat.bearing_deg),
            locked: layout.seat.locked,
            ..Handle::new("seat", "S", "Seat".into(), corner.eyes_m.into())
        },
        Handle {
            aim_m: Some(axis.into()),
            edge_m: Some(edge.into()),
            foot_m: foot(&camera.support, corner.view.position_m),
            from_eyes: seen(corner.view.position_m),
            locked: camera.locked,
            lifts: true,
            ..Handle::new("camera", "C", "Camera".into(), camera.position_m)
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
            aim_m: Some(light.aim_m.into()),
            foot_m: foot(&light.light.support, light.hold_m()),
            from_eyes: seen(light.position_m),
            locked: light.light.locked,
            lifts: true,
            ..Handle::new(light.id, light.light.role.letter(), capital(&name), light.light.position_m)
        });
    }
    if let (Some((gear, at)), Some(used)) = (corner.microphone, &layout.microphone) {
        let worn = crate::corner::is_worn(gear.mounting);
        let name = if worn { "Microphone, worn or on the camera" } else { "Microphone" };
        all.push(Handle {
            foot_m: foot(&used.support, at),
            from_eyes: seen(at),
            locked: used.locked,
            movable: !worn,
            lifts: true,
            ..Handle::new("microphone", "M", name.into(), used.position_m)
        });
    }
    if let (Some((gear, at)), Some(used)) = (corner.screen, &layout.screen) {
        let on_camera = used.support.kind == SupportKind::On && used.support.on.is_none();
        all.push(Handle {
            foot_m: foot(&used.support, at),
            from_eyes: seen(at),
            locked: used.locked,
            movable: gear.screen != ScreenType::Script || !on_camera,
            lifts: true,
            ..Handle::new("screen", "D", capital(crate::shot::seeing::name(gear.screen)), used.position_m)
        });
    }
    for (index, angle) in corner.angles.iter().enumerate() {
        let name = capital(&angle.id.replace('-', " "));
        all.push(Handle {
            foot_m: foot(&angle.angle.support, angle.view.position_m),
            from_eyes: seen(angle.view.position_m),
            locked: angle.angle.locked,
            lifts: true,
            ..Handle::new(angle.id, Angle::letter(index), name, angle.angle.position_m)
        });
    }
    if let Some((gear, used)) = corner.backdrop {
        let at = DVec2::from(used.position_m).extend(0.0);
        all.push(Handle {
            bearing_deg: Some(used.bearing_deg),
            locked: used.locked,
            ..Handle::new("backdrop", "H", gear.common.label.clone(), at.into())
        });
    }
    for (id, one) in &layout.treatment {
        all.push(Handle {
            locked: one.locked,
            lifts: !matches!(one.on.0.as_str(), "floor" | "ceiling"),
            ..Handle::new(&id.0, "", capital(&id.0.replace('-', " ")), one.position_m)
        });
    }
    for (id, piece) in &corner.brief.room.furniture {
        let (position, bearing_deg) = corner.furniture_at(id, piece);
        all.push(Handle {
            bearing_deg: Some(bearing_deg),
            locked: layout.furniture.get(id).is_some_and(|at| at.locked),
            movable: !piece.fixed,
            ..Handle::new(&id.0, "", capital(&id.0.replace('-', " ")), position.into())
        });
    }
    all
}

impl Handle {
    /// A thing on the floor that moves and has nothing else to take hold of.
    fn new(id: &str, letter: &str, name: String, position_m: Point3) -> Self {
        Self {
            id: id.to_owned(),
            letter: letter.to_owned(),
            name,
            position_m,
            aim_m: None,
            edge_m: None,
            foot_m: None,
            bearing_deg: None,
            from_eyes: None,
            locked: false,
            movable: true,
            lifts: false,
        }
    }
}
