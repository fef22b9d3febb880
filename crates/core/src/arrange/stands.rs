//! What carries things: the supports that are not used yet, shared out one after the other, and what the chosen rig
//! would carry a thing with before any other stand.

use crate::assess::legal::Rules;
use crate::corner::{Corner, things};
use crate::edit::{bag_kg, fill_bag, rounded_floor, supports_for};
use crate::geometry::{DVec2, DVec3, bearing_vector};
use crate::plan::{Brief, Gear, GearSupport, Id, Layout, Point2, RigSchool, Support, SupportKind, ThingId};
use crate::room::ARM_KG;

/// Where a rolling column stands: behind the lens and to its right, m, the first that fits.
const COLUMN_M: [(f64, f64); 5] = [(0.20, 0.0), (0.10, 0.22), (0.10, -0.22), (0.0, 0.30), (0.0, -0.30)];
/// Supports not yet used, as (id, gear).
pub(super) struct Stands<'a> {
    brief: &'a Brief,
    used: Vec<Id>,
    /// The rolling column that carries the camera, for key and microphone as well.
    pub(super) column: Option<Support>,
}

impl<'a> Stands<'a> {
    /// The supports that a layout leaves for a camera that is not held in place, and for everything that comes after it.
    pub(super) fn beside(brief: &'a Brief, layout: &Layout) -> Self {
        let mut free = Self::unused(brief, layout);
        free.used.retain(|id| layout.camera.locked || layout.camera.support.gear.as_ref() != Some(id));
        free
    }

    /// The supports that a layout leaves unused.
    pub(super) fn unused(brief: &'a Brief, layout: &Layout) -> Self {
        Self { brief, used: layout.supports_in_use().cloned().collect(), column: None }
    }

    /// At hand, and one of it at least carries nothing yet.
    fn is_left(&self, id: &Id, gear: &Gear) -> bool {
        gear.at_hand() && self.used.iter().filter(|used| *used == id).count() < gear.common().pieces()
    }

