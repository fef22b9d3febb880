//! Archives: out and in again, the same bytes where nothing changed; told before it is done; nothing lost by taking one in.

use std::io::{Cursor, Read, Write};

use fogon_store::{Archive, Becomes, Step, Store, Taking};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

use crate::{Place, named};

fn filled() -> (Place, Store) {
    let place = Place::new();
    let store = place.open();
    for name in ["Attic", "Box room"] {
        let id = store.create(&named(name)).unwrap().id;
        store.save(id, 1, &named(&format!("{name} again")), None).unwrap();
        store.name_revision(id, 1, Some("as measured")).unwrap();
        store.step(id, 2, Step::Undo).unwrap();
    }
    store.keep_voice(Some(b"RIFF voice")).unwrap();
    (place, store)
}

fn told(store: &Store, archive: &Archive, taking: Taking) -> Vec<(String, Becomes)> {
    let mut all: Vec<_> =
        store.would_take(archive, taking).unwrap().into_iter().map(|one| (one.name, one.becomes)).collect();
    all.sort();
    all
}

fn read(bytes: &[u8]) -> Archive {
    Archive::read(bytes).unwrap()
}

#[test]
fn everything_goes_out_and_in_again_as_it_was() {
    let (_first, store) = filled();
    let bytes = store.archive(None).unwrap();
    assert_eq!(store.archive(None).unwrap(), bytes, "the same corners give the same bytes");
    let other = Place::new();
    let empty = other.open();
    let news = [("Attic".to_owned(), Becomes::New), ("Box room".to_owned(), Becomes::New)];
    assert_eq!(told(&empty, &read(&bytes), Taking::Merge), news);
    assert_eq!(empty.page(None, 9, "", "test").unwrap().count, 0, "a dry run changes nothing");
    empty.take(&read(&bytes), Taking::Merge).unwrap();
    assert_eq!(empty.archive(None).unwrap(), bytes, "and in again, and out: the same bytes");
    let [first, _] = empty.page(None, 9, "", "test").unwrap().entries.try_into().unwrap();
    let saved = empty.revisions(first.id, None).unwrap();
    assert_eq!((saved.len(), saved[2].name.as_deref()), (3, Some("as measured")));
    assert_eq!(empty.step(first.id, 3, Step::Redo).unwrap().document.name, format!("{} again", first.name));
    assert_eq!(empty.voice().unwrap().as_deref(), Some(&b"RIFF voice"[..]));
    // It is an open format: any ZIP reader finds plain documents in it.
    let mut zip = ZipArchive::new(Cursor::new(&bytes)).unwrap();
    let names: Vec<String> = zip.file_names().map(|name| name.unwrap().into_owned()).collect();
    assert_eq!(names[0], "manifest.json");
    let mut text = String::new();
    zip.by_name(names.iter().find(|name| name.ends_with("000001.json")).unwrap())
        .unwrap()
        .read_to_string(&mut text)
        .unwrap();
    assert!(fogon_store::Document::read(text.as_bytes()).is_ok());
}

#[test]
fn merging_keeps_what_is_here() {
    let (_place, store) = filled();
    let bytes = store.archive(None).unwrap();
    let [attic, box_room] =
        ["Attic", "Box room"].map(|name| store.page(None, 9, name, "test").unwrap().entries.remove(0).id);
    store.save(attic, 3, &named("Attic of mine"), None).unwrap();
    store.create(&named("Cellar")).unwrap();
    let merged = [("Attic".to_owned(), Becomes::Changed), ("Box room".to_owned(), Becomes::Same)];
    assert_eq!(told(&store, &read(&bytes), Taking::Merge), merged);
    store.take(&read(&bytes), Taking::Merge).unwrap();
    assert_eq!(store.page(None, 9, "", "test").unwrap().count, 3);
    let kept = store.get(attic).unwrap();
    assert_eq!((kept.document.name.as_str(), kept.revision), ("Attic", 5));
    assert_eq!(store.step(attic, 5, Step::Undo).unwrap().document.name, "Attic of mine");
    assert_eq!(store.get(box_room).unwrap().revision, 3);
}

