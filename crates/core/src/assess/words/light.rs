//! Findings of the light that no band makes: what burns out in the picture, glasses, mixed colours, eyes in the dark.

use super::left_to_do::can_rise_to;
use crate::colour::mired_shift;
use crate::corner::Corner;
use crate::finding::{Finding, Note, Severity};
use crate::light::LightReport;
use crate::light::detail::LEAN_M;
use crate::light::highlight::{Bright, Highlight, highlights};
use crate::light::mirrored::Mirrored;
use crate::light::power::{Change, Power, power};
use crate::light::tint::Mixture;
use crate::plan::{Gel, Role, ThingId, thing_named};
use crate::reading::{Quantity, Reading, ReadingId, Standing};
use crate::units::{aperture, capital, decimals, degrees};

/// A lack of light smaller than this is not told, stops: it would round to none.
const TOLD_STOPS: f64 = 0.05;
/// A window larger than this part of the picture is more than a glint. Fogon's own rule.
const LARGE: f64 = 0.05;
/// A practical lamp is set to so many stops over the face, the middle of half a stop to two (common practice, no
/// source).
pub(crate) const PRACTICAL_STOPS: f64 = 1.25;
/// Lamps that differ by more are mixed light, and a white balance that is off by more is told, mired. Fogon's own rule.
const MIXED_MIRED: f64 = 25.0;
const BALANCE_MIRED: f64 = 15.0;
/// Darker eye sockets are told, and a face that changes by more when leaning in, stops (common practice, no source).
const SOCKET_STOPS: f64 = -2.0;
const LEAN_STOPS: f64 = 0.3;
/// A keyed screen may be so uneven either way, and throw so much on the back, stops (common practice, no source).
const EVEN_STOPS: f64 = 1.0 / 3.0;
const SPILL_STOPS: f64 = -3.0;
/// A cloth brighter in its middle by more, a coloured lamp or a screen that gives the face more, stops (common practice,
/// no source).
const HOT_SPOT_STOPS: f64 = 1.0;
const RIM_STOPS: f64 = 2.0;
const SPILL_FACE_STOPS: f64 = -4.0;
const MONITOR_STOPS: f64 = -4.0;

pub(super) fn notes(lit: &LightReport<'_>, readings: &[Reading]) -> Vec<Finding> {
    let corner = lit.corner();
    let mut all: Vec<Finding> =
        highlights(corner, &lit.at_face()).iter().filter_map(|found| burnt_out(corner, found)).collect();
    all.extend(lit.mirrored().iter().filter(|m| m.part > 0.0).map(|found| glare(corner, found)));
    if let Some(mixture) = lit.mixture() {
        all.extend(mixed(mixture));
        all.extend(white_balance(corner, mixture));
    }
    // A face that is too dark tells it already, with the same remedies.
    let face = readings.iter().find(|reading| reading.id == Quantity::LightFaceExposureStops);
    let is_dark = face.is_some_and(|face| {
        face.value.is_some_and(|stops| stops < 0.0)
            && matches!(face.standing, Standing::Fair | Standing::Poor)
    });
    let weak_power = power(lit).filter(|power| power.in_hand_stops < -TOLD_STOPS && !is_dark);
    all.extend(weak_power.map(|power| weak(corner, &power)));
    all.extend(from_readings(corner, readings));
    all.extend(of_lights(corner, readings));
    all
}

/// The changes that would mend a lack of light, each by itself, the smallest first.
pub(super) fn remedies(corner: &Corner<'_>, power: &Power) -> String {
    let one = |change: &Change| match change {
        Change::Nearer(m) => format!("bring the key to {} from the eyes", corner.brief.units.length(*m)),
        Change::Open(n) => format!("open the lens to {}", aperture(*n)),
        Change::Iso(iso) => format!("allow ISO {} with its grain", decimals(*iso, 0)),
        Change::Stronger(times) => format!("use a lamp of {} times the light", decimals(*times, 1)),
    };
    let all: Vec<String> = power.changes.iter().map(one).collect();
    capital(&format!("{}.", all.join("; or ")))
}

