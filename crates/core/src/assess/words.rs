//! From readings and breaches to findings in plain words: what is the matter, why it matters, what to do.

mod light;
mod shot;
mod sound;

use std::borrow::Cow;

use super::bands::band_of;
use super::legal::Breach;
use crate::corner::{Corner, Source};
use crate::finding::{Finding, Severity};
use crate::light::face::Lit;
use crate::photometry::{flux_lm, power_w};
use crate::plan::{LightSchool, Role, SupportKind};
use crate::reading::{Reading, Standing};
use crate::room::StandState;
use crate::units::decimals;

/// Lamps below this luminous efficacy give most of their power as heat (common figures: halogen 15-20 lm/W, LED
/// 70-110 lm/W), from this power on.
const HOT_LM_W: f64 = 30.0;
const HOT_W: f64 = 40.0;
/// A stand should carry so many times what it does (common practice, no source).
const PAYLOAD_TIMES: f64 = 1.5;
/// Distance from a hot lamp to anything that burns, m (Fogon's own rule where the lamp is unmarked).
const HOT_CLEAR_M: f64 = 1.0;

/// A closed room that becomes so much warmer is told, K. Fogon's own rule.
const WARM_K: f64 = 6.0;
const HEAT_CAUTION: &str = "Drink, air the room, and stop when you feel unwell; nothing stands on or over a lamp's vents. Batteries are charged on a hard surface while someone is there, never when swollen.";

pub(crate) use light::PRACTICAL_STOPS;

const OVERHEAD_CAUTION: &str = "What falls from above can kill: fix into studs or joists, never into board alone; a second, short steel tether on everything overhead; nothing over the seat. Tenants ask first. A licensed builder decides.";
pub(super) const TIP_CAUTION: &str = "A stand that tips can hurt someone: level floor, legs fully spread, bag on the rear leg, a leg under the load, cable tied low. These sums find rule breaks; they do not certify a rig.";
const MAINS_CAUTION: &str = "Overloaded circuits and leads can burn. Local electrical codes and a licensed electrician decide; no lead into a lead, reels fully unwound.";
const HOT_CAUTION: &str = "Hot lamps set paper, foam and cloth alight and burn hands: keep the distance printed on the lamp, never diffuse one with paper or cloth, let it cool before moving it.";

/// How much a reading's standing matters. Reverberation never blocks: nobody can mend a room in a click.
pub(super) fn severity_of(reading: &Reading) -> Option<Severity> {
    match reading.standing {
        Standing::Poor if reading.id != "sound.room.rt_mid_s" => Some(Severity::Fix),
        Standing::Poor | Standing::Fair => Some(Severity::Consider),
        Standing::Good | Standing::Plain => None,
    }
}

/// All findings of a corner, worst first; moves that mend them are added later.
pub(super) fn findings(
    corner: &Corner<'_>,
    lit: Option<&Lit<'_>>,
    readings: &[Reading],
    breaches: &[Breach],
) -> Vec<Finding> {
    let mut all: Vec<Finding> = breaches.iter().map(of_breach).collect();
    if corner.microphone.is_none() {
        all.push(
            Finding::new(
                "microphone.missing",
                Severity::Stop,
                "No microphone is in the layout: the voice would not be recorded.",
            )
            .because("Sound comes first: a take without it is lost.", "common practice, no source")
            .advise("Put a microphone on the shelf of owned gear, or buy one from the list below."),
        );
    }
    all.extend(unlit(corner));
    let tracked = corner.brief.person.face_tracking && corner.body.face_tracking;
    for reading in readings {
        if let Some(severity) = severity_of(reading) {
            let mut finding = of_reading(corner, lit, reading, severity);
            finding.school = band_of(&reading.id, corner.brief, tracked).1;
            all.push(finding);
        }
    }
    all.extend(hot_lamps(corner));
    all.extend(shot::notes(corner, readings));
    all.extend(lit.into_iter().flat_map(|lit| light::notes(lit, readings)));
    all.extend(sound::notes(corner, readings));
    all.extend(warmth(readings));
    all.extend(overhead(corner));
    all.extend(payloads(corner));
    all.sort_by_key(|f| f.severity);
    // Two breaches of one rule by one thing are one finding.
    all.dedup_by(|a, b| a.id == b.id);
    all
}

