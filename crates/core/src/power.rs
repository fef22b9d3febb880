//! Power: which plug goes into which socket, how long its cable must be and where it crosses the way, what each circuit carries, how
//! long batteries last, and whether one switch may do for all lamps.

mod route;

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::{Carried, Corner, Kit, LightAt, Source, base_of, is_of_the_house};
use crate::geometry::{DVec2, DVec3};
use crate::photometry::power_w;
use crate::plan::{Common, Gear, Id, Socket, ThingId};
use crate::room::{load_a, mains};
use crate::shot::recording::{DERATING, battery_min};
use crate::units::{capital, decimals, lower_first};
use route::{Way, route, ways};

/// Part of a breaker that a continuous load may take (NFPA 70 (NEC) 210.20(A), from memory).
const CONTINUOUS: f64 = 0.8;
/// What an ordinary strip with a switch carries, A; the label of one's own rules. Fogon's own rule.
const STRIP_A: f64 = 10.0;
/// Slack of a cable at its ends, m (common practice, no source).
const SLACK_M: f64 = 0.5;

/// What to say beside every figure.
pub const CAUTION: &str = "Never plug one extension lead or strip into another; cables along walls, taped where they cross a way, \
                           reels fully unwound. The label of the strip, local electrical codes and a licensed electrician come first.";

/// One thing that is plugged into the mains.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MainsPlug {
    /// The name of the thing.
    pub id: String,
    /// What it is.
    pub what: String,
    /// Power it takes at most, W.
    pub power_w: f64,
    /// Power is assumed, not told.
    pub is_assumed: bool,
    /// The socket, by its name; none where no sockets are told.
    pub socket: Option<String>,
    /// So long must its cable be at least, m, down the stand and over the floor.
    pub cable_m: Option<f64>,
    /// The ways that it crosses, in words.
    pub crosses: Vec<String>,
    /// How it runs over the floor, m from left and back wall.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub points_m: Vec<[f64; 2]>,
    /// All of it in words.
    pub words: String,
}

/// What hangs on one breaker.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Circuit {
    /// Its name; empty where it has none.
    pub name: String,
    /// What the plan plugs into it, W.
    pub load_w: f64,
    /// The same, A.
    pub load_a: f64,
    /// What the breaker holds, A.
    pub breaker_a: f64,
    /// Load over breaker.
    pub fraction: f64,
    /// All of it in words.
    pub words: String,
}

/// A strip that is needed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Strip {
    /// The socket that it goes into, by its name.
    pub socket: String,
    /// So many plugs go into it.
    pub plugs: usize,
    /// All of it in words.
    pub words: String,
}

/// Whether all lamps may hang on one switch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OneSwitch {
    /// They may.
    pub is_allowed: bool,
    /// Why, in words.
    pub words: String,
}

/// The power of one corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Power {
    /// What is plugged in, in the order of the marks.
    pub plugs: Vec<MainsPlug>,
    /// What the breakers carry.
    pub circuits: Vec<Circuit>,
    /// Strips that are needed because a socket has too few places.
    pub strips: Vec<Strip>,
    /// Whether all lamps may hang on one switch.
    pub one_switch: OneSwitch,
    /// How long batteries last, in words.
    pub batteries: Vec<String>,
    /// What to heed.
    pub caution: &'static str,
}

/// A thing with a plug: what it is, what it takes, where its cable begins.
struct Load {
    thing: ThingId,
    what: String,
    watts: f64,
    volt_amperes: f64,
    is_assumed: bool,
    is_lamp: bool,
    foot_m: DVec2,
    down_m: f64,
}

/// A lamp that hangs on a socket, not on a battery of its own; lamps of the house are there already.
pub(crate) fn takes_mains(light: &LightAt<'_>) -> bool {
    match light.source {
        Source::Lamp(lamp) => {
            !lamp.common.needs.iter().any(|need| need == "battery") && !is_of_the_house(light)
        }
        Source::Board(_) => false,
    }
}

/// Everything with a plug.
fn loads(corner: &Corner<'_>) -> Vec<Load> {
    let carried = corner.carried();
    let one = |thing: ThingId, common: &Common, watts: f64, is_assumed: bool, is_lamp: bool| {
        let on: Option<&Carried<'_>> = carried.iter().find(|on| on.id == thing);
        let hold = on.map_or(DVec3::ZERO, |on| on.hold_m);
        let foot_m = match on {
            Some(on) if on.stands() => base_of(on.support, hold),
            _ => hold.truncate(),
        };
        Load {
            thing,
            what: lower_first(&common.label),
            watts,
            volt_amperes: watts / common.power_factor.unwrap_or(1.0),
            is_assumed,
            is_lamp,
            foot_m,
            down_m: hold.z,
        }
    };
    let mut all = Vec::new();
    let told = |common: &Common| common.power_w.filter(|watts| *watts > 0.0);
    if let Some(watts) = told(&corner.body.common) {
        all.push(one(ThingId::Camera, &corner.body.common, watts, false, false));
    }
    for light in &corner.lights {
        let Source::Lamp(lamp) = light.source else { continue };
        if !takes_mains(light) {
            continue;
        }
        let (watts, is_assumed) = power_w(lamp);
        all.push(one(ThingId::Light(light.id.clone()), &lamp.common, watts, is_assumed, true));
    }
    if let Some((screen, _)) = corner.screen
        && let Some(watts) = told(&screen.common)
    {
        all.push(one(ThingId::Screen, &screen.common, watts, false, false));
    }
    for angle in &corner.angles {
        // A body that is used twice has one plug.
        let is_second = angle.angle.body != corner.layout.camera.body;
        if let Some(watts) = told(&angle.body.common).filter(|_| is_second) {
            all.push(one(ThingId::Angle(angle.id.clone()), &angle.body.common, watts, false, false));
        }
    }
    all
}

