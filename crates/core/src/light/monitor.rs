//! A bright screen in front is a lamp as well: what it gives the face.

use super::AREA_FORMULA;
use super::field::LightField;
use crate::photometry::Face;
use crate::plan::{ScreenType, Shape};
use crate::reading::{Origin, Quantity, Reading};

/// Luminance of a screen that shows white, cd/m2 (common practice, no source).
const WHITE_CD_M2: f64 = 300.0;

/// Light of the screen on the face, lx; none of a mirror, and of a script glass what its coating throws forward.
pub fn screen_lx(lit: &LightField<'_>) -> Option<f64> {
    let corner = lit.corner();
    let (gear, at) = corner.screen.filter(|(gear, _)| gear.screen != ScreenType::Mirror)?;
    let luminance = match gear.screen {
        ScreenType::Script => WHITE_CD_M2 * (1.0 - gear.script_transmittance()),
        _ => WHITE_CD_M2,
    };
    let face = Face::new(Shape::Rectangle, gear.width().0, gear.height_m(), at, corner.eyes_m, luminance);
    Some(face.illuminance_lx(corner.eyes_m, corner.to_lens()))
}

pub(super) fn readings(lit: &LightField<'_>) -> Option<Reading> {
    let lux = screen_lx(lit)?;
    let face_lx = lit.at_face().camera_lx;
    let reading = Reading::new(Quantity::LightMonitorSpillStops, (lux / face_lx).log2())
        .by("log2(light of the screen showing white / light of the lamps on the face)", AREA_FORMULA)
        .with("luminance of white", WHITE_CD_M2, "cd/m\u{b2}", Origin::Assumed)
        .with("on the face", lux, "lx", Origin::Computed)
        .with("lamps and room", face_lx, "lx", Origin::Computed)
        .within(1.0);
    reading.value.is_some().then_some(reading)
}
