//! The room.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{BandValues, usual_speed};
use crate::calc::{Calculate, Side};
use crate::geometry::DVec3;
use crate::material::{BANDS_HZ, Bands};
use crate::plan::Point3;
use crate::problem::{Code, Problem};
use crate::sound::decay::{eyring_s, sabine_constant, sabine_s};
use crate::sound::images::{Arrival, first_arrivals};
use crate::sound::modes::{Mode, count_estimate, modes, schroeder_frequency_hz};
use crate::sound::porous;

/// No more modes than this are listed.
const MODES: usize = 100_000;
/// Source and microphone stand so far apart at least, m.
const APART_M: f64 = 0.05;

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct Reverberation {
    #[schema(min_items = 3, max_items = 3)]
    dimensions_m: Vec<Side>,
    #[schema(min_items = 1)]
    surfaces: Vec<Surface>,
}

#[derive(Deserialize, ToSchema)]
struct Surface {
    #[schema(exclusive_minimum = 0.0, maximum = 15_000.0)]
    area_m2: f64,
    absorption: BandValues,
}

#[derive(Serialize)]
pub(in crate::calc) struct Times {
    sabine_s: BandValues,
    eyring_s: BandValues,
}

impl Calculate for Reverberation {
    const NAME: &'static str = "reverberation";
    const FORMULA: &'static str = "K = 24 ln 10 / 343; Sabine K V / A; Eyring K V / (-S ln(1 - A/S)); V = w d h, S = sum of areas, A = sum of area x absorption";
    const SOURCE: &'static str = "Sabine 1922; Eyring 1930; ISO 3382-2";
    type Output = Times;

