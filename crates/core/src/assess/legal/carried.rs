//! What carries a thing holds it: reach, height, payload, a fixing on the wall, a bag; and the breaker holds the lamps.

use super::{Breach, Rules, TOLERANCE_M};
use crate::corner::{Carried, STACK_M, base_of};
use crate::finding::Rule;
use crate::geometry::beyond_m;
use crate::plan::{SupportKind, ThingId};
use crate::room::{StandState, load_kg, sandbags};
use crate::units::{Amount, capital};

/// A fixing so near to a wall is on it, m.
const ON_WALL_M: f64 = 0.02;
/// A stand without an arm holds a thing so far beside its column, m.
const BESIDE_COLUMN_M: f64 = 0.25;

impl Rules<'_> {
    /// Every placed thing that has a support, and what stands without one.
    pub(super) fn carried(&self, found: &mut Vec<Breach>) {
        let corner = self.corner;
        let stands = sandbags(corner);
        for carried in corner.carried() {
            self.wall_fixing(&carried, found);
            self.on_carrier(&carried, found);
            self.stand(&carried, &stands, found);
        }
        for stand in &stands {
            self.tipping(stand, found);
        }
        let fraction = crate::room::mains_load(corner).value.unwrap_or(0.0);
        if fraction > 1.0 + 1e-9 {
            found.push(Breach::new(
                Rule::Mains,
                ThingId::Mains,
                Amount::Part(fraction - 1.0),
                format!("The lamps draw {:.0} % of what the breaker carries.", 100.0 * fraction),
                "Use fewer or more efficient lamps, or another circuit.",
            ));
        }
    }

    fn wall_fixing(&self, carried: &Carried<'_>, found: &mut Vec<Breach>) {
        if carried.support.kind != SupportKind::Wall {
            return;
        }
        let corner = self.corner;
        let fixed = base_of(carried.support, carried.hold_m);
        let off = beyond_m(&corner.floor_m, fixed).abs();
        let thing = carried.id.words();
        if off > ON_WALL_M {
            found.push(Breach::new(
                Rule::Support,
                carried.id.clone(),
                Amount::Length(off),
                format!("The arm of the {thing} is fixed {} off the wall.", self.gap(off)),
                "Fix it to the wall.",
            ));
        } else if let Some(opening) = corner.brief.room.opening_at(fixed, carried.hold_m.z) {
            found.push(Breach::new(
                Rule::Support,
                carried.id.clone(),
                Amount::Unmeasured,
                format!("The arm of the {thing} would be fixed in the {}.", opening.words()),
                "Fix it beside the opening.",
            ));
        }
    }

    /// What stands on something or is clamped to it is held there: within its outline or the arm's reach of it, on it or on a
    /// stack that people build.
    fn on_carrier(&self, carried: &Carried<'_>, found: &mut Vec<Breach>) {
        let Some(carrier) = self.corner.carrier(carried.support) else { return };
        let reach = carried.stand.map_or(0.0, |stand| stand.reach_m);
        let at = match carried.id {
            ThingId::Light(_) if carried.support.kind == SupportKind::On => carried.middle_m,
            _ => carried.hold_m,
        };
        let beside = match carried.support.base_m {
            Some(_) => (carrier.grip(carried.support, at) - at).truncate().length(),
            None => carrier.beside_m(at.truncate()),
        } - reach;
        let thing = carried.id.words();
        let carrier_words = carrier.words();
        let mut say = |lacking: f64, sentence: String, frees: &str| {
            let lacking = Amount::Length(lacking);
            found.push(Breach::new(Rule::Support, carried.id.clone(), lacking, sentence, frees));
        };
        if beside > TOLERANCE_M {
            say(
                beside,
                format!("The {thing} is {} beside the {carrier_words} that carries it.", self.gap(beside)),
                "Move it nearer, or stand it on the floor.",
            );
            return;
        }
        let range = carried.stand.map_or([0.0, STACK_M], |stand| [stand.height_min_m, stand.height_max_m]);
        let lacking = carrier.beyond_m(carried.hold_m.z, range);
        let stands_by_itself =
            carried.stand.is_none() && matches!(carried.id, ThingId::Light(_) | ThingId::Screen);
        if lacking > TOLERANCE_M && !stands_by_itself {
            let [low, high] = [carrier.grip_m[0] + range[0], carrier.grip_m[1] + range[1]];
            let units = self.corner.brief.units;
            say(
                lacking,
                format!(
                    "The {thing} is held at {}; on the {carrier_words} it can be from {} to {}.",
                    units.length(carried.hold_m.z),
                    units.length(low),
                    units.length(high)
                ),
                "Change its height, or what it stands on.",
            );
        }
    }

    /// Height, reach and payload of the gear that carries a thing.
    fn stand(&self, carried: &Carried<'_>, stands: &[StandState], found: &mut Vec<Breach>) {
        let Some(stand) = carried.stand else { return };
        let units = self.corner.brief.units;
        let (label, thing, at) = (&stand.common.label, carried.id.words(), carried.hold_m);
        let mut say = |lacking: Amount, sentence: String, frees: &str| {
            found.push(Breach::new(Rule::Support, carried.id.clone(), lacking, capital(&sentence), frees));
        };
        // On furniture, a door or another stand its height is told from there.
        let is_carried = self.corner.carrier(carried.support).is_some();
        let (low, high) = if is_carried {
            (f64::NEG_INFINITY, f64::INFINITY)
        } else {
            (stand.height_min_m, stand.height_max_m)
        };
        if at.z < low - TOLERANCE_M || at.z > high + TOLERANCE_M {
            let (low_words, high_words) = (units.length(low), units.length(high));
            say(
                Amount::Length((low - at.z).max(at.z - high)),
                format!(
                    "{label} goes from {low_words} to {high_words}; the {thing} is held at {}.",
                    units.length(at.z)
                ),
                "Change its height, or use another stand.",
            );
        }
        let reach = if is_carried { 0.0 } else { (at.truncate() - base_of(carried.support, at)).length() };
        let most = stand.reach_m.max(BESIDE_COLUMN_M);
        if reach > most + TOLERANCE_M {
            let needs = units.length(reach);
            say(
                Amount::Length(reach - most),
                if stand.reach_m < BESIDE_COLUMN_M {
                    format!("{label} has no arm; the {thing} hangs {needs} beside its column.")
                } else {
                    let reaches = units.length(stand.reach_m);
                    format!("{label} reaches {reaches} from its column; the {thing} needs {needs}.")
                },
                "Bring the foot nearer, or use a longer arm.",
            );
        }
        // A stand carries all that is on it, told once; an arm on wall or ceiling, a clamp, its own thing.
        let on_stand = |state: &&StandState| carried.stands() && state.on_it.contains(&carried.id);
        let together = stands.iter().find(on_stand);
        let (load, words) = match together {
            Some(state) if state.thing == carried.id => (state.load_kg, state.words()),
            Some(_) => return,
            None => (load_kg(carried), thing),
        };
        if load > stand.payload_kg + 1e-9 {
            let verb = if together.is_some_and(|state| state.on_it.len() > 1) { "weigh" } else { "weighs" };
            say(
                Amount::Mass(load - stand.payload_kg),
                format!(
                    "{label} carries {}; the {words} {verb} {}.",
                    units.mass(stand.payload_kg),
                    units.mass(load)
                ),
                "Use a stronger stand.",
            );
        }
    }

    fn tipping(&self, stand: &StandState, found: &mut Vec<Breach>) {
        let units = self.corner.brief.units;
        let lacking = stand.needed_kg - stand.present_kg;
        if lacking > 0.05 {
            let (needed, present) = (units.mass(stand.needed_kg), units.mass(stand.present_kg));
            found.push(Breach::new(
                Rule::Support,
                stand.thing.clone(),
                Amount::Mass(lacking),
                format!(
                    "The stand of the {} can tip: it needs {needed} on its rear leg and has {present}.",
                    stand.words()
                ),
                "Hang a sandbag on the rear leg.",
            ));
        }
    }
}
