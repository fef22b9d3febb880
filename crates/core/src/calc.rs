//! The named calculations, as the core computes them: one JSON object in, one out. Names and fields are fixed;
//! nothing is rounded, clamped or guessed.

mod colour;
mod day;
mod exposure;
mod face;
mod light;
mod money;
mod picture;
mod room;
mod shot;
mod sound;

use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;

use crate::document::{self, Shape, describe_range};
use crate::problem::{Code, Problem};

/// One calculation: its input type carries fields, ranges and the work.
trait Calculate: Shape + DeserializeOwned {
    /// Name on the command line.
    const NAME: &'static str;
    /// Formula, in words and letters.
    const FORMULA: &'static str;
    /// Where the formula is published.
    const SOURCE: &'static str;
    /// What comes out.
    type Output: Serialize;
    /// The work.
    fn calculate(self) -> Result<Self::Output, Problem>;
    /// A refusal by range under the word that this calculation has for it.
    fn refused(problem: Problem) -> Problem {
        problem
    }
}

/// A side of a room, m.
#[derive(Clone, Copy, serde::Deserialize, utoipa::ToSchema)]
#[schema(minimum = 0.5, maximum = 50.0)]
struct Side(f64);

/// A calculation as listed and called.
pub struct Calculation {
    /// Name on the command line.
    pub name: &'static str,
    formula: &'static str,
    source: &'static str,
    shape: fn() -> &'static Value,
    work: fn(Value) -> Result<Value, Problem>,
}

/// One input field, as listed.
#[derive(Debug, Serialize)]
pub struct Field {
    name: String,
    unit: &'static str,
    range: String,
    required: bool,
}

/// A calculation, as listed.
#[derive(Debug, Serialize)]
pub struct Listed {
    name: &'static str,
    fields: Vec<Field>,
    formula: &'static str,
    source: &'static str,
}

fn entry<C: Calculate>() -> Calculation {
    Calculation { name: C::NAME, formula: C::FORMULA, source: C::SOURCE, shape: C::shape, work: work::<C> }
}

fn work<C: Calculate>(input: Value) -> Result<Value, Problem> {
    let first = |problems: crate::problem::Problems| {
        problems
            .0
            .into_iter()
            .next()
            .unwrap_or_else(|| Problem::new("document", "", "an object", Code::WrongType))
    };
    let input: C = document::from_value(input).map_err(first).map_err(C::refused)?;
    let output = input.calculate()?;
    serde_json::to_value(output).map_err(|e| Problem::new("document", e, "finite results", Code::OutOfRange))
}

/// All calculations, in the order of the work.
pub fn calculations() -> Vec<Calculation> {
    vec![
        entry::<shot::FieldOfView>(),
        entry::<shot::FrameSize>(),
        entry::<shot::DepthOfField>(),
        entry::<shot::BackgroundBlur>(),
        entry::<exposure::ExposureIlluminance>(),
        entry::<picture::BodyLandmarks>(),
        entry::<shot::ShotDistance>(),
        entry::<picture::FacePerspective>(),
        entry::<picture::GazeOffset>(),
        entry::<picture::TextLegibility>(),
        entry::<picture::MoireOf>(),
        entry::<exposure::FlickerFreeShutters>(),
        entry::<exposure::NoiseStops>(),
        entry::<picture::RecordingTime>(),
        entry::<picture::CropSurvival>(),
        entry::<shot::BenchCoverage>(),
        entry::<light::InverseSquare>(),
        entry::<light::LightingRatio>(),
        entry::<light::PolygonIlluminance>(),
        entry::<light::DiscIlluminance>(),
        entry::<light::RingIlluminance>(),
        entry::<light::SourceAngularSize>(),
        entry::<light::Penumbra>(),
        entry::<face::KeyDistance>(),
        entry::<light::RoomBounce>(),
        entry::<light::FillFor>(),
        entry::<colour::MiredShift>(),
        entry::<colour::ColourTemperature>(),
        entry::<colour::MixColour>(),
        entry::<face::GlassesGlare>(),
        entry::<face::CatchlightOf>(),
        entry::<day::SunPosition>(),
        entry::<day::SunPatch>(),
        entry::<day::DaylightFactor>(),
        entry::<day::OvercastWindow>(),
        entry::<sound::LevelAtDistance>(),
        entry::<sound::Reverberation>(),
        entry::<sound::CriticalDistance>(),
        entry::<sound::RoomModes>(),
        entry::<sound::SchroederFrequency>(),
        entry::<sound::DirectToReverberant>(),
        entry::<sound::ClarityC50>(),
        entry::<sound::SpeechTransmissionIndex>(),
        entry::<sound::SumLevels>(),
        entry::<sound::PolarPattern>(),
        entry::<sound::CombNotch>(),
        entry::<sound::BoomPosition>(),
        entry::<sound::ImageSource>(),
        entry::<sound::AbsorptionNeeded>(),
        entry::<sound::PorousAbsorber>(),
        entry::<sound::PreampGain>(),
        entry::<sound::SyncDrift>(),
        entry::<sound::ListeningTime>(),
        entry::<room::TapeMarkAt>(),
        entry::<room::StandTipping>(),
        entry::<room::CircuitLoad>(),
        entry::<money::BestKit>(),
        entry::<money::CostPerYear>(),
    ]
}

