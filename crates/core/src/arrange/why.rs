//! Where everything stands and what put it there, in plain sentences. Only what is true of the corner as it is
//! drawn is said, so a layout moved by hand is described as honestly as a proposed one.

use super::furnish::window_lean_m;
use super::left_out::left_out;
use super::placed::{Placed, stands};
use super::seats::nearest_facing;
use crate::colour::mired_shift;
use crate::corner::{Corner, LightAt, Thing, What, is_of_the_house, is_worn, things};
use crate::light::{field::at_face, flare_margin_deg, placement};
use crate::plan::{CameraHeight, Mounting, Plan, Purpose, Role, ScreenType, ThingId};
use crate::reading::{Quantity, Standing};
use crate::shot::seeing;
use crate::sound;
use crate::units::{UnitSystem, beside_lens, capital, decimals, degrees, focal_mm};

/// Beyond its margin by no more than this, a thing is as near as the picture allows, m.
const SNUG_M: f64 = 0.04;

/// A wall so near beside the person works as a fill, m. Fogon's own rule.
const FILLS_M: f64 = 0.8;

/// Colours that differ by so much differ on purpose, mired. Fogon's own rule.
const APART_MIRED: f64 = 60.0;

/// Where everything stands and why, in the order the marks are laid; empty where the plan does not resolve.
pub fn why(plan: &Plan) -> Vec<Placed> {
    let Some(corner) = Corner::of(plan) else { return Vec::new() };
    let solids = things(&corner);
    let mut all = vec![seat(&corner), camera(&corner)];
    for role in Role::IN_ORDER {
        all.extend(corner.role(role).map(|light| lit(&corner, light, &solids)));
    }
    all.extend(left_out(&corner));
    all.extend(microphone(&corner, &solids));
    all.extend(screen(&corner));
    all
}

fn seat(corner: &Corner<'_>) -> Placed {
    let units = corner.brief.units;
    let eyes = corner.eyes_m;
    let behind = corner.background_behind_m();
    let distance = match stands(corner, Quantity::RoomBackgroundBehindM, behind) {
        Standing::Poor => "too little to separate you from it",
        Standing::Fair => "enough to separate you from it a little",
        _ => "enough to separate you from it",
    };
    Placed {
        letter: "S",
        thing: "Seat".into(),
        place: format!(
            "{}, {}, facing {}.",
            from_wall(units, eyes.x, "left"),
            from_wall(units, eyes.y, "back"),
            nearest_facing(corner.brief, crate::geometry::bearing_of(corner.to_lens()))
        ),
        why: format!(
            "This leaves {} to the wall behind you, {distance}.{}",
            units.length(behind),
            wall_that_fills(corner).map_or(String::new(), |wall| {
                format!(
                    " {}, near on the other side from the key, reflects light into the shadows.",
                    capital(&wall)
                )
            })
        ),
    }
}

/// The wall beside the person that does the work of a fill: near, across from the key, with no fill set up.
fn wall_that_fills(corner: &Corner<'_>) -> Option<String> {
    let key = corner.role(Role::Key).next()?;
    if corner.role(Role::Fill).next().is_some() {
        return None;
    }
    let (azimuth, _) = corner.light_angles_deg(key.position_m);
    let eyes = corner.eyes_m.truncate();
    let across = corner.view.right.truncate() * -azimuth.signum();
    let near = crate::geometry::distance_to_edge(&corner.floor_m, eyes, across) < FILLS_M;
    let room = &corner.brief.room;
    near.then(|| room.wall_met(eyes, across)).flatten().map(|wall| room.wall_name(wall))
}

/// How far from a wall, on which side of it.
fn from_wall(units: UnitSystem, off_m: f64, wall: &str) -> String {
    let word = if off_m < 0.0 { "beyond" } else { "from" };
    format!("{} {word} the {wall} wall", units.length(off_m.abs()))
}

