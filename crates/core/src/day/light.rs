//! What the windows give the face at a time under a clear and under an overcast sky, and where the sun's beam lies.

use crate::corner::Corner;
use crate::daylight::outdoors::{Sky, SkyDome, level_lx};
use crate::daylight::{Air, Sun, Sunlight, sun_at};
use crate::exposure::{CALIBRATION, full_frame_iso, illuminance_needed_lx};
use crate::geometry::{DVec3, bearing_of, bearing_vector};
use crate::light::{LightField, windows};
use crate::plan::{Place, Plan, WindowSchool};

/// Noise that nobody minds, ISO of full frame: where the good band of a picture's noise ends. Fogon's own rule.
const GOOD_FULL_FRAME_ISO: f64 = 6400.0;
/// The table of clear skies: degrees between its places round the horizon and upwards, and the lowest of them.
const AZIMUTH_STEP_DEG: f64 = 15.0;
const ELEVATION_STEP_DEG: f64 = 3.0;
const LOWEST_DEG: f64 = -6.0;
/// A day of the year on which the sun is as far as in the mean.
const MEAN_DAY: u16 = 94;

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

/// A corner's daylight at any time.
pub struct DayLight<'a> {
    sunlight: Sunlight<'a>,
    place: &'a Place,
    eyes_m: DVec3,
    to_lens: DVec3,
    /// What the room throws back at the eyes of a lumen that comes in, lx.
    bounce_lx_per_lm: f64,
    /// Light of the lamps on the face, towards the lens, lx.
    pub lamps_lx: f64,
    /// Light that the picture needs without noise that is minded, lx.
    pub needed_lx: f64,
    clear_lx: Vec<Vec<f64>>,
    /// Of each lux that an overcast sky gives level ground.
    overcast_part: f64,
}

impl<'a> DayLight<'a> {
    /// A plan's corner of which the place and the direction of north are known; none else.
    pub fn of(plan: &Plan, corner: &'a Corner<'a>) -> Option<Self> {
        let place = corner.brief.place.as_ref()?;
        let sunlight = Sunlight::of(corner)?;
        let (bounce_lx_per_lm, lamps_lx) = by_the_room(plan)?;
        let camera = &corner.layout.camera;
        let (width_mm, height_mm) = corner.image_mm;
        let at_most = GOOD_FULL_FRAME_ISO / full_frame_iso(1.0, width_mm, height_mm);
        let iso = at_most.min(corner.body.iso_max).max(corner.body.iso_min);
        let needed = illuminance_needed_lx(camera.f_number, camera.shutter_s, iso, CALIBRATION);
        let mut found = Self {
            sunlight,
            place,
            eyes_m: corner.eyes_m,
            to_lens: corner.to_lens(),
            bounce_lx_per_lm,
            lamps_lx,
            needed_lx: needed * corner.glass_stops().exp2(),
            clear_lx: Vec::new(),
            overcast_part: 0.0,
        };
        let overcast = SkyDome::new(Sky::Overcast, DVec3::Z, MEAN_DAY);
        found.overcast_part = found.given_lx(&overcast, DVec3::Z) / overcast.on_ground_lx();
        found.clear_lx = found.clear_table();
        Some(found)
    }

    /// Where the sun lies.
    pub fn sunlight(&self) -> &Sunlight<'a> {
        &self.sunlight
    }

    /// The sun at a time, s since 1970 UTC.
    pub fn sun(&self, unix_s: i64) -> Option<Sun> {
        let time = unix_s as f64;
        sun_at(self.place.latitude_deg, self.place.longitude_deg, time, Air::usual(time))
    }

    /// Everything at a time, s since 1970 UTC.
    pub fn at(&self, unix_s: i64) -> Option<Moment> {
        let sun = self.sun(unix_s)?;
        let to_sun = self.sunlight.to_sun(sun);
        let comes_in = self.sunlight.comes_in(to_sun);
        Some(Moment {
            sun,
            clear_lx: self.under_clear_sky_lx(sun, to_sun),
            overcast_lx: self.overcast_part * level_lx(Sky::Overcast, sun.elevation_deg),
            on_face: comes_in && self.sunlight.on_face(to_sun),
            in_lens: comes_in && self.sunlight.in_lens(to_sun),
            behind: comes_in && self.sunlight.behind_the_person(to_sun),
        })
    }

    /// Light of the windows on the face under a sky, by way of the room too, lx.
    fn given_lx(&self, dome: &SkyDome, to_sun: DVec3) -> f64 {
        self.sunlight.window_lx(self.eyes_m, self.to_lens, dome)
            + self.bounce_lx_per_lm * self.sunlight.flux_lm(dome, to_sun)
    }

    /// Light on the face by the sun's height and bearing in the room: to sum over a clear sky is too dear for every minute of a year.
    fn clear_table(&self) -> Vec<Vec<f64>> {
        let rows = ((90.0 - LOWEST_DEG) / ELEVATION_STEP_DEG) as usize + 1;
        let columns = (360.0 / AZIMUTH_STEP_DEG) as usize;
        let of_row = |row: usize| {
            let (sin, cos) = (LOWEST_DEG + row as f64 * ELEVATION_STEP_DEG).to_radians().sin_cos();
            let lx = |column: usize| {
                let to_sun = bearing_vector(column as f64 * AZIMUTH_STEP_DEG) * cos + DVec3::Z * sin;
                self.given_lx(&SkyDome::new(Sky::Clear, to_sun, MEAN_DAY), to_sun)
            };
            (0..columns).map(lx).collect()
        };
        (0..rows).map(of_row).collect()
    }

    fn under_clear_sky_lx(&self, sun: Sun, to_sun: DVec3) -> f64 {
        if sun.elevation_deg <= LOWEST_DEG {
            return 0.0;
        }
        let row = (sun.elevation_deg - LOWEST_DEG) / ELEVATION_STEP_DEG;
        let column = bearing_of(to_sun) / AZIMUTH_STEP_DEG;
        let at = |row: usize, column: usize| {
            let row = &self.clear_lx[row.min(self.clear_lx.len() - 1)];
            row[column % row.len()]
        };
        let along = |row: usize| {
            let (left, part) = (column as usize, column.fract());
            at(row, left) * (1.0 - part) + at(row, left + 1) * part
        };
        let (low, part) = (row as usize, row.fract());
        along(low) * (1.0 - part) + along(low + 1) * part
    }
}

/// What the room throws back at the eyes of a lumen that comes in through the windows, lx, and the light of the lamps there, lx.
fn by_the_room(plan: &Plan) -> Option<(f64, f64)> {
    let mut brief = plan.brief.clone();
    brief.schools.window = WindowSchool::Key;
    let open = plan.with_brief(brief);
    let corner = Corner::of(&open)?;
    let field = LightField::of(&corner);
    let (windows_lx, straight_lx) = (field.windows_lx(), field.each_window_lx().sum::<f64>());
    let flux_lm: f64 = windows(&corner).map(|(_, face)| face.flux_lm()).sum();
    let bounce = if flux_lm > 0.0 { (windows_lx - straight_lx) / flux_lm } else { 0.0 };
    Some((bounce.max(0.0), (field.at_face().camera_lx - windows_lx).max(0.0)))
}
