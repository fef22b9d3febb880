//! A second angle with its gear and projection.

use crate::geometry::{DVec3, Pinhole, bearing_of};
use crate::plan::{Angle, Gear, GearCamera, GearLens, Id};

/// Image distance v = f u / (u - f), mm; `None` where the subject lies inside the focal length.
pub fn image_distance_mm(focal_length_mm: f64, subject_distance_m: f64) -> Option<f64> {
    let u = subject_distance_m * 1000.0;
    (u > focal_length_mm).then(|| focal_length_mm * u / (u - focal_length_mm))
}

/// A second angle with its gear and projection.
#[derive(Debug, Clone, Copy)]
pub struct AngleAt<'a> {
    /// Its id in the layout.
    pub id: &'a Id,
    /// As placed.
    pub angle: &'a Angle,
    /// Its body.
    pub body: &'a GearCamera,
    /// Its lens.
    pub lens: &'a GearLens,
    /// From the camera point to what it is turned to, m; it is focused there.
    pub distance_m: f64,
    /// The projection.
    pub view: Pinhole,
}

/// An axis steeper than this looks down on a bench, degrees.
const OVERHEAD_DEG: f64 = 60.0;

impl<'a> AngleAt<'a> {
    /// `None` where an id names no such gear, or what it looks at lies inside its focal length. Straight down, the
    /// picture's upper edge lies where the person, who faces `turn_deg`, looks to.
    pub(super) fn of(
        id: &'a Id,
        angle: &'a Angle,
        body: &'a Gear,
        lens: &'a Gear,
        turn_deg: f64,
    ) -> Option<Self> {
        let (body, lens) = (body.camera()?, lens.lens()?);
        let position_m = DVec3::from(angle.position_m);
        let axis = DVec3::from(angle.aim_m) - position_m;
        let flat = axis.truncate().length();
        let bearing_deg = if flat < 1e-3 { turn_deg } else { bearing_of(axis) };
        let tilt_deg = axis.z.atan2(flat).to_degrees();
        let (width, height) = body.active_area_mm();
        let image = image_distance_mm(angle.focal_length_mm, axis.length())?;
        let view = Pinhole::new(position_m, bearing_deg, tilt_deg, width, height, image);
        Some(Self { id, angle, body, lens, distance_m: axis.length(), view })
    }

    /// It looks down on a bench.
    pub fn is_overhead(&self) -> bool {
        self.view.forward.z < -OVERHEAD_DEG.to_radians().sin()
    }
}
