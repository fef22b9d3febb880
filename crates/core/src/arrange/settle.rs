//! Dials, ISO, neutral density and white balance of a layout whose places stand.

use super::bare::dial;
use crate::corner::{Corner, LightAt};
use crate::exposure::{CALIBRATION, iso_on_dial, white_balance_on_dial};
use crate::light::LightReport;
use crate::light::field::at_face;
use crate::photometry::sky::OVERCAST_K;
use crate::plan::{Brief, Gear, Id, Layout, Role};

/// A face is left so much too dark rather than in grain, stops: just within what is seen.
const DARKER_MOST_STOPS: f64 = 0.95;

/// Dials, ISO and white balance: the key at full, the back light level with it, ISO from the light at the face,
/// then dimming, then neutral density.
pub(crate) fn settle(brief: &Brief, layout: &mut Layout) {
    balance_back(brief, layout, |_| true);
    let measure = |layout: &Layout| {
        Corner::from_parts(brief, layout).map(|corner| {
            let camera = &corner.layout.camera;
            let lit = at_face(&corner).camera_lx;
            let glass = corner.glass_stops().exp2();
            let wanted = glass * CALIBRATION * camera.f_number.powi(2) / (camera.shutter_s * lit);
            (wanted, corner.body.iso_min, corner.body.iso_max)
        })
    };
    let Some((wanted, iso_min, iso_max)) = measure(layout) else { return };
    layout.camera.nd_stops = 0.0;
    if !wanted.is_finite() {
        return;
    }
    layout.camera.iso = iso_on_dial(before_grain(brief, layout, wanted), iso_min, iso_max);
    if wanted < iso_min {
        for light in layout.lights.values_mut() {
            // A board has no dial.
            if brief.gear.get(&light.gear).is_some_and(|g| g.light().is_some()) {
                light.dim = dial(light.dim * (wanted / iso_min).max(0.05));
            }
        }
        if let Some((left, ..)) = measure(layout) {
            let stops = (iso_min / left).log2();
            layout.camera.nd_stops = if stops > 0.3 { (stops * 3.0).round() / 3.0 } else { 0.0 };
        }
    }
    super::behind::balance(brief, layout, |_| true);
    white_balance(brief, layout);
}

/// The sensitivity that is wanted, or the highest before grain where that leaves the face less than a stop too dark: a little
/// dark is seen, grain is not forgiven.
fn before_grain(brief: &Brief, layout: &Layout, wanted: f64) -> f64 {
    let Some(corner) = Corner::from_parts(brief, layout) else { return wanted };
    let most = crate::light::power::iso_before_grain(&corner);
    if wanted > most && (wanted / most).log2() < DARKER_MOST_STOPS { most } else { wanted }
}

/// Lamps on the face and the camera to one colour: the key's; where windows give light to the sky's, as near as the lamps
/// go to it, and the camera to what comes of both. Without a key the camera goes by whatever lights the face.
fn white_balance(brief: &Brief, layout: &mut Layout) {
    let on_face = |layout: &Layout| {
        let corner = Corner::from_parts(brief, layout)?;
        let report = LightReport::of(&corner);
        report.mixture().map(|mixture| (mixture.cct_k, report.windows_lx() > 0.0))
    };
    let key = layout.lights.values().find(|l| l.role == Role::Key).and_then(|l| l.cct_k);
    // A key in a room without windows is the colour to go by: nothing has to be worked out for it.
    let lit = if brief.room.has_window() || key.is_none() { on_face(layout) } else { None };
    let by_windows = lit.is_some_and(|(_, windows)| windows);
    let sky = (by_windows && brief.windows_shine()).then_some(OVERCAST_K);
    let Some(cct_k) = sky.or(key).or(lit.map(|(cct_k, _)| cct_k)) else { return };
    let apart = |role: Role| matches!(role, Role::Background | Role::Practical);
    for light in layout.lights.values_mut().filter(|light| !apart(light.role)) {
        if let Some(lamp) = brief.gear.get(&light.gear).and_then(Gear::light) {
            light.cct_k = Some(cct_k.clamp(lamp.cct_min_k, lamp.cct_max_k));
        }
    }
    let mixed = if by_windows || key.is_none() { on_face(layout) } else { None };
    layout.camera.white_balance_k = mixed.map_or(cct_k, |(cct_k, _)| white_balance_on_dial(cct_k));
}

/// The back light as bright on the hair as the key on the face (-1 to +1 stop: common practice, no source).
pub(super) fn balance_back(brief: &Brief, layout: &mut Layout, asked: impl Fn(&Id) -> bool) {
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    let towards = |light: &LightAt<'_>| {
        light.face().illuminance_lx(corner.eyes_m, (light.position_m - corner.eyes_m).normalize_or_zero())
    };
    let Some(key) = corner.role(Role::Key).next().map(towards) else { return };
    for back in corner.role(Role::Back).filter(|l| asked(l.id)) {
        let full = towards(back) / back.light.dim.max(0.01);
        if let Some(light) = layout.lights.get_mut(back.id) {
            light.dim = dial(key / full.max(1.0));
        }
    }
}
