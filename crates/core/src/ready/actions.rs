//! What has to be done, and what before what, until a corner that was put away can record.

use super::action::{WALKS_M_S, usual};
use super::parked::{Parked, words};
use crate::corner::{Corner, Kit, LightAt, PlacedThing, Source, is_flat, is_of_the_house};
use crate::light::house;
use crate::plan::{
    ActionKind, GearCamera, GearLens, Hung, Id, Mounting, Posture, Support, SupportKind, ThingId,
};
use crate::power::takes_mains;
use crate::reading::Origin;
use crate::sound::record::record;
use crate::units::{capital, lower_first};

/// An action and what must be done before it.
#[derive(Debug, Clone)]
pub(super) struct Action {
    /// Its name: what is done, and to what.
    pub id: String,
    pub kind: ActionKind,
    pub what: String,
    /// Letter of the mark that it comes to; empty for most.
    pub letter: String,
    pub seconds: f64,
    pub by_hand: bool,
    /// Assumed, or timed by the person.
    pub from: Origin,
    /// Actions before it, by their places.
    pub after: Vec<usize>,
}

/// What could be otherwise, to see what it would gain.
#[derive(Debug, Clone, Copy, Default)]
pub(super) struct Otherwise {
    /// Every stand rolls.
    pub rolls: bool,
    pub one_switch: bool,
    pub plate: bool,
    /// Lamps stay on wall, desk or ceiling.
    pub lamps_stay: bool,
    /// The backdrop is let down from wall or ceiling.
    pub lets_down: bool,
    /// No mark is on the floor.
    pub unmarked: bool,
}

/// Everything that has to be done.
pub(super) fn actions(
    corner: &Corner<'_>,
    parked: &[(Parked, Vec<ThingId>)],
    otherwise: Otherwise,
) -> Vec<Action> {
    let habits = &corner.brief.habits;
    let otherwise = Otherwise {
        one_switch: otherwise.one_switch || habits.one_switch,
        plate: otherwise.plate || habits.plate,
        ..otherwise
    };
    let (kit, placed) = (Kit::of(corner), corner.placed());
    let mut doing = Doing { corner, kit, parked, otherwise, placed, brought: Vec::new(), all: Vec::new() };
    doing.all_of_it();
    doing.all
}

struct Doing<'c, 'a> {
    corner: &'c Corner<'a>,
    kit: Kit<'a>,
    parked: &'c [(Parked, Vec<ThingId>)],
    otherwise: Otherwise,
    placed: Vec<PlacedThing<'a>>,
    brought: Vec<Brought>,
    all: Vec<Action>,
}

/// A stand that comes to its mark, with what is on it; what is on none stays where it is.
#[derive(Clone)]
struct Brought {
    things: Vec<ThingId>,
    /// The action that brings it.
    by: usize,
    rolls: bool,
    /// The plug of everything that rolls on it, once it is in.
    plug: Option<usize>,
}

impl Doing<'_, '_> {
    fn add(&mut self, kind: ActionKind, thing: &str, what: String, after: Vec<usize>) -> usize {
        self.add_over(kind, thing, what, after, 0.0, None)
    }

    fn add_over(
        &mut self,
        kind: ActionKind,
        thing: &str,
        what: String,
        after: Vec<usize>,
        way_m: f64,
        seconds: Option<f64>,
    ) -> usize {
        let (usual_s, by_hand) = usual(kind);
        // There and back with the stand in hand.
        let usual_s = seconds.unwrap_or(usual_s) + 2.0 * way_m / WALKS_M_S;
        let timed = self.corner.brief.habits.times_s.of(kind);
        let (seconds, from) = timed.map_or((usual_s, Origin::Assumed), |timed| (timed, Origin::Measured));
        let id = format!("{}.{thing}", name(kind));
        self.all.push(Action {
            id,
            kind,
            what: capital(&what),
            letter: String::new(),
            seconds,
            by_hand,
            from,
            after,
        });
        self.all.len() - 1
    }

