//! The JSON Schema of a type, cut from its utoipa description: references local, every object closed,
//! optional fields nullable.

use serde_json::{Map, Value, json};
use utoipa::ToSchema;

use super::Checker;
use crate::problem::Problems;

/// A type whose documents can be checked. Implemented for every `ToSchema` type through [`shape!`].
pub trait Shape {
    /// The schema, ready to be held against values; built once.
    fn checker() -> &'static Checker;

    /// The schema.
    fn shape() -> &'static Value {
        Self::checker().schema()
    }

    /// What a schema cannot say: values that contradict each other, ids that name nothing.
    ///
    /// # Errors
    /// All contradictions found.
    fn agree(&self) -> Result<(), Problems> {
        Ok(())
    }
}

/// Most entries of each map of things: utoipa has no attribute for it, so these limits stand here.
const MAP_SIZES: [(&str, usize); 9] = [
    ("gear", 200),
    ("openings", 24),
    ("furniture", 40),
    ("surfaces", 14),
    ("lights", 12),
    ("angles", 3),
    ("treatment", 24),
    ("noises", 24),
    ("measured", 100),
];

/// Gives a type its [`Shape`], cached for the life of the program: `Walk`, or `Plan => Plan::check` where more than the
/// shape has to agree.
#[macro_export]
macro_rules! shape {
    ($($type:ty $(=> $agree:expr)?),+ $(,)?) => {$(
        impl $crate::document::Shape for $type {
            fn checker() -> &'static $crate::document::Checker {
                static CHECKER: std::sync::OnceLock<$crate::document::Checker> = std::sync::OnceLock::new();
                CHECKER.get_or_init($crate::document::build::<$type>)
            }

            $(fn agree(&self) -> Result<(), $crate::problem::Problems> {
                ($agree)(self)
            })?
        }
    )+};
}

/// The closed JSON Schema of `T`, with its parts under `$defs`, ready to be held against values.
#[doc(hidden)]
pub fn build<T: ToSchema>() -> Checker {
    let mut parts = Vec::new();
    T::schemas(&mut parts);
    let mut defs: Map<String, Value> = parts
        .into_iter()
        .map(|(name, schema)| (name, serde_json::to_value(schema).unwrap_or_default()))
        .collect();
    let mut root = serde_json::to_value(T::schema()).unwrap_or_default();
    let open = defs.clone();
    for schema in defs.values_mut() {
        close(schema, &open);
    }
    close(&mut root, &open);
    let mut document = Map::new();
    document.insert("$schema".into(), json!("https://json-schema.org/draft/2020-12/schema"));
    document.insert("title".into(), json!(T::name()));
    if let Value::Object(root) = root {
        document.extend(root);
    }
    document.insert("$defs".into(), Value::Object(defs));
    Checker::new(Value::Object(document))
}

/// Merges `allOf`, closes objects, makes optional fields nullable and references local, in place.
fn close(schema: &mut Value, defs: &Map<String, Value>) {
    let Value::Object(map) = schema else { return };
    if let Some(Value::Array(parts)) = map.remove("allOf") {
        for part in parts {
            merge(map, &part, defs);
        }
    }
    if let Some(Value::String(reference)) = map.get_mut("$ref") {
        *reference = reference.replace("#/components/schemas/", "#/$defs/");
    }
    let required: Vec<Value> = map.get("required").and_then(Value::as_array).cloned().unwrap_or_default();
    if let Some(Value::Object(properties)) = map.get_mut("properties") {
        for (name, property) in properties.iter_mut() {
            close(property, defs);
            if let (Some((_, most)), Some("object")) =
                (MAP_SIZES.iter().find(|(map, _)| map == name), property["type"].as_str())
            {
                property["maxProperties"] = json!(most);
            }
            if !required.iter().any(|r| r == name.as_str()) {
                make_nullable(property);
            }
        }
        if !map.contains_key("additionalProperties") {
            map.insert("additionalProperties".into(), json!(false));
        }
    }
    for key in ["items", "additionalProperties"] {
        if let Some(child) = map.get_mut(key) {
            close(child, defs);
        }
    }
    for key in ["oneOf", "anyOf", "prefixItems"] {
        if let Some(Value::Array(children)) = map.get_mut(key) {
            children.iter_mut().for_each(|child| close(child, defs));
        }
    }
}

fn merge(into: &mut Map<String, Value>, part: &Value, defs: &Map<String, Value>) {
    if let Some(name) = part["$ref"].as_str().and_then(|r| r.rsplit('/').next()) {
        if let Some(target) = defs.get(name) {
            merge(into, target, defs);
        }
        return;
    }
    let Value::Object(part) = part else { return };
    for (key, value) in part {
        match (key.as_str(), into.get_mut(key), value) {
            ("allOf", _, Value::Array(parts)) => parts.iter().for_each(|p| merge(into, p, defs)),
            ("properties", Some(Value::Object(present)), Value::Object(more)) => {
                present.extend(more.iter().map(|(k, v)| (k.clone(), v.clone())));
            }
            ("required", Some(Value::Array(present)), Value::Array(more)) => {
                present.extend(more.iter().cloned())
            }
            (_, Some(_), _) => {}
            (_, None, _) => {
                into.insert(key.clone(), value.clone());
            }
        }
    }
}

fn make_nullable(schema: &mut Value) {
    let Value::Object(map) = schema else { return };
    let already = match (map.get("type"), map.get("oneOf")) {
        (Some(Value::Array(types)), _) => types.iter().any(|t| t == "null"),
        (_, Some(Value::Array(options))) => options.iter().any(|o| o["type"] == "null"),
        _ => false,
    };
    if already {
        return;
    }
    let inner = std::mem::take(map);
    map.insert("oneOf".into(), json!([{ "type": "null" }, Value::Object(inner)]));
}
