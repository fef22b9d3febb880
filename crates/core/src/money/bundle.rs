//! Bundles: a thing with all that it needs here - stand, input, cable -, as the corner with it in place shows.

use std::sync::Arc;

use super::goods::Goods;
use super::lacks::{Hold, Lack, What, lacks};
use super::passed_over::{PassedBy, Refused};
use super::workshop::{Laid, Workshop};
use crate::arrange::{Stop, no_room};
use crate::corner::{Corner, FOOT_RADIUS_M, unmet_needs};
use crate::plan::{Brief, Gear, GearSupport, Id, Posture, RigSchool, Role, ThingId};
use crate::reading::Quantity;
use crate::room::{ARM_KG, sandbags};
use crate::units::lower_first;

/// What a bundle is bought for. Of things for the same job one is in use.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Job {
    /// The voice.
    Microphone,
    /// A lamp or a board in a role.
    Light(Role),
    /// Against the echo.
    Treatment,
    /// It holds the camera.
    CameraStand,
    /// Behind the person.
    Backdrop,
    /// A camera with its lens.
    Camera,
    /// A lens alone.
    Lens,
    /// What something owned cannot be used without.
    Owned,
}

impl Job {
    /// It takes the picture: what is there already does so too.
    pub(super) fn is_optics(self) -> bool {
        matches!(self, Self::Camera | Self::Lens)
    }
}

/// Things to buy together, in place of a job's.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Main {
    /// The thing that helps; none where something owned lacks what it needs.
    pub(super) goods: Goods,
    /// Of what it is told.
    pub(super) id: Id,
    pub(super) job: Job,
}

/// Things that were laid out.
#[derive(Debug, Clone)]
pub(super) struct Completed {
    pub(super) goods: Goods,
    pub(super) laid: Arc<Laid>,
}

/// Stands that are tried under one thing: so many of a kind.
const STANDS_TRIED: usize = 3;
/// A camera or a lens in place of one that is there has to gain more, score. Fogon's own rule.
pub(super) const ONE_POINT: f64 = 0.01;
/// Blur that is seen to be more: a stop of the aperture, which makes the blur disc 1.4 times as wide. Fogon's own rule.
const SOFTER: f64 = 1.4;
/// A camera that moves by less than this part of its distance shows the same. Fogon's own rule.
const SAME_PLACE: f64 = 0.1;
/// A stand that reaches out no farther holds things plumb above it, m.
const PLUMB_M: f64 = 0.25;
/// What is hung on the rear leg of a stand at most, kg: two usual sandbags. Fogon's own rule.
const MOST_BAG_KG: f64 = 15.0;
/// Rounds in which what is lacking is looked for.
const ROUNDS: usize = 5;

impl Workshop {
    /// Goods with a main thing and everything that it needs beside them, the cheapest that does.
    pub(super) fn complete(&self, from: &Goods, main: &Main, stop: Stop<'_>) -> Result<Completed, Refused> {
        let mut goods = self.with_needs(from.plus(&main.goods), main)?;
        let before: Vec<Lack> = self.lay(from, stop).map_or_else(Vec::new, |laid| lacks(&laid.plan));
        let nothing = || Refused::new(PassedBy::Place, "Nothing can be laid out with it in this room.");
        let mut laid = self.lay(&goods, stop).ok_or_else(nothing)?;
        if !self.is_in_use(main, &laid) {
            // It may lack a stand to be placed at all.
            let stands = self.stands_unplaced(main);
            (goods, laid) = self
                .with_first_of(&stands, &goods, stop, |laid| self.is_in_use(main, laid))
                .map_err(|tipped| tipped.unwrap_or_else(|| self.not_in_use(main, &laid)))?;
        }
        for _ in 0..ROUNDS {
            let new = |lack: &Lack| !before.contains(lack) && !before.iter().any(|b| b.gear == lack.gear);
            let Some(lack) = lacks(&laid.plan).into_iter().find(|l| new(l) || self.is_own_lack(main, l))
            else {
                let trimmed = self.trimmed(&goods, &laid);
                let laid =
                    self.lay(&trimmed, stop).filter(|again| again.rank() <= laid.rank()).unwrap_or(laid);
                return match self.hardly_seen(main, from, &laid, stop) {
                    Some(refused) => Err(refused),
                    None => Ok(Completed { goods: trimmed, laid }),
                };
            };
            let answered = |laid: &Laid| {
                let still =
                    lacks(&laid.plan).iter().any(|other| other.gear == lack.gear && same(other, &lack));
                !still && self.is_in_use(main, laid)
            };
            (goods, laid) = self
                .with_first_of(&self.answers(&lack), &goods, stop, answered)
                .map_err(|tipped| tipped.unwrap_or_else(|| self.without_answer(&lack)))?;
        }
        Err(Refused::new(PassedBy::Need, "It needs more than can be found for it here."))
    }

