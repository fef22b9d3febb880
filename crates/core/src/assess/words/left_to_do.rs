//! What a plan leaves to do where no move mends a finding: advice that looks at lens, room, stands and lamps first, so that nobody is
//! told to open a lens that is open or to raise a lamp under the ceiling.

use std::borrow::Cow;

use crate::corner::{Corner, LightAt, is_worn, lamp_offsets};
use crate::geometry::{DVec3, distance_to_edge};
use crate::plan::{Posture, Role, SupportKind};
use crate::shot::framing;
use crate::units::capital;

/// Room for a step back, m. Fogon's own rule.
const STEP_M: f64 = 0.30;
/// A stand that reaches less higher than this reaches no higher, m. Fogon's own rule.
const HIGHER_M: f64 = 0.10;
/// A lens within this of the angle that the frame itself leads to is where the frame wants it, degrees. Fogon's own rule.
const OF_THE_FRAME_DEG: f64 = 1.0;
/// What is no further off than this many times the nearest place stands as near as it may. Fogon's own rule.
const AS_NEAR: f64 = 1.15;

/// Things to do of which one will do, as a sentence.
pub(super) fn one_of(all: &[&str]) -> Cow<'static, str> {
    let words = match all {
        [first @ .., last] if !first.is_empty() => format!("{}, or {last}.", first.join(", ")),
        _ => format!("{}.", all.join("")),
    };
    capital(&words).into()
}

/// Neither focal length nor aperture can be changed, nor the lens.
pub(super) fn is_fixed(corner: &Corner<'_>) -> bool {
    let lens = corner.lens;
    lens.built_into.is_some() && !lens.zooms() && lens.f_number_limit <= lens.f_number_at_min + 0.05
}

/// The lens can be zoomed further in.
fn can_zoom_in(corner: &Corner<'_>) -> bool {
    corner.lens.zooms_in_from(corner.layout.camera.focal_length_mm)
}

/// Behind the camera is room for it, and for everything before it, to go back by a step.
fn has_room_ahead(corner: &Corner<'_>) -> bool {
    let lens = corner.view.position_m.truncate();
    let to_edge = distance_to_edge(&corner.floor_m, lens, corner.to_lens().truncate());
    to_edge > crate::corner::behind_sensor_m(corner.body, corner.lens, SupportKind::Floor) + STEP_M
}

