//! Every answer that a test gets is held against the description of the API (OpenAPI 3.1, JSON Schema 2020-12, by the `jsonschema`
//! crate): its path, method and status are described, and its body is what the description says.

use std::collections::HashMap;
use std::sync::{Arc, LazyLock, Mutex};

use jsonschema::Validator;
use serde_json::{Value, json};

pub(crate) static DESCRIPTION: LazyLock<Value> =
    LazyLock::new(|| serde_json::from_str(include_str!("../../../../web/src/api/openapi.json")).unwrap());

/// Validators by the schema that they are made of.
static VALIDATORS: LazyLock<Mutex<HashMap<String, Arc<Validator>>>> = LazyLock::new(Mutex::default);

/// The description of a path: the template that it fits, with the fewest places left open.
fn described(path: &str) -> Option<&'static Value> {
    let parts: Vec<&str> = path.split('?').next().unwrap_or_default().split('/').collect();
    let fits = |template: &str| {
        let wanted: Vec<&str> = template.split('/').collect();
        wanted.len() == parts.len() && wanted.iter().zip(&parts).all(|(w, p)| w.starts_with('{') || w == p)
    };
    let all = DESCRIPTION["paths"].as_object().unwrap();
    all.iter()
        .filter(|(template, _)| fits(template))
        .min_by_key(|(t, _)| t.matches('{').count())
        .map(|(_, d)| d)
}

fn validator(schema: &Value) -> Arc<Validator> {
    let mut all = VALIDATORS.lock().unwrap();
    let made = all.entry(schema.to_string()).or_insert_with(|| {
        // References point into the whole description.
        let whole = json!({ "allOf": [schema], "components": DESCRIPTION["components"] });
        Arc::new(jsonschema::validator_for(&whole).unwrap())
    });
    Arc::clone(made)
}

/// Panics where an answer is not what the description of its route says.
pub(crate) fn hold(method: &str, path: &str, status: u16, kind: &str, text: &str) {
    // What is none of the API's routes, or asked for in a way that it does not have, is not described.
    let Some(route) = described(path).and_then(|d| d.get(method.to_lowercase())) else {
        return;
    };
    let answer = &route["responses"][status.to_string()];
    let asked = format!("{method} {path}: {status}");
    if status < 300 {
        assert!(answer.is_object(), "{asked} is not described");
    }
    let kind = kind.split(';').next().unwrap_or_default();
    let schema = match (answer["content"].get(kind), kind) {
        (Some(content), _) => &content["schema"],
        // Every refusal has one form, also those that hold for all routes and are described at none.
        (None, "application/problem+json") => &json!({ "$ref": "#/components/schemas/Details" }),
        _ => return,
    };
    if !kind.ends_with("json") || schema.is_null() {
        return;
    }
    // Lines of JSON are described by what a line is.
    let bodies: Vec<&str> = if kind.ends_with("ndjson") { text.lines().collect() } else { vec![text] };
    for body in bodies {
        let told: String = body.chars().take(200).collect();
        let body: Value =
            serde_json::from_str(body).unwrap_or_else(|fault| panic!("{asked}: {fault}: {told}"));
        let validator = validator(schema);
        let faults = validator.iter_errors(&body).take(3);
        let faults: Vec<String> = faults
            .map(|fault| {
                format!(
                    "{}: {}",
                    fault.instance_path(),
                    fault.to_string().chars().take(300).collect::<String>()
                )
            })
            .collect();
        assert!(faults.is_empty(), "{asked}: {faults:#?}");
    }
}
