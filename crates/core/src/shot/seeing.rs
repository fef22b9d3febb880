//! Seeing oneself: how far the eyes leave the lens, and whether a screen can be read from the seat.

use crate::corner::Corner;
use crate::geometry::DVec3;
use crate::plan::{GearMonitor, ScreenType};
use crate::reading::{Origin, Quantity, Reading};

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

/// Sharpest detail that an eye of decimal acuity 1 parts, minutes of arc (ISO 8596, from memory).
const ACUITY_ARCMIN: f64 = 1.0;
/// Width of the screen on a camera's back where nobody gives it, m, and its place behind the lens. Fogon's own rule.
const REAR_SCREEN_M: f64 = 0.075;
const REAR_BEHIND_LENS_M: f64 = 0.10;
/// A flip screen beside the body is so far from the lens, m (common practice, no source).
const FLIP_ASIDE_M: f64 = 0.09;
/// Pixels across a screen where nobody gives them.
const SCREEN_PX: f64 = 1920.0;
/// Half the height of a camera's body and a finger, m.
const BODY_M: f64 = 0.06;
/// A screen below the lens hangs so far before the middle of the tripod, m.
const BEFORE_COLUMN_M: f64 = 0.06;
/// Em over capital, and width of a letter over its em (common practice, no source).
const CAPITAL_PER_EM: f64 = 0.7;
const LETTER_PER_EM: f64 = 0.5;
/// A script's column stays within this either side of the lens, degrees (common practice, no source).
pub const COLUMN_DEG: f64 = 2.0;
/// Letters of a moving script, minutes of arc (common practice, no source: 25 to 40 is comfortable, 20 the least).
const SCRIPT_ARCMIN: f64 = 20.0;
/// Getting up and sitting down again, s, and walking speed, m/s. Fogon's own rule.
const UP_AND_DOWN_S: f64 = 6.0;
const WALK_M_S: f64 = 0.8;

/// How eyes on a screen look to the viewer. Chen, CHI 2002 (from memory): about ten times more is tolerated below the
/// lens than beside or above it; the classes are Fogon's own rule on that.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Gaze {
    /// As if into the lens: within 1 degree aside, 5 down, 1 up.
    Direct,
    /// Slightly off: within 4 degrees aside, 10 down, 4 up.
    Soft,
    /// Seen to look elsewhere.
    OffLens,
}

/// The class of a gaze: degrees aside (either side) and up (+) or down (-) from the lens.
pub fn gaze_class(aside_deg: f64, up_deg: f64) -> Gaze {
    let within = |aside: f64, down: f64, up: f64| aside_deg.abs() <= aside && up_deg >= -down && up_deg <= up;
    if within(1.0, 5.0, 1.0) {
        Gaze::Direct
    } else if within(4.0, 10.0, 4.0) {
        Gaze::Soft
    } else {
        Gaze::OffLens
    }
}

/// What the person sees themselves on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Watched {
    /// What it is.
    pub what: &'static str,
    /// The point looked at, m.
    pub at_m: DVec3,
    /// Width of the picture, m, and where that comes from.
    pub width_m: (f64, Origin),
    /// Pixels across.
    pub width_px: f64,
    /// From the eyes to the picture along the light's way, m.
    pub path_m: f64,
}

impl Watched {
    /// Degrees from the lens as the eyes see it: aside, positive to camera right, and up.
    pub fn off_lens_deg(&self, corner: &Corner<'_>) -> (f64, f64) {
        let (aside, up) = corner.light_angles_deg(self.at_m);
        (aside, up - corner.light_angles_deg(corner.view.position_m).1)
    }
}

/// What this corner's person sees themselves on, if anything is known of it.
pub fn watched(corner: &Corner<'_>) -> Option<Watched> {
    let eyes = corner.eyes_m;
    let flip = corner.body.flip_screen_width_m;
    let Some((screen, at_m)) = corner.screen else {
        let at_m = corner.view.position_m - corner.view.right * FLIP_ASIDE_M;
        return flip.map(|width| Watched {
            what: "flip screen",
            at_m,
            width_m: (width, corner.body.common.figures_from()),
            width_px: SCREEN_PX / 2.0,
            path_m: (at_m - eyes).length(),
        });
    };
    let (width, path) = match screen.screen {
        ScreenType::Mirror => {
            let back = corner.view.position_m - corner.view.forward * REAR_BEHIND_LENS_M;
            let rear =
                flip.map_or((REAR_SCREEN_M, Origin::Assumed), |w| (w, corner.body.common.figures_from()));
            (rear, (at_m - eyes).length() + (back - at_m).length())
        }
        // The script lies under the glass, as far from it as it is wide.
        ScreenType::Script => (screen.width(), (at_m - eyes).length() + screen.width().0),
        _ => (screen.width(), (at_m - eyes).length()),
    };
    // Through a script glass the eyes meet the lens itself.
    let at_m = if screen.screen == ScreenType::Script { corner.view.position_m } else { at_m };
    Some(Watched {
        what: screen.screen.word(),
        at_m,
        width_m: width,
        width_px: screen.width_px.unwrap_or(SCREEN_PX),
        path_m: path,
    })
}

