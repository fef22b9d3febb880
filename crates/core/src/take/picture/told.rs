//! A measured still in sentences: each measure against the plan, with what to move and by how much.

use super::pose::Solved;
use super::seen::StillSeen;
use crate::corner::Corner;
use crate::reading::Standing;
use crate::take::measure::{MeasureTold, TakeMeasure};
use crate::take::promise::Promise;
use crate::units::{UnitSystem, capital, decimals};

/// As laid, and further off than that it shows: camera's place, m, its turn, degrees, the face in the picture, parts. Fogon's own rule.
const PLACE_M: [f64; 2] = [0.03, 0.08];
const DISTANCE: [f64; 2] = [0.04, 0.10];
const TURN_DEG: [f64; 2] = [1.0, 3.0];
const LEVEL_DEG: [f64; 2] = [0.5, 1.5];
const FACE: [f64; 2] = [0.03, 0.08];
/// Face and background against the plan, stops. Fogon's own rule: half a stop is what a still's tone curve may do by itself.
const STOPS: [f64; 2] = [0.5, 1.0];
/// White balance, in millionths of 1/K: just seen, and plainly (common practice, no source).
const MIRED: [f64; 2] = [8.0, 20.0];
const TINT_DUV: [f64; 2] = [0.004, 0.008];
/// Burnt out: of the picture, and of the face.
const BURNT: [f64; 2] = [0.01, 0.05];
const BURNT_FACE: [f64; 2] = [0.002, 0.01];
/// A keyed screen, stops.
const SCREEN_STOPS: [f64; 2] = [0.33, 0.67];

/// How far off, in two steps.
fn standing(off: f64, [fair, poor]: [f64; 2]) -> Standing {
    match off.abs() {
        o if o <= fair => Standing::Good,
        o if o <= poor => Standing::Fair,
        _ => Standing::Poor,
    }
}

/// The worse of two.
fn worse(one: Standing, other: Standing) -> Standing {
    let rank = |standing| match standing {
        Standing::Plain | Standing::Good => 0,
        Standing::Fair => 1,
        Standing::Poor => 2,
    };
    if rank(other) > rank(one) { other } else { one }
}

fn percent(part: f64) -> String {
    let digits = if part < 0.1 { 1 } else { 0 };
    format!("{} %", decimals(100.0 * part, digits))
}

fn stops(value: f64) -> String {
    let sign = if value > 0.0 { "+" } else { "" };
    format!("{sign}{} stops", decimals(value, 1).replace('-', "\u{2212}"))
}

pub(super) fn told(corner: &Corner<'_>, still: &StillSeen, promise: &Promise) -> Vec<MeasureTold> {
    let camera = camera(corner, still);
    let as_laid = camera.standing == Standing::Good;
    let mut all = vec![camera, headroom(still, as_laid), face(still, as_laid)];
    all.extend(level(still));
    all.extend(exposure(corner, still));
    all.extend(background(still, promise));
    all.extend(white(still));
    all.push(burnt(still));
    all.extend(screen(still, promise));
    all
}

fn joined(words: &[String]) -> String {
    match words {
        [] => String::new(),
        [one] => one.clone(),
        [most @ .., last] => format!("{} and {last}", most.join(", ")),
    }
}

/// To the centimetre: marks tell no more.
fn to_the_cm(units: UnitSystem, metres: f64) -> String {
    match units {
        UnitSystem::Metric => format!("{} cm", decimals(metres * 100.0, 0)),
        UnitSystem::Imperial => units.gap(metres),
    }
}