/// A closed room that lamps and a person warm.
fn warmth(readings: &[Reading]) -> Option<Finding> {
    let id = "room.heat.rise_k";
    let rise = readings.iter().find(|r| r.id == id).and_then(|r| r.value).filter(|rise| *rise > WARM_K)?;
    let words = format!("In the end lamps and you warm the closed room by about {} K.", decimals(rise, 0));
    Some(
        Finding::new(id, Severity::Consider, words)
            .because(
                "Sweat shows before you feel it, and cameras switch off when they are hot.",
                "common practice, no source",
            )
            .on(id, Some(rise), "K")
            .caution(HEAT_CAUTION)
            .advise("Air the room between takes, and switch the lamps off while you are not recording."),
    )
}

/// Stands and arms that carry what they may and little more.
fn payloads(corner: &Corner<'_>) -> Vec<Finding> {
    let all = crate::room::sandbags(corner);
    let scant = |stand: &StandState| {
        let times = stand.payload_kg?.0 / stand.load_kg.max(1e-9);
        (1.0..PAYLOAD_TIMES).contains(&times).then(|| {
            Finding::new(
                format!("room.{}.payload_times", stand.thing),
                Severity::Consider,
                format!(
                    "The stand of the {} may carry {} times what it does.",
                    stand.names.join(", "),
                    decimals(times, 1)
                ),
            )
            .because("1.5 times and more keeps heads from sinking.", "common practice, no source")
            .on(format!("room.{}.payload_times", stand.thing), Some(times), "\u{d7}")
            .caution(TIP_CAUTION)
            .advise("Use a stronger stand, or a lighter modifier.")
        })
    };
    all.iter().filter_map(scant).collect()
}

/// What is fixed to wall or ceiling.
fn overhead(corner: &Corner<'_>) -> Option<Finding> {
    let hung = crate::room::fixed(corner);
    let names = match hung.as_slice() {
        [] => return None,
        [one] => format!("The {one} hangs"),
        [others @ .., last] => format!("The {} and {last} hang", others.join(", ")),
    };
    Some(
        Finding::new(
            "room.overhead",
            Severity::Consider,
            format!("{names} from wall or ceiling: each needs a sound fixing and a tether."),
        )
        .because("A clamp or a screw that lets go gives no warning.", "common practice, no source")
        .caution(OVERHEAD_CAUTION)
        .advise("Pull on every fixing with twice the load before you hang anything."),
    )
}

fn of_breach(breach: &Breach) -> Finding {
    let (reason, source): (&'static str, &'static str) = match breach.rule {
        "picture" => ("What shows in the picture cannot be cut out afterwards.", "Fogon's own rule"),
        "door" => ("A door must always open freely.", "Fogon's own rule"),
        "exit" => ("You must be able to get up without moving gear.", "0.60 m: common practice, no source"),
        "way" => {
            ("You must be able to come and go without moving gear.", "0.60 m: common practice, no source")
        }
        "support" => (
            "A stand must hold what it carries.",
            "rigid-body statics; safety factor 1.5 is Fogon's own rule",
        ),
        "mains" => ("A breaker that trips ends the take; one that does not can burn.", "circuit arithmetic"),
        "camera" => ("The camera must fit and focus where it stands.", "thin-lens geometry"),
        "sight" => ("Lens, key and microphone need a free line.", "geometry"),
        "near" => ("Lamps this near are in the way of the head, and hot.", "Fogon's own rule"),
        _ => ("Things cannot be in one place.", "geometry"),
    };
    let unit = if breach.rule == "support" && breach.sentence.contains("kg") { "kg" } else { "m" };
    let mut finding = Finding::new(
        format!("legal.{}.{}", breach.rule, breach.thing),
        Severity::Stop,
        breach.sentence.clone(),
    )
    .because(reason, source)
    .advise(breach.frees.clone());
    if breach.lacking > 0.0 {
        finding = finding.on(format!("legal.{}", breach.rule), Some(breach.lacking), unit);
    }
    match breach.rule {
        "support" => finding.caution(TIP_CAUTION),
        "mains" => finding.caution(MAINS_CAUTION),
        _ => finding,
    }
}

/// How many findings that stand in the way come from no single reading's band.
pub(super) fn fixes_beside_readings(corner: &Corner<'_>) -> usize {
    shot::fixes(corner)
}

