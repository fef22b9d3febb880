//! Where the person's screen goes, and what it stands on.

use super::stands::{Stands, bag_for, stand_holds};
use crate::assess::legal::Rules;
use crate::corner::{Corner, screen_thing, things};
use crate::edit::{fill_bag, rounded, supports_for};
use crate::geometry::DVec3;
use crate::plan::{
    Brief, GearMonitor, Layout, MonitorSchool, Screen, ScreenType, Support, SupportKind, ThingId,
};
use crate::shot::seeing;

/// Feet of a low table or stand for a screen where none is told, m. Fogon's own rule.
const SCREEN_FOOT_M: f64 = 0.25;
/// The screen of the monitor school, where one is at hand and has a legal place; the script glass whenever a script is
/// read and one is at hand.
pub(super) fn place(brief: &Brief, layout: &mut Layout, stands: &Stands<'_>) {
    let wanted = match brief.schools.monitor {
        _ if brief.recording.script_words.is_some() => Some(ScreenType::Script),
        MonitorSchool::FlipScreen => None,
        MonitorSchool::Field => Some(ScreenType::Field),
        MonitorSchool::Phone => Some(ScreenType::Phone),
        MonitorSchool::Television => Some(ScreenType::Television),
        MonitorSchool::Mirror => Some(ScreenType::Mirror),
    };
    let at_hand = brief.gear.iter().filter(|(_, gear)| gear.at_hand());
    let Some((id, gear)) = at_hand
        .filter_map(|(id, gear)| Some((id, gear.monitor()?)))
        .find(|(_, monitor)| Some(monitor.screen) == wanted)
    else {
        return;
    };
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    let others = things(&corner);
    for place in seeing::places(&corner, gear) {
        let mut trial = corner.clone();
        trial.screen = Some((gear, place));
        let rules = Rules::new(&trial);
        for mut support in supports(&corner, stands, gear, place) {
            let under = place - DVec3::Z * (gear.height_m() / 2.0);
            if !stand_holds(&corner, &support, under, gear.common.mass_kg)
                || !rules.allows(&screen_thing(&trial, gear, place, &support), &others)
            {
                continue;
            }
            let put =
                |support| Screen { gear: id.clone(), position_m: rounded(place), support, locked: false };
            let in_layout = |l: &mut Layout| l.screen = Some(put(support.clone()));
            support.sandbag_kg = bag_for(brief, &frozen, in_layout, &ThingId::Screen);
            layout.screen = Some(put(support));
            // It weighs on the camera's tripod.
            fill_bag(brief, layout, &ThingId::Camera);
            return;
        }
    }
}

/// On the camera where it is light enough to hang there, else on furniture below it, else on a stand.
fn supports(corner: &Corner<'_>, stands: &Stands<'_>, gear: &GearMonitor, place: DVec3) -> Vec<Support> {
    if matches!(gear.screen, ScreenType::Field | ScreenType::Phone | ScreenType::Script) {
        return vec![Support::none()];
    }
    let under = place - DVec3::Z * (gear.height_m() / 2.0);
    let mut all: Vec<Support> =
        corner.under(under + DVec3::Z * 0.02, 0.0).into_iter().map(Support::on).collect();
    for mut option in stands.options("screen", SupportKind::Floor) {
        if option.gear.is_none() {
            option.foot_radius_m = Some(SCREEN_FOOT_M);
        }
        all.extend(supports_for(corner, &option, under, corner.eyes_m.truncate(), 1.0));
    }
    all
}
