//! A layout judged: readings with their bands, findings, score and verdict, without looking for what would mend it.

use serde::Serialize;
use utoipa::ToSchema;

use super::legal::{Breach, Rules};
use super::severity::severity_of;
use super::{bands, score, words};
use crate::corner::{Corner, Thing, things};
use crate::finding::{Finding, Note, Severity};
use crate::light::{LightField, LightReport};
use crate::plan::{Brief, Layout, Plan, Purpose, Role};
use crate::reading::{Aspect, Origin, Quantity, Reading, Standing, standing, trapezium};

/// How one aspect does.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AspectScore {
    /// Which one.
    pub aspect: Aspect,
    /// 0 to 1; none if it has no banded reading.
    pub score: Option<f64>,
    /// Its weight under the spending school.
    pub weight: f64,
}

/// Ready, or what stands in the way.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Verdict {
    /// No stop and no fix.
    pub ready: bool,
    /// Ids of the findings that stand in the way.
    pub because: Vec<String>,
    /// In words.
    pub sentence: String,
}

/// Everything that can be said of a plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Assessment {
    /// Ready or not.
    pub verdict: Verdict,
    /// 0 to 1.
    pub score: f64,
    /// The parts of the score.
    pub aspects: Vec<AspectScore>,
    /// All findings, worst first.
    pub findings: Vec<Finding>,
    /// All readings.
    pub readings: Vec<Reading>,
}

/// What a search needs to know of a layout.
#[derive(Debug, Clone)]
pub struct Quick {
    /// Broken rules.
    pub stops: usize,
    /// Poor readings.
    pub fixes: usize,
    /// 0 to 1.
    pub score: f64,
    /// Score of each aspect, in the order of the weights; 1 of one that has no reading.
    pub aspects: [f64; 5],
    /// Speech transmission index at the microphone that hears the voice.
    pub heard_sti: f64,
}

/// As [`evaluate`], without looking for the moves that mend findings.
pub fn without_moves(plan: &Plan) -> Assessment {
    of_layout(&plan.brief, &plan.layout)
}

/// As [`without_moves`], from the two halves of a plan.
pub(super) fn of_layout(brief: &Brief, layout: &Layout) -> Assessment {
    let Some(corner) = Corner::from_parts(brief, layout) else { return unresolved() };
    let lit = LightReport::of(&corner);
    let readings = lit_readings(&corner, &lit);
    let all = things(&corner);
    let breaches = Rules::new(&corner).all(&all);
    let findings = words::findings(&corner, &lit, &readings, &breaches);
    let score = score::layout_score(&readings, corner.brief);
    let aspects = score::weights(corner.brief)
        .into_iter()
        .map(|(aspect, weight)| AspectScore { aspect, score: score::aspect_score(&readings, aspect), weight })
        .collect();
    Assessment { verdict: verdict(&findings), score, aspects, findings, readings }
}

/// Stops, fixes and score of a layout.
pub fn quick(brief: &Brief, layout: &Layout) -> Quick {
    let Some(corner) = Corner::from_parts(brief, layout) else {
        return Quick { stops: usize::MAX, fixes: usize::MAX, score: 0.0, aspects: [0.0; 5], heard_sti: 0.0 };
    };
    let readings = scored_readings(&corner, &LightField::of(&corner));
    let mut broken: Vec<_> =
        Rules::new(&corner).all(&things(&corner)).into_iter().map(|b| (b.rule, b.thing)).collect();
    broken.sort();
    broken.dedup();
    let beside = words::beside_readings(&corner, &readings);
    let count = |severity: Severity| beside.iter().filter(|finding| finding.severity == severity).count();
    let poor = readings.iter().filter(|r| severity_of(&corner, r) == Some(Severity::Fix)).count();
    Quick {
        stops: broken.len() + count(Severity::Stop),
        fixes: poor + count(Severity::Fix),
        score: score::layout_score(&readings, brief),
        aspects: score::weights(brief)
            .map(|(aspect, _)| score::aspect_score(&readings, aspect).unwrap_or(1.0)),
        heard_sti: readings
            .iter()
            .find(|r| r.id == Quantity::SoundMicrophoneSpeechTransmissionIndex)
            .and_then(|r| r.value)
            .unwrap_or(0.0),
    }
}

/// Broken rules of a corner.
pub fn breaches(corner: &Corner<'_>, all: &[Thing]) -> Vec<Breach> {
    Rules::new(corner).all(all)
}

/// All readings of a corner with measured values in place, bands and scores.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    lit_readings(corner, &LightReport::of(corner))
}

fn lit_readings(corner: &Corner<'_>, lit: &LightReport<'_>) -> Vec<Reading> {
    let mut all = scored_readings(corner, lit);
    // Each beside the others of its trade.
    let light = crate::light::details(lit);
    for (trade, mut details) in [("light.", light), ("sound.", crate::sound::details(corner))] {
        let of_trade = |reading: &Reading| reading.id.quantity.id().starts_with(trade);
        let after = all.iter().rposition(of_trade).map_or(all.len(), |at| at + 1);
        set_measured(corner, &mut details);
        all.splice(after..after, details);
    }
    let mut ready = vec![crate::ready::reading(corner)];
    set_measured(corner, &mut ready);
    all.extend(ready);
    all
}

