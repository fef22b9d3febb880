//! Sun, sky and good hours, against published examples and independent libraries.

use fogon_core::calc::run;
use fogon_core::corner::{Corner, Pane};
use fogon_core::day::{Interval, date, days, good_hours, zone_of};
use fogon_core::daylight::outdoors::{Sky, SkyDome, direct_lx, level_lx};
use fogon_core::daylight::{Air, Sunlight, crossings, sun_at};
use fogon_core::geometry::{DVec3, bearing_vector};
use fogon_core::plan::{Plan, ThingId};
use fogon_testkit::assert_close;
use serde_json::{Value, json};

use crate::support::{plain, plain_with, read};

fn calc(name: &str, input: Value) -> Value {
    run(name, input.to_string().as_bytes()).unwrap_or_else(|problem| panic!("{name}: {problem}"))
}

fn number(value: &Value) -> f64 {
    value.as_f64().unwrap()
}

/// The worked example of Reda and Andreas, NREL/TP-560-34302: zenith 50.11162 and azimuth 194.34024 degrees.
#[test]
fn the_sun_stands_where_the_published_example_has_it() {
    let example = json!({ "time": "2003-10-17T12:30:30-07:00", "latitude_deg": 39.742476, "longitude_deg": -105.1786,
        "elevation_m": 1830.14, "pressure_hpa": 820, "temperature_c": 11, "delta_t_s": 67 });
    let found = calc("sun-position", example.clone());
    assert_close(number(&found["zenith_deg"]), 50.11162, 0.0, 1e-5, "zenith");
    assert_close(number(&found["azimuth_deg"]), 194.34024, 0.0, 1e-5, "azimuth");
    let refused = |edit: (&str, Value)| {
        let mut input = example.clone();
        input[edit.0] = edit.1;
        run("sun-position", input.to_string().as_bytes()).unwrap_err().to_string()
    };
    assert!(refused(("time", json!("2003-10-17T12:30:30"))).ends_with("(timezone_missing)"));
    assert!(refused(("time", json!("2101-01-01T00:00:00Z"))).contains("a year from 1900 to 2100"));
    assert!(refused(("time", json!("noon"))).ends_with("(out_of_range)"));
    assert!(refused(("latitude_deg", json!(91))).starts_with("latitude_deg: 91 is not accepted"));
}

/// A thousand places and times 1950 to 2050 by pvlib's own writing of the algorithm, a hundred rises and sets by PyEphem
/// (reference/daylight/sun.py).
#[test]
fn the_sun_agrees_with_independent_libraries() {
    let all: Value = serde_json::from_str(include_str!("../fixtures/sun.json")).unwrap();
    for one in all["positions"].as_array().unwrap() {
        let [time, latitude, longitude, azimuth, elevation] = [0, 1, 2, 3, 4].map(|at| number(&one[at]));
        let sun = sun_at(latitude, longitude, time, Air::usual(time)).unwrap();
        let aside = (sun.azimuth_deg - azimuth + 540.0).rem_euclid(360.0) - 180.0;
        let aside = aside * elevation.to_radians().cos();
        assert!(aside.abs() < 0.01 && (sun.elevation_deg - elevation).abs() < 0.01, "{one}: {sun:?}");
    }
    for one in all["risings"].as_array().unwrap() {
        let [day, latitude, longitude, rise, fall] = [0, 1, 2, 3, 4].map(|at| number(&one[at]));
        let found = crossings((latitude, longitude), (day as i64, day as i64 + 2 * 86_400), None).unwrap();
        let near = |all: &[i64], want: f64| all.iter().any(|at| (*at as f64 - want).abs() < 60.0);
        assert!(near(&found.rises_s, rise) && near(&found.sets_s, fall), "{one}: {found:?}");
    }
}

