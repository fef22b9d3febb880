//! What the card says beside its marks: camera, lamps, microphone, cables, checks, cautions, what was assumed.

use super::entries::{Cable, Dial, Hung, Setting};
use crate::assess::Assessment;
use crate::corner::{Corner, Kit, LightAt, Source, is_of_the_house};
use crate::light::house;
use crate::plan::{Id, Mounting, Part, Purpose, Role, ThingId, WALL_NAMES, name_of};
use crate::reading::{Origin, Quantity, Reading};
use crate::shot::recording::video_width_px;
use crate::sound::placement::may_show;
use crate::sound::record::record;
use crate::units::{UnitSystem, aperture, capital, decimals, focal_mm, shutter};

/// From this luminance on a source is assessed for blue light, cd/m2 (IEC TR 62778, from memory).
const BLUE_LIGHT_CD_M2: f64 = 1e4;
/// A focus nearer to the eyes than this is on them, m.
const ON_THE_EYES_M: f64 = 0.01;

pub(super) fn settings(corner: &Corner<'_>) -> Vec<Setting> {
    let camera = &corner.layout.camera;
    let units = corner.brief.units;
    let full_frame = camera.focal_length_mm * 36.0 / corner.image_mm.0.max(corner.image_mm.1);
    // What is laid with a tape is told as a tape measures it: straight from lens to eyes.
    let on_the_eyes = (camera.focus_distance_m - corner.subject_distance_m()).abs() < ON_THE_EYES_M;
    // A scale counts from the sensor; a lens that is part of its camera has none.
    let on_scale = if corner.lens.built_into.is_some() {
        String::new()
    } else {
        let sensor_m = corner.image_distance_mm / 1000.0 + camera.focus_distance_m;
        format!(", {} on the focus scale", units.length(sensor_m))
    };
    let focused = if on_the_eyes {
        format!("on the eyes, {} from the lens{on_scale}", units.length(corner.lens_to_eyes_m()))
    } else {
        format!("{} ahead of the lens{on_scale}", units.length(camera.focus_distance_m))
    };
    let mut all = vec![
        ("Body", corner.body.common.label.clone()),
        ("Lens", corner.lens.common.label.clone()),
        (
            "Focal length",
            format!("{} mm ({full_frame:.0} mm in full-frame terms)", focal_mm(camera.focal_length_mm)),
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
        ("Aperture", aperture(camera.f_number)),
        ("ISO", decimals(camera.iso, 0)),
        (
            "White balance",
            format!("{} K, then trim on a grey card before your face", decimals(camera.white_balance_k, 0)),
        ),
        ("Focus", focused),
    ];
    if camera.crop > 1.0 {
        let (recorded, _) = video_width_px(corner);
        let kept = decimals(recorded / camera.crop, 0);
        all.insert(
            3,
            ("Cut in the edit", format!("the middle {kept} of {} pixels across", decimals(recorded, 0))),
        );
    }
    if camera.nd_stops > 0.0 {
        let thread =
            corner.lens.filter_mm.map_or(String::new(), |mm| format!(", {} mm thread", decimals(mm, 0)));
        let before_balance = all.iter().position(|(name, _)| *name == "White balance").unwrap_or(all.len());
        all.insert(
            before_balance,
            ("Neutral density", format!("{} stops{thread}", decimals(camera.nd_stops, 1))),
        );
    }
    // A lens with one opening has nothing to be set.
    let is_fixed = |name: &str| name == "Aperture" && corner.lens.f_number_limit <= camera.f_number;
    let look_for = |name| look_for(name).filter(|_| !is_fixed(name));
    all.into_iter().map(|(name, value)| Setting { name, value, look_for: look_for(name) }).collect()
}

/// What to look for once a setting is made. Common practice, no source.
fn look_for(setting: &str) -> Option<&'static str> {
    match setting {
        "Shutter" => Some("Shutter by hand, not automatic: a hand that waves smears a little."),
        "Aperture" => Some("Aperture by hand: it does not change when you lean in."),
        "ISO" => Some("Automatic ISO off: the picture stays as bright when you wave."),
        "White balance" => Some("A white sheet at the seat looks white, and stays so."),
        "Focus" => Some("Eyelashes are sharp, not the ears."),
        "Frame rate" => Some("No bands run through the picture."),
        _ => None,
    }
}

