//! The logbook: the later of two entries holds, whatever their order on the way; what is deleted is readable nowhere; it goes out and in
//! with its corner; it is kept as long as the person wants.

use fogon_core::run::{Entry, SessionLogged, TakeLogged, TakeVerdict, What};
use fogon_store::{Archive, Logging, StoreError, Taking};

use crate::{Place, named};

fn entry(uid: &str, at_ms: i64, what: What) -> Entry {
    Entry {
        uid: format!("entry-{uid}"),
        session: "session-1".into(),
        at_ms,
        by: "desk".into(),
        gone: false,
        what,
    }
}

fn take(number: u32, note: &str) -> What {
    What::Take(TakeLogged {
        number,
        shot: "talk".into(),
        what: "You, talking".into(),
        begun_ms: 1000,
        seconds: Some(12.5),
        verdict: TakeVerdict::Keep,
        note: note.into(),
        ..TakeLogged::default()
    })
}

fn session(revision: i64) -> What {
    What::Session(SessionLogged { begun_ms: 1000, revision, ..SessionLogged::default() })
}

#[test]
fn of_two_entries_the_later_holds_whatever_comes_first() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("Box room")).unwrap().id;
    let (early, late) = (entry("one", 10, take(1, "early")), entry("one", 20, take(1, "late")));
    let first = store.add_to_log(id, &[late.clone(), entry("two", 15, take(2, ""))], 0).unwrap();
    let all = store.add_to_log(id, &[early], 0).unwrap().entries;
    assert_eq!(all, [entry("two", 15, take(2, "")), late.clone()]);
    assert_eq!(store.add_to_log(id, &all, 0).unwrap().entries, all, "sent twice they are there once");
    // Who knows the first write is told what came after it: nothing, then one more.
    assert!(store.log_since(id, first.written).unwrap().entries.is_empty());
    let more = store.add_to_log(id, &[entry("three", 1, take(3, ""))], first.written).unwrap();
    assert_eq!((more.entries.len(), more.count, more.written), (1, 3, first.written + 1));
    // The save at which it was recorded has a name from now on, and is never thinned out.
    store.add_to_log(id, &[entry("begun", 5, session(1))], 0).unwrap();
    assert_eq!(store.revisions(id, None).unwrap()[0].name.as_deref(), Some("Recorded"));
    assert!(matches!(store.add_to_log(99, &[late], 0), Err(StoreError::Missing)));
    drop(store);
    assert_eq!(place.open().log(id).unwrap().len(), 4, "and they outlive the program");
}

#[test]
fn a_session_that_is_deleted_is_readable_nowhere() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("Box room")).unwrap().id;
    let mut other = entry("two", 10, take(1, "Stays behind"));
    other.session = "session-2".into();
    store.add_to_log(id, &[entry("one", 10, take(1, "Zanzibar whisper")), other], 0).unwrap();
    store.snapshot().unwrap();
    let readable = |needle: &[u8]| {
        let folder = place.path.parent().unwrap();
        let mut files = vec![folder.to_path_buf()];
        let mut found = false;
        while let Some(path) = files.pop() {
            if path.is_dir() {
                files.extend(std::fs::read_dir(path).unwrap().map(|one| one.unwrap().path()));
            } else {
                found |= std::fs::read(&path).unwrap().windows(needle.len()).any(|part| part == needle);
            }
        }
        found
    };
    assert!(readable(b"Zanzibar whisper"));
    assert_eq!(store.delete_session(id, "session-1").unwrap(), 1);
    assert!(!readable(b"Zanzibar whisper") && readable(b"Stays behind"));
    assert_eq!(store.delete_session(id, "session-1").unwrap(), 0);
}

#[test]
fn a_logbook_goes_out_and_in_with_its_corner_and_is_kept_as_long_as_wanted() {
    let (place, other) = (Place::new(), Place::new());
    let store = place.open();
    let id = store.create(&named("Box room")).unwrap().id;
    store
        .add_to_log(id, &[entry("one", 10, take(1, "as it was")), entry("begun", 5, session(1))], 0)
        .unwrap();
    let bytes = store.archive(None).unwrap();
    let elsewhere = other.open();
    elsewhere.take(&Archive::read(&bytes).unwrap(), Taking::Merge).unwrap();
    assert_eq!(elsewhere.log(1).unwrap(), store.log(id).unwrap());
    assert_eq!(elsewhere.archive(None).unwrap(), bytes, "and out again: the same bytes");
    // What was written here since stays.
    elsewhere.add_to_log(1, &[entry("one", 20, take(1, "changed since"))], 0).unwrap();
    elsewhere.take(&Archive::read(&bytes).unwrap(), Taking::Merge).unwrap();
    assert!(elsewhere.log(1).unwrap().contains(&entry("one", 20, take(1, "changed since"))));
    // Kept for good, unless the person says otherwise; then what is old goes when the house is kept.
    elsewhere.keep_house().unwrap();
    assert_eq!((elsewhere.logging().unwrap(), elsewhere.log(1).unwrap().len()), (Logging { days: None }, 2));
    elsewhere.choose_logging(Logging { days: Some(30) }).unwrap();
    drop(elsewhere);
    // A day later, as the snapshots say.
    let folder = fogon_store::snapshot_folder(&other.path);
    for snapshot in std::fs::read_dir(&folder).unwrap() {
        std::fs::remove_file(snapshot.unwrap().path()).unwrap();
    }
    let again = other.open();
    again.keep_house().unwrap();
    assert_eq!((again.log(1).unwrap().len(), again.logging().unwrap()), (0, Logging { days: Some(30) }));
}