/// The readings that a score, a stop or a fix can hang on: a search asks for no more.
fn scored_readings(corner: &Corner<'_>, lit: &LightField<'_>) -> Vec<Reading> {
    let mut all = crate::person::readings(corner.brief);
    all.extend(crate::shot::readings(corner));
    all.extend(crate::light::readings(corner, lit));
    all.extend(crate::daylight::readings(corner));
    all.extend(crate::sound::readings(corner));
    all.extend(crate::room::readings(corner));
    set_measured(corner, &mut all);
    count_unfilled(corner, &mut all);
    all
}

/// Measured values in place of computed ones, bands and scores.
fn set_measured(corner: &Corner<'_>, all: &mut [Reading]) {
    let row = bands::Row::of(corner);
    for reading in all {
        if let Some(measured) = corner.brief.measured_value(reading.id.quantity) {
            let computed = reading.value.unwrap_or(f64::NAN);
            reading.working.inputs.push(crate::reading::Input {
                name: "computed instead",
                value: if computed.is_finite() { computed } else { 0.0 },
                unit: reading.unit,
                from: Origin::Computed,
            });
            reading.value = Some(measured);
            reading.from = Origin::Measured;
            reading.uncertainty = None;
            reading.assumed_range = None;
        }
        let (band, _) = bands::band_of(reading.id.quantity, &row);
        reading.band = band;
        if let (Some(band), Some(value)) = (band, reading.value) {
            reading.standing = standing(value, band);
            reading.score = Some(trapezium(value, band));
        }
    }
}

/// Roles that purpose and school want and that nothing fills: their readings count as 0, and those that do not exist stand
/// there empty.
fn count_unfilled(corner: &Corner<'_>, all: &mut Vec<Reading>) {
    let row = bands::Row::of(corner);
    let empty = |reading: Reading| Reading {
        score: Some(0.0),
        band: bands::band_of(reading.id.quantity, &row).0,
        ..reading
    };
    // What no band judges counts neither way.
    let count_as_nothing = |all: &mut Vec<Reading>, counts: &dyn Fn(&Reading) -> bool| {
        all.iter_mut()
            .filter(|reading| reading.band.is_some() && counts(reading))
            .for_each(|reading| reading.score = Some(0.0));
    };
    if corner.hears_by_camera() {
        count_as_nothing(all, &|reading| reading.aspect == Some(Aspect::Sound));
    }
    if crate::light::apparent::key(corner).is_none() {
        count_as_nothing(all, &|reading| {
            reading.aspect == Some(Aspect::Light) && reading.id.quantity != Quantity::LightFlareMarginDeg
        });
        let of_key =
            [Quantity::LightKeyAzimuthDeg, Quantity::LightKeyElevationDeg, Quantity::LightKeyAngularSizeDeg];
        all.extend(of_key.map(|quantity| {
            empty(Reading::new(quantity, f64::NAN).note("There is no key: it counts as nothing."))
        }));
    }
    if corner.brief.purpose == Purpose::KeyedBackground && !corner.has_key_screen() {
        let of_what_is_behind = [Quantity::RoomBackgroundBehindM, Quantity::ShotBackgroundBlurPercent];
        count_as_nothing(all, &|reading| of_what_is_behind.contains(&reading.id.quantity));
    }
    if crate::light::wants_back(corner.brief) && corner.role(Role::Back).next().is_none() {
        let reading = Reading::of(Quantity::LightFlareMarginDeg, "back", f64::NAN);
        all.push(empty(reading.note("There is no back light: it counts as nothing.")));
    }
}

fn verdict(findings: &[Finding]) -> Verdict {
    let because: Vec<String> =
        findings.iter().filter(|f| f.severity != Severity::Consider).map(|f| f.id.to_string()).collect();
    let sentence = match because.len() {
        0 => "Ready: record.".to_owned(),
        1 => "Not ready: 1 thing stands in the way.".to_owned(),
        count => format!("Not ready: {count} things stand in the way."),
    };
    Verdict { ready: because.is_empty(), because, sentence }
}

/// A plan whose ids do not resolve; `Plan::check` refuses such plans before they come here.
fn unresolved() -> Assessment {
    let finding =
        Finding::new(Note::Unresolved, Severity::Stop, "The layout names gear that the brief does not have.");
    Assessment {
        verdict: verdict(std::slice::from_ref(&finding)),
        score: 0.0,
        aspects: Vec::new(),
        findings: vec![finding],
        readings: Vec::new(),
    }
}

/// Whether a reading stands well enough not to be spoken of.
pub fn is_fine(reading: &Reading) -> bool {
    matches!(reading.standing, Standing::Good | Standing::Plain)
}
