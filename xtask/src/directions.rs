//! Dependencies point one way: between crates as their manifests say, between the core's modules as its
//! `use crate::` lines say.

use std::collections::BTreeSet;
use std::fs;
use std::path::Path;

use crate::sources::rust_files;

/// The core's modules from the bottom up; a module may use those above its line and none on or below it.
/// The trades share a line: none of them uses another.
const LAYERS: &[&[&str]] = &[
    &[
        "units",
        "problem",
        "colour",
        "exposure",
        "finding",
        "material",
        "parallel",
        "kept",
        "document",
        "geometry",
        "glossary",
        "reading",
        "photometry",
        "plan",
    ],
    &["person"],
    &["corner"],
    &["room", "shot", "light", "daylight", "sound"],
    &["power"],
    &["ready"],
    &["edit"],
    &["assess"],
    &["arrange", "drawing", "hand"],
    &["money", "card", "steps", "day", "take"],
    &["run"],
    &["calc"],
];

/// Which of our crates a crate may depend on.
const CRATES: &[(&str, &[&str])] = &[
    ("core", &[]),
    ("figure", &[]),
    ("viewfinder", &["core", "figure"]),
    ("handover", &["core", "viewfinder"]),
    ("recording", &[]),
    ("store", &["core"]),
    ("server", &["core", "handover", "recording", "store", "viewfinder"]),
    ("cli", &["core", "handover", "recording", "server", "store", "viewfinder"]),
    ("testkit", &[]),
];

/// Checks crates and core modules.
pub(crate) fn check() -> Result<(), String> {
    let mut wrong = Vec::new();
    for folder in fs::read_dir("crates").into_iter().flatten().flatten() {
        let name = folder.file_name().to_string_lossy().into_owned();
        if CRATES.iter().all(|(known, _)| *known != name) {
            wrong.push(format!("crates/{name} is not in the list of xtask/src/directions.rs"));
        }
    }
    for (name, allowed) in CRATES {
        let path = format!("crates/{name}/Cargo.toml");
        let text = fs::read_to_string(&path).map_err(|e| format!("cannot read {path}: {e}"))?;
        let own = text.split("[dev-dependencies]").next().unwrap_or_default();
        for other in CRATES.iter().map(|(other, _)| *other) {
            if own.contains(&format!("fogon-{other}.workspace")) && !allowed.contains(&other) {
                wrong.push(format!("crates/{name} must not depend on crates/{other}"));
            }
        }
    }
    let root = Path::new("crates/core/src");
    let mut seen = 0;
    for file in rust_files(root) {
        let Some(module) = module_of(root, &file) else { continue };
        let Some(layer) = layer_of(&module) else {
            if module != "lib" {
                wrong.push(format!(
                    "{}: the module {module} has no layer in xtask/src/directions.rs",
                    file.display()
                ));
            }
            continue;
        };
        let text = fs::read_to_string(&file).map_err(|e| format!("cannot read {}: {e}", file.display()))?;
        if text.contains("#[test]") {
            wrong.push(format!("{}: the core's tests run from crates/core/tests alone", file.display()));
        }
        for used in used_modules(&text) {
            let Some(other) = layer_of(&used) else { continue };
            seen += 1;
            // Shared modules at the bottom may use each other.
            if used != module && (other > layer || (other == layer && layer > 0)) {
                wrong.push(format!("{}: {module} must not use {used}", file.display()));
            }
        }
    }
    if seen < 50 {
        wrong.push(format!("only {seen} uses found in the core: the check reads the wrong folder"));
    }
    for circle in crate::circles::circles(root)? {
        wrong.push(circle);
    }
    if wrong.is_empty() { Ok(()) } else { Err(wrong.join("\n")) }
}

fn layer_of(module: &str) -> Option<usize> {
    LAYERS.iter().position(|layer| layer.contains(&module))
}

fn module_of(root: &Path, file: &Path) -> Option<String> {
    let first = file.strip_prefix(root).ok()?.components().next()?;
    Some(first.as_os_str().to_str()?.trim_end_matches(".rs").to_owned())
}

/// Names after `crate::`, in code and not in comments.
fn used_modules(text: &str) -> BTreeSet<String> {
    let mut found = BTreeSet::new();
    for line in text.lines().filter(|l| !l.trim_start().starts_with("//")) {
        for piece in line.split("crate::").skip(1) {
            found.insert(piece.chars().take_while(|c| c.is_ascii_alphanumeric() || *c == '_').collect());
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sees_uses_and_passes_comments_over() {
        let text = "use crate::plan::Plan;\n// crate::money\nlet x = crate::room::mains(b);";
        let found: Vec<String> = used_modules(text).into_iter().collect();
        assert_eq!(found, ["plan", "room"]);
        assert!(used_modules("use glam::DVec3;\nuse super::Thing;").is_empty());
    }

    #[test]
    fn files_belong_to_the_module_of_their_folder() {
        let root = Path::new("crates/core/src");
        let module = |file: &str| module_of(root, &root.join(file)).unwrap_or_default();
        assert_eq!(module("light.rs"), "light");
        assert_eq!(module("light/placement.rs"), "light");
        assert_eq!(module("lib.rs"), "lib");
        assert_eq!(module_of(root, Path::new("crates/cli/src/main.rs")), None);
    }

    #[test]
    fn every_module_has_one_layer_and_the_trades_share_one() {
        let mut all: Vec<&str> = LAYERS.iter().copied().flatten().copied().collect();
        let count = all.len();
        all.sort_unstable();
        all.dedup();
        assert_eq!(all.len(), count, "a module stands on two layers");
        let trades = ["room", "shot", "light", "sound"].map(layer_of);
        assert!(trades.iter().all(|l| l.is_some() && *l == trades[0]));
        assert!(layer_of("assess") > trades[0] && layer_of("plan") < trades[0]);
        assert_eq!(layer_of("kitchen"), None);
    }

    #[test]
    fn the_core_depends_on_none_of_our_crates() {
        assert_eq!(CRATES[0], ("core", &[][..]));
        for (index, (name, allowed)) in CRATES.iter().enumerate() {
            for other in *allowed {
                let at = CRATES.iter().position(|(n, _)| n == other);
                assert!(at.is_some_and(|at| at < index), "{name} points forward to {other}");
            }
        }
    }

    /// The check holds on this checkout: it is run from the workspace's root.
    #[test]
    fn this_checkout_keeps_the_directions() {
        let root = Path::new(env!("CARGO_MANIFEST_DIR")).parent().expect("a workspace above xtask");
        std::env::set_current_dir(root).expect("the root can be entered");
        check().expect("the directions hold");
    }
}
