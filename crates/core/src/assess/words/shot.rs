//! Findings of the shot that are no single reading's: a session that does not fit, stripes that crawl, a script that is
//! read beside the lens.

use crate::corner::{AngleAt, Corner};
use crate::finding::{Finding, Severity};
use crate::plan::{FurnitureKind, MonitorSchool, Purpose, ScreenType};
use crate::reading::Reading;
use crate::shot::angles::{JUMP_DEG, off_axis_deg};
use crate::shot::behind::{backdrop_margin_m, behind, has_key_screen, wants_plain};
use crate::shot::cloth::{Moire, moire_delivered, stripes_px};
use crate::shot::recording::{too_short, too_slow_mb_s};
use crate::shot::seeing::{Gaze, gaze_class, watched};
use crate::units::decimals;

/// Edges that lean by more than this are seen on shelves and doors, degrees (common practice, no source).
const LEAN_SEEN_DEG: f64 = 3.0;
/// More small things than this behind a person distract. Fogon's own rule.
const SMALL_MOST: usize = 5;
/// Frames that differ by more than this are told, percent. Fogon's own rule.
const FLICKER_PERCENT: f64 = 2.0;
/// A face stretched by more than this is seen, percent. Fogon's own rule.
const STRETCH_SEEN_PERCENT: f64 = 5.0;

pub(super) fn notes(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let value = |id: &str| readings.iter().find(|r| r.id == id).and_then(|r| r.value);
    let mut all = Vec::new();
    all.extend(session(corner));
    all.extend(slow_card(corner));
    all.extend(stripes(corner));
    all.extend(script(corner));
    all.extend(no_screen(corner));
    all.extend(background(corner));
    all.extend(corner.angles.iter().filter_map(|angle| jump(corner, angle)));
    if let Some(factor) = value("shot.recording.reframe_factor").filter(|factor| *factor < 1.0 - 1e-9) {
        all.push(
            Finding::new(
                "shot.recording.enlarged",
                Severity::Consider,
                format!("What is delivered has {} times the pixels recorded.", decimals(1.0 / factor, 2)),
            )
            .because("A picture that is enlarged is soft.", "arithmetic of the raster")
            .on("shot.recording.reframe_factor", Some(factor), "\u{d7}")
            .advise("Record larger, or deliver smaller."),
        );
    }
    if let Some(times) = value("shot.screen.glass_times").filter(|times| *times < 1.0) {
        all.push(
            Finding::new(
                "shot.screen.glass",
                Severity::Consider,
                format!(
                    "The script glass covers {} % of what the lens sees: its edge shows.",
                    decimals(100.0 * times, 0)
                ),
            )
            .because("The lens looks through the glass; beyond it stands its frame.", "geometry")
            .on("shot.screen.glass_times", Some(times), "\u{d7}")
            .advise(
                "Use a larger glass, a longer lens from further back, or bring the glass nearer to the lens.",
            ),
        );
    }
    if let Some(ripple) = value("shot.exposure.flicker_percent").filter(|ripple| *ripple > FLICKER_PERCENT) {
        let shutter = 1.0 / corner.layout.camera.shutter_s;
        all.push(
            Finding::new(
                "shot.exposure.flicker_percent",
                Severity::Consider,
                format!(
                    "At 1/{} s a lamp on the mains can flicker by up to {} %.",
                    decimals(shutter, 0),
                    decimals(ripple, 0)
                ),
            )
            .because("Lamps pulse at twice the mains frequency.", "2 %: Fogon's own rule")
            .on("shot.exposure.flicker_percent", Some(ripple), "%")
            .advise("Choose a shutter of whole pulses, or light by daylight, batteries or a lamp that is told to be free of flicker."),
        );
    }
    if let Some(stretch) = value("shot.frame.stretch_percent").filter(|s| *s > STRETCH_SEEN_PERCENT) {
        all.push(
            Finding::new(
                "shot.frame.stretched",
                Severity::Consider,
                format!(
                    "At the side of this wide picture the face comes out {} % wider.",
                    decimals(stretch, 0)
                ),
            )
            .because("Away from the axis a wide lens stretches what it draws.", "perspective geometry")
            .on("shot.frame.stretch_percent", Some(stretch), "%")
            .advise("Bring the face nearer to the middle, or move back and zoom in."),
        );
    }
    if let Some(lean) = value("shot.frame.edge_lean_deg").filter(|l| *l > LEAN_SEEN_DEG)
        && let Some(what) = upright_in_view(corner)
    {
        all.push(
            Finding::new(
                "shot.frame.verticals",
                Severity::Consider,
                format!("The {what} will lean by up to {} degrees at the picture's edge.", decimals(lean, 1)),
            )
            .because("A tilted camera draws uprights as converging.", "perspective geometry; 3 degrees show: common practice, no source")
            .on("shot.frame.edge_lean_deg", Some(lean), "\u{b0}")
            .advise("Set the lens lower or higher so that it looks level, or use a longer lens from further back."),
        );
    }
    all
}