    /// Goods with the first thing of some that suits the corner laid out with it, on stands that stay upright; else the first that
    /// would tip.
    fn with_first_of(
        &self,
        things: &[Id],
        goods: &Goods,
        stop: Stop<'_>,
        suits: impl Fn(&Laid) -> bool,
    ) -> Result<(Goods, Arc<Laid>), Option<Refused>> {
        let mut tipped = None;
        for thing in things {
            let with = goods.plus(&Goods::one(thing));
            let Some(laid) = self.lay(&with, stop).filter(|laid| suits(laid)) else { continue };
            match self.tips(&with, &laid) {
                None => return Ok((with, laid)),
                refused => tipped = tipped.or(refused),
            }
        }
        Err(tipped)
    }

    /// A camera or a lens that gains no more than a point of 100, or shows the same from the same place and what is behind hardly
    /// softer.
    fn hardly_seen(&self, main: &Main, from: &Goods, after: &Laid, stop: Stop<'_>) -> Option<Refused> {
        if !main.job.is_optics() {
            return None;
        }
        let before = self.lay(from, stop).filter(|before| before.in_the_way() <= after.in_the_way())?;
        if after.in_the_way() == before.in_the_way() && after.value() <= before.value() + ONE_POINT {
            let reason = "It would gain no more than one point of 100: you would not see it.";
            return Some(Refused::new(PassedBy::Gain, reason));
        }
        let pair = |quantity| Some((before.reading(quantity)?, after.reading(quantity)?));
        let (near_m, far_m) = pair(Quantity::ShotCameraDistanceM)?;
        let (from, to) = pair(Quantity::ShotBackgroundBlurPercent)?;
        let same_place = (far_m / near_m - 1.0).abs() < SAME_PLACE;
        (same_place && to < SOFTER * from).then(|| {
            Refused::new(
                PassedBy::Gain,
                format!(
                    "What is behind you would hardly go softer: blurred over {to:.1} % of the picture's width, {from:.1} % now."
                ),
            )
        })
    }

    /// What is plugged in: inputs, cables, power.
    fn with_needs(&self, mut goods: Goods, main: &Main) -> Result<Goods, Refused> {
        for _ in 0..ROUNDS {
            let Some(brief) = self.brief_with(&goods) else { break };
            let first = |id: &Id| unmet_needs(&brief, id).first().map(|need| (*need).to_owned());
            let Some(need) = goods.iter().find_map(|(id, _)| first(id)).or_else(|| first(&main.id)) else {
                break;
            };
            let Some(helper) = self.cheapest_offering(&need) else {
                let words = need.replace('-', " ");
                return Err(Refused::new(
                    PassedBy::Need,
                    format!("It needs {words}, and nothing on offer has it."),
                ));
            };
            goods = goods.plus(&Goods::one(&helper));
        }
        Ok(goods)
    }

    fn cheapest_offering(&self, need: &str) -> Option<Id> {
        let offers = self.catalogue.offers.iter().filter(|(id, offer)| {
            self.may_be_bought(id) && offer.gear.common().offers(need) && offer.gear.camera().is_none()
        });
        offers.min_by_key(|(_, offer)| offer.cents()).map(|(id, _)| id.clone())
    }

    /// Whether a thing is neither at hand nor ruled out.
    pub(super) fn may_be_bought(&self, id: &Id) -> bool {
        use crate::plan::GearState::{Borrowed, Never, Owned, Rented, Wanted};
        match self.brief.gear.get(id).map(|gear| gear.common().state) {
            None | Some(Wanted) => true,
            Some(Owned | Borrowed | Rented | Never) => false,
        }
    }

    fn is_in_use(&self, main: &Main, laid: &Laid) -> bool {
        if main.goods.is_empty() {
            return laid.uses(&main.id) > 0;
        }
        main.goods.iter().all(|(id, _)| laid.uses(id) > 0)
    }

    fn is_own_lack(&self, main: &Main, lack: &Lack) -> bool {
        lack.gear == main.id || main.goods.has(&lack.gear)
    }