    fn calculate(self) -> Result<Times, Problem> {
        let volume: f64 = self.dimensions_m.iter().map(|s| s.0).product();
        let surface: f64 = self.surfaces.iter().map(|s| s.area_m2).sum();
        let mut absorption = [0.0; 6];
        for part in &self.surfaces {
            for (sum, alpha) in absorption.iter_mut().zip(Bands::from(&part.absorption)) {
                *sum += part.area_m2 * alpha;
            }
        }
        for (band, m2) in BANDS_HZ.iter().zip(absorption) {
            let mean = m2 / surface;
            // All parts at 1 can sum to a hair below it: such a mean counts as met (1e-9 relative).
            if mean <= 0.0 || mean >= 1.0 - 1e-9 {
                let accepted = "a mean absorption above 0 and below 1 in this band";
                return Err(Problem::new(
                    format!("surfaces.absorption.{band}"),
                    mean,
                    accepted,
                    Code::OutOfRange,
                ));
            }
        }
        Ok(Times {
            sabine_s: absorption.map(|m2| sabine_s(volume, m2, 0.0)).into(),
            eyring_s: absorption.map(|m2| eyring_s(volume, surface, m2, 0.0)).into(),
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct RoomModes {
    #[schema(min_items = 3, max_items = 3)]
    dimensions_m: Vec<Side>,
    #[schema(exclusive_minimum = 0.0, maximum = 100_000.0)]
    up_to_hz: f64,
    #[serde(default = "usual_speed")]
    #[schema(minimum = 300.0, maximum = 400.0)]
    speed_m_s: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Modes {
    modes: Vec<Mode>,
}

impl Calculate for RoomModes {
    const NAME: &'static str = "room-modes";
    const FORMULA: &'static str =
        "c/2 sqrt((a/w)^2 + (b/d)^2 + (c/h)^2), lowest first, at 1e-9 Hz by their numbers";
    const SOURCE: &'static str = "a box with rigid walls (Kuttruff, Room Acoustics)";
    type Output = Modes;

    fn calculate(self) -> Result<Modes, Problem> {
        let sides = [self.dimensions_m[0].0, self.dimensions_m[1].0, self.dimensions_m[2].0];
        let refused = || {
            let accepted = "a frequency below which the room has at most 100000 modes";
            Err(Problem::new("up_to_hz", self.up_to_hz, accepted, Code::OutOfRange))
        };
        // Far too many are not even tried.
        if count_estimate(sides, self.up_to_hz, self.speed_m_s) > 1.5 * MODES as f64 {
            return refused();
        }
        let modes = modes(sides, self.up_to_hz, self.speed_m_s);
        if modes.len() > MODES { refused() } else { Ok(Modes { modes }) }
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct SchroederFrequency {
    #[schema(minimum = 1.0, maximum = 20_000.0)]
    volume_m3: f64,
    #[schema(exclusive_minimum = 0.0, maximum = 100.0)]
    rt60_s: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Frequency {
    frequency_hz: f64,
}

impl Calculate for SchroederFrequency {
    const NAME: &'static str = "schroeder-frequency";
    const FORMULA: &'static str = "2000 sqrt(T / V)";
    const SOURCE: &'static str = "Schroeder 1996 (from memory)";
    type Output = Frequency;

    fn calculate(self) -> Result<Frequency, Problem> {
        Ok(Frequency { frequency_hz: schroeder_frequency_hz(self.volume_m3, self.rt60_s) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct AbsorptionNeeded {
    #[schema(minimum = 1.0, maximum = 20_000.0)]
    volume_m3: f64,
    #[schema(minimum = 0.0, maximum = 100_000.0)]
    present_absorption_m2: f64,
    #[schema(exclusive_minimum = 0.0, maximum = 100.0)]
    target_rt60_s: f64,
    #[serde(default = "usual_speed")]
    #[schema(minimum = 300.0, maximum = 400.0)]
    speed_m_s: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct MissingAbsorption {
    missing_absorption_m2: f64,
}

impl Calculate for AbsorptionNeeded {
    const NAME: &'static str = "absorption-needed";
    const FORMULA: &'static str = "max(0, K V / T - A), K = 24 ln 10 / c";
    const SOURCE: &'static str = "Sabine 1922, solved for A";
    type Output = MissingAbsorption;

    fn calculate(self) -> Result<MissingAbsorption, Problem> {
        let wanted = sabine_constant(self.speed_m_s) * self.volume_m3 / self.target_rt60_s;
        if !wanted.is_finite() {
            let accepted = "a time that is not vanishing";
            return Err(Problem::new("target_rt60_s", self.target_rt60_s, accepted, Code::OutOfRange));
        }
        Ok(MissingAbsorption { missing_absorption_m2: (wanted - self.present_absorption_m2).max(0.0) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct PorousAbsorber {
    #[schema(minimum = 1000.0, maximum = 100_000.0)]
    flow_resistivity_pa_s_m2: f64,
    #[schema(minimum = 0.001, maximum = 2.0)]
    thickness_m: f64,
    #[schema(minimum = 0.0, maximum = 5.0)]
    air_gap_m: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Absorbed {
    absorption: BandValues,
}

impl Calculate for PorousAbsorber {
    const NAME: &'static str = "porous-absorber";
    const FORMULA: &'static str = "Zc = 1 + 5.50 X^-0.632 - j 8.43 X^-0.632, k = w/c (1 + 7.81 X^-0.618 - j 11.41 X^-0.618), X = 1000 f / sigma; hard backing behind the gap; mean over sin^2 of the angle";
    const SOURCE: &'static str = "Miki 1990; Paris 1928, locally reacting (from memory)";
    type Output = Absorbed;

    fn calculate(self) -> Result<Absorbed, Problem> {
        let absorption = porous::absorption(
            self.flow_resistivity_pa_s_m2,
            self.thickness_m,
            self.air_gap_m,
            usual_speed(),
        );
        Ok(Absorbed { absorption: absorption.into() })
    }
}

/// A side of a box with images, m.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[schema(minimum = 1.0, maximum = 30.0)]
struct BoxSide(f64);

/// Absorption of the six sides of a box.
#[derive(Deserialize, ToSchema)]
struct BoxAbsorption {
    #[schema(minimum = 0.0, maximum = 1.0)]
    x0: f64,
    #[schema(minimum = 0.0, maximum = 1.0)]
    x1: f64,
    #[schema(minimum = 0.0, maximum = 1.0)]
    y0: f64,
    #[schema(minimum = 0.0, maximum = 1.0)]
    y1: f64,
    #[schema(minimum = 0.0, maximum = 1.0)]
    floor: f64,
    #[schema(minimum = 0.0, maximum = 1.0)]
    ceiling: f64,
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct ImageSource {
    #[schema(min_items = 3, max_items = 3)]
    dimensions_m: Vec<BoxSide>,
    absorption: BoxAbsorption,
    source_m: Point3,
    microphone_m: Point3,
    #[schema(minimum = 1, maximum = 100_000)]
    count: u32,
    #[serde(default = "usual_speed")]
    #[schema(minimum = 300.0, maximum = 400.0)]
    speed_m_s: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Arrivals {
    arrivals: Vec<Arrival>,
}

impl Calculate for ImageSource {
    const NAME: &'static str = "image-source";
    const FORMULA: &'static str = "images (1 - 2q) s + 2 k L, |k - q| reflections at the near wall and |k| at the far one; product of sqrt(1 - alpha) over 4 pi d at d / c";
    const SOURCE: &'static str = "Allen and Berkley 1979 (from memory)";
    type Output = Arrivals;

    fn calculate(self) -> Result<Arrivals, Problem> {
        let sides = [self.dimensions_m[0].0, self.dimensions_m[1].0, self.dimensions_m[2].0];
        let (source, microphone) = (DVec3::from(self.source_m), DVec3::from(self.microphone_m));
        for (field, point) in [("source_m", source), ("microphone_m", microphone)] {
            for axis in 0..3 {
                if !(point[axis] > 0.0 && point[axis] < sides[axis]) {
                    let accepted = format!("a point inside the room, above 0 and below {}", sides[axis]);
                    return Err(Problem::new(
                        format!("{field}[{axis}]"),
                        point[axis],
                        accepted,
                        Code::OutOfRange,
                    ));
                }
            }
        }
        let apart = (source - microphone).length();
        if apart < APART_M * (1.0 - 1e-9) {
            let accepted = "a place 0.05 m or more from the source";
            let value = format!("{apart} m from it");
            return Err(Problem::new("microphone_m", value, accepted, Code::OutOfRange));
        }
        let a = &self.absorption;
        let absorption = [a.x0, a.x1, a.y0, a.y1, a.floor, a.ceiling];
        let count = self.count as usize;
        let arrivals = first_arrivals(sides, &absorption, source, microphone, count, self.speed_m_s);
        Ok(Arrivals { arrivals })
    }
}

crate::shape!(Reverberation, RoomModes, SchroederFrequency, AbsorptionNeeded, PorousAbsorber, ImageSource);
