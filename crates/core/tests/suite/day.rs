//! The window by the hour: its light and colour, what hangs before it, what can be done about it, the year; against independent
//! libraries, closed forms and other ways through the same core.

use fogon_core::colour::cct_duv;
use fogon_core::corner::{Corner, Pane};
use fogon_core::day::{
    Course, DayLight, Hour, WindowWay, course, date, days, good_hours, hour_light, sun_at_local,
    with_windows_open, year, zone_of,
};
use fogon_core::daylight::hue::sun_xy;
use fogon_core::daylight::outdoors::{Sky, SkyDome};
use fogon_core::daylight::{Air, Sun, SunPath, Sunlight, sun_at};
use fogon_core::geometry::DVec3;
use fogon_core::photometry::{polygon_illuminance, sky};
use fogon_core::plan::Plan;
use fogon_testkit::assert_close;
use serde_json::{Value, json};

use crate::daylight::with_window;
use crate::support::{reading, value};

/// Positions between those that are kept against the algorithm itself, in the tropics, at the pole and where the sun passes overhead.
#[test]
fn a_path_keeps_to_the_algorithm() {
    let from_s = 1_750_000_000;
    for place in [(40.4, -3.7), (-0.2, -78.5), (78.2, 15.6), (23.4, 113.0), (-54.8, -68.3), (-17.7, 178.0)] {
        let path = SunPath::over(place, (from_s, from_s + 90_000)).unwrap();
        for at in (from_s..from_s + 90_000).step_by(1373) {
            let time = at as f64;
            let (want, found) = (sun_at(place.0, place.1, time, Air::usual(time)).unwrap(), path.at(at));
            let up = want.elevation_deg;
            // At the horizon the air bends by leaps.
            if (up + 0.83).abs() < 0.01 {
                continue;
            }
            let aside = (found.azimuth_deg - want.azimuth_deg + 540.0).rem_euclid(360.0) - 180.0;
            assert!((found.elevation_deg - up).abs() < 1e-3, "{place:?} at {at}: {found:?}, {want:?}");
            assert!((aside * up.to_radians().cos()).abs() < 1e-3, "{place:?} at {at}: {found:?}, {want:?}");
        }
    }
}

/// The sun's colour by its height against spectra of pvlib and the colour-science package (reference/daylight/sun_colour.py), which
/// know ozone and water too: from ten degrees up within 25 mired, the change that is told as seen.
#[test]
fn the_sun_reddens_as_independent_spectra_have_it() {
    let all: Vec<[f64; 2]> = serde_json::from_str(include_str!("../fixtures/sun_colour.json")).unwrap();
    for [elevation, want_k] in all {
        let (cct_k, _) = cct_duv(sun_xy(elevation)).unwrap();
        let off = 1e6 / cct_k - 1e6 / want_k;
        let most = if elevation < 10.0 { 35.0 } else { 25.0 };
        assert!(off.abs() < most, "{elevation} degrees: {cct_k:.0} K, {want_k:.0} K, {off:.1} mired");
    }
}

fn window(edits: Value) -> Value {
    let mut all = json!({ "kind": "window", "wall": 1, "from_m": 1.5, "width_m": 1.4, "sill_m": 0.6, "height_m": 1.3, "reveal_m": 0 });
    all.as_object_mut().unwrap().extend(edits.as_object().unwrap().clone());
    all
}

