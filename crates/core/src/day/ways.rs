//! What can be done about the windows on a day: cover them, let them be the key, hang a white curtain, let them fill beside the
//! lamps or join them.

use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::LocalDay;
use super::clock::{Stretch, clock};
use super::hour::with_windows_open;
use super::hours::{GoodHours, good_hours_under, hours_in};
use super::light::{DayLight, Moment};
use crate::corner::Corner;
use crate::daylight::Sun;
use crate::daylight::outdoors::Sky;
use crate::plan::{Curtain, Plan, Role};
use crate::units::{beside_lens, capital};

/// What the fill gives beside the key, stops (common practice, no source: a half to an eighth).
const FILL_STOPS: std::ops::RangeInclusive<f64> = -3.0..=-1.0;
/// What a window gives at most that joins the key, stops: with it or without, the light stays within a third of a stop; and at least,
/// to be seen at all. Fogon's own rule.
const JOIN_STOPS: std::ops::RangeInclusive<f64> = -5.0..=-2.0;
/// A lamp and a window read as one up to this far apart round the face, degrees. Fogon's own rule.
const AS_ONE_DEG: f64 = 45.0;
/// In less than this nobody sets up and speaks, minutes. Fogon's own rule.
const WORTH_MIN: u16 = 30;
/// Farther round than this a window lights the face from behind, degrees from the lens. Fogon's own rule.
const BEHIND_DEG: f64 = 110.0;

/// What is done about the windows.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum WindowWay {
    /// They are covered.
    Cover,
    /// They are the key, with nothing before them.
    Key,
    /// They are the key behind a white curtain.
    WhiteCurtain,
    /// They fill, from the side away from the key.
    Fill,
    /// They join the key from its own side: both read as one.
    Join,
}

/// One way, and what comes of it on this day.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Way {
    /// Which.
    pub way: WindowWay,
    /// It is how the plan has it.
    pub is_now: bool,
    /// Minutes of the day in which a take can be made.
    pub good_min: u16,
    /// The longest of them in one.
    pub longest: Option<Stretch>,
    /// What it brings and costs.
    pub says: String,
}

/// Every way that is open to a plan on a day.
pub(super) fn ways(plan: &Plan, now: &DayLight<'_>, day: &LocalDay, zone: &TimeZone) -> Vec<Way> {
    let Some(path) = now.path(day) else { return Vec::new() };
    let days = std::slice::from_ref(day);
    // Of the day's sun the highest: there the windows give most under a grey sky.
    let noon = (day.start_s..day.end_s)
        .step_by(600)
        .map(|at| path.at(at))
        .max_by(|a, b| a.elevation_deg.total_cmp(&b.elevation_deg));
    let Some(noon) = noon else { return Vec::new() };
    let shines = plan.brief.windows_shine();
    // Who has no lamp has nothing behind a covered window.
    let by_lamps = match now.lamps_lx > 0.0 {
        true => hours_in(None, plan, days, zone),
        false => GoodHours { intervals: Vec::new() },
    };
    let mut all = vec![told(WindowWay::Cover, !shines, &by_lamps, zone, covered(now, noon))];
    for curtain in [None, Some(Curtain::White)] {
        let other = behind(plan, curtain);
        let Some(corner) = Corner::of(&other) else { continue };
        let Ok(light) = DayLight::of(&other, &corner) else { continue };
        let way = if curtain.is_some() { WindowWay::WhiteCurtain } else { WindowWay::Key };
        let is_now = shines && other.brief.room.openings == plan.brief.room.openings;
        let hours = good_hours_under(&light, &other, days, zone);
        all.push(told(way, is_now, &hours, zone, as_key(&light, noon, curtain.is_some())));
    }
    all.extend(open_beside_lamps(plan, now, noon, days, zone));
    all
}

/// A plan whose windows are the key, with nothing or a white curtain before all but those that are dark.
fn behind(plan: &Plan, curtain: Option<Curtain>) -> Plan {
    let mut open = with_windows_open(plan);
    for opening in open.brief.room.openings.values_mut().filter(|opening| opening.is_open_to_light()) {
        opening.curtain = curtain;
    }
    open
}