/// Whether all lamps may hang on one switched strip.
pub fn one_switch(corner: &Corner<'_>) -> OneSwitch {
    let lamps: Vec<Load> = loads(corner).into_iter().filter(|load| load.is_lamp).collect();
    let mains = mains(corner.brief);
    let volt_amperes: f64 = lamps.iter().map(|lamp| lamp.volt_amperes).sum();
    let load = load_a(volt_amperes, mains.voltage_v.0, 1.0);
    let most = STRIP_A.min(CONTINUOUS * mains.breaker_a.0);
    let takes = format!("{} A at {:.0} V", decimals(load, 1), mains.voltage_v.0);
    let (is_allowed, words) = match lamps.len() {
        0 => (false, "No lamp hangs on a socket.".to_owned()),
        1 => (false, "There is one lamp: its own switch does.".to_owned()),
        _ if load <= most => {
            (true, format!("One strip with a switch carries all lamps: they take {takes}. Its label rules."))
        }
        _ => (
            false,
            format!(
                "All lamps together take {takes}, more than the {} A that one strip should carry: two strips, on two circuits.",
                decimals(most, 1)
            ),
        ),
    };
    OneSwitch { is_allowed, words }
}

/// The power of a corner.
pub fn power(corner: &Corner<'_>) -> Power {
    let loads = loads(corner);
    let sockets: Vec<(&Id, &Socket)> = corner.brief.room.sockets.iter().collect();
    let ways = ways(corner);
    let chosen = chosen(corner, &loads, &sockets, &ways);
    let plugs = loads.iter().zip(&chosen).map(|(load, socket)| {
        let run = socket.map(|at| (sockets[at].0.words(), run(corner, &ways, load, sockets[at].1)));
        plug(corner, load, run)
    });
    let strips = sockets.iter().enumerate().filter_map(|(at, (id, socket))| {
        let plugs = chosen.iter().filter(|chosen| **chosen == Some(at)).count();
        let words = format!("A strip with {plugs} places at socket {}.", id.words());
        (plugs > socket.plugs()).then(|| Strip { socket: id.words(), plugs, words })
    });
    Power {
        plugs: plugs.collect(),
        circuits: circuits(corner, &loads, &chosen, &sockets),
        strips: strips.collect(),
        one_switch: one_switch(corner),
        batteries: batteries(corner),
        caution: CAUTION,
    }
}

/// A load with its socket and its cable, if sockets are told.
fn plug(corner: &Corner<'_>, load: &Load, run: Option<(String, (f64, route::Route))>) -> MainsPlug {
    let what = capital(&load.what);
    let about = if load.is_assumed { "about " } else { "" };
    let mut words = format!("{what}, {about}{:.0} W", load.watts);
    let (socket, cable_m, crosses, points_m) = match run {
        Some((socket, (cable_m, route))) => {
            words +=
                &format!(" into socket {socket}, at least {} of cable", corner.brief.units.length(cable_m));
            if !route.crosses.is_empty() {
                words += &format!("; tape it down where it crosses {}", route.crosses.join(" and "));
            }
            let points = route.points.iter().map(|point| point.to_array()).collect();
            (Some(socket), Some(cable_m), route.crosses, points)
        }
        None => (None, None, Vec::new(), Vec::new()),
    };
    let (id, is_assumed) = (corner.name(&load.thing), load.is_assumed);
    let words = words + ".";
    MainsPlug { id, what, power_w: load.watts, is_assumed, socket, cable_m, crosses, points_m, words }
}

