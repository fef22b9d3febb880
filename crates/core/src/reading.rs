//! A reading: one number about a corner with its band, score and working; and the list of all readings that
//! exist. Ids never change meaning. The bands themselves stand in `assess::bands`.

use std::borrow::Cow;
use std::sync::OnceLock;

use serde::Serialize;
use utoipa::ToSchema;

use crate::glossary::{Term, terms};

/// Which part of the result a reading speaks for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Aspect {
    Sound,
    Light,
    Room,
    Picture,
    Comfort,
}

/// Where a value comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum From {
    /// Given in the brief or the layout.
    Typed,
    /// Read off with an instrument.
    Measured,
    /// Not given; the usual value stands in.
    Assumed,
    /// Worked out from other values.
    Computed,
}

/// One input of a working.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Input {
    /// Its name.
    pub name: &'static str,
    /// Its value.
    pub value: f64,
    /// Its unit.
    pub unit: &'static str,
    /// Where it comes from.
    pub from: From,
}

/// How a reading came about.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Working {
    /// The formula.
    pub formula: &'static str,
    /// What went in.
    pub inputs: Vec<Input>,
    /// Where the formula is published.
    pub source: &'static str,
    /// What to keep in mind.
    #[serde(skip_serializing_if = "str::is_empty")]
    #[schema(value_type = String)]
    pub note: Cow<'static, str>,
}

/// How a value stands in its band.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Standing {
    Good,
    Fair,
    Poor,
    /// No band: information only.
    Plain,
}

/// Good between the middle two, fair between the outer ones; `None` = open end.
pub type Band = [Option<f64>; 4];

/// One number about a corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Reading {
    /// `module.thing.quantity_unit`.
    #[schema(value_type = String)]
    pub id: Cow<'static, str>,
    /// In words.
    #[schema(value_type = String)]
    pub label: Cow<'static, str>,
    /// The value; null where it does not exist.
    pub value: Option<f64>,
    /// Its unit.
    pub unit: &'static str,
    /// The band, if it has one.
    #[schema(value_type = Option<Vec<Option<f64>>>)]
    pub band: Option<Band>,
    /// How it stands.
    pub standing: Standing,
    /// 0 to 1 over the band.
    pub score: Option<f64>,
    /// Plus or minus, in the same unit.
    pub uncertainty: Option<f64>,
    /// What it speaks for.
    pub aspect: Option<Aspect>,
    /// Computed, measured or assumed.
    pub from: From,
    /// What a measured value in its place may be; none if nobody can measure it.
    #[schema(value_type = Option<Vec<f64>>)]
    pub measured_range: Option<[f64; 2]>,
    /// How it came about.
    pub working: Working,
}

/// A reading before and after a change.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Change {
    /// Its id.
    pub reading: String,
    /// In words.
    pub label: String,
    /// Before.
    pub from: Option<f64>,
    /// After.
    pub to: Option<f64>,
    /// Its unit.
    pub unit: &'static str,
}

