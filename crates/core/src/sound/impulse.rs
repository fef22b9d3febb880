//! What a clap at the mouth would write at the microphone: mirror images until 50 ms, then a statistical tail (Fogon's
//! hybrid; image density after Kuttruff). One response for each octave band, through filters that add up to one.

use std::f64::consts::PI;
use std::ops::Range;

use super::images::{Image, SIDES};
use super::rate::RATE_HZ;
use super::spectrum;
use super::voice::{SPEECH_HZ, off_axis_db};
use crate::geometry::DVec3;
use crate::material::Bands;

/// Images are complete to here, s; then the tail takes over within `CROSS_S`.
const IMAGES_S: f64 = 0.050;
const CROSS_S: f64 = 0.010;
/// No response is longer, s.
const LONGEST_S: f64 = 3.0;
/// Taps of the interpolation between samples: a sinc under a Hann window.
const TAPS: usize = 81;
/// Fractions of a sample for which the taps stand ready; between them a straight line, good to -90 dB.
const FRACTIONS: usize = 128;
/// Silence before sample 0 of the response: half the taps and the filters' ringing, samples.
pub const LEAD: usize = 1024;

/// Six bands side by side, two unused, so that a processor adds them at once.
type Lanes = [f32; 8];

/// What a single sound on its way meets: a factor for each band.
pub type Factors = Bands;

/// One way of sound to the microphone.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Way {
    /// Length, m.
    pub length_m: f64,
    /// Amplitude at the microphone against 1 at 1 m over 4 pi, by band.
    pub amplitude: Bands,
}

/// A response, `LEAD` samples of silence before its time 0, which is when the sound leaves the mouth.
#[derive(Debug, Clone, PartialEq)]
pub struct Response {
    /// Samples at [`RATE_HZ`], amplitude 1 / (4 pi d) for a bare way of length d.
    pub samples: Vec<f32>,
    /// When the direct sound arrives, s.
    pub direct_s: f64,
}

/// Amplitudes of a sound on a way of some length by the air alone: 1 / (4 pi d), dulled.
pub fn spread(length_m: f64) -> Bands {
    std::array::from_fn(|band| {
        let air = (-super::absorption::air_m()[band] * length_m / 2.0).exp();
        air / (4.0 * PI * length_m)
    })
}

/// Reflection factors of a surface: sqrt(1 - alpha).
pub fn reflected(absorption: Bands) -> Factors {
    absorption.map(|alpha| (1.0 - alpha).max(0.0).sqrt())
}

/// How mouth and microphone take the directions of a single way.
#[derive(Debug, Clone, Copy)]
pub struct Ends {
    /// Where the mouth faces.
    pub facing: DVec3,
    /// From the microphone, where it is aimed.
    pub aim: DVec3,
    /// First-order pattern.
    pub pattern_a: f64,
    /// Tube, m.
    pub tube_m: f64,
}

impl Ends {
    /// What is left of a sound that leaves along one direction and comes from another, both unit vectors away from their end.
    pub fn factors(&self, leaves: DVec3, comes_from: DVec3) -> Factors {
        let off_mouth = crate::geometry::angle_between_deg(self.facing, leaves);
        let off_microphone = crate::geometry::angle_between_deg(self.aim, comes_from);
        std::array::from_fn(|band| {
            let hz = SPEECH_HZ[band];
            let mouth = 10f64.powf(-off_axis_db(band, off_mouth) / 20.0);
            // A sound from behind may come in reversed; its level is what is heard.
            let heard = super::pattern::gain_db(self.pattern_a, self.tube_m, hz, off_microphone);
            mouth * 10f64.powf(heard / 20.0)
        })
    }

    /// What is left on average of sound from all sides: 1 / sqrt(Qs Qm).
    pub fn mean(&self) -> Factors {
        let (mouth, microphone) =
            (super::voice::directivity(), super::pattern::directivities(self.pattern_a, self.tube_m));
        std::array::from_fn(|band| 1.0 / (mouth[band] * microphone[band]).sqrt())
    }
}

/// Ways of the images of a box: factors by band and side, `single` what ways of at most one reflection keep beside.
pub fn ways(
    images: &[Image],
    factors: &[Bands; SIDES],
    single: impl Fn(&Image) -> Option<Factors>,
    others: Factors,
) -> Vec<Way> {
    // Powers of the factors, so that none is worked out anew for each image.
    let most = images.iter().flat_map(|i| i.hits).max().unwrap_or(0) as usize;
    let powers: Vec<Vec<Bands>> = factors
        .iter()
        .map(|factor| {
            let mut at = [1.0; 6];
            let mut all = vec![at];
            for _ in 0..most {
                at = std::array::from_fn(|band| at[band] * factor[band]);
                all.push(at);
            }
            all
        })
        .collect();
    images
        .iter()
        .map(|image| {
            let length_m = image.off_m.length();
            let keeps = if image.order() <= 1 { single(image) } else { None };
            let mut amplitude = keeps.unwrap_or_else(|| {
                let mut product = others;
                for (side, hits) in image.hits.iter().enumerate() {
                    let power = &powers[side][usize::from(*hits)];
                    product = std::array::from_fn(|band| product[band] * power[band]);
                }
                product
            });
            let over = 1.0 / (4.0 * PI * length_m);
            amplitude.iter_mut().for_each(|a| *a *= over);
            Way { length_m, amplitude }
        })
        .collect()
}