    /// A stand among goods that would stand only under more weight than is hung on one.
    fn tips(&self, goods: &Goods, laid: &Laid) -> Option<Refused> {
        let corner = Corner::of(&laid.plan)?;
        let is_new = |thing: &ThingId| {
            let support = laid.plan.layout.part(thing).and_then(|part| part.support());
            support.and_then(|support| support.gear.as_ref()).is_some_and(|gear| goods.has(gear))
        };
        let heaviest = sandbags(&corner)
            .into_iter()
            .filter(|stand| is_new(&stand.thing))
            .map(|stand| stand.needed_kg)
            .fold(0.0, f64::max);
        (heaviest > MOST_BAG_KG).then(|| {
            let (needs, most) = (self.brief.units.mass(heaviest), self.brief.units.mass(MOST_BAG_KG));
            Refused::new(
                PassedBy::Stand,
                format!("Its stand would tip: it needs {needs} on its rear leg, and more than {most} is not hung on one."),
            )
        })
    }

    /// What keeps a lamp out of this room whatever carries it.
    fn does_not_fit(&self, main: &Main) -> Option<Refused> {
        let (Job::Light(role), Some(start)) = (main.job, &self.start) else { return None };
        let brief = self.brief_with(&main.goods)?;
        let gear = brief.gear.get(&main.id)?;
        let lamp = gear.light()?;
        let instead = no_room(&brief, &start.plan.layout, (&main.id, gear), role)?;
        let across = self.brief.units.length(lamp.width_m.max(lamp.height_m));
        let now = where_now(&self.brief);
        let reason = format!("It is {across} across and does not fit {now}; {instead}.");
        Some(Refused::new(PassedBy::Place, reason))
    }

    /// Why a thing that was laid out is not used.
    fn not_in_use(&self, main: &Main, laid: &Laid) -> Refused {
        if let Some(refused) = self.does_not_fit(main) {
            return refused;
        }
        let instead = match main.job {
            Job::Microphone => laid.plan.layout.microphone.as_ref().map(|used| &used.gear),
            Job::Light(_) => laid.plan.layout.lights.values().map(|light| &light.gear).next(),
            Job::CameraStand => laid.plan.layout.camera.support.gear.as_ref(),
            Job::Lens | Job::Camera => Some(&laid.plan.layout.camera.lens),
            Job::Treatment | Job::Backdrop | Job::Owned => None,
        };
        let owned = instead.and_then(|id| laid.plan.brief.gear.get(id)).filter(|gear| gear.at_hand());
        Refused::new(
            PassedBy::Place,
            match owned {
                Some(gear) => format!(
                    "In this corner it does no better than your {}.",
                    lower_first(&gear.common().label)
                ),
                None => format!("It helps nowhere in this room {}.", where_now(&self.brief)),
            },
        )
    }

    fn without_answer(&self, lack: &Lack) -> Refused {
        match &lack.what {
            What::Carrier(_) => {
                Refused::new(PassedBy::Stand, "No stand on offer carries it where it would have to be.")
            }
            What::Need(need) => {
                let words = need.replace('-', " ");
                Refused::new(PassedBy::Need, format!("It needs {words}, and nothing on offer has it."))
            }
        }
    }

    /// Catalogue things that answer a lack, cheapest first.
    fn answers(&self, lack: &Lack) -> Vec<Id> {
        match &lack.what {
            What::Need(need) => self.cheapest_offering(need).into_iter().collect(),
            What::Carrier(hold) => self.stands(hold),
        }
    }

    /// Stands for what has no place on a usual one: a microphone that nothing carries is not placed where the camera's own will do;
    /// a lamp whose stand would show or get in the way may stand on furniture, be clamped to it or stand on narrow feet, where a
    /// place for one is still free.
    fn stands_unplaced(&self, main: &Main) -> Vec<Id> {
        let Some(gear) = self.gear(&main.id).or_else(|| self.brief.gear.get(&main.id)) else {
            return Vec::new();
        };
        let purpose = match gear {
            Gear::Microphone(microphone)
                if microphone.common.needs.iter().any(|need| need == "microphone") =>
            {
                "microphone"
            }
            Gear::Light(_) if self.has_a_light_to_fill() => "light",
            _ => return Vec::new(),
        };
        let reach_m = if purpose == "microphone" { 0.3 } else { 0.0 };
        let hold = Hold { purpose, reach_m, height_m: None, mass_kg: gear.common().mass_kg };
        let mut all = self.stands(&hold);
        if purpose == "light" {
            all.retain(|id| self.gear(id).and_then(Gear::support).is_some_and(on_furniture));
            all.extend(self.narrow_stands(&hold));
        }
        all
    }

    /// A key or a back light that is wanted is not there yet.
    fn has_a_light_to_fill(&self) -> bool {
        let Some(start) = &self.start else { return true };
        let has = |role: Role| start.plan.layout.lights.values().any(|light| light.role == role);
        !has(Role::Key) || crate::light::wants_back(&self.brief) && !has(Role::Back)
    }