/// What hangs or lies against the echo, with the places of its edges.
pub(super) fn hung(corner: &Corner<'_>) -> Vec<Hung> {
    let (room, units) = (&corner.brief.room, corner.brief.units);
    let treatment = corner.layout.treatment.iter();
    let told = treatment.filter_map(|(id, one)| {
        let gear = corner.brief.gear.get(&one.gear)?.treatment()?;
        let plane = room.surface(&one.on.0)?;
        let [along, up] = plane.flat_m(one.position_m.into());
        let [across, high] = one.size_m(gear);
        let (left, low) = (along - across / 2.0, up - high / 2.0);
        let wall = WALL_NAMES.iter().position(|name| *name == one.on.0);
        let place = match wall {
            Some(wall) => format!(
                "on {}, {} to {} from corner {}, upper edge {} high",
                room.wall_name(wall),
                units.mark(left),
                units.mark(left + across),
                room.corner_letter(wall),
                units.mark(low + high)
            ),
            None => format!(
                "{} the {}, {} to {} from the left wall, {} to {} from the back wall",
                if one.on.0 == "floor" { "on" } else { "under" },
                one.on,
                units.mark(left),
                units.mark(left + across),
                units.mark(low),
                units.mark(low + high)
            ),
        };
        let id = name_of(corner.brief, corner.layout, &ThingId::Treatment(id.clone()));
        Some(Hung { id, what: gear.common.label.clone(), place })
    });
    told.collect()
}

pub(super) fn dials(corner: &Corner<'_>) -> Vec<Dial> {
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
            let aim = if light.light.role == Role::Background { ", aimed at what is behind you" } else { "" };
            Dial {
                letter: light.light.role.letter().to_owned(),
                what: with_what(corner.brief.units, light),
                percent: lamp.then(|| (light.light.dim * 100.0).round()),
                cct_k: lamp.then_some(light.light.cct_k).flatten(),
                place: format!("{side}, {}\u{b0} up, {distance} from the eyes{aim}", decimals(elevation, 0)),
            }
        })
        .collect()
}

/// A light with what is put before it.
fn with_what(units: UnitSystem, light: &LightAt<'_>) -> String {
    let gel = light.light.gel.map(|gel| format!(", {} in front of it", gel.label()));
    let cloth = light
        .cloth
        .map(|(cloth, ahead_m)| format!(", {} {} in front of it", cloth.common.label, units.gap(ahead_m)));
    format!("{}{}{}", light.label(), gel.unwrap_or_default(), cloth.unwrap_or_default())
}

/// The microphone and where it goes.
pub(super) fn microphone(corner: &Corner<'_>) -> String {
    let Some((gear, capsule)) = corner.microphone else {
        let away = corner.brief.units.length((corner.view.position_m - corner.mouth_m).length());
        return format!("The camera's own microphone, {away} from the mouth.");
    };
    let distance = corner.brief.units.length((capsule - corner.mouth_m).length());
    let aim = if corner.brief.purpose == Purpose::Performance {
        "aimed between mouth and instrument"
    } else {
        "aimed at the mouth"
    };
    let place = match gear.mounting {
        Mounting::Lavalier | Mounting::Headset => "worn".to_owned(),
        Mounting::OnCamera | Mounting::BuiltIn => "on the camera".to_owned(),
        Mounting::Boom | Mounting::Desk if may_show(corner, gear) => format!("{aim}, in the picture"),
        Mounting::Boom | Mounting::Desk => format!("{aim}, just out of the picture"),
    };
    format!("{}: {distance} from the mouth, {place}.", gear.common.label)
}

/// What is plugged into what.
pub(super) fn cables(corner: &Corner<'_>) -> Vec<Cable> {
    let label =
        |id: &Id| corner.brief.gear.get(id).map_or_else(String::new, |gear| gear.common().label.clone());
    let kit = Kit::of(corner);
    kit.links
        .iter()
        .map(|link| Cable {
            of: label(link.gear),
            to: link.by.map_or_else(|| "The computer, by USB".to_owned(), label),
        })
        .collect()
}

/// What holds for every mark: where it is aimed, and on which leg the bags lie. None where nothing is aimed or weighted.
pub(super) fn aims(corner: &Corner<'_>) -> Option<String> {
    let lights_you = |light: &LightAt<'_>| match light.light.role {
        Role::Key | Role::Fill | Role::Back => {
            matches!(light.source, Source::Lamp(_)) && !is_of_the_house(light)
        }
        Role::Background | Role::Practical => false,
    };
    let is_aimed = |mounting| matches!(mounting, Mounting::Boom | Mounting::Desk);
    let microphone = corner.microphone.is_some_and(|(gear, _)| is_aimed(gear.mounting));
    let aimed = match (corner.lights.iter().any(lights_you), microphone) {
        (true, true) => {
            Some("Lamps that light you are aimed at the eyes, the microphone as told under Microphone")
        }
        (true, false) => Some("Lamps that light you are aimed at the eyes"),
        (false, true) => Some("The microphone is aimed as told under Microphone"),
        (false, false) => None,
    };
    let screen = corner.layout.backdrop.as_ref().is_some_and(|backdrop| backdrop.sandbag_kg > 0.0);
    let mut stands = corner.layout.parts().filter_map(Part::support);
    let weighted = screen || stands.any(|support| support.sandbag_kg > 0.0);
    let bags = weighted.then_some("sandbags lie on the rear leg");
    let told: Vec<&str> = aimed.into_iter().chain(bags).collect();
    (!told.is_empty()).then(|| format!("{}.", capital(&told.join("; "))))
}

