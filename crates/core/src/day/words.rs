//! What is to be said of a day.

use super::clock::{MINUTE_S, span_words};
use super::light::{DayLight, Moment};
use crate::colour::mired_shift;
use crate::daylight::{Crossings, Sun};
use crate::geometry::DVec3;
use crate::units::lower_first;

/// Every so many minutes it is looked at how the light goes, and where the sun lies should the bearing be off.
const EVERY: usize = 5;
/// A change of the light that is seen in a picture whose exposure and white balance are locked: stops (Fogon's own rule), and mired
/// (common practice, no source).
const HOLDS_STOPS: f64 = 1.0 / 3.0;
const HOLDS_MIRED: f64 = 25.0;

type Minutes = [(i64, Moment)];
type Clock<'a> = &'a dyn Fn(i64) -> String;

/// Everything that is said of a day, minute by minute.
pub(super) fn sentences(
    light: &DayLight<'_>,
    minutes: &Minutes,
    rises: &Crossings,
    clock: Clock<'_>,
) -> Vec<String> {
    let wanted = light.corner().brief.windows_shine();
    let mut all: Vec<String> = of_the_sun(rises).into_iter().collect();
    all.extend(BEAMS.iter().filter_map(|beam| of_the_beam(minutes, beam, wanted, clock)));
    all.extend(of_the_bearing(light, minutes));
    all.extend(of_the_light(light, minutes, wanted, clock));
    all
}

/// Where it does not rise or does not set.
fn of_the_sun(rises: &Crossings) -> Option<String> {
    match (rises.always_above, rises.always_below) {
        (true, _) => Some("The sun does not set on this day.".to_owned()),
        (_, true) => Some("The sun does not rise on this day.".to_owned()),
        _ => None,
    }
}