/// Worked by hand from the profile angle, from Moon and Spencer's sky, and from the average daylight factor.
#[test]
fn windows_let_in_what_is_worked_by_hand() {
    let patch = calc(
        "sun-patch",
        json!({ "window_width_m": 1.2, "sill_m": 0.9, "window_height_m": 1.2, "reveal_depth_m": 0.2,
            "window_azimuth_deg": 170, "sun_azimuth_deg": 190, "sun_elevation_deg": 35 }),
    );
    let checks = [
        ("profile_angle_deg", 36.6915),
        ("effective_width_m", 1.12721),
        ("effective_height_m", 1.05097),
        ("patch_area_m2", 1.58984),
    ];
    for (field, want) in checks {
        assert_close(number(&patch[field]), want, 1e-5, 0.0, field);
    }
    let none = calc(
        "sun-patch",
        json!({ "window_width_m": 1.2, "sill_m": 0.9, "window_height_m": 1.2, "reveal_depth_m": 0.2,
            "window_azimuth_deg": 0, "sun_azimuth_deg": 180, "sun_elevation_deg": 35 }),
    );
    assert!(none["profile_angle_deg"].is_null() && number(&none["patch_area_m2"]) == 0.0, "{none}");
    let window = calc(
        "overcast-window",
        json!({ "horizontal_illuminance_lx": 10000, "glass_transmittance": 0.68, "window_width_m": 1.4,
            "sill_m": 0.9, "window_height_m": 1.3, "face_height_m": 1.2, "distance_m": 1.5 }),
    );
    assert_close(number(&window["window_luminance_cd_m2"]), 1073.98, 1e-5, 0.0, "luminance");
    assert_close(number(&window["illuminance_lx"]), 639.280, 1e-5, 0.0, "illuminance");
    let factor = |angle: f64, kept: f64| {
        let input = json!({ "glazing_transmittance": 0.68, "glazed_area_m2": 2.0, "sky_angle_deg": angle,
            "maintenance_factor": kept, "total_surface_m2": 60, "mean_reflectance": 0.5 });
        number(&calc("daylight-factor", input)["percent"])
    };
    assert_close(factor(65.0, 0.9), 0.68 * 2.0 * 65.0 * 0.9 / (60.0 * 0.75), 1e-12, 0.0, "factor");
    // Day 172, 45 degrees (IES daylight availability, worked by hand).
    assert_close(direct_lx(45.0, 172), 91_592.7, 1e-5, 0.0, "straight from the sun");
    assert_close(level_lx(Sky::Clear, 45.0), 13_833.9, 1e-5, 0.0, "clear sky");
    assert_close(level_lx(Sky::Overcast, 45.0), 15_149.2, 1e-5, 0.0, "overcast sky");
    for sky in [Sky::Clear, Sky::Overcast] {
        assert_close(level_lx(sky, 0.0), level_lx(sky, 1e-9), 1e-3, 0.0, "no leap at the horizon");
    }
}

/// A corner with one window in its right wall, 3 x 4 m, that looks to a bearing: north is turned for it.
pub(crate) fn with_window(looks_to_deg: f64, edits: &[(&str, Value)]) -> Plan {
    let mut all = vec![
        // The right wall of a room looks along +x: bearing 90 of the plan.
        ("/brief/room/north_deg", json!((90.0 - looks_to_deg).rem_euclid(360.0))),
        (
            "/brief/room/openings/window",
            json!({ "kind": "window", "wall": 1, "from_m": 1.5, "width_m": 1.4, "sill_m": 0.6, "height_m": 1.3, "reveal_m": 0 }),
        ),
        (
            "/brief/place",
            json!({ "latitude_deg": 40.4, "longitude_deg": -3.7, "time_zone": "Europe/Madrid" }),
        ),
        ("/brief/schools", json!({ "lights": "one", "window": "key" })),
    ];
    all.extend(edits.iter().cloned());
    plain_with(&all)
}

