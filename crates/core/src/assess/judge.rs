//! A layout judged: readings with their bands, findings, score and verdict, without looking for what would mend it.

use serde::Serialize;
use utoipa::ToSchema;

use super::legal::{Breach, Rules};
use super::{bands, score, words};
use crate::corner::{Corner, Thing, things};
use crate::finding::{Finding, Note, Severity};
use crate::light::{LightField, LightReport};
use crate::plan::{Brief, Layout, Plan};
use crate::reading::{Aspect, Origin, Reading, Standing, standing, trapezium};

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
}

/// As [`evaluate`], without looking for the moves that mend findings.
pub fn without_moves(plan: &Plan) -> Assessment {
    of_layout(&plan.brief, &plan.layout)
}

/// As [`without_moves`], from the two halves of a plan.
pub(super) fn of_layout(brief: &Brief, layout: &Layout) -> Assessment {
    let Some(corner) = Corner::from_parts(brief, layout) else { return unresolved() };
    let lit = LightReport::of(&corner);
    let readings = lit_readings(&corner, lit.as_ref());
    let all = things(&corner);
    let breaches = Rules::new(&corner).all(&all);
    let findings = words::findings(&corner, lit.as_ref(), &readings, &breaches);
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
        return Quick { stops: usize::MAX, fixes: usize::MAX, score: 0.0 };
    };
    let readings = scored_readings(&corner, LightField::of(&corner).as_ref());
    let mut broken: Vec<_> =
        Rules::new(&corner).all(&things(&corner)).into_iter().map(|b| (b.rule, b.thing)).collect();
    broken.sort();
    broken.dedup();
    let beside = words::beside_readings(&corner);
    let count = |severity: Severity| beside.iter().filter(|finding| finding.severity == severity).count();
    let poor = readings.iter().filter(|r| words::severity_of(r) == Some(Severity::Fix)).count();
    Quick {
        stops: broken.len() + count(Severity::Stop),
        fixes: poor + count(Severity::Fix),
        score: score::layout_score(&readings, brief),
    }
}

/// Broken rules of a corner.
pub fn breaches(corner: &Corner<'_>, all: &[Thing]) -> Vec<Breach> {
    Rules::new(corner).all(all)
}

/// All readings of a corner with measured values in place, bands and scores.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    lit_readings(corner, LightReport::of(corner).as_ref())
}

fn lit_readings(corner: &Corner<'_>, lit: Option<&LightReport<'_>>) -> Vec<Reading> {
    let mut all = scored_readings(corner, lit.map(|lit| &**lit));
    // Each beside the others of its trade.
    let light = lit.map_or_else(Vec::new, crate::light::details);
    for (trade, mut details) in [("light.", light), ("sound.", crate::sound::details(corner))] {
        let of_trade = |reading: &Reading| reading.id.quantity.id().starts_with(trade);
        let after = all.iter().rposition(of_trade).map_or(all.len(), |at| at + 1);
        set_measured(corner, &mut details);
        all.splice(after..after, details);
    }
    all
}

/// The readings that a score, a stop or a fix can hang on: a search asks for no more.
fn scored_readings(corner: &Corner<'_>, lit: Option<&LightField<'_>>) -> Vec<Reading> {
    let mut all = crate::person::readings(corner.brief);
    all.extend(crate::shot::readings(corner));
    all.extend(crate::light::readings(corner, lit));
    all.extend(crate::daylight::readings(corner));
    all.extend(crate::sound::readings(corner));
    all.extend(crate::room::readings(corner));
    set_measured(corner, &mut all);
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
        }
        let (band, _) = bands::band_of(reading.id.quantity, &row);
        reading.band = band;
        if let (Some(band), Some(value)) = (band, reading.value) {
            reading.standing = standing(value, band);
            reading.score = Some(trapezium(value, band));
        }
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