/// Lamps that are too weak for the settings at any dial.
fn weak(corner: &Corner<'_>, power: &Power) -> Finding {
    Finding::new(
        Quantity::LightPowerInHandStops,
        Severity::Consider,
        format!(
            "With every dial at full the lamps are {} stops too weak at the highest ISO before grain.",
            decimals(-power.in_hand_stops, 1)
        ),
    )
    .because("What the lamps lack comes back as grain.", "ISO 6400 on full frame: Fogon's own rule")
    .on(Quantity::LightPowerInHandStops, Some(power.in_hand_stops))
    .advise(remedies(corner, power))
}

/// What single lights say that have no band: cloths lit unevenly, colour that spills, a screen that lights the face.
fn of_lights(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let source = "common practice, no source";
    let light_of = |reading: &Reading| {
        let thing = thing_named(corner.brief, corner.layout, reading.id.thing.as_deref()?)?;
        corner.lights.iter().find(|light| thing == ThingId::Light(light.id.clone()))
    };
    let told = |reading: &Reading| {
        let value = reading.value?;
        let finding = |words: String| Finding::new(reading.id.clone(), Severity::Consider, words);
        let finding = match reading.id.quantity {
            Quantity::LightHotSpotStops if value > HOT_SPOT_STOPS => finding(format!(
                "The cloth before the {} is {} stops brighter in its middle than in its corners.",
                light_of(reading)?.words(),
                decimals(value, 1)
            ))
            .because("A hot spot is a small, hard lamp in a large frame.", source)
            .advise("Move the lamp further behind the cloth."),
            Quantity::LightMonitorSpillStops if value > MONITOR_STOPS => finding(format!(
                "The screen in front of you lights your face, {} stops under the lamps.",
                decimals(-value, 1)
            ))
            .because("It tints and flickers with what it shows, and mirrors in glasses.", source)
            .advise("Turn its brightness down, or show a dark picture."),
            Quantity::LightSpillStops if value > SPILL_FACE_STOPS => {
                let light =
                    light_of(reading).filter(|l| l.light.colour.is_some() || l.light.gel.is_some())?;
                finding(format!(
                    "Colour of the {} reaches your face, {} stops under all light there.",
                    light.words(),
                    decimals(-value, 1)
                ))
                .because(
                    "Tinted skin looks ill; a tinted wall looks chosen.",
                    "four stops: common practice, no source",
                )
                .advise("Turn it to the wall, flag it, or move it further behind you.")
            }
            _ => return None,
        };
        Some(finding.on(reading.id.clone(), Some(value)))
    };
    readings.iter().filter_map(told).collect()
}

/// A lamp in the glasses, with the smallest move that clears it.
fn glare(corner: &Corner<'_>, found: &Mirrored<'_>) -> Finding {
    let way = match (found.light, found.clear_elevation_deg) {
        (Some(light), Some(up)) if can_rise_to(corner, light, up) => {
            format!("Raise it to {} above the eyes; else further aside", degrees(up.ceil()))
        }
        (Some(_), _) => "Move it further aside".to_owned(),
        (None, _) if found.id == ThingId::Screen => "Turn its brightness down, or move it".to_owned(),
        (None, _) => "Draw a curtain, or turn away from it".to_owned(),
    };
    let percent = 100.0 * found.part;
    let id = ReadingId::of(Quantity::LightGlarePercent, corner.name(&found.id));
    let part = if percent < 1.0 { "less than 1".to_owned() } else { decimals(percent, 0) };
    let words = format!("The {} shows in {part} % of a lens of your glasses.", found.id.words());
    Finding::new(id.clone(), Severity::Consider, words)
        .because(
            "What shines in the glasses hides the eyes.",
            "law of reflection at a tilted, curved lens; docs/workings/light.md",
        )
        .on(id, Some(percent))
        .advise(format!("{way}, tip the temples up a little, or turn the head."))
}

