//! History: listed, named, brought back, thinned.

use fogon_store::{Step, StoreError, Thinning};

use crate::{Place, named};

const HOUR_MS: i64 = 3_600_000;
const DAY_MS: i64 = 24 * HOUR_MS;

#[test]
fn a_save_is_named_and_brought_back() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("first")).unwrap().id;
    store.save(id, 1, &named("second"), None).unwrap();
    store.name_revision(id, 1, Some("Before the desk moved")).unwrap();
    assert!(matches!(store.name_revision(id, 9, Some("none")), Err(StoreError::Missing)));
    let saved = store.revisions(id, None).unwrap();
    assert_eq!(saved[1].name.as_deref(), Some("Before the desk moved"));
    assert!(matches!(store.bring_back(id, 1, 1), Err(StoreError::Conflict { current: 2 })));
    let back = store.bring_back(id, 2, 1).unwrap();
    assert_eq!((back.revision, back.document.name.as_str(), back.can_undo), (3, "first", true));
    assert_eq!(store.step(id, 3, Step::Undo).unwrap().document.name, "second");
}

/// Saves of sixty days, one every ten minutes for two hours of each: what the rule says stays, and nothing else; the way back
/// leads through what is left.
#[test]
fn old_saves_are_thinned_by_the_rule() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("0")).unwrap().id;
    let per_day = 12;
    let days = 12;
    for number in 1..days * per_day {
        store.save(id, number, &named(&number.to_string()), None).unwrap();
    }
    let last = days * per_day;
    store.name_revision(id, 5, Some("kept")).unwrap();
    let now: i64 = store.revisions(id, None).unwrap()[0].at_ms;
    // As if they had been made over the days that are past, ten minutes apart from the full hour on, the last of all just now.
    let other = place.connection();
    let midnight = now - now % DAY_MS;
    for number in 1..last {
        let (day, slot) = ((last - 1 - number) / per_day, (number - 1) % per_day);
        let at = midnight - day * DAY_MS - 3 * HOUR_MS + slot * 600_000;
        other
            .execute("UPDATE revision SET at_ms = ?2 WHERE corner = 1 AND number = ?1", [number, at.min(now)])
            .unwrap();
    }
    drop(other);
    let numbers = || -> Vec<i64> {
        let mut all = Vec::new();
        loop {
            let page = store.revisions(id, all.last().copied()).unwrap();
            if page.is_empty() {
                return all;
            }
            all.extend(page.iter().map(|saved| saved.revision));
        }
    };
    assert_eq!(numbers().len() as i64, last);
    assert_eq!(store.thinning().unwrap(), Thinning::default());
    let dropped = store.thin().unwrap();
    let kept = numbers();
    assert_eq!((kept.len() + dropped) as i64, last);
    assert!(kept.contains(&5) && kept.contains(&last));
    // Of what is older than a week one a day at most is left, but for the one with a name.
    let saved: Vec<(i64, i64)> =
        store.revisions(id, None).unwrap().iter().map(|s| (s.revision, s.at_ms)).collect();
    let count = |from: i64, to: i64, each: i64| {
        let mut of: Vec<i64> = saved
            .iter()
            .filter(|(n, at)| *n != 5 && (from..to).contains(&(now - at)))
            .map(|(_, at)| at / each)
            .collect();
        let all = of.len();
        of.dedup();
        (all, of.len())
    };
    let (all, apart) = count(7 * DAY_MS, i64::MAX, DAY_MS);
    assert!(all >= 4 && all == apart, "{all} in {apart} days");
    let (all, apart) = count(DAY_MS, 7 * DAY_MS, HOUR_MS);
    assert!(all >= 10 && all == apart, "{all} in {apart} hours");
    assert_eq!(store.thin().unwrap(), 0, "thinning again drops nothing");
    // Back through all of it, without a gap.
    let mut steps = 0;
    let mut at = last;
    while let Ok(kept) = store.step(id, at, Step::Undo) {
        (at, steps) = (kept.revision, steps + 1);
    }
    assert_eq!(steps, kept.len() - 1);
    assert_eq!(
        store.get(id).unwrap().document.name,
        "0".replace('0', &(kept.last().unwrap() - 1).to_string())
    );
}

#[test]
fn the_rule_can_be_changed() {
    let place = Place::new();
    let store = place.open();
    let rule = Thinning { all_days: 30, hourly_days: 60, daily_days: Some(365) };
    store.choose_thinning(rule).unwrap();
    assert_eq!(store.thinning().unwrap(), rule);
    drop(store);
    assert_eq!(place.open().thinning().unwrap(), rule);
}
