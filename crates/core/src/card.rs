//! The set-up card: what to tape, set and heed, in the order it is laid. Left and right are the camera's.

use serde::Serialize;
use utoipa::ToSchema;

use crate::assess::{Assessment, evaluate};
use crate::corner::{Corner, Kind, LightAt, Source, base_of, bounds, is_worn, things};
use crate::drawing::{Drawing, Style, draw_for};
use crate::geometry::{DVec2, DVec3, Solid};
use crate::plan::{Mounting, Plan, Role, Support, SupportKind};
use crate::room::{CornerMark, corner_mark};
use crate::sound::record::{RecordPath, record};
use crate::units::{UnitSystem, capital, decimals, shutter};

/// Words on paper are read at arm's length: this much larger than on the page.
const CARD_TEXT: f64 = 1.25;
/// A tape lies this high over the floor, m.
const TAPE_HEIGHT_M: f64 = 0.02;
/// From this luminance on a source is assessed for blue light, cd/m2 (IEC TR 62778, from memory).
const BLUE_LIGHT_CD_M2: f64 = 1e4;
/// Error of one tape reading, m.
const TAPE_ERROR_M: f64 = 0.01;

/// A mark on the floor, in the order they are laid.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Mark {
    /// Number in the order of laying.
    pub number: u32,
    /// Letter on the tape.
    pub letter: String,
    /// What stands there.
    pub what: String,
    /// Where, m from left and back wall.
    #[schema(value_type = Vec<f64>)]
    pub at_m: [f64; 2],
    /// The tape lengths.
    pub tape: CornerMark,
    /// Heights and angles of what stands there, in words.
    pub set: String,
}

/// A camera setting.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Setting {
    /// Its name.
    pub name: &'static str,
    /// Its value, with its unit.
    pub value: String,
}

/// A lamp's dial.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Dial {
    /// Letter of its mark.
    pub letter: String,
    /// What it is.
    pub what: String,
    /// Dial in percent; none for boards.
    pub percent: Option<f64>,
    /// Colour temperature, K.
    pub cct_k: Option<f64>,
    /// Where it is, seen from the eyes: angle and side, angle up, distance.
    pub place: String,
}

/// The card of one plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Card {
    /// The corner's name.
    pub name: String,
    /// Units it is written in.
    pub units: UnitSystem,
    /// The verdict in words.
    pub verdict: String,
    /// Size of the room in words.
    pub room: String,
    /// Marks in the order they are laid.
    pub marks: Vec<Mark>,
    /// Camera settings.
    pub settings: Vec<Setting>,
    /// Lamps and boards.
    pub dials: Vec<Dial>,
    /// Where the microphone is, in words.
    pub microphone: String,
    /// What to check before every take.
    pub before: Vec<&'static str>,
    /// Cautions.
    pub cautions: Vec<String>,
    /// What was assumed rather than measured.
    pub assumed: Vec<String>,
    /// The drawings.
    pub drawing: Drawing,
}

/// The card of a plan; `None` where it does not resolve.
pub fn card(plan: &Plan) -> Option<Card> {
    let corner = Corner::of(plan)?;
    let assessment = evaluate(plan);
    let units = plan.brief.units;
    Some(Card {
        name: plan.name.clone(),
        units,
        verdict: assessment.verdict.sentence.clone(),
        room: room_in_words(&corner),
        marks: marks(&corner),
        settings: settings(&corner),
        dials: dials(&corner),
        microphone: microphone(&corner),
        before: before(&corner),
        cautions: cautions(&corner, &assessment),
        assumed: assumed(&corner, &assessment),
        drawing: draw_for(
            plan,
            Style { text_scale: CARD_TEXT, frame_text_scale: CARD_TEXT, quarter_turns: None },
        )?,
    })
}

/// The box that holds the room, and what it is beside a box.
fn room_in_words(corner: &Corner<'_>) -> String {
    let (room, units) = (&corner.brief.room, corner.brief.units);
    let mut words = corner.room_m.map(|side| units.length(side)).join(" \u{d7} ");
    if !room.is_rectangle() {
        words += &format!(", {} corners", room.floor_m.len());
    }
    if !room.slopes.is_empty() {
        words += ", under a slope";
    }
    words
}

