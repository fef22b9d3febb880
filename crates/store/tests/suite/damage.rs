//! Damage: noticed, never written to, mended from what reads; backups put back.

use fogon_store::doctor::{examine, mend, restore};
use fogon_store::{Store, StoreError, Trouble};

use crate::{Place, named};

/// Thirty corners of three saves, closed.
fn filled() -> Place {
    let place = Place::new();
    let store = place.open();
    for n in 0..30 {
        let id = store.create(&named(&format!("corner {n}"))).unwrap().id;
        store.save(id, 1, &named(&format!("corner {n} again")), None).unwrap();
        store.save(id, 2, &named(&format!("corner {n} at last")), None).unwrap();
    }
    drop(store);
    place
}

/// Overwrites a page in the middle of the file.
fn spoil(place: &Place, part: f64) {
    let mut bytes = std::fs::read(&place.path).unwrap();
    let pages = bytes.len() / 4096;
    let at = ((pages as f64 * part) as usize).max(2) * 4096;
    bytes[at..at + 4096].fill(0xa5);
    std::fs::write(&place.path, bytes).unwrap();
}

#[test]
fn a_damaged_file_is_said_to_be_so_and_mended_from_what_reads() {
    let mut mended_some = 0;
    for part in [0.15, 0.3, 0.45, 0.6, 0.75, 0.9] {
        let place = filled();
        let sound = examine(&place.path).unwrap();
        assert_eq!((sound.corners, sound.saves, sound.wrong.len(), sound.mending.clone()), (30, 90, 0, None));
        spoil(&place, part);
        let before = std::fs::read(&place.path).unwrap();
        let opened = Store::open(&place.path).err();
        assert!(matches!(opened, Some(StoreError::File(Trouble::Damaged(_)))), "{part}: {opened:?}");
        let report = examine(&place.path).unwrap();
        assert!(!report.wrong.is_empty() && report.mending.is_some(), "{report:?}");
        assert_eq!(std::fs::read(&place.path).unwrap(), before, "looking changes nothing");
        let mended = mend(&place.path).unwrap();
        assert_eq!(std::fs::read(&mended.aside).unwrap(), before, "the old file is kept");
        let store = place.open();
        let page = store.page(None, 100, "", "test").unwrap();
        assert!(page.count >= 15, "{part}: {mended:?}");
        for entry in &page.entries {
            let kept = store.get(entry.id).unwrap();
            assert!(kept.document.name.starts_with("corner ") && kept.revision <= 3);
            store.save(entry.id, kept.revision, &named("goes on"), None).unwrap();
        }
        drop(store);
        let after = examine(&place.path).unwrap();
        assert!(after.wrong.is_empty(), "{after:?}");
        mended_some += i64::from(mended.carried.1 < 90);
    }
    assert!(mended_some > 0, "some saves were hit");
}

/// The log of another time beside a restored file, as a copy by hand leaves it: found at start, and not written to.
#[test]
fn a_log_that_was_left_over_is_no_silent_loss() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("one")).unwrap().id;
    let backup = place.path.with_file_name("backup.sqlite3");
    store.backup(&backup).unwrap();
    for revision in 1..40 {
        store.save(id, revision, &named(&format!("save {revision}")), None).unwrap();
    }
    let log = place.path.with_file_name("corners.sqlite3-wal");
    let left = std::fs::read(&log).unwrap();
    assert!(!left.is_empty());
    drop(store);
    std::fs::copy(&backup, &place.path).unwrap();
    std::fs::write(&log, left).unwrap();
    match Store::open(&place.path) {
        // Either the log is seen through, or everything in it is whole.
        Err(StoreError::File(Trouble::Damaged(_))) => {
            restore(&backup, &place.path).unwrap();
            assert_eq!(place.open().get(id).unwrap().document.name, "one");
        }
        Err(other) => panic!("{other}"),
        Ok(store) => assert!(store.get(id).is_ok_and(|kept| kept.revision >= 1)),
    }
}

#[test]
fn a_backup_is_checked_and_put_back_and_the_old_file_kept() {
    let place = filled();
    let backup = place.path.with_file_name("backup.sqlite3");
    let store = place.open();
    store.backup(&backup).unwrap();
    assert!(store.backup(&backup).is_err(), "a backup replaces nothing");
    let id = store.create(&named("since then")).unwrap().id;
    assert!(matches!(restore(&backup, &place.path), Err(StoreError::File(Trouble::InUse))));
    drop(store);
    let aside = restore(&backup, &place.path).unwrap().unwrap();
    let store = place.open();
    assert_eq!(store.page(None, 1, "", "test").unwrap().count, 30);
    assert!(matches!(store.get(id), Err(StoreError::Missing)));
    drop(store);
    assert_eq!(Store::open(&aside).unwrap().get(id).unwrap().document.name, "since then");
    // One that is not sound is not put in its place; nor is somebody else's.
    let before = std::fs::read(&place.path).unwrap();
    let spoilt = filled();
    spoil(&spoilt, 0.5);
    assert!(matches!(restore(&spoilt.path, &place.path), Err(StoreError::File(Trouble::Damaged(_)))));
    let text = place.path.with_file_name("list.txt");
    std::fs::write(&text, "no database at all, but a text".repeat(40)).unwrap();
    assert!(matches!(restore(&text, &place.path), Err(StoreError::File(Trouble::NoDatabase))));
    assert_eq!(std::fs::read(&place.path).unwrap(), before);
}

/// A snapshot a day, the last seven kept.
#[test]
fn snapshots_are_taken_when_due_and_the_last_seven_kept() {
    let place = Place::new();
    let store = place.open();
    store.create(&named("one")).unwrap();
    store.keep_house().unwrap();
    store.keep_house().unwrap();
    assert_eq!(store.snapshots().len(), 1, "none is due yet");
    for _ in 0..9 {
        store.snapshot().unwrap();
    }
    let all = store.snapshots();
    assert_eq!(all.len(), 7);
    assert!(all.windows(2).all(|pair| pair[0].at_ms >= pair[1].at_ms));
    let copy = Place::new();
    std::fs::copy(&all[0].path, &copy.path).unwrap();
    assert_eq!(copy.open().page(None, 9, "", "test").unwrap().count, 1);
}