/// The light of an overcast sky through a window, summed exactly, is 686.132 lx where the uniform window gives 639.28 (integral over
/// the sky of Moon and Spencer by SciPy); a clear sky gives level ground what it is said to give.
#[test]
fn skies_are_summed_over_the_window() {
    let plan = with_window(180.0, &[]);
    let corner = Corner::of(&plan).unwrap();
    let sunlight = Sunlight::of(&corner).unwrap();
    let dome = SkyDome::new(Sky::Overcast, DVec3::Z, 94);
    // The sill lies at 0.6 m here: the face is 0.3 m over it, as in the example.
    let at = DVec3::new(4.0 - 1.5, 1.5 + 0.7, 0.9);
    let given = sunlight.window_lx(at, DVec3::X, &dome) * 10_000.0 / dome.on_ground_lx();
    assert_close(given, 686.132, 0.01, 0.0, "an overcast sky through the window");
    // Independent of the sum that scales it: rings of another kind.
    for elevation in [12.0f64, 33.0, 61.0] {
        let (sin, cos) = elevation.to_radians().sin_cos();
        let to_sun = DVec3::new(0.0, cos, sin);
        let dome = SkyDome::new(Sky::Clear, to_sun, 94);
        let mut sum = 0.0;
        for i in 0..90 {
            let (z, flat) = (f64::from(i) + 0.5).to_radians().sin_cos();
            for j in 0..360 {
                let (x, y) = (f64::from(j) + 0.5).to_radians().sin_cos();
                let part = z * flat * 1f64.to_radians().powi(2);
                sum += part * dome.luminance_cd_m2(DVec3::new(flat * x, flat * y, z), 0.0);
            }
        }
        assert_close(sum, level_lx(Sky::Clear, elevation), 0.02, 0.0, "a clear sky on level ground");
    }
}

/// Twenty windows against a count of every five seconds of a day by an independent script (reference/daylight/beam.py).
#[test]
fn minutes_of_sun_agree_with_brute_force() {
    let all: Value = serde_json::from_str(include_str!("../fixtures/beam.json")).unwrap();
    for one in all.as_array().unwrap() {
        let get = |name: &str| number(&one[name]);
        let out = bearing_vector(get("window_azimuth_deg"));
        let pane = Pane {
            middle_m: DVec3::Z * (get("sill_m") + get("window_height_m") / 2.0),
            // To the left of who looks out.
            along: DVec3::Z.cross(out),
            up: DVec3::Z,
            out,
            half_m: fogon_core::geometry::DVec2::new(get("width_m"), get("window_height_m")) / 2.0,
            reveal_m: get("reveal_m"),
        };
        let right = -pane.along;
        let point = right * get("beside_m") + DVec3::Z * get("height_m") - out * get("depth_m");
        let start = one["date"].as_str().unwrap();
        let start_s =
            days(&zone_of(&read(&plain()).brief), date("date", start).unwrap(), date("date", start).unwrap())
                .unwrap()[0]
                .start_s;
        let minutes = (0..1440)
            .filter(|minute| {
                let time = (start_s + 60 * minute + 30) as f64;
                let sun = sun_at(get("latitude_deg"), get("longitude_deg"), time, Air::usual(time)).unwrap();
                let (sin, cos) = sun.elevation_deg.to_radians().sin_cos();
                sin > 0.0 && pane.lets_in(point, bearing_vector(sun.azimuth_deg) * cos + DVec3::Z * sin)
            })
            .count();
        assert!((minutes as f64 - get("minutes")).abs() <= 2.0, "{minutes} counted: {one}");
    }
}

/// The patch on the floor is as large as the closed form has it; a table under it throws its shadow, and the patch climbs it.
#[test]
fn the_patch_is_cast_onto_what_stands_there() {
    let table =
        json!({ "kind": "desk", "position_m": [2.9, 2.2, 0], "bearing_deg": 0, "size_m": [0.6, 0.5, 0.7] });
    let (elevation, beside) = (40.0f64, 10.0f64);
    let area = |plan: &Plan, on: &str| -> f64 {
        let corner = Corner::of(plan).unwrap();
        let sunlight = Sunlight::of(&corner).unwrap();
        let sun = fogon_core::daylight::Sun { azimuth_deg: 180.0 + beside, elevation_deg: elevation };
        let patches = sunlight.patches(sunlight.to_sun(sun));
        let of = patches.iter().filter(|patch| patch.on == on);
        of.map(|patch| fogon_core::photometry::face_normal(&patch.outline_m).1).sum()
    };
    let clear = with_window(180.0, &[("/layout/lights", json!({})), ("/layout/microphone", json!(null))]);
    let want = calc(
        "sun-patch",
        json!({ "window_width_m": 1.4, "sill_m": 0.6, "window_height_m": 1.3, "reveal_depth_m": 0,
        "window_azimuth_deg": 180, "sun_azimuth_deg": 180.0 + beside, "sun_elevation_deg": elevation }),
    );
    let (whole, on_floor) = (number(&want["patch_area_m2"]), area(&clear, "floor"));
    // The person and the camera's stand keep some of it.
    assert!(on_floor <= whole + 1e-6 && on_floor > 0.8 * whole, "{on_floor} of {whole}");
    let set = with_window(
        180.0,
        &[
            ("/layout/lights", json!({})),
            ("/layout/microphone", json!(null)),
            ("/brief/room/furniture/table", table),
        ],
    );
    let (floor, on_table) = (area(&set, "floor"), area(&set, "table"));
    assert!(floor < on_floor - 0.1 && on_table > 0.1, "{floor} on the floor, {on_table} on the table");
}