/// Lamps of different colours that both count on the face.
fn mixed(mixture: &Mixture) -> Option<Finding> {
    let (apart, cool, warm) = mixture.widest().filter(|(apart, ..)| *apart >= MIXED_MIRED)?;
    let (one, other) = (cool.words(), warm.words());
    Some(
        Finding::new(
            Note::MixedLight,
            Severity::Consider,
            format!(
                "The {one} ({} K) and the {other} ({} K) differ by {} mired on the face.",
                decimals(cool.cct_k, 0),
                decimals(warm.cct_k, 0),
                decimals(apart, 0)
            ),
        )
        .because(
            "No white balance suits two colours at once: one side comes out tinted.",
            "25 mired: Fogon's own rule; 5.5 are just seen: Judd 1933 (from memory)",
        )
        .on(Quantity::LightFaceCctK, Some(mixture.cct_k))
        .advise(
            Gel::ALL
                .into_iter()
                .map(|gel| {
                    let filtered = 1e6 / (1e6 / cool.cct_k + gel.shift_mired()).max(20.0);
                    (mired_shift(filtered, warm.cct_k).abs(), gel)
                })
                .min_by(|a, b| a.0.total_cmp(&b.0))
                .filter(|(left, _)| *left < MIXED_MIRED)
                .map_or_else(
                    || "Set both to one temperature, or leave the odd one to the background.".to_owned(),
                    |(_, gel)| {
                        format!(
                            "Set both to one temperature, put {} before the {one}, or leave the odd one to the background.",
                            gel.label()
                        )
                    },
                ),
        ),
    )
}

fn white_balance(corner: &Corner<'_>, mixture: &Mixture) -> Option<Finding> {
    let set = corner.layout.camera.white_balance_k;
    let off = mired_shift(set, mixture.cct_k);
    (off.abs() >= BALANCE_MIRED).then(|| {
        Finding::new(
            Quantity::LightFaceWhiteBalanceMired,
            Severity::Consider,
            format!(
                "The white balance is set to {} K; the light on the face is {} K: it comes out {}.",
                decimals(set, 0),
                decimals(mixture.cct_k, 0),
                if off > 0.0 { "warm" } else { "cold" }
            ),
        )
        .because("The colour of skin is the first that is seen to be wrong.", "common practice, no source")
        .on(Quantity::LightFaceWhiteBalanceMired, Some(off))
        .advise("Set the white balance to the light, then trim it on a grey card.")
    })
}