/// Behind a white curtain the window is an even sheet: its light is that of a polygon of one luminance, half of what reaches the
/// pane over pi (Lambert), and no beam comes through. A blind leaves what a lower window would be; a dark curtain leaves nothing.
#[test]
fn what_hangs_before_a_window_is_counted() {
    let with = |edits: Value| {
        with_window(180.0, &[("/brief/room/openings/window", window(edits)), ("/layout/lights", json!({}))])
    };
    let curtained = with(json!({ "curtain": "white" }));
    let corner = Corner::of(&curtained).unwrap();
    let sunlight = Sunlight::of(&corner).unwrap();
    let sun = Sun { azimuth_deg: 180.0, elevation_deg: 30.0 };
    let to_sun = sunlight.to_sun(sun);
    let dome = SkyDome::new(Sky::Clear, to_sun, 94);
    let pane = Pane::of(&curtained.brief.room, &curtained.brief.room.openings["window"]).unwrap();
    let luminance = sunlight.flux_lm(&dome) / pane.area_m2() / std::f64::consts::PI;
    let at = DVec3::new(2.5, 2.2, 1.2);
    let inside: Vec<DVec3> = pane.corners().into_iter().rev().collect();
    let want = polygon_illuminance(luminance, &inside, at, DVec3::X);
    assert_close(sunlight.window_lx(at, DVec3::X, &dome), want, 0.01, 0.0, "a sheet of one luminance");
    assert!(sunlight.patches(to_sun).is_empty() && !sunlight.comes_in(to_sun));
    // It holds what the sun alone brings on the pane, halved, besides the sky's.
    let (sin, cos) = 30f64.to_radians().sin_cos();
    let beam = 0.5 * sky::PANE * dome.direct_lx() * (cos + sky::GROUND / 2.0 * sin);
    let of_sky = sunlight.flux_lm(&dome.without_sun()) / pane.area_m2();
    assert_close(
        luminance * std::f64::consts::PI - of_sky,
        beam,
        1e-3,
        0.0,
        "the sun through the curtain, with what the ground throws back",
    );
    // The static light: half of the bare window's.
    let bare = with(json!({}));
    let lx = |plan: &Plan| value(plan, "light.face.illuminance_lx");
    assert_close(lx(&curtained) / lx(&bare), 0.5, 0.05, 0.0, "half of the light on the face");

    let lowered = with(json!({ "blind_m": 0.6 }));
    let low = with(json!({ "height_m": 0.7 }));
    let hours = |plan: &Plan| {
        let zone = zone_of(&plan.brief);
        let days = days(&zone, date("d", "2026-01-20").unwrap(), date("d", "2026-01-22").unwrap()).unwrap();
        good_hours(plan, &days, &zone).unwrap()
    };
    assert_eq!(hours(&lowered), hours(&low));
    assert_close(lx(&lowered), lx(&low), 1e-9, 0.0, "a blind half down and a lower window");
    let dark = with(json!({ "curtain": "dark" }));
    assert!(hours(&dark).intervals.iter().all(|one| one.light));
    assert!(lx(&dark) < 0.2 * lx(&bare));
    let mut document = serde_json::to_value(&bare).unwrap();
    fogon_testkit::set(&mut document, "/brief/room/openings/window/blind_m", json!(1.4));
    let refused = Plan::read(document.to_string().as_bytes()).unwrap_err().to_string();
    assert!(
        refused.contains("brief.room.openings.window.blind_m") && refused.contains("1.300 m"),
        "{refused}"
    );
}

fn on(plan: &Plan, day: &str) -> Course {
    let zone = zone_of(&plan.brief);
    let day = days(&zone, date("d", day).unwrap(), date("d", day).unwrap()).unwrap()[0];
    course(plan, &day, &zone).unwrap()
}

/// Under one sky the light on the face is by day what the table of a year has; its direction is that of the window, the room
/// throws some on the dark cheek, and cloud is as far from a clear sky as is said.
#[test]
fn the_window_is_a_lamp_with_a_timetable() {
    let plan = with_window(60.0, &[]);
    let corner = Corner::of(&plan).unwrap();
    let light = DayLight::of(&plan, &corner).unwrap();
    let window_deg = value(&plan, "daylight.window.azimuth_deg");
    for (azimuth_deg, elevation_deg) in [(60.0, 25.0), (150.0, 50.0), (250.0, 12.0), (80.0, 2.0)] {
        let sun = Sun { azimuth_deg, elevation_deg };
        let moment = light.under(sun);
        let (clear, grey) = (light.windows(Sky::Clear, sun), light.windows(Sky::Overcast, sun));
        // The table is linear over steps of 3 and 15 degrees.
        assert_close(moment.clear_lx, clear.face_lx, 0.12, 0.0, "a clear sky by the table");
        assert_close(moment.overcast_lx, grey.face_lx, 1e-6, 0.0, "a grey sky by the table");
        for seen in [clear, grey] {
            assert!((seen.azimuth_deg.unwrap() - window_deg).abs() < 12.0, "{seen:?} at {window_deg}");
            assert!(seen.ratio.unwrap() > 1.0 && seen.background_lx > 0.0);
        }
        let cct_k = clear.cct_k.unwrap();
        assert!((2500.0..=12_001.0).contains(&cct_k) && grey.cct_k == Some(6500.0), "{cct_k}");
    }
    // Low sun straight on the window is far warmer than a sky without it.
    let [low, away] =
        [60.0, 240.0].map(|azimuth_deg| light.clear_cct_k(Sun { azimuth_deg, elevation_deg: 4.0 }).unwrap());
    assert!(low < 7500.0 && away > 9000.0, "{low:.0} K, {away:.0} K");
    assert_eq!(light.windows(Sky::Clear, Sun { azimuth_deg: 0.0, elevation_deg: -30.0 }).cct_k, None);
}

