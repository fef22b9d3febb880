//! How bright and of which colour a still is: at the marks, over all, over a keyed screen.

use serde::Serialize;
use utoipa::ToSchema;

use super::marks::{Marks, Place};
use crate::colour::{cct_duv, mired_shift, shifted_k};
use crate::corner::Corner;
use crate::take::promise::Promise;

/// Skin where nobody gives it.
const SKIN: f64 = 0.35;
/// What a grey card reflects.
const GREY: f64 = 0.18;
/// A spot is so wide, parts of the width.
const SPOT: f64 = 0.012;
/// From this byte on a colour is burnt out, up to that one drowned.
const BURNT: u8 = 254;
const DROWNED: u8 = 1;
/// A keyed screen is looked at in so many parts across and down.
const SCREEN_PARTS: usize = 8;
/// What is white on a screen, K (D65).
const WHITE_K: f64 = 6504.0;

/// A picture of 8 bits a colour, sRGB, row by row from the top.
#[derive(Debug, Clone, Copy)]
pub struct Pixels<'a> {
    /// Pixels across.
    pub width: usize,
    /// Pixels down.
    pub height: usize,
    /// Red, green, blue of each.
    pub rgb: &'a [u8],
}

/// White balance at a neutral point.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct White {
    /// The setting at which it would be white, K.
    pub wanted_k: f64,
    /// As the plan sets it, K.
    pub set_k: f64,
    /// Green over 0, magenta below, Duv.
    pub duv: f64,
}

/// How bright a still is.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Tones {
    /// Skin against the plan's skin, stops; none where it is burnt out.
    pub skin_stops: Option<f64>,
    /// A grey card against its 18 %, stops.
    pub grey_stops: Option<f64>,
    /// Background against the plan's, stops.
    pub background_stops: Option<f64>,
    /// Background against the face, stops, and as planned.
    pub background_under_face_stops: Option<f64>,
    /// White balance at the neutral point.
    pub white: Option<White>,
    /// Part of the picture in which a colour is burnt out.
    pub burnt_fraction: f64,
    /// The same between crown and chin.
    pub burnt_face_fraction: f64,
    /// Part of the picture that is black.
    pub drowned_fraction: f64,
    /// Of the screen the brightest part over the darkest, stops.
    pub screen_stops: Option<f64>,
}

impl Tones {
    /// How bright the face is against the plan: by the grey card where there is one.
    pub fn face_stops(&self) -> Option<f64> {
        self.grey_stops.or(self.skin_stops)
    }
}

/// A byte of sRGB as light, 0 to 1 (IEC 61966-2-1, from memory).
fn linear(byte: u8) -> f64 {
    let value = f64::from(byte) / 255.0;
    if value <= 0.040_45 { value / 12.92 } else { ((value + 0.055) / 1.055).powf(2.4) }
}

/// Linear red, green, blue as luminance (ITU-R BT.709, from memory).
fn luminance([r, g, b]: [f64; 3]) -> f64 {
    0.2126 * r + 0.7152 * g + 0.0722 * b
}

impl Pixels<'_> {
    fn at(&self, x: usize, y: usize) -> [u8; 3] {
        let from = 3 * (y * self.width + x);
        self.rgb.get(from..from + 3).map_or([0; 3], |rgb| [rgb[0], rgb[1], rgb[2]])
    }

    /// Mean light of a box, parts of the picture.
    fn mean(&self, from: Place, to: Place) -> [f64; 3] {
        let pixel =
            |part: f64, count: usize| ((part * count as f64).max(0.0) as usize).min(count.saturating_sub(1));
        let (x0, x1) = (pixel(from[0], self.width), pixel(to[0], self.width));
        let (y0, y1) = (pixel(from[1], self.height), pixel(to[1], self.height));
        let mut sum = [0.0; 3];
        for y in y0..=y1.max(y0) {
            for x in x0..=x1.max(x0) {
                for (total, byte) in sum.iter_mut().zip(self.at(x, y)) {
                    *total += linear(byte);
                }
            }
        }
        let count = ((y1.max(y0) - y0 + 1) * (x1.max(x0) - x0 + 1)) as f64;
        sum.map(|total| total / count)
    }

    /// Mean light of a spot.
    fn spot(&self, [x, y]: Place) -> [f64; 3] {
        let down = SPOT * self.width as f64 / self.height.max(1) as f64;
        self.mean([x - SPOT / 2.0, y - down / 2.0], [x + SPOT / 2.0, y + down / 2.0])
    }
}

/// Burnt out: its stops would tell nothing.
const FULL: f64 = 0.96;

