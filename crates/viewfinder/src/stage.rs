//! A plan as a scene: room, furniture, person, what has been set up, what shines. Bodies that stay the same are kept.

mod dressing;
mod furniture;
pub mod lamps;
mod person;
mod room;
mod set_up;
mod shapes;
pub mod things;

use std::sync::Arc;

use fogon_core::corner::Corner;
use fogon_core::day::HourLight;
use fogon_figure::{Head, Setting};
use glam::Vec3;
use serde::Serialize;

use crate::body::{Body, Maker};
use crate::bounce::Sights;
use crate::develop::Exposure;
use crate::lens::Lens;
use crate::scene::{Placed, Scene};
use crate::tree::Walk;
use lamps::{Group, Shining};
use things::Things;

/// A plan as it is put before the lens.
pub struct Staged {
    /// What is seen.
    pub scene: Arc<Scene>,
    /// What patches that stay see of each other.
    pub sights: Arc<Sights>,
    /// The lights that are kept apart.
    pub groups: Vec<Group>,
    /// What is there, by number.
    pub things: Things,
    /// How the camera is set.
    pub exposure: Exposure,
    /// Places on the face at which light is told, m.
    pub face_spots: Vec<Vec3>,
}

impl Staged {
    /// A scene that was put together by hand.
    pub fn new(scene: Scene, groups: Vec<Group>, things: Things, walk: Walk) -> Self {
        let sights = Arc::new(Sights::of_staying(&scene, walk));
        let exposure = Exposure { signal_per_cd_m2: 1.0, clips_at: 1.0, white_balance_k: 6504.0 };
        Self { scene: Arc::new(scene), sights, groups, things, exposure, face_spots: Vec::new() }
    }
}

/// What it is made of stays the same while this does.
type Key = Vec<u8>;

/// Bodies of the plan seen last, so that a lamp that moves costs no new room and no new person.
#[derive(Default)]
pub struct Stage {
    room: Option<(Key, Arc<Body>)>,
    head: Option<Arc<Head>>,
    person: Option<(Key, PersonBodies)>,
    sights: Option<(Key, Arc<Sights>)>,
    things: Things,
}

#[derive(Clone)]
struct PersonBodies {
    whole: Arc<Body>,
    glass: Option<Arc<Body>>,
}

impl Stage {
    /// A corner as a scene.
    pub fn staged(&mut self, corner: &Corner<'_>, walk: Walk) -> Staged {
        self.staged_at(corner, None, walk)
    }

    /// The same at an hour of the day.
    pub fn staged_at(&mut self, corner: &Corner<'_>, hour: Option<&HourLight>, walk: Walk) -> Staged {
        let shining = Shining::of(corner, hour);
        let room_key = room_key(corner, &shining);
        let room = match &self.room {
            Some((key, body)) if *key == room_key => body.clone(),
            _ => {
                let body = Arc::new(room_body(corner, &mut self.things, &shining));
                self.room = Some((room_key.clone(), body.clone()));
                body
            }
        };
        let setting = person::setting(corner);
        let person = self.person(corner, &setting);
        let mut maker = Maker::default();
        set_up::add(&mut maker, &mut self.things, corner, &shining);
        dressing::treatment(&mut maker, &mut self.things, corner);
        let set_up = Arc::new(maker.made());
        let bodies = vec![
            Placed::new(room, glam::Affine3A::IDENTITY),
            person::placed(&person.whole, corner, &setting),
            Placed::new(set_up, glam::Affine3A::IDENTITY),
        ];
        let glass = person.glass.as_ref().map(|body| person::placed(body, corner, &setting));
        let groups = shining.groups.len();
        let scene = Scene::new(bodies, 2, glass, shining.sources, groups, Lens::of(corner));
        let sights_key = [
            room_key,
            person_key(corner, &setting),
            key(&person::place(corner, &setting).to_cols_array().to_vec()),
        ]
        .concat();
        let sights = match &self.sights {
            Some((key, sights)) if *key == sights_key => sights.clone(),
            _ => {
                let sights = Arc::new(Sights::of_staying(&scene, walk));
                self.sights = Some((sights_key, sights.clone()));
                sights
            }
        };
        let scene = Arc::new(scene);
        Staged {
            scene,
            sights,
            groups: shining.groups,
            things: self.things.clone(),
            exposure: Exposure::of(corner),
            face_spots: person::face_spots(corner, &setting),
        }
    }

    /// The lights of a corner as they are set now, in the order in which a picture of it keeps them apart.
    pub fn groups(&self, corner: &Corner<'_>, hour: Option<&HourLight>) -> Vec<Group> {
        Shining::of(corner, hour).groups
    }

    fn person(&mut self, corner: &Corner<'_>, setting: &Setting) -> PersonBodies {
        let own = person_key(corner, setting);
        if let Some((key, bodies)) = &self.person
            && *key == own
        {
            return bodies.clone();
        }
        let head = self.head.get_or_insert_with(person::head);
        let (whole, glass) = person::body(head, setting, &person::looks(corner.brief), &mut self.things);
        let bodies = PersonBodies { whole: Arc::new(whole), glass: glass.map(Arc::new) };
        self.person = Some((own, bodies.clone()));
        bodies
    }
}

fn key(value: &impl Serialize) -> Key {
    serde_json::to_vec(value).unwrap_or_default()
}

/// Everything that the room's body hangs on: with it the numbers of what shines in it.
fn room_key(corner: &Corner<'_>, shining: &Shining) -> Key {
    let room = &corner.brief.room;
    let windows: Vec<Option<u16>> = room.openings.keys().map(|id| shining.of_window(id)).collect();
    let shades: Vec<Option<u16>> = room.furniture.keys().map(|id| shining.of_shade(id)).collect();
    key(&(room, &corner.layout.furniture, corner.backdrop, windows, shades))
}

fn person_key(corner: &Corner<'_>, setting: &Setting) -> Key {
    let Setting { floor, seat, table, plays, head_turn, looks_at } = *setting;
    let person = &corner.brief.person;
    let worn = (person.clothing_reflectance, person.clothing_colour, person.glasses);
    key(&(
        person.skin_reflectance,
        person.hair,
        worn,
        floor,
        seat,
        table,
        plays,
        head_turn,
        looks_at.to_array(),
    ))
}

fn room_body(corner: &Corner<'_>, things: &mut Things, shining: &Shining) -> Body {
    let mut maker = Maker::default();
    room::add(&mut maker, things, corner, |id| shining.of_window(id));
    furniture::add(&mut maker, things, corner, |id| shining.of_shade(id));
    dressing::dress(&mut maker, things, corner);
    set_up::backdrop(&mut maker, things, corner);
    maker.made()
}
