//! Where a backdrop goes: behind the person, as far as the room lets it.

use crate::assess::legal::Rules;
use crate::corner::{Corner, backdrop_thing, things};
use crate::edit::{fill_bag, rounded_bearing, rounded_floor};
use crate::geometry::{DVec2, bearing_of, bearing_vector, inside, whole_steps};
use crate::plan::{Backdrop, BackdropType, Brief, GearBackdrop, Hung, Id, Layout, Look, Purpose, ThingId};

/// A backdrop is tried in steps from the wall, m: it stands as far away as it can.
const BACKDROP_STEP_M: f64 = 0.15;
/// The least distance of a keyed one from the person, m: nearer, its colour drowns the edge of the hair; what it throws back is told
/// from here on (Fogon's own rule).
const KEYED_LEAST_M: f64 = 0.7;
/// The least distance of a plain one, m: no shadow falls on it (common practice, no source).
const PLAIN_LEAST_M: f64 = 0.5;

/// Whether a screen at hand is to be keyed out.
pub(super) fn is_keyed(brief: &Brief) -> bool {
    brief.purpose == Purpose::KeyedBackground && wanted(brief).next().is_some()
}

/// Whether a screen at hand that is keyed out has room behind a seat, door and way not looked at.
pub(super) fn has_room(brief: &Brief, seat_m: DVec2, facing_deg: f64) -> bool {
    let outline = brief.room.outline();
    let (ahead, aside) =
        (bearing_vector(facing_deg).truncate(), bearing_vector(facing_deg + 90.0).truncate());
    let middle = seat_m - ahead * (KEYED_LEAST_M + Hung::Stands.depth_m());
    wanted(brief).next().map(|(_, gear)| gear.width_m / 2.0).is_some_and(|half_m| {
        [-half_m, half_m].into_iter().all(|along_m| inside(&outline, middle + aside * along_m, 0.0))
    })
}

/// Backdrops at hand that the purpose wants: a screen to be keyed out, or a plain one.
fn wanted(brief: &Brief) -> impl Iterator<Item = (&Id, &GearBackdrop)> {
    let wants = |kind: BackdropType| match brief.purpose {
        Purpose::KeyedBackground => kind == BackdropType::Chroma,
        Purpose::AuditionTape | Purpose::ScreenLesson => kind != BackdropType::Chroma,
        Purpose::TalkToLens | Purpose::VerticalShort | Purpose::Performance => false,
    };
    let at_hand = brief.gear.iter().filter(|(_, gear)| gear.at_hand());
    at_hand
        .filter_map(|(id, gear)| Some((id, gear.backdrop()?)))
        .filter(move |(_, gear)| wants(gear.backdrop))
}

/// A backdrop at hand behind the person, as far as the room lets it stand: where the purpose wants an even or a plain
/// background.
pub(super) fn place(brief: &Brief, layout: &mut Layout) {
    let Some((id, gear)) = wanted(brief).next() else { return };
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    if brief.purpose == Purpose::KeyedBackground
        && corner.wall_behind().is_some_and(|(_, l)| l == Look::Chroma)
    {
        return; // the wall itself is painted
    }
    let others = things(&corner);
    let offers = |what: &str| gear.common.offers(what);
    let hung = if offers("ceiling") {
        Hung::Ceiling
    } else if offers("wall") {
        Hung::Wall
    } else {
        Hung::Stands
    };
    let away = -corner.to_lens().truncate();
    let farthest = corner.wall_behind_m() - hung.depth_m();
    let nearest = if brief.purpose == Purpose::KeyedBackground { KEYED_LEAST_M } else { PLAIN_LEAST_M };
    if farthest < nearest {
        return;
    }
    for step in 0..=whole_steps(farthest - nearest, BACKDROP_STEP_M) {
        let at = corner.eyes_m.truncate() + away * (farthest - step as f64 * BACKDROP_STEP_M);
        let placed = Backdrop {
            gear: id.clone(),
            position_m: rounded_floor(at),
            bearing_deg: rounded_bearing(bearing_of(corner.to_lens())),
            hung,
            sandbag_kg: 0.0,
            locked: false,
        };
        let mut trial = frozen.clone();
        trial.backdrop = Some(placed.clone());
        let Some(tried) = Corner::from_parts(brief, &trial) else { return };
        let fits = backdrop_thing(&tried).is_some_and(|thing| Rules::new(&tried).allows(&thing, &others));
        if fits {
            layout.backdrop = Some(placed);
            fill_bag(brief, layout, &ThingId::Backdrop);
            return;
        }
    }
}
