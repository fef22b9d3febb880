//! What the windows give the face at a time under a clear and under an overcast sky, and where the sun's beam lies.

use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::LocalDay;
use super::hour::with_windows_open;
use super::placed::placed;
use crate::colour::{cct_duv, mixed_xy};
use crate::corner::Corner;
use crate::daylight::hue::{clear_sky_xy, sun_xy};
use crate::daylight::outdoors::{MEAN_DAY, Sky, SkyDome, level_lx};
use crate::daylight::{Sun, SunPath, Sunlight};
use crate::exposure::{CALIBRATION, full_frame_iso, illuminance_needed_lx};
use crate::geometry::{DVec3, bearing_of, bearing_vector};
use crate::light::{LightField, windows};
use crate::parallel::in_parallel;
use crate::photometry::sky::OVERCAST_K;
use crate::plan::{Place, Plan};
use crate::problem::Problem;

/// Noise that nobody minds, ISO of full frame: where the good band of a picture's noise ends. Fogon's own rule.
const GOOD_FULL_FRAME_ISO: f64 = 6400.0;
/// The table of clear skies: degrees between its places round the horizon and upwards, and the lowest of them.
const AZIMUTH_STEP_DEG: f64 = 15.0;
const ELEVATION_STEP_DEG: f64 = 3.0;
const LOWEST_DEG: f64 = -6.0;

/// One moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Moment {
    /// The sun.
    pub sun: Sun,
    /// Light of the windows on the face, towards the lens, lx, by way of the room too: under a clear sky, without the beam itself.
    pub clear_lx: f64,
    /// The same under an overcast sky.
    pub overcast_lx: f64,
    /// The sun shines into the eyes.
    pub on_face: bool,
    /// The sun shines into the lens.
    pub in_lens: bool,
    /// A patch of sun shows behind the person.
    pub behind: bool,
}

impl Moment {
    /// The sun shines where it should not.
    pub fn sun_disturbs(&self) -> bool {
        self.on_face || self.in_lens || self.behind
    }
}

/// What the windows do to the picture at a moment under one sky.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct WindowLight {
    /// Light on the face, towards the lens, lx, by way of the room too.
    pub face_lx: f64,
    /// Light on what the picture shows behind the person, the mean, lx; 0 where it shows nothing.
    pub background_lx: f64,
    /// From where most of it comes to the eyes: degrees from the lens, positive to camera right; none in the dark.
    pub azimuth_deg: Option<f64>,
    /// The brighter cheek over the other, each turned 45 degrees from the lens; none in the dark.
    pub ratio: Option<f64>,
    /// Colour temperature on the face, K; none in the dark.
    pub cct_k: Option<f64>,
}

/// A corner's daylight at any time.
pub struct DayLight<'a> {
    corner: &'a Corner<'a>,
    sunlight: Sunlight<'a>,
    place: &'a Place,
    /// What the room throws back of a lumen that comes in, lx: at the eyes, towards the lens, and behind the person.
    bounce_lx_per_lm: (f64, f64),
    /// Light of the lamps on the face, towards the lens, lx.
    pub lamps_lx: f64,
    /// Light that the picture needs without noise that is minded, lx.
    pub needed_lx: f64,
    /// Under clear skies, of sky and of sun, by the sun's height and bearing in the room.
    clear_lx: Vec<Vec<[f64; 2]>>,
    /// Of each lux that an overcast sky gives level ground.
    overcast_part: f64,
}

