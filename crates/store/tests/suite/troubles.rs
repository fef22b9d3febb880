//! Everything that can happen to the file: its own sentence each, at start where it can be known then, and nothing lost.

use std::sync::mpsc::channel;
use std::time::{Duration, Instant};

use fogon_store::{Store, StoreError, Trouble};

use crate::{Place, named};

fn trouble<T>(answer: Result<T, StoreError>) -> Trouble {
    match answer {
        Err(StoreError::File(trouble)) => trouble,
        Err(other) => panic!("{other}"),
        Ok(_) => panic!("no trouble at all"),
    }
}

#[test]
fn what_is_no_file_of_ours_is_left_as_it_is() {
    let place = Place::new();
    let text = "This is a shopping list, not a database. ".repeat(200);
    std::fs::write(&place.path, &text).unwrap();
    assert_eq!(trouble(Store::open(&place.path)), Trouble::NoDatabase);
    assert_eq!(std::fs::read_to_string(&place.path).unwrap(), text);

    let place = Place::new();
    let tables =
        "CREATE TABLE recipe (name TEXT); INSERT INTO recipe VALUES ('soup'); PRAGMA user_version = 2;";
    place.connection().execute_batch(tables).unwrap();
    let before = std::fs::read(&place.path).unwrap();
    assert_eq!(trouble(Store::open(&place.path)), Trouble::Foreign);
    // Nor one whose tables happen to be called as ours among others.
    place.connection().execute_batch("CREATE TABLE corner (id); CREATE TABLE revision (id);").unwrap();
    assert_eq!(trouble(Store::open(&place.path)), Trouble::Foreign);
    place.connection().execute_batch("DROP TABLE corner; DROP TABLE revision; VACUUM;").unwrap();
    assert_eq!(std::fs::read(&place.path).unwrap().len(), before.len());

    let place = Place::new();
    drop(place.open());
    place.connection().pragma_update(None, "user_version", 99).unwrap();
    assert!(matches!(trouble(Store::open(&place.path)), Trouble::Newer { found: 99, .. }));
    let folder = place.path.parent().unwrap();
    assert!(
        matches!(trouble(Store::open(folder)), Trouble::Unreachable(words) if words.contains("is a folder"))
    );
    let nowhere = folder.join("no/such/folder/corners.sqlite3");
    assert!(matches!(trouble(Store::open(&nowhere)), Trouble::Unreachable(_)));
}

/// The file removed, or another put in its place, or its log: refused before and never acknowledged; found again, it goes on.
#[test]
fn a_file_that_is_taken_away_takes_no_save_with_it() {
    for part in ["", "-wal"] {
        let place = Place::new();
        let store = place.open();
        let id = store.create(&named("one")).unwrap().id;
        let mut name = place.path.clone().into_os_string();
        name.push(part);
        let away = place.path.with_extension("away");
        std::fs::rename(&name, &away).unwrap();
        assert_eq!(trouble(store.save(id, 1, &named("two"), None)), Trouble::Gone, "{part}");
        assert_eq!(trouble(store.create(&named("new"))), Trouble::Gone);
        assert_eq!(trouble(store.get(id)), Trouble::Gone);
        std::fs::write(&name, "somebody else's").unwrap();
        assert_eq!(trouble(store.save(id, 1, &named("two"), None)), Trouble::Gone);
        assert_eq!(std::fs::read_to_string(&name).unwrap(), "somebody else's");
        std::fs::rename(&away, &name).unwrap();
        assert_eq!(store.save(id, 1, &named("two"), None).unwrap().revision, 2);
        drop(store);
        assert_eq!(place.open().get(id).unwrap().document.name, "two");
    }
}

#[test]
fn one_file_has_one_fogon() {
    let place = Place::new();
    let store = place.open();
    assert_eq!(trouble(Store::open(&place.path)), Trouble::InUse);
    assert_eq!(trouble(fogon_store::doctor::mend(&place.path)), Trouble::InUse);
    drop(store);
    place.open();
}

