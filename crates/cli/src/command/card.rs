//! `fogon card`: a plan in, its set-up card out.

use std::path::PathBuf;

use clap::{Args, ValueEnum};
use fogon_core::card::card;
use fogon_core::corner::{Corner, unresolved};
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem};
use fogon_handover::Paper;
use fogon_handover::file::CardFile;
use fogon_handover::picture::{self, Photo};
use fogon_viewfinder::develop::settings;
use fogon_viewfinder::lens::size_px;
use fogon_viewfinder::render::{Asked, render};
use fogon_viewfinder::stage::Stage;
use fogon_viewfinder::tree::Walk;

use crate::outcome::Failure;
use crate::read;

#[derive(Clone, Copy, ValueEnum)]
enum PaperSize {
    A4,
    Letter,
}

#[derive(Args)]
pub(crate) struct Arguments {
    /// Plan file, or - for standard input
    plan: PathBuf,
    #[arg(long, value_name = "FILE", help = format!("File to write; its ending chooses the format: {}", endings()))]
    out: PathBuf,
    /// Paper to lay it out for
    #[arg(long, value_enum, default_value = "a4")]
    paper: PaperSize,
    /// The line drawing in place of the photograph
    #[arg(long)]
    no_picture: bool,
}

/// All that a card can be saved as.
fn endings() -> String {
    CardFile::ALL.map(|file| format!(".{}", file.ending())).join(", ")
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let paper = match arguments.paper {
        PaperSize::A4 => Paper::A4,
        PaperSize::Letter => Paper::Letter,
    };
    let name = arguments.out.file_name().and_then(|name| name.to_str()).unwrap_or_default();
    let Some(format) = CardFile::of_file_name(name) else {
        let shown = arguments.out.display().to_string();
        let accepted = format!("a file name ending in {}", endings());
        return Err(Problem::new("out", shown, accepted, Code::BadChoice).into());
    };
    let plan = Plan::read(&read::bytes(&arguments.plan)?)?;
    let card = card(&plan).ok_or_else(unresolved)?;
    let png = (format.has_picture() && !arguments.no_picture).then(|| picture_of(&plan)).transpose()?;
    let photo = png.as_ref().map(|(png, aspect)| Photo { png, aspect: *aspect });
    read::write_bytes(&arguments.out, &format.bytes(&card, paper, photo)?)
}

/// The plan's picture as a PNG, and its width over its height.
fn picture_of(plan: &Plan) -> Result<(Vec<u8>, f64), Failure> {
    let corner = Corner::resolved(plan)?;
    let aspect = corner.image_mm.0 / corner.image_mm.1;
    let [width, height] = size_px(&corner, LONG_SIDE);
    let asked = Asked { width, height, samples: 4, seed: 1, smooth: true, matt: false, walk: None };
    let taken = render(&Stage::default().staged(&corner, Walk::fastest()), &asked);
    Ok((picture::png(width, height, &taken.shown(), &settings(&corner))?, aspect))
}

/// Pixels along the longer side of the card's picture.
const LONG_SIDE: usize = 480;