#[test]
fn replacing_puts_the_rest_into_the_bin() {
    let (_place, store) = filled();
    let attic = store.page(None, 9, "Attic", "test").unwrap().entries.remove(0);
    let one = store.archive(Some(attic.id)).unwrap();
    assert!(store.archive(Some(999)).is_err());
    store.delete(attic.id, attic.revision).unwrap();
    let replaced = [("Attic".to_owned(), Becomes::Back), ("Box room".to_owned(), Becomes::Binned)];
    assert_eq!(told(&store, &read(&one), Taking::Replace), replaced);
    store.take(&read(&one), Taking::Replace).unwrap();
    assert_eq!(store.page(None, 9, "", "test").unwrap().entries[0].name, "Attic");
    assert_eq!(store.deleted().unwrap()[0].name, "Box room");
    assert!(store.voice().unwrap().is_some(), "one corner's archive says nothing of the voice");
}

/// What becomes of a file of an archive; none where it is left out.
type Change = dyn Fn(&str, Vec<u8>) -> Option<Vec<u8>>;

/// Every file of an archive is held against its checksum and read: one that is changed, missing or strange is named.
#[test]
fn an_archive_that_is_not_whole_is_refused() {
    let (_place, store) = filled();
    let bytes = store.archive(None).unwrap();
    let again = |change: &Change, more: &[(&str, &[u8])]| {
        let mut zip = ZipArchive::new(Cursor::new(&bytes)).unwrap();
        let mut out = ZipWriter::new(Cursor::new(Vec::new()));
        for index in 0..zip.len() {
            let mut file = zip.by_index(index).unwrap();
            let mut content = Vec::new();
            file.read_to_end(&mut content).unwrap();
            if let Some(content) = change(&file.name().unwrap(), content) {
                out.start_file(file.name().unwrap(), SimpleFileOptions::default()).unwrap();
                out.write_all(&content).unwrap();
            }
        }
        for (name, content) in more {
            out.start_file(*name, SimpleFileOptions::default()).unwrap();
            out.write_all(content).unwrap();
        }
        Archive::read(&out.finish().unwrap().into_inner())
            .map_or_else(|bad| bad.to_string(), |_| "whole".to_owned())
    };
    let manifest = |from: &'static str, to: &'static str| {
        move |name: &str, content: Vec<u8>| match name {
            "manifest.json" => Some(String::from_utf8(content).unwrap().replace(from, to).into_bytes()),
            _ => Some(content),
        }
    };
    assert_eq!(again(&|_, content| Some(content), &[]), "whole");
    let spoilt = again(
        &|name, c| Some(if name.ends_with("000002.json") { [c, b" ".to_vec()].concat() } else { c }),
        &[],
    );
    assert!(spoilt.contains("000002.json is not what was put in"), "{spoilt}");
    let missing = again(&|name, c| (!name.ends_with("000001.json")).then_some(c), &[]);
    assert!(missing.contains("000001.json is missing"), "{missing}");
    assert!(
        again(&|_, c| Some(c), &[("../../outside.json", b"{}")])
            .contains("../../outside.json is not in its manifest")
    );
    assert!(again(&|name, c| (name != "manifest.json").then_some(c), &[]).contains("no manifest.json"));
    assert!(again(&manifest("\"version\": 1", "\"version\": 2"), &[]).contains("newer Fogon"));
    assert!(again(&manifest("fogon.archive", "other.archive"), &[]).contains("no archive of Fogon"));
    assert!(again(&manifest("\"revision\": 3", "\"revision\": 30"), &[]).contains("has no save 30"));
    assert!(again(&manifest("\"uid\"", "\"uuid\""), &[]).contains("does not read"));
    for bytes in [&b"not a zip"[..], &bytes[..bytes.len() / 2], &[]] {
        assert!(Archive::read(bytes).is_err());
    }
}
