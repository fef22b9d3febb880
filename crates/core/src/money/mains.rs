//! What could be bought for this corner: every thing on offer that can better it by itself, with what rules it out beforehand.

use super::bundle::{Job, Main};
use super::goods::Goods;
use super::lacks::lacks;
use super::passed_over::{PassedBy, Refused};
use super::workshop::Workshop;
use crate::arrange::{LensFit, lens_fit};
use crate::corner::{Corner, unmet_needs};
use crate::plan::{
    BackdropType, Brief, Gear, GearLight, GearState, Id, LightSchool, Purpose, RecordSchool, RigSchool, Role,
    Shape,
};
use crate::sound::absorption::Absorption;
use crate::units::lower_first;

/// A filament lamp of so many watts is not put beside a person. Fogon's own rule: an LED gives the same light cool.
const HOT_W: f64 = 200.0;
/// Light of a filament is no colder, K.
const FILAMENT_K: f64 = 3500.0;

/// A lens is tried if its opening is so much wider than that of a cheaper one. Fogon's own rule.
const WIDER: f64 = 1.1;

/// A thing that could be bought, or the reason why not.
pub(super) struct Candidate {
    pub(super) main: Main,
    pub(super) refused: Option<Refused>,
}

impl Workshop {
    /// Everything that could be bought for a corner that has a camera, cameras and lenses apart.
    pub(super) fn mains(&self) -> Vec<Candidate> {
        let echo_is_assumed = self
            .start
            .as_ref()
            .and_then(|start| Corner::of(&start.plan).map(|corner| Absorption::of(&corner).assumed))
            .unwrap_or(true);
        let mut all: Vec<Candidate> = self.owned_that_lack().into_iter().map(free_to_try).collect();
        for (id, offer) in &self.catalogue.offers {
            // What has no price is not sold: it is there for the shelf.
            let Some(job) = job_of(&self.brief, &offer.gear).filter(|_| is_sold(self, offer)) else {
                continue;
            };
            let main = Main { goods: Goods::one(id), id: id.clone(), job };
            let refused = self.ruled_out(id, &offer.gear, echo_is_assumed);
            all.push(Candidate { main, refused });
        }
        all
    }

    /// What is owned and cannot be used without something: lamps and microphones without a stand, an input, a cable.
    fn owned_that_lack(&self) -> Vec<Main> {
        let own = |id: &Id| Main { goods: Goods::default(), id: id.clone(), job: Job::Owned };
        let mut all: Vec<Id> = Vec::new();
        if let Some(start) = &self.start {
            all.extend(lacks(&start.plan).into_iter().map(|lack| lack.gear));
        }
        let at_hand = self.brief.gear.iter().filter(|(_, gear)| gear.at_hand());
        let idle = at_hand.filter(|(id, gear)| match gear {
            Gear::Microphone(_) | Gear::Light(_) => !unmet_needs(&self.brief, id).is_empty(),
            _ => false,
        });
        all.extend(idle.map(|(id, _)| id.clone()));
        // A microphone that nothing carries lies idle where the camera's own will do.
        let hears_by_camera = self.start.as_ref().is_some_and(|start| start.plan.layout.microphone.is_none());
        let boom = self.brief.gear.iter().filter(|(_, gear)| {
            hears_by_camera
                && gear.at_hand()
                && gear.microphone().is_some_and(|m| m.common.needs.iter().any(|n| n == "microphone"))
        });
        all.extend(boom.map(|(id, _)| id.clone()));
        all.sort();
        all.dedup();
        all.iter().map(own).collect()
    }