    /// Stands on offer that hold things of a purpose, cheapest first.
    fn stands_on_offer(&self, purpose: &str) -> Vec<(&Id, &GearSupport, i64)> {
        let rig = self.brief.schools.rig;
        let mut found: Vec<(&Id, &GearSupport, i64)> = self
            .catalogue
            .offers
            .iter()
            .filter(|(id, _)| self.may_be_bought(id))
            .filter_map(|(id, offer)| Some((id, offer.gear.support()?, offer.cents())))
            .filter(|(_, stand, _)| stand.common.offers(purpose))
            .filter(|(_, stand, _)| {
                let offers = |what: &str| stand.common.offers(what);
                // Holes in walls and a column for everything are chosen, not recommended.
                (!is_fixed(stand) || rig == RigSchool::Fixed)
                    && (!(offers("camera") && offers("light")) || rig == RigSchool::Column)
            })
            .collect();
        found.sort_by(|a, b| a.2.cmp(&b.2).then(a.0.cmp(b.0)));
        found
    }

    /// Floor stands as high as the eyes with narrower feet than a stand is thought to have that nobody owns yet, each narrower than
    /// every cheaper one.
    fn narrow_stands(&self, hold: &Hold) -> Vec<Id> {
        let eyes_m = self.start.as_ref().and_then(|start| Some(Corner::of(&start.plan)?.eyes_m.z));
        let mut narrowest_m = FOOT_RADIUS_M;
        let mut all = Vec::new();
        for (id, stand, _) in self.stands_on_offer(hold.purpose) {
            let is_plain = !on_furniture(stand) && !is_fixed(stand) && stand.reach_m <= PLUMB_M;
            let holds = stand.payload_kg >= hold.mass_kg && eyes_m.is_none_or(|z| stand.height_max_m >= z);
            if is_plain && holds && stand.foot_radius_m < narrowest_m {
                narrowest_m = stand.foot_radius_m;
                all.push(id.clone());
            }
        }
        all
    }

    /// The cheapest stands that hold a thing: floor stands or arms, and what is clamped to furniture or stands on it.
    fn stands(&self, hold: &Hold) -> Vec<Id> {
        let found = self.stands_on_offer(hold.purpose);
        let by_itself = |stand: &GearSupport| {
            let arm_kg = if hold.reach_m > 0.0 { ARM_KG } else { 0.0 };
            let reaches =
                if hold.reach_m > 0.0 { stand.reach_m >= hold.reach_m } else { stand.reach_m <= PLUMB_M };
            let high = hold.height_m.is_none_or(|z| (stand.height_min_m..=stand.height_max_m).contains(&z));
            !on_furniture(stand)
                && (is_fixed(stand) || reaches && high)
                && stand.payload_kg >= hold.mass_kg + arm_kg
        };
        let of = |suits: &dyn Fn(&GearSupport) -> bool, most: usize| {
            let suiting = found.iter().filter(|(_, stand, _)| suits(stand)).take(most);
            suiting.map(|(id, _, cents)| (*cents, (*id).clone())).collect::<Vec<_>>()
        };
        let mut all = of(&by_itself, STANDS_TRIED);
        if !self.brief.room.furniture.is_empty() || hold.purpose == "light" {
            all.extend(of(&|stand| on_furniture(stand) && stand.payload_kg >= hold.mass_kg, STANDS_TRIED));
        }
        all.sort();
        all.into_iter().map(|(_, id)| id).collect()
    }

    /// For what a completed bundle is used.
    pub(super) fn job_of(&self, main: &Main, laid: &Laid) -> Job {
        match laid.part_of(&main.id) {
            Some(ThingId::Light(id)) => {
                laid.plan.layout.lights.get(&id).map_or(main.job, |light| match main.job {
                    Job::Owned => Job::Owned,
                    _ => Job::Light(light.role),
                })
            }
            _ => main.job,
        }
    }
}

/// Seat and camera stay where they are.
fn where_now(brief: &Brief) -> &'static str {
    match brief.person.posture {
        Posture::Standing => "while you stand where you do now",
        Posture::Seated => "while you sit where you do now",
    }
}

/// It stands on furniture or is clamped to it.
fn on_furniture(stand: &GearSupport) -> bool {
    stand.common.offers("furniture")
}

/// It is screwed to wall or ceiling.
fn is_fixed(stand: &GearSupport) -> bool {
    stand.common.offers("ceiling") || stand.common.offers("wall")
}

fn same(a: &Lack, b: &Lack) -> bool {
    match (&a.what, &b.what) {
        (What::Carrier(_), What::Carrier(_)) => true,
        (What::Need(a), What::Need(b)) => a == b,
        _ => false,
    }
}
