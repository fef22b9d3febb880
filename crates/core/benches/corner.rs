//! What a person waits for, on the demo corner: the judgement while something changes (`evaluate`), the search
//! for a layout (`propose`), the free moves (`free_moves`), the card. Inputs are read outside the timing, each
//! answer is checked once before. Not measured: the server, JSON, the drawing on screen.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use fogon_core::arrange::{propose, why};
use fogon_core::assess::{evaluate, without_moves};
use fogon_core::card::card;
use fogon_core::corner::Corner;
use fogon_core::drawing::draw;
use fogon_core::hand::{Grip, Move, Sheet, moved};
use fogon_core::light::{self, LightReport};
use fogon_core::money::free_moves;
use fogon_core::plan::{BriefFile, Plan, Point3};
use fogon_testkit::BOX_ROOM;

const PLAN: &str = include_str!("../../../docs/examples/box-room.fogon.json");

fn corner(criterion: &mut Criterion) {
    let brief = BriefFile::read(BOX_ROOM.as_bytes()).expect("the example brief reads");
    let plan = Plan::read(PLAN.as_bytes()).expect("the example plan reads");
    assert!(evaluate(&plan).verdict.ready, "the demo plan is ready");
    assert!(!propose(&brief.name, &brief.brief).proposals.is_empty(), "the demo brief has a layout");
    criterion.bench_function("evaluate", |b| b.iter(|| evaluate(black_box(&plan))));
    // Control: the same without looking for the moves that mend findings.
    criterion.bench_function("evaluate_without_moves", |b| b.iter(|| without_moves(black_box(&plan))));
    // Light readings with six lamps; the room's exchange is kept from one to the next. Its first reckoning apart.
    let mut lamps = plan.clone();
    let places = [[1.9, 2.4, 1.4], [2.9, 0.5, 0.6], [3.0, 2.2, 1.1], [0.5, 0.5, 1.9]];
    for (number, place) in places.into_iter().enumerate() {
        let mut lamp = lamps.layout.lights["key"].clone();
        lamp.position_m.0 = place;
        lamp.support.base_m = Some(fogon_core::plan::Point2([place[0], place[1]]));
        lamps.layout.lights.insert(fogon_core::plan::Id(format!("lamp-{number}")), lamp);
    }
    let lit = |plan: &Plan| {
        let corner = Corner::of(plan).expect("the plan resolves");
        let lit = LightReport::of(&corner);
        (light::readings(&corner, &lit).len(), light::details(&lit).len())
    };
    assert!(lit(&lamps).1 >= 8, "the light is told");
    criterion.bench_function("light_six_lamps", |b| b.iter(|| lit(black_box(&lamps))));
    let mut height = 2.45;
    criterion.bench_function("room_exchange", |b| {
        b.iter(|| {
            // Another height is another room.
            let mut other = plan.brief.clone();
            height += 1e-6;
            other.room.height_m = height;
            light::bounce::enclosure(black_box(&other)).patches().len()
        })
    });
    // The same corner spoilt, so that there are moves to look for.
    let mut spoilt = plan.clone();
    spoilt.layout.camera.iso = 1600.0;
    if let Some(key) = spoilt.layout.lights.get_mut("key") {
        key.position_m.0[2] = 1.0;
        key.support.sandbag_kg = 0.0;
    }
    assert!(evaluate(&spoilt).findings.iter().any(|f| f.fix.is_some()), "a move mends the spoilt plan");
    criterion.bench_function("evaluate_spoilt", |b| b.iter(|| evaluate(black_box(&spoilt))));
    // What a dragging hand waits for: reading the plan, the move, its drawing.
    criterion.bench_function("read_plan", |b| b.iter(|| Plan::read(black_box(PLAN.as_bytes()))));
    let key = plan.layout.lights[&fogon_core::plan::Id::from("key")].position_m.0;
    let by = |x: f64| Move {
        thing: "key".into(),
        grip: Grip::Place,
        to_m: Some(Point3([key[0] + x, key[1], key[2]])),
        from_eyes: None,
        bearing_deg: None,
        distance_m: None,
        focal_length_mm: None,
        sheet: Sheet::Plan,
        snap: true,
        anyway: false,
    };
    assert!(moved(&plan, &by(0.02)).is_ok_and(|m| m.held.is_none()), "2 cm are free");
    assert!(moved(&plan, &by(3.0)).is_ok_and(|m| m.held.is_some()), "3 m are beyond the wall");
    criterion.bench_function("move_free", |b| b.iter(|| moved(black_box(&plan), &by(0.02))));
    criterion.bench_function("move_held", |b| b.iter(|| moved(black_box(&plan), &by(3.0))));
    criterion.bench_function("draw", |b| b.iter(|| draw(black_box(&plan))));
    criterion.bench_function("why", |b| b.iter(|| why(black_box(&plan))));
    criterion.bench_function("card", |b| b.iter(|| card(black_box(&plan))));
    let mut slow = criterion.benchmark_group("search");
    slow.sample_size(10);
    slow.bench_function("propose", |b| b.iter(|| propose(black_box(&brief.name), black_box(&brief.brief))));
    slow.bench_function("free_moves", |b| b.iter(|| free_moves(black_box(&plan))));
    slow.finish();
}

criterion_group!(benches, corner);
criterion_main!(benches);
