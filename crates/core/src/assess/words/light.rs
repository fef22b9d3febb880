//! Findings of the light that no band makes: what burns out in the picture, glasses, mixed colours, eyes in the dark.

use crate::colour::mired_shift;
use crate::corner::Corner;
use crate::finding::{Finding, Severity};
use crate::light::detail::Mirrored;
use crate::light::face::Lit;
use crate::light::highlight::{Bright, Highlight, highlights};
use crate::light::power::{Change, Power, power};
use crate::light::tint::Mixture;
use crate::plan::Gel;
use crate::reading::Reading;
use crate::units::{capital, decimals};

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

pub(super) fn notes(lit: &Lit<'_>, readings: &[Reading]) -> Vec<Finding> {
    let corner = lit.corner();
    let mut all: Vec<Finding> =
        highlights(corner, &lit.at_face()).iter().filter_map(|found| burnt_out(corner, found)).collect();
    all.extend(lit.mirrored().iter().filter(|m| m.part > 0.0).map(glare));
    if let Some(mixture) = lit.mixture() {
        all.extend(mixed(mixture));
        all.extend(white_balance(corner, mixture));
    }
    all.extend(power(lit).filter(|power| power.in_hand_stops < 0.0).map(|power| weak(corner, &power)));
    all.extend(from_readings(readings));
    all.extend(of_lights(corner, readings));
    all
}

/// The changes that would mend a lack of light, each by itself, the smallest first.
pub(super) fn remedies(corner: &Corner<'_>, power: &Power) -> String {
    let one = |change: &Change| match change {
        Change::Nearer(m) => format!("bring the key to {} from the eyes", corner.brief.units.length(*m)),
        Change::Open(n) => format!("open the lens to f/{}", decimals(*n, 1)),
        Change::Iso(iso) => format!("allow ISO {} with its grain", decimals(*iso, 0)),
        Change::Stronger(times) => format!("use a lamp of {} times the light", decimals(*times, 1)),
    };
    let all: Vec<String> = power.changes.iter().map(one).collect();
    capital(&format!("{}.", all.join("; or ")))
}

/// Lamps that are too weak for the settings at any dial.
fn weak(corner: &Corner<'_>, power: &Power) -> Finding {
    Finding::new(
        "light.power.in_hand_stops",
        Severity::Consider,
        format!(
            "With every dial at full the lamps are {} stops too weak at the highest ISO before grain.",
            decimals(-power.in_hand_stops, 1)
        ),
    )
    .because("What the lamps lack comes back as grain.", "ISO 6400 on full frame: Fogon's own rule")
    .on("light.power.in_hand_stops", Some(power.in_hand_stops), "stops")
    .advise(remedies(corner, power))
}

/// What single lights say that have no band: cloths lit unevenly, colour that spills, a screen that lights the face.
fn of_lights(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let mut all = Vec::new();
    let source = "common practice, no source";
    let name = |id: &str| id.split('.').nth(1).unwrap_or_default().replace('-', " ");
    for reading in readings {
        let Some(value) = reading.value else { continue };
        let id = reading.id.as_ref();
        let finding = |sentence: String| Finding::new(id.to_owned(), Severity::Consider, sentence);
        if id.ends_with(".hot_spot_stops") && value > HOT_SPOT_STOPS {
            let words = format!(
                "The cloth before the {} is {} stops brighter in its middle than in its corners.",
                name(id),
                decimals(value, 1)
            );
            all.push(
                finding(words)
                    .because("A hot spot is a small, hard lamp in a large frame.", source)
                    .on(id.to_owned(), Some(value), "stops")
                    .advise("Move the lamp further behind the cloth."),
            );
        } else if id == "light.monitor.spill_stops" && value > MONITOR_STOPS {
            all.push(
                finding(format!(
                    "The screen in front of you lights your face, {} stops under the lamps.",
                    decimals(-value, 1)
                ))
                .because("It tints and flickers with what it shows, and mirrors in glasses.", source)
                .on(id.to_owned(), Some(value), "stops")
                .advise("Turn its brightness down, or show a dark picture."),
            );
        } else if id.ends_with(".spill_stops") && value > SPILL_FACE_STOPS {
            let coloured = corner
                .lights
                .iter()
                .find(|l| id == format!("light.{}.spill_stops", l.id))
                .is_some_and(|l| l.light.colour.is_some() || l.light.gel.is_some());
            if coloured {
                all.push(
                    finding(format!(
                        "Colour of the {} reaches your face, {} stops under all light there.",
                        name(id),
                        decimals(-value, 1)
                    ))
                    .because(
                        "Tinted skin looks ill; a tinted wall looks chosen.",
                        "four stops: common practice, no source",
                    )
                    .on(id.to_owned(), Some(value), "stops")
                    .advise("Turn it to the wall, flag it, or move it further behind you."),
                );
            }
        }
    }
    all
}