/// How many of these stand in the way of a recording.
pub(super) fn fixes(corner: &Corner<'_>) -> usize {
    let stops = session(corner).filter(|finding| finding.severity == Severity::Fix);
    let slow = usize::from(too_slow_mb_s(corner).is_some());
    let unkeyed = corner.brief.purpose == Purpose::KeyedBackground && !has_key_screen(corner);
    usize::from(stops.is_some()) + usize::from(unkeyed) + slow
}

/// Something upright and straight that the picture shows.
fn upright_in_view(corner: &Corner<'_>) -> Option<String> {
    let sees = |at| corner.view.sees(at);
    let room = &corner.brief.room;
    let opening = room.openings.iter().find(|(_, opening)| {
        let middle = opening.middle_m(&corner.floor_m);
        sees(middle.extend(opening.sill_or_usual_m() + opening.height_or_usual_m() / 2.0))
    });
    if let Some((id, _)) = opening {
        return Some(id.0.replace('-', " "));
    }
    let tall = |kind: FurnitureKind| {
        matches!(kind, FurnitureKind::Bookcase | FurnitureKind::Cabinet | FurnitureKind::Wardrobe)
    };
    room.furniture
        .iter()
        .filter(|(_, piece)| tall(piece.kind))
        .find(|(id, piece)| {
            let (position, _) = corner.furniture_at(id, piece);
            sees(position.with_z(position.z + piece.size_m.0[2] * 0.8))
        })
        .map(|(id, _)| id.0.replace('-', " "))
}

fn session(corner: &Corner<'_>) -> Option<Finding> {
    let session = corner.brief.recording.session_min?;
    let (what, minutes) = too_short(corner)?;
    let lasts = decimals(minutes, 0);
    let (severity, sentence, advice) = match what {
        "card" => (
            Severity::Fix,
            format!("The card holds {lasts} of the {} minutes planned.", decimals(session, 0)),
            "Use a larger card or a lower data rate, or change cards in a pause.",
        ),
        "battery" => (
            Severity::Fix,
            format!("The battery lasts {lasts} of the {} minutes planned.", decimals(session, 0)),
            "Feed the camera from the mains or a larger battery, or change batteries in a pause.",
        ),
        _ => (
            Severity::Consider,
            format!(
                "The camera stops by itself after {lasts} minutes; {} are planned.",
                decimals(session, 0)
            ),
            "Stop and start again between parts.",
        ),
    };
    Some(
        Finding::new("shot.recording.session", severity, sentence)
            .because("A camera that has stopped tells nobody.", "arithmetic of data rate, energy and time")
            .on("shot.recording.session", Some(minutes), "min")
            .advise(advice),
    )
}

fn slow_card(corner: &Corner<'_>) -> Option<Finding> {
    let (kept_up, asked) = too_slow_mb_s(corner)?;
    Some(
        Finding::new(
            "shot.recording.slow-card",
            Severity::Fix,
            format!(
                "The card keeps up {} MB/s; the camera writes {}.",
                decimals(kept_up, 1),
                decimals(asked, 1)
            ),
        )
        .because("A card that cannot keep up stops the recording.", "arithmetic of the data rate")
        .on("shot.recording.card_speed_mb_s", Some(asked), "MB/s")
        .advise("Use a faster card, or a lower data rate."),
    )
}

