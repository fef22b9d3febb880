//! Findings of the shot that are no single reading's: a session that does not fit, stripes that crawl, a script that is
//! read beside the lens.

use crate::corner::{AngleAt, Corner};
use crate::finding::{Finding, Missing, Note, Severity, Topic};
use crate::plan::{ClothingColour, FurnitureKind, MonitorSchool, Purpose, ScreenType, ThingId};
use crate::reading::{Quantity, Reading, ReadingId};
use crate::shot::angles::{JUMP_DEG, off_axis_deg};
use crate::shot::behind::{backdrop_margin_m, behind, wants_plain};
use crate::shot::cloth::{Moire, moire_delivered, stripes_px};
use crate::shot::recording::{too_short, too_slow_mb_s};
use crate::shot::seeing::{Gaze, gaze_class, watched};
use crate::units::{decimals, degrees};

/// Edges that lean by more than this are seen on shelves and doors, degrees (common practice, no source).
const LEAN_SEEN_DEG: f64 = 3.0;
/// A window that lies so much over the face leaves it its shape, stops (common practice, no source).
const HELD_STOPS: f64 = 2.0;
/// More small things than this behind a person distract. Fogon's own rule.
const SMALL_MOST: usize = 5;
/// Frames that differ by more than this are told, percent. Fogon's own rule.
const FLICKER_PERCENT: f64 = 2.0;
/// A face stretched by more than this is seen, percent. Fogon's own rule.
const STRETCH_SEEN_PERCENT: f64 = 5.0;

pub(super) fn notes(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let value = |id: Quantity| readings.iter().find(|r| r.id == id).and_then(|r| r.value);
    let mut all = Vec::new();
    all.extend(stripes(corner));
    all.extend(script(corner));
    all.extend(no_screen(corner));
    all.extend(background(corner, readings));
    all.extend(corner.angles.iter().filter_map(|angle| jump(corner, angle)));
    if let Some(factor) = value(Quantity::ShotRecordingReframeFactor).filter(|factor| *factor < 1.0 - 1e-9) {
        all.push(
            Finding::new(
                Note::Enlarged,
                Severity::Consider,
                format!("What is delivered has {} times the pixels recorded.", decimals(1.0 / factor, 2)),
            )
            .because("A picture that is enlarged is soft.", "arithmetic of the raster")
            .on(Quantity::ShotRecordingReframeFactor, Some(factor))
            .advise("Record larger, or deliver smaller."),
        );
    }
    if let Some(times) = value(Quantity::ShotScreenGlassTimes).filter(|times| *times < 1.0) {
        all.push(
            Finding::new(
                Note::Glass,
                Severity::Consider,
                format!(
                    "The script glass covers {} % of what the lens sees: its edge shows.",
                    decimals(100.0 * times, 0)
                ),
            )
            .because("The lens looks through the glass; beyond it stands its frame.", "geometry")
            .on(Quantity::ShotScreenGlassTimes, Some(times))
            .advise(
                "Use a larger glass, a longer lens from further back, or bring the glass nearer to the lens.",
            ),
        );
    }
    if let Some(ripple) =
        value(Quantity::ShotExposureFlickerPercent).filter(|ripple| *ripple > FLICKER_PERCENT)
    {
        let shutter = 1.0 / corner.layout.camera.shutter_s;
        all.push(
            Finding::new(
                Quantity::ShotExposureFlickerPercent,
                Severity::Consider,
                format!(
                    "At 1/{} s a lamp on the mains can flicker by up to {} %.",
                    decimals(shutter, 0),
                    decimals(ripple, 0)
                ),
            )
            .because("Lamps pulse at twice the mains frequency.", "2 %: Fogon's own rule")
            .on(Quantity::ShotExposureFlickerPercent, Some(ripple))
            .advise("Choose a shutter of whole pulses, or light by daylight, batteries or a lamp that is told to be free of flicker."),
        );
    }
    if let Some(stretch) = value(Quantity::ShotFrameStretchPercent).filter(|s| *s > STRETCH_SEEN_PERCENT) {
        all.push(
            Finding::new(
                Note::Stretched,
                Severity::Consider,
                format!(
                    "At the side of this wide picture the face comes out {} % wider.",
                    decimals(stretch, 0)
                ),
            )
            .because("Away from the axis a wide lens stretches what it draws.", "perspective geometry")
            .on(Quantity::ShotFrameStretchPercent, Some(stretch))
            .advise("Bring the face nearer to the middle, or move back and use a longer focal length."),
        );
    }
    if let Some(lean) = value(Quantity::ShotFrameEdgeLeanDeg).filter(|l| *l > LEAN_SEEN_DEG)
        && let Some(what) = upright_in_view(corner)
    {
        all.push(
            Finding::new(
                Note::Verticals,
                Severity::Consider,
                format!("The {what} will lean by up to {} degrees at the picture's edge.", decimals(lean, 1)),
            )
            .because("A tilted camera draws uprights as converging.", "perspective geometry; 3 degrees show: common practice, no source")
            .on(Quantity::ShotFrameEdgeLeanDeg, Some(lean))
            .advise("Set the lens lower or higher so that it looks level, or use a longer lens from further back."),
        );
    }
    all
}