/// What would bring the lens to the height of the eyes, where nothing that is at hand does.
pub(super) fn lens_height_advice(corner: &Corner<'_>, view_angle_deg: f64) -> Cow<'static, str> {
    let camera = &corner.layout.camera;
    let stand = corner.support_gear(&camera.support).filter(|_| camera.support.kind == SupportKind::Floor);
    let lacks_m = corner.eyes_m.z - corner.view.position_m.z;
    if stand.is_some_and(|stand| corner.camera_hold_m().z + lacks_m.max(0.0) > stand.height_max_m) {
        return "The stand of the camera reaches no higher: a taller one brings the lens to your eyes."
            .into();
    }
    let to_lens = crate::geometry::bearing_of(corner.to_lens());
    let (focal, image, eyes) = (camera.focal_length_mm, corner.image_mm.1, corner.eyes_m);
    let pose = framing::pose(corner.brief, &crate::shot::wanted_of(corner), focal, image, eyes, to_lens);
    let off = pose.position_m - eyes;
    let framed_deg = off.z.atan2(off.x.hypot(off.y)).to_degrees();
    let is_of_the_frame = (framed_deg - view_angle_deg).abs() < OF_THE_FRAME_DEG;
    match (is_of_the_frame, can_zoom_in(corner)) {
        (false, _) => "Set the lens at eye height.".into(),
        (true, true) if has_room_ahead(corner) => {
            "From so near, the lens has to stand low to frame you. Move the camera back and zoom in, and it comes up.".into()
        }
        (true, _) => "From so near, the lens has to stand low to frame you; from further back it would stand higher.".into(),
    }
}

/// What would make the background softer, of what lens and room still give.
pub(super) fn softer_advice(corner: &Corner<'_>) -> Cow<'static, str> {
    let has_room = has_room_ahead(corner);
    let mut all = Vec::new();
    if has_room {
        all.push(match corner.brief.person.posture {
            Posture::Seated => "sit further from the wall",
            Posture::Standing => "stand further from the wall",
        });
    }
    if can_open(corner) {
        all.push("open the aperture");
    }
    if has_room && can_zoom_in(corner) {
        all.push("zoom in from further back");
    }
    if is_fixed(corner) {
        all.push("light yourself more than the wall");
        return format!("A sensor this small keeps it sharp: {}.", all.join(" and ")).into();
    }
    if all.is_empty() {
        return "This lens gives no more in this room; light yourself more than the wall.".into();
    }
    one_of(&all)
}

/// How much higher a lamp may go where it is: under the ceiling, and on its stand, m.
fn rise_left_m(corner: &Corner<'_>, light: &LightAt<'_>) -> [f64; 2] {
    let at = light.position_m;
    let towards = (at - corner.eyes_m).normalize_or(corner.view.forward);
    let top_m = lamp_offsets(light, towards).iter().map(|offset| offset.z).fold(0.0, f64::max);
    let stand = corner.support_gear(&light.light.support).filter(|_| light.light.support.on.is_none());
    let on_stand_m = stand.map_or(f64::INFINITY, |stand| stand.height_max_m - light.hold_m().z);
    [corner.brief.room.ceiling_m(at.truncate()) - at.z - top_m, on_stand_m]
}

/// Whether ceiling and stand let a lamp rise to so many degrees above the eyes, as far off as it is.
pub(super) fn can_rise_to(corner: &Corner<'_>, light: &LightAt<'_>, elevation_deg: f64) -> bool {
    let off = light.position_m - corner.eyes_m;
    let rise_m = off.length() * elevation_deg.to_radians().sin() - off.z;
    rise_left_m(corner, light).into_iter().all(|left_m| rise_m <= left_m)
}

/// What would bring the key higher, where moving it does not do.
pub(super) fn raise_advice(corner: &Corner<'_>) -> &'static str {
    let Some(key) = corner.role(Role::Key).next() else {
        return "Cover the lower part of the window, or move further from it.";
    };
    let [under_ceiling_m, on_stand_m] = rise_left_m(corner, key);
    if under_ceiling_m < STEP_M {
        "The ceiling lets it no higher; a smaller lamp would go higher."
    } else if on_stand_m < HIGHER_M {
        "Its stand goes no higher; a taller one would."
    } else {
        "Raise the key where the room lets you."
    }
}

/// What would make the key softer, where moving it does not do.
pub(super) fn key_size_advice(corner: &Corner<'_>) -> &'static str {
    let Some(key) = corner.role(Role::Key).next() else {
        return "Move nearer to what lights you.";
    };
    let off = key.position_m - corner.eyes_m;
    let towards = off.normalize_or(corner.view.forward);
    let nearest = crate::light::placement::nearest_m(corner, key, towards);
    if nearest.is_some_and(|nearest| off.length() <= nearest * AS_NEAR) {
        "It stands as near as the picture lets it: put a larger modifier on it."
    } else {
        "Bring the key nearer where the room lets you, or put a larger modifier on it."
    }
}

/// The microphone is as near to the mouth as the picture lets it, or worn.
pub(super) fn is_as_near_as_may_be(corner: &Corner<'_>) -> bool {
    let (gear, at) = corner.heard_by();
    if is_worn(gear.mounting) {
        return true;
    }
    let away = |at: DVec3| (at - corner.mouth_m).length();
    let places = crate::sound::placement::places(corner, gear, 1.0);
    let nearest = places.into_iter().map(away).fold(f64::INFINITY, f64::min);
    away(at) <= nearest * AS_NEAR
}

/// What brings more light onto the sensor at one ISO.
pub(super) fn more_light(corner: &Corner<'_>) -> Vec<&'static str> {
    let has_key = corner.role(Role::Key).next().is_some();
    let lamp = if has_key { "use a stronger or nearer key" } else { "light your face with a lamp" };
    can_open(corner).then_some("open the aperture").into_iter().chain([lamp]).collect()
}

/// The lens is not as far open as it goes.
fn can_open(corner: &Corner<'_>) -> bool {
    let camera = &corner.layout.camera;
    camera.f_number > 1.01 * corner.lens.widest_f_number(camera.focal_length_mm)
}