/// A lamp in the glasses, with the smallest move that clears it.
fn glare(found: &Mirrored<'_>) -> Finding {
    let name = found.id.replace('-', " ");
    let way = match (found.light, found.clear_elevation_deg) {
        (Some(_), Some(up)) => format!("Raise it to {} degrees above the eyes", decimals(up.ceil(), 0)),
        (Some(_), None) => "Raise it".to_owned(),
        (None, _) if found.id == "screen" => "Turn its brightness down, or move it".to_owned(),
        (None, _) => "Draw a curtain, or turn away from it".to_owned(),
    };
    Finding::new(
        format!("light.{}.glare_percent", found.id),
        Severity::Consider,
        format!("The {name} shows in {} % of a lens of your glasses.", decimals(100.0 * found.part, 0)),
    )
    .because(
        "What shines in the glasses hides the eyes.",
        "law of reflection at a tilted, curved lens; docs/workings/light.md",
    )
    .on(format!("light.{}.glare_percent", found.id), Some(100.0 * found.part), "%")
    .advise(format!("{way}; else further aside, tip the temples up by 2 to 3 mm, or turn the head."))
}

/// Lamps of different colours that both count on the face.
fn mixed(mixture: &Mixture<'_>) -> Option<Finding> {
    let (apart, cool, warm) = mixture.widest().filter(|(apart, ..)| *apart >= MIXED_MIRED)?;
    let (one, other) = (cool.light.id.replace('-', " "), warm.light.id.replace('-', " "));
    Some(
        Finding::new(
            "light.mixed",
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
        .on("light.face.cct_k", Some(mixture.cct_k), "K")
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

fn white_balance(corner: &Corner<'_>, mixture: &Mixture<'_>) -> Option<Finding> {
    let set = corner.layout.camera.white_balance_k;
    let off = mired_shift(set, mixture.cct_k);
    (off.abs() >= BALANCE_MIRED).then(|| {
        Finding::new(
            "light.face.white_balance_mired",
            Severity::Consider,
            format!(
                "The white balance is set to {} K; the light on the face is {} K: it comes out {}.",
                decimals(set, 0),
                decimals(mixture.cct_k, 0),
                if off > 0.0 { "warm" } else { "cold" }
            ),
        )
        .because("The colour of skin is the first that is seen to be wrong.", "common practice, no source")
        .on("light.face.white_balance_mired", Some(off), "mired")
        .advise("Set the white balance to the light, then trim it on a grey card.")
    })
}

/// What single readings say that have no band of their own.
fn from_readings(readings: &[Reading]) -> Vec<Finding> {
    let value = |id: &str| readings.iter().find(|r| r.id == id).and_then(|r| r.value);
    let source = "common practice, no source";
    let mut all = Vec::new();
    if let Some(stops) = value("light.face.socket_stops").filter(|stops| *stops < SOCKET_STOPS) {
        all.push(
            Finding::new(
                "light.face.socket_stops",
                Severity::Consider,
                format!("An eye socket gets {} stops less light than the face.", decimals(-stops, 1)),
            )
            .because("Eyes in the dark look tired: the mark of a lamp that hangs too high.", source)
            .on("light.face.socket_stops", Some(stops), "stops")
            .advise("Lower the key, switch a ceiling light off, or lay something white before you."),
        );
    }
    if let Some(stops) = value("light.face.lean_stops").filter(|stops| stops.abs() > LEAN_STOPS) {
        all.push(
            Finding::new(
                "light.face.lean_stops",
                Severity::Consider,
                format!(
                    "Leaning in by 10 cm changes the light on the face by {} stops.",
                    decimals(stops.abs(), 1)
                ),
            )
            .because(
                "A lamp near by falls off fast.",
                "area formula; 0.3 stop shows: common practice, no source",
            )
            .on("light.face.lean_stops", Some(stops), "stops")
            .advise("A larger lamp further off is steadier; or sit still."),
        );
    }
    if let Some(stops) = value("light.background.stops").filter(|stops| *stops > 0.0) {
        all.push(
            Finding::new(
                "light.background.stops",
                Severity::Consider,
                format!("The background comes out {} stops brighter than your face.", decimals(stops, 1)),
            )
            .because("The eye goes where it is brightest.", source)
            .on("light.background.stops", Some(stops), "stops")
            .advise("Sit further from the wall, keep the lamps off it, or hang something darker."),
        );
    }
    if let Some(stops) = value("light.screen.evenness_stops").filter(|stops| *stops > EVEN_STOPS) {
        all.push(
            Finding::new(
                "light.screen.evenness_stops",
                Severity::Consider,
                format!("The screen behind you is lit unevenly: {} stops either way.", decimals(stops, 1)),
            )
            .because(
                "An uneven screen keys out unevenly.",
                "a third of a stop either way: common practice, no source",
            )
            .on("light.screen.evenness_stops", Some(stops), "stops")
            .advise("Light it apart from you with two lamps from both sides, or use less of it."),
        );
    }
    if let Some(stops) = value("light.screen.spill_stops").filter(|stops| *stops > SPILL_STOPS) {
        all.push(
            Finding::new(
                "light.screen.spill_stops",
                Severity::Consider,
                format!(
                    "The screen throws its colour on your back, {} stops under the face.",
                    decimals(-stops, 1)
                ),
            )
            .because("Tinted hair and shoulders key out with the screen.", source)
            .on("light.screen.spill_stops", Some(stops), "stops")
            .advise("Sit further from it, cover what the picture does not show, or add a back light."),
        );
    }
    if let Some(stops) = value("light.screen.rim_stops").filter(|stops| *stops < RIM_STOPS)
        && value("light.screen.spill_stops").is_some_and(|spill| spill > SPILL_STOPS)
    {
        all.push(
            Finding::new(
                "light.screen.rim_stops",
                Severity::Consider,
                format!(
                    "The back light is {} stops over the screen's colour on your hair.",
                    decimals(stops, 1)
                ),
            )
            .because("Two stops drown it.", "Fogon's own rule")
            .on("light.screen.rim_stops", Some(stops), "stops")
            .advise("Raise the back light's dial, or sit further from the screen."),
        );
    }
    if value("light.key.catchlight_mm").is_some_and(|mm| mm <= 0.0) {
        all.push(
            Finding::new("light.key.catchlight_mm", Severity::Consider, "The key does not show in the eyes.")
                .because("Eyes without a catchlight look dead.", source)
                .on("light.key.catchlight_mm", Some(0.0), "mm")
                .advise("Lower the key, or bring it nearer to the lens."),
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
    let name = capital(&found.id.replace('-', " "));
    let over = decimals(found.over_face_stops, 1);
    let (sentence, advice) = match found.what {
        Bright::Window => (
            format!(
                "By day the {} burns out over {} % of the picture: {over} stops over your face.",
                found.id.replace('-', " "),
                decimals(100.0 * found.part, 0)
            ),
            "Shut it out with an opaque curtain, turn so that it lights you from the front, or film after dark.",
        ),
        Bright::Shade => (
            format!("The lit {} burns out: {over} stops over your face.", found.id.replace('-', " ")),
            "Put in a weaker bulb or a dimmer, or leave it off.",
        ),
        Bright::Lamp => (
            format!("{name} burns out in the picture: {over} stops over your face."),
            "Dim it, soften it, or move it out of the picture.",
        ),
    };
    Some(
        Finding::new(format!("light.{}.highlight_stops", found.id), Severity::Consider, sentence)
            .because(
                "Where nothing is left but white, the eye goes there.",
                "saturation of ISO 12232 (from memory); 0.5 to 2 stops over the face: common practice, no source",
            )
            .on(
                format!("light.{}.highlight_stops", found.id),
                Some(found.over_face_stops),
                "stops",
            )
            .advise(advice),
    )
}