/// What of the shot can stand in the way and comes from no single reading.
pub(super) fn in_the_way(corner: &Corner<'_>) -> Vec<Finding> {
    session(corner)
        .into_iter()
        .chain(slow_card(corner))
        .chain(no_key_screen(corner))
        .chain(keyed_clothes(corner))
        .collect()
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
        return Some(id.words());
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
        .map(|(id, _)| id.words())
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
        Finding::new(Note::Session, severity, sentence)
            .because("A camera that has stopped tells nobody.", "arithmetic of data rate, energy and time")
            .beside("lasts", minutes, "min")
            .advise(advice),
    )
}

fn slow_card(corner: &Corner<'_>) -> Option<Finding> {
    let (kept_up, asked) = too_slow_mb_s(corner)?;
    Some(
        Finding::new(
            Note::SlowCard,
            Severity::Fix,
            format!(
                "The card keeps up {} MB/s; the camera writes {}.",
                decimals(kept_up, 1),
                decimals(asked, 1)
            ),
        )
        .because("A card that cannot keep up stops the recording.", "arithmetic of the data rate")
        .on(Quantity::ShotRecordingCardSpeedMbS, Some(asked))
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
            Note::Moire,
            Severity::Consider,
            format!("{sentence}: a pair of them is {} recorded pixels wide.", decimals(recorded, 1)),
        )
        .because(
            "Stripes as fine as the grid of pixels beat with it.",
            "sampling theorem (Nyquist, Shannon); classes common practice, no source",
        )
        .on(Quantity::ShotClothStripePx, Some(recorded))
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
            Note::ScriptBeside,
            Severity::Consider,
            format!(
                "Read from the {}, the eyes are {} off the lens: it shows.",
                seen.what,
                degrees(aside.hypot(up))
            ),
        )
        .because(
            "Viewers notice a gaze beside or above the lens from about 1 degree, below it from about 5.",
            "Chen, CHI 2002 (from memory)",
        )
        .on(Quantity::ShotScreenGazeDeg, Some(aside.hypot(up)))
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
    let mut finding = Finding::new(Missing::Screen, Severity::Consider, sentence)
        .because("Who cannot see the frame finds out afterwards.", "common practice, no source")
        .advise(advice);
    finding.school = Some("monitor");
    Some(finding)
}