/// What is told of the ways agrees with the hours that each would have; covering needs a lamp, filling one on the other side.
#[test]
fn each_way_to_use_a_window_says_what_comes_of_it() {
    let plan = with_window(150.0, &[]);
    let told = on(&plan, "2026-01-20");
    let way = |told: &Course, which: WindowWay| told.ways.iter().find(|one| one.way == which).cloned();
    let minutes = |told: &Course| -> i64 {
        told.hours.iter().filter(|one| one.wanted).map(|one| (one.span_s.1 - one.span_s.0) / 60).sum()
    };
    let key = way(&told, WindowWay::Key).unwrap();
    assert!(key.is_now && i64::from(key.good_min) == minutes(&told), "{key:?}");
    let curtain = way(&told, WindowWay::WhiteCurtain).unwrap();
    assert!(!curtain.is_now && curtain.says.contains("no patch"), "{curtain:?}");
    let hung = with_window(150.0, &[("/brief/room/openings/window", window(json!({ "curtain": "white" })))]);
    let hung = on(&hung, "2026-01-20");
    assert_eq!(i64::from(curtain.good_min), minutes(&hung));
    assert!(way(&hung, WindowWay::WhiteCurtain).unwrap().is_now);
    // The sun disturbs here: a curtain gives more hours.
    assert!(told.sentences.iter().any(|words| words.starts_with("The sun shines")), "{:?}", told.sentences);
    assert!(curtain.good_min > key.good_min, "{curtain:?} {key:?}");
    let cover = way(&told, WindowWay::Cover).unwrap();
    assert_eq!((cover.good_min, cover.longest.as_ref().map(|one| one.to.as_str())), (1440, Some("24:00")));
    assert!(cover.says.contains("your lamps give"), "{}", cover.says);
    let bare = with_window(150.0, &[("/layout/lights", json!({}))]);
    let bare = way(&on(&bare, "2026-01-20"), WindowWay::Cover).unwrap();
    assert!(bare.says.starts_with("No lamp lights your face") && bare.good_min == 0, "{bare:?}");
    // Nor is an hour of the night good because no lamp is there that a window could outshine.
    let unlit = with_window(
        150.0,
        &[("/layout/lights", json!({})), ("/brief/schools", json!({ "window": "shut-out" }))],
    );
    assert!(on(&unlit, "2026-01-20").hours.iter().all(|one| !one.light));
    // The key stands to camera right, the window to the left: away from the sun it is weak enough and fills. On the key's side it does not.
    let weak = |wall: u8, looks_to: f64, width_m: f64| {
        let opening = window(json!({ "wall": wall, "from_m": 1.5, "width_m": width_m }));
        let plan = with_window(looks_to, &[("/brief/room/openings/window", opening)]);
        let told = on(&plan, "2026-01-20");
        [WindowWay::Fill, WindowWay::Join].map(|which| way(&told, which))
    };
    let [fill, join] = weak(1, 330.0, 1.4);
    assert!(fill.as_ref().is_some_and(|fill| fill.good_min > 60 && !fill.is_now), "{fill:?}");
    assert_eq!(join, None);
    // On the key's side it joins it, while it is weak: the sum then stays within a third of a stop.
    let [fill, join] = weak(3, 60.0, 0.4);
    assert!(join.as_ref().is_some_and(|join| join.good_min > 30 && !join.is_now), "{join:?}");
    assert_eq!(fill, None);
    assert_eq!(weak(3, 150.0, 1.4), [None, None]);
}