/// What exists: id (`*` = the thing's own id), aspect, and the range a measured value may have. Label and unit stand
/// in the glossary.
type Entry = (&'static str, Option<Aspect>, Option<(f64, f64)>);

#[rustfmt::skip]
const KNOWN: &[Entry] = &[
    ("person.eye.height_m", None, Some((0.5, 2.3))),
    ("shot.frame.height_error_percent", Some(Aspect::Picture), None),
    ("shot.frame.headroom_fraction", Some(Aspect::Picture), None),
    ("shot.frame.eye_line_error", Some(Aspect::Picture), None),
    ("shot.frame.shoulder_fraction", Some(Aspect::Picture), None),
    ("shot.frame.look_room_fraction", Some(Aspect::Picture), None),
    ("shot.frame.edge_lean_deg", None, None),
    ("shot.frame.stretch_percent", None, None),
    ("shot.camera.view_angle_deg", Some(Aspect::Picture), None),
    ("shot.camera.distance_m", Some(Aspect::Picture), None),
    ("shot.camera.nose_enlargement_percent", None, None),
    ("shot.camera.walk_s", None, Some((1.0, 600.0))),
    ("shot.lens.equivalent_mm", None, None),
    ("shot.lens.equivalent_f_number", None, None),
    ("shot.school.near_and_wide_percent", None, None),
    ("shot.school.far_and_long_percent", None, None),
    ("shot.focus.front_tolerance_m", Some(Aspect::Picture), None),
    ("shot.focus.near_m", None, None),
    ("shot.focus.far_m", None, None),
    ("shot.focus.stand_in_m", None, None),
    ("shot.focus.lean_f_number", None, None),
    ("shot.background.blur_percent", Some(Aspect::Picture), None),
    ("shot.background.width_m", None, None),
    ("shot.background.things", None, None),
    ("shot.background.backdrop_margin_m", None, None),
    ("shot.exposure.needed_lx", None, None),
    ("shot.exposure.full_frame_iso", None, None),
    ("shot.exposure.noise_stops", None, None),
    ("shot.exposure.flicker_percent", None, None),
    ("shot.insert.speed_percent", None, None),
    ("shot.insert.light_stops", None, None),
    ("shot.cloth.stripe_px", None, None),
    ("shot.*.covers_width_m", None, None),
    ("shot.*.covers_height_m", None, None),
    ("shot.*.off_axis_deg", None, None),
    ("shot.recording.reframe_factor", None, None),
    ("shot.recording.card_min", None, Some((1.0, 100_000.0))),
    ("shot.recording.card_speed_mb_s", None, None),
    ("shot.recording.battery_min", None, Some((1.0, 100_000.0))),
    ("shot.script.reading_min", None, Some((0.1, 1000.0))),
    ("shot.script.column_deg", None, None),
    ("shot.script.letters", None, None),
    ("shot.screen.gaze_deg", None, None),
    ("shot.screen.focus_times", None, None),
    ("shot.screen.letter_mm", None, None),
    ("shot.screen.glass_times", None, None),
    ("shot.seat.gaze_deg", Some(Aspect::Picture), None),
    ("room.background_behind_m", Some(Aspect::Room), Some((0.0, 50.0))),
    ("room.mains.voltage_v", None, Some((90.0, 260.0))),
    ("room.mains.load_fraction", Some(Aspect::Comfort), Some((0.0, 10.0))),
    ("room.floor.in_use_m2", None, None),
    ("room.floor.parked_m2", None, None),
    ("room.heat.rise_k", None, None),
    ("room.*.sandbag_kg", None, None),
    ("room.*.payload_times", None, None),
    ("room.*.footprint_m", None, None),
    ("light.key.azimuth_deg", Some(Aspect::Light), None),
    ("light.key.elevation_deg", Some(Aspect::Light), None),
    ("light.key.angular_size_deg", Some(Aspect::Light), None),
    ("light.face.illuminance_lx", None, Some((0.0, 100_000.0))),
    ("light.face.exposure_stops", Some(Aspect::Light), None),
    ("light.face.ratio", Some(Aspect::Light), Some((1.0, 1000.0))),
    ("light.back.flare_margin_deg", Some(Aspect::Light), None),
    ("light.*.highlight_stops", None, None),
    ("light.*.glare_percent", None, None),
    ("light.key.nose_shadow_mm", None, None),
    ("light.key.penumbra_mm", None, None),
    ("light.key.catchlight_mm", None, None),
    ("light.key.catchlight_clock_h", None, None),
    ("light.face.socket_stops", None, None),
    ("light.face.lean_stops", None, None),
    ("light.face.cct_k", None, Some((1000.0, 25_000.0))),
    ("light.face.duv", None, None),
    ("light.face.white_balance_mired", None, None),
    ("light.background.stops", None, None),
    ("light.power.in_hand_stops", None, None),
    ("light.monitor.spill_stops", None, None),
    ("light.screen.spill_stops", None, None),
    ("light.*.dial_percent", None, None),
    ("light.*.contrast_uv", None, None),
    ("light.*.spill_stops", None, None),
    ("light.*.hot_spot_stops", None, None),
    ("light.*.fills_lx", None, None),
    ("light.screen.evenness_stops", None, None),
    ("light.screen.level_stops", None, None),
    ("light.screen.rim_stops", None, None),
    ("light.screen.depth_m", None, None),
    ("daylight.*.azimuth_deg", None, None),
    ("sound.microphone.distance_m", Some(Aspect::Sound), Some((0.01, 20.0))),
    ("sound.microphone.gain_over_camera_db", Some(Aspect::Sound), None),
    ("sound.microphone.direct_to_reverberant_db", None, None),
    ("sound.microphone.clarity_c50_db", None, None),
    ("sound.microphone.speech_transmission_index", None, None),
    ("sound.microphone.snr_db", None, None),
    ("sound.microphone.gain_db", None, None),
    ("sound.microphone.desk_reflection_db", None, None),
    ("sound.room.rt_mid_s", Some(Aspect::Room), Some((0.05, 10.0))),
    ("sound.room.noise_dba", None, Some((0.0, 110.0))),
    ("sound.room.schroeder_hz", None, None),
];

/// The glossary's word for each known reading, in the same order.
fn words() -> &'static [Option<&'static Term>] {
    static WORDS: OnceLock<Vec<Option<&'static Term>>> = OnceLock::new();
    WORDS.get_or_init(|| KNOWN.iter().map(|(id, ..)| terms().iter().find(|t| t.reading == *id)).collect())
}

fn index(id: &str) -> Option<usize> {
    KNOWN.iter().position(|(pattern, ..)| match pattern.split_once('*') {
        Some((head, tail)) => {
            id.starts_with(head) && id.ends_with(tail) && id.len() > head.len() + tail.len()
        }
        None => *pattern == id,
    })
}

