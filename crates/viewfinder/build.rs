//! Meshes the head once, when the application is built: it takes a second.
use std::io::Write;
use std::path::PathBuf;

use flate2::Compression;
use flate2::write::ZlibEncoder;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    println!("cargo:rerun-if-changed=build.rs");
    let folder = PathBuf::from(std::env::var("OUT_DIR")?);
    let mut packed = ZlibEncoder::new(Vec::new(), Compression::best());
    packed.write_all(&fogon_figure::Head::meshed().to_bytes())?;
    std::fs::write(folder.join("head.zlib"), packed.finish()?)?;
    Ok(())
}