fn hours(plan: &Plan, from: &str, to: &str) -> Vec<Interval> {
    let zone = zone_of(&plan.brief);
    let days = days(&zone, date("from", from).unwrap(), date("to", to).unwrap()).unwrap();
    good_hours(plan, &days, &zone).unwrap().intervals
}

fn lit_hours(all: &[Interval]) -> f64 {
    all.iter().filter(|one| one.light).map(|one| (one.span_s.1 - one.span_s.0) as f64 / 3600.0).sum()
}

/// Stretches follow each other without a gap, in whole minutes, and cover the local days also where the clock is changed.
#[test]
fn hours_cover_the_days_without_a_gap() {
    let plan = with_window(
        180.0,
        &[(
            "/brief/quiet",
            json!([
                { "days": ["mon", "tue", "wed", "thu", "fri"], "from": "07:30", "to": "09:00", "kind": "traffic" },
                { "days": ["sat"], "from": "22:00", "to": "02:00", "kind": "neighbours" }
            ]),
        )],
    );
    // The clock goes forward on 29 March 2026 and back on 25 October.
    for (from, to, whole_h) in
        [("2026-03-28", "2026-03-30", 71), ("2026-10-24", "2026-10-26", 73), ("2028-02-28", "2028-03-01", 72)]
    {
        let all = hours(&plan, from, to);
        assert!(
            all.windows(2).all(|pair| pair[0].end == pair[1].start && pair[0].span_s.0 < pair[0].span_s.1)
        );
        assert!(all.iter().all(|one| one.span_s.0 % 60 == 0 && one.wanted == (one.light && one.quiet)));
        assert_eq!(all.last().unwrap().span_s.1 - all[0].span_s.0, whole_h * 3600, "{from}");
    }
    // Over the change in autumn, Saturday's neighbours are heard for five hours: from 22:00 to the second 2 o'clock, or the first.
    let all = hours(&plan, "2026-10-24", "2026-10-25");
    let noisy: i64 = all.iter().filter(|one| !one.quiet).map(|one| one.span_s.1 - one.span_s.0).sum();
    assert!(noisy == 4 * 3600 || noisy == 5 * 3600, "{noisy}");
}

/// Which way the sun comes in hangs on the hemisphere, not on a rule of thumb; where it does not rise no window gives light.
#[test]
fn hemispheres_poles_and_the_date_line_are_right() {
    let at = |latitude: f64, longitude: f64, zone: &str, looks_to: f64| {
        with_window(
            looks_to,
            &[(
                "/brief/place",
                json!({ "latitude_deg": latitude, "longitude_deg": longitude, "time_zone": zone }),
            )],
        )
    };
    let comes_in_at_noon = |plan: &Plan, day: &str| {
        let zone = zone_of(&plan.brief);
        let day = days(&zone, date("d", day).unwrap(), date("d", day).unwrap()).unwrap()[0];
        let corner = Corner::of(plan).unwrap();
        let sunlight = Sunlight::of(&corner).unwrap();
        let place = plan.brief.place.as_ref().unwrap();
        (0..24 * 6).any(|step| {
            let time = (day.start_s + 600 * step) as f64;
            let sun = sun_at(place.latitude_deg, place.longitude_deg, time, Air::usual(time)).unwrap();
            sunlight.comes_in(sunlight.to_sun(sun))
        })
    };
    // Sydney in December: the sun comes from the north at noon; Madrid from the south.
    assert!(comes_in_at_noon(&at(-33.9, 151.2, "Australia/Sydney", 0.0), "2026-12-21"));
    assert!(comes_in_at_noon(&at(40.4, -3.7, "Europe/Madrid", 180.0), "2026-12-21"));
    assert!(!comes_in_at_noon(&at(40.4, -3.7, "Europe/Madrid", 0.0), "2026-12-21"));
    // On the equator both get their months.
    for (looks_to, day) in [(0.0, "2026-06-21"), (180.0, "2026-12-21")] {
        assert!(comes_in_at_noon(&at(-0.2, -78.5, "America/Guayaquil", looks_to), day));
    }
    // Polar night and midnight sun: no rise is an answer.
    let tromso = at(69.65, 18.96, "Europe/Oslo", 180.0);
    assert_eq!(lit_hours(&hours(&tromso, "2026-12-15", "2026-12-16")), 0.0);
    let june = crossings((69.65, 18.96), (1_781_913_600, 1_782_000_000), None).unwrap();
    assert!(june.always_above && june.rises_s.is_empty());
    assert!(lit_hours(&hours(&tromso, "2026-06-15", "2026-06-16")) > 24.0);
    // Samoa left out 30 December 2011.
    let apia = at(-13.8, -171.8, "Pacific/Apia", 0.0);
    let all = hours(&apia, "2011-12-29", "2011-12-31");
    assert_eq!(all.last().unwrap().span_s.1 - all[0].span_s.0, 48 * 3600);
}

