//! From light to picture: exposure in photometric units, white balance, tone curve. Nothing is set by itself.
use fogon_core::colour::planckian_xy;
use fogon_core::corner::Corner;
use fogon_core::exposure::{CALIBRATION, SATURATION_STOPS};
use glam::{Mat3, Vec3};
use rayon::prelude::*;

use crate::denoise::Smoothed;
use crate::scene::GROUPS;
use crate::stage::lamps::{Group, rgb_of};

/// Signals up to here are shown as they are; above, the curve bends to white.
const STRAIGHT_TO: f32 = 0.6;

/// How a camera makes a signal of light.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Exposure {
    /// Linear signal for each cd/m2: 1 for a white card metered at its own plane.
    pub signal_per_cd_m2: f32,
    /// Where the recording clips, linear signal.
    pub clips_at: f32,
    /// White balance as set, K.
    pub white_balance_k: f64,
}

impl Exposure {
    /// The exposure of a corner's camera as it is set: pi t S 2^-nd / (C N^2), less what a script glass keeps.
    pub fn of(corner: &Corner<'_>) -> Self {
        let camera = &corner.layout.camera;
        let stops = camera.nd_stops + corner.glass_stops();
        let signal = std::f64::consts::PI * camera.shutter_s * camera.iso
            / (CALIBRATION * camera.f_number * camera.f_number)
            * (-stops).exp2();
        let headroom = corner.body.headroom_stops.unwrap_or(SATURATION_STOPS);
        Self {
            signal_per_cd_m2: signal as f32,
            clips_at: (0.18 * headroom.exp2()) as f32,
            white_balance_k: camera.white_balance_k,
        }
    }
}

/// What each group is worth: its light, straight from its lamp, as linear signal in red, green and blue under the white balance.
pub fn worth(groups: &[Group], exposure: &Exposure) -> [Vec3; GROUPS] {
    let mut all = [Vec3::ZERO; GROUPS];
    for (worth, group) in all.iter_mut().zip(groups) {
        let adapted = balanced(group.xy, exposure.white_balance_k);
        *worth = adapted * (group.dial * exposure.signal_per_cd_m2);
    }
    all
}

/// The luminance of each group's light now, over that at which its picture was taken; for weighing groups against each other.
pub fn dials(groups: &[Group]) -> [f32; GROUPS] {
    let mut all = [0.0; GROUPS];
    all.iter_mut().zip(groups).for_each(|(dial, group)| *dial = group.dial);
    all
}

/// A chromaticity as the camera sees it that takes light of a temperature for white (Bradford's cone responses, from memory; von
/// Kries), linear red, green and blue of luminance 1 before.
pub fn balanced([x, y]: [f64; 2], white_balance_k: f64) -> Vec3 {
    // Columns as glam wants them.
    let cones =
        Mat3::from_cols_array(&[0.8951, -0.7502, 0.0389, 0.2664, 1.7135, -0.0685, -0.1614, 0.0367, 1.0296]);
    let xyz = |[x, y]: [f64; 2]| Vec3::new((x / y) as f32, 1.0, ((1.0 - x - y) / y) as f32);
    // What is white on a screen: D65.
    let white = cones * xyz([0.3127, 0.3290]);
    let taken = cones * xyz(planckian_xy(white_balance_k));
    let adapted = cones.inverse() * (cones * xyz([x, y]) * white / taken);
    let [big_x, big_y, big_z] = adapted.to_array().map(f64::from);
    let sum = big_x + big_y + big_z;
    rgb_of([big_x / sum, big_y / sum]) * adapted.y
}

/// The light of a colour temperature without white balance, linear red, green and blue of luminance 1.
pub fn unbalanced(group: &Group) -> Vec3 {
    rgb_of(group.xy) * group.dial
}