    fn ruled_out(&self, id: &Id, gear: &Gear, echo_is_assumed: bool) -> Option<Refused> {
        if let Some(refused) = self.owner_says(id) {
            return Some(refused);
        }
        let say = |rule: PassedBy, reason: &str| Some(Refused::new(rule, reason));
        match gear {
            Gear::Light(lamp) if is_hot(lamp) => {
                say(PassedBy::Heat, "It gets hot enough to burn; an LED gives the same light cool.")
            }
            Gear::Treatment(_) if echo_is_assumed => say(
                PassedBy::Measure,
                "The echo of this room is only assumed: clap and measure it first, or say what walls and floor are made of.",
            ),
            Gear::Support(_) => {
                let held =
                    self.start.as_ref().and_then(|start| start.plan.layout.camera.support.gear.as_ref());
                let stand = held.and_then(|id| self.brief.gear.get(id))?;
                let label = lower_first(&stand.common().label);
                Some(Refused::new(
                    PassedBy::Owner,
                    format!("Your {label} holds the camera where the shot wants it."),
                ))
            }
            Gear::Microphone(microphone)
                if microphone.common.needs.iter().any(|need| need == "usb-input") && !self.has_computer() =>
            {
                say(PassedBy::Mount, "It plugs into a computer, and here the camera records the sound.")
            }
            _ => None,
        }
    }

    /// The owner's own word on a thing.
    pub(super) fn owner_says(&self, id: &Id) -> Option<Refused> {
        let state = self.brief.gear.get(id)?.common().state;
        match state {
            GearState::Owned | GearState::Borrowed | GearState::Rented => {
                Some(Refused::new(PassedBy::Owner, "It is at hand already."))
            }
            GearState::Never => Some(Refused::new(PassedBy::Owner, "You have ruled it out.")),
            GearState::Wanted => None,
        }
    }

    /// The sound goes to a computer: recorded apart, a lesson on a screen, or a camera that plugs into one.
    fn has_computer(&self) -> bool {
        let webcam = self.brief.gear.values().any(|gear| {
            gear.at_hand() && gear.camera().is_some_and(|camera| camera.common.offers("usb-input"))
        });
        self.brief.schools.record == RecordSchool::Separate
            || self.brief.purpose == Purpose::ScreenLesson
            || webcam
    }

    /// Lenses for the camera that is used, and whether they fit. What blurs is the opening of a lens: a dearer one that opens no
    /// wider than a cheaper one is not tried.
    pub(super) fn lenses(&self) -> Vec<Candidate> {
        let Some(start) = &self.start else { return Vec::new() };
        let body = &start.plan.layout.camera.body;
        let own = &start.plan.layout.camera.lens;
        let mut all: Vec<(&Id, &super::rows::Offer, f64)> = self
            .catalogue
            .offers
            .iter()
            .filter_map(|(id, offer)| Some((id, offer, offer.gear.lens()?)))
            .filter(|(_, _, lens)| lens.built_into.is_none())
            .map(|(id, offer, lens)| (id, offer, lens.focal_max_mm / lens.f_number_at_max))
            .collect();
        all.sort_by(|a, b| a.1.cents().cmp(&b.1.cents()).then(b.2.total_cmp(&a.2)).then(a.0.cmp(b.0)));
        let mut widest_mm: f64 = 0.0;
        let mut candidates = Vec::new();
        for (id, offer, opening_mm) in all {
            let main = Main { goods: Goods::one(id), id: id.clone(), job: Job::Lens };
            let refused =
                self.owner_says(id).or_else(|| self.lens_refused(body, own, id, &offer.gear)).or_else(|| {
                    (opening_mm <= WIDER * widest_mm)
                        .then(|| Refused::new(PassedBy::Dearer, "A cheaper one that fits opens as wide."))
                });
            if refused.is_none() {
                widest_mm = opening_mm;
            }
            candidates.push(Candidate { main, refused });
        }
        candidates
    }

    fn lens_refused(&self, body: &Id, own: &Id, id: &Id, gear: &Gear) -> Option<Refused> {
        let (lens, camera) = (gear.lens()?, self.brief.gear.get(body)?);
        if !self.brief.mounts(body, lens) {
            let label = lower_first(&camera.common().label);
            return Some(Refused::new(PassedBy::Mount, format!("Your {label} takes no other lens.")));
        }
        if excluded(camera, gear) {
            return Some(Refused::new(PassedBy::Mount, "It does not fill the sensor of your camera."));
        }
        let has = self.brief.gear.get(own).and_then(Gear::lens);
        if has.is_some_and(|has| does_as_much(has, lens)) {
            let label = self.brief.gear.get(own).map_or_else(String::new, |g| lower_first(&g.common().label));
            return Some(Refused::new(
                PassedBy::Gain,
                format!("Your {label} opens as wide at the same length."),
            ));
        }
        let brief = self.brief_with(&Goods::one(id))?;
        fit_refused(&brief, body, id)
    }

