//! Changes as RFC 6902 patches under `/layout/` only, begun by tests on what they replace, so that a change
//! made for one plan never lands on another.

use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;

use super::Plan;
use crate::document;
use crate::problem::{Code, Problem, Problems};

/// One step of a patch, as RFC 6902.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PatchStep {
    /// test, add, replace or remove.
    pub op: String,
    /// JSON pointer under `/layout/`.
    pub path: String,
    /// The value, but for remove.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub value: Option<Value>,
}

/// A change that can be applied, with what it does to the readings.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Fix {
    /// What it does, as an instruction.
    pub label: String,
    /// The change.
    pub patch: Vec<PatchStep>,
    /// Readings before and after.
    pub changes: Vec<crate::reading::Change>,
}

/// Applies a patch to a plan; all or nothing.
///
/// # Errors
/// A step outside `/layout/`, a test that fails, or a result that is no plan.
pub fn apply(plan: &Plan, patch: &[PatchStep]) -> Result<Plan, Problems> {
    if let Some(step) = patch.iter().find(|s| !s.path.starts_with("/layout/")) {
        return Err(Problem::new("patch", &step.path, "a path under /layout/", Code::PatchRefused).into());
    }
    let refused =
        |error: String| Problem::new("patch", error, "a patch made for this plan", Code::PatchRefused);
    let mut value = serde_json::to_value(plan).map_err(|e| refused(e.to_string()))?;
    let mut steps = serde_json::to_value(patch).map_err(|e| refused(e.to_string()))?;
    [&mut value, &mut steps].into_iter().for_each(whole_numbers);
    let steps: json_patch::Patch = serde_json::from_value(steps).map_err(|e| refused(e.to_string()))?;
    json_patch::patch(&mut value, &steps).map_err(|e| refused(e.to_string()))?;
    let changed: Plan = document::from_value(value)?;
    changed.check()?;
    Ok(plan.with_layout(changed.layout))
}

/// Writes 1600.0 as 1600 throughout: JSON has one kind of number, but a test step compares how it was written,
/// and a browser sends back 1600 for the 1600.0 that it was given.
fn whole_numbers(value: &mut Value) {
    const EXACT: f64 = 9_007_199_254_740_992.0;
    match value {
        Value::Number(number) => {
            if let Some(whole) = number.as_f64().filter(|n| n.fract() == 0.0 && n.abs() < EXACT) {
                *number = (whole as i64).into();
            }
        }
        Value::Array(list) => list.iter_mut().for_each(whole_numbers),
        Value::Object(map) => map.values_mut().for_each(whole_numbers),
        _ => {}
    }
}

/// The patch that turns the layout of `from` into that of `to`, value by value, each begun by a test. It knows of no
/// parts: whatever a layout comes to hold is compared.
pub fn change(from: &Plan, to: &Plan) -> Vec<PatchStep> {
    let (mut tests, mut steps) = (Vec::new(), Vec::new());
    differ("/layout", Some(&to_layout(from)), Some(&to_layout(to)), &mut tests, &mut steps);
    tests.extend(steps);
    tests
}

fn to_layout(plan: &Plan) -> Value {
    serde_json::to_value(&plan.layout).unwrap_or_default()
}

fn step(op: &str, path: &str, value: Option<Value>) -> PatchStep {
    PatchStep { op: op.into(), path: path.into(), value }
}

/// Steps for one thing: field by field where both sides have it, whole where one is missing.
fn differ(
    path: &str,
    before: Option<&Value>,
    after: Option<&Value>,
    tests: &mut Vec<PatchStep>,
    steps: &mut Vec<PatchStep>,
) {
    match (before, after) {
        (a, b) if a == b => {}
        (None | Some(Value::Null), Some(b)) => steps.push(step("add", path, Some(b.clone()))),
        (Some(a), None | Some(Value::Null)) => {
            tests.push(step("test", path, Some(a.clone())));
            steps.push(step("remove", path, None));
        }
        (Some(Value::Object(a)), Some(Value::Object(b))) => {
            for key in a.keys().chain(b.keys().filter(|k| !a.contains_key(*k))) {
                differ(&format!("{path}/{key}"), a.get(key), b.get(key), tests, steps);
            }
        }
        (Some(a), Some(b)) => {
            tests.push(step("test", path, Some(a.clone())));
            steps.push(step("replace", path, Some(b.clone())));
        }
        (None, None) => {}
    }
}