/// Where a screen could be, best first: as near below the lens as it goes, for there the eyes may stray furthest;
/// then above, then beside. Whether a place is legal is not asked here.
pub fn places(corner: &Corner<'_>, screen: &GearMonitor) -> Vec<DVec3> {
    let (lens, eyes) = (corner.view.position_m, corner.eyes_m);
    let back = corner.view.forward.with_z(0.0).normalize_or_zero() * -1.0;
    let right = corner.view.right;
    let (half_width, half_height) = (screen.width().0 / 2.0, screen.height_m() / 2.0);
    // In the line of the eyes past the lens, so much behind it.
    let past = |behind: f64, above: f64| {
        let at = lens + back * behind + DVec3::Z * above;
        let stretch = (at - eyes).truncate().length() / (lens - eyes).truncate().length().max(0.05);
        at + DVec3::Z * ((lens.z + above - eyes.z) * (stretch - 1.0))
    };
    match screen.screen {
        ScreenType::Field | ScreenType::Phone => vec![
            // Before the tripod's column, under the picture's lower edge.
            lens - back * BEFORE_COLUMN_M - DVec3::Z * (BODY_M + 0.015 + half_height),
            lens - back * BEFORE_COLUMN_M - DVec3::Z * (BODY_M + 0.05 + half_height),
            lens + DVec3::Z * (BODY_M + half_height),
            lens - right * (0.08 + half_width),
            lens + right * (0.08 + half_width),
        ],
        ScreenType::Television | ScreenType::Laptop | ScreenType::Mirror => {
            // Behind the spread feet of the tripod, else wherever it goes.
            let reach = [0.75, 0.95, 1.2, 0.5, 0.35];
            let below = |behind: &f64| past(*behind, -BODY_M) - DVec3::Z * half_height;
            let above = |behind: &f64| past(*behind, BODY_M) + DVec3::Z * half_height;
            reach.iter().map(below).chain(reach.iter().map(above)).collect()
        }
        ScreenType::Script => vec![lens + corner.view.forward * (0.06 + half_width)],
    }
}

/// Largest part of the picture's width that an unsharp point may blur over, to that which the eye parts on the
/// screen: the magnification it takes an eye of decimal `acuity` to judge focus; 1 or less needs none.
pub fn focus_magnification(
    path_m: f64,
    width_m: f64,
    width_px: f64,
    image_mm: (f64, f64),
    acuity: f64,
) -> f64 {
    let parted = path_m * (ACUITY_ARCMIN / acuity / 60.0).to_radians().tan();
    let seen = parted.max(width_m / width_px) / width_m;
    seen * image_mm.0.max(image_mm.1) / super::lens::circle_of_confusion_mm(image_mm)
}

/// Height of a capital under an angle, mm.
pub fn capital_mm(path_m: f64, arcmin: f64) -> f64 {
    2000.0 * path_m * (arcmin / 120.0).to_radians().tan()
}

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = vec![walk(corner)];
    let Some(seen) = watched(corner) else { return all };
    let (aside, up) = seen.off_lens_deg(corner);
    let class = match gaze_class(aside, up) {
        Gaze::Direct => "It passes for a look into the lens.",
        Gaze::Soft => "A glance, slightly off the lens.",
        Gaze::OffLens => "Seen to look elsewhere: use it before the take, then look into the lens.",
    };
    all.push(
        Reading::new(Quantity::ShotScreenGazeDeg, aside.hypot(up))
            .by(
                "angle at the eyes between lens and screen",
                "Chen, CHI 2002 (from memory): 5 degrees down, 1 aside or up pass",
            )
            .with("aside, positive to camera right", aside, "\u{b0}", Origin::Computed)
            .with("up", up, "\u{b0}", Origin::Computed)
            .with("eyes to screen", seen.path_m, "m", Origin::Computed)
            .note(format!("On the {}. {class}", seen.what)),
    );
    let (width, from) = seen.width_m;
    let (acuity, acuity_from) = crate::person::given(corner.brief.person.acuity, 1.0);
    all.push(
        Reading::new(
            Quantity::ShotScreenFocusTimes,
            focus_magnification(seen.path_m, width, seen.width_px, corner.image_mm, acuity),
        )
        .by("max(D tan(1' / acuity), W / px) / W over c / image width", "1 minute of arc: ISO 8596 (from memory)")
        .with("eyes to screen", seen.path_m, "m", Origin::Computed)
        .with("width of the screen", width, "m", from)
        .with("pixels across", seen.width_px, "px", Origin::Assumed)
        .with("visual acuity", acuity, "", acuity_from)
        .note("Up to 1 \u{d7} sharpness can be judged from the seat. Above that, magnify the picture so many times, or play back and look near."),
    );
    // Eyes that see less need larger letters; sharper ones are not asked to strain.
    let larger = 1.0 / acuity.min(1.0);
    let letter = capital_mm(seen.path_m, LEGIBLE_ARCMIN * larger);
    all.push(
        Reading::new(Quantity::ShotScreenLetterMm, letter)
            .by("2 D tan(16' / 2 acuity)", "16 minutes of arc: ISO 9241-303 (from memory)")
            .with("eyes to screen", seen.path_m, "m", Origin::Computed)
            .with("visual acuity", acuity, "", acuity_from)
            .with(
                "letters across the screen",
                width * 1000.0 * CAPITAL_PER_EM / (LETTER_PER_EM * letter),
                "",
                Origin::Computed,
            )
            .note("Smaller capitals cannot be read from the seat."),
    );
    all.extend(glass(corner));
    if corner.brief.recording.script_words.is_some() {
        all.extend(column(&seen, larger));
    }
    all
}

