//! A picture that is being looked at while the plan changes: coarse at once, then ever finer; a dial turned only mixes anew.
use std::sync::Arc;

use fogon_core::corner::Corner;
use fogon_core::day::HourLight;
use fogon_core::plan::Plan;
use glam::Vec3;
use serde::Serialize;

use crate::denoise::{Smoothed, smoothed};
use crate::develop::{self, Exposure};
use crate::film::Film;
use crate::overlay::{self, GREY, Overlay, Told, stops};
use crate::scene::GROUPS;
use crate::stage::lamps::Group;
use crate::stage::things::Things;
use crate::stage::{Stage, Staged};
use crate::trace::{Care, Tracer};
use crate::tree::Walk;

/// The coarse picture: so many pixels across at most.
const COARSE: usize = 320;
/// Shown anew after so many rounds, doubled each time; finished after the last.
pub const ROUNDS: u32 = 8;
/// A look takes in so many pixels to each side.
const LOOK: usize = 2;

/// A picture while it is looked at.
#[derive(Default)]
pub struct Viewing {
    stage: Stage,
    now: Option<Now>,
}

/// What is wanted of a picture beside its plan.
#[derive(Debug, Clone, PartialEq)]
pub struct Wanted {
    /// Pixels across and down.
    pub size: [usize; 2],
    /// Only a part of it: left, top, right and lower edge in parts of the whole.
    pub part: Option<[f32; 4]>,
    /// How the camera is set.
    pub exposure: Exposure,
    /// The windows at an hour of the day; as under an even grey sky where none is told.
    pub hour: Option<HourLight>,
}

impl Wanted {
    /// The whole picture of a corner as its camera is set.
    pub fn whole(corner: &Corner<'_>, size: [usize; 2]) -> Self {
        Self { size, part: None, exposure: Exposure::of(corner), hour: None }
    }
}

struct Now {
    key: Vec<u8>,
    size: [usize; 2],
    part: Option<[f32; 4]>,
    hour: Option<HourLight>,
    staged: Staged,
    tracer: Tracer,
    /// The finer picture: begun once the coarse one is shown, let go once it is finished.
    fine: Fine,
    /// What is shown.
    shown: Frame,
}

enum Fine {
    NotBegun,
    Begun(Film),
    Finished,
}

struct Frame {
    width: usize,
    height: usize,
    samples: u32,
    light: Smoothed,
    seen: Vec<u16>,
}

/// What taking up a plan came to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TakenUp {
    /// Only dials and settings had changed: what was gathered is mixed anew.
    Mixed,
    /// Begun anew, coarse.
    Begun,
    /// Left before it was ready: somebody asked for something else.
    Left,
}

/// What going on came to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum GoneOn {
    /// There is something finer to show.
    Finer,
    /// A round more; what is shown is as before.
    Gathered,
    /// Left on the way; what was gathered is kept.
    Left,
    /// There is no more to gather.
    Finished,
}

/// A picture as it is shown.
#[derive(Debug, Clone, PartialEq)]
pub struct Picture {
    /// Pixels across.
    pub width: usize,
    /// Pixels down.
    pub height: usize,
    /// Rounds of samples that it has had.
    pub samples: u32,
    /// No more will be gathered.
    pub is_finished: bool,
    /// Red, green, blue, opaque.
    pub pixels: Vec<u8>,
    /// What it tells.
    pub told: Told,
}

/// What is at a place in the picture.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Looked {
    /// The place, parts of the picture from its upper left.
    pub look: [f32; 2],
    /// What it is; none where nothing is.
    pub thing: Option<String>,
    /// Stops over an 18 % card.
    pub stops: f32,
    /// Stops over the face.
    pub over_face_stops: f32,
    /// As it is shown, sRGB.
    pub shown: [u8; 3],
    /// It clips.
    pub clips: bool,
}

impl Viewing {
    /// Takes up a plan. After [`TakenUp::Begun`] a coarse picture is there, and [`Self::go_on`] makes it finer.
    pub fn take_up(
        &mut self,
        corner: &Corner<'_>,
        plan: &Plan,
        wanted: &Wanted,
        goes_on: &(dyn Fn() -> bool + Sync),
    ) -> TakenUp {
        let Wanted { size, part, exposure, ref hour } = *wanted;
        let key = key_of(plan);
        if let Some(now) = &mut self.now
            && now.key == key
            && now.size == size
            && now.part == part
            && now.hour == *hour
        {
            now.staged.groups = self.stage.groups(corner, hour.as_ref());
            now.staged.exposure = exposure;
            return TakenUp::Mixed;
        }
        let walk = Walk::fastest();
        let mut staged = self.stage.staged_at(corner, hour.as_ref(), walk);
        staged.exposure = exposure;
        if let Some(part) = part {
            staged.scene = Arc::new(staged.scene.seen_by(staged.scene.lens().part(part)));
        }
        if !goes_on() {
            return TakenUp::Left;
        }
        let dials = develop::dials(&staged.groups);
        let tracer = Tracer::new(Arc::clone(&staged.scene), &staged.sights, dials, Care::QUICK, walk, true);
        let [width, height] = size;
        let coarse = [width.min(COARSE), (height * width.min(COARSE)).div_ceil(width.max(1)).max(1)];
        let mut film = Film::new(coarse[0], coarse[1], staged.groups.len().max(1));
        if !tracer.expose(&mut film, 1, None, goes_on) {
            return TakenUp::Left;
        }
        let shown = frame(&film, dials);
        self.now =
            Some(Now { key, size, part, hour: hour.clone(), staged, tracer, fine: Fine::NotBegun, shown });
        TakenUp::Begun
    }