/// Whether a reading of this id can exist.
pub fn is_known(id: &str) -> bool {
    index(id).is_some()
}

/// The range in which a measured value of this reading makes sense, if it can be measured at all.
pub fn measured_range(id: &str) -> Option<(f64, f64)> {
    index(id).and_then(|at| KNOWN[at].2)
}

impl Reading {
    /// A computed reading; label, unit and aspect follow from the id. A value that is not finite becomes null.
    pub fn new(id: impl Into<Cow<'static, str>>, value: f64) -> Self {
        let id = id.into();
        let known = index(&id);
        let (label, unit) = known.and_then(|at| words()[at]).map_or(("", ""), |term| (term.word, term.unit));
        let (_, aspect, range) = known.map_or(("", None, None), |at| KNOWN[at]);
        Self {
            value: value.is_finite().then_some(value),
            id,
            label: label.into(),
            unit,
            band: None,
            standing: Standing::Plain,
            score: None,
            uncertainty: None,
            aspect,
            from: From::Computed,
            measured_range: range.map(|(low, high)| [low, high]),
            working: Working::default(),
        }
    }

    /// With a formula and its source.
    #[must_use]
    pub fn by(mut self, formula: &'static str, source: &'static str) -> Self {
        self.working.formula = formula;
        self.working.source = source;
        self
    }

    /// With one more input.
    #[must_use]
    pub fn with(mut self, name: &'static str, value: f64, unit: &'static str, from: From) -> Self {
        self.working.inputs.push(Input { name, value, unit, from });
        self
    }

    /// With a note.
    #[must_use]
    pub fn note(mut self, note: impl Into<Cow<'static, str>>) -> Self {
        self.working.note = note.into();
        self
    }

    /// With an uncertainty.
    #[must_use]
    pub fn within(mut self, uncertainty: f64) -> Self {
        self.uncertainty = Some(uncertainty);
        self
    }
}

/// Score of a value over a band: 1 between b and c, falling to 0 at a and d (`None` = open end).
pub fn trapezium(value: f64, [a, b, c, d]: Band) -> f64 {
    let rise = match (a, b) {
        (_, Some(b)) if value >= b => 1.0,
        (Some(a), Some(b)) if value > a => (value - a) / (b - a),
        (_, None) => 1.0,
        _ => 0.0,
    };
    let fall = match (c, d) {
        (Some(c), _) if value <= c => 1.0,
        (Some(c), Some(d)) if value < d => (d - value) / (d - c),
        (None, _) => 1.0,
        _ => 0.0,
    };
    rise.min(fall)
}

/// Good on [b, c], fair out to a and d, poor beyond.
pub fn standing(value: f64, [a, b, c, d]: Band) -> Standing {
    // A limit that is met counts as met, whatever the last bit says.
    let slack = 1e-9 * value.abs().max(1.0);
    let over = |limit: Option<f64>| limit.is_none_or(|l| value >= l - slack);
    let under = |limit: Option<f64>| limit.is_none_or(|l| value <= l + slack);
    if over(b) && under(c) {
        Standing::Good
    } else if over(a.or(b)) && under(d.or(c)) {
        Standing::Fair
    } else {
        Standing::Poor
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Every reading has its word, with the range that the glossary tells; and the glossary names no other.
    #[test]
    fn readings_and_glossary_agree() {
        for ((id, _, range), word) in KNOWN.iter().zip(words()) {
            let term = word.unwrap_or_else(|| panic!("{id} is not in docs/glossary.md"));
            let told = range.map_or(String::new(), |(low, high)| format!("{low} to {high}"));
            assert_eq!(term.range, told, "{id}");
        }
        assert_eq!(terms().iter().filter(|t| !t.reading.is_empty()).count(), KNOWN.len());
    }

    #[test]
    fn bands_score_and_name_alike() {
        let band = [Some(20.0), Some(30.0), Some(45.0), Some(60.0)];
        for (value, score, word) in [
            (19.0, 0.0, Standing::Poor),
            (20.0, 0.0, Standing::Fair),
            (25.0, 0.5, Standing::Fair),
            (30.0, 1.0, Standing::Good),
            (45.0, 1.0, Standing::Good),
            (52.5, 0.5, Standing::Fair),
            (60.1, 0.0, Standing::Poor),
        ] {
            assert!((trapezium(value, band) - score).abs() < 1e-12, "{value}");
            assert_eq!(standing(value, band), word, "{value}");
        }
        let open = [Some(0.5), Some(1.0), None, None];
        assert_eq!((trapezium(9.0, open), standing(9.0, open)), (1.0, Standing::Good));
        let load = [None, None, Some(0.8), Some(1.0)];
        assert_eq!((trapezium(0.1, load), standing(0.9, load)), (1.0, Standing::Fair));
    }
}