    fn all_of_it(&mut self) {
        let mut seen = Vec::new();
        let mut heard = vec![self.quiet()];
        if self.corner.brief.person.posture == Posture::Seated {
            let measured = self.measured("seat", &[]);
            let chair = self.add(ActionKind::Chair, "seat", "put the chair on its mark".into(), measured);
            self.all[chair].letter = "S".to_owned();
            seen.push(chair);
            heard.push(chair);
        }
        self.bring();
        let camera = self.started(&ThingId::Camera, &self.corner.layout.camera.support);
        seen.push(camera);
        seen.extend(self.lights());
        seen.extend(self.backdrop());
        seen.extend(self.screen(camera));
        seen.extend(self.angles());
        let microphone = self.microphone();
        let apart = record(self.corner).path.is_apart() && self.kit.input(&ThingId::Microphone).is_some();
        heard.push(if apart {
            let after = microphone.clone();
            let started = self.add(ActionKind::Start, "recorder", "switch on the recorder".into(), after);
            self.add(ActionKind::Starting, "recorder", "the recorder starts".into(), vec![started])
        } else {
            camera
        });
        heard.extend(microphone);
        self.add(ActionKind::CheckPicture, "camera", "look at the picture: framing and focus".into(), seen);
        self.add(ActionKind::CheckSound, "microphone", "record a sentence and listen to it".into(), heard);
    }

    fn quiet(&mut self) -> usize {
        let room = &self.corner.brief.room;
        let cover = room.has_window() && !self.corner.brief.windows_shine();
        let told = [
            cover.then_some("cover the window"),
            house::before_a_take(self.corner),
            Some("phone and fridge silent"),
        ];
        let told: Vec<&str> = told.into_iter().flatten().collect();
        self.add(ActionKind::Quiet, "room", told.join(", "), Vec::new())
    }

    /// Where no mark is, a place is measured first.
    fn measured(&mut self, thing: &str, after: &[usize]) -> Vec<usize> {
        let mut after = after.to_vec();
        if self.otherwise.unmarked {
            let what = format!("measure where the {thing} goes");
            after.push(self.add(ActionKind::Measure, thing, what, after.clone()));
        }
        after
    }

    /// Every stand comes to its mark.
    fn bring(&mut self) {
        for (stand, things) in self.parked {
            let lamps_alone = things.iter().all(|thing| matches!(thing, ThingId::Light(_)));
            let is_backdrop = things.first() == Some(&ThingId::Backdrop);
            if stand.stays || (lamps_alone && self.otherwise.lamps_stay) || is_backdrop {
                continue;
            }
            let rolls = stand.rolls || self.otherwise.rolls;
            let (kind, verb) = if rolls { (ActionKind::Roll, "roll") } else { (ActionKind::Carry, "carry") };
            let measured = self.measured(&stand.what, &[]);
            let what = format!("{verb} {} to its mark", the(&stand.what));
            let by = self.add_over(kind, &stand.id, what, measured, stand.way_m, None);
            self.all[by].letter.clone_from(&stand.letter);
            self.brought.push(Brought { things: things.clone(), by, rolls, plug: None });
        }
    }

    fn brought(&self, thing: &ThingId) -> Option<Brought> {
        self.brought.iter().find(|stand| stand.things.contains(thing)).cloned()
    }

    fn called(&self, thing: &ThingId) -> String {
        the(&words(&self.placed, std::slice::from_ref(thing)))
    }

