//! The window by the hour, on the demo corner with its window as the key: a year of good hours, the year that is drawn, a day with all
//! that is told of it, where the sun lies at one hour. Inputs are read outside the timing, each answer is checked once before.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use fogon_core::corner::Corner;
use fogon_core::day::{DayLight, course, date, days, good_hours, with_windows_open, year, zone_of};
use fogon_core::daylight::Sun;
use fogon_core::plan::Plan;

const PLAN: &str = include_str!("../../../docs/examples/box-room.fogon.json");

fn day(criterion: &mut Criterion) {
    let plan = with_windows_open(&Plan::read(PLAN.as_bytes()).expect("the example plan reads"));
    let zone = zone_of(&plan.brief);
    let day = |text: &str| date("date", text).expect("a date");
    let all = days(&zone, day("2026-01-01"), day("2026-12-31")).expect("a year of days");
    assert!(good_hours(&plan, &all, &zone).expect("hours").intervals.len() > 365);
    criterion
        .bench_function("good_hours_of_a_year", |b| b.iter(|| good_hours(black_box(&plan), &all, &zone)));
    assert_eq!(year(&plan, 2026, &zone).expect("a year").days.len(), 365);
    criterion.bench_function("year_as_drawn", |b| b.iter(|| year(black_box(&plan), 2026, &zone)));
    let midsummer = &all[171];
    assert!(course(&plan, midsummer, &zone).expect("a day").moments.len() == 144);
    criterion.bench_function("day_with_all_that_is_told", |b| {
        b.iter(|| course(black_box(&plan), midsummer, &zone));
    });
    let corner = Corner::of(&plan).expect("the plan resolves");
    let light = DayLight::of(&plan, &corner).expect("the corner is placed");
    let to_sun = light.sunlight().to_sun(Sun { azimuth_deg: 300.0, elevation_deg: 20.0 });
    assert!(!light.sunlight().patches(to_sun).is_empty());
    criterion
        .bench_function("patches_of_one_hour", |b| b.iter(|| light.sunlight().patches(black_box(to_sun))));
}

criterion_group!(benches, day);
criterion_main!(benches);