    /// Gathers a round more.
    pub fn go_on(&mut self, goes_on: &(dyn Fn() -> bool + Sync)) -> GoneOn {
        let Some(now) = &mut self.now else { return GoneOn::Finished };
        let dials = develop::dials(&now.staged.groups);
        let [width, height] = now.size;
        if let Fine::NotBegun = now.fine {
            let (scene, sights) = (Arc::clone(&now.staged.scene), Arc::clone(&now.staged.sights));
            now.tracer = Tracer::new(scene, &sights, dials, Care::FULL, Walk::fastest(), true);
            now.fine = Fine::Begun(Film::new(width, height, now.staged.groups.len().max(1)));
        }
        let Fine::Begun(film) = &mut now.fine else { return GoneOn::Finished };
        let things = &now.staged.things;
        if !now.tracer.expose(film, 1, Some(&|thing| things.is_busy(thing)), goes_on) {
            return GoneOn::Left;
        }
        if !film.rounds.is_power_of_two() && film.rounds < ROUNDS {
            return GoneOn::Gathered;
        }
        // The last one makes room first.
        now.shown.light = Smoothed::default();
        now.shown = frame(film, dials);
        if film.rounds >= ROUNDS {
            now.fine = Fine::Finished;
        }
        GoneOn::Finer
    }

    /// The picture as it stands; none before a plan was taken up.
    pub fn picture(&self, overlay: Overlay) -> Option<Picture> {
        let now = self.now.as_ref()?;
        let (signal, told) = now.signal();
        let Frame { width, height, samples, .. } = now.shown;
        let exposure = &now.staged.exposure;
        let pixels = match overlay {
            Overlay::None => develop::shown(&signal, exposure),
            _ => overlay::shown(&signal, width, exposure, overlay, told.face_signal),
        };
        let is_finished = matches!(now.fine, Fine::Finished);
        Some(Picture { width, height, samples, is_finished, pixels, told })
    }

    /// What is at a place, parts of the picture from its upper left.
    pub fn look(&self, [x, y]: [f32; 2]) -> Option<Looked> {
        let now = self.now.as_ref()?;
        let (signal, told) = now.signal();
        let Frame { width, height, seen, .. } = &now.shown;
        let at = |part: f32, number: usize| ((part * number as f32) as usize).min(number.saturating_sub(1));
        let (column, row) = (at(x, *width), at(y, *height));
        let around = |at: usize, number: usize| at.saturating_sub(LOOK)..(at + LOOK + 1).min(number);
        let mut sum = Vec3::ZERO;
        let mut number = 0.0;
        for row in around(row, *height) {
            for column in around(column, *width) {
                sum += signal[row * width + column];
                number += 1.0;
            }
        }
        let mean = sum / number;
        let bright = crate::film::luminance(mean);
        let exposure = &now.staged.exposure;
        let things: &Things = &now.staged.things;
        let [red, green, blue, _] = develop::Shown::new(exposure).bytes(mean);
        Some(Looked {
            look: [x, y],
            thing: things.get(seen[row * width + column]).map(|(name, _)| name.to_owned()),
            stops: stops(bright, GREY),
            over_face_stops: stops(bright, told.face_signal),
            shown: [red, green, blue],
            clips: mean.max_element() >= exposure.clips_at,
        })
    }
}

impl Now {
    fn signal(&self) -> (Vec<Vec3>, Told) {
        let Staged { groups, exposure, things, scene, face_spots, .. } = &self.staged;
        let signal = mixed(&self.shown, groups, exposure);
        let places: Vec<Option<[f32; 2]>> =
            face_spots.iter().map(|spot| scene.lens().project(*spot).map(|(at, _)| at)).collect();
        let told = overlay::told(&signal, self.shown.width, &self.shown.seen, things, exposure, &places);
        (signal, told)
    }
}

fn mixed(frame: &Frame, groups: &[Group], exposure: &Exposure) -> Vec<Vec3> {
    develop::mixed(&frame.light, groups.len().max(1), &develop::worth(groups, exposure))
}

fn frame(film: &Film, dials: [f32; GROUPS]) -> Frame {
    Frame {
        width: film.width,
        height: film.height,
        samples: film.rounds,
        light: smoothed(film, dials),
        seen: film.things.clone(),
    }
}

/// Everything that asks for new samples when it changes: the plan without dials, colours of light and what only mixes anew. With
/// more lights than groups some share one, and their dials are in its picture.
fn key_of(plan: &Plan) -> Vec<u8> {
    let mut plan = plan.clone();
    let camera = &mut plan.layout.camera;
    (camera.shutter_s, camera.iso, camera.nd_stops) = (0.02, 100.0, 0.0);
    (camera.frame_rate_hz, camera.white_balance_k) = (25.0, 5600.0);
    if plan.layout.lights.len() <= GROUPS - 2 {
        for light in plan.layout.lights.values_mut() {
            light.dim = 1.0;
            (light.cct_k, light.gel, light.colour) = (None, None, None);
            light.locked = false;
        }
    }
    serde_json::to_vec(&(
        plan.brief.windows_shine(),
        plan.brief.room,
        plan.brief.person,
        plan.brief.purpose,
        plan.brief.gear,
        plan.layout,
    ))
    .unwrap_or_default()
}