    /// A camera comes to where it stands and is switched on; its last action.
    fn started(&mut self, thing: &ThingId, support: &Support) -> usize {
        let (id, called) = (self.corner.name(thing), self.called(thing));
        let mut after = Vec::new();
        match self.brought(thing) {
            Some(stand) if stand.rolls => after.push(stand.by),
            Some(stand) => {
                let level =
                    self.add(ActionKind::Level, &id, format!("level {called}'s stand"), vec![stand.by]);
                let (kind, what) = match self.body(thing) {
                    Some((body, lens)) if is_flat(body, lens) => {
                        (ActionKind::SetDown, format!("put {called} into its holder"))
                    }
                    _ if self.otherwise.plate => (ActionKind::Clip, format!("clip {called} to its stand")),
                    _ => (ActionKind::Mount, format!("screw {called} to its stand")),
                };
                after.push(self.add(kind, &id, what, vec![level]));
            }
            None if matches!(support.kind, SupportKind::On | SupportKind::Clamp)
                && !self.is_webcam(thing) =>
            {
                let measured = self.measured(&id, &[]);
                let where_to = if support.kind == SupportKind::Clamp { "its clamp" } else { "its place" };
                after.push(self.add(
                    ActionKind::SetDown,
                    &id,
                    format!("put {called} into {where_to}"),
                    measured,
                ));
            }
            None => {}
        }
        let start = self.add(ActionKind::Start, &id, format!("switch on {called}"), after);
        self.add(ActionKind::Starting, &id, format!("{called} starts"), vec![start])
    }

    /// Body and lens of a camera.
    fn body(&self, thing: &ThingId) -> Option<(&GearCamera, &GearLens)> {
        if *thing == ThingId::Camera {
            return Some((self.corner.body, self.corner.lens));
        }
        let angle = self.corner.angles.iter().find(|angle| ThingId::Angle(angle.id.clone()) == *thing)?;
        Some((angle.body, angle.lens))
    }

    /// A camera that hangs on the computer stays there.
    fn is_webcam(&self, thing: &ThingId) -> bool {
        self.body(thing).is_some_and(|(body, _)| body.common.needs.iter().any(|need| need == "usb-input"))
    }

    fn angles(&mut self) -> Vec<usize> {
        let all = self.corner.layout.angles.iter();
        all.map(|(id, angle)| self.started(&ThingId::Angle(id.clone()), &angle.support)).collect()
    }

    /// Plugs, switches and dials of all lamps, and boards put up; the last action of each.
    fn lights(&mut self) -> Vec<usize> {
        let corner = self.corner;
        let mut last = Vec::new();
        let mut lamps = Vec::new();
        for light in &corner.lights {
            let thing = ThingId::Light(light.id.clone());
            let (id, called) = (corner.name(&thing), self.called(&thing));
            let after: Vec<usize> = match (self.brought(&thing), light.source) {
                (Some(stand), Source::Lamp(_)) if takes_mains(light) => {
                    vec![self.plugged(&stand, &id, &called)]
                }
                (Some(stand), _) => vec![stand.by],
                (None, Source::Board(_)) => {
                    let measured = self.measured(&id, &[]);
                    vec![self.add(ActionKind::SetDown, &id, format!("put up {called}"), measured)]
                }
                (None, Source::Lamp(_)) => Vec::new(),
            };
            match light.source {
                Source::Board(_) => last.extend(after),
                Source::Lamp(lamp) => lamps.push((light, lamp, after)),
            }
        }
        let on_strip = |light: &LightAt<'_>| !is_of_the_house(light);
        let is_one =
            self.otherwise.one_switch && lamps.iter().filter(|(light, ..)| on_strip(light)).count() > 1;
        let strip = is_one.then(|| {
            let after = lamps.iter().flat_map(|(.., after)| after.clone()).collect();
            self.add(ActionKind::Switch, "strip", "switch on the strip with all lamps".into(), after)
        });
        for (light, lamp, after) in lamps {
            let thing = ThingId::Light(light.id.clone());
            let (id, called) = (corner.name(&thing), self.called(&thing));
            let switch = match strip.filter(|_| on_strip(light)) {
                Some(strip) => strip,
                None => self.add(ActionKind::Switch, &id, format!("switch on {called}"), after),
            };
            last.push(if light.light.dim < 0.995 {
                self.add(ActionKind::Dial, &id, format!("set the dial of {called}"), vec![switch])
            } else {
                switch
            });
            if let Some(seconds) = lamp.settles_s.filter(|seconds| *seconds > 0.0) {
                let what = format!("the light of {called} settles");
                last.push(self.add_over(ActionKind::Settling, &id, what, vec![switch], 0.0, Some(seconds)));
            }
        }
        last
    }

