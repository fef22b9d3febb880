//! What has to be done, and what before what, until a corner that was put away can record.

use super::action::{WALKS_M_S, usual};
use super::parked::{Parked, words};
use crate::corner::{Corner, Kit, LightAt, PlacedThing, Source, is_of_the_house, is_worn};
use crate::plan::{ActionKind, Hung, Id, OpeningKind, Posture, Support, SupportKind, ThingId};
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
    let mut doing = Doing { corner, parked, otherwise, placed: corner.placed(), all: Vec::new() };
    doing.all_of_it();
    doing.all
}

struct Doing<'c, 'a> {
    corner: &'c Corner<'a>,
    parked: &'c [(Parked, Vec<ThingId>)],
    otherwise: Otherwise,
    placed: Vec<PlacedThing<'a>>,
    all: Vec<Action>,
}

/// How a thing comes to where it works.
enum Comes {
    /// On a stand that comes to its mark.
    OnStand { last: usize, rolls: bool },
    /// It stays where it is.
    Stays,
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
        let stands = self.stands();
        let camera = self.camera(&stands);
        seen.push(camera);
        seen.extend(self.lights(&stands));
        seen.extend(self.backdrop());
        seen.extend(self.screen(&stands, camera));
        seen.extend(self.angles(&stands));
        heard.extend(self.microphone(&stands));
        let kit = Kit::of(self.corner);
        let apart = record(self.corner).path.is_apart() && self.corner.microphone.is_some();
        let records = if apart && kit.links.iter().any(|link| link.of == ThingId::Microphone) {
            let started =
                self.add(ActionKind::Start, "recorder", "switch on the recorder".into(), heard.clone());
            self.add(ActionKind::Starting, "recorder", "the recorder starts".into(), vec![started])
        } else {
            camera
        };
        heard.push(records);
        self.add(ActionKind::CheckPicture, "camera", "look at the picture: framing and focus".into(), seen);
        self.add(ActionKind::CheckSound, "microphone", "record a sentence and listen to it".into(), heard);
    }

    fn quiet(&mut self) -> usize {
        let room = &self.corner.brief.room;
        let window = room.openings.values().any(|opening| opening.kind == OpeningKind::Window);
        let cover = window && !self.corner.brief.windows_shine();
        let house = self.corner.lights.iter().any(is_of_the_house);
        let what = match (cover, house) {
            (true, true) => "cover the window, phone and fridge silent",
            (true, false) => "cover the window, ceiling light off, phone and fridge silent",
            (false, true) => "phone and fridge silent",
            (false, false) => "ceiling light off, phone and fridge silent",
        };
        self.add(ActionKind::Quiet, "room", what.to_owned(), Vec::new())
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

    /// Every stand that comes to its mark, with what is on it.
    fn stands(&mut self) -> Vec<(Vec<ThingId>, usize, bool)> {
        let mut all = Vec::new();
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
            let last = self.add_over(kind, &stand.id, what, measured, stand.way_m, None);
            self.all[last].letter.clone_from(&stand.letter);
            all.push((things.clone(), last, rolls));
        }
        all
    }

    fn comes(&self, stands: &[(Vec<ThingId>, usize, bool)], thing: &ThingId) -> Comes {
        let own = stands.iter().find(|(things, ..)| things.contains(thing));
        own.map_or(Comes::Stays, |(_, last, rolls)| Comes::OnStand { last: *last, rolls: *rolls })
    }

    /// A camera comes to where it stands and is started; its last action.
    fn started(
        &mut self,
        stands: &[(Vec<ThingId>, usize, bool)],
        thing: &ThingId,
        support: &Support,
    ) -> usize {
        let id = self.corner.name(thing);
        let called = words(&self.placed, std::slice::from_ref(thing));
        let mut after = Vec::new();
        match self.comes(stands, thing) {
            Comes::OnStand { last, rolls: true } => after.push(last),
            Comes::OnStand { last, rolls: false } => {
                let level =
                    self.add(ActionKind::Level, &id, format!("level {}'s stand", the(&called)), vec![last]);
                let (kind, how) = if self.otherwise.plate {
                    (ActionKind::Clip, "clip")
                } else {
                    (ActionKind::Mount, "screw")
                };
                after.push(self.add(kind, &id, format!("{how} {} to its stand", the(&called)), vec![level]));
            }
            Comes::Stays if matches!(support.kind, SupportKind::On | SupportKind::Clamp) => {
                let measured = self.measured(&called, &[]);
                let where_to = if support.kind == SupportKind::Clamp { "its clamp" } else { "its place" };
                let what = format!("put {} into {where_to}", the(&called));
                after.push(self.add(ActionKind::SetDown, &id, what, measured));
            }
            Comes::Stays => {}
        }
        let start = self.add(ActionKind::Start, &id, format!("switch on {}", the(&called)), after);
        self.add(ActionKind::Starting, &id, format!("{} starts", the(&called)), vec![start])
    }

    fn camera(&mut self, stands: &[(Vec<ThingId>, usize, bool)]) -> usize {
        let support = &self.corner.layout.camera.support;
        self.started(stands, &ThingId::Camera, support)
    }

    fn angles(&mut self, stands: &[(Vec<ThingId>, usize, bool)]) -> Vec<usize> {
        let layout = self.corner.layout;
        let all = layout.angles.iter();
        all.map(|(id, angle)| self.started(stands, &ThingId::Angle(id.clone()), &angle.support)).collect()
    }

    fn lights(&mut self, stands: &[(Vec<ThingId>, usize, bool)]) -> Vec<usize> {
        let corner = self.corner;
        let mut last = Vec::new();
        let mut plugged: Vec<usize> = Vec::new();
        let mut plugs: Vec<usize> = Vec::new();
        let mut lamps = Vec::new();
        for light in &corner.lights {
            let thing = ThingId::Light(light.id.clone());
            let id = corner.name(&thing);
            let called = words(&self.placed, std::slice::from_ref(&thing));
            let mut after = Vec::new();
            match self.comes(stands, &thing) {
                Comes::OnStand { last: came, rolls } => {
                    after.push(came);
                    // One plug for all that rolls on one stand.
                    if takes_mains(light) && !(rolls && plugged.contains(&came)) {
                        plugged.push(came);
                        let plug =
                            self.add(ActionKind::Plug, &id, format!("plug in {}", the(&called)), vec![came]);
                        plugs.push(plug);
                        after = vec![plug];
                    }
                }
                Comes::Stays if matches!(light.source, Source::Board(_)) => {
                    after = self.measured(&called, &[]);
                    after =
                        vec![self.add(ActionKind::SetDown, &id, format!("put up {}", the(&called)), after)];
                }
                Comes::Stays => {}
            }
            if matches!(light.source, Source::Board(_)) {
                last.extend(after);
            } else {
                lamps.push((light, id, called, after));
            }
        }
        let strip = lamps.iter().filter(|(light, ..)| !is_of_the_house(light)).count() > 1
            && self.otherwise.one_switch;
        let strip = strip.then(|| {
            let after: Vec<usize> = lamps.iter().flat_map(|(.., after)| after.clone()).collect();
            self.add(ActionKind::Switch, "strip", "switch on the strip with all lamps".into(), after)
        });
        for (light, id, called, after) in lamps {
            let switch = match strip.filter(|_| !is_of_the_house(light)) {
                Some(strip) => strip,
                None => self.add(ActionKind::Switch, &id, format!("switch on {}", the(&called)), after),
            };
            let mut lit = switch;
            if light.light.dim < 0.995 {
                lit = self.add(
                    ActionKind::Dial,
                    &id,
                    format!("set the dial of {}", the(&called)),
                    vec![switch],
                );
            }
            last.push(lit);
            if let Source::Lamp(lamp) = light.source
                && let Some(seconds) = lamp.settles_s.filter(|seconds| *seconds > 0.0)
            {
                let what = format!("the light of {} settles", the(&called));
                last.push(self.add_over(ActionKind::Settling, &id, what, vec![switch], 0.0, Some(seconds)));
            }
        }
        last
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

    fn screen(&mut self, stands: &[(Vec<ThingId>, usize, bool)], camera: usize) -> Option<usize> {
        self.corner.screen?;
        let called = words(&self.placed, &[ThingId::Screen]);
        match self.comes(stands, &ThingId::Screen) {
            Comes::OnStand { last, .. } => Some(last),
            Comes::Stays if self.corner.screen_is_on_camera() => {
                let what = format!("put {} on the camera", the(&called));
                Some(self.add(ActionKind::SetDown, "screen", what, vec![camera]))
            }
            Comes::Stays => None,
        }
    }

    /// What is done until the microphone hears: it comes, or is put on, and every plug towards what records goes in.
    fn microphone(&mut self, stands: &[(Vec<ThingId>, usize, bool)]) -> Vec<usize> {
        let Some((gear, _)) = self.corner.microphone else { return Vec::new() };
        let (came, stays) = match self.comes(stands, &ThingId::Microphone) {
            Comes::OnStand { last, .. } => (Some(last), false),
            Comes::Stays => (None, true),
        };
        let mut all: Vec<usize> = came.into_iter().collect();
        let worn = is_worn(gear.mounting) && gear.mounting != crate::plan::Mounting::BuiltIn;
        if worn && gear.mounting != crate::plan::Mounting::OnCamera {
            let what = format!("put on {}", the(&lower_first(&gear.common.label)));
            all.push(self.add(ActionKind::Wear, "microphone", what, Vec::new()));
        }
        // What stays where it is stays plugged in.
        if stays && !worn {
            return all;
        }
        let kit = Kit::of(self.corner);
        let label = |id: &Id| {
            self.corner.brief.gear.get(id).map_or_else(String::new, |gear| lower_first(&gear.common().label))
        };
        let plugs: Vec<(String, String)> = kit
            .links
            .iter()
            .filter(|link| link.of == ThingId::Microphone && link.need.ends_with("input"))
            .map(|link| (label(link.gear), link.by.map_or_else(|| "computer".to_owned(), label)))
            .collect();
        for (index, (of, into)) in plugs.into_iter().enumerate() {
            let what = format!("plug {} into {}", the(&of), the(&into));
            let thing =
                if index == 0 { "microphone".to_owned() } else { format!("microphone-{}", index + 1) };
            all.push(self.add(ActionKind::Plug, &thing, what, came.into_iter().collect()));
        }
        all
    }
}

/// A lamp that hangs on a socket, not on a battery of its own.
fn takes_mains(light: &LightAt<'_>) -> bool {
    match light.source {
        Source::Lamp(lamp) => {
            !lamp.common.needs.iter().any(|need| need == "battery") && !is_of_the_house(light)
        }
        Source::Board(_) => false,
    }
}

fn the(called: &str) -> String {
    if called.starts_with("the ") { called.to_owned() } else { format!("the {called}") }
}

/// Its name in documents.
fn name(kind: ActionKind) -> String {
    serde_json::to_value(kind).ok().and_then(|value| value.as_str().map(str::to_owned)).unwrap_or_default()
}
