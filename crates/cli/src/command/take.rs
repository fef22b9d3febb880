//! `fogon take`: a test recording in, its measures and what they mean out.

use std::path::{Path, PathBuf};

use clap::Args;
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_core::take::sound::{Recorded, SoundMeasures, measure};
use fogon_core::take::sync::{Sync, synchronise};
use fogon_core::take::{MeasureTold, Promise, told};
use fogon_recording::{MOST_TAKE_BYTES, Take, read_take};
use serde::Serialize;

use crate::outcome::Failure;
use crate::read;

#[derive(Args)]
pub(crate) struct Arguments {
    /// Test recording, WAV or FLAC, 10 to 20 seconds
    file: PathBuf,
    /// The other file of the same take: the camera's, where FILE is the recorder's
    #[arg(long, value_name = "FILE")]
    second: Option<PathBuf>,
    /// Plan file, to hold the recording against
    #[arg(long, value_name = "PLAN")]
    plan: Option<PathBuf>,
    /// Write FILE as WAV, shifted and stretched to fit the second one
    #[arg(long, value_name = "WAV", requires = "second")]
    fit: Option<PathBuf>,
}

#[derive(Serialize)]
struct Answer {
    #[serde(flatten)]
    measures: SoundMeasures,
    #[serde(skip_serializing_if = "Option::is_none")]
    sync: Option<Sync>,
    verdicts: Vec<MeasureTold>,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let plan =
        arguments.plan.as_ref().map(|path| Ok::<_, Failure>(Plan::read(&read::bytes(path)?)?)).transpose()?;
    let promise =
        plan.as_ref().map(|plan| Corner::resolved(plan).map(|corner| Promise::of(&corner))).transpose()?;
    let take = take_of(&arguments.file)?;
    let measures = measure(&recorded(&take));
    let sync = arguments.second.as_ref().map(|path| sync_with(&take, path)).transpose()?;
    if let (Some(path), Some(sync)) = (&arguments.fit, &sync) {
        let fitted = take.fitted(sync.offset_s, sync.drift_ppm).map_err(unusable(&arguments.file))?;
        read::write_bytes(path, &fitted.wav_24_bit())?;
    }
    read::print_json(&Answer { verdicts: told(&measures, promise.as_ref()), sync, measures })
}

fn recorded(take: &Take) -> Recorded<'_> {
    Recorded { channels: &take.channels, rate_hz: f64::from(take.sample_rate_hz) }
}

fn unusable<E: std::fmt::Display>(path: &Path) -> impl Fn(E) -> Failure {
    let name = path.display().to_string();
    move |error| Failure::Unusable(format!("{name}: {error}"))
}

fn take_of(path: &Path) -> Result<Take, Failure> {
    // One byte more than there may be: a larger file is refused as such.
    let bytes = read::bytes_up_to(path, MOST_TAKE_BYTES as u64 + 1)?;
    read_take(&bytes).map_err(unusable(path))
}

fn sync_with(take: &Take, path: &Path) -> Result<Sync, Failure> {
    let second = take_of(path)?.at(take.sample_rate_hz).map_err(unusable(path))?;
    synchronise(&recorded(take), &recorded(&second)).map_err(unusable(path))
}
