//! Random hands at several corners at once, against a plain model of what each should hold: states before, the state now, states
//! undone. After every step what the file says is what the model says; at times it is closed and opened, copied, or thinned.

use std::collections::BTreeMap;

use fogon_store::{Archive, Step, Store, StoreError, Taking, doctor};

use crate::{Place, named};

/// A corner as a person remembers it.
#[derive(Debug, Clone, Default)]
struct Remembered {
    before: Vec<String>,
    now: String,
    undone: Vec<String>,
    /// Every state that was ever saved, by its revision.
    saved: BTreeMap<i64, String>,
    revision: i64,
    binned: bool,
}

impl Remembered {
    fn goes_on(&mut self, name: String) {
        self.before.push(std::mem::replace(&mut self.now, name));
        self.undone.clear();
        self.stands();
    }

    fn stands(&mut self) {
        self.revision += 1;
        self.saved.insert(self.revision, self.now.clone());
    }
}

/// Even numbers (splitmix64), the same in every run.
struct Dice(u64);

impl Dice {
    fn below(&mut self, most: usize) -> usize {
        self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        ((z ^ (z >> 31)) % most as u64) as usize
    }
}

fn assert_holds(store: &Store, all: &BTreeMap<i64, Remembered>, what: &str) {
    for (id, one) in all {
        if one.binned {
            assert!(matches!(store.get(*id), Err(StoreError::Missing)), "{what}: {id} is in the bin");
            continue;
        }
        let kept = store.get(*id).unwrap();
        assert_eq!(
            (kept.revision, kept.document.name.as_str()),
            (one.revision, one.now.as_str()),
            "{what}: {id}"
        );
        let steps = (!one.before.is_empty(), !one.undone.is_empty());
        assert_eq!((kept.can_undo, kept.can_redo), steps, "{what}: {id}");
    }
    let binned = all.values().filter(|one| one.binned).count();
    assert_eq!(store.deleted().unwrap().len(), binned, "{what}");
}

/// Every save is there under its number, as it was.
fn assert_history(store: &Store, all: &BTreeMap<i64, Remembered>) {
    for (id, one) in all.iter().filter(|(_, one)| !one.binned) {
        for (number, name) in &one.saved {
            assert_eq!(&store.revision(*id, *number).unwrap().name, name, "{id}, save {number}");
        }
    }
}

/// So many corners at most.
const CORNERS: usize = 6;

#[test]
fn whatever_hands_do_is_what_the_file_holds() {
    for seed in [1, 2, 3] {
        let place = Place::new();
        let mut store = place.open();
        let mut dice = Dice(seed);
        let mut all: BTreeMap<i64, Remembered> = BTreeMap::new();
        for turn in 0..160 {
            let what = format!("seed {seed}, step {turn}");
            let ids: Vec<i64> = all.keys().copied().collect();
            let chosen = (!ids.is_empty()).then(|| ids[dice.below(ids.len())]);
            let act = dice.below(12);
            let Some(id) = chosen.filter(|_| act != 0 || all.len() >= CORNERS) else {
                let name = format!("corner {turn}");
                let made = store.create(&named(&name)).unwrap();
                let mut one = Remembered { now: name, ..Remembered::default() };
                one.stands();
                assert_eq!(made.revision, one.revision, "{what}");
                assert!(all.insert(made.id, one).is_none(), "{what}: an id is given once");
                continue;
            };
            match act {
                1 | 2 => {
                    let one = all.get_mut(&id).unwrap();
                    // Into the bin and out of it.
                    if one.binned {
                        store.restore(id).unwrap();
                        one.binned = false;
                    } else if act == 1 {
                        store.delete(id, one.revision).unwrap();
                        one.binned = true;
                    }
                }
                3 => {
                    // From a state that is no longer the last: refused, and nothing changes.
                    let one = &all[&id];
                    let late = store.save(id, one.revision - 1, &named("too late"), None);
                    let refused = matches!(late, Err(StoreError::Conflict { .. } | StoreError::Missing));
                    assert!(refused, "{what}: {late:?}");
                }
                4 => {
                    drop(store);
                    store = place.open();
                }
                5 => assert_eq!(store.thin().unwrap(), 0, "{what}: nothing is a day old"),
                6 if !all[&id].binned => {
                    let one = all.get_mut(&id).unwrap();
                    let numbers: Vec<i64> = one.saved.keys().copied().collect();
                    let number = numbers[dice.below(numbers.len())];
                    store.bring_back(id, one.revision, number).unwrap();
                    let name = one.saved[&number].clone();
                    one.goes_on(name);
                }
                7 | 8 if !all[&id].binned => {
                    let one = all.get_mut(&id).unwrap();
                    let (step, from) = if act == 7 {
                        (Step::Undo, one.before.pop())
                    } else {
                        (Step::Redo, one.undone.pop())
                    };
                    let done = store.step(id, one.revision, step);
                    match from {
                        None => assert!(matches!(done, Err(StoreError::NoStep(_))), "{what}: {done:?}"),
                        Some(name) => {
                            done.unwrap();
                            let left = std::mem::replace(&mut one.now, name);
                            if act == 7 {
                                one.undone.push(left)
                            } else {
                                one.before.push(left)
                            }
                            one.stands();
                        }
                    }
                }
                9 if !all[&id].binned => {
                    // The same once more makes no new save.
                    let one = &all[&id];
                    let same = store.save(id, one.revision, &named(&one.now), None).unwrap();
                    assert_eq!(same.revision, one.revision, "{what}");
                }
                _ if !all[&id].binned => {
                    let one = all.get_mut(&id).unwrap();
                    let (name, key) = (format!("{id} at {turn}"), format!("key-{turn}"));
                    let first = store.save(id, one.revision, &named(&name), Some(&key)).unwrap();
                    // Its answer was lost: sent again, it is answered as before.
                    let again = store.save(id, one.revision, &named(&name), Some(&key)).unwrap();
                    assert_eq!(first.revision, again.revision, "{what}");
                    one.goes_on(name);
                }
                _ => {}
            }
            assert_holds(&store, &all, &what);
        }
        assert_history(&store, &all);
        assert!(
            all.len() == CORNERS && all.values().any(|one| one.revision > 8),
            "seed {seed}: little was done"
        );
        // A copy holds the same, and so does what an archive brings to an empty file.
        let copy = place.path.with_file_name("copy.sqlite3");
        doctor::backup(&place.path, &copy).unwrap();
        let copied = Store::open(&copy).unwrap();
        assert_holds(&copied, &all, "the copy");
        assert_history(&copied, &all);
        let other = Place::new();
        let archive = Archive::read(&store.archive(None).unwrap()).unwrap();
        let elsewhere = other.open();
        elsewhere.take(&archive, Taking::Merge).unwrap();
        let names = |store: &Store| {
            let all = store.page(None, 100, "", "").unwrap();
            let mut names: Vec<String> = all.entries.into_iter().map(|entry| entry.name).collect();
            names.sort();
            names
        };
        assert_eq!(names(&elsewhere), names(&store), "seed {seed}");
    }
}

/// Nothing at all is never put in the place of everything.
#[test]
fn an_empty_file_is_no_backup() {
    let place = Place::new();
    let id = place.open().create(&named("kept")).unwrap().id;
    let empty = place.path.with_file_name("empty.file");
    std::fs::write(&empty, b"").unwrap();
    assert!(doctor::restore(&empty, &place.path).is_err());
    assert!(doctor::backup(&empty, &place.path.with_file_name("b.file")).is_err());
    assert_eq!(place.open().get(id).unwrap().document.name, "kept");
}
