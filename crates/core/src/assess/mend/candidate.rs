//! A change that may mend a finding: what it says it does, and the layout it leads to.

use crate::corner::Corner;
use crate::exposure::{CALIBRATION, iso_on_dial};
use crate::plan::Layout;

/// Candidates judged for one finding; the first that holds is offered.
pub(super) const JUDGED: usize = 40;

/// What a candidate says it does, and the layout it leads to.
pub(super) type Candidate = (String, Layout);

pub(super) type Candidates<'a> = Box<dyn Iterator<Item = Candidate> + 'a>;

pub(super) fn none<'a>() -> Candidates<'a> {
    Box::new(std::iter::empty())
}

pub(super) fn one(label: String, layout: Layout) -> Candidates<'static> {
    Box::new(std::iter::once((label, layout)))
}

/// With the exposure made good again by ISO.
pub(crate) fn with_iso(before: &Corner<'_>, mut layout: Layout) -> Layout {
    let brief = before.brief.after_change(before.layout, &layout);
    let iso = Corner::from_parts(&brief, &layout).map(|corner| {
        let camera = &corner.layout.camera;
        let computed = crate::light::field::at_face(&corner);
        let (lit, _) = crate::light::field::towards_lens_lx(&corner, &computed);
        let stops = camera.nd_stops + corner.glass_stops();
        let wanted = CALIBRATION * camera.f_number.powi(2) * stops.exp2() / (camera.shutter_s * lit);
        iso_on_dial(wanted, corner.body.iso_min, corner.body.iso_max)
    });
    if let Some(iso) = iso.filter(|iso| iso.is_finite()) {
        layout.camera.iso = iso;
    }
    layout
}
