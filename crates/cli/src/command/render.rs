//! `fogon render`: a plan in, its picture out.

use std::path::PathBuf;
use std::time::Instant;

use clap::Args;
use cpu_time::ProcessTime;
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem};
use fogon_handover::picture;
use fogon_viewfinder::develop::settings;
use fogon_viewfinder::render::{Asked, PIXELS_MOST, SAMPLES_MOST, render};
use fogon_viewfinder::stage::Stage;
use fogon_viewfinder::tree::Walk;
use serde_json::json;

use crate::outcome::Failure;
use crate::read;

/// Pixels along a side at most.
const SIDE_MOST: usize = 8192;

#[derive(Args)]
pub(crate) struct Arguments {
    /// Plan file, or - for standard input
    plan: PathBuf,
    /// File to write; its ending chooses the format: png or pfm
    #[arg(long, value_name = "FILE")]
    out: PathBuf,
    /// Pixels across (960, or as the height and the camera's picture have it)
    #[arg(long)]
    width: Option<usize>,
    /// Pixels down (as the width and the camera's picture have it)
    #[arg(long)]
    height: Option<usize>,
    /// Samples of each pixel
    #[arg(long, default_value_t = 16)]
    samples: u32,
    /// Another seed gives other noise
    #[arg(long, default_value_t = 1)]
    seed: u32,
    /// Luminance in cd/m2 in place of the camera's signal; for .pfm
    #[arg(long)]
    linear: bool,
    /// Leave the noise of few samples as it is
    #[arg(long)]
    no_denoise: bool,
    /// Leave out sheen and spectacle lenses, as an exported scene does
    #[arg(long)]
    matt: bool,
    /// One test after the other, without the processor's vector instructions
    #[arg(long)]
    plain: bool,
    /// Threads (as many as the machine has)
    #[arg(long, default_value_t = 0)]
    threads: usize,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let ending = arguments.out.extension().and_then(|e| e.to_str()).unwrap_or_default().to_ascii_lowercase();
    let shown = arguments.out.display().to_string();
    let refused = |accepted: &str| Problem::new("out", &shown, accepted, Code::BadChoice);
    match ending.as_str() {
        "png" if arguments.linear => {
            return Err(refused("a file name ending in .pfm, which holds linear light").into());
        }
        "png" | "pfm" => {}
        _ => return Err(refused("a file name ending in .png or .pfm").into()),
    }
    let plan = Plan::read(&read::bytes(&arguments.plan)?)?;
    let corner = Corner::resolved(&plan)?;
    let asked = asked(arguments, &corner)?;
    let threads = arguments.threads.min(256);
    let pool = rayon::ThreadPoolBuilder::new().num_threads(threads).build();
    let pool = pool.map_err(|error| Failure::Io(format!("cannot start threads: {error}")))?;
    pool.install(|| {
        let started = Instant::now();
        let staged = Stage::default().staged(&corner, asked.walk.unwrap_or_else(Walk::fastest));
        let staged_s = started.elapsed().as_secs_f64();
        let (started, busy) = (Instant::now(), ProcessTime::now());
        let picture = render(&staged, &asked);
        let (wall_s, cpu_s) = (started.elapsed().as_secs_f64(), busy.elapsed().as_secs_f64());
        let bytes = match (ending.as_str(), arguments.linear) {
            ("png", _) => picture::png(asked.width, asked.height, &picture.shown(), &settings(&corner))?,
            (_, true) => picture::pfm(asked.width, asked.height, &picture.luminance()),
            (_, false) => picture::pfm(asked.width, asked.height, &picture.signal()),
        };
        read::write_bytes(&arguments.out, &bytes)?;
        let told = json!({
            "wall_s": wall_s, "cpu_s": cpu_s, "samples": picture.samples, "mean_samples": picture.mean_samples,
            "width": asked.width, "height": asked.height,
            "time_includes": "light on all patches, every sample, smoothing; not the triangles and what patches see of each other",
            "staged_s": staged_s,
        });
        read::print(&format!("{told}\n"))
    })
}

fn asked(arguments: &Arguments, corner: &Corner<'_>) -> Result<Asked, Problem> {
    let [width, height] = size_px(arguments, corner)?;
    let samples = range("samples", arguments.samples as usize, SAMPLES_MOST as usize)? as u32;
    Ok(Asked {
        width,
        height,
        samples,
        seed: arguments.seed,
        smooth: !arguments.no_denoise,
        matt: arguments.matt,
        walk: arguments.plain.then_some(Walk::Plain),
    })
}

/// Pixels across and down, in the shape of the camera's picture.
fn size_px(arguments: &Arguments, corner: &Corner<'_>) -> Result<[usize; 2], Problem> {
    let (wide, high) = corner.image_mm;
    let follows = |side: usize, ratio: f64| ((side as f64 * ratio).round() as usize).clamp(1, SIDE_MOST);
    let given = |field: &str, side: Option<usize>| side.map(|side| range(field, side, SIDE_MOST)).transpose();
    let (width, height) = (given("width", arguments.width)?, given("height", arguments.height)?);
    let across = width.unwrap_or_else(|| height.map_or(960, |height| follows(height, wide / high)));
    let usual = follows(across, high / wide);
    let down = height.unwrap_or(usual);
    if width.is_some() && down.abs_diff(usual) > 1 {
        let accepted = format!(
            "{usual} at a width of {across}: this camera's picture has that shape; leave one of the two out"
        );
        return Err(Problem::new("height", down, accepted, Code::BadChoice));
    }
    range("width x height", across * down, PIXELS_MOST)?;
    Ok([across, down])
}

fn range(field: &str, found: usize, most: usize) -> Result<usize, Problem> {
    let accepted = format!("a whole number from 1 to {most}");
    if (1..=most).contains(&found) {
        Ok(found)
    } else {
        Err(Problem::new(field, found, accepted, Code::OutOfRange))
    }
}
