//! Files of every earlier version go forward step by step and hold everything they held; a copy of the old one lies beside.

use fogon_store::{Step, Store};
use rusqlite::Connection;

use crate::Place;

const OLD: [(i64, &[u8]); 6] = [
    (1, include_bytes!("../files/version-1.db")),
    (2, include_bytes!("../files/version-2.db")),
    (3, include_bytes!("../files/version-3.db")),
    (4, include_bytes!("../files/version-4.db")),
    // Versions 5 and 6 were one change.
    (6, include_bytes!("../files/version-6.db")),
    (7, include_bytes!("../files/version-7.db")),
];

#[test]
fn a_file_of_an_earlier_version_holds_everything_it_held() {
    for (version, old) in OLD {
        let place = Place::new();
        std::fs::write(&place.path, old).unwrap();
        let store = place.open();
        let kept = store.get(1).unwrap();
        assert_eq!(
            (kept.document.name.as_str(), kept.revision, kept.updated_ms),
            ("three", 3, 3000),
            "{version}"
        );
        assert!(kept.can_undo && !kept.can_redo);
        let saved: Vec<_> = store.revisions(1, None).unwrap().iter().map(|s| (s.revision, s.at_ms)).collect();
        assert_eq!(saved, [(3, 3000), (2, 2000), (1, 1000)]);
        assert_eq!(store.revision(1, 1).unwrap().name, "one");
        let back = store.step(1, 3, Step::Undo).unwrap();
        assert_eq!((back.document.name.as_str(), back.can_redo), ("two", true));
        assert_eq!(store.voice().unwrap().is_some(), version >= 3);
        if version >= 4 {
            assert_eq!(store.save(1, 2, &back.document, Some("k3")).unwrap().revision, 3, "the key is known");
            assert_eq!(store.restore(2).unwrap().document.name, "gone");
        }
        // The old file as it was, beside.
        let [snapshot] = store.snapshots().try_into().unwrap();
        let old = Connection::open(&snapshot.path).unwrap();
        let found: i64 = old.pragma_query_value(None, "user_version", |row| row.get(0)).unwrap();
        let texts: i64 = old
            .query_row("SELECT count(*) FROM revision WHERE typeof(document) = 'text'", [], |r| r.get(0))
            .unwrap();
        let as_text = if version > 4 { 0 } else { 3 + i64::from(version == 4) };
        assert_eq!((found, texts), (version, as_text));
        // Corners have names for all machines from now on, and keep them.
        drop(store);
        let uid = |path: &std::path::Path| -> String {
            Connection::open(path)
                .unwrap()
                .query_row("SELECT uid FROM corner WHERE id = 1", [], |r| r.get(0))
                .unwrap()
        };
        let first = uid(&place.path);
        drop(Store::open(&place.path).unwrap());
        assert_eq!((uid(&place.path), first.len()), (first.clone(), 36));
    }
}