    /// Cameras with a lens each that could be bought, the cheapest of each size of sensor.
    pub(super) fn cameras(&self) -> Vec<Candidate> {
        let owned_mm = self
            .start
            .as_ref()
            .and_then(|start| self.brief.gear.get(&start.plan.layout.camera.body)?.camera())
            .map(|camera| camera.sensor_width_mm);
        let mut all = Vec::new();
        let mut sizes: Vec<i64> = Vec::new();
        let mut bodies: Vec<(&Id, &super::rows::Offer)> =
            self.catalogue.offers.iter().filter(|(_, offer)| offer.gear.camera().is_some()).collect();
        bodies.sort_by_key(|(_, offer)| offer.cents());
        for (id, offer) in bodies {
            let Some(camera) = offer.gear.camera() else { continue };
            let size = (camera.sensor_width_mm * 10.0).round() as i64;
            let main = |lens: &Id| Main {
                goods: [id.clone(), lens.clone()].into_iter().collect(),
                id: id.clone(),
                job: Job::Camera,
            };
            let body_alone = Main { goods: Goods::one(id), id: id.clone(), job: Job::Camera };
            if let Some(refused) = self.owner_says(id) {
                all.push(Candidate { main: body_alone, refused: Some(refused) });
                continue;
            }
            if owned_mm.is_some_and(|owned| camera.sensor_width_mm <= owned * 1.02) {
                let reason = "Its sensor is no larger than your camera's.";
                all.push(Candidate { main: body_alone, refused: Some(Refused::new(PassedBy::Gain, reason)) });
                continue;
            }
            if sizes.contains(&size) {
                let reason = "A cheaper one with the same size of sensor does as much for the picture.";
                all.push(Candidate {
                    main: body_alone,
                    refused: Some(Refused::new(PassedBy::Dearer, reason)),
                });
                continue;
            }
            sizes.push(size);
            let lenses = self.lenses_for(id, &offer.gear);
            if lenses.is_empty() {
                let reason = "No lens on offer frames you with it in this room.";
                all.push(Candidate {
                    main: body_alone,
                    refused: Some(Refused::new(PassedBy::Framing, reason)),
                });
            }
            all.extend(lenses.iter().map(|lens| free_to_try(main(lens))));
        }
        all
    }

    /// Lenses for a body on offer: its own, else the cheapest, and the cheapest that opens wide, of those that fit the room.
    fn lenses_for(&self, body: &Id, camera: &Gear) -> Vec<Id> {
        let fits = |id: &Id| {
            let goods: Goods = [body.clone(), id.clone()].into_iter().collect();
            self.brief_with(&goods).is_some_and(|brief| fit_refused(&brief, body, id).is_none())
        };
        let lenses =
            || self.catalogue.offers.iter().filter_map(|(id, offer)| Some((id, offer, offer.gear.lens()?)));
        if let Some((id, ..)) = lenses().find(|(_, _, lens)| lens.built_into.as_ref() == Some(body)) {
            return if fits(id) { vec![id.clone()] } else { Vec::new() };
        }
        let mut changed: Vec<_> = lenses()
            .filter(|(id, offer, lens)| {
                lens.built_into.is_none() && self.owner_says(id).is_none() && !excluded(camera, &offer.gear)
            })
            .collect();
        changed.sort_by_key(|(_, offer, _)| offer.cents());
        let first = changed.iter().find(|(id, ..)| fits(id)).map(|(id, ..)| (*id).clone());
        let open = |wide: f64| {
            let opening = changed.iter().filter(move |(_, _, lens)| lens.f_number_at_max <= wide);
            opening.map(|(id, ..)| *id).find(|id| fits(id)).cloned()
        };
        let mut all: Vec<Id> = [first, open(2.0)].into_iter().flatten().collect();
        all.dedup();
        all
    }
}

