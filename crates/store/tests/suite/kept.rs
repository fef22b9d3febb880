//! Saves: each a revision, once, in order; deleted and brought back.

use fogon_store::{Document, Step, StoreError};

use crate::{BRIEF, Place, named};

/// Undo, conflict and history rest on this: every save is a revision of its own, as it was written.
#[test]
fn every_save_is_a_revision() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("one")).unwrap().id;
    assert_eq!(store.save(id, 1, &named("two"), None).unwrap().revision, 2);
    assert_eq!(store.save(id, 2, &named("three"), None).unwrap().revision, 3);
    let numbers: Vec<i64> = store.revisions(id, None).unwrap().iter().map(|saved| saved.revision).collect();
    assert_eq!(numbers, [3, 2, 1]);
    for (number, name) in (1..).zip(["one", "two", "three"]) {
        assert_eq!(store.revision(id, number).unwrap().name, name);
    }
    // A save from an old revision changes nothing at all.
    let late = store.save(id, 1, &named("late"), None).unwrap_err();
    assert!(matches!(late, StoreError::Conflict { current: 3 }), "{late}");
    // Nor does one that changes nothing.
    assert_eq!(store.save(id, 3, &named("three"), None).unwrap().revision, 3);
    assert_eq!(store.revisions(id, None).unwrap().len(), 3);
    assert_eq!(store.get(id).unwrap().document.name, "three");
}

/// An answer that was lost on its way: the same save sent again is answered as then, and saved once.
#[test]
fn a_save_that_is_sent_twice_is_saved_once() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("one")).unwrap().id;
    let saved = store.save(id, 1, &named("two"), Some("k")).unwrap();
    let again = store.save(id, 1, &named("two"), Some("k")).unwrap();
    assert_eq!((saved.revision, again.revision, again.can_undo), (2, 2, true));
    // Whatever was saved since stays: what follows on the first answer meets it as a conflict.
    store.save(id, 2, &named("elsewhere"), Some("other")).unwrap();
    assert_eq!(store.save(id, 1, &named("two"), Some("k")).unwrap().revision, 2);
    let late = store.save(id, 2, &named("three"), Some("l")).unwrap_err();
    assert!(matches!(late, StoreError::Conflict { current: 3 }), "{late}");
    assert_eq!(store.get(id).unwrap().document.name, "elsewhere");
}

#[test]
fn a_step_back_and_forth_is_a_revision_too() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("one")).unwrap().id;
    assert!(matches!(store.step(id, 1, Step::Undo), Err(StoreError::NoStep(Step::Undo))));
    store.save(id, 1, &named("two"), None).unwrap();
    let back = store.step(id, 2, Step::Undo).unwrap();
    assert_eq!(
        (back.document.name.as_str(), back.revision, back.can_undo, back.can_redo),
        ("one", 3, false, true)
    );
    let forth = store.step(id, 3, Step::Redo).unwrap();
    assert_eq!(
        (forth.document.name.as_str(), forth.revision, forth.can_undo, forth.can_redo),
        ("two", 4, true, false)
    );
    // Four revisions, two contents: each lies in the file once.
    drop(store);
    let count: i64 =
        place.connection().query_row("SELECT count(*) FROM document", [], |row| row.get(0)).unwrap();
    assert_eq!(count, 2);
}

#[test]
fn a_deleted_corner_is_gone_from_sight_and_comes_back_as_it_was() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("gone")).unwrap().id;
    assert!(matches!(store.delete(id, 9), Err(StoreError::Conflict { current: 1 })));
    store.delete(id, 1).unwrap();
    assert!(matches!(store.get(id), Err(StoreError::Missing)));
    assert!(matches!(store.save(id, 1, &named("ghost"), None), Err(StoreError::Missing)));
    assert!(matches!(store.delete(id, 1), Err(StoreError::Missing)));
    assert!(matches!(store.revisions(id, None), Err(StoreError::Missing)));
    assert!(matches!(store.raw(id), Err(StoreError::Missing)));
    assert_eq!(store.page(None, 9, "", "test").unwrap().count, 0);
    assert_ne!(store.create(&named("next")).unwrap().id, id);
    let [in_bin] = store.deleted().unwrap().try_into().unwrap();
    assert_eq!(
        (in_bin.id, in_bin.name.as_str(), in_bin.goes_ms - in_bin.deleted_ms),
        (id, "gone", 30 * 86_400_000)
    );
    let back = store.restore(id).unwrap();
    assert_eq!((back.document.name.as_str(), back.revision), ("gone", 1));
    // After thirty days it goes by itself.
    store.delete(id, 1).unwrap();
    let age = "UPDATE corner SET deleted_ms = deleted_ms - 31 * 86400000 WHERE id = ?1";
    place.connection().execute(age, [id]).unwrap();
    store.keep_house().unwrap();
    assert!(matches!(store.restore(id), Err(StoreError::Missing)));
    assert!(store.deleted().unwrap().is_empty());
}

/// What is deleted for good, and a voice that is forgotten, can be read nowhere any more: not in the file, its log or a snapshot.
#[test]
fn what_is_deleted_for_good_is_readable_nowhere() {
    let place = Place::new();
    let store = place.open();
    let secret = named("Zanzibar attic");
    let id = store.create(&secret).unwrap().id;
    store.create(&named("stays")).unwrap();
    let voice: Vec<u8> = b"RIFF of a voice that is to be forgotten ".repeat(500);
    store.keep_voice(Some(&voice)).unwrap();
    store.snapshot().unwrap();
    let readable = |needle: &[u8]| {
        let folder = place.path.parent().unwrap();
        let snapshots = store.snapshots().into_iter().map(|one| one.path);
        let files = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path());
        let all: Vec<_> = files.chain(snapshots).filter(|path| path.is_file()).collect();
        all.iter()
            .any(|path| std::fs::read(path).unwrap().windows(needle.len()).any(|window| window == needle))
    };
    // Names lie in the open, beside the packed documents.
    assert!(readable(b"Zanzibar attic") && readable(b"voice that is to be forgotten"));
    store.delete(id, 1).unwrap();
    assert_eq!(store.empty_bin(Some(id)).unwrap(), 1);
    assert!(!readable(b"Zanzibar attic"));
    assert!(readable(b"voice that is to be forgotten"));
    store.keep_voice(None).unwrap();
    assert!(!readable(b"voice that is to be forgotten"));
    assert_eq!((store.voice().unwrap(), store.snapshots().len()), (None, 1));
    assert_eq!(store.page(None, 9, "", "test").unwrap().count, 1);
}

#[test]
fn first_corners_are_kept_once_and_all_of_them() {
    let place = Place::new();
    let store = place.open();
    store.seed(|| ["a", "b", "c"].map(named).to_vec()).unwrap();
    store.seed(|| panic!("there are some already")).unwrap();
    assert_eq!(store.page(None, 9, "", "test").unwrap().count, 3);
}

#[test]
fn documents_come_back_as_they_went() {
    let place = Place::new();
    let store = place.open();
    let plan = include_str!("../../../../docs/examples/box-room.fogon.json");
    for text in [BRIEF, plan] {
        let document = Document::read(text.as_bytes()).unwrap();
        let kept = store.create(&document).unwrap();
        let again = store.get(kept.id).unwrap().document;
        assert_eq!(
            (&again.name, &again.brief, &again.layout),
            (&document.name, &document.brief, &document.layout)
        );
        assert_eq!(again.to_json(), document.to_json());
    }
}
