//! The plan resolved: ids looked up, positions as vectors, the lens as a pinhole, and everything that takes
//! up room as solids. Every trade, the drawings and the legal rules read this and nothing below it.

mod angle_at;
mod camera;
mod carried;
mod carrier;
mod doors;
mod figure;
mod furniture;
mod kit;
mod lamp;
mod legs;
mod light_at;
mod pane;
mod placed;
mod seen;
mod shell;
mod support;
mod thing;
mod things;
mod usual;

use crate::geometry::{DVec2, DVec3, Pinhole, bearing_of, bearing_vector, distance_to_edge, whole_steps};
use crate::person::{Landmarks, landmarks_of};
use crate::plan::{
    Backdrop, BackdropType, Brief, Furniture, Gear, GearBackdrop, GearCamera, GearLens, GearMicrophone,
    GearMonitor, GearSupport, Id, Layout, Look, Mounting, Named, Orientation, Plan, Purpose, Role, Room,
    ScreenType, Support, SupportKind, ThingId, WALL_NAMES, name_of,
};
use crate::problem::{Code, Problem};

pub use angle_at::{AngleAt, image_distance_mm};
pub use camera::{behind_sensor_m, held_below_m, is_flat};
pub use carried::Carried;
pub use carrier::{Carrier, STACK_M, stands_on};
pub use doors::door_swing;
pub(crate) use figure::EXIT_M;
pub use figure::{FaceMarks, exit_spaces, face_marks, head};
pub use kit::{Kit, Link, Unmet, unmet_needs, works};
pub use lamp::{carry_light, is_of_the_house, lamp_offsets, light_head, light_thing};
pub use light_at::{LightAt, Source};
pub use pane::Pane;
pub use placed::PlacedThing;
pub use seen::shown;
pub use shell::{Bound, bounds, is_blocked};
pub(crate) use support::{FOOT_RADIUS_M, base_of, foot_radius_m};
pub use thing::{Kind, Piece, Stand, Thing, What};
pub(crate) use things::BACKDROP_FOOT_M;
pub use things::{
    angle_thing, backdrop_thing, is_worn, microphone_tail_m, microphone_thing, screen_thing, things,
};
pub use usual::built_in;

/// What a microphone keeps from the picture's edge, m.
pub const MICROPHONE_MARGIN_M: f64 = 0.10;
/// A slope behind the head is looked for every so often, m.
const BEHIND_STEP_M: f64 = 0.02;
/// The mouth lies this far in front of the eyes' plumb line, m. Fogon's own rule.
const MOUTH_FORWARD_M: f64 = 0.02;
/// The instrument is held so far before the eyes, m. Fogon's own rule.
const INSTRUMENT_AHEAD_M: f64 = 0.20;