/// Where the sun should not shine.
struct Beam {
    is: fn(&Moment) -> bool,
    /// The same, for a sun elsewhere.
    would: fn(&DayLight<'_>, DVec3) -> bool,
    what: &'static str,
    mend: &'static str,
}

const BEAMS: [Beam; 3] = [
    Beam {
        is: |moment| moment.on_face,
        would: |light, to_sun| light.sunlight().on_face(to_sun),
        what: "The sun shines into your eyes",
        mend: "Draw a blind or a white curtain then.",
    },
    Beam {
        is: |moment| moment.in_lens,
        would: |light, to_sun| light.sunlight().in_lens(to_sun),
        what: "The sun shines onto the lens",
        mend: "Shade the lens, or draw a blind then.",
    },
    Beam {
        is: |moment| moment.behind,
        would: |light, to_sun| light.sunlight().behind_the_person(to_sun),
        what: "A patch of sun lies behind you in the picture",
        mend: "It wanders while you record: draw a blind then.",
    },
];

/// When the sun shines where it should not.
fn of_the_beam(minutes: &Minutes, beam: &Beam, wanted: bool, clock: Clock<'_>) -> Option<String> {
    let Beam { is, what, mend, .. } = beam;
    let mut spans: Vec<(i64, i64)> = Vec::new();
    for (at, _) in minutes.iter().filter(|(_, moment)| is(moment)) {
        match spans.last_mut() {
            Some(last) if last.1 == *at => last.1 += MINUTE_S,
            _ => spans.push((*at, at + MINUTE_S)),
        }
    }
    let words: Vec<String> =
        spans.iter().map(|(from, to)| format!("from {} to {}", clock(*from), clock(*to))).collect();
    let when = words.join(" and ");
    (!words.is_empty()).then(|| match wanted {
        true => format!("{what} {when}. {mend}"),
        // A covered window lets no sun in.
        false => format!("Left uncovered: {} {when}.", lower_first(what)),
    })
}

/// By how much the hours of sun are off, should the bearing of the window be off.
fn of_the_bearing(light: &DayLight<'_>, minutes: &Minutes) -> Option<String> {
    let within_deg = light.corner().brief.room.north_within_or_usual_deg();
    let seldom: Vec<(i64, Moment)> = minutes.iter().step_by(EVERY).copied().collect();
    // First and last moment of each beam with the window turned by some degrees.
    let ends = |beam: &Beam, by_deg: f64| {
        let lies = |moment: &Moment| {
            let sun = Sun { azimuth_deg: moment.sun.azimuth_deg + by_deg, ..moment.sun };
            (beam.would)(light, light.sunlight().to_sun(sun))
        };
        let all: Vec<i64> = seldom.iter().filter(|(_, moment)| lies(moment)).map(|(at, _)| *at).collect();
        all.first().copied().zip(all.last().copied())
    };
    let mut most_s = 0;
    let mut comes_or_goes = false;
    for beam in &BEAMS {
        let own = ends(beam, 0.0);
        for other in [ends(beam, -within_deg), ends(beam, within_deg)] {
            match (own, other) {
                (Some(own), Some(other)) => {
                    most_s = most_s.max((own.0 - other.0).abs()).max((own.1 - other.1).abs());
                }
                (None, None) => {}
                _ => comes_or_goes = true,
            }
        }
    }
    let turned = format!("The window's bearing may be {within_deg:.0} degrees off");
    match (most_s / MINUTE_S, comes_or_goes) {
        (0, false) => None,
        (0, true) => {
            Some(format!("{turned}: with that, sun that is told here may not come, or other sun may."))
        }
        (minutes, _) => {
            Some(format!("{turned}: these times of sun may then be off by up to {}.", span_words(minutes)))
        }
    }
}

/// How the light on the face goes.
fn of_the_light(light: &DayLight<'_>, minutes: &Minutes, wanted: bool, clock: Clock<'_>) -> Vec<String> {
    let moments: Vec<(i64, Moment)> = minutes.iter().step_by(EVERY).copied().collect();
    let brightest = moments.iter().max_by(|a, b| a.1.overcast_lx.total_cmp(&b.1.overcast_lx));
    let Some((_, noon)) = brightest.filter(|(_, noon)| noon.overcast_lx > 1.0) else { return Vec::new() };
    let mut all = Vec::new();
    if wanted {
        let swing = (noon.clear_lx / noon.overcast_lx).log2().abs();
        if swing > HOLDS_STOPS {
            all.push(format!(
                "Between a clear and an overcast sky the light on your face changes by {swing:.1} stops."
            ));
        }
        all.extend(of_the_dials(light, &moments, clock));
    } else if light.lamps_lx > 0.0 {
        let most = (noon.clear_lx.max(noon.overcast_lx) / light.lamps_lx).log2();
        all.push(if most > 0.0 {
            format!(
                "Left uncovered: the windows give your face up to {:.1} times the lamps' light.",
                most.exp2()
            )
        } else if most > -3.0 {
            format!(
                "Left uncovered: the windows give your face up to {:.0} % of what the lamps do.",
                100.0 * most.exp2()
            )
        } else {
            "Left uncovered: the windows stay three stops or more below the lamps all day.".to_owned()
        });
    }
    all
}

/// From when on locked dials hold longest, under an even grey and under a clear sky.
fn of_the_dials(light: &DayLight<'_>, moments: &Minutes, clock: Clock<'_>) -> Option<String> {
    let overcast: Vec<(i64, Option<[f64; 2]>)> = moments
        .iter()
        .map(|(at, moment)| {
            let lx = Some(moment.overcast_lx).filter(|lx| *lx >= light.needed_lx);
            (*at, lx.map(|lx| [lx, crate::photometry::sky::OVERCAST_K]))
        })
        .collect();
    let clear: Vec<(i64, Option<[f64; 2]>)> = moments
        .iter()
        .map(|(at, moment)| {
            let serves = moment.clear_lx >= light.needed_lx && !moment.sun_disturbs();
            (
                *at,
                serves.then(|| light.clear_cct_k(moment.sun)).flatten().map(|cct_k| [moment.clear_lx, cct_k]),
            )
        })
        .collect();
    let told = |(from, until): (i64, i64), sky: &str| {
        format!("under {sky} sky from {} to {}", clock(from), clock(until))
    };
    let both: Vec<String> = [(overcast, "an even grey"), (clear, "a clear")]
        .iter()
        .filter_map(|(light, sky)| Some(told(longest_held(light)?, sky)))
        .collect();
    (!both.is_empty()).then(|| {
        format!(
            "Lock exposure and white balance at the start of a take. They hold longest {}: by then the light has moved by a third of a stop or 25 mired.",
            both.join(", ")
        )
    })
}

/// The longest stretch from a moment on in which light, lx, and colour temperature, K, stay near those of its beginning.
fn longest_held(moments: &[(i64, Option<[f64; 2]>)]) -> Option<(i64, i64)> {
    let held = moments.iter().enumerate().filter_map(|(index, (from, light))| {
        let [lx, cct_k] = (*light)?;
        let moved = |other: &Option<[f64; 2]>| {
            other.is_none_or(|[other_lx, other_k]| {
                (other_lx / lx).log2().abs() > HOLDS_STOPS || mired_shift(cct_k, other_k).abs() > HOLDS_MIRED
            })
        };
        let until = moments[index..].iter().find(|(_, other)| moved(other)).or(moments.last())?.0;
        Some((until - from, *from, until))
    });
    held.max_by_key(|(long, from, _)| (*long, -from)).map(|(_, from, until)| (from, until))
}