/// A way in which the camera may stand off the plan.
struct Off {
    solved: Solved,
    /// Less is as laid.
    least: f64,
    is_angle: bool,
    /// What it is where it is more than planned, and where it is less.
    is: [&'static str; 2],
    /// What is done then.
    back: [&'static str; 2],
}

impl Off {
    /// What it is and what is done, where it is beyond chance and worth a move.
    fn words(&self, units: UnitSystem) -> Option<(String, String)> {
        let size = self.solved.by.abs();
        if size < self.least || size < self.solved.sigma {
            return None;
        }
        let amount =
            if self.is_angle { format!("{}\u{b0}", decimals(size, 0)) } else { to_the_cm(units, size) };
        let side = usize::from(self.solved.by < 0.0);
        Some((format!("{amount} {}", self.is[side]), format!("{} by {amount}", self.back[side])))
    }
}

fn camera(corner: &Corner<'_>, still: &StillSeen) -> MeasureTold {
    let (units, pose) = (corner.brief.units, &still.pose);
    let ways = [
        Off {
            solved: pose.higher,
            least: PLACE_M[0],
            is_angle: false,
            is: ["too high", "too low"],
            back: ["lower it", "raise it"],
        },
        Off {
            solved: pose.further,
            least: DISTANCE[0] * pose.distance_m,
            is_angle: false,
            is: ["too far away", "too near"],
            back: ["bring it nearer", "take it back"],
        },
        Off {
            solved: pose.turned_up,
            least: TURN_DEG[0],
            is_angle: true,
            is: ["up", "down"],
            back: ["tilt it down", "tilt it up"],
        },
        Off {
            solved: pose.turned_right,
            least: TURN_DEG[0],
            is_angle: true,
            is: ["to its right", "to its left"],
            back: ["turn it to its left", "turn it to its right"],
        },
    ];
    let (is, back): (Vec<String>, Vec<String>) = ways.iter().filter_map(|way| way.words(units)).unzip();
    let worst = [
        standing(pose.higher.by, PLACE_M),
        standing(pose.further.by / pose.distance_m, DISTANCE),
        standing(pose.turned_up.by, TURN_DEG),
        standing(pose.turned_right.by, TURN_DEG),
    ]
    .into_iter()
    .fold(Standing::Good, worse);
    let bounds = format!(
        "Height within {}, distance within {}, tilt within {}\u{b0}{}.",
        to_the_cm(units, 2.0 * pose.higher.sigma),
        to_the_cm(units, 2.0 * pose.further.sigma),
        decimals((2.0 * pose.turned_up.sigma).max(1.0), 0),
        if pose.by_edge { "" } else { "; an upright edge at the side of the picture tells it better" }
    );
    let found = format!("{} high", units.length(pose.height_m));
    let told = |standing, words: String| {
        MeasureTold::new(TakeMeasure::Camera, standing, found.clone(), words)
            .promised(format!("{} high", units.length(corner.view.position_m.z)))
    };
    if is.is_empty() {
        return told(Standing::Good, format!("Your camera stands as planned. {bounds}"));
    }
    told(worse(worst, Standing::Fair), format!("Your camera is {}. {bounds}", joined(&is)))
        .action(format!("{}.", capital(&joined(&back))))
}

/// What stands in the picture where it should not is mended by the camera, once that stands as planned.
fn mended(as_laid: bool, words: String) -> String {
    if as_laid { words } else { "Set the camera as planned first: that mends it.".into() }
}

fn headroom(still: &StillSeen, as_laid: bool) -> MeasureTold {
    let off = still.headroom_fraction - still.planned_headroom_fraction;
    let standing = if still.headroom_fraction < 0.0 { Standing::Poor } else { standing(off, FACE) };
    let words = match standing {
        Standing::Good => "The head has the air that was planned.",
        _ if still.headroom_fraction < 0.0 => "The head is cut off.",
        _ if off > 0.0 => "The head sits lower than planned.",
        _ => "The head sits higher than planned.",
    };
    let action = (standing != Standing::Good).then(|| {
        mended(as_laid, format!("Tilt the camera {} a little.", if off > 0.0 { "down" } else { "up" }))
    });
    MeasureTold::new(
        TakeMeasure::Headroom,
        standing,
        format!("{} of the height", percent(still.headroom_fraction.max(0.0))),
        words,
    )
    .promised(percent(still.planned_headroom_fraction))
    .action_if(action)
}

fn face(still: &StillSeen, as_laid: bool) -> MeasureTold {
    let off = still.face_fraction - still.planned_face_fraction;
    let side = if off > 0.0 { "right" } else { "left" };
    let standing = standing(off, FACE);
    let words = match standing {
        Standing::Good => "The face is where the plan has it.".to_owned(),
        _ => format!("The face is too far {side} in the picture."),
    };
    let action =
        (standing != Standing::Good).then(|| mended(as_laid, format!("Turn the camera to its {side}.")));
    MeasureTold::new(
        TakeMeasure::Face,
        standing,
        format!("{} from the left", percent(still.face_fraction)),
        words,
    )
    .promised(percent(still.planned_face_fraction))
    .action_if(action)
}

fn level(still: &StillSeen) -> Option<MeasureTold> {
    let rolled = still.pose.rolled?;
    let standing = standing(rolled.by, LEVEL_DEG);
    let side = if rolled.by > 0.0 { "right" } else { "left" };
    let words = match standing {
        Standing::Good => "The camera is level.".to_owned(),
        _ => format!("The camera leans to its {side}."),
    };
    let other = if rolled.by > 0.0 { "left" } else { "right" };
    let told = MeasureTold::new(
        TakeMeasure::Level,
        standing,
        format!("{}\u{b0}", decimals(rolled.by.abs(), 1)),
        words,
    );
    Some(
        told.promised("level".to_owned()).action_if(
            (standing != Standing::Good)
                .then(|| format!("Turn it over to its {other} by {}\u{b0}.", decimals(rolled.by.abs(), 1))),
        ),
    )
}

fn exposure(corner: &Corner<'_>, still: &StillSeen) -> Option<MeasureTold> {
    let by_card = still.tones.grey_stops.is_some();
    let Some(found) = still.tones.face_stops() else {
        return Some(
            MeasureTold::new(
                TakeMeasure::Exposure,
                Standing::Poor,
                "burnt out",
                "The skin is burnt out where it was looked at.",
            )
            .action("Halve the ISO, or dim the key, and take another still."),
        );
    };
    let (from, within) = if by_card { ("the grey card", "a third") } else { ("the skin", "half") };
    let standing = standing(found, STOPS);
    let words = match standing {
        Standing::Good => format!("As bright as planned by {from}, which tells it to {within} a stop."),
        _ => format!(
            "{} than planned by {from}, which tells it to {within} a stop.",
            if found > 0.0 { "Brighter" } else { "Darker" }
        ),
    };
    let iso = corner.layout.camera.iso * (-found).exp2();
    let action = (standing != Standing::Good).then(|| {
        format!(
            "Look at the key's dial and distance first; if they are as planned, set ISO {}.",
            decimals(crate::exposure::iso_on_dial(iso, corner.body.iso_min, corner.body.iso_max), 0)
        )
    });
    Some(
        MeasureTold::new(TakeMeasure::Exposure, standing, stops(found), words)
            .promised("0 stops".to_owned())
            .action_if(action),
    )
}

fn background(still: &StillSeen, promise: &Promise) -> Option<MeasureTold> {
    let (under, planned) = still.tones.background_under_face_stops.zip(promise.background_stops)?;
    let off = under - planned;
    let standing = standing(off, STOPS);
    let words = match standing {
        Standing::Good => "Against the face it is as bright as planned.",
        _ if off > 0.0 => "Against the face it is brighter than planned.",
        _ => "Against the face it is darker than planned.",
    };
    let action = match standing {
        Standing::Good => None,
        _ if off > 0.0 => {
            Some("Look for an open curtain, a lamp that is on, or a key that spills onto the wall.".into())
        }
        _ => Some("Look at the lamps behind you: one is off, or its dial is low.".into()),
    };
    let told =
        MeasureTold::new(TakeMeasure::Background, standing, format!("{} to the face", stops(under)), words);
    Some(told.promised(stops(planned)).action_if(action))
}

fn white(still: &StillSeen) -> Option<MeasureTold> {
    let white = still.tones.white.as_ref()?;
    let mired = 1e6 / white.wanted_k - 1e6 / white.set_k;
    let standing = worse(standing(mired, MIRED), standing(white.duv, TINT_DUV));
    let tint = match white.duv {
        d if d > TINT_DUV[0] => " and greenish",
        d if d < -TINT_DUV[0] => " and pinkish",
        _ => "",
    };
    let words = match standing {
        Standing::Good => "What is neutral looks neutral.".to_owned(),
        _ if mired > MIRED[0] => format!("The picture is too warm{tint}."),
        _ if mired < -MIRED[0] => format!("The picture is too blue{tint}."),
        _ => format!("The picture is {}.", tint.trim_start_matches(" and ")),
    };
    let wanted = crate::exposure::white_balance_on_dial(white.wanted_k);
    let action = (standing != Standing::Good).then(|| {
        let tint = match white.duv {
            d if d > TINT_DUV[0] => ", and its tint towards magenta",
            d if d < -TINT_DUV[0] => ", and its tint towards green",
            _ => "",
        };
        format!("Set the white balance to {} K{tint}, or trim it on the card.", decimals(wanted, 0))
    });
    let told = MeasureTold::new(
        TakeMeasure::WhiteBalance,
        standing,
        format!("{} K asked for", decimals(wanted, 0)),
        words,
    );
    Some(told.promised(format!("{} K", decimals(white.set_k, 0))).action_if(action))
}

fn burnt(still: &StillSeen) -> MeasureTold {
    let tones = &still.tones;
    let in_face = standing(tones.burnt_face_fraction, BURNT_FACE);
    let standing = worse(standing(tones.burnt_fraction, BURNT), in_face);
    let (words, action) = match (standing, in_face) {
        (Standing::Good, _) => ("Little or nothing is burnt out.", None),
        (_, Standing::Good) => (
            "Parts of the picture are burnt out, the face is not.",
            Some(
                "Turn lamps in the picture down, or draw the curtain; a window in the picture always burns out.",
            ),
        ),
        _ => (
            "Parts of the face are burnt out.",
            Some("Close the aperture by a stop, or dim the key by half."),
        ),
    };
    let found = percent(tones.burnt_fraction);
    MeasureTold::new(TakeMeasure::Burnt, standing, found, words).action_if(action.map(str::to_owned))
}

fn screen(still: &StillSeen, promise: &Promise) -> Option<MeasureTold> {
    let found = still.tones.screen_stops?;
    let standing = standing(found, SCREEN_STOPS);
    let words = match standing {
        Standing::Good => "Even enough to be keyed.",
        _ => "Uneven: the key will fray where it is darkest.",
    };
    let action = (standing != Standing::Good)
        .then(|| "Light it from both sides alike, lamps further away, creases pulled out.".to_owned());
    let told =
        MeasureTold::new(TakeMeasure::Screen, standing, format!("{} stops", decimals(found, 1)), words);
    Some(
        match promise.screen_stops {
            Some(planned) => told.promised(format!("{} stops", decimals(planned, 1))),
            None => told,
        }
        .action_if(action),
    )
}