fn stripes(corner: &Corner<'_>) -> Option<Finding> {
    let (recorded, delivered) = stripes_px(corner)?;
    let class = moire_delivered(recorded, delivered);
    let sentence = match class {
        Moire::Risk => "The stripes will crawl",
        Moire::Watch => "The stripes may crawl",
        Moire::Low | Moire::LowBlurred => return None,
    };
    Some(
        Finding::new(
            "shot.cloth.moire",
            Severity::Consider,
            format!("{sentence}: a pair of them is {} recorded pixels wide.", decimals(recorded, 1)),
        )
        .because(
            "Stripes as fine as the grid of pixels beat with it.",
            "sampling theorem (Nyquist, Shannon); classes common practice, no source",
        )
        .on("shot.cloth.stripe_px", Some(recorded), "px")
        .advise("Wear plain cloth, or change the shot size; never soften the focus."),
    )
}

/// A script that is read from somewhere that shows.
fn script(corner: &Corner<'_>) -> Option<Finding> {
    corner.brief.recording.script_words?;
    let seen = watched(corner)?;
    let (aside, up) = seen.off_lens_deg(corner);
    if gaze_class(aside, up) != Gaze::OffLens {
        return None;
    }
    Some(
        Finding::new(
            "shot.script.beside",
            Severity::Consider,
            format!(
                "Read from the {}, the eyes are {} degrees off the lens: it shows.",
                seen.what,
                decimals(aside.hypot(up), 0)
            ),
        )
        .because(
            "Viewers notice a gaze beside or above the lens from about 1 degree, below it from about 5.",
            "Chen, CHI 2002 (from memory)",
        )
        .on("shot.screen.gaze_deg", Some(aside.hypot(up)), "\u{b0}")
        .advise("Put the script just below the lens, use a script glass, or learn a sentence at a time."),
    )
}

/// The chosen way of seeing oneself is not at hand.
fn no_screen(corner: &Corner<'_>) -> Option<Finding> {
    let (wanted, words) = match corner.brief.schools.monitor {
        MonitorSchool::FlipScreen => return None,
        MonitorSchool::Field => (ScreenType::Field, "field monitor"),
        MonitorSchool::Phone => (ScreenType::Phone, "phone as a monitor"),
        MonitorSchool::Television => (ScreenType::Television, "television"),
        MonitorSchool::Mirror => (ScreenType::Mirror, "mirror"),
    };
    if corner.screen.is_some_and(|(gear, _)| gear.screen == wanted || gear.screen == ScreenType::Script) {
        return None;
    }
    let owned =
        corner.brief.gear.values().any(|g| g.at_hand() && g.monitor().is_some_and(|m| m.screen == wanted));
    let (sentence, advice) = if owned {
        (
            format!("The {words} has no place in this layout."),
            "Lay out again, or choose another way of seeing yourself.",
        )
    } else {
        (
            format!("You chose a {words} to see yourself on, and none is at hand."),
            "Put one on the shelf of owned gear, or choose another way.",
        )
    };
    let mut finding = Finding::new("shot.screen.missing", Severity::Consider, sentence)
        .because("Who cannot see the frame finds out afterwards.", "common practice, no source")
        .advise(advice);
    finding.school = Some("monitor");
    Some(finding)
}

