//! The list, page by page, and what is kept beside it.

use fogon_store::Told;

use crate::{Place, named};

#[test]
fn the_last_saved_comes_first_page_by_page() {
    let place = Place::new();
    let store = place.open();
    let names = ["Attic", "Box room", "Cellar_a", "Den", "Eaves 50 %"];
    let ids = names.map(|name| store.create(&named(name)).unwrap().id);
    std::thread::sleep(std::time::Duration::from_millis(3));
    store.save(ids[0], 1, &named("Attic again"), None).unwrap();
    let mut found = Vec::new();
    let mut after = None;
    loop {
        let page = store.page(after, 2, "", "test").unwrap();
        assert_eq!(page.count, 5);
        found.extend(page.entries.into_iter().map(|entry| entry.name));
        after = page.next;
        if after.is_none() {
            break;
        }
    }
    assert_eq!(found, ["Attic again", "Eaves 50 %", "Den", "Cellar_a", "Box room"]);
    let with = |part: &str| store.page(None, 9, part, "test").unwrap();
    assert_eq!((with("box").count, with("%").count, with("r_a").count, with("r r").count), (1, 1, 1, 0));
}

/// What is told is kept until the content changes or somebody else tells it.
#[test]
fn what_is_told_of_a_corner_is_told_once() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("one")).unwrap().id;
    let first = store.page(None, 9, "", "v1").unwrap();
    assert!(matches!(first.entries[0].told, Told::Not(_)));
    store.keep_told(&[(&first.entries[0], "ready".to_owned())], "v1").unwrap();
    store.keep_picture((id, 1), 240, "v1", b"png").unwrap();
    let told = |by: &str| store.page(None, 9, "", by).unwrap().entries.remove(0).told;
    assert!(matches!(told("v1"), Told::Kept(words) if words == "ready"));
    assert!(matches!(told("v2"), Told::Not(_)));
    assert_eq!(store.picture(id, 240, "v1").unwrap().as_deref(), Some(&b"png"[..]));
    assert_eq!((store.picture(id, 240, "v2").unwrap(), store.picture(id, 96, "v1").unwrap()), (None, None));
    store.save(id, 1, &named("two"), None).unwrap();
    assert!(matches!(told("v1"), Told::Not(_)));
    assert_eq!(store.picture(id, 240, "v1").unwrap(), None);
}

/// A row that this version cannot read is said to be so; it is neither dropped nor overwritten, and takes nothing else with it.
#[test]
fn an_unreadable_corner_is_told_and_kept() {
    let place = Place::new();
    let store = place.open();
    let id = store.create(&named("fine")).unwrap().id;
    store.create(&named("other")).unwrap();
    let newer = r#"{"format":"fogon.plan","version":9}"#;
    let mut packed = flate2::write::ZlibEncoder::new(Vec::new(), flate2::Compression::default());
    std::io::Write::write_all(&mut packed, newer.as_bytes()).unwrap();
    place
        .connection()
        .execute(
            "UPDATE document SET body = ?1 WHERE id = (SELECT document FROM revision WHERE corner = ?2)",
            rusqlite::params![packed.finish().unwrap(), id],
        )
        .unwrap();
    let page = store.page(None, 9, "", "test").unwrap();
    assert_eq!(page.entries.len(), 2);
    let entry = page.entries.iter().find(|entry| entry.id == id).unwrap();
    assert!(matches!(&entry.told, Told::Unreadable(why) if why.contains("newer")), "{entry:?}");
    assert!(store.get(id).unwrap_err().to_string().contains("newer version"));
    let (name, text) = store.raw(id).unwrap();
    assert_eq!((name.as_str(), text.replace([' ', '\n'], "").as_str()), ("fine", newer));
    let report = fogon_store::doctor::examine(&place.path).unwrap();
    assert_eq!(report.wrong, [format!("Save 1 of corner {id} does not read. It is kept as it is.")]);
    store.delete(id, 1).unwrap();
    assert_eq!(store.page(None, 9, "", "test").unwrap().count, 1);
}
