//! Hearing a corner before it stands: the response of room, place and microphone, and a dry voice through it.

use super::absorption::Absorption;
use super::echoes::{ReflectionSeen, as_seen, ends_of, single_ways};
use super::impulse::{self, Ends, Gaussian, Response, Tail, Way};
use super::loudness::{integrated_lufs, matched_gains_db, true_peak_dbtp};
use super::pickup::{Pickup, pickup};
use super::rate::RATE_HZ;
use super::voice::SPEECH_HZ;
use super::{images, noise, scene, spectrum};
use crate::corner::Corner;
use crate::geometry::DVec3;
use crate::material::Bands;

/// Loudness of what is played, LUFS (that of broadcasts, EBU R 128).
pub const TARGET_LUFS: f64 = -23.0;
/// No true peak above this, dBTP (EBU R 128).
pub const CEILING_DBTP: f64 = -1.0;
/// A mouth or a capsule stays so far off a wall when images are made, m.
const OFF_WALL_M: f64 = 0.01;
/// The same tail each time.
const SEED: u64 = 20_260_101;

/// Walls of a rectangle in the order of a box's sides: left, right, back, front, floor, ceiling.
const SIDE_NAMES: [&str; 6] = ["wall-3", "wall-1", "wall-0", "wall-2", "floor", "ceiling"];

/// The response of a corner.
#[derive(Debug, Clone, PartialEq)]
pub struct Impulse {
    /// The response.
    pub response: Response,
    /// First reflections, shortest way first.
    pub reflections: Vec<ReflectionSeen>,
    /// Reverberation time by band, s.
    pub rt60_s: Bands,
    /// The room is a box, whose images are complete to 50 ms; else single reflections and a tail.
    pub is_box: bool,
}

/// The response of a corner from its mouth to its microphone.
pub fn impulse(corner: &Corner<'_>) -> Impulse {
    let (gear, capsule) = corner.heard_by();
    let room = &corner.brief.room;
    let absorption = Absorption::of(corner);
    let rt60_s = absorption.rt60_s();
    let ends = ends_of(corner, gear, capsule);
    let (direct, single, found) = single_ways(corner, &absorption, &ends, capsule);
    let reflections = as_seen(corner, &direct, &single, &found);
    let is_box = room.is_rectangle() && room.slopes.is_empty();
    let mut tail = Tail::after_images(absorption.volume_m3, rt60_s, ends.mean());
    let mut ways = vec![direct];
    ways.extend(single);
    if is_box {
        ways.extend(later_images(corner, &absorption, &ends, tail.ways_to_s()));
    } else {
        // Two mean free paths after the mouth the room is full of sound.
        tail.from_s = 8.0 * absorption.volume_m3 / (absorption.surface_m2 * super::decay::SPEED_M_S);
    }
    let response = impulse::response(&ways, &tail, SEED);
    Impulse { response, reflections, rt60_s, is_box }
}

/// Images of two and more reflections, by the mean absorption of each side; what stands loose in the room takes from all
/// sides alike.
fn later_images(corner: &Corner<'_>, absorption: &Absorption, ends: &Ends, to_s: f64) -> Vec<Way> {
    let room = &corner.brief.room;
    let dimensions = room.dimensions_m();
    let within = |at: DVec3| {
        let most = DVec3::from_array(dimensions) - DVec3::splat(OFF_WALL_M);
        at.clamp(DVec3::splat(OFF_WALL_M), most)
    };
    let (source, to) = (within(corner.mouth_m), within(ends_at(corner)));
    let areas = room.surfaces_m2();
    let loose = absorption.loose_m2().map(|m2| m2 / absorption.surface_m2);
    let factors: [Bands; 6] = SIDE_NAMES.map(|name| {
        let area = areas.iter().find(|(n, _)| *n == name).map_or(1.0, |(_, area)| *area);
        let own = absorption.of_surface(name, area);
        impulse::reflected(std::array::from_fn(|band| (own[band] + loose[band]).min(0.99)))
    });
    let reach = to_s * super::decay::SPEED_M_S;
    let mut later = images::within(dimensions, source, to, reach);
    later.retain(|image| image.order() > 1);
    let mut ways = impulse::ways(&later, &factors, |_| None, ends.mean());
    for way in &mut ways {
        let air = impulse::spread(way.length_m);
        let bare = 1.0 / (4.0 * std::f64::consts::PI * way.length_m);
        way.amplitude = std::array::from_fn(|band| way.amplitude[band] * air[band] / bare);
    }
    ways
}