/// What each breaker carries.
fn circuits(
    corner: &Corner<'_>,
    loads: &[Load],
    chosen: &[Option<usize>],
    sockets: &[(&Id, &Socket)],
) -> Vec<Circuit> {
    let mains = mains(corner.brief);
    let name =
        |socket: &Option<usize>| socket.and_then(|at| sockets[at].1.circuit.clone()).unwrap_or_default();
    let mut names: Vec<String> = chosen.iter().map(name).collect();
    names.sort_unstable();
    names.dedup();
    let of_name = |own: String| {
        let on_it = loads.iter().zip(chosen).filter(|(_, socket)| name(socket) == own);
        let (load_w, volt_amperes) = on_it.fold((0.0, 0.0), |(watts, volt_amperes), (load, _)| {
            (watts + load.watts, volt_amperes + load.volt_amperes)
        });
        let (load_a, breaker_a) = (load_a(volt_amperes, mains.voltage_v.0, 1.0), mains.breaker_a.0);
        let called = if own.is_empty() { "All together".to_owned() } else { format!("Circuit {own}") };
        let words = format!(
            "{called}: {load_w:.0} W, {} A of {breaker_a:.0} A, and what else hangs on that breaker.",
            decimals(load_a, 1)
        );
        Circuit { name: own, load_w, load_a, breaker_a, fraction: load_a / breaker_a, words }
    };
    names.into_iter().map(of_name).collect()
}

/// A cable from a thing to a socket: its length with what hangs down and its slack, and its way.
fn run(corner: &Corner<'_>, ways: &[Way], load: &Load, socket: &Socket) -> (f64, route::Route) {
    let [x, y, z] = socket.position_m.0;
    let route = route(&corner.floor_m, ways, load.foot_m, DVec2::new(x, y));
    (load.down_m + route.long_m + z + SLACK_M, route)
}

/// The socket of each load: all in one, that with the shortest cables, where its breaker carries them; else each in the one with the
/// shortest cable whose breaker still carries it, the largest first.
fn chosen(
    corner: &Corner<'_>,
    loads: &[Load],
    sockets: &[(&Id, &Socket)],
    ways: &[Way],
) -> Vec<Option<usize>> {
    if sockets.is_empty() || loads.is_empty() {
        return vec![None; loads.len()];
    }
    let mains = mains(corner.brief);
    let amperes = |load: &Load| load_a(load.volt_amperes, mains.voltage_v.0, 1.0);
    let most = CONTINUOUS * mains.breaker_a.0;
    let cost = |load: &Load, at: usize| {
        let (long, route) = run(corner, ways, load, sockets[at].1);
        // A way that is crossed counts as much as a room's width of cable.
        long + 4.0 * route.crosses.len() as f64
    };
    let costs: Vec<Vec<f64>> =
        loads.iter().map(|load| (0..sockets.len()).map(|at| cost(load, at)).collect()).collect();
    if loads.iter().map(amperes).sum::<f64>() <= most {
        let all = |at: usize| costs.iter().map(|of| of[at]).sum::<f64>();
        let best = (0..sockets.len()).min_by(|a, b| all(*a).total_cmp(&all(*b)));
        return vec![best; loads.len()];
    }
    let mut order: Vec<usize> = (0..loads.len()).collect();
    order.sort_by(|a, b| amperes(&loads[*b]).total_cmp(&amperes(&loads[*a])));
    let mut carried: Vec<(Option<&String>, f64)> = Vec::new();
    let mut chosen = vec![None; loads.len()];
    for index in order {
        let own = amperes(&loads[index]);
        let on = |at: usize, carried: &[(Option<&String>, f64)]| {
            let name = sockets[at].1.circuit.as_ref();
            carried.iter().find(|(other, _)| *other == name).map_or(0.0, |(_, load)| *load)
        };
        let best = (0..sockets.len()).min_by(|a, b| {
            let over = |at: usize| (on(at, &carried) + own - most).max(0.0);
            over(*a).total_cmp(&over(*b)).then(costs[index][*a].total_cmp(&costs[index][*b]))
        });
        if let Some(at) = best {
            let name = sockets[at].1.circuit.as_ref();
            match carried.iter_mut().find(|(other, _)| *other == name) {
                Some((_, load)) => *load += own,
                None => carried.push((name, own)),
            }
        }
        chosen[index] = best;
    }
    chosen
}

/// How long batteries last, in words: the camera's, and those on which a lamp hangs.
fn batteries(corner: &Corner<'_>) -> Vec<String> {
    let session = corner.brief.recording.session_min;
    let told = |whose: &str, minutes: f64| {
        let against = session.map_or(String::new(), |session| {
            let enough = if minutes < session { "it is not enough" } else { "it is enough" };
            format!(", the session {session:.0} min: {enough}")
        });
        format!("The battery of the {whose} lasts {minutes:.0} min{against}.")
    };
    let mut all: Vec<String> =
        battery_min(corner).map(|minutes| told("camera", minutes)).into_iter().collect();
    for link in Kit::of(corner).links {
        let battery = link.by.and_then(|id| corner.brief.gear.get(id));
        let (ThingId::Light(id), Some(Gear::Power(battery))) = (&link.of, battery) else { continue };
        let light = corner.lights.iter().find(|light| light.id == id);
        let (Some(Source::Lamp(lamp)), Some(energy_wh)) =
            (light.map(|light| light.source), battery.energy_wh)
        else {
            continue;
        };
        let watts = power_w(lamp).0 * light.map_or(1.0, |light| light.light.dim.max(0.05));
        all.push(told(&link.of.words(), 60.0 * energy_wh * DERATING / watts.max(0.1)));
    }
    all
}