/// The taps for every fraction of a sample.
fn taps() -> &'static [[f32; TAPS]; FRACTIONS + 1] {
    static READY: std::sync::OnceLock<Box<[[f32; TAPS]; FRACTIONS + 1]>> = std::sync::OnceLock::new();
    READY.get_or_init(|| {
        let half = (TAPS / 2) as f64;
        let mut all = Box::new([[0.0; TAPS]; FRACTIONS + 1]);
        for (step, row) in all.iter_mut().enumerate() {
            let fraction = step as f64 / FRACTIONS as f64;
            for (k, tap) in row.iter_mut().enumerate() {
                let x = k as f64 - half - fraction;
                let sinc = if x.abs() < 1e-9 { 1.0 } else { (PI * x).sin() / (PI * x) };
                let window = 0.5 + 0.5 * (PI * x / (half + 1.0)).cos();
                *tap = (sinc * window) as f32;
            }
        }
        all
    })
}

/// Six responses, one for each band, of single ways; `weight` fades them out by their time.
fn write(ways: &[Way], length: usize, speed_m_s: f64, weight: impl Fn(f64) -> f64) -> Vec<Lanes> {
    let mut lanes: Vec<Lanes> = vec![[0.0; 8]; length];
    let table = taps();
    for way in ways {
        let time_s = way.length_m / speed_m_s;
        let at = time_s * RATE_HZ + LEAD as f64;
        let (whole, fraction) = (at.floor(), at.fract() * FRACTIONS as f64);
        let Some(first) = (whole as usize).checked_sub(TAPS / 2) else { continue };
        if first + TAPS > length {
            continue;
        }
        let fade = weight(time_s);
        let mut gain: Lanes = [0.0; 8];
        for (lane, amplitude) in gain.iter_mut().zip(way.amplitude) {
            *lane = (amplitude * fade) as f32;
        }
        let (low, part) = (fraction as usize, fraction.fract() as f32);
        let (a, b) = (&table[low], &table[low + 1]);
        for ((lane, a), b) in lanes[first..first + TAPS].iter_mut().zip(a).zip(b) {
            let tap = a + (b - a) * part;
            for (sum, gain) in lane.iter_mut().zip(&gain) {
                *sum += tap * gain;
            }
        }
    }
    lanes
}

/// Adds the bands up, each through its filter.
fn join(lanes: &[Lanes]) -> Vec<f32> {
    spectrum::join(std::array::from_fn(|band| lanes.iter().map(|lane| lane[band]).collect()))
}

/// Images alone, all of them, no air, no directions: for comparison with other programs.
pub fn of_images(ways: &[Way], speed_m_s: f64) -> Response {
    let longest = ways.iter().map(|way| way.length_m).fold(0.0, f64::max);
    let direct = ways.iter().map(|way| way.length_m).fold(f64::MAX, f64::min);
    let length = (longest / speed_m_s * RATE_HZ) as usize + LEAD + TAPS + LEAD;
    let lanes = write(ways, length, speed_m_s, |_| 1.0);
    Response { samples: join(&lanes), direct_s: direct / speed_m_s }
}

/// What the tail rests on.
#[derive(Debug, Clone, Copy)]
pub struct Tail {
    /// Air in the room, m3.
    pub volume_m3: f64,
    /// Reverberation time by band, s.
    pub rt60_s: Bands,
    /// What directions leave of it, as amplitudes.
    pub mean: Factors,
    /// Single ways are complete to here, s.
    pub from_s: f64,
}

impl Tail {
    /// Of a box, whose images are complete to 50 ms.
    pub fn after_images(volume_m3: f64, rt60_s: Bands, mean: Factors) -> Self {
        Self { volume_m3, rt60_s, mean, from_s: IMAGES_S }
    }

    /// So far the single ways are needed, s.
    pub fn ways_to_s(&self) -> f64 {
        self.from_s + CROSS_S
    }

    /// Energy a second of the reverberant sound at a time after the mouth, in units of ways of 1 / (4 pi d).
    pub fn density(&self, band: usize, time_s: f64) -> f64 {
        let decay = (-6.0 * std::f64::consts::LN_10 * time_s / self.rt60_s[band]).exp();
        super::decay::SPEED_M_S / (4.0 * PI * self.volume_m3) * decay
    }
}

