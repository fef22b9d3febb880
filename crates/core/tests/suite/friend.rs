//! What a careful friend would never sell: rules of the advice, each held in random corners - ordinary ones from which gear was taken
//! away - and for random sums. The rules are Fogon's own.
//!
//! `FOGON_CORNERS=1-30 cargo tests --test core -- friend` looks at as many, `FOGON_CORNERS=7,8` at two; the suite looks at fewer.

use std::collections::BTreeSet;
use std::sync::Arc;

use fogon_core::arrange::Stop;
use fogon_core::assess::without_moves;
use fogon_core::money::{Advice, Asked, Catalogue, Counter};
use fogon_core::plan::{Brief, BriefFile, Gear, GearState, Id};

use crate::money::assert_true;
use crate::support::Dice;

/// The corner that the suite looks at: a quick one of the first thirty.
const IN_THE_SUITE: u64 = 10;
/// No single change of a kit betters it by more, score.
const AT_MOST: f64 = 0.01;
/// A difference that a person would just see or hear, score.
const SEEN: f64 = 0.005;
/// What a stand counts under a camera that would stand on books, score.
const STEADIER: f64 = 0.03;

/// An ordinary corner with less gear, at times with something ruled out or with the echo measured, and a sum.
fn corner(seed: u64) -> (String, BriefFile, f64) {
    let mut dice = Dice(seed);
    let folder = format!("{}/../../docs/examples/ordinary", env!("CARGO_MANIFEST_DIR"));
    let mut paths: Vec<_> = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    paths.sort();
    let path = &paths[dice.within(0.0, paths.len() as f64) as usize];
    let mut file = BriefFile::read(&std::fs::read(path).unwrap()).unwrap();
    let gear = &mut file.brief.gear;
    gear.retain(|_, one| one.camera().is_some() || one.lens().is_some() || dice.unit() > 0.55);
    if dice.unit() < 0.3 {
        let ruled_out = Catalogue::of_fogon().offers[&Id("lavalier-phone".into())].gear.clone();
        gear.entry(Id("lavalier-phone".into())).or_insert(ruled_out).common_mut().state = GearState::Never;
    }
    let echo_s = dice.within(0.2, 1.6);
    if dice.unit() < 0.4 {
        let measured = serde_json::json!({ "sound.room.rt_mid_s": (echo_s * 100.0).round() / 100.0 });
        file.brief.measured = serde_json::from_value(measured).unwrap();
    }
    let budget = (20.0 * 250f64.powf(dice.unit())).round();
    let gear: Vec<&str> = file.brief.gear.keys().map(|id| id.0.as_str()).collect();
    let measured = if file.brief.measured.is_empty() { "" } else { ", measured" };
    let name = format!("{seed}: {} with {}{measured}, {budget}", file.name, gear.join(" "));
    (name, file, budget)
}

/// Those of the suite, or those asked for.
fn corners() -> Vec<u64> {
    let Ok(asked) = std::env::var("FOGON_CORNERS") else { return vec![IN_THE_SUITE] };
    let number = |text: &str| text.trim().parse::<u64>().expect("FOGON_CORNERS as 1-30 or 7,8");
    let one = |part: &str| match part.split_once('-') {
        Some((from, to)) => (number(from)..=number(to)).collect::<Vec<u64>>(),
        None => vec![number(part)],
    };
    asked.split(',').flat_map(one).collect()
}

fn in_the_way(advice: &Advice) -> usize {
    advice.plan.as_ref().map_or(1, |plan| without_moves(plan).verdict.because.len())
}

/// Kinds of which one is in use at a time, and those that only answer a need.
fn is_aid(gear: &Gear) -> bool {
    matches!(
        gear,
        Gear::Interface(_)
            | Gear::Recorder(_)
            | Gear::Cable(_)
            | Gear::Power(_)
            | Gear::Accessory(_)
            | Gear::Card(_)
    )
}