/// A plan as vectors and looked-up gear.
#[derive(Debug, Clone)]
pub struct Corner<'a> {
    /// What is given.
    pub brief: &'a Brief,
    /// What is chosen.
    pub layout: &'a Layout,
    /// Heights of the person.
    pub landmarks: Landmarks,
    /// Mid-point of the eyes, m.
    pub eyes_m: DVec3,
    /// Mouth, m.
    pub mouth_m: DVec3,
    /// Body of the camera.
    pub body: &'a GearCamera,
    /// Its lens.
    pub lens: &'a GearLens,
    /// Width and height of the delivered image as the camera is turned, mm: the active area, less what a crop takes.
    pub image_mm: (f64, f64),
    /// Image distance, mm.
    pub image_distance_mm: f64,
    /// The projection.
    pub view: Pinhole,
    /// Lights in the layout.
    pub lights: Vec<LightAt<'a>>,
    /// The microphone's gear and capsule, m.
    pub microphone: Option<(&'a GearMicrophone, DVec3)>,
    /// The screen's gear and the middle of its picture, m.
    pub screen: Option<(&'a GearMonitor, DVec3)>,
    /// Second angles.
    pub angles: Vec<AngleAt<'a>>,
    /// The backdrop's gear and its place.
    pub backdrop: Option<(&'a GearBackdrop, &'a Backdrop)>,
    /// Floor outline, m.
    pub floor_m: Vec<DVec2>,
    /// Width, depth and height of the box that holds the room, m.
    pub room_m: [f64; 3],
}

impl<'a> Corner<'a> {
    /// Resolves a checked plan. `None` if an id names nothing or the camera is focused inside its focal length,
    /// which `Plan::check` and the schema keep from happening.
    pub fn of(plan: &'a Plan) -> Option<Self> {
        Self::from_parts(&plan.brief, &plan.layout)
    }

    /// As [`Corner::of`], for whoever was handed the plan.
    ///
    /// # Errors
    /// An id names nothing.
    pub fn resolved(plan: &'a Plan) -> Result<Self, Problem> {
        Self::of(plan).ok_or_else(unresolved)
    }

    /// As [`Corner::of`], from the two halves of a plan.
    pub fn from_parts(brief: &'a Brief, layout: &'a Layout) -> Option<Self> {
        let gear = |id: &Id| brief.gear.get(id);
        let landmarks = landmarks_of(brief);
        let seat: DVec2 = layout.seat.position_m.into();
        let eyes_m = seat.extend(landmarks.eye_m);
        let facing = bearing_vector(layout.seat.bearing_deg);
        let mouth_m = seat.extend(landmarks.mouth_m) + facing * MOUTH_FORWARD_M;
        let camera = &layout.camera;
        let body = gear(&camera.body)?.camera()?;
        let lens = gear(&camera.lens)?.lens()?;
        let (long, short) = body.active_area_mm();
        let (long, short) = (long / camera.crop, short / camera.crop);
        let image_mm =
            if camera.orientation == Orientation::Landscape { (long, short) } else { (short, long) };
        let image_distance_mm = image_distance_mm(camera.focal_length_mm, camera.focus_distance_m)?;
        let position_m: DVec3 = camera.position_m.into();
        let view = Pinhole::new(
            position_m,
            camera.bearing_deg,
            camera.tilt_deg,
            image_mm.0,
            image_mm.1,
            image_distance_mm,
        );
        let mut lights = Vec::with_capacity(layout.lights.len());
        for (id, light) in &layout.lights {
            let source = match gear(&light.gear)? {
                Gear::Light(lamp) => Source::Lamp(lamp),
                Gear::Reflector(board) => Source::Board(board),
                _ => return None,
            };
            lights.push(LightAt {
                id,
                light,
                source,
                position_m: light.position_m.into(),
                aim_m: light.aim_m.map_or(eyes_m, DVec3::from),
                cloth: match &light.cloth {
                    Some(cloth) => Some((gear(&cloth.gear)?.reflector()?, cloth.ahead_m)),
                    None => None,
                },
            });
        }
        let microphone = match &layout.microphone {
            Some(used) => Some((gear(&used.gear)?.microphone()?, DVec3::from(used.position_m))),
            None => None,
        };
        let screen = match &layout.screen {
            Some(used) => Some((gear(&used.gear)?.monitor()?, DVec3::from(used.position_m))),
            None => None,
        };
        let backdrop = match &layout.backdrop {
            Some(used) => Some((gear(&used.gear)?.backdrop()?, used)),
            None => None,
        };
        let turn_deg = layout.seat.bearing_deg;
        let angles: Option<Vec<_>> = layout
            .angles
            .iter()
            .map(|(id, angle)| AngleAt::of(id, angle, gear(&angle.body)?, gear(&angle.lens)?, turn_deg))
            .collect();
        Some(Self {
            brief,
            angles: angles?,
            layout,
            landmarks,
            eyes_m,
            mouth_m,
            body,
            lens,
            image_mm,
            image_distance_mm,
            view,
            lights,
            microphone,
            screen,
            backdrop,
            floor_m: brief.room.outline(),
            room_m: brief.room.dimensions_m(),
        })
    }

    /// Name of a thing in ids and answers.
    pub fn name(&self, thing: &ThingId) -> String {
        name_of(self.brief, self.layout, thing)
    }

    /// A thing with its name.
    pub fn named(&self, thing: ThingId) -> Named {
        Named { name: self.name(&thing), id: thing }
    }

    /// The microphone that hears the voice and where its capsule is: that of the layout, else the camera's own.
    pub fn heard_by(&self) -> (&'a GearMicrophone, DVec3) {
        self.microphone.unwrap_or_else(|| (built_in(), self.view.position_m))
    }

    /// No microphone but the camera's own.
    pub fn hears_by_camera(&self) -> bool {
        self.microphone.is_none_or(|(gear, _)| gear.mounting == Mounting::BuiltIn)
    }

    /// Horizontal unit vector from the eyes to the lens.
    pub fn to_lens(&self) -> DVec3 {
        let flat = (self.view.position_m - self.eyes_m).with_z(0.0);
        flat.try_normalize().unwrap_or_else(|| bearing_vector(self.layout.seat.bearing_deg))
    }

    /// From the eyes, level and away from the lens, to what lies behind: backdrop, wall or slope, m.
    pub fn background_behind_m(&self) -> f64 {
        let wall = self.wall_behind_m() - self.wall_behind().map_or(0.0, |(_, look)| look.depth_m());
        self.backdrop_behind_m().map_or(wall, |backdrop| backdrop.min(wall))
    }

    /// As [`Self::background_behind_m`], whatever hangs before the wall.
    pub fn wall_behind_m(&self) -> f64 {
        behind_m(&self.brief.room, &self.floor_m, self.eyes_m, -self.to_lens().truncate())
    }

    /// To the backdrop, where the line from the lens through the eyes meets it, m.
    pub fn backdrop_behind_m(&self) -> Option<f64> {
        let (gear, backdrop) = self.backdrop?;
        let face = bearing_vector(backdrop.bearing_deg).truncate();
        let away = -self.to_lens().truncate();
        let off = DVec2::from(backdrop.position_m) - self.eyes_m.truncate();
        let closing = -away.dot(face);
        let distance = -off.dot(face) / closing;
        let beside = (away * distance - off).perp_dot(face).abs();
        (closing > 1e-6 && distance > 0.0 && beside <= gear.width_m / 2.0 && gear.height_m > self.eyes_m.z)
            .then_some(distance)
    }

    /// Whether a screen or a wall of one colour that can be keyed out is behind the person.
    pub fn has_key_screen(&self) -> bool {
        let screen = self.backdrop.is_some_and(|(gear, _)| gear.backdrop == BackdropType::Chroma);
        (screen && self.backdrop_behind_m().is_some())
            || self.wall_behind().is_some_and(|(_, look)| look == Look::Chroma)
    }

    /// The wall that the line from the lens through the eyes meets: its number and how it is done up.
    pub fn wall_behind(&self) -> Option<(usize, Look)> {
        let away = -self.to_lens().truncate();
        let wall = self.brief.room.wall_met(self.eyes_m.truncate(), away)?;
        let look = self.brief.room.surfaces.get(WALL_NAMES[wall]).map_or(Look::Plain, |s| s.look);
        Some((wall, look))
    }

    /// Lenses that can be used on the camera: the one in use, then others at hand that fit its body.
    pub fn lenses(&self) -> impl Iterator<Item = (&'a Id, &'a GearLens)> {
        let (brief, camera) = (self.brief, &self.layout.camera);
        let at_hand = brief.gear.iter().filter(|(_, gear)| gear.at_hand());
        let others = at_hand
            .filter_map(|(id, gear)| Some((id, gear.lens()?)))
            .filter(move |(id, lens)| **id != camera.lens && brief.mounts(&camera.body, lens));
        std::iter::once((&camera.lens, self.lens)).chain(others)
    }

    /// There is more than one focal length to choose from: the lens zooms, or another fits the camera.
    pub fn chooses_focal_length(&self) -> bool {
        self.lens.zooms() || self.lenses().nth(1).is_some()
    }

    /// The first of [`Self::lenses`] that has a focal length.
    pub fn lens_for(&self, focal_length_mm: f64) -> Option<(&'a Id, &'a GearLens)> {
        let has = |lens: &GearLens| {
            (lens.focal_min_mm - 0.05..=lens.focal_max_mm + 0.05).contains(&focal_length_mm)
        };
        self.lenses().find(|(_, lens)| has(lens))
    }

    /// The screen hangs on the camera, on no stand or furniture of its own.
    pub fn screen_is_on_camera(&self) -> bool {
        self.layout
            .screen
            .as_ref()
            .is_some_and(|used| used.support.kind == SupportKind::On && used.support.on.is_none())
    }

    /// Light that a script glass keeps from the lens, stops.
    pub fn glass_stops(&self) -> f64 {
        match self.screen {
            Some((screen, _)) if screen.screen == ScreenType::Script => -screen.script_transmittance().log2(),
            _ => 0.0,
        }
    }

    /// Room behind the sensor that the camera needs where it is, m.
    pub fn behind_sensor_m(&self) -> f64 {
        behind_sensor_m(self.body, self.lens, self.layout.camera.support.kind)
    }

    /// Where what is recorded comes from, m: the mouth; of a performance the middle between mouth and instrument, which is held
    /// before the waist.
    pub fn sounds_from_m(&self) -> DVec3 {
        if self.brief.purpose != Purpose::Performance {
            return self.mouth_m;
        }
        let seat: DVec2 = self.layout.seat.position_m.into();
        let ahead = bearing_vector(self.layout.seat.bearing_deg) * INSTRUMENT_AHEAD_M;
        (self.mouth_m + seat.extend(self.landmarks.waist_m) + ahead) / 2.0
    }

    /// What a microphone is aimed at, m: one that is worn or on the camera at the mouth.
    pub fn aimed_at_m(&self, gear: &GearMicrophone) -> DVec3 {
        if is_worn(gear.mounting) { self.mouth_m } else { self.sounds_from_m() }
    }

    /// From the lens straight to the eyes, as a tape measures it, m.
    pub fn lens_to_eyes_m(&self) -> f64 {
        (self.view.position_m - self.eyes_m).length()
    }

    /// Depth of the eyes along the optical axis, m: what framing and focus go by.
    pub fn subject_distance_m(&self) -> f64 {
        self.view.depth_m(self.eyes_m)
    }

    /// Light azimuth (positive to camera right) and elevation of a point as seen from the eyes, degrees.
    pub fn light_angles_deg(&self, point: DVec3) -> (f64, f64) {
        light_angles_deg(self.eyes_m, self.to_lens(), point)
    }

    /// The lights of one role.
    pub fn role(&self, role: Role) -> impl Iterator<Item = &LightAt<'a>> {
        self.lights.iter().filter(move |l| l.light.role == role)
    }

    /// Position and bearing of a piece of furniture as it stands in this layout.
    pub fn furniture_at(&self, id: &Id, piece: &Furniture) -> (DVec3, f64) {
        match self.layout.furniture.get(id) {
            Some(moved) if !piece.fixed => (moved.position_m.into(), moved.bearing_deg),
            _ => (piece.position_m.into(), piece.bearing_deg),
        }
    }

    /// The stand's gear behind a support, if it names one.
    pub fn support_gear(&self, support: &Support) -> Option<&'a GearSupport> {
        support.gear.as_ref().and_then(|id| self.brief.gear.get(id)).and_then(Gear::support)
    }
}

