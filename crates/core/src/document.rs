//! From bytes to a checked value. The limits of a document stand once, as schema attributes beside the
//! fields of the Rust types; this module turns them into a JSON Schema (2020-12) and holds input against it
//! with messages a person can act on. Not here: what two fields mean together (see `plan::check`).

mod check;
mod parse;
mod range;
mod schema;
mod text;

use serde::de::DeserializeOwned;
use serde_json::Value;

pub use check::Checker;
pub use parse::{fault, parse};
pub use range::describe_range;
pub use schema::Shape;
#[doc(hidden)]
pub use schema::build;
pub use text::{as_cell, from_cell};

use crate::problem::{Code, Problem, Problems};

/// Largest document accepted, in bytes.
pub const BYTES_MAX: usize = 1_000_000;
/// Deepest nesting accepted.
pub const DEPTH_MAX: usize = 32;

/// Reads `T` from JSON text: syntax, then version, shape and type, then whether its values agree.
///
/// # Errors
/// All problems of the first kind met, in the order unknown fields, missing, type, range.
pub fn read<T: Shape + DeserializeOwned>(text: &[u8]) -> Result<T, Problems> {
    from_value(parse(text)?)
}

/// Reads `T` from a parsed value.
///
/// # Errors
/// As [`read`].
pub fn from_value<T: Shape + DeserializeOwned>(mut value: Value) -> Result<T, Problems> {
    text::made_legible(&mut value);
    of_this_version(&value, "version")?;
    of_this_version(&value["plan"], "plan.version")?;
    let problems = T::checker().check(&value);
    if !problems.is_empty() {
        return Err(Problems(problems));
    }
    drop_nulls(&mut value);
    let document: T = serde_json::from_value(value).map_err(|error| {
        // Everything the schema can say has been said: reaching this is a difference between type and schema.
        Problem::new("document", error, "a document of the published schema", Code::WrongType)
    })?;
    document.agree()?;
    Ok(document)
}

/// A file of a later version is refused as such, before its unknown fields are.
fn of_this_version(value: &Value, field: &str) -> Result<(), Problem> {
    match value["version"].as_f64() {
        Some(version) if version > 1.0 => Err(Problem::new(
            field,
            version,
            "1 (this file was written by a newer version of the program)",
            Code::OutOfRange,
        )),
        _ => Ok(()),
    }
}

/// A null optional field counts as absent.
fn drop_nulls(value: &mut Value) {
    match value {
        Value::Object(map) => {
            map.retain(|_, entry| !entry.is_null());
            map.values_mut().for_each(drop_nulls);
        }
        Value::Array(list) => list.iter_mut().for_each(drop_nulls),
        _ => {}
    }
}