    /// Unused supports for a purpose (`camera`, `light`, `microphone`), with or without an arm, weakest first.
    pub(super) fn free(&self, purpose: &str, arm: bool) -> Vec<Id> {
        let mut found: Vec<(&'a Id, f64)> = self
            .brief
            .gear
            .iter()
            .filter(|(id, g)| self.is_left(id, g))
            .filter_map(|(id, g)| g.support().map(|s| (id, s)))
            .filter(|(_, s)| (s.reach_m > 0.25) == arm && !is_fixing(s) && !stands_on_furniture(s))
            .filter(|(_, s)| s.common.offers.is_empty() || s.common.offers(purpose))
            .map(|(id, s)| (id, s.payload_kg))
            .collect();
        found.sort_by(|a, b| a.1.total_cmp(&b.1).then(a.0.cmp(b.0)));
        found.into_iter().map(|(id, _)| id.clone()).collect()
    }

    /// Supports to try: every free one, else one that is not owned.
    pub(super) fn options(&self, purpose: &str, kind: SupportKind) -> Vec<Support> {
        let mut ids: Vec<Option<Id>> =
            self.free(purpose, kind == SupportKind::Boom).into_iter().map(Some).collect();
        if ids.is_empty() {
            ids.push(None);
        }
        ids.into_iter().map(|gear| stand(kind, gear, None)).collect()
    }

    /// Fixings to ceiling or wall for a purpose.
    pub(super) fn fixings(&self, purpose: &str) -> Vec<Support> {
        let all = self.brief.gear.iter().filter(|(id, g)| self.is_left(id, g));
        all.filter_map(|(id, g)| Some((id, g.support()?)))
            .filter(|(_, s)| s.common.offers(purpose))
            .filter_map(|(id, s)| Some(stand(fixing_kind(s)?, Some(id.clone()), None)))
            .collect()
    }

    /// Clamps and small stands for a purpose, on all from which they reach a place: furniture, and for lamps doors and the
    /// camera's stand.
    pub(super) fn clamped(&self, corner: &Corner<'_>, purpose: &str, hold: DVec3) -> Vec<Support> {
        let all = self.brief.gear.iter().filter(|(id, g)| self.is_left(id, g));
        let owned: Vec<(&Id, &GearSupport)> = all
            .filter_map(|(id, g)| Some((id, g.support()?)))
            .filter(|(_, s)| stands_on_furniture(s) && s.common.offers(purpose))
            .collect();
        let mut found = Vec::new();
        if owned.is_empty() {
            return found;
        }
        let carriers = corner.carriers();
        for (gear, stand) in owned {
            let kind = if stand.reach_m > 0.0 { SupportKind::Clamp } else { SupportKind::On };
            for carrier in &carriers {
                // Nothing stands on a door or on a tripod; the camera is not clamped to its own.
                let is_furniture = matches!(carrier.id, ThingId::Furniture(_));
                let is_for_lamps = kind == SupportKind::Clamp && purpose == "light";
                if (is_furniture || is_for_lamps)
                    && carrier.beyond_m(hold.z, [stand.height_min_m, stand.height_max_m]) <= 0.0
                    && carrier.beside_m(hold.truncate()) <= stand.reach_m
                {
                    let nearest = carrier.support(kind, Some(gear.clone()));
                    // From a corner or an edge an arm may come in beside the picture.
                    let edges = match kind {
                        SupportKind::Clamp => carrier.edges_within(stand.reach_m, hold.truncate()),
                        _ => Vec::new(),
                    };
                    let from = |at: DVec2| Support { base_m: Some(rounded_floor(at)), ..nearest.clone() };
                    found.push(nearest.clone());
                    found.extend(edges.into_iter().map(from));
                }
            }
        }
        found
    }

    /// What the chosen rig would carry a thing with, before any other stand.
    pub(super) fn by_rig(&self, purpose: &str) -> Vec<Support> {
        match self.brief.schools.rig {
            RigSchool::Separate => Vec::new(),
            RigSchool::Column => self.column.iter().cloned().collect(),
            RigSchool::Fixed => self.fixings(purpose),
        }
    }

    pub(super) fn take(&mut self, support: &Support) {
        let column = self.column.as_ref().and_then(|column| column.gear.as_ref());
        if support.gear.as_ref() != column {
            self.used.extend(support.gear.clone());
        }
    }
}

/// Where it is fixed, if it does not stand on the floor.
fn fixing_kind(support: &GearSupport) -> Option<SupportKind> {
    let offers = |what: &str| support.common.offers(what);
    if offers("ceiling") { Some(SupportKind::Ceiling) } else { offers("wall").then_some(SupportKind::Wall) }
}

/// Clamped to furniture, or small enough to stand on it; its heights are told from there.
pub(super) fn stands_on_furniture(support: &GearSupport) -> bool {
    support.common.offers("furniture")
}

fn is_fixing(support: &GearSupport) -> bool {
    fixing_kind(support).is_some()
}

/// A stand that can carry camera, lamp and microphone at once, on arms.
fn is_column(support: &GearSupport) -> bool {
    let offers = |what: &str| support.common.offers(what);
    support.reach_m > 0.25 && offers("camera") && offers("light") && offers("microphone")
}

/// What at hand carries a camera wherever it is: a tripod, a fixing, a column where that is the rig.
fn camera_stands_at_hand(brief: &Brief) -> impl Iterator<Item = &GearSupport> {
    let by_column = brief.schools.rig == RigSchool::Column;
    let at_hand = brief.gear.values().filter(|gear| gear.at_hand()).filter_map(Gear::support);
    at_hand.filter(|support| support.common.offers.is_empty() || support.common.offers("camera")).filter(
        move |support| {
            !stands_on_furniture(support) && (support.reach_m <= 0.25 || by_column || is_fixing(support))
        },
    )
}

/// Whether something at hand carries a camera wherever it is.
pub(super) fn carries_camera(brief: &Brief) -> bool {
    camera_stands_at_hand(brief).next().is_some()
}

/// The highest at which what stands on the floor holds a camera, m; `None` where nothing at hand does, or something hangs it up.
pub(super) fn highest_hold_m(brief: &Brief) -> Option<f64> {
    let hangs = camera_stands_at_hand(brief).any(is_fixing);
    let highest = camera_stands_at_hand(brief).map(|stand| stand.height_max_m).reduce(f64::max);
    highest.filter(|_| !hangs)
}

/// Whether gear for a rig is at hand.
pub(super) fn has_rig(brief: &Brief, rig: RigSchool) -> bool {
    let at_hand = |fits: fn(&GearSupport) -> bool| {
        brief.gear.values().any(|g| g.at_hand() && g.support().is_some_and(fits))
    };
    match rig {
        RigSchool::Separate => true,
        RigSchool::Column => at_hand(is_column),
        RigSchool::Fixed => at_hand(is_fixing),
    }
}

fn stand(kind: SupportKind, gear: Option<Id>, base_m: Option<Point2>) -> Support {
    Support { gear, base_m, ..Support::new(kind) }
}

/// On something that is not the floor, from which its height is told.
pub(super) fn is_carried(support: &Support) -> bool {
    support.on.is_some() || support.kind == SupportKind::Clamp
}

/// Height and payload of what carries a thing of so many kg, held at a place.
pub(super) fn stand_holds(corner: &Corner<'_>, support: &Support, hold: DVec3, mass_kg: f64) -> bool {
    let arm = if support.kind == SupportKind::Boom { ARM_KG } else { 0.0 };
    corner.support_gear(support).is_none_or(|stand| {
        let in_reach = is_carried(support) || (stand.height_min_m..=stand.height_max_m).contains(&hold.z);
        in_reach && mass_kg + arm <= stand.payload_kg
    })
}

/// Ways to set up a support for a thing held at `hold`: one whose foot stands already reaches or does not.
pub(super) fn set_up(corner: &Corner<'_>, option: &Support, hold: DVec3, hand: f64) -> Vec<Support> {
    match option.base_m {
        Some(base) => {
            let reach = corner.support_gear(option).map_or(0.0, |gear| gear.reach_m);
            let near = (hold.truncate() - DVec2::from(base)).length() <= reach;
            if near { vec![option.clone()] } else { Vec::new() }
        }
        None => supports_for(corner, option, hold, corner.eyes_m.truncate(), hand),
    }
}

/// A fixing for the camera where it is in nothing's way; the first that reaches where there is always something.
pub(super) fn fixed_camera(brief: &Brief, layout: &Layout, stands: &Stands<'_>) -> Option<Support> {
    let corner = Corner::from_parts(brief, layout)?;
    let fixings = stands.fixings("camera");
    let all: Vec<Support> =
        fixings.iter().flat_map(|option| set_up(&corner, option, corner.view.position_m, 1.0)).collect();
    let fits = |support: &&Support| camera_stands(brief, layout, support);
    all.iter().find(fits).or(all.first()).cloned()
}

/// Whether the camera breaks no rule on a support, with nothing else set up.
pub(super) fn camera_stands(brief: &Brief, layout: &Layout, support: &Support) -> bool {
    let mut trial = layout.clone();
    trial.camera.support = support.clone();
    fill_bag(brief, &mut trial, &ThingId::Camera);
    Corner::from_parts(brief, &trial).is_some_and(|corner| {
        let broken = Rules::new(&corner).all_but_the_way(&things(&corner));
        broken.iter().all(|breach| breach.thing != ThingId::Camera)
    })
}

/// The column behind or beside the camera, where it is in nothing's way; the first place where it always is.
pub(super) fn column(brief: &Brief, layout: &Layout, mass_kg: f64) -> Option<Support> {
    let at_hand = brief.gear.iter().filter(|(_, gear)| gear.at_hand());
    let (id, _) = at_hand
        .filter_map(|(id, gear)| Some((id, gear.support()?)))
        .find(|(_, gear)| is_column(gear) && gear.payload_kg >= mass_kg)?;
    let camera = &layout.camera;
    let ahead = bearing_vector(camera.bearing_deg);
    let right = bearing_vector(camera.bearing_deg + 90.0);
    let lens = DVec3::from(camera.position_m);
    let places = COLUMN_M.map(|(behind, aside)| {
        let foot = lens - ahead * behind + right * aside;
        stand(SupportKind::Boom, Some(id.clone()), Some(rounded_floor(foot.truncate())))
    });
    let fits = |support: &&Support| camera_stands(brief, layout, support);
    places.iter().find(fits).or(places.first()).cloned()
}

/// The bag a thing's stand needs once it is in the layout.
pub(super) fn bag_for(brief: &Brief, layout: &Layout, put: impl FnOnce(&mut Layout), thing: &ThingId) -> f64 {
    let mut trial = layout.clone();
    put(&mut trial);
    Corner::from_parts(brief, &trial)
        .and_then(|c| {
            crate::room::sandbags(&c).into_iter().find(|s| s.thing == *thing).map(|s| bag_kg(s.needed_kg))
        })
        .unwrap_or(0.0)
}
