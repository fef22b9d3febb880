//! Lamps, screens and windows in the glasses, as they stand in this corner.

use super::apparent::{Apparent, apparent, windows};
use super::glasses::{Glasses, Seen};
use crate::corner::{Corner, LightAt, Source};
use crate::plan::{GearMonitor, ScreenType, ThingId};

/// Something bright mirrored in glasses.
pub struct Mirrored<'a> {
    /// The lamp, the window or the screen.
    pub id: ThingId,
    /// The lamp, if it is one.
    pub light: Option<&'a LightAt<'a>>,
    /// Part of the lens that shows it.
    pub part: f64,
    /// Elevation from which on it is clear at this azimuth, degrees.
    pub clear_elevation_deg: Option<f64>,
}

/// Lamps, a screen that is watched and windows that shine as the glasses meet them, where glasses are worn; what is behind the
/// head is left out.
pub fn mirrored<'a>(corner: &'a Corner<'a>) -> Vec<Mirrored<'a>> {
    if !corner.brief.person.glasses {
        return Vec::new();
    }
    let glasses = Glasses::default();
    let (_, lens_up_deg) = corner.light_angles_deg(corner.view.position_m);
    let lamps = corner.lights.iter().filter(|l| matches!(l.source, Source::Lamp(_)));
    let lamps = lamps.map(|light| (ThingId::Light(light.id.clone()), Some(light), seen(corner, light)));
    lamps
        .chain(screen(corner).map(|seen| (ThingId::Screen, None, seen)))
        .chain(
            windows(corner)
                .map(|(id, window)| (ThingId::Opening(id.clone()), None, as_seen(corner, &window))),
        )
        .filter(|(_, _, seen)| seen.azimuth_deg.abs() < 90.0)
        .map(|(id, light, seen)| {
            let (level, camera_m) = level(corner, seen);
            let part = glasses.glare_fraction(&level, camera_m);
            let clear_elevation_deg = if part > 0.0 {
                glasses.highest_glare_deg(&level, camera_m).map(|e| e + 0.1 - lens_up_deg)
            } else {
                None
            };
            Mirrored { id, light, part, clear_elevation_deg }
        })
        .collect()
}

/// The screen that is watched, as a disc of its area; neither a mirror nor a script glass, which the lens looks through.
fn screen(corner: &Corner<'_>) -> Option<Seen> {
    let shines = |gear: &GearMonitor| !matches!(gear.screen, ScreenType::Mirror | ScreenType::Script);
    let (gear, middle_m) = corner.screen.filter(|(gear, _)| shines(gear))?;
    let diameter_m = 2.0 * (gear.width().0 * gear.height_m() / std::f64::consts::PI).sqrt();
    Some(as_seen(corner, &Apparent { middle_m, diameter_m, bounced: false }))
}

/// Part of a lens of the glasses that shows a lamp; 0 of one behind the head.
pub fn glare(corner: &Corner<'_>, light: &LightAt<'_>) -> f64 {
    let seen = seen(corner, light);
    if seen.azimuth_deg.abs() >= 90.0 {
        return 0.0;
    }
    let (level, camera_m) = level(corner, seen);
    Glasses::default().glare_fraction(&level, camera_m)
}

/// A source as seen with the lens taken as level with the eyes: between both it mirrors as from half the lens's height
/// lower; and how far the camera is, m.
fn level(corner: &Corner<'_>, seen: Seen) -> (Seen, f64) {
    let (_, lens_up_deg) = corner.light_angles_deg(corner.view.position_m);
    let level = Seen { elevation_deg: seen.elevation_deg + lens_up_deg, ..seen };
    (level, (corner.view.position_m - corner.eyes_m).length())
}

fn seen(corner: &Corner<'_>, light: &LightAt<'_>) -> Seen {
    as_seen(corner, &apparent(corner, light))
}

/// A source as the glasses meet it.
pub(super) fn as_seen(corner: &Corner<'_>, source: &Apparent) -> Seen {
    let (azimuth_deg, elevation_deg) = corner.light_angles_deg(source.middle_m);
    let (diameter_m, distance_m) = (source.diameter_m, source.distance_m(corner));
    Seen { azimuth_deg, elevation_deg, diameter_m, distance_m }
}