/// A roof window takes in a high sun that one in the wall does not; without a window the light holds all day; without a place or a
/// bearing the field is named.
#[test]
fn roof_windows_and_rooms_without_any() {
    let noon = fogon_core::daylight::Sun { azimuth_deg: 180.0, elevation_deg: 65.0 };
    let deep = |plan: &Plan| {
        let corner = Corner::of(plan).unwrap();
        let sunlight = Sunlight::of(&corner).unwrap();
        sunlight.reaches(DVec3::new(2.0, 2.2, 0.3), sunlight.to_sun(noon), Some(&ThingId::Person)).is_some()
    };
    let roof = [
        ("/brief/room/slopes", json!({ "roof": { "wall": 1, "knee_m": 1.0, "run_m": 1.6 } })),
        (
            "/brief/room/openings/window",
            json!({ "kind": "window", "wall": 1, "from_m": 1.5, "width_m": 1.4, "sill_m": 1.2, "height_m": 1.4, "slope": "roof", "reveal_m": 0.1 }),
        ),
        ("/layout/lights", json!({})),
        ("/layout/microphone", json!(null)),
        ("/layout/seat/position_m", json!([0.8, 1.5])),
        ("/layout/camera/position_m", json!([0.8, 3.0, 1.25])),
    ];
    assert!(deep(&with_window(180.0, &roof)) && !deep(&with_window(180.0, &[])));
    let dark = plain_with(&[]);
    assert_eq!(lit_hours(&hours(&dark, "2026-11-28", "2026-11-28")), 24.0);
    let refused = |pointer: &str, value: Value| {
        let mut document = serde_json::to_value(with_window(180.0, &[])).unwrap();
        fogon_testkit::set(&mut document, pointer, value);
        match Plan::read(document.to_string().as_bytes()) {
            Err(problems) => problems.to_string(),
            Ok(plan) => {
                let zone = zone_of(&plan.brief);
                let day =
                    days(&zone, date("d", "2026-11-28").unwrap(), date("d", "2026-11-28").unwrap()).unwrap();
                good_hours(&plan, &day, &zone).unwrap_err().to_string()
            }
        }
    };
    assert!(refused("/brief/place", json!(null)).starts_with("brief.place: nothing is not accepted"));
    assert!(refused("/brief/room/north_deg", json!(null)).starts_with("brief.room.north_deg: nothing"));
    assert!(refused("/brief/place/latitude_deg", json!(91)).contains("brief.place.latitude_deg"));
    assert!(refused("/brief/place/time_zone", json!("Nowhere/Land")).contains("brief.place.time_zone"));
    assert!(
        refused("/brief/room/openings/window/width_m", json!(7))
            .contains("brief.room.openings.window.width_m")
    );
    assert!(refused("/brief/room/openings/window/slope", json!("roof")).contains("openings.window.slope"));
    assert!(
        refused("/brief/quiet", json!([{ "days": ["mon"], "from": "7", "to": "09:00", "kind": "school" }]))
            .contains("a time of day")
    );
}