    /// A lamp on a stand is plugged in; of everything that rolls on one stand there is one plug.
    fn plugged(&mut self, stand: &Brought, id: &str, called: &str) -> usize {
        if let Some(plug) = stand.plug.filter(|_| stand.rolls) {
            return plug;
        }
        let plug = self.add(ActionKind::Plug, id, format!("plug in {called}"), vec![stand.by]);
        if let Some(own) = self.brought.iter_mut().find(|own| own.by == stand.by) {
            own.plug = Some(plug);
        }
        plug
    }

    fn backdrop(&mut self) -> Option<usize> {
        let (gear, used) = self.corner.backdrop?;
        let label = lower_first(&gear.common.label);
        Some(if used.hung == Hung::Stands && !self.otherwise.lets_down {
            let measured = self.measured("backdrop", &[]);
            let way = self.parked.iter().find(|(_, things)| things.first() == Some(&ThingId::Backdrop));
            let way_m = way.map_or(0.0, |(stand, _)| stand.way_m);
            let what = format!("hang {} on its stands", the(&label));
            self.add_over(ActionKind::Hang, "backdrop", what, measured, way_m, None)
        } else {
            self.add(ActionKind::LetDown, "backdrop", format!("let down {}", the(&label)), Vec::new())
        })
    }

    fn screen(&mut self, camera: usize) -> Option<usize> {
        self.corner.screen?;
        if let Some(stand) = self.brought(&ThingId::Screen) {
            return Some(stand.by);
        }
        let called = self.called(&ThingId::Screen);
        let on_camera = self.corner.screen_is_on_camera();
        on_camera.then(|| {
            self.add(ActionKind::SetDown, "screen", format!("put {called} on the camera"), vec![camera])
        })
    }

    /// What is done until the microphone hears: it comes, or is put on, and every plug towards what records goes in.
    fn microphone(&mut self) -> Vec<usize> {
        let Some((gear, _)) = self.corner.microphone else { return Vec::new() };
        let came = self.brought(&ThingId::Microphone).map(|stand| stand.by);
        let is_put_on = matches!(gear.mounting, Mounting::Lavalier | Mounting::Headset);
        let mut all: Vec<usize> = came.into_iter().collect();
        if is_put_on {
            let what = format!("put on {}", the(&lower_first(&gear.common.label)));
            all.push(self.add(ActionKind::Wear, "microphone", what, Vec::new()));
        } else if came.is_none() {
            // What stays where it is stays plugged in.
            return all;
        }
        let label = |id: &Id| {
            self.corner.brief.gear.get(id).map_or_else(String::new, |gear| lower_first(&gear.common().label))
        };
        let links = self.kit.links.iter();
        let plugs: Vec<String> = links
            .filter(|link| link.of == ThingId::Microphone && link.need.ends_with("input"))
            .map(|link| {
                let into = link.by.map_or_else(|| "computer".to_owned(), label);
                format!("plug {} into {}", the(&label(link.gear)), the(&into))
            })
            .collect();
        for (index, what) in plugs.into_iter().enumerate() {
            let thing =
                if index == 0 { "microphone".to_owned() } else { format!("microphone-{}", index + 1) };
            all.push(self.add(ActionKind::Plug, &thing, what, came.into_iter().collect()));
        }
        all
    }
}

fn the(called: &str) -> String {
    if called.starts_with("the ") { called.to_owned() } else { format!("the {called}") }
}

/// Its name in documents.
fn name(kind: ActionKind) -> String {
    serde_json::to_value(kind).ok().and_then(|value| value.as_str().map(str::to_owned)).unwrap_or_default()
}