fn told(way: WindowWay, is_now: bool, hours: &GoodHours, zone: &TimeZone, says: String) -> Way {
    let good: Vec<(i64, i64)> =
        hours.intervals.iter().filter(|one| one.wanted).map(|one| one.span_s).collect();
    let seconds: i64 = good.iter().map(|(from, to)| to - from).sum();
    let longest = good.iter().max_by_key(|(from, to)| (to - from, -from));
    let ends_s = hours.intervals.last().map_or(0, |one| one.span_s.1);
    let until = |at: i64| if at == ends_s { "24:00".to_owned() } else { clock(zone, at) };
    Way {
        way,
        is_now,
        good_min: u16::try_from(seconds / 60).unwrap_or(u16::MAX),
        longest: longest.map(|(from, to)| Stretch { from: clock(zone, *from), to: until(*to) }),
        says,
    }
}

fn covered(now: &DayLight<'_>, noon: Sun) -> String {
    if now.lamps_lx <= 0.0 {
        return "No lamp lights your face: cover it only once one does.".to_owned();
    }
    let given_up = now.windows(Sky::Overcast, noon).face_lx;
    format!(
        "Your lamps alone: the same light at every hour, so takes cut together. You give up {given_up:.0} lx of soft light (grey sky at noon; your lamps give {:.0} lx).",
        now.lamps_lx
    )
}

fn as_key(light: &DayLight<'_>, noon: Sun, scattered: bool) -> String {
    let (grey, clear) = (light.windows(Sky::Overcast, noon), light.windows(Sky::Clear, noon));
    let Some(azimuth_deg) = grey.azimuth_deg else {
        return "Too dark on this day, even at noon.".to_owned();
    };
    let stops = (grey.face_lx / light.needed_lx).log2();
    let enough = if stops >= 0.05 {
        format!("{stops:.1} stops more than the picture needs at noon under a grey sky")
    } else if stops <= -0.05 {
        format!("{:.1} stops less than the picture needs even at noon under a grey sky", -stops)
    } else {
        "just what the picture needs at noon under a grey sky".to_owned()
    };
    let side = capital(&format!("from {}", beside_lens(azimuth_deg)));
    let behind = if azimuth_deg.abs() > BEHIND_DEG {
        " That is behind you: turn the corner, or it makes you a dark shape."
    } else {
        ""
    };
    let cloud = (clear.face_lx / grey.face_lx).log2().abs();
    let sun = if scattered { " The curtain scatters the sun: no patch anywhere." } else { "" };
    format!("{side}: {enough}; a cloud changes it by {cloud:.1} stops.{behind}{sun}")
}

/// When open windows serve beside the lamps under any sky: as the fill from the side away from the key, or joining the key from its
/// own.
fn open_beside_lamps(
    plan: &Plan,
    now: &DayLight<'_>,
    noon: Sun,
    days: &[LocalDay],
    zone: &TimeZone,
) -> Option<Way> {
    let corner = now.corner();
    let key = corner.role(Role::Key).next().filter(|_| now.lamps_lx > 0.0)?;
    let (key_deg, _) = corner.light_angles_deg(key.position_m);
    let window_deg = now.windows(Sky::Overcast, noon).azimuth_deg.filter(|deg| deg.abs() <= BEHIND_DEG)?;
    let (way, stops, says) = if window_deg * key_deg < 0.0 {
        let says = "Your lamp stays the key: set your lamps to daylight, and leave the window open while it gives a half to an eighth of their light.";
        (WindowWay::Fill, FILL_STOPS, says)
    } else if (window_deg - key_deg).abs() <= AS_ONE_DEG {
        let says = "Your lamp stays the key, on the window's side, so both read as one light: set your lamps to daylight, and leave the window open while it gives no more than a quarter of their light. A cloud then changes it by less than a third of a stop.";
        (WindowWay::Join, JOIN_STOPS, says)
    } else {
        return None;
    };
    let serves = |lx: f64| stops.contains(&(lx / now.lamps_lx).log2());
    let holds =
        |moment: &Moment| !moment.sun_disturbs() && serves(moment.clear_lx) && serves(moment.overcast_lx);
    let hours = hours_in(Some((now, &holds)), plan, days, zone);
    Some(told(way, false, &hours, zone, says.to_owned())).filter(|way| way.good_min >= WORTH_MIN)
}
