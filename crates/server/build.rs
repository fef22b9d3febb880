//! Names this build by what it computes with: verdicts and pictures that another build kept are worked out again.

use std::collections::hash_map::DefaultHasher;
use std::hash::{Hash, Hasher};
use std::path::Path;

/// Crates whose sources decide what is computed.
const COMPUTING: [&str; 4] = ["core", "figure", "viewfinder", "handover"];

fn main() -> std::io::Result<()> {
    let mut hasher = DefaultHasher::new();
    for name in COMPUTING {
        let folder = format!("../{name}/src");
        println!("cargo:rerun-if-changed={folder}");
        add(Path::new(&folder), &mut hasher)?;
    }
    println!("cargo:rustc-env=FOGON_BUILD={:016x}", hasher.finish());
    Ok(())
}

/// Every file of a folder, in the order of their names.
fn add(folder: &Path, hasher: &mut DefaultHasher) -> std::io::Result<()> {
    let mut paths =
        std::fs::read_dir(folder)?.map(|entry| Ok(entry?.path())).collect::<std::io::Result<Vec<_>>>()?;
    paths.sort();
    for path in paths {
        if path.is_dir() {
            add(&path, hasher)?;
        } else {
            path.hash(hasher);
            std::fs::read(&path)?.hash(hasher);
        }
    }
    Ok(())
}