/// Another program's write lock: reads go on, a write waits as long as is told, and the next one works.
#[test]
fn another_programs_lock_holds_back_writes_only() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("one")).unwrap().id;
    let other = place.connection();
    other.execute_batch("BEGIN IMMEDIATE").unwrap();
    std::thread::scope(|scope| {
        let (said, heard) = channel();
        let store = &store;
        scope.spawn(move || {
            let since = Instant::now();
            said.send((trouble(store.save(id, 1, &named("two"), None)), since.elapsed())).unwrap();
        });
        // Meanwhile everybody reads.
        let (trouble, waited) = loop {
            assert_eq!(store.get(id).unwrap().revision, 1);
            if let Ok(heard) = heard.recv_timeout(Duration::from_millis(20)) {
                break heard;
            }
        };
        assert_eq!(trouble, Trouble::Held { waited_s: 5 });
        assert!(waited >= Duration::from_secs(4), "{waited:?}");
    });
    // Also at start.
    drop(store);
    assert_eq!(trouble(Store::open(&place.path)), Trouble::Held { waited_s: 5 });
    other.execute_batch("ROLLBACK").unwrap();
    assert_eq!(place.open().save(id, 1, &named("two"), None).unwrap().revision, 2);
}

/// A disk without room, as SQLite meets it: the save is refused and nothing else is lost; with room again it works.
#[test]
fn a_full_disk_refuses_the_save_and_keeps_the_rest() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("one")).unwrap().id;
    let bytes = std::fs::metadata(store.path()).unwrap().len();
    store.limit(Some(bytes)).unwrap();
    let large: Vec<u8> = (0..200_000u32).flat_map(u32::to_le_bytes).collect();
    assert_eq!(trouble(store.keep_voice(Some(&large))), Trouble::Full);
    assert_eq!(store.get(id).unwrap().document.name, "one");
    store.limit(None).unwrap();
    store.keep_voice(Some(&large)).unwrap();
    assert_eq!(store.voice().unwrap(), Some(large));
}

#[cfg(unix)]
#[test]
fn only_its_owner_reads_it() {
    use std::os::unix::fs::PermissionsExt;
    let place = Place::new();
    let store = place.open();
    store.create(&named("one")).unwrap();
    store.snapshot().unwrap();
    store.backup(&place.path.with_file_name("backup.sqlite3")).unwrap();
    let folder = place.path.parent().unwrap();
    let of = |folder: &std::path::Path| -> Vec<_> {
        std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect()
    };
    let snapshots = of(&fogon_store::snapshot_folder(&place.path));
    assert_eq!(snapshots.len(), 1);
    for path in of(folder).into_iter().filter(|path| path.is_file()).chain(snapshots) {
        let mode = std::fs::metadata(&path).unwrap().permissions().mode() & 0o777;
        assert_eq!(mode, 0o600, "{}", path.display());
    }
}

/// At rest the file alone holds everything: copied while it is open, it is whole.
#[test]
fn a_copy_of_the_file_at_rest_is_whole() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("one")).unwrap().id;
    store.keep_house().unwrap();
    let copied = Place::new();
    std::fs::copy(&place.path, &copied.path).unwrap();
    assert_eq!(copied.open().get(id).unwrap().document.name, "one");
    // And once more after what was written since is folded in at exit.
    store.save(id, 1, &named("two"), None).unwrap();
    drop(store);
    let copied = Place::new();
    std::fs::copy(&place.path, &copied.path).unwrap();
    assert_eq!(copied.open().get(id).unwrap().document.name, "two");
}

/// Readers and writers at the same time: each read is of one moment, each save counts once.
#[test]
fn many_read_and_write_at_the_same_time() {
    let place = Place::new();
    let store = place.open();
    let ids: Vec<i64> = (0..4).map(|n| store.create(&named(&format!("{n}"))).unwrap().id).collect();
    std::thread::scope(|scope| {
        for id in &ids {
            let store = &store;
            scope.spawn(move || {
                for revision in 1..=25 {
                    store.save(*id, revision, &named(&format!("{id} at {revision}")), None).unwrap();
                }
            });
            scope.spawn(move || {
                for _ in 0..50 {
                    let kept = store.get(*id).unwrap();
                    let expected = if kept.revision == 1 {
                        format!("{}", id - 1)
                    } else {
                        format!("{id} at {}", kept.revision - 1)
                    };
                    assert_eq!(kept.document.name, expected);
                }
            });
        }
    });
    assert!(ids.iter().all(|id| store.get(*id).unwrap().revision == 26));
}
