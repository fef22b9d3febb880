//! First reflections as ways of the sound, with what directions, air and the surface leave of each; and as they are told.

use serde::Serialize;
use utoipa::ToSchema;

use super::absorption::{Absorption, surface_words};
use super::impulse::{self, Ends, Way};
use super::reflections::{self, Reflection};
use crate::corner::Corner;
use crate::geometry::{DVec3, bearing_vector};
use crate::material::Bands;
use crate::plan::{GearMicrophone, Point3};

/// A first reflection.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ReflectionSeen {
    /// The surface by name, or the furniture's id.
    pub surface: String,
    /// In words.
    pub words: String,
    /// Where it is thrown back, m.
    pub point_m: Point3,
    /// After the direct sound, ms.
    pub delay_ms: f64,
    /// Against the direct sound, dB.
    pub level_db: f64,
}

pub(super) fn ends_of(corner: &Corner<'_>, gear: &GearMicrophone, capsule: DVec3) -> Ends {
    Ends {
        facing: bearing_vector(corner.layout.seat.bearing_deg),
        aim: (corner.aimed_at_m(gear) - capsule).normalize_or(DVec3::Z),
        pattern_a: gear.pattern_a,
        tube_m: gear.tube_m,
    }
}

/// The direct way and those of one reflection, each with what directions, air and the place of the reflection leave of it.
pub(super) fn single_ways(
    corner: &Corner<'_>,
    absorption: &Absorption,
    ends: &Ends,
    capsule: DVec3,
) -> (Way, Vec<Way>, Vec<Reflection>) {
    let mouth = corner.mouth_m;
    let direct_m = (capsule - mouth).length().max(0.02);
    let to_mouth = (mouth - capsule).normalize_or(DVec3::Z);
    let amplitude = times(impulse::spread(direct_m), ends.factors(-to_mouth, to_mouth));
    let direct = Way { length_m: direct_m, amplitude };
    let found = reflections::first(corner);
    let single = found
        .iter()
        .map(|reflection| {
            let kept = impulse::reflected(surface_at(corner, absorption, reflection));
            let leaves = (reflection.point_m - mouth).normalize_or(DVec3::Z);
            let comes_from = (reflection.point_m - capsule).normalize_or(DVec3::Z);
            let amplitude =
                times(times(impulse::spread(reflection.path_m), kept), ends.factors(leaves, comes_from));
            Way { length_m: reflection.path_m, amplitude }
        })
        .collect();
    (direct, single, found)
}

/// First reflections with their delays and levels, for the page.
pub fn reflections_seen(corner: &Corner<'_>, absorption: &Absorption) -> Vec<ReflectionSeen> {
    let (gear, capsule) = corner.heard_by();
    let (direct, single, found) = single_ways(corner, absorption, &ends_of(corner, gear, capsule), capsule);
    as_seen(corner, &direct, &single, &found)
}

pub(super) fn as_seen(
    corner: &Corner<'_>,
    direct: &Way,
    single: &[Way],
    found: &[Reflection],
) -> Vec<ReflectionSeen> {
    let of = |(reflection, way): (&Reflection, &Way)| ReflectionSeen {
        surface: reflection.surface.clone(),
        words: if reflection.is_furniture {
            reflection.surface.replace('-', " ")
        } else {
            surface_words(&corner.brief.room, &reflection.surface)
        },
        point_m: reflection.point_m.into(),
        delay_ms: reflection.delay_s(direct.length_m) * 1000.0,
        level_db: mid_db(&way.amplitude) - mid_db(&direct.amplitude),
    };
    found.iter().zip(single).map(of).collect()
}

fn times(a: Bands, b: Bands) -> Bands {
    std::array::from_fn(|band| a[band] * b[band])
}

fn mid_db(amplitude: &Bands) -> f64 {
    10.0 * (amplitude[2..5].iter().map(|a| a * a).sum::<f64>() / 3.0).log10()
}

/// Absorption where a reflection falls: what hangs there, else the window or door, else the surface round it.
fn surface_at(corner: &Corner<'_>, absorption: &Absorption, reflection: &Reflection) -> Bands {
    if reflection.is_furniture {
        // A bare table top throws back 0.95 of the pressure (common practice, no source).
        return [1.0 - 0.95f64.powi(2); 6];
    }
    absorption.at(corner, &reflection.surface, reflection.point_m)
}
