//! How fast a picture follows: the first coarse one after a lamp was moved, a clean one, one mixed anew.
//! `cargo bench -p fogon-testkit --bench picture`

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_viewfinder::overlay::Overlay;
use fogon_viewfinder::stage::Stage;
use fogon_viewfinder::tree::Walk;
use fogon_viewfinder::viewing::{Viewing, Wanted};
use serde_json::{Value, json};

const SIZE: [usize; 2] = [960, 540];

fn demo(change: impl FnOnce(&mut Value)) -> Plan {
    let text = include_str!("../../../docs/examples/box-room.fogon.json");
    let mut document: Value = serde_json::from_str(text).expect("the example is JSON");
    change(&mut document);
    Plan::read(document.to_string().as_bytes()).unwrap_or_else(|problems| panic!("{problems}"))
}

fn taken_up(viewing: &mut Viewing, plan: &Plan) {
    let corner = Corner::of(plan).expect("it resolves");
    black_box(viewing.take_up(&corner, plan, &Wanted::whole(&corner, SIZE), &|| true));
}

fn benches(criterion: &mut Criterion) {
    let places = [0.0, 0.05].map(|off| {
        demo(|document| {
            document["layout"]["lights"]["key"]["position_m"] = json!([0.743 + off, 1.522, 1.743])
        })
    });
    let mut group = criterion.benchmark_group("viewfinder");
    group.sample_size(10);
    let mut viewing = Viewing::default();
    let mut turn = 0;
    group.bench_function("a lamp moved, first picture 320 x 180", |bench| {
        bench.iter(|| {
            turn += 1;
            taken_up(&mut viewing, &places[turn % 2]);
            black_box(viewing.picture(Overlay::None))
        });
    });
    group.bench_function("a lamp moved, 960 x 540 with 4 samples", |bench| {
        bench.iter(|| {
            turn += 1;
            taken_up(&mut viewing, &places[turn % 2]);
            for _ in 0..3 {
                viewing.go_on(&|| true);
            }
            black_box(viewing.picture(Overlay::None))
        });
    });
    let dials =
        [0.5, 0.3].map(|dim| demo(|document| document["layout"]["lights"]["key"]["dim"] = json!(dim)));
    taken_up(&mut viewing, &dials[0]);
    viewing.go_on(&|| true);
    group.bench_function("a dial turned, 960 x 540 mixed anew", |bench| {
        bench.iter(|| {
            turn += 1;
            taken_up(&mut viewing, &dials[turn % 2]);
            black_box(viewing.picture(Overlay::None))
        });
    });
    let corner = Corner::of(&places[0]).expect("it resolves");
    group.bench_function("person, room and their sights from nothing", |bench| {
        bench.iter(|| black_box(Stage::default().staged(&corner, Walk::fastest())));
    });
}

criterion_group!(all, benches);
criterion_main!(all);