pub(super) fn measure(corner: &Corner<'_>, pixels: &Pixels<'_>, marks: &Marks, promise: &Promise) -> Tones {
    let stops = |light: [f64; 3], of: f64| {
        let found = luminance(light);
        (found > 1e-4 && found < FULL).then(|| (found / of).log2())
    };
    let skin_reflectance = corner.brief.person.skin_reflectance.unwrap_or(SKIN);
    let planned_face = promise.face_stops.unwrap_or(0.0);
    let skin_at = marks.skin.unwrap_or_else(|| cheek(corner, marks));
    let skin = pixels.spot(skin_at);
    let skin_stops = stops(skin, skin_reflectance * planned_face.exp2());
    let grey_stops = marks.grey.and_then(|grey| stops(pixels.spot(grey), GREY * planned_face.exp2()));
    let behind = marks.background.and_then(|place| stops(pixels.spot(place), 1.0));
    let face = stops(skin, 1.0);
    let under = behind.zip(face).map(|(behind, face)| behind - face);
    let background_stops = promise
        .background_stops
        .zip(under)
        .zip(grey_stops.or(skin_stops))
        .map(|((planned, under), face)| under - planned + face);
    let (burnt, burnt_face, drowned) = clipped(pixels, marks);
    Tones {
        skin_stops,
        grey_stops,
        background_stops,
        background_under_face_stops: under,
        white: marks.neutral.or(marks.grey).and_then(|place| white(corner, pixels.spot(place))),
        burnt_fraction: burnt,
        burnt_face_fraction: burnt_face,
        drowned_fraction: drowned,
        screen_stops: marks.screen.map(|corners| evenness(pixels, corners)),
    }
}

/// The cheek on the side of the key: between eyes and chin.
fn cheek(corner: &Corner<'_>, marks: &Marks) -> Place {
    let face = marks.chin[1] - marks.eyes[1];
    let key = corner.role(crate::plan::Role::Key).next();
    let side = key.map_or(1.0, |key| corner.light_angles_deg(key.position_m).0.signum());
    let ratio = corner.view.height_ratio / corner.view.width_ratio;
    [marks.eyes[0] + side * 0.35 * face * ratio, marks.eyes[1] + 0.45 * face]
}

/// Parts of the picture that are burnt out, in all and in the face, and that are black.
fn clipped(pixels: &Pixels<'_>, marks: &Marks) -> (f64, f64, f64) {
    let (top, bottom) = (marks.crown[1], marks.chin[1]);
    let half = 0.4 * (bottom - top) * pixels.height as f64 / pixels.width.max(1) as f64;
    let (mut burnt, mut burnt_face, mut in_face, mut drowned) = (0usize, 0usize, 0usize, 0usize);
    for y in 0..pixels.height {
        let down = (y as f64 + 0.5) / pixels.height as f64;
        let beside_face = down < top || down > bottom;
        for x in 0..pixels.width {
            let rgb = pixels.at(x, y);
            let is_burnt = rgb.iter().any(|byte| *byte >= BURNT);
            let across = (x as f64 + 0.5) / pixels.width as f64;
            let is_face = !beside_face && (across - marks.eyes[0]).abs() < half;
            burnt += usize::from(is_burnt);
            in_face += usize::from(is_face);
            burnt_face += usize::from(is_face && is_burnt);
            drowned += usize::from(rgb.iter().all(|byte| *byte <= DROWNED));
        }
    }
    let all = (pixels.width * pixels.height).max(1) as f64;
    (burnt as f64 / all, burnt_face as f64 / in_face.max(1) as f64, drowned as f64 / all)
}

/// The setting at which a neutral point would be white.
fn white(corner: &Corner<'_>, [r, g, b]: [f64; 3]) -> Option<White> {
    if [r, g, b].iter().any(|value| *value >= FULL) || luminance([r, g, b]) < 0.002 {
        return None;
    }
    // sRGB's primaries (IEC 61966-2-1, from memory).
    let x = 0.4124 * r + 0.3576 * g + 0.1805 * b;
    let y = luminance([r, g, b]);
    let z = 0.0193 * r + 0.1192 * g + 0.9505 * b;
    let sum = x + y + z;
    let (found_k, duv) = cct_duv([x / sum, y / sum])?;
    let set_k = corner.layout.camera.white_balance_k;
    // The daylight locus lies above the black body's: what a screen shows as white is 0.003 off it already.
    let wanted_k = shifted_k(set_k, mired_shift(WHITE_K, found_k))?;
    Some(White { wanted_k, set_k, duv: duv - WHITE_DUV })
}

/// D65 off the black body (CIE 15, from memory).
const WHITE_DUV: f64 = 0.0032;

/// The brightest part of a screen over its darkest, stops.
fn evenness(pixels: &Pixels<'_>, [one, other]: [Place; 2]) -> f64 {
    let (from, to) =
        ([one[0].min(other[0]), one[1].min(other[1])], [one[0].max(other[0]), one[1].max(other[1])]);
    let step = |axis: usize| (to[axis] - from[axis]) / SCREEN_PARTS as f64;
    let (mut least, mut most) = (f64::INFINITY, 0.0f64);
    for row in 0..SCREEN_PARTS {
        for column in 0..SCREEN_PARTS {
            let at = [from[0] + step(0) * column as f64, from[1] + step(1) * row as f64];
            let found = luminance(pixels.mean(at, [at[0] + step(0), at[1] + step(1)])).max(1e-4);
            (least, most) = (least.min(found), most.max(found));
        }
    }
    (most / least).log2()
}