/// What single readings say that have no band of their own.
fn from_readings(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let value = |id: Quantity| readings.iter().find(|r| r.id == id).and_then(|r| r.value);
    let source = "common practice, no source";
    let mut all = Vec::new();
    // Under the ceiling light alone it is told as the key that is missing.
    let by_house = crate::light::house::shines(corner);
    let of_lamps = |id: Quantity| value(id).filter(|_| !by_house);
    if let Some(stops) = of_lamps(Quantity::LightFaceSocketStops).filter(|stops| *stops < SOCKET_STOPS) {
        all.push(
            Finding::new(
                Quantity::LightFaceSocketStops,
                Severity::Consider,
                format!("An eye socket gets {} stops less light than the face.", decimals(-stops, 1)),
            )
            .because("Eyes in the dark look tired: the mark of a lamp that hangs too high.", source)
            .on(Quantity::LightFaceSocketStops, Some(stops))
            .advise("Lower the key, or lay something white before you."),
        );
    }
    if let Some(stops) = of_lamps(Quantity::LightFaceLeanStops).filter(|stops| stops.abs() > LEAN_STOPS) {
        all.push(
            Finding::new(
                Quantity::LightFaceLeanStops,
                Severity::Consider,
                format!(
                    "Leaning in by {} changes the light on the face by {} stops.",
                    corner.brief.units.gap(LEAN_M),
                    decimals(stops.abs(), 1)
                ),
            )
            .because(
                "A lamp near by falls off fast.",
                "area formula; 0.3 stop shows: common practice, no source",
            )
            .on(Quantity::LightFaceLeanStops, Some(stops))
            .advise("A larger lamp further off is steadier; or keep still."),
        );
    }
    if let Some(stops) = of_lamps(Quantity::LightBackgroundStops).filter(|stops| *stops >= 0.05) {
        all.push(
            Finding::new(
                Quantity::LightBackgroundStops,
                Severity::Consider,
                format!("The background comes out {} stops brighter than your face.", decimals(stops, 1)),
            )
            .because("The eye goes where it is brightest.", source)
            .on(Quantity::LightBackgroundStops, Some(stops))
            .advise(if corner.lights.is_empty() {
                "Move further from the wall, or hang something darker."
            } else {
                "Move further from the wall, keep the lamps off it, or hang something darker."
            }),
        );
    }
    if let Some(stops) = value(Quantity::LightScreenEvennessStops).filter(|stops| *stops > EVEN_STOPS) {
        all.push(
            Finding::new(
                Quantity::LightScreenEvennessStops,
                Severity::Consider,
                format!("The screen behind you is lit unevenly: {} stops either way.", decimals(stops, 1)),
            )
            .because(
                "An uneven screen keys out unevenly.",
                "a third of a stop either way: common practice, no source",
            )
            .on(Quantity::LightScreenEvennessStops, Some(stops))
            .advise("Light it apart from you with two lamps from both sides, or use less of it."),
        );
    }
    if let Some(stops) = value(Quantity::LightScreenSpillStops).filter(|stops| *stops > SPILL_STOPS) {
        all.push(
            Finding::new(
                Quantity::LightScreenSpillStops,
                Severity::Consider,
                format!(
                    "The screen reflects its colour onto your back, {} stops under the face.",
                    decimals(-stops, 1)
                ),
            )
            .because("Tinted hair and shoulders key out with the screen.", source)
            .on(Quantity::LightScreenSpillStops, Some(stops))
            .advise("Move further from it, cover what the picture does not show, or add a back light."),
        );
    }
    if let Some(stops) = value(Quantity::LightScreenRimStops).filter(|stops| *stops < RIM_STOPS)
        && value(Quantity::LightScreenSpillStops).is_some_and(|spill| spill > SPILL_STOPS)
    {
        all.push(
            Finding::new(
                Quantity::LightScreenRimStops,
                Severity::Consider,
                format!(
                    "The back light is {} stops over the screen's colour on your hair.",
                    decimals(stops, 1)
                ),
            )
            .because("Two stops drown it.", "Fogon's own rule")
            .on(Quantity::LightScreenRimStops, Some(stops))
            .advise("Raise the back light's dial, or move further from the screen."),
        );
    }
    if of_lamps(Quantity::LightKeyCatchlightMm).is_some_and(|mm| mm <= 0.0) {
        all.push(
            Finding::new(
                Quantity::LightKeyCatchlightMm,
                Severity::Consider,
                "The key does not show in the eyes.",
            )
            .because("Eyes without a catchlight look dead.", source)
            .on(Quantity::LightKeyCatchlightMm, Some(0.0))
            .advise(match corner.role(Role::Key).next() {
                Some(_) => "Lower the key, or bring it nearer to the lens.",
                None => "Turn a little towards the window.",
            }),
        );
    }
    all
}

fn burnt_out(corner: &Corner<'_>, found: &Highlight) -> Option<Finding> {
    // A window counts as shut out unless it is the key.
    let shut = !corner.brief.windows_shine() || found.part < LARGE;
    if found.margin_stops >= 0.0 || (found.what == Bright::Window && shut) {
        return None;
    }
    let (name, over) = (found.id.words(), decimals(found.over_face_stops, 1));
    let (sentence, advice) = match found.what {
        Bright::Window => (
            format!(
                "By day the {name} is blown out over {} % of the picture: {over} stops over your face.",
                decimals(100.0 * found.part, 0)
            ),
            "Cover it with an opaque curtain, turn so that it lights you from the front, or film after dark.",
        ),
        Bright::Shade => (
            format!("The lit {name} is blown out: {over} stops over your face."),
            "Put in a weaker bulb or a dimmer, or leave it off.",
        ),
        Bright::Lamp => (
            format!("{} is blown out in the picture: {over} stops over your face.", capital(&name)),
            "Dim it, soften it, or move it out of the picture.",
        ),
    };
    let id = ReadingId::of(Quantity::LightHighlightStops, corner.name(&found.id));
    Some(
        Finding::new(id.clone(), Severity::Consider, sentence)
            .because(
                "Where nothing is left but white, the eye goes there.",
                "saturation of ISO 12232 (from memory); 0.5 to 2 stops over the face: common practice, no source",
            )
            .on(id, Some(found.over_face_stops))
            .advise(advice),
    )
}
