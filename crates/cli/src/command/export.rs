//! `fogon export`: a plan in, what its picture is made of out.

use std::path::PathBuf;

use clap::Args;
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_handover::scene;
use fogon_viewfinder::export::exported;
use fogon_viewfinder::stage::Stage;
use fogon_viewfinder::tree::Walk;

use crate::outcome::Failure;
use crate::read;

/// Size of the picture that a scene asks for.
const WIDTH: usize = 640;

#[derive(Args)]
pub(crate) struct Arguments {
    /// Plan file, or - for standard input
    plan: PathBuf,
    /// Folder to write scene.json and its meshes to; made if it is not there
    #[arg(long, value_name = "FOLDER")]
    scene: PathBuf,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let plan = Plan::read(&read::bytes(&arguments.plan)?)?;
    let corner = Corner::resolved(&plan)?;
    let staged = Stage::default().staged(&corner, Walk::fastest());
    let (wide_mm, high_mm) = corner.image_mm;
    let height = ((WIDTH as f64 * high_mm / wide_mm).round() as usize).clamp(1, 8192);
    let folder = &arguments.scene;
    let failed = |error: std::io::Error| Failure::Io(format!("cannot make {}: {error}", folder.display()));
    std::fs::create_dir_all(folder).map_err(failed)?;
    for (name, bytes) in scene::files(&exported(&staged, wide_mm as f32), WIDTH, height) {
        read::write_bytes(&folder.join(name), &bytes)?;
    }
    Ok(())
}