/// Runs the calculation of this name on JSON text.
///
/// ```
/// use fogon_core::calc::run;
///
/// // 36 mm of sensor behind 40 mm of lens, 1.5 m away: 36 (1500 - 40) / 40 mm.
/// let input = br#"{"sensor_width_mm": 36, "sensor_height_mm": 20.25, "focal_length_mm": 40, "subject_distance_m": 1.5}"#;
/// let framed = run("frame-size", input)?;
/// assert_eq!(framed["width_m"], 1.314);
/// # Ok::<(), fogon_core::problem::Problem>(())
/// ```
///
/// # Errors
/// The first problem in the order: name, JSON, unknown fields, missing, type, range, the calculation's own.
pub fn run(name: &str, input: &[u8]) -> Result<Value, Problem> {
    let all = calculations();
    let found = all.iter().find(|c| c.name == name).ok_or_else(|| {
        let names: Vec<&str> = all.iter().map(|c| c.name).collect();
        Problem::new("name", name, names.join(", "), Code::UnknownName)
    })?;
    (found.work)(document::parse(input)?)
}

/// Every calculation with its fields, units, ranges, formula and source.
pub fn list() -> Vec<Listed> {
    calculations()
        .into_iter()
        .map(|c| {
            let shape = (c.shape)();
            let mut fields = Vec::new();
            describe(shape, shape, "", &mut fields);
            Listed { name: c.name, fields, formula: c.formula, source: c.source }
        })
        .collect()
}

fn describe(root: &Value, schema: &Value, at: &str, fields: &mut Vec<Field>) {
    let resolved = |schema: &'_ Value| -> Value {
        let schema =
            schema["oneOf"].as_array().and_then(|o| o.iter().find(|s| s["type"] != "null")).unwrap_or(schema);
        match schema["$ref"].as_str().and_then(|r| r.rsplit('/').next()) {
            Some(name) => root["$defs"][name].clone(),
            None => schema.clone(),
        }
    };
    for (name, property) in schema["properties"].as_object().into_iter().flatten() {
        let required = schema["required"].as_array().is_some_and(|r| r.iter().any(|n| n == name));
        let path = if at.is_empty() { name.clone() } else { format!("{at}.{name}") };
        let inner = resolved(property);
        if inner["type"] == "array" {
            let (mut item, mut path) = (resolved(&inner["items"]), format!("{path}[]"));
            while item["type"] == "array" {
                item = resolved(&item["items"]);
                path.push_str("[]");
            }
            if item["type"] == "object" {
                describe(root, &item, &path, fields);
                continue;
            }
            let range = describe_range(&item).or_else(|| describe_text(&item)).unwrap_or_default();
            fields.push(Field { unit: unit_of(name), range, required, name: path });
        } else if inner["type"] == "object" {
            let first = fields.len();
            describe(root, &inner, &path, fields);
            // What belongs to something that need not be there need not be either.
            fields[first..].iter_mut().for_each(|field| field.required &= required);
        } else {
            let words = || describe_choices(&inner).or_else(|| describe_text(&inner));
            let range = describe_range(&inner).or_else(words).unwrap_or_default();
            fields.push(Field { unit: unit_of(name), range, required, name: path });
        }
    }
}

/// The words that a field may be.
fn describe_choices(schema: &Value) -> Option<String> {
    let words: Vec<&str> = schema["enum"].as_array()?.iter().filter_map(Value::as_str).collect();
    Some(words.join(" or "))
}

/// Any text, where one is asked for.
fn describe_text(schema: &Value) -> Option<String> {
    let kind = &schema["type"];
    let is_text =
        kind == "string" || kind.as_array().is_some_and(|all| all.iter().any(|one| one == "string"));
    is_text.then(|| "any text".to_owned())
}

/// The unit that a field's name ends in.
fn unit_of(name: &str) -> &'static str {
    const UNITS: [(&str, &str); 17] = [
        ("_cd_m2", "cd/m2"),
        ("_lm", "lm"),
        ("_a", "A"),
        ("_px", "px"),
        ("_gb", "GB"),
        ("_m2", "m2"),
        ("_mm", "mm"),
        ("_m", "m"),
        ("_s", "s"),
        ("_lx", "lx"),
        ("_db", "dB"),
        ("_deg", "degrees"),
        ("_kg", "kg"),
        ("_n", "N"),
        ("_hz", "Hz"),
        ("_k", "K"),
        ("_w", "W"),
    ];
    UNITS.iter().find(|(suffix, _)| name.ends_with(suffix)).map_or("", |(_, unit)| unit)
}