/// The rules for one sum.
fn judge(name: &str, brief: &Brief, advice: &Advice) {
    assert_true(advice, name);
    let sold = |id: &str| &Catalogue::of_fogon().offers[&Id(id.to_owned())].gear;
    let count = |pick: fn(&Gear) -> bool| advice.kit.iter().filter(|item| pick(sold(&item.id))).count();
    // Nothing that is owned or ruled out, nothing twice for one need.
    assert!(
        advice.kit.iter().all(|item| !brief.gear.contains_key(&Id(item.id.clone()))),
        "{name}: {:?}",
        advice.kit
    );
    assert!(count(|gear| gear.microphone().is_some()) <= 1, "{name}: two microphones");
    assert!(count(|gear| gear.camera().is_some()) <= 1 && count(|gear| gear.lens().is_some()) <= 1, "{name}");
    let Some(plan) = &advice.plan else { return };
    // Everything that is bought is used: it stands in the layout, or answers the need of what does.
    let layout = serde_json::to_string(&plan.layout).unwrap();
    for item in &advice.kit {
        let times = layout.matches(&format!("\"{}\"", item.id)).count();
        assert!(is_aid(sold(&item.id)) || times >= 1, "{name}: {} lies idle", item.label);
        assert!(
            item.count <= 2 && (item.count == 1 || times >= item.count),
            "{name}: {} of {}",
            item.count,
            item.label
        );
        assert!(!item.used || item.price_new.is_some_and(|new| new > item.price), "{name}: {}", item.label);
        assert!(item.reason.ends_with(['.', '!', '\u{201d}']), "{name}: {}", item.reason);
    }
    // What stands in the way is cured first, and a step that cures nothing is seen, heard, or steadies the camera.
    let mut cured = true;
    let mut before = advice.before.as_ref().map_or(0.0, |plan| without_moves(plan).score);
    let mut stood = advice.before.as_ref().is_some_and(|plan| plan.layout.camera.support.gear.is_some());
    for step in &advice.path {
        assert!(step.cleared == 0 || cured, "{name}: {} cures something, and comes late", step.label);
        cured = step.cleared > 0 || step.score_before.is_none();
        let stands = step.plan.layout.camera.support.gear.is_some();
        let gained = step.score - before + if stands && !stood { STEADIER } else { 0.0 };
        assert!(cured || gained > SEEN / 2.0, "{name}: {} gains {gained}", step.label);
        (before, stood) = (step.score, stands);
    }
    // Nobody is left without a microphone beside a new stand for a lamp, where the sum reaches for one.
    let lamp_stand = count(|gear| gear.support().is_some_and(|stand| stand.common.offers("light"))) > 0;
    let left = advice.budget - advice.spent;
    let cheapest = if brief.gear.contains_key(&Id("lavalier-phone".into())) { 45.0 } else { 18.0 };
    assert!(plan.layout.microphone.is_some() || !lamp_stand || left < cheapest, "{name}: no microphone");
    // Nothing is bought on an assumption.
    let treats = count(|gear| gear.treatment().is_some()) > 0;
    let room = &brief.room;
    let told = !brief.measured.is_empty() || !room.surfaces.is_empty() || room.furnishing.is_some();
    assert!(!treats || told, "{name}: treatment for an assumed echo");
    let first = advice.measure_first.iter().any(|one| one.reading == "sound.room.rt_mid_s");
    assert!(told || first || advice.before.is_none(), "{name}: the clap is not asked for");
    // What a home has does gain, and says what to mind; nothing hangs before a lamp that gets hot.
    for means in &advice.substitutes {
        assert!(
            means.score_after > means.score_before || !means.changes.is_empty(),
            "{name}: {}",
            means.label
        );
        assert!(means.caution.ends_with('.'), "{name}: {}", means.label);
        for light in means.plan.layout.lights.values().filter(|light| light.cloth.is_some()) {
            let lamp = means.plan.brief.gear[&light.gear].light().unwrap();
            assert!(lamp.cct_max_k > 3500.0, "{name}: cloth before {}", lamp.common.label);
        }
    }
    for step in &advice.free_moves {
        assert!(
            !step.patch.is_empty() && step.score_after >= step.score_before - 1e-9,
            "{name}: {}",
            step.label
        );
    }
    // What is passed over is told once, with its reason.
    let ids: BTreeSet<&String> = advice.passed_over.iter().map(|one| &one.id).collect();
    assert_eq!(ids.len(), advice.passed_over.len(), "{name}");
    assert!(advice.passed_over.iter().all(|one| one.reason.ends_with('.')), "{name}");
}

/// All rules, for growing sums; and no single bundle that is added, dropped or swapped betters what is told by more than 0.01.
#[test]
fn a_careful_friend_would_say_so_too() {
    let all = corners();
    let failed: Vec<u64> = all
        .iter()
        .copied()
        .filter(|seed| std::panic::catch_unwind(|| judge_corner(*seed)).is_err())
        .collect();
    assert!(failed.is_empty(), "{} of {} corners: {failed:?}", failed.len(), all.len());
}

fn judge_corner(seed: u64) {
    let (name, file, budget) = corner(seed);
    let catalogue = Arc::new(Catalogue::of_fogon().clone());
    let asked = Asked::Brief(Box::new(file.clone()));
    let counter = Counter::open(&asked, &catalogue, Stop::NEVER, &|_| ()).unwrap();
    assert!(counter.explore(Stop::NEVER, &|_| ()));
    let mut last: Option<(usize, f64)> = None;
    for sum in [0.0, (budget / 4.0).round(), budget, 10_000.0] {
        let advice = counter.advice(sum, Stop::NEVER).unwrap();
        judge(&format!("{name} at {sum}"), &file.brief, &advice);
        let now = (in_the_way(&advice), advice.score);
        if let Some(last) = last {
            assert!(now.0 <= last.0 && now.1 >= last.1 - 1e-9, "{name} at {sum}: {last:?}, then {now:?}");
        }
        last = Some(now);
    }
    let kit = counter.advice(budget, Stop::NEVER).unwrap();
    let at_first = kit.before.as_ref().map_or(0.0, |plan| without_moves(plan).score);
    for change in counter.single_changes(budget, Stop::NEVER) {
        // A cure that leaves the corner worse than it was is none.
        let cures = change.more_in_the_way < 0 && kit.score + change.score_by >= at_first;
        // More money never buys a lower score, so a stand alone does not make up for one.
        let gains = change.better_by > AT_MOST && change.score_by >= 0.0;
        let better = cures || change.more_in_the_way == 0 && gains;
        assert!(!better, "{name}: {change:?}, from {at_first} to {}", kit.score);
    }
}
