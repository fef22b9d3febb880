//! A plan as a scene: room, furniture, person, what has been set up, what shines. Bodies that stay the same are kept.

mod furniture;
pub mod lamps;
mod person;
mod room;
mod set_up;
mod shapes;
pub mod things;

use std::sync::Arc;

use fogon_core::corner::Corner;
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
    pub scene: Scene,
    /// What patches that stay see of each other.
    pub sights: Arc<Sights>,
    /// The lights that are kept apart.
    pub groups: Vec<Group>,
    /// What is there, by number.
    pub things: Things,
    /// How the camera is set.
    pub exposure: Exposure,
}

/// What it is made of stays the same while this does.
type Key = Vec<u8>;

/// Bodies of the plan seen last, so that a lamp that moves costs no new room and no new person.
#[derive(Default)]
pub struct Stage {
    room: Option<(Key, Arc<Body>)>,
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
        let shining = Shining::of(corner);
        let room_key = room_key(corner, &shining);
        let room = match &self.room {
            Some((key, body)) if *key == room_key => body.clone(),
            _ => {
                let body = Arc::new(room_body(corner, &mut self.things, &shining));
                self.room = Some((room_key.clone(), body.clone()));
                body
            }
        };
        let person = self.person(corner);
        let mut maker = Maker::default();
        set_up::add(&mut maker, &mut self.things, corner, &shining);
        let set_up = Arc::new(maker.made());
        let bodies = vec![
            Placed::new(room, glam::Affine3A::IDENTITY),
            person::placed(&person.whole, corner),
            Placed::new(set_up, glam::Affine3A::IDENTITY),
        ];
        let glass = person.glass.as_ref().map(|body| person::placed(body, corner));
        let groups = shining.groups.len();
        let scene = Scene::new(bodies, 2, glass, shining.sources, groups, Lens::of(corner));
        let sights_key = [room_key, person_key(corner), key(&place_numbers(corner))].concat();
        let sights = match &self.sights {
            Some((key, sights)) if *key == sights_key => sights.clone(),
            _ => {
                let sights = Arc::new(Sights::of_staying(&scene, walk));
                self.sights = Some((sights_key, sights.clone()));
                sights
            }
        };
        Staged { scene, sights, groups: shining.groups, things: self.things.clone(), exposure: Exposure::of(corner) }
    }

    fn person(&mut self, corner: &Corner<'_>) -> PersonBodies {
        let own = person_key(corner);
        if let Some((key, bodies)) = &self.person
            && *key == own
        {
            return bodies.clone();
        }
        let parts = fogon_figure::parts(&person::looks(corner.brief));
        let (whole, glass) = person::body(&parts, &mut self.things);
        let bodies = PersonBodies { whole: Arc::new(whole), glass: glass.map(Arc::new) };
        self.person = Some((own, bodies.clone()));
        bodies
    }
}

fn key(value: &impl Serialize) -> Key {
    serde_json::to_vec(value).unwrap_or_default()
}

/// Everything that the room's body hangs on.
fn room_key(corner: &Corner<'_>, shining: &Shining) -> Key {
    let windows: Vec<bool> =
        corner.brief.room.openings.keys().map(|id| shining.of_window(id).is_some()).collect();
    let numbers: Vec<Option<u16>> = corner
        .brief
        .room
        .openings
        .keys()
        .map(|id| shining.of_window(id))
        .chain(corner.brief.room.furniture.keys().map(|id| shining.of_shade(id)))
        .collect();
    key(&(&corner.brief.room, &corner.layout.furniture, &corner.layout.backdrop, windows, numbers))
}

fn person_key(corner: &Corner<'_>) -> Key {
    key(&(&corner.brief.person, &corner.brief.purpose))
}

fn place_numbers(corner: &Corner<'_>) -> Vec<f32> {
    person::place(corner).to_cols_array().to_vec()
}

fn room_body(corner: &Corner<'_>, things: &mut Things, shining: &Shining) -> Body {
    let mut maker = Maker::default();
    room::add(&mut maker, things, corner, |id| shining.of_window(id));
    furniture::add(&mut maker, things, corner, |id| shining.of_shade(id));
    set_up::backdrop(&mut maker, things, corner);
    maker.made()
}
