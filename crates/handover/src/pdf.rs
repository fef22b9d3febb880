//! Pages as a PDF (ISO 32000) with words that can be searched and copied, by the crates `krilla` and `krilla-svg`.

use std::sync::{Arc, OnceLock};

use fogon_core::card::Card;
use fogon_core::problem::{Code, Problem};
use krilla::Document;
use krilla::geom::Size;
use krilla::metadata::Metadata;
use krilla::page::PageSettings;
use krilla_svg::{SurfaceExt as _, SvgSettings};
use usvg::fontdb::Database;
use usvg::{Options, Tree};

use crate::picture::Photo;
use crate::sheet::{Page, page_svg};
use crate::typeface::{BOLD, REGULAR, has};
use crate::{Paper, pages, svg};

/// Points in a millimetre.
const PT_PER_MM: f64 = 72.0 / 25.4;

/// The card with all its further pages.
///
/// # Errors
/// A page that cannot be written; none is known.
pub fn card(card: &Card, paper: Paper, photo: Option<Photo<'_>>) -> Result<Vec<u8>, Problem> {
    let mut all = svg::pages(card, paper, photo.as_ref());
    all.extend(pages::further(card, paper));
    written(&card.name, &all, paper)
}

fn written(name: &str, pages: &[Page], paper: Paper) -> Result<Vec<u8>, Problem> {
    let failed = |error: String| Problem::new("pdf", error, "pages that can be written", Code::OutOfRange);
    let (width, height) = paper.size_mm();
    let [width, height] = [width, height].map(|mm| (mm * PT_PER_MM) as f32);
    let size = Size::from_wh(width, height).ok_or_else(|| failed("a page without a size".to_owned()))?;
    let texts: Vec<String> = pages.iter().map(|page| page_svg(page, paper, false)).collect();
    let options = Options { fontdb: fonts(texts.iter().all(|text| has(text))), ..Options::default() };
    let mut document = Document::new();
    document.set_metadata(Metadata::new().title(name.to_owned()).creator("Fogon".to_owned()));
    for text in &texts {
        let tree = Tree::from_str(text, &options).map_err(|error| failed(error.to_string()))?;
        let settings =
            PageSettings::from_wh(width, height).ok_or_else(|| failed("a page without a size".to_owned()))?;
        let mut page = document.start_page_with(settings);
        let mut surface = page.surface();
        surface
            .draw_svg(&tree, size, SvgSettings::default())
            .ok_or_else(|| failed("a drawing that cannot be drawn".to_owned()))?;
        surface.finish();
        page.finish();
    }
    document.finish().map_err(|error| failed(format!("{error:?}")))
}

/// The card's own typeface; letters that it does not have are taken from the machine's.
fn fonts(is_enough: bool) -> Arc<Database> {
    static OWN: OnceLock<Arc<Database>> = OnceLock::new();
    static ALL: OnceLock<Arc<Database>> = OnceLock::new();
    let with = |system: bool| {
        let mut fonts = Database::new();
        fonts.load_font_data(REGULAR.to_vec());
        fonts.load_font_data(BOLD.to_vec());
        fonts.set_sans_serif_family("Atkinson Hyperlegible Next");
        if system {
            fonts.load_system_fonts();
        }
        Arc::new(fonts)
    };
    if is_enough { OWN.get_or_init(|| with(false)).clone() } else { ALL.get_or_init(|| with(true)).clone() }
}