fn ends_at(corner: &Corner<'_>) -> DVec3 {
    corner.heard_by().1
}

/// A recording, made up from a dry voice.
#[derive(Debug, Clone, PartialEq)]
pub struct Heard {
    /// Samples at 48 kHz, at [`TARGET_LUFS`] where their peaks allow.
    pub samples: Vec<f32>,
    /// By so much it was turned up to get there, dB, from a scale on which the voice at 1 m keeps the level of the dry one.
    pub gain_db: f64,
    /// Loudness as played, LUFS.
    pub loudness_lufs: f64,
    /// True peak as played, dBTP.
    pub true_peak_dbtp: f64,
    /// What the planned figures say of it.
    pub pickup: Pickup,
}

/// Why there is nothing to hear.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum Unheard {
    /// The dry voice is silent, or shorter than the 0.4 s of one loudness block.
    #[error("the voice is silent or shorter than 0.4 s")]
    Silent,
}

/// A dry voice at 48 kHz as this corner would record it, its noise with it.
///
/// # Errors
/// See [`Unheard`].
pub fn hear(corner: &Corner<'_>, dry: &[f32]) -> Result<Heard, Unheard> {
    let found = impulse(corner);
    let (scene, placed) = scene(corner, &Absorption::of(corner));
    let pickup = pickup(&scene, &placed);
    integrated_lufs(&[dry], RATE_HZ).ok_or(Unheard::Silent)?;
    let response = &found.response.samples;
    let wet = spectrum::convolve(dry, response);
    // Begin when the direct sound arrives.
    let begin = found.response.index(found.response.direct_s).min(wet.len());
    let full = 4.0 * std::f64::consts::PI;
    let mut samples: Vec<f32> = wet[begin..].iter().map(|s| (f64::from(*s) * full) as f32).collect();
    // The voice at 1 m is as loud as the dry one: noise stands as far below it as planned.
    let dry_level_db = spectrum::weighted_level_db(dry);
    add_noise(&mut samples, &placed, dry_level_db - scene.voice_1m_dba);
    let lufs = integrated_lufs(&[&samples], RATE_HZ).ok_or(Unheard::Silent)?;
    let peak = true_peak_dbtp(&samples).ok_or(Unheard::Silent)?;
    let (gains, _) = matched_gains_db(&[lufs], &[peak], TARGET_LUFS, CEILING_DBTP);
    let gain_db = gains[0];
    let factor = 10f64.powf(gain_db / 20.0) as f32;
    samples.iter_mut().for_each(|s| *s *= factor);
    Ok(Heard { samples, gain_db, loudness_lufs: lufs + gain_db, true_peak_dbtp: peak + gain_db, pickup })
}

/// The room's noise and the microphone's own, `offset_db` from sound levels to the scale of the samples.
fn add_noise(samples: &mut [f32], placed: &super::pickup::MicrophonePlaced, offset_db: f64) {
    let own = noise::self_noise_db(placed.self_noise_dba);
    let levels: [f64; 7] =
        std::array::from_fn(|k| super::level::sum_db([placed.noise_db[k], own[k]]) + offset_db);
    let mut random = Gaussian::new(SEED + 1);
    let white: Vec<f32> = (0..samples.len()).map(|_| random.draw() as f32).collect();
    let shaped = spectrum::shaped(&white, |hz| {
        if hz < SPEECH_HZ[0] / 4.0 { 0.0 } else { spectrum::octave_factor(&levels, hz) }
    });
    samples.iter_mut().zip(shaped).for_each(|(s, n)| *s += n);
}