/// Single ways and the tail after them; the same seed gives the same tail.
pub fn response(ways: &[Way], tail: &Tail, seed: u64) -> Response {
    let speed = super::decay::SPEED_M_S;
    let direct_s = ways.iter().map(|way| way.length_m).fold(f64::MAX, f64::min) / speed;
    let rings = tail.rt60_s.iter().copied().fold(0.0, f64::max) * 1.1;
    let length = ((rings.max(tail.ways_to_s()) + 0.02).min(LONGEST_S) * RATE_HZ) as usize + 2 * LEAD;
    // Energies add up, so that the two parts fade as the root of a line.
    let into = |time_s: f64| ((time_s - tail.from_s) / CROSS_S).clamp(0.0, 1.0);
    let mut lanes = write(ways, length, speed, |time_s| (1.0 - into(time_s)).sqrt());
    let mut noise = Gaussian::new(seed);
    for (sample, lane) in lanes.iter_mut().enumerate() {
        let time_s = (sample as f64 - LEAD as f64) / RATE_HZ;
        let value = noise.draw();
        let fade = into(time_s);
        if fade <= 0.0 || time_s <= direct_s {
            continue;
        }
        for (band, sum) in lane.iter_mut().enumerate().take(6) {
            let energy = tail.density(band, time_s) / RATE_HZ * fade;
            *sum += (value * energy.sqrt() * tail.mean[band]) as f32;
        }
    }
    Response { samples: join(&lanes), direct_s }
}

impl Response {
    /// Index of a time after the mouth.
    pub fn index(&self, time_s: f64) -> usize {
        ((time_s * RATE_HZ).max(0.0) as usize + LEAD).min(self.samples.len())
    }

    /// Energy within times after the mouth.
    pub fn energy(&self, from_s: f64, to_s: f64) -> f64 {
        let within: Range<usize> = self.index(from_s)..self.index(to_s).max(self.index(from_s));
        self.samples[within].iter().map(|s| f64::from(*s).powi(2)).sum()
    }
}

/// Backward integral of squared samples, dB against the whole (Schroeder 1965).
pub fn decay_db(squares: impl DoubleEndedIterator<Item = f64>) -> Vec<f64> {
    let mut left = 0.0;
    let mut curve: Vec<f64> = squares
        .rev()
        .map(|square| {
            left += square;
            left
        })
        .collect();
    curve.reverse();
    let whole = curve.first().copied().unwrap_or(0.0);
    curve.iter().map(|rest| 10.0 * (rest / whole).log10()).collect()
}

/// Time for 60 dB by the slope of a decay between two levels, s: a straight line by least squares over times and levels.
pub fn decay_time_s(times_s: &[f64], decay_db: &[f64], from_db: f64, to_db: f64) -> Option<f64> {
    let points: Vec<(f64, f64)> = times_s
        .iter()
        .zip(decay_db)
        .filter(|(_, db)| (to_db..=from_db).contains(*db))
        .map(|(t, db)| (*t, *db))
        .collect();
    let count = points.len() as f64;
    if points.len() < 3 {
        return None;
    }
    let (mean_t, mean_db) =
        (points.iter().map(|p| p.0).sum::<f64>() / count, points.iter().map(|p| p.1).sum::<f64>() / count);
    let (mut over, mut under) = (0.0, 0.0);
    for (t, db) in &points {
        over += (t - mean_t) * (db - mean_db);
        under += (t - mean_t).powi(2);
    }
    let slope = over / under;
    (slope < 0.0).then_some(-60.0 / slope)
}

/// Normal numbers from a seed: SplitMix64 (Steele, Lea and Flood 2014, from memory) through Box and Muller.
pub struct Gaussian {
    state: u64,
    spare: Option<f64>,
}

impl Gaussian {
    /// The same seed gives the same numbers.
    pub fn new(seed: u64) -> Self {
        Self { state: seed, spare: None }
    }

    fn uniform(&mut self) -> f64 {
        self.state = self.state.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut z = self.state;
        z = (z ^ (z >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        ((z ^ (z >> 31)) >> 11) as f64 / (1u64 << 53) as f64
    }

    /// The next, of mean 0 and variance 1.
    pub fn draw(&mut self) -> f64 {
        if let Some(spare) = self.spare.take() {
            return spare;
        }
        let (a, b) = (1.0 - self.uniform(), self.uniform());
        let (sine, cosine) = (2.0 * PI * b).sin_cos();
        let radius = (-2.0 * a.ln()).sqrt();
        self.spare = Some(radius * sine);
        radius * cosine
    }
}
