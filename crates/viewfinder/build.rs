//! Meshes the head once, when the application is built: it takes a second.
use std::path::PathBuf;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    println!("cargo:rerun-if-changed=build.rs");
    let folder = PathBuf::from(std::env::var("OUT_DIR")?);
    std::fs::write(folder.join("head.bin"), fogon_figure::Head::meshed().to_bytes())?;
    Ok(())
}