/// What is missing altogether: no key, or something with nothing to stand on.
pub(super) fn unlit(corner: &Corner<'_>) -> Vec<Finding> {
    let mut all = Vec::new();
    if crate::light::apparent::key(corner).is_none() {
        all.push(
            Finding::new(
                "light.key.missing",
                Severity::Fix,
                "No key light: nothing lights the face as planned.",
            )
            .because(
                "Light on the face separates an amateur picture from a good one.",
                "common practice, no source",
            )
            .advise("Put a lamp on the shelf of owned gear, or buy one from the list below."),
        );
    }
    if corner.brief.schools.lights == LightSchool::ThreePoint
        && corner.role(Role::Key).next().is_some()
        && corner.role(Role::Back).next().is_none()
    {
        let mut finding = Finding::new(
            "light.back.missing",
            Severity::Consider,
            "No back light: hair and shoulders may melt into the wall.",
        )
        .because("A hair light parts dark hair from a dark wall.", "common practice, no source")
        .advise("A small lamp on an arm or a shelf behind you would do; or choose the school without one.");
        finding.school = Some("lights");
        all.push(finding);
    }
    let layout = corner.layout;
    let mut carried = vec![("camera", &layout.camera.support)];
    carried.extend(corner.lights.iter().map(|l| (l.id, &l.light.support)));
    if let Some(used) = &layout.microphone {
        carried.push(("microphone", &used.support));
    }
    if let Some(used) = &layout.screen {
        carried.push(("screen", &used.support));
    }
    carried.extend(layout.angles.iter().map(|(id, angle)| (id.0.as_str(), &angle.support)));
    for (id, support) in carried {
        if matches!(support.kind, SupportKind::Floor | SupportKind::Boom) && support.gear.is_none() {
            let what = if support.kind == SupportKind::Boom { "an arm that reaches out" } else { "a stand" };
            // Without a screen or a second angle a recording can still be made.
            let beside = id == "screen" || layout.angles.contains_key(id);
            let severity = if beside { Severity::Consider } else { Severity::Fix };
            all.push(
                Finding::new(
                    format!("support.{id}.missing"),
                    severity,
                    format!("Nothing owned carries the {id}: it needs {what}."),
                )
                .because(
                    "Held by hand or leaned on books, it will not be there again tomorrow.",
                    "common practice, no source",
                )
                .advise("Put a stand on the shelf of owned gear, or buy one from the list below."),
            );
        }
    }
    all
}

fn hot_lamps(corner: &Corner<'_>) -> Vec<Finding> {
    let mut all = Vec::new();
    for light in &corner.lights {
        let Source::Lamp(lamp) = light.source else { continue };
        let (watts, assumed) = power_w(lamp);
        let efficacy = flux_lm(lamp) / watts;
        if assumed || watts < HOT_W || efficacy >= HOT_LM_W {
            continue;
        }
        if light.cloth.is_some() || light.light.gel.is_some() {
            let what = if light.cloth.is_some() { "cloth or paper" } else { "a coloured foil" };
            all.push(
                Finding::new(
                    format!("light.{}.hot", light.id),
                    Severity::Stop,
                    format!("{} runs hot, and {what} is planned before it.", light.label()),
                )
                .because(
                    "Paper, cloth and foil before a hot lamp catch fire.",
                    "common practice, no source; 30 lm/W parts hot lamps from others: Fogon's own rule",
                )
                .on(format!("light.{}.efficacy_lm_w", light.id), Some(efficacy), "lm/W")
                .advise("Use an LED lamp, or bounce this one off the ceiling.")
                .caution(HOT_CAUTION),
            );
            continue;
        }
        let head = light.position_m;
        let near = crate::corner::things(corner)
            .into_iter()
            .filter(|t| t.kind == crate::corner::Kind::Furniture)
            .map(|t| {
                (t.parts.iter().map(|p| p.solid.distance_m(head)).fold(f64::INFINITY, f64::min), t.label)
            })
            .min_by(|a, b| a.0.total_cmp(&b.0))
            .filter(|(distance, _)| *distance < HOT_CLEAR_M);
        let (severity, sentence) = match near {
            Some((distance, label)) => (
                Severity::Fix,
                format!(
                    "{} runs hot and is {} m from {label}; keep 1 m.",
                    light.label(),
                    decimals(distance, 2)
                ),
            ),
            None => (
                Severity::Consider,
                format!("{} runs hot: {} lm from each watt.", light.label(), decimals(efficacy, 0)),
            ),
        };
        all.push(
            Finding::new(format!("light.{}.hot", light.id), severity, sentence)
                .because(
                    "A lamp that gives little light for its watts gives the rest as heat.",
                    "IEC 60598-1 distance mark (from memory); 1 m where unmarked is Fogon's own rule",
                )
                .on(format!("light.{}.efficacy_lm_w", light.id), Some(efficacy), "lm/W")
                .advise("Keep it 1 m from anything that burns, or use an LED lamp.")
                .caution(HOT_CAUTION),
        );
    }
    all
}