impl<'a> DayLight<'a> {
    /// A plan's corner.
    ///
    /// # Errors
    /// It is not known where on the earth it is or which way it looks.
    pub fn of(plan: &Plan, corner: &'a Corner<'a>) -> Result<Self, Problem> {
        let (place, sunlight) = placed(corner)?;
        let camera = &corner.layout.camera;
        let (width_mm, height_mm) = corner.image_mm;
        let at_most = GOOD_FULL_FRAME_ISO / full_frame_iso(1.0, width_mm, height_mm);
        let iso = at_most.min(corner.body.iso_max).max(corner.body.iso_min);
        let needed = illuminance_needed_lx(camera.f_number, camera.shutter_s, iso, CALIBRATION);
        let mut found = Self {
            corner,
            place,
            bounce_lx_per_lm: thrown_back(plan, &sunlight)?,
            sunlight,
            lamps_lx: lamps_lx(corner),
            needed_lx: needed * corner.glass_stops().exp2(),
            clear_lx: Vec::new(),
            overcast_part: 0.0,
        };
        let overcast = SkyDome::new(Sky::Overcast, DVec3::Z, MEAN_DAY);
        found.overcast_part = found.face_lx(&overcast) / overcast.on_ground_lx();
        found.clear_lx = found.clear_table();
        Ok(found)
    }

    /// The corner.
    pub fn corner(&self) -> &'a Corner<'a> {
        self.corner
    }