fn marks(corner: &Corner<'_>) -> Vec<Mark> {
    let units = corner.brief.units;
    let mut all = Vec::new();
    let sight = Sight::new(corner);
    let mut add = |letter: &str, what: String, at: DVec2, set: String| {
        let number = all.len() as u32 + 1;
        let Some(tape) = sight.tape(at) else { return };
        all.push(Mark { number, letter: letter.to_owned(), what, at_m: at.to_array(), tape, set });
    };
    let seat = &corner.layout.seat;
    let aside = seat.gaze_offset_deg;
    let facing = if aside.abs() < 0.5 {
        "chest towards C".to_owned()
    } else {
        format!(
            "chest {}\u{b0} camera {} of C",
            decimals(aside.abs(), 0),
            if aside > 0.0 { "right" } else { "left" }
        )
    };
    add(
        "S",
        "Seat, plumb under the eyes".into(),
        corner.eyes_m.truncate(),
        format!("eyes {}, {facing}", units.length(corner.eyes_m.z)),
    );
    let camera = &corner.layout.camera;
    let tilt = if camera.tilt_deg.abs() < 0.05 {
        "level".to_owned()
    } else {
        format!(
            "{} {}\u{b0}",
            if camera.tilt_deg < 0.0 { "down" } else { "up" },
            decimals(camera.tilt_deg.abs(), 1)
        )
    };
    add(
        "C",
        "Camera, plumb under the lens".into(),
        corner.view.position_m.truncate(),
        format!("lens {}, {tilt}{}", units.length(corner.view.position_m.z), bag(&camera.support)),
    );
    for role in Role::IN_ORDER {
        for light in corner.role(role) {
            let hold = light.hold_m();
            let support = &light.light.support;
            let name = match light.source {
                Source::Lamp(_) => capital(&light.id.replace('-', " ")),
                Source::Board(_) => format!("Board ({})", light.id.replace('-', " ")),
            };
            let (what, at) = foot(&name, support, hold);
            let centre = units.length(light.position_m.z);
            let mut set = format!("centre {centre}{}", bag(support));
            if support.kind == SupportKind::Boom {
                let reach = (hold.truncate() - at).length();
                set = format!("arm reaches {}, {set}", units.length(reach));
            }
            add(role.letter(), what, at, set);
        }
    }
    if let (Some((gear, capsule)), Some(used)) = (corner.microphone, &corner.layout.microphone)
        && !is_worn(gear.mounting)
    {
        let (what, at) = foot("Microphone", &used.support, capsule);
        let mut set = format!("capsule {}{}", units.length(capsule.z), bag(&used.support));
        if used.support.kind == SupportKind::Boom {
            let reach = (capsule.truncate() - at).length();
            set = format!("arm reaches {}, {set}", units.length(reach));
        }
        add("M", what, at, set);
    }
    for (index, angle) in corner.angles.iter().enumerate() {
        let name = capital(&angle.id.replace('-', " "));
        let (what, at) = foot(&name, &angle.angle.support, angle.view.position_m);
        let height = units.length(angle.view.position_m.z);
        let set = format!(
            "lens {height}, {} mm{}",
            decimals(angle.angle.focal_length_mm, 0),
            bag(&angle.angle.support)
        );
        add(crate::plan::Angle::letter(index), what, at, set);
    }
    if let Some((gear, used)) = corner.backdrop {
        let off = decimals(corner.backdrop_behind_m().unwrap_or(0.0), 2);
        let what = format!("{}, middle of its lower edge", capital(&gear.common.label));
        add("H", what, used.position_m.into(), format!("{off} m behind the eyes"));
    }
    if let (Some((gear, at)), Some(used)) = (corner.screen, &corner.layout.screen)
        && (used.support.kind != SupportKind::On || used.support.on.is_some())
    {
        let under = at - DVec3::Z * (gear.height_m() / 2.0);
        let (what, at_floor) = foot(&capital(crate::shot::seeing::name(gear.screen)), &used.support, under);
        add("D", what, at_floor, format!("middle {}{}", units.length(at.z), bag(&used.support)));
    }
    all
}

/// The room's corners, and what a tape along the floor cannot pass.
struct Sight {
    corners: Vec<(&'static str, DVec2)>,
    solids: Vec<Solid>,
}

impl Sight {
    fn new(corner: &Corner<'_>) -> Self {
        let room = &corner.brief.room;
        let lettered = corner.floor_m.iter().enumerate();
        let corners = lettered.map(|(index, at)| (room.corner_letter(index), *at)).collect();
        let furniture = things(corner).into_iter().filter(|thing| thing.kind == Kind::Furniture);
        // Between the legs of a desk a tape goes through.
        let bodies =
            furniture.flat_map(|thing| thing.parts).filter(|part| part.what != "leg").map(|p| p.solid);
        let solids = bounds(room, 0.0).into_iter().map(|bound| bound.solid).chain(bodies).collect();
        Self { corners, solids }
    }