/// Refuses a plan whose ids name nothing.
pub fn unresolved() -> Problem {
    Problem::new("layout", "ids", "ids that name gear of the brief", Code::UnknownId)
}

/// Level distance from a point to a wall, or to where a slope or a beam comes down to its height, m.
pub fn behind_m(room: &Room, floor_m: &[DVec2], from: DVec3, direction: DVec2) -> f64 {
    let wall = distance_to_edge(floor_m, from.truncate(), direction);
    if room.slopes.is_empty() && room.beams.is_empty() {
        return wall;
    }
    let steps = whole_steps(wall, BEHIND_STEP_M);
    (1..=steps)
        .map(|step| step as f64 * BEHIND_STEP_M)
        .find(|off| room.ceiling_m(from.truncate() + direction * *off) < from.z)
        .unwrap_or(wall)
}

/// Light azimuth and elevation of a point from the eyes; `to_lens` is the horizontal direction to the lens.
pub fn light_angles_deg(eyes_m: DVec3, to_lens: DVec3, point: DVec3) -> (f64, f64) {
    let offset = point - eyes_m;
    let flat = offset.x.hypot(offset.y);
    let azimuth =
        if flat < 1e-9 { 0.0 } else { crate::geometry::wrap_180(bearing_of(to_lens) - bearing_of(offset)) };
    (azimuth, offset.z.atan2(flat).to_degrees())
}

/// Unit vector from the eyes to a light of the given azimuth and elevation.
pub fn light_direction(to_lens: DVec3, azimuth_deg: f64, elevation_deg: f64) -> DVec3 {
    let (sin, cos) = elevation_deg.to_radians().sin_cos();
    bearing_vector(bearing_of(to_lens) - azimuth_deg) * cos + DVec3::Z * sin
}