/// What would mend a face that is too dark: what the settings allow, else the smallest change to the lamps.
fn dark_advice(corner: &Corner<'_>, lit: Option<&Lit<'_>>) -> Cow<'static, str> {
    match lit.and_then(crate::light::power::power).filter(|power| power.in_hand_stops < 0.0) {
        Some(power) => light::remedies(corner, &power).into(),
        None => "Raise the ISO, open the aperture, or bring the key nearer.".into(),
    }
}

/// The sentence, reason, source and advice for one reading that is not good.
fn of_reading(corner: &Corner<'_>, lit: Option<&Lit<'_>>, reading: &Reading, severity: Severity) -> Finding {
    let value = reading.value.unwrap_or(0.0);
    let low = reading.band.and_then(|b| b[1].or(b[0])).is_some_and(|b| value < b);
    let n = |count: usize| decimals(value, count);
    let size = |m: f64| corner.brief.units.length(m);
    let more = |yes: &'static str, no: &'static str| if low { yes } else { no };
    let (sentence, reason, advice): (String, &'static str, Cow<'static, str>) = match reading.id.as_ref() {
        "shot.frame.height_error_percent" => (
            format!("The picture frames {} % {} than this shot wants.", decimals(value.abs(), 0), more("less", "more")),
            "Shot size is what the viewer reads as distance.",
            more("Move the camera back, or use a shorter focal length.", "Move the camera nearer, or use a longer focal length.").into(),
        ),
        "shot.frame.headroom_fraction" => (
            format!("Headroom is {} % of the picture.", decimals(100.0 * value, 0)),
            "Too much empty space sinks the head; too little cuts it.",
            more("Tilt the camera up a little.", "Tilt the camera down a little.").into(),
        ),
        "shot.frame.eye_line_error" => (
            format!("The eyes sit {} % of the picture too {}.", decimals(100.0 * value.abs(), 0), more("high", "low")),
            "Eyes are what the viewer looks for first.",
            more("Tilt the camera up a little.", "Tilt the camera down a little.").into(),
        ),
        "shot.frame.shoulder_fraction" => (
            format!("The shoulders fill {} % of the width.", decimals(100.0 * value, 0)),
            "In a vertical picture the shoulders are cut first.",
            "Move the camera back, or use a shorter focal length.".into(),
        ),
        "shot.frame.look_room_fraction" => (
            format!("The eyes have {} % of the width to look into.", decimals(100.0 * value, 0)),
            "Eyes that leave the lens look at something: the picture gives it room.",
            more("Turn the camera towards what the eyes look at.", "Turn the camera a little away from what the eyes look at.").into(),
        ),
        "shot.camera.view_angle_deg" => (
            if value.abs() < 0.5 {
                "The lens is level with the eyes.".to_owned()
            } else {
                let way = if value > 0.0 { "down on you" } else { "up at you" };
                format!("The lens looks {way} by {} degrees.", decimals(value.abs(), 0))
            },
            "Level with the eyes is how people talk to each other.",
            "Set the lens at eye height.".into(),
        ),
        "shot.camera.distance_m" => (
            format!("The lens is {} from the eyes: {}.", size(value), more("near enough to enlarge the nose", "further than the shot needs")),
            "Perspective depends on distance alone.",
            more("Move the camera back and zoom in, or choose the school of the near, wide lens.", "Move the camera nearer and zoom out.").into(),
        ),
        "shot.focus.front_tolerance_m" => (
            format!("Leaning in by {}, the eyes go soft: {} cm too little depth.", size(corner.brief.person.lean().0), decimals(100.0 * value.abs(), 1)),
            "Without face tracking, focus must hold while you lean.",
            "Stop down, move the camera back, or turn face tracking on if the camera has it.".into(),
        ),
        "shot.background.blur_percent" => (
            format!("The background is {}: blur is {} % of the width.", more("nearly as sharp as you are", "melted away"), n(1)),
            "Blur parts a person from the wall behind.",
            more("Sit further from the wall, open the aperture, or use a longer lens.", "Stop down a little.").into(),
        ),
        "shot.exposure.full_frame_iso" => (
            format!("The noise will be that of ISO {} on full frame.", n(0)),
            "Above about 6400 grain shows in skin.",
            "Bring more light to the face: a stronger or nearer key, or a wider aperture.".into(),
        ),
        "shot.seat.gaze_deg" => (
            format!("The eyes look {} degrees beside the lens.", n(0)),
            "An audition is read to someone close beside the lens.",
            "Place the reader's eyes 5 to 12 degrees beside the lens, at its height.".into(),
        ),
        "room.background_behind_m" => (
            format!("The wall is {} behind you.", size(value)),
            "Distance to the background is the most visible free improvement.",
            "Sit further from the wall, or turn the corner so that the room's length lies behind you.".into(),
        ),
        "room.mains.load_fraction" => (
            format!("The lamps draw {} % of what the breaker holds.", decimals(100.0 * value, 0)),
            "Hours of load above 80 % heat a circuit.",
            "Move some of it to another circuit, or use more efficient lamps.".into(),
        ),
        "light.key.azimuth_deg" => (
            format!("The key is {} degrees off the lens axis: {}.", n(0), more("the face goes flat", "half the face goes dark")),
            "30 to 45 degrees model a face.",
            "Walk the key round to 30 to 45 degrees.".into(),
        ),
        "light.key.elevation_deg" => (
            format!("The key is {} degrees above the eyes: {}.", n(0), more("light from below looks wrong", "eye sockets go dark")),
            "Daylight comes from above, and not from overhead.",
            more("Raise the key.", "Lower the key, or move it away.").into(),
        ),
        "light.key.angular_size_deg" => (
            format!("From the face the key is {} degrees wide: {}.", n(0), if value < 5.0 { "hard shadows" } else { "fairly hard shadows" }),
            "Softness is the size of the source as the face sees it.",
            "Bring the key nearer, or put a larger modifier on it.".into(),
        ),
        "light.face.exposure_stops" => (
            format!("The face is {} stops {}.", decimals(value.abs(), 1), more("too dark", "too bright")),
            "Everything else in the picture is judged against the face.",
            if low { dark_advice(corner, lit) } else { "Dim the lamps, lower the ISO, or add a neutral-density filter.".into() },
        ),
        "light.face.ratio" => (
            format!("The lit side has {} times the light of the shadow side: {}.", n(1), more("flat", "dramatic")),
            "2 to 4 shapes a face and keeps it friendly.",
            more("Dim the fill or move it away; in a white room, move the key further to the side.", "Add a board or a dim lamp opposite the key.").into(),
        ),
        "sound.microphone.distance_m" => (
            format!("The microphone is {} from the mouth.", size(value)),
            "Nearness beats every other figure of a microphone.",
            more("Move it a little away from the mouth.", "Bring it to just outside the picture, or use a worn one.").into(),
        ),
        "sound.microphone.gain_over_camera_db" => (
            format!("The voice is only {} dB louder than at the camera.", n(1)),
            "Each halving of the distance brings 6 dB of voice over the room.",
            "Bring the microphone off the camera, to a hand-span or two from the mouth.".into(),
        ),
        "sound.room.rt_mid_s" => (
            format!("The room rings {} s: {}.", n(2), if low { "very dry" } else if value > 0.6 { "echoey" } else { "live" }),
            "0.2 to 0.4 s lets a voice sound close.",
            more("Nothing needs doing; a little less absorption would sound more natural.", "Hang blankets or a heavy curtain, lay a rug, or film where there is a bed or a full bookcase.").into(),
        ),
        id if id.ends_with(".flare_margin_deg") => (
            format!("The back light is {} degrees too near the lens axis.", decimals(value.abs(), 0)),
            "Light that strikes the lens veils the picture.",
            "Move the back light up or aside, or hood the lens.".into(),
        ),
        _ => (format!("{} is {}.", reading.label, n(2)), "", "".into()),
    };
    let finding = Finding::new(reading.id.clone(), severity, sentence)
        .because(reason, reading.working.source)
        .on(reading.id.clone(), reading.value, reading.unit)
        .advise(advice);
    if reading.id == "room.mains.load_fraction" { finding.caution(MAINS_CAUTION) } else { finding }
}