/// How wide a script glass is against what the lens sees through it; below 1 its edge shows.
fn glass(corner: &Corner<'_>) -> Option<Reading> {
    let (screen, at) = corner.screen.filter(|(gear, _)| gear.screen == ScreenType::Script)?;
    let camera = &corner.layout.camera;
    let (width, from) = screen.width();
    let off = corner.view.depth_m(at);
    let pupil_m = camera.focal_length_mm / camera.f_number / 1000.0;
    // The glass leans at 45 degrees: its far edge is half its width further off, and has to cover the most.
    let farthest = off + width / 2.0;
    let seen = corner.view.frame_width_m(farthest) + pupil_m;
    let reading = Reading::new(Quantity::ShotScreenGlassTimes, width / seen)
        .by("width / (field where the glass is farthest + f / N)", "geometry; glass at 45 degrees")
        .with("width of the glass", width, "m", from)
        .with("lens to its far edge", farthest, "m", Origin::Computed)
        .with("field there with the pupil", seen, "m", Origin::Computed)
        .note("Below 1 the edge of the glass shows: bring it nearer, use a longer lens, or a larger glass.");
    Some(reading)
}

/// A script's column as wide as the screen: how far the eyes sweep, and how many letters a line of legible size holds.
fn column(seen: &Watched, larger: f64) -> [Reading; 2] {
    let (width, from) = seen.width_m;
    let half = (width / (2.0 * seen.path_m)).atan().to_degrees();
    let line = (width / 2.0).min(seen.path_m * COLUMN_DEG.to_radians().tan()) * 2.0;
    let letter_mm = capital_mm(seen.path_m, SCRIPT_ARCMIN * larger);
    [
        Reading::new(Quantity::ShotScriptColumnDeg, half)
            .by(
                "atan(w / 2D)",
                "up to 1 degree unseen: Chen, CHI 2002 (from memory); 2 accepted: common practice",
            )
            .with("width of the column", width, "m", from)
            .with("eyes to script", seen.path_m, "m", Origin::Computed)
            .with(
                "column within 2 degrees",
                2.0 * seen.path_m * COLUMN_DEG.to_radians().tan(),
                "m",
                Origin::Computed,
            ),
        Reading::new(
            Quantity::ShotScriptLetters,
            line * 1000.0 * CAPITAL_PER_EM / (LETTER_PER_EM * letter_mm),
        )
        .by(
            "column x 0.7 / (0.5 x capital), within 2 degrees",
            "capital of 20 minutes of arc: ISO 9241-303 (from memory)",
        )
        .with("column used", line, "m", Origin::Computed)
        .with("capital", letter_mm, "mm", Origin::Computed)
        .note("At a fixed angle of the letters, moving back does not lengthen the line."),
    ]
}

/// Getting up to the camera and back; a remote saves it at every take.
fn walk(corner: &Corner<'_>) -> Reading {
    let distance = (corner.view.position_m - corner.eyes_m).truncate().length();
    let remote = corner.brief.gear.values().filter(|g| g.at_hand());
    let has = remote.clone().any(|g| g.common().offers("remote"));
    Reading::new(Quantity::ShotCameraWalkS, 2.0 * distance / WALK_M_S + UP_AND_DOWN_S)
        .by("2 x distance / 0.8 m/s + 6 s", "Fogon's own rule, until you time yourself")
        .with("seat to camera", distance, "m", Origin::Computed)
        .note(if has {
            "A remote is at hand: it saves this at every take."
        } else {
            "What a remote trigger or a remote-controlled head would save at every take."
        })
}
