//! Every file that a card can be saved as, by its ending: one list for the server and the command line.

use fogon_core::card::Card;
use fogon_core::problem::Problem;

use crate::picture::Photo;
use crate::{Paper, csv, dxf, html, life_size, marks, pdf, svg, text};

/// What a card can be saved as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum CardFile {
    /// The card alone, as a page.
    Html,
    /// The card with its further pages, as a page.
    AllHtml,
    /// The card alone, as a drawing.
    Svg,
    /// The card with its further pages.
    Pdf,
    /// Everything on the card, as a table.
    Csv,
    /// Everything on the card, as plain text.
    Text,
    /// Plan and side view, 1 : 1.
    Dxf,
    /// The plan, 1 : 1.
    PlanSvg,
    /// The side view, 1 : 1.
    SideSvg,
    /// The marks, as a table.
    MarksCsv,
    /// The marks, as a document.
    MarksJson,
    /// The cables, as a table.
    CablesCsv,
}

impl CardFile {
    /// Every one.
    pub const ALL: [CardFile; 12] = [
        CardFile::Html,
        CardFile::AllHtml,
        CardFile::Svg,
        CardFile::Pdf,
        CardFile::Csv,
        CardFile::Text,
        CardFile::Dxf,
        CardFile::PlanSvg,
        CardFile::SideSvg,
        CardFile::MarksCsv,
        CardFile::MarksJson,
        CardFile::CablesCsv,
    ];

    /// The end of its file's name, and its name in requests.
    pub fn ending(self) -> &'static str {
        match self {
            CardFile::Html => "html",
            CardFile::AllHtml => "all.html",
            CardFile::Svg => "svg",
            CardFile::Pdf => "pdf",
            CardFile::Csv => "csv",
            CardFile::Text => "txt",
            CardFile::Dxf => "dxf",
            CardFile::PlanSvg => "plan.svg",
            CardFile::SideSvg => "side.svg",
            CardFile::MarksCsv => "marks.csv",
            CardFile::MarksJson => "marks.json",
            CardFile::CablesCsv => "cables.csv",
        }
    }

    /// The one with this name in a request.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|file| file.ending() == name)
    }

    /// The one that a file's name ends in: the longest ending that fits.
    pub fn of_file_name(name: &str) -> Option<Self> {
        let name = name.to_ascii_lowercase();
        let fits = Self::ALL.into_iter().filter(|file| name.ends_with(&format!(".{}", file.ending())));
        fits.max_by_key(|file| file.ending().len())
    }

    /// Its media type.
    pub fn media_type(self) -> &'static str {
        match self {
            CardFile::Html | CardFile::AllHtml => "text/html; charset=utf-8",
            CardFile::Svg | CardFile::PlanSvg | CardFile::SideSvg => "image/svg+xml",
            CardFile::Pdf => "application/pdf",
            CardFile::Csv | CardFile::MarksCsv | CardFile::CablesCsv => "text/csv; charset=utf-8",
            CardFile::Text => "text/plain; charset=utf-8",
            CardFile::Dxf => "image/vnd.dxf",
            CardFile::MarksJson => "application/json",
        }
    }

    /// Whether the picture is on it.
    pub fn has_picture(self) -> bool {
        match self {
            CardFile::Html | CardFile::AllHtml | CardFile::Svg | CardFile::Pdf => true,
            CardFile::Csv
            | CardFile::Text
            | CardFile::Dxf
            | CardFile::PlanSvg
            | CardFile::SideSvg
            | CardFile::MarksCsv
            | CardFile::MarksJson
            | CardFile::CablesCsv => false,
        }
    }

    /// The file.
    ///
    /// # Errors
    /// As of the writers of PDF and DXF; none is known.
    pub fn bytes(self, card: &Card, paper: Paper, photo: Option<Photo<'_>>) -> Result<Vec<u8>, Problem> {
        Ok(match self {
            CardFile::Html => html::card(card, paper, photo).into_bytes(),
            CardFile::AllHtml => html::card_with_all(card, paper, photo).into_bytes(),
            CardFile::Svg => svg::card(card, paper, photo).into_bytes(),
            CardFile::Pdf => pdf::card(card, paper, photo)?,
            CardFile::Csv => csv::card(card).into_bytes(),
            CardFile::Text => text::card(card).into_bytes(),
            CardFile::Dxf => dxf::drawing(card)?,
            CardFile::PlanSvg => {
                life_size::svg(&card.drawing.plan, &format!("{}: plan", card.name)).into_bytes()
            }
            CardFile::SideSvg => {
                life_size::svg(&card.drawing.side, &format!("{}: side view", card.name)).into_bytes()
            }
            CardFile::MarksCsv => marks::csv(card).into_bytes(),
            CardFile::MarksJson => marks::json(card).into_bytes(),
            CardFile::CablesCsv => marks::cables(card).into_bytes(),
        })
    }
}
