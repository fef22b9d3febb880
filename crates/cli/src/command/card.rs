//! `fogon card`: a plan in, its set-up card out.

use std::path::PathBuf;

use clap::{Args, ValueEnum};
use fogon_core::card::card;
use fogon_core::corner::{Corner, unresolved};
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem};
use fogon_handover::picture::{self, Photo};
use fogon_handover::{Paper, csv, html, svg};
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
    /// File to write; its ending chooses the format: svg, html or csv
    #[arg(long, value_name = "FILE")]
    out: PathBuf,
    /// Paper to lay it out for
    #[arg(long, value_enum, default_value = "a4")]
    paper: PaperSize,
    /// The line drawing in place of the photograph
    #[arg(long)]
    no_picture: bool,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let paper = match arguments.paper {
        PaperSize::A4 => Paper::A4,
        PaperSize::Letter => Paper::Letter,
    };
    let ending = arguments.out.extension().and_then(|e| e.to_str()).unwrap_or_default().to_ascii_lowercase();
    if !matches!(ending.as_str(), "svg" | "html" | "csv") {
        let shown = arguments.out.display().to_string();
        return Err(
            Problem::new("out", shown, "a file name ending in .svg, .html or .csv", Code::BadChoice).into()
        );
    }
    let plan = Plan::read(&read::bytes(&arguments.plan)?)?;
    let card = card(&plan).ok_or_else(unresolved)?;
    let png = if ending == "csv" || arguments.no_picture { None } else { Some(picture_of(&plan)?) };
    let photo = png.as_ref().map(|(png, aspect)| Photo { png, aspect: *aspect });
    let text = match ending.as_str() {
        "svg" => svg::card(&card, paper, photo),
        "html" => html::card(&card, paper, photo),
        _ => csv::card(&card),
    };
    read::write(&arguments.out, &text)
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
