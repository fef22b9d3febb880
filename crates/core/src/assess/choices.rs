//! What each choice of each school would change on a corner that stays as it stands: verdict, score, and the readings
//! whose value or standing differs.

use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;

use super::judge::{Assessment, without_moves};
use crate::finding::Topic;
use crate::plan::{Plan, Schools, all_schools};
use crate::reading::{Change, Reading};

/// Readings that are told for one choice, at most.
const TOLD: usize = 6;

/// One choice of one school on this corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChoiceEffect {
    /// The school.
    pub school: &'static str,
    /// The choice.
    pub choice: &'static str,
    /// It is the one chosen.
    pub chosen: bool,
    /// Whether a recording could start with it.
    pub ready: bool,
    /// 0 to 1.
    pub score: f64,
    /// Readings that would be judged or come out otherwise; from is now.
    pub changes: Vec<Change>,
    /// Findings that would come, in words.
    pub comes: Vec<String>,
    /// Findings that would go, in words.
    pub goes: Vec<String>,
}

/// Every choice of every school, with everything where it stands.
pub fn choices(plan: &Plan) -> Vec<ChoiceEffect> {
    let now = without_moves(plan);
    let told = serde_json::to_value(&plan.brief.schools).unwrap_or(Value::Null);
    let mut all = Vec::new();
    for school in all_schools() {
        let first = school.choices.first().map_or("", |choice| choice.id);
        let chosen = told[school.id].as_str().unwrap_or(first).to_owned();
        for choice in &school.choices {
            let mut brief = plan.brief.clone();
            if let Some(schools) = with_choice(&told, school.id, choice.id) {
                brief.schools = schools;
            }
            // What was measured under the school that is chosen does not speak for another.
            let other = plan.with_brief(brief);
            let then = if choice.id == chosen { now.clone() } else { without_moves(&other) };
            let missing = |a: &Assessment, b: &Assessment| -> Vec<String> {
                let there = |id: &Topic| b.findings.iter().any(|finding| finding.id == *id);
                a.findings.iter().filter(|f| !there(&f.id)).map(|f| f.sentence.clone()).collect()
            };
            all.push(ChoiceEffect {
                school: school.id,
                choice: choice.id,
                chosen: choice.id == chosen,
                ready: then.verdict.ready,
                score: then.score,
                changes: changed(&now.readings, &then.readings),
                comes: missing(&then, &now),
                goes: missing(&now, &then),
            });
        }
    }
    all
}

fn with_choice(told: &Value, school: &str, choice: &str) -> Option<Schools> {
    let mut schools = told.clone();
    schools.as_object_mut()?.insert(school.into(), choice.into());
    serde_json::from_value(schools).ok()
}

fn changed(now: &[Reading], then: &[Reading]) -> Vec<Change> {
    let other = |reading: &Reading| now.iter().find(|r| r.id == reading.id);
    let differs = |reading: &&Reading| {
        other(reading).is_none_or(|was| was.standing != reading.standing || was.value != reading.value)
    };
    then.iter()
        .filter(differs)
        .take(TOLD)
        .map(|reading| Change {
            reading: reading.id.to_string(),
            label: reading.label.to_string(),
            from: other(reading).and_then(|was| was.value),
            to: reading.value,
            unit: reading.unit,
        })
        .collect()
}