/// What is behind the head.
fn background(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let found = behind(corner);
    let source = "common practice, no source";
    let mut all = Vec::new();
    let consider = |note: Note, sentence: String| Finding::new(note, Severity::Consider, sentence);
    if let Some(id) = &found.grows {
        all.push(
            consider(Note::Grows, format!("The {} seems to grow out of your head.", id.words()))
                .because("Two things that touch in the picture look like one.", source)
                .advise("Move it, or the seat, by a head's width."),
        );
    }
    if found.small > SMALL_MOST {
        all.push(
            consider(Note::SmallThings, format!("{} small things are in view behind you.", found.small))
                .because("Many small things draw the eye away; a few large ones do not.", source)
                .on(Quantity::ShotBackgroundThings, Some((found.large + found.small) as f64))
                .advise("Take some out of view, or blur them with more distance or a longer lens."),
        );
    }
    if wants_plain(corner.brief.purpose) && found.large + found.small > 0 && corner.backdrop.is_none() {
        let count = found.large + found.small;
        let things = if count == 1 { "1 thing is".to_owned() } else { format!("{count} things are") };
        all.push(
            consider(
                Note::NotPlain,
                format!("{things} in view behind you; this purpose wants a plain background."),
            )
            .because("On such a tape nothing but you should be looked at.", source)
            .advise("Clear the wall behind you, hang a plain backdrop, or turn the corner."),
        );
    }
    if let Some(id) = &found.window {
        let of = |id: &ReadingId| readings.iter().find(|r| r.id == *id).and_then(|r| r.value);
        let name = corner.name(&ThingId::Opening(id.clone()));
        let over = ReadingId::of(Quantity::LightHighlightStops, name);
        let (stops, lx) = (of(&over), of(&ReadingId::from(Quantity::LightFaceIlluminanceLx)));
        let mut finding = consider(Note::WindowBehind, format!("The {} is in the picture.", id.words()))
            .because(
                "By day a window behind a face is many stops brighter than the face.",
                "luminance of an overcast sky against skin; common practice to keep it out",
            );
        finding.advice =
            "Cover it with an opaque curtain, or turn so that it lights you from the front.".into();
        if let (Some(stops), Some(lx)) = (stops.filter(|stops| *stops > HELD_STOPS), lx) {
            finding.sentence = format!(
                "The {} is in the picture: by day it is {} stops brighter than your face, which turns dark against it.",
                id.words(),
                decimals(stops, 1)
            );
            finding.advice = format!(
                "{} To leave it bare your face needs {} lx in place of {}: then it is two stops over your face.",
                finding.advice,
                decimals(lx * (stops - HELD_STOPS).exp2(), 0),
                decimals(lx, 0)
            )
            .into();
            finding = finding.on(over, Some(stops));
        }
        all.push(finding);
    }
    if let Some((mirror, what)) = &found.mirrored {
        all.push(
            consider(Note::MirrorBehind, format!("The {} shows the {what}.", mirror.words()))
                .because("Glass that faces the lens shows what stands beside it.", "law of reflection")
                .advise("Turn or tilt it a little, cover it, or take it down."),
        );
    }
    if let Some(stops) = found.alike_stops {
        all.push(
            consider(
                Note::ClothesAlike,
                format!("What you wear is within {} stops of the wall behind you.", decimals(stops.abs(), 1)),
            )
            .because("Clothes of the background's tone melt into it.", source)
            .advise("Wear something lighter or darker, or light the wall apart from you."),
        );
    }
    if let Some(stops) = found.hair_stops {
        all.push(
            consider(
                Note::HairAlike,
                format!("Your hair is within {} stops of the wall behind you.", decimals(stops.abs(), 1)),
            )
            .because("Hair of the background's tone has no outline.", source)
            .advise("A back light on the hair separates them; so does a lighter or darker background."),
        );
    }
    if let Some(margin) = backdrop_margin_m(corner).filter(|margin| *margin < 0.0) {
        all.push(
            consider(
                Note::BackdropEdge,
                format!("The backdrop ends {} inside the picture.", corner.brief.units.gap(margin)),
            )
            .because("An edge in view undoes a backdrop.", source)
            .on(Quantity::ShotBackgroundBackdropMarginM, Some(margin))
            .advise("Bring it nearer, tighten the shot, or hang a wider one."),
        );
    }
    all
}

/// Nothing behind the person that could be keyed out.
fn no_key_screen(corner: &Corner<'_>) -> Option<Finding> {
    let missing = corner.brief.purpose == Purpose::KeyedBackground && !corner.has_key_screen();
    missing.then(|| {
        Finding::new(
            Note::NoKeyScreen,
            Severity::Fix,
            "There is no even screen of one colour behind you to be keyed out.",
        )
        .because("A background is keyed out by its colour.", "common practice, no source")
        .advise("Put a chroma screen on the shelf of owned gear, or tell which wall is painted so.")
    })
}

/// What is worn has the screen's colour.
fn keyed_clothes(corner: &Corner<'_>) -> Option<Finding> {
    let is_green = corner.brief.person.clothing_colour == Some(ClothingColour::Green);
    (is_green && corner.brief.purpose == Purpose::KeyedBackground && corner.has_key_screen()).then(|| {
        Finding::new(
            Note::KeyedClothes,
            Severity::Fix,
            "Your clothes are green like the screen: they will vanish with it.",
        )
        .because("A background is keyed out by its colour.", "common practice, no source")
        .advise("Wear another colour, or use a screen of another colour.")
    })
}

/// A second angle too near to the first.
fn jump(corner: &Corner<'_>, angle: &AngleAt<'_>) -> Option<Finding> {
    let off = off_axis_deg(corner, angle);
    (!angle.is_overhead() && off < JUMP_DEG).then(|| {
        let name = angle.id.words();
        Finding::new(
            Topic::Jump(corner.named(ThingId::Angle(angle.id.clone()))),
            Severity::Consider,
            format!("The {name} is only {} from the first camera.", degrees(off)),
        )
        .because(
            "Cut together, two angles so near look like a jump.",
            "the 30-degree rule: common practice, no source",
        )
        .on(
            ReadingId::of(Quantity::ShotOffAxisDeg, corner.name(&ThingId::Angle(angle.id.clone()))),
            Some(off),
        )
        .advise("Walk it round to 30 degrees or more, or change the shot size as well.")
    })
}