    /// Tape lengths of a mark: from the corners in sight, or from all where no two are.
    fn tape(&self, at: DVec2) -> Option<CornerMark> {
        let in_sight = |corner: DVec2| {
            let inwards = (at - corner).normalize_or_zero() * 0.02;
            let (from, to) = ((corner + inwards).extend(TAPE_HEIGHT_M), at.extend(TAPE_HEIGHT_M));
            !self.solids.iter().any(|solid| solid.blocks(from, to))
        };
        let seen: Vec<_> = self.corners.iter().copied().filter(|(_, corner)| in_sight(*corner)).collect();
        corner_mark(at, &seen, TAPE_ERROR_M).or_else(|| corner_mark(at, &self.corners, TAPE_ERROR_M))
    }
}

/// What the mark stands for, and where its foot is.
fn foot(name: &str, support: &Support, hold: DVec3) -> (String, DVec2) {
    match support.kind {
        SupportKind::Floor => (format!("{name}, middle of the stand"), base_of(support, hold)),
        SupportKind::Boom => (format!("{name}, middle of the boom stand"), base_of(support, hold)),
        SupportKind::Clamp | SupportKind::On => (format!("{name}, plumb under it"), hold.truncate()),
        SupportKind::Wall => (format!("{name}, plumb under its fixing on the wall"), base_of(support, hold)),
        SupportKind::Ceiling => (format!("{name}, plumb under its ceiling fixing"), hold.truncate()),
    }
}

fn bag(support: &Support) -> String {
    if support.sandbag_kg > 0.0 {
        format!(", sandbag {} kg", decimals(support.sandbag_kg, 1))
    } else {
        String::new()
    }
}

fn settings(corner: &Corner<'_>) -> Vec<Setting> {
    let camera = &corner.layout.camera;
    let units = corner.brief.units;
    let full_frame = camera.focal_length_mm * 36.0 / corner.image_mm.0.max(corner.image_mm.1);
    let sensor = corner.image_distance_mm / 1000.0 + camera.focus_distance_m;
    let mut all = vec![
        ("Body", corner.body.common.label.clone()),
        ("Lens", corner.lens.common.label.clone()),
        (
            "Focal length",
            format!("{} mm ({full_frame:.0} mm in full-frame terms)", decimals(camera.focal_length_mm, 0)),
        ),
        (
            "Held",
            match camera.orientation {
                crate::plan::Orientation::Landscape => "landscape".into(),
                crate::plan::Orientation::Portrait => "portrait".into(),
            },
        ),
        ("Frame rate", format!("{} per second", decimals(camera.frame_rate_hz, 0))),
        ("Shutter", shutter(camera.shutter_s)),
        ("Aperture", format!("f/{}", decimals(camera.f_number, 1))),
        ("ISO", decimals(camera.iso, 0)),
        (
            "White balance",
            format!(
                "{} K, then trim on a grey card through the modifier",
                decimals(camera.white_balance_k, 0)
            ),
        ),
        (
            "Focus",
            format!(
                "{} from the lens, {} on the focus scale",
                units.length(camera.focus_distance_m),
                units.length(sensor)
            ),
        ),
    ];
    if camera.nd_stops > 0.0 {
        let thread =
            corner.lens.filter_mm.map_or(String::new(), |mm| format!(", {} mm thread", decimals(mm, 0)));
        all.insert(8, ("Neutral density", format!("{} stops{thread}", decimals(camera.nd_stops, 1))));
    }
    all.into_iter().map(|(name, value)| Setting { name, value }).collect()
}

fn dials(corner: &Corner<'_>) -> Vec<Dial> {
    Role::IN_ORDER
        .into_iter()
        .flat_map(|role| corner.role(role))
        .map(|light| {
            let (azimuth, elevation) = corner.light_angles_deg(light.position_m);
            let side = if azimuth.abs() < 0.5 {
                "on the lens axis".to_owned()
            } else {
                format!(
                    "{}\u{b0} camera {}",
                    decimals(azimuth.abs(), 0),
                    if azimuth > 0.0 { "right" } else { "left" }
                )
            };
            let distance = corner.brief.units.length((light.position_m - corner.eyes_m).length());
            let lamp = matches!(light.source, Source::Lamp(_));
            Dial {
                letter: light.light.role.letter().to_owned(),
                what: with_what(light),
                percent: lamp.then(|| (light.light.dim * 100.0).round()),
                cct_k: lamp.then_some(light.light.cct_k).flatten(),
                place: format!("{side}, {}\u{b0} up, {distance} from the eyes", decimals(elevation, 0)),
            }
        })
        .collect()
}

/// A light with what is put before it.
fn with_what(light: &LightAt<'_>) -> String {
    let foil = light.light.gel.map(|gel| format!(", {} before it", gel.label()));
    let cloth = light.cloth.map(|(cloth, ahead_m)| {
        format!(", {} {} cm before it", cloth.common.label, decimals(100.0 * ahead_m, 0))
    });
    format!("{}{}{}", light.label(), foil.unwrap_or_default(), cloth.unwrap_or_default())
}

fn microphone(corner: &Corner<'_>) -> String {
    match corner.microphone {
        None => "No microphone in this plan.".into(),
        Some((gear, capsule)) => {
            let distance = corner.brief.units.length((capsule - corner.mouth_m).length());
            let place = if is_worn(gear.mounting) {
                "worn or on the camera"
            } else {
                "aimed at the mouth, just out of the picture"
            };
            format!("{}: {distance} from the mouth, {place}.", gear.common.label)
        }
    }
}

fn before(corner: &Corner<'_>) -> Vec<&'static str> {
    // What fails without a sound, by where it is recorded.
    let apart = record(corner).is_some_and(|record| record.path != RecordPath::Camera);
    let worn = corner.microphone.is_some_and(|(gear, _)| gear.mounting == Mounting::Lavalier);
    let mut all = vec![
        match (apart, worn) {
            (false, false) => {
                "Microphone plugged in, chosen as input, heard in headphones (turned down first)."
            }
            (false, true) => {
                "Microphone chosen as input; in headphones (turned down first) no rustle as the head turns."
            }
            (true, false) => {
                "It records: the meter jumps at a scratch; headphones turned down first; a clap at each end."
            }
            (true, true) => {
                "It records: the meter jumps at a scratch, no rustle as the head turns; a clap at each end."
            }
        },
        "Loudest sentence peaks between \u{2212}12 and \u{2212}6 dBFS; automatic gain off.",
        "Battery and card outlast the session.",
    ];
    let house = corner.lights.iter().any(crate::corner::is_of_the_house);
    all.push(match (house, corner.brief.windows_shine()) {
        (false, false) => "Ceiling light off, window shut out, phone and fridge silent.",
        (false, true) => {
            "Ceiling light off, the sky overcast or a sheer curtain drawn, phone and fridge silent."
        }
        (true, false) => "Window shut out, phone and fridge silent.",
        (true, true) => "The sky overcast or a sheer curtain drawn, phone and fridge silent.",
    });
    if corner.brief.person.face_tracking && corner.body.face_tracking {
        all.push("Face tracking seen to hold while you lean in and out.");
    } else {
        all.push("Focus locked on a stand-in at the seat mark; check leaning in and out.");
    }
    if corner.brief.person.glasses {
        all.push("No lamp mirrored in the glasses: raise the key if there is.");
    }
    all.push("Record 10 to 20 seconds; listen and look; then the real takes.");
    all
}

fn cautions(corner: &Corner<'_>, assessment: &Assessment) -> Vec<String> {
    let bare = |light: &LightAt<'_>| light.cloth.is_none() && light.face().luminance_cd_m2 > BLUE_LIGHT_CD_M2;
    let risk = corner.lights.iter().any(|l| matches!(l.source, Source::Lamp(_)) && bare(l));
    let label = if risk { " (their label tells the risk group)" } else { "" };
    let mut all = vec![
        "Sandbags on rear legs, legs wide, one under each arm; cables along walls, taped at crossings; no lead into a lead.".to_owned(),
        format!("No paper, foam or cloth on a hot lamp; no staring into LEDs{label} or, through a lens, the sun; no flashing above three a second. Local electrical codes and a licensed electrician come before this card."),
    ];
    if corner.lights.iter().any(|l| l.light.dim < 0.995 && matches!(l.source, Source::Lamp(_))) {
        all.push(
            "Dimmed lamps can flicker: film a white wall at each dial setting and look for bands.".into(),
        );
    }
    if corner.body.battery_wh.is_some() {
        all.push("Charge batteries attended, on a hard surface, never a swollen one.".into());
    }
    all.extend(assessment.findings.iter().filter_map(|f| f.caution).map(str::to_owned));
    all.dedup();
    all
}

fn assumed(corner: &Corner<'_>, assessment: &Assessment) -> Vec<String> {
    let mut all: Vec<String> = Vec::new();
    // What warms a room is no setting, and nobody measures its parts; what is heard is looked at before every take.
    let told = |id: &str| {
        !(id == "room.heat.rise_k" || id == "sound.room.noise_dba" || id.starts_with("sound.microphone."))
    };
    for reading in assessment.readings.iter().filter(|reading| told(&reading.id)) {
        for input in &reading.working.inputs {
            // Conventions are not measured by anyone.
            let convention = input.name.contains("knock") || input.name.contains("confusion");
            if input.from == crate::reading::From::Assumed && !convention {
                let value = if input.unit == "m" {
                    corner.brief.units.length(input.value)
                } else {
                    {
                        let places = if input.value.abs() >= 100.0 { 0 } else { 2 };
                        format!("{} {}", decimals(input.value, places), input.unit)
                    }
                };
                let words = format!("{} {value}", input.name);
                let words = words.trim().to_owned();
                if !all.contains(&words) {
                    all.push(words);
                }
            }
        }
    }
    all
}