/// It has a price, or nothing in its catalogue has one.
fn is_sold(shop: &Workshop, offer: &super::rows::Offer) -> bool {
    offer.price() > 0.0 || shop.catalogue.offers.values().all(|other| other.price() <= 0.0)
}

fn free_to_try(main: Main) -> Candidate {
    Candidate { main, refused: None }
}

/// Whether a body and a lens say that they do not go together.
fn excluded(a: &Gear, b: &Gear) -> bool {
    let (a, b) = (a.common(), b.common());
    a.excludes.iter().any(|what| b.offers(what)) || b.excludes.iter().any(|what| a.offers(what))
}

/// A lens reaches no other length and opens no wider than one that is owned.
fn does_as_much(has: &crate::plan::GearLens, lens: &crate::plan::GearLens) -> bool {
    has.focal_min_mm <= lens.focal_min_mm
        && has.focal_max_mm >= lens.focal_max_mm
        && has.widest_f_number(lens.focal_min_mm) <= lens.f_number_at_min + 0.05
        && has.widest_f_number(lens.focal_max_mm) <= lens.f_number_at_max + 0.05
}

fn fit_refused(brief: &Brief, body: &Id, lens: &Id) -> Option<Refused> {
    let units = brief.units;
    match lens_fit(brief, body, lens) {
        LensFit::Fits => None,
        LensFit::TooNear { nearest_focus_m, distance_m } => Some(Refused::new(
            PassedBy::Focus,
            format!(
                "It focuses from {} on, and would stand {} from you.",
                units.length(nearest_focus_m),
                units.length(distance_m)
            ),
        )),
        LensFit::TooLong { needs_m, has_m } => Some(Refused::new(
            PassedBy::Framing,
            format!(
                "It frames you only from {} on; the longest line in this room is {}.",
                units.length(needs_m),
                units.length(has_m)
            ),
        )),
    }
}

fn is_hot(lamp: &GearLight) -> bool {
    lamp.cct_max_k <= FILAMENT_K && lamp.common.power_w.is_some_and(|watts| watts >= HOT_W)
}

/// What a thing on offer could be bought for; none of what only answers a need, and of what is somebody's own choice: a screen to
/// look at, a rig, a backdrop where no purpose asks for one.
fn job_of(brief: &Brief, gear: &Gear) -> Option<Job> {
    match gear {
        Gear::Microphone(_) => Some(Job::Microphone),
        Gear::Light(lamp) => {
            let ring = brief.schools.lights == LightSchool::Ring;
            let by_window = brief.schools.lights == LightSchool::WindowOnly;
            (!by_window && (lamp.shape == Shape::Ring) == ring).then_some(Job::Light(Role::Key))
        }
        Gear::Reflector(board) => board.transmittance.is_none().then_some(Job::Light(Role::Fill)),
        Gear::Treatment(_) => Some(Job::Treatment),
        Gear::Support(support) => {
            let offers = |what: &str| support.common.offers(what);
            let fixed = offers("ceiling") || offers("wall");
            let column = offers("light") && offers("camera");
            (offers("camera") && !column && (!fixed || brief.schools.rig == RigSchool::Fixed))
                .then_some(Job::CameraStand)
        }
        Gear::Backdrop(backdrop) => {
            let keyed = brief.purpose == Purpose::KeyedBackground;
            (keyed && backdrop.backdrop == BackdropType::Chroma).then_some(Job::Backdrop)
        }
        Gear::Camera(_)
        | Gear::Lens(_)
        | Gear::Recorder(_)
        | Gear::Interface(_)
        | Gear::Monitor(_)
        | Gear::Power(_)
        | Gear::Cable(_)
        | Gear::Card(_)
        | Gear::Accessory(_) => None,
    }
}