/// What is behind the head.
fn background(corner: &Corner<'_>) -> Vec<Finding> {
    let found = behind(corner);
    let source = "common practice, no source";
    let mut all = Vec::new();
    let consider = |id: &str, sentence: String| {
        Finding::new(format!("shot.background.{id}"), Severity::Consider, sentence)
    };
    if let Some(id) = &found.grows {
        all.push(
            consider("grows", format!("The {} seems to grow out of your head.", id.replace('-', " ")))
                .because("Two things that touch in the picture look like one.", source)
                .advise("Move it, or the seat, by a head's width."),
        );
    }
    if found.small > SMALL_MOST {
        all.push(
            consider("small-things", format!("{} small things are in view behind you.", found.small))
                .because("Many small things draw the eye away; a few large ones do not.", source)
                .on("shot.background.things", Some((found.large + found.small) as f64), "")
                .advise("Take some out of view, or blur them with more distance or a longer lens."),
        );
    }
    if wants_plain(corner.brief.purpose) && found.large + found.small > 0 && corner.backdrop.is_none() {
        let count = found.large + found.small;
        let things = if count == 1 { "1 thing is".to_owned() } else { format!("{count} things are") };
        all.push(
            consider(
                "not-plain",
                format!("{things} in view behind you; this purpose wants a plain background."),
            )
            .because("On such a tape nothing but you should be looked at.", source)
            .advise("Clear the wall behind you, hang a plain backdrop, or turn the corner."),
        );
    }
    if let Some(id) = &found.window {
        all.push(
            consider("window", format!("The {} is in the picture.", id.replace('-', " ")))
                .because(
                    "By day a window behind a face is many stops brighter than the face.",
                    "luminance of an overcast sky against skin; common practice to keep it out",
                )
                .advise("Shut it out with an opaque curtain, or turn so that it lights you from the front."),
        );
    }
    if let Some((mirror, what)) = &found.mirrored {
        all.push(
            consider("mirror", format!("The {} shows the {what}.", mirror.replace('-', " ")))
                .because("Glass that faces the lens shows what stands beside it.", "law of reflection")
                .advise("Turn or tilt it a little, cover it, or take it down."),
        );
    }
    if let Some(stops) = found.alike_stops {
        all.push(
            consider(
                "alike",
                format!("What you wear is within {} stops of the wall behind you.", decimals(stops.abs(), 1)),
            )
            .because("Clothes of the background's tone melt into it.", source)
            .advise("Wear something lighter or darker, or light the wall apart from you."),
        );
    }
    if let Some(stops) = found.hair_stops {
        all.push(
            consider(
                "hair",
                format!("Your hair is within {} stops of the wall behind you.", decimals(stops.abs(), 1)),
            )
            .because("Hair of the background's tone has no outline.", source)
            .advise("A back light on the hair parts them; so does a lighter or darker background."),
        );
    }
    if let Some(margin) = backdrop_margin_m(corner).filter(|margin| *margin < 0.0) {
        all.push(
            consider(
                "edge",
                format!("The backdrop ends {} inside the picture.", corner.brief.units.gap(margin)),
            )
            .because("An edge in view undoes a backdrop.", source)
            .on("shot.background.backdrop_margin_m", Some(margin), "m")
            .advise("Bring it nearer, tighten the shot, or hang a wider one."),
        );
    }
    if corner.brief.purpose == Purpose::KeyedBackground && !has_key_screen(corner) {
        all.push(
            Finding::new(
                "shot.background.no-key-screen",
                Severity::Fix,
                "There is no even screen of one colour behind you to be keyed out.",
            )
            .because("A background is keyed out by its colour.", source)
            .advise("Put a chroma screen on the shelf of owned gear, or tell which wall is painted so."),
        );
    }
    all
}

/// A second angle too near to the first.
fn jump(corner: &Corner<'_>, angle: &AngleAt<'_>) -> Option<Finding> {
    let off = off_axis_deg(corner, angle);
    (!angle.is_overhead() && off < JUMP_DEG).then(|| {
        let name = angle.id.replace('-', " ");
        Finding::new(
            format!("shot.{}.jump", angle.id),
            Severity::Consider,
            format!("The {name} is only {} degrees from the first camera.", decimals(off, 0)),
        )
        .because(
            "Cut together, two angles so near look like a jump.",
            "the 30-degree rule: common practice, no source",
        )
        .on(format!("shot.{}.off_axis_deg", angle.id), Some(off), "\u{b0}")
        .advise("Walk it round to 30 degrees or more, or change the shot size as well.")
    })
}
