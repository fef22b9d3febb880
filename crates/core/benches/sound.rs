//! What a listener waits for: the sound readings of the demo corner, everything the Sound step tells, one response of images
//! to order 30 in six bands at 48 kHz (for `reference/room_images --time`), the response of the demo corner, and a voice of
//! nine seconds through it. Inputs are made outside the timing, each answer is checked once before.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use fogon_core::corner::Corner;
use fogon_core::geometry::DVec3;
use fogon_core::plan::Plan;
use fogon_core::sound::hear::{hear, impulse};
use fogon_core::sound::images::up_to_order;
use fogon_core::sound::impulse::{Gaussian, of_images, ways};
use fogon_core::sound::{details, readings, seen};

const PLAN: &str = include_str!("../../../docs/examples/box-room.fogon.json");
const SIDES: [f64; 3] = [3.4, 2.9, 2.45];
const ALPHA: [f64; 6] = [0.12, 0.15, 0.2, 0.25, 0.3, 0.35];

fn sound(criterion: &mut Criterion) {
    let plan = Plan::read(PLAN.as_bytes()).expect("the example plan reads");
    let corner = Corner::of(&plan).expect("the plan resolves");
    assert!(details(&corner).len() >= 6 && !seen::seen(&corner).reflections.is_empty());
    criterion.bench_function("sound_readings", |b| {
        b.iter(|| (readings(black_box(&corner)).len(), details(black_box(&corner)).len()))
    });
    criterion.bench_function("sound_seen", |b| b.iter(|| seen::seen(black_box(&corner)).choices.len()));
    let order_30 = || {
        let images = up_to_order(SIDES, DVec3::new(1.9, 1.1, 1.2), DVec3::new(1.7, 1.5, 1.55), black_box(30));
        let factors = [ALPHA.map(|alpha| (1.0 - alpha).sqrt()); 6];
        of_images(&ways(&images, &factors, |_| None, [1.0; 6]), 343.0).samples.len()
    };
    assert!(order_30() > 10_000);
    criterion.bench_function("images_of_order_30", |b| b.iter(order_30));
    criterion.bench_function("impulse", |b| b.iter(|| impulse(black_box(&corner))));
    let mut random = Gaussian::new(1);
    let voice: Vec<f32> = (0..9 * 48_000).map(|_| (random.draw() * 0.05) as f32).collect();
    assert!(hear(&corner, &voice).is_ok());
    criterion.bench_function("hear", |b| b.iter(|| hear(black_box(&corner), black_box(&voice))));
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(20);
    targets = sound
}
criterion_main!(benches);