fn camera(corner: &Corner<'_>) -> Placed {
    let units = corner.brief.units;
    let camera = &corner.layout.camera;
    let wanted = crate::shot::wanted_of(corner);
    let shot = match corner.brief.purpose {
        Purpose::TalkToLens | Purpose::AuditionTape | Purpose::KeyedBackground => "from the chest up",
        Purpose::ScreenLesson => "head and shoulders",
        Purpose::Performance => "with your instrument",
        Purpose::VerticalShort => "from the waist up, upright",
    };
    let error = crate::shot::framed_height_m(corner) / wanted.frame_height_m - 1.0;
    let framing = if error.abs() <= 0.05 {
        format!("At {} mm this is the distance that frames you {shot}", focal_mm(camera.focal_length_mm))
    } else {
        format!(
            "At {} mm this frames {} % {} than you {shot}",
            focal_mm(camera.focal_length_mm),
            decimals(100.0 * error.abs(), 0),
            if error > 0.0 { "more" } else { "less" }
        )
    };
    let crop = cropped(corner).map_or(String::new(), |words| format!(" {}.", capital(&words)));
    let rise = corner.view.position_m.z - corner.eyes_m.z;
    let level = match (corner.brief.purpose, corner.brief.schools.camera_height) {
        (Purpose::AuditionTape, _) if rise.abs() < 0.05 => "The lens looks level, as such tapes ask for",
        (_, CameraHeight::Level) if rise.abs() < 0.05 => {
            "The lens at eye height looks neither down nor up at you"
        }
        (_, CameraHeight::SlightlyBelow) if rise < 0.0 => {
            "The lens stands a little below the eyes, as you chose"
        }
        _ if rise > 0.0 => "The lens looks down on you",
        _ if camera.tilt_deg > 0.0 => "The lens looks up at you",
        _ => "The lens stands a little below your eyes",
    };
    Placed {
        letter: "C",
        thing: "Camera".into(),
        place: format!(
            "{} from the eyes, lens {} high{}.",
            units.length(corner.lens_to_eyes_m()),
            units.length(corner.view.position_m.z),
            carried(corner, &ThingId::Camera)
        ),
        why: format!("{framing}.{crop} {level}."),
    }
}

/// What carries a thing that does not stand on the floor, after a comma.
fn carried(corner: &Corner<'_>, id: &ThingId) -> String {
    let words = corner.layout.part(id).and_then(|part| corner.carried_words(part));
    words.map_or(String::new(), |words| format!(", {words}"))
}

/// How a picture is cut out of what is recorded, and what that costs; `None` of one that is not.
pub(super) fn cropped(corner: &Corner<'_>) -> Option<String> {
    let crop = corner.layout.camera.crop;
    let (recorded, _) = crate::shot::recording::video_width_px(corner);
    (crop > 1.0).then(|| {
        format!(
            "the edit keeps {} of the {} recorded pixels across, and the grain grows by {} stops",
            decimals(recorded / crop, 0),
            decimals(recorded, 0),
            decimals(2.0 * crop.log2(), 1)
        )
    })
}

fn lit(corner: &Corner<'_>, light: &LightAt<'_>, solids: &[Thing]) -> Placed {
    let (azimuth, elevation) = corner.light_angles_deg(light.position_m);
    let side_sign = if azimuth < 0.0 { -1.0 } else { 1.0 };
    let mut reasons: Vec<String> = Vec::new();
    match light.light.role {
        Role::Key => {
            let angle = |id: Quantity, value: f64| stands(corner, id, value) == Standing::Good;
            if angle(Quantity::LightKeyAzimuthDeg, azimuth.abs())
                && angle(Quantity::LightKeyElevationDeg, elevation)
            {
                reasons.push("To the side and above the eyes, it models the face".into());
            } else {
                reasons
                    .push("30 to 45 degrees to the side and 15 to 45 up would model the face better".into());
            }
            if window_lean_m(corner).is_some_and(|lean| lean * side_sign > 0.0) {
                reasons.push("It comes from the window's side, as the eye expects".into());
            }
            if snug(corner, &ThingId::Light(light.id.clone()), solids, placement::MARGIN_M) {
                reasons.push(
                    "It is as near, and so as soft, as head and stand can be out of the picture".into(),
                );
            }
        }
        Role::Back => {
            let margin = flare_margin_deg(corner, light.position_m);
            let clear = if margin >= 0.0 {
                format!("{} clear of the lens", degrees(margin))
            } else {
                "though it may flare in the lens".into()
            };
            reasons
                .push(format!("Behind you and high, {clear}, it separates hair and shoulders from the wall"));
        }
        Role::Fill => {
            let lit = at_face(corner);
            reasons.push(format!(
                "Opposite the key, it lifts the shadow side: the lit side has {} times its light",
                decimals(lit.lit_lx / lit.shadow_lx, 1)
            ));
        }
        Role::Background => {
            reasons.push("Beside the picture, it lifts the wall behind you off the dark".into());
            let coloured = light.light.colour.is_some() || apart_mired(corner, light) >= APART_MIRED;
            if coloured {
                reasons.push("Its colour differs from the key's, so that you stand out".into());
            }
        }
        Role::Practical if is_of_the_house(light) => {
            reasons
                .push("A lamp of the house: off, unless you want it; from above it darkens the eyes".into());
        }
        Role::Practical => {
            reasons.push("Seen in the picture behind you, it gives the room depth; dimmed so that it does not burn out".into());
        }
    }
    Placed {
        letter: light.light.role.letter(),
        thing: capital(&light.called()),
        place: format!(
            "{}, {} {}, {} from the eyes, middle {} high{}.",
            beside_lens(azimuth),
            degrees(elevation.abs()),
            if elevation < 0.0 { "down" } else { "up" },
            corner.brief.units.length((light.position_m - corner.eyes_m).length()),
            corner.brief.units.length(light.position_m.z),
            carried(corner, &ThingId::Light(light.id.clone()))
        ),
        why: format!("{}.", reasons.join(". ")),
    }
}