/// A bearing that may be off moves the told hours of sun by what turning the room moves them; one that is exact says nothing.
#[test]
fn a_bearing_is_told_with_its_error() {
    let off = |plan: &Plan| {
        on(plan, "2026-01-20").sentences.into_iter().find(|words| words.contains("bearing may be"))
    };
    let words = off(&with_window(150.0, &[])).unwrap();
    assert!(words.starts_with("The window's bearing may be 10 degrees off"), "{words}");
    let told: i64 = {
        let span = words.split("up to ").nth(1).unwrap().trim_end_matches('.');
        let number = |unit: &str| {
            let (before, _) = span.split_once(unit)?;
            before.trim().rsplit(' ').next()?.parse::<i64>().ok()
        };
        60 * number(" h").unwrap_or(0) + number(" min").unwrap_or(0)
    };
    // The room itself turned by as much.
    let ends = |looks_to: f64| {
        let course = on(&with_window(looks_to, &[]), "2026-01-20");
        let at =
            |moment: &fogon_core::day::CourseMoment| format!("{:?}", moment.spoils).contains("SunOnFace");
        let lit: Vec<usize> = (0..course.moments.len()).filter(|i| at(&course.moments[*i])).collect();
        lit.first().copied().zip(lit.last().copied()).map(|(a, b)| (10 * a as i64, 10 * b as i64))
    };
    let middle = ends(150.0).unwrap();
    for turned in [140.0, 160.0].into_iter().filter_map(ends) {
        for shift in [(turned.0 - middle.0).abs(), (turned.1 - middle.1).abs()] {
            assert!(shift <= told + 20, "{shift} min, told {told}");
        }
    }
    assert_eq!(off(&with_window(150.0, &[("/brief/room/north_within_deg", json!(0))])), None);
}

/// The year is the days one after the other: its light is the good hours' light, its sun that of each day; days that a clock makes
/// shorter or longer, polar night and a leap year are in it.
#[test]
fn the_year_is_made_of_its_days() {
    let plan = with_window(
        150.0,
        &[(
            "/brief/quiet",
            json!([{ "days": ["sat"], "from": "22:00", "to": "02:00", "kind": "neighbours" }]),
        )],
    );
    let zone = zone_of(&plan.brief);
    let found = year(&plan, 2028, &zone).unwrap();
    assert_eq!((found.days.len(), found.days[59].date.as_str()), (366, "2028-02-29"));
    let minutes = |spans: &[fogon_core::day::Span]| -> i64 {
        spans.iter().map(|span| i64::from(span.to_min) - i64::from(span.from_min)).sum()
    };
    for index in [0, 59, 85, 171, 302, 365] {
        let day = &found.days[index];
        let asked = date("d", &day.date).unwrap();
        let hours = good_hours(&plan, &days(&zone, asked, asked).unwrap(), &zone).unwrap();
        let lit: i64 = hours
            .intervals
            .iter()
            .filter(|one| one.light)
            .map(|one| (one.span_s.1 - one.span_s.0) / 60)
            .sum();
        assert_eq!(minutes(&day.light), lit, "{}", day.date);
        assert!(minutes(&day.up) > 500 && minutes(&day.golden) > 60, "{day:?}");
    }
    // Saturday 1 January: from 22:00 on, and after midnight on the day after.
    let spans = |index: usize| {
        found.days[index].noisy.iter().map(|one| (one.from_min, one.to_min)).collect::<Vec<_>>()
    };
    assert_eq!((spans(0), spans(1), spans(2)), (vec![(1320, 1440)], vec![(0, 120)], vec![]));
    assert!(
        found.sentences.iter().any(|words| words.starts_with("The sun reaches your eyes on ")),
        "{:?}",
        found.sentences
    );
    let place = json!({ "latitude_deg": 69.65, "longitude_deg": 18.96, "time_zone": "Europe/Oslo" });
    let north = with_window(180.0, &[("/brief/place", place)]);
    let polar = year(&north, 2026, &zone_of(&north.brief)).unwrap();
    assert!(polar.days[0].up.is_empty() && polar.days[0].light.is_empty());
    assert_eq!(minutes(&polar.days[171].up), 1440);
    let none = crate::support::plain_with(&[]);
    assert!(
        year(&none, 2026, &zone).unwrap_err().to_string().contains("without one the year changes nothing")
    );
}