    /// Where the sun lies.
    pub fn sunlight(&self) -> &Sunlight<'a> {
        &self.sunlight
    }

    /// The sun through a local day.
    pub fn path(&self, day: &LocalDay) -> Option<SunPath> {
        SunPath::over((self.place.latitude_deg, self.place.longitude_deg), (day.start_s, day.end_s))
    }

    /// Everything under a sun.
    pub fn under(&self, sun: Sun) -> Moment {
        let to_sun = self.sunlight.to_sun(sun);
        let comes_in = self.sunlight.comes_in(to_sun);
        Moment {
            sun,
            clear_lx: self.clear_parts_lx(sun).iter().sum(),
            overcast_lx: self.overcast_part * level_lx(Sky::Overcast, sun.elevation_deg),
            on_face: comes_in && self.sunlight.on_face(to_sun),
            in_lens: comes_in && self.sunlight.in_lens(to_sun),
            behind: comes_in && self.sunlight.behind_the_person(to_sun),
        }
    }

    /// Colour temperature of a clear sky's light on the face, K; none in the dark.
    pub fn clear_cct_k(&self, sun: Sun) -> Option<f64> {
        let [of_sky, of_sun] = self.clear_parts_lx(sun);
        let mixed = mixed_xy([(clear_sky_xy(), of_sky), (sun_xy(sun.elevation_deg), of_sun)])?;
        cct_duv(mixed).map(|(cct_k, _)| cct_k)
    }

    /// What the windows do to the picture under a sun and a sky.
    pub fn windows(&self, sky: Sky, sun: Sun) -> WindowLight {
        let dome = SkyDome::new(sky, self.sunlight.to_sun(sun), MEAN_DAY);
        let (eyes_m, to_lens) = (self.corner.eyes_m, self.corner.to_lens());
        let flux_lm = self.sunlight.flux_lm(&dome);
        let (at_eyes, at_back) = self.bounce_lx_per_lm;
        let thrown_lx = at_eyes * flux_lm;
        let lx = |normal: DVec3| self.sunlight.window_lx(eyes_m, normal, &dome) + thrown_lx;
        let behind = self.sunlight.shown_behind();
        let straight: f64 =
            behind.iter().map(|(point, normal)| self.sunlight.window_lx(*point, *normal, &dome)).sum();
        let face_lx = lx(to_lens);
        let is_lit = face_lx > 0.01;
        let right = self.corner.view.right.with_z(0.0).normalize_or_zero();
        let cheeks =
            [right, -right].map(|side| lx((to_lens.with_z(0.0).normalize_or_zero() + side).normalize()));
        let [dim, bright] = [cheeks[0].min(cheeks[1]), cheeks[0].max(cheeks[1])];
        let from = self.sunlight.light_vector_lx(eyes_m, &dome);
        WindowLight {
            face_lx,
            background_lx: if behind.is_empty() {
                0.0
            } else {
                straight / behind.len() as f64 + at_back * flux_lm
            },
            azimuth_deg: (is_lit && from.length() > 0.0)
                .then(|| self.corner.light_angles_deg(eyes_m + from.normalize()).0),
            ratio: (is_lit && dim > 0.0).then_some(bright / dim),
            cct_k: match sky {
                Sky::Clear => self.clear_cct_k(sun).filter(|_| is_lit),
                Sky::Overcast => is_lit.then_some(OVERCAST_K),
            },
        }
    }

    /// Light of the windows on the face under a sky, by way of the room too, lx.
    fn face_lx(&self, dome: &SkyDome) -> f64 {
        self.sunlight.window_lx(self.corner.eyes_m, self.corner.to_lens(), dome)
            + self.bounce_lx_per_lm.0 * self.sunlight.flux_lm(dome)
    }

    /// Light on the face by the sun's height and bearing in the room: to sum over a clear sky is too dear for every minute of a year.
    fn clear_table(&self) -> Vec<Vec<[f64; 2]>> {
        let rows = ((90.0 - LOWEST_DEG) / ELEVATION_STEP_DEG) as usize + 1;
        let columns = (360.0 / AZIMUTH_STEP_DEG) as usize;
        let of_row = |row: &usize| {
            let (sin, cos) = (LOWEST_DEG + *row as f64 * ELEVATION_STEP_DEG).to_radians().sin_cos();
            let lx = |column: usize| {
                let to_sun = bearing_vector(column as f64 * AZIMUTH_STEP_DEG) * cos + DVec3::Z * sin;
                let dome = SkyDome::new(Sky::Clear, to_sun, MEAN_DAY);
                let of_sky = self.face_lx(&dome.without_sun());
                [of_sky, if dome.direct_lx() > 0.0 { self.face_lx(&dome) - of_sky } else { 0.0 }]
            };
            (0..columns).map(lx).collect()
        };
        in_parallel(&(0..rows).collect::<Vec<_>>(), of_row)
    }

    /// Of a clear sky and of its sun, lx.
    fn clear_parts_lx(&self, sun: Sun) -> [f64; 2] {
        if sun.elevation_deg <= LOWEST_DEG {
            return [0.0; 2];
        }
        let row = (sun.elevation_deg - LOWEST_DEG) / ELEVATION_STEP_DEG;
        let column = bearing_of(self.sunlight.to_sun(sun)) / AZIMUTH_STEP_DEG;
        let at = |row: usize, column: usize| {
            let row = &self.clear_lx[row.min(self.clear_lx.len() - 1)];
            row[column % row.len()]
        };
        let mixed = |a: [f64; 2], b: [f64; 2], part: f64| [0, 1].map(|i| a[i] * (1.0 - part) + b[i] * part);
        let along = |row: usize| {
            let left = column as usize;
            mixed(at(row, left), at(row, left + 1), column.fract())
        };
        let low = row as usize;
        mixed(along(low), along(low + 1), row.fract())
    }
}

/// What the room throws back of a lumen that comes in through the windows, lx: at the eyes, and behind the person.
fn thrown_back(plan: &Plan, sunlight: &Sunlight<'_>) -> Result<(f64, f64), Problem> {
    let mut open = with_windows_open(plan);
    open.layout.lights.clear();
    let corner = Corner::resolved(&open)?;
    let field = LightField::of(&corner);
    let flux_lm: f64 = windows(&corner).map(|(_, face)| face.flux_lm()).sum();
    if flux_lm <= 0.0 {
        return Ok((0.0, 0.0));
    }
    let behind = sunlight.shown_behind();
    let at_back: f64 = behind.iter().map(|(point, normal)| field.bounce_lx(*point, *normal)).sum();
    let at_eyes = field.bounce_lx(corner.eyes_m, corner.to_lens());
    Ok((at_eyes / flux_lm, at_back / behind.len().max(1) as f64 / flux_lm))
}

/// Light of the lamps on the face, lx; the ceiling light is none.
fn lamps_lx(corner: &Corner<'_>) -> f64 {
    let field = LightField::of(corner);
    (field.at_face().camera_lx - field.windows_lx()).max(0.0)
}