/// Linear signal, or luminance, of every pixel: groups added up by what they are worth.
pub fn mixed(smoothed: &Smoothed, groups: usize, worth: &[Vec3; GROUPS]) -> Vec<Vec3> {
    smoothed
        .light
        .par_chunks(groups.max(1))
        .map(|pixel| pixel.iter().zip(worth).map(|(light, worth)| *light * *worth).sum())
        .collect()
}

/// The tone curve: as it is up to 0.6, then bent so that it reaches white just where the recording clips.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tone {
    clips_at: f32,
    /// How fast the rest is used up; none where there is no room to bend.
    bend: Option<f32>,
}

impl Tone {
    /// The curve for a recording that clips at a linear signal.
    pub fn new(clips_at: f32) -> Self {
        let (room, rest) = (clips_at - STRAIGHT_TO, 1.0 - STRAIGHT_TO);
        if room <= rest * 1.001 {
            return Self { clips_at, bend: None };
        }
        // bend (1 - e^(-room / bend)) = rest, by halving: the left side grows with the bend, from 0 towards the room.
        let (mut low, mut high) = (rest * 1e-3, rest);
        while high * (1.0 - (-room / high).exp()) < rest && high < 1e6 {
            high *= 2.0;
        }
        for _ in 0..60 {
            let middle = (low + high) / 2.0;
            if middle * (1.0 - (-room / middle).exp()) < rest { low = middle } else { high = middle }
        }
        Self { clips_at, bend: Some(high) }
    }

    /// A linear signal as it is shown, 0 to 1, still linear.
    #[inline]
    pub fn shown(&self, signal: f32) -> f32 {
        if signal >= self.clips_at {
            return 1.0;
        }
        match self.bend {
            Some(bend) if signal > STRAIGHT_TO => {
                (STRAIGHT_TO + bend * (1.0 - (-(signal - STRAIGHT_TO) / bend).exp())).min(1.0)
            }
            _ => signal.clamp(0.0, 1.0),
        }
    }
}

/// A linear value as an sRGB byte (IEC 61966-2-1, from memory).
#[inline]
pub fn srgb(value: f32) -> u8 {
    let encoded = if value <= 0.003_130_8 { 12.92 * value } else { 1.055 * value.powf(1.0 / 2.4) - 0.055 };
    (encoded.clamp(0.0, 1.0) * 255.0 + 0.5) as u8
}

/// The picture as it is shown: red, green, blue, opaque, for each pixel.
pub fn shown(signal: &[Vec3], exposure: &Exposure) -> Vec<u8> {
    let table = Shown::new(exposure);
    signal.par_iter().flat_map_iter(|pixel| table.bytes(*pixel)).collect()
}

/// Tone curve and sRGB by one table: as good as the eye, and quick.
pub(crate) struct Shown {
    table: Vec<u8>,
    scale: f32,
}

const STEPS: usize = 8192;

impl Shown {
    pub(crate) fn new(exposure: &Exposure) -> Self {
        let tone = Tone::new(exposure.clips_at);
        // By square roots: fine where it is dark.
        let scale = (STEPS - 1) as f32 / exposure.clips_at.sqrt();
        let table = (0..STEPS)
            .map(|step| {
                let root = step as f32 / scale;
                srgb(tone.shown(root * root))
            })
            .collect();
        Self { table, scale }
    }

    pub(crate) fn bytes(&self, pixel: Vec3) -> [u8; 4] {
        let byte = |part: f32| {
            let at = (part.max(0.0).sqrt() * self.scale + 0.5) as usize;
            self.table[at.min(STEPS - 1)]
        };
        [byte(pixel.x), byte(pixel.y), byte(pixel.z), 255]
    }
}

/// How a corner's camera is set, in a line.
pub fn settings(corner: &Corner<'_>) -> String {
    let camera = &corner.layout.camera;
    format!(
        "{:.0} mm, f/{:.1}, 1/{:.0} s, ISO {:.0}, {:.0} K",
        camera.focal_length_mm,
        camera.f_number,
        1.0 / camera.shutter_s,
        camera.iso,
        camera.white_balance_k
    )
}
