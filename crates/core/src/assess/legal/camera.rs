//! What a camera needs: room behind it, focus, and settings that it has.

use super::{Breach, Rules};
use crate::corner::{image_distance_mm, is_blocked};
use crate::finding::Rule;
use crate::geometry::beyond_m;
use crate::plan::ThingId;
use crate::units::{Amount, aperture};

impl Rules<'_> {
    pub(super) fn camera(&self, found: &mut Vec<Breach>) {
        let corner = self.corner;
        let camera = &corner.layout.camera;
        let sensor = corner.image_distance_mm / 1000.0;
        let needed = corner.behind_sensor_m();
        let behind = corner.view.position_m - corner.view.forward * (sensor + needed);
        // Plugs, hands and screen stay under a slope as well, and in sight of the camera.
        let over = behind.z - corner.brief.room.ceiling_m(behind.truncate());
        let mut room = -beyond_m(&corner.floor_m, behind.truncate()).max(over);
        if is_blocked(&self.bounds, corner.view.position_m, behind) {
            room = room.min(-needed);
        }
        let mut say = |lacking: Amount, sentence: String, frees: &str| {
            found.push(Breach::new(Rule::Camera, ThingId::Camera, lacking, sentence, frees));
        };
        if room < -1e-6 {
            say(
                Amount::Length(-room),
                format!(
                    "The camera lacks {} of the {} it needs behind the sensor.",
                    self.gap(-room),
                    self.gap(needed)
                ),
                "Bring it forward, or use a shorter focal length.",
            );
        }
        let reach = sensor + camera.focus_distance_m;
        if reach < corner.lens.nearest_focus_m - 1e-9 {
            let lacking = corner.lens.nearest_focus_m - reach;
            say(
                Amount::Length(lacking),
                format!(
                    "The lens focuses no nearer than {} from the sensor; the eyes are {} too near.",
                    corner.brief.units.length(corner.lens.nearest_focus_m),
                    self.gap(lacking)
                ),
                "Move back, or use a lens that focuses nearer.",
            );
        }
        let focal = camera.focal_length_mm;
        if focal < corner.lens.focal_min_mm - 1e-6 || focal > corner.lens.focal_max_mm + 1e-6 {
            say(
                Amount::Unmeasured,
                format!(
                    "{focal:.0} mm is not on this lens, which goes from {} to {} mm.",
                    corner.lens.focal_min_mm, corner.lens.focal_max_mm
                ),
                "Choose a focal length that the lens has.",
            );
        }
        let widest = corner.lens.widest_f_number(focal);
        if camera.f_number < widest - 0.05 || camera.f_number > corner.lens.f_number_limit + 0.05 {
            say(
                Amount::Unmeasured,
                format!(
                    "{} is not on this lens, which goes from {} to {}.",
                    aperture(camera.f_number),
                    aperture(widest),
                    aperture(corner.lens.f_number_limit)
                ),
                "Choose an aperture that the lens has.",
            );
        }
        if camera.iso < corner.body.iso_min - 1e-6 || camera.iso > corner.body.iso_max + 1e-6 {
            say(
                Amount::Unmeasured,
                format!(
                    "ISO {} is not on this camera, which goes from {} to {}.",
                    camera.iso, corner.body.iso_min, corner.body.iso_max
                ),
                "Choose an ISO that the camera has.",
            );
        }
    }

    /// Nearest focus of the second angles' lenses.
    pub(super) fn angles(&self, found: &mut Vec<Breach>) {
        let corner = self.corner;
        for angle in &corner.angles {
            let v = image_distance_mm(angle.angle.focal_length_mm, angle.distance_m);
            let lacking = angle.lens.nearest_focus_m - angle.distance_m - v.unwrap_or(0.0) / 1000.0;
            if lacking > 1e-9 {
                found.push(Breach::new(
                    Rule::Camera,
                    ThingId::Angle(angle.id.clone()),
                    Amount::Length(lacking),
                    format!(
                        "The lens of the {} focuses no nearer than {} from the sensor: {} too far.",
                        angle.id.words(),
                        corner.brief.units.length(angle.lens.nearest_focus_m),
                        self.gap(lacking)
                    ),
                    "Move it back, or use a lens that focuses nearer.",
                ));
            }
        }
    }
}
