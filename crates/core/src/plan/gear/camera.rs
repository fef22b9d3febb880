//! Cameras and lenses.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::common::Common;
use crate::plan::Id;

/// A camera body, or a phone.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearCamera {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Width of the full sensor, mm.
    #[schema(minimum = 1.0, maximum = 70.0)]
    pub sensor_width_mm: f64,
    /// Height of the full sensor, mm.
    #[schema(minimum = 1.0, maximum = 70.0)]
    pub sensor_height_mm: f64,
    /// Linear crop in video beside the 16:9 one (1).
    #[serde(default = "one")]
    #[schema(minimum = 1.0, maximum = 4.0)]
    pub extra_crop: f64,
    /// Lowest ISO setting.
    #[schema(minimum = 25.0, maximum = 409_600.0)]
    pub iso_min: f64,
    /// Highest ISO setting.
    #[schema(minimum = 25.0, maximum = 409_600.0)]
    pub iso_max: f64,
    /// Follows a face by itself.
    #[serde(default)]
    pub face_tracking: bool,
    /// Width of the video it records, pixels (3840).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 320.0, maximum = 16_384.0)]
    pub video_width_px: Option<f64>,
    /// Data rate of the video, Mbit/s (100).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 10_000.0)]
    pub bitrate_mbit_s: Option<f64>,
    /// Longest clip before it stops by itself, from heat or by design, min.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 10_000.0)]
    pub clip_limit_min: Option<f64>,
    /// Energy of its battery, Wh.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 1000.0)]
    pub battery_wh: Option<f64>,
    /// What it draws while recording, W (5).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 500.0)]
    pub draw_w: Option<f64>,
    /// Width of a screen that turns to face the person, m; none if it has none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 0.4)]
    pub flip_screen_width_m: Option<f64>,
    /// What its picture profile holds above an 18 % grey card, stops (2.97).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 12.0)]
    pub headroom_stops: Option<f64>,
}

fn one() -> f64 {
    1.0
}

impl GearCamera {
    /// Active area for 16:9 video, width and height in mm: the largest such rectangle in the sensor, divided
    /// by the extra crop (16:9 raster of ITU-R BT.709, from memory).
    pub fn active_area_mm(&self) -> (f64, f64) {
        let aspect = 16.0 / 9.0;
        let (width, height) = if self.sensor_width_mm / self.sensor_height_mm < aspect {
            (self.sensor_width_mm, self.sensor_width_mm / aspect)
        } else {
            (self.sensor_height_mm * aspect, self.sensor_height_mm)
        };
        (width / self.extra_crop, height / self.extra_crop)
    }
}

/// A lens.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearLens {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Shortest focal length, mm, real.
    #[schema(minimum = 1.0, maximum = 600.0)]
    pub focal_min_mm: f64,
    /// Longest focal length, mm, real.
    #[schema(minimum = 1.0, maximum = 600.0)]
    pub focal_max_mm: f64,
    /// Widest f-number at the shortest focal length.
    #[schema(minimum = 0.7, maximum = 64.0)]
    pub f_number_at_min: f64,
    /// Widest f-number at the longest focal length.
    #[schema(minimum = 0.7, maximum = 64.0)]
    pub f_number_at_max: f64,
    /// Smallest opening; equal to the widest on a fixed aperture.
    #[schema(minimum = 0.7, maximum = 64.0)]
    pub f_number_limit: f64,
    /// Nearest focus from the sensor, m.
    #[schema(minimum = 0.01, maximum = 20.0)]
    pub nearest_focus_m: f64,
    /// Diameter of its filter thread, mm; none if it takes no filter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 10.0, maximum = 200.0)]
    pub filter_mm: Option<f64>,
    /// The body it is built into (a phone, a compact camera); none if it can be changed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub built_into: Option<Id>,
}

/// A lens whose longest focal length is no more than this times its shortest does not zoom. Fogon's own rule.
const ZOOM: f64 = 1.02;

impl GearLens {
    /// It zooms.
    pub fn zooms(&self) -> bool {
        self.zooms_in_from(self.focal_min_mm)
    }

    /// It can be zoomed further in from a focal length.
    pub fn zooms_in_from(&self, focal_length_mm: f64) -> bool {
        self.focal_max_mm > focal_length_mm * ZOOM
    }

    /// Widest f-number at a focal length, interpolated between the ends.
    pub fn widest_f_number(&self, focal_length_mm: f64) -> f64 {
        let span = self.focal_max_mm - self.focal_min_mm;
        let t = if span > 0.0 { ((focal_length_mm - self.focal_min_mm) / span).clamp(0.0, 1.0) } else { 0.0 };
        self.f_number_at_min + t * (self.f_number_at_max - self.f_number_at_min)
    }
}