/// The hour that is drawn: under a grey sky the eyes get from the window what the day says, the beam is the sun's through the glass.
#[test]
fn an_hour_is_drawn_as_it_is_told() {
    let plan = with_window(180.0, &[]);
    let open = with_windows_open(&plan);
    let corner = Corner::of(&open).unwrap();
    let at = |utc: &str, sky: Sky| hour_light(&corner, &Hour { utc: utc.to_owned(), sky });
    let noon = "2026-12-21T12:15:00Z";
    let grey = at(noon, Sky::Overcast).unwrap();
    assert!(grey.beam.is_none() && grey.windows.len() == 1);
    let light = DayLight::of(&plan, &corner).unwrap();
    let sun = sun_at(40.4, -3.7, 1_797_855_300.0, Air::usual(1_797_855_300.0)).unwrap();
    let dome = SkyDome::new(Sky::Overcast, light.sunlight().to_sun(sun), 94);
    let pane = Pane::of(&plan.brief.room, &plan.brief.room.openings["window"]).unwrap();
    let inside: Vec<DVec3> = pane.corners().into_iter().rev().collect();
    let to_window = (pane.middle_m - corner.eyes_m).normalize();
    let drawn = polygon_illuminance(grey.windows[0].1, &inside, corner.eyes_m, to_window);
    let told = light.sunlight().window_lx(corner.eyes_m, to_window, &dome);
    assert_close(drawn, told, 0.05, 0.0, "light of the window as drawn");
    let beam = at(noon, Sky::Clear).unwrap().beam.unwrap();
    let straight = sky::PANE * SkyDome::new(Sky::Clear, beam.to_sun, 94).direct_lx();
    assert_close(beam.illuminance_lx, straight, 1e-12, 0.0, "the beam behind the glass");
    assert_close(
        beam.to_sun.z.asin().to_degrees(),
        sun.elevation_deg,
        0.0,
        1e-6,
        "where the beam comes from",
    );
    // At night nothing shines; a time that is none is refused by its field.
    let night = at("2026-12-21T23:00:00Z", Sky::Clear).unwrap();
    assert!(night.beam.is_none() && night.windows[0].1 < 1e-3, "{night:?}");
    assert!(at("yesterday", Sky::Clear).unwrap_err().to_string().starts_with("hour.utc: yesterday"));
    // The sun at a local time: a clock that is an hour ahead in summer.
    let place = plan.brief.place.clone().unwrap();
    let winter = sun_at_local(&place, "2026-12-21T13:15").unwrap();
    assert_close(winter.azimuth_deg, sun.azimuth_deg, 0.0, 1e-6, "local time in winter");
    assert!(sun_at_local(&place, "2026-06-21T14:15").unwrap().azimuth_deg > 165.0);
    assert!(sun_at_local(&place, "noon").unwrap_err().to_string().starts_with("local: noon"));
}

/// The key of a corner laid out anew stands on the window's side, so that what comes in of it and the lamp read as one.
#[test]
fn the_key_stands_on_the_side_of_the_window() {
    let brief = serde_json::from_str(fogon_testkit::BOX_ROOM).unwrap();
    let plan = crate::support::best(&brief);
    let (key, window) = (value(&plan, "light.key.azimuth_deg"), value(&plan, "daylight.window.azimuth_deg"));
    assert!(key * window > 0.0, "key {key}, window {window}");
}

/// The average daylight factor of the room by the formula of BS 8206-2 worked here, over its own surfaces.
#[test]
fn the_room_tells_its_daylight_factor() {
    let plan = with_window(180.0, &[("/brief/room/openings/window", window(json!({ "horizon_deg": 25 })))]);
    let [w, d, h] = [4.0, 5.0, 2.6];
    let surfaces = 2.0 * (w * d + (w + d) * h);
    let rho = (w * d * (0.80 + 0.30) + 2.0 * (w + d) * h * 0.65) / surfaces;
    let want = 0.68 * 1.4 * 1.3 * 65.0 / (surfaces * (1.0 - rho * rho));
    let found = reading(&plan, "daylight.room.factor_percent");
    assert_close(found.value.unwrap(), want, 1e-9, 0.0, "average daylight factor");
    let size = value(&plan, "daylight.window.angular_size_deg");
    assert!((20.0..70.0).contains(&size), "{size}");
}