pub(super) fn before(corner: &Corner<'_>) -> Vec<String> {
    // What fails without a sound, by where it is recorded.
    let apart = record(corner).path.is_apart();
    let worn = corner.microphone.is_some_and(|(gear, _)| gear.mounting == Mounting::Lavalier);
    let of_the_camera = corner.microphone.is_none_or(|(gear, _)| gear.mounting == Mounting::BuiltIn);
    let heard = match (apart, worn) {
        (false, _) if of_the_camera => {
            "The camera's sound is on: your voice is clear in a test take, in headphones (turned down first)."
        }
        (false, false) => "Microphone plugged in, chosen as input, heard in headphones (turned down first).",
        (false, true) => {
            "Microphone chosen as input; in headphones (turned down first) no rustle as the head turns."
        }
        (true, false) => {
            "It records: the meter jumps at a scratch; headphones turned down first; a clap at each end."
        }
        (true, true) => {
            "It records: the meter jumps at a scratch, no rustle as the head turns; a clap at each end."
        }
    };
    let mut all: Vec<String> = vec![
        heard.into(),
        "Loudest sentence peaks between \u{2212}12 and \u{2212}6 dBFS; automatic gain off.".into(),
        "Battery and card outlast the session.".into(),
        quiet_and_even(corner),
    ];
    if corner.brief.person.face_tracking && corner.body.face_tracking {
        all.push("Face tracking seen to hold while you lean in and out.".into());
    } else {
        all.push("Focus locked on a stand-in at the seat mark; check leaning in and out.".into());
    }
    if corner.brief.person.glasses {
        all.push(
            "Nothing mirrored in the glasses; if there is, tip the temples up a little or turn the head."
                .into(),
        );
    }
    all.push("Record 10 to 20 seconds; listen and look; then the real takes.".into());
    all
}

/// The room's own light as the plan counts on it; what is heard without being asked silenced.
fn quiet_and_even(corner: &Corner<'_>) -> String {
    let shines = corner.brief.windows_shine();
    let window = corner.brief.room.has_window();
    let told = [
        house::before_a_take(corner),
        shines.then_some("the sky overcast or a sheer curtain drawn"),
        (window && !shines).then_some("window covered"),
        Some("phone and fridge silent"),
    ];
    let told: Vec<&str> = told.into_iter().flatten().collect();
    format!("{}.", capital(&told.join(", ")))
}

pub(super) fn cautions(corner: &Corner<'_>, assessment: &Assessment) -> Vec<String> {
    let bare = |light: &LightAt<'_>| light.cloth.is_none() && light.face().luminance_cd_m2 > BLUE_LIGHT_CD_M2;
    let risk = corner.lights.iter().any(|l| matches!(l.source, Source::Lamp(_)) && bare(l));
    let label = if risk { " (their label tells the risk group)" } else { "" };
    let mut all = vec![
        "Sandbags on rear legs, legs wide, one under each arm; cables along walls, taped at crossings; no extension lead into another.".to_owned(),
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

/// Figures that stand in for ones nobody gave.
pub(super) fn assumed(corner: &Corner<'_>, assessment: &Assessment) -> Vec<String> {
    let mut all: Vec<String> = Vec::new();
    // What warms a room is no setting, and nobody measures its parts; what is heard is looked at before every take.
    let tells = |reading: &&Reading| {
        let quantity = reading.id.quantity;
        !(matches!(quantity, Quantity::RoomHeatRiseK | Quantity::SoundRoomNoiseDba)
            || quantity.id().starts_with("sound.microphone."))
    };
    for reading in assessment.readings.iter().filter(tells) {
        // Conventions are not measured by anyone.
        let convention = |name: &str| name.contains("knock") || name.contains("confusion");
        let inputs = reading.working.inputs.iter();
        for input in inputs.filter(|input| input.from == Origin::Assumed && !convention(input.name)) {
            let places = if input.value.abs() >= 100.0 { 0 } else { 2 };
            // Lenses and sensors are told in millimetres everywhere.
            let of_lens = input.unit == "mm" && reading.id.quantity.id().starts_with("shot.");
            let units = if of_lens { UnitSystem::Metric } else { corner.brief.units };
            let words = format!("{} {}", input.name, units.with_unit(input.value, input.unit, places));
            if !all.contains(&words) {
                all.push(words);
            }
        }
    }
    all
}
