//! The shot: framing, lens, focus and how the camera is set.

pub mod angles;
pub mod background;
pub mod behind;
pub mod chart;
pub mod cloth;
mod exposed;
pub mod fit;
mod focus;
mod framed;
pub mod framing;
pub mod lens;
pub mod perspective;
pub mod recording;
pub mod seeing;

use crate::corner::Corner;
use crate::plan::{Aperture, Brief, FrameRate, GearCamera, GearLens};
use crate::reading::Reading;

pub use framed::framed_height_m;
pub use framing::wanted_of;

/// The f-number of the aperture school on this camera and lens, on the dial.
pub fn f_number(brief: &Brief, body: &GearCamera, lens: &GearLens, focal_length_mm: f64) -> f64 {
    let widest = lens.widest_f_number(focal_length_mm);
    let wanted = match brief.schools.aperture {
        Aperture::WideOpen => widest,
        // f/4 holds an ordinary lean on full frame; smaller sensors reach the same depth at 4 / crop factor.
        Aperture::AboutF4 => 4.0 * body.active_area_mm().0 / 36.0,
    };
    crate::exposure::f_number_on_dial(wanted, widest, lens.f_number_limit)
}

/// The frame rate of the frame-rate school at this mains frequency.
pub fn frame_rate_hz(brief: &Brief, mains_hz: f64) -> f64 {
    match brief.schools.frame_rate {
        FrameRate::ByMains => mains_hz / 2.0,
        FrameRate::Fps24 => 24.0,
        FrameRate::Fps25 => 25.0,
        FrameRate::Fps30 => 30.0,
        FrameRate::Fps60 => 60.0,
    }
}

/// What the shot trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = framed::readings(corner);
    all.extend(perspective::readings(corner));
    all.extend(focus::readings(corner));
    all.extend(background::readings(corner));
    all.extend(behind::readings(corner));
    all.extend(exposed::readings(corner));
    all.extend(cloth::readings(corner));
    all.extend(recording::readings(corner));
    all.extend(seeing::readings(corner));
    all.extend(angles::readings(corner));
    all
}
