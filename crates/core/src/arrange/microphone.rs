//! Where the microphone goes and what carries it: the first that the school wants and that is heard, else the one that is heard
//! best; the camera's own where that is heard and nothing carries another.

use super::cast::microphones;
use super::stands::{Stands, bag_for, set_up, stand_holds};
use crate::assess::legal::Rules;
use crate::assess::severity::{HEARD_SNR_DB, HEARD_STI};
use crate::corner::{Corner, Thing, built_in, is_worn, microphone_tail_m, microphone_thing, things};
use crate::edit::rounded;
use crate::geometry::DVec3;
use crate::plan::{Brief, GearMicrophone, Id, Layout, Microphone, Mounting, Support, SupportKind, ThingId};
use crate::sound::absorption::Absorption;
use crate::sound::pickup::{Pickup, Scene, pickup};
use crate::sound::placement::places;

/// Puts a microphone at its best legal place: the one that is asked for, else as said above.
pub(super) fn place(
    brief: &Brief,
    layout: &mut Layout,
    stands: &mut Stands<'_>,
    hand: f64,
    asked: Option<&Id>,
) {
    let at_hand = microphones(brief);
    if at_hand.is_empty() {
        return;
    }
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    let others = things(&corner);
    let absorption = Absorption::of(&corner);
    let scene = Scene::new(&absorption, crate::sound::voice_1m_dba(&corner).0);
    let heard = |gear: &GearMicrophone, at: DVec3| {
        pickup(&scene, &crate::sound::placed(&corner, &absorption, gear, at))
    };
    let mut best: Option<(bool, f64, Microphone)> = None;
    for (id, gear) in at_hand.iter().filter(|(id, _)| asked.is_none_or(|asked| asked == *id)) {
        let Some(used) = at_a_place(&corner, &others, stands, (id, gear), hand) else { continue };
        let got = heard(gear, used.position_m.into());
        let works = crate::corner::works(brief, id) && is_carried(&used.support);
        if is_heard(&got) && works {
            best = Some((works, got.sti, used));
            break;
        }
        if best.as_ref().is_none_or(|(working, sti, _)| (works, got.sti) > (*working, *sti)) {
            best = Some((works, got.sti, used));
        }
    }
    let Some((works, _, mut used)) = best else { return };
    // What nothing carries or records is no better than the camera's own, where that will do.
    let own = || heard(built_in(), corner.view.position_m);
    if asked.is_none() && !works && is_heard(&own()) {
        return;
    }
    stands.take(&used.support);
    let in_layout = |l: &mut Layout| l.microphone = Some(used.clone());
    let bag = bag_for(brief, &frozen, in_layout, &ThingId::Microphone);
    used.support.sandbag_kg = bag;
    layout.microphone = Some(used);
}

fn is_heard(got: &Pickup) -> bool {
    got.sti >= HEARD_STI && got.snr_dba >= HEARD_SNR_DB
}

/// Something at hand carries it, or it needs nothing.
fn is_carried(support: &Support) -> bool {
    !matches!(support.kind, SupportKind::Floor | SupportKind::Boom) || support.gear.is_some()
}

/// One microphone at the first of its places that is legal, on what is at hand or what the room has; on an arm that nobody
/// owns only where those carry it nowhere.
fn at_a_place(
    corner: &Corner<'_>,
    others: &[Thing],
    stands: &Stands<'_>,
    (id, gear): (&Id, &GearMicrophone),
    hand: f64,
) -> Option<Microphone> {
    let mut on_nothing = None;
    for place in places(corner, gear, hand) {
        let put = |support: Support| Microphone {
            gear: id.clone(),
            position_m: rounded(place),
            support,
            locked: false,
        };
        if is_worn(gear.mounting) {
            return Some(put(Support::none()));
        }
        let mut trial = corner.clone();
        trial.microphone = Some((gear, place));
        let rules = Rules::new(&trial);
        let fits = |support: &Support| rules.allows(&microphone_thing(&trial, gear, place, support), others);
        // The capsule alone first: most places fall to the room or the picture.
        if !fits(&Support::none()) {
            continue;
        }
        let supports = microphone_supports(corner, stands, gear.mounting, place, hand).into_iter();
        let tail = microphone_tail_m(corner, place);
        for support in supports.filter(|support| stand_holds(corner, support, tail, gear.common.mass_kg)) {
            let owned = is_carried(&support);
            if (owned || on_nothing.is_none()) && fits(&support) {
                let used = put(support);
                if owned {
                    return Some(used);
                }
                on_nothing = Some(used);
            }
        }
    }
    on_nothing
}

fn microphone_supports(
    corner: &Corner<'_>,
    stands: &Stands<'_>,
    mounting: Mounting,
    place: DVec3,
    hand: f64,
) -> Vec<Support> {
    let hold = microphone_tail_m(corner, place);
    let mut all = Vec::new();
    if mounting == Mounting::Desk {
        all.extend(corner.under(hold, 0.0).into_iter().map(Support::on));
    }
    all.extend(stands.clamped(corner, "microphone", hold));
    for option in
        stands.by_rig("microphone").into_iter().chain(stands.options("microphone", SupportKind::Boom))
    {
        all.extend(set_up(corner, &option, hold, hand));
    }
    all
}