/// How far a lamp's colour lies from the key's, mired.
fn apart_mired(corner: &Corner<'_>, light: &LightAt<'_>) -> f64 {
    let key = corner.role(Role::Key).next();
    key.map_or(0.0, |key| mired_shift(key.cct_k(), light.cct_k()).abs())
}

fn microphone(corner: &Corner<'_>, solids: &[Thing]) -> Option<Placed> {
    let (gear, capsule) = corner.microphone?;
    let distance = corner.brief.units.length((capsule - corner.mouth_m).length());
    let why = if is_worn(gear.mounting) {
        match gear.mounting {
            Mounting::BuiltIn | Mounting::OnCamera => "At the camera it needs no stand.".to_owned(),
            Mounting::Lavalier | Mounting::Headset | Mounting::Boom | Mounting::Desk => {
                "Worn, it needs no stand and goes where you go.".to_owned()
            }
        }
    } else if sound::placement::may_show(corner, gear) {
        "It may be in the picture, so it stands where it hears best.".into()
    } else if snug(corner, &ThingId::Microphone, solids, sound::placement::MARGIN_M) {
        "Nearness beats every other figure of a microphone: it is as near as the picture's edge allows."
            .into()
    } else {
        let aim = if corner.brief.purpose == Purpose::Performance {
            "between mouth and instrument"
        } else {
            "at the mouth"
        };
        format!("It is out of the picture and aimed {aim}; nearer would be better still.")
    };
    Some(Placed {
        letter: "M",
        thing: "Microphone".into(),
        place: format!(
            "{distance} from the mouth, {} high{}.",
            corner.brief.units.length(capsule.z),
            carried(corner, &ThingId::Microphone)
        ),
        why,
    })
}

fn screen(corner: &Corner<'_>) -> Option<Placed> {
    let (gear, at) = corner.screen?;
    let seen = seeing::watched(corner)?;
    let (aside, up) = seen.off_lens_deg(corner);
    let units = corner.brief.units;
    let why = match (gear.screen, seeing::gaze_class(aside, up)) {
        (ScreenType::Script, _) => {
            format!(
                "The eyes meet the lens through it; it takes {} stops of light",
                decimals(corner.glass_stops(), 1)
            )
        }
        (_, seeing::Gaze::Direct) => {
            "Just below the lens a look at it passes for a look into the lens".into()
        }
        (_, seeing::Gaze::Soft) => "A look at it shows a little; nearer below the lens it would not".into(),
        (_, seeing::Gaze::OffLens) => {
            "To see the framing before a take; during it, look into the lens".into()
        }
    };
    Some(Placed {
        letter: "D",
        thing: capital(gear.screen.word()),
        place: format!(
            "{} from the eyes, {} high, {} off the lens.",
            units.length((at - corner.eyes_m).length()),
            units.length(at.z),
            degrees(aside.hypot(up))
        ),
        why: format!("{why}."),
    })
}

/// Whether a thing, or what carries it, is as near to the picture as its margin allows.
fn snug(corner: &Corner<'_>, id: &ThingId, solids: &[Thing], margin_m: f64) -> bool {
    let near = |margin: f64, solid| corner.view.clearance_m(solid) <= margin + SNUG_M;
    solids.iter().find(|t| t.id == *id).is_some_and(|thing| {
        thing.pieces.iter().any(|part| {
            near(if part.what == What::Head { margin_m } else { placement::MARGIN_M }, &part.solid)
        })
    })
}
