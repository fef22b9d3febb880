//! What everything that is built in is licensed under, Rust and npm alike: read from what cargo and npm wrote down when they fetched
//! it, so that nothing is fetched for it. Advisories have a list of their own elsewhere, which needs a network: see
//! docs/RELIABILITY.md.

use std::collections::BTreeMap;
use std::process::Command;

use serde_json::Value;
use spdx::{Expression, ParseMode};

/// Licences that go with MIT and Apache-2.0 in a program that is handed out with its sources.
const TAKEN: &[&str] = &[
    "0BSD",
    "Apache-2.0",
    "BSD-2-Clause",
    "BSD-3-Clause",
    "BlueOak-1.0.0",
    "BSL-1.0",
    "CC-BY-4.0",
    "CC0-1.0",
    "CDLA-Permissive-2.0",
    "ISC",
    "MIT",
    "MIT-0",
    "MPL-2.0",
    "OFL-1.1",
    "Python-2.0",
    "Unicode-3.0",
    "Unlicense",
    "WTFPL",
    "Zlib",
];

/// Every dependency has a licence that is taken.
pub(crate) fn check() -> Result<(), String> {
    let mut all: BTreeMap<String, String> = rust()?;
    all.extend(npm()?);
    let wrong: Vec<String> = all
        .iter()
        .filter(|(_, licence)| !is_taken(licence))
        .map(|(name, licence)| format!("{name}: {}", if licence.is_empty() { "no licence" } else { licence }))
        .collect();
    println!("{} dependencies", all.len());
    if wrong.is_empty() { Ok(()) } else { Err(format!("Not taken:\n{}", wrong.join("\n"))) }
}

fn is_taken(licence: &str) -> bool {
    let expression = Expression::parse_mode(licence, ParseMode::LAX);
    expression.is_ok_and(|expression| {
        expression.evaluate(|asked| asked.license.id().is_some_and(|id| TAKEN.contains(&id.name)))
    })
}

fn rust() -> Result<BTreeMap<String, String>, String> {
    let output = Command::new("cargo")
        .args(["metadata", "--format-version", "1", "--locked"])
        .output()
        .map_err(|error| format!("cannot start cargo: {error}"))?;
    let told: Value = serde_json::from_slice(&output.stdout)
        .map_err(|_| String::from_utf8_lossy(&output.stderr).into_owned())?;
    let packages = told["packages"].as_array().into_iter().flatten();
    Ok(packages.map(|one| (named("crate", &one["name"], &one["version"]), text(&one["license"]))).collect())
}

fn npm() -> Result<BTreeMap<String, String>, String> {
    let lock = std::fs::read_to_string("web/package-lock.json").map_err(|error| error.to_string())?;
    let lock: Value = serde_json::from_str(&lock).map_err(|error| error.to_string())?;
    let packages = lock["packages"].as_object().into_iter().flatten();
    let others = packages.filter(|(path, _)| !path.is_empty());
    Ok(others
        .map(|(path, one)| {
            (named("package", &Value::from(path.as_str()), &one["version"]), text(&one["license"]))
        })
        .collect())
}

fn named(kind: &str, name: &Value, version: &Value) -> String {
    format!("{kind} {} {}", text(name), text(version))
}

fn text(value: &Value) -> String {
    value.as_str().unwrap_or_default().to_owned()
}

#[cfg(test)]
mod tests {
    use super::is_taken;

    #[test]
    fn a_licence_that_binds_the_whole_is_not_taken() {
        assert!(
            is_taken("MIT OR Apache-2.0") && is_taken("MIT/Apache-2.0") && is_taken("GPL-3.0-only OR MIT")
        );
        for licence in ["GPL-3.0-only", "AGPL-3.0-or-later AND MIT", "SSPL-1.0", "", "Our own"] {
            assert!(!is_taken(licence), "{licence}");
        }
    }
}
