//! Takes in: recordings and stills measured and dropped, the run sheet, the logbook from desk and phone.

use fogon_recording::{Take, dry_voice};
use serde_json::{Value, json};

use crate::running::{Answer, Server, folder};

const BOUNDARY: &str = "----fogon-test";

/// A form with files.
fn form(parts: &[(&str, &[u8])]) -> Vec<u8> {
    let mut body = Vec::new();
    for (name, bytes) in parts {
        body.extend(
            format!(
                "--{BOUNDARY}\r\nContent-Disposition: form-data; name=\"{name}\"; filename=\"{name}\"\r\n\r\n"
            )
            .as_bytes(),
        );
        body.extend(*bytes);
        body.extend(b"\r\n");
    }
    body.extend(format!("--{BOUNDARY}--\r\n").as_bytes());
    body
}

fn sent(server: &Server, path: &str, parts: &[(&str, &[u8])]) -> Answer {
    server.send_as("POST", path, &format!("multipart/form-data; boundary={BOUNDARY}"), &form(parts))
}

/// The voice that ships, with silence after it.
fn recording(gain: f32) -> Take {
    let mut samples: Vec<f32> = dry_voice()[..288_000].iter().map(|s| s * gain).collect();
    samples.extend((0..120_000).map(|i| ((i * 7919 % 2001) as f32 / 1000.0 - 1.0) * 2e-4));
    Take { channels: vec![samples], sample_rate_hz: 48_000 }
}

#[test]
fn a_recording_is_measured_told_and_held_against_the_last_ones() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let id = server.demo();
    let sound = format!("/api/v1/corners/{id}/take/sound");
    let wav = recording(0.4).wav_24_bit();
    let answer = sent(&server, &sound, &[("file", &wav)]);
    assert_eq!(answer.status, 200, "{}", answer.text);
    let first = answer.json();
    let told = |taken: &Value, measure: &str| {
        let all = taken["told"].as_array().unwrap();
        all.iter()
            .find(|one| one["measure"] == measure)
            .unwrap_or_else(|| panic!("{measure}: {all:?}"))
            .clone()
    };
    assert_eq!(told(&first, "clipping")["standing"], "good");
    assert!(told(&first, "speech-to-noise")["promised"].as_str().unwrap().ends_with(" dB"));
    assert_eq!(first["against"]["takes"], 0);
    // Kept in the logbook, the next take is held against it.
    let kept = json!({ "entries": [
        { "uid": "session-0001", "session": "session-0001", "at_ms": 1000, "what": { "kind": "session", "begun_ms": 1000, "revision": 1 } },
        { "uid": "measured-0001", "session": "session-0001", "at_ms": 1001, "what": { "kind": "measured", "summary": first["summary"], "figures": first["figures"] } },
    ] });
    assert_eq!(server.post(&format!("/api/v1/corners/{id}/log"), &kept).status, 200);
    let softer = recording(0.1).wav_24_bit();
    let second = sent(&server, &sound, &[("file", &softer)]).json();
    assert_eq!(second["against"]["takes"], 1);
    assert!(second["against"]["told"][0].as_str().unwrap().starts_with("Speech is"), "{}", second["against"]);
    // With the camera's sound: how the two go together, and the recording fitted to it.
    let camera = recording(0.4).fitted(0.75, 0.0).unwrap().wav_24_bit();
    let both = sent(&server, &sound, &[("file", &wav), ("second", &camera)]).json();
    let offset = both["sync"]["sync"]["offset_s"].as_f64().unwrap();
    assert!(
        (offset - 0.75).abs() < 0.001 && both["sync"]["sentence"].as_str().unwrap().contains("0.75"),
        "{both}"
    );
    let fitted =
        sent(&server, &format!("/api/v1/corners/{id}/take/fitted"), &[("file", &wav), ("second", &camera)]);
    assert_eq!((fitted.status, fitted.kind.as_str()), (200, "audio/wav"));
    assert!(fogon_recording::read_take(&fitted.bytes).unwrap().seconds() > 9.0);

    // Refusals, each in words; nothing is kept of them.
    let refused = |parts: &[(&str, &[u8])], status: u16, kind: &str, words: &str| {
        let answer = sent(&server, &sound, parts);
        assert_eq!((answer.status, answer.problem().as_str()), (status, kind), "{}", answer.text);
        assert!(answer.text.contains(words), "{}", answer.text);
    };
    refused(&[("file", b"no sound")], 422, "unreadable_recording", "no WAV or FLAC");
    refused(&[("second", &wav)], 422, "missing_field", "give a file");
    refused(&[("file", &wav), ("third", &wav)], 422, "unknown_field", "there is no such part");
    refused(&[("file", &wav), ("file", &wav)], 400, "unreadable", "twice");
    refused(&[("file", &vec![0; 50_000_001])], 413, "too_large", "50 MB");
    let noise: Vec<f32> =
        (0..400_000u32).map(|i| (i.wrapping_mul(2_654_435_761) >> 16) as f32 / 65_536.0 - 0.5).collect();
    let noise = Take { channels: vec![noise], sample_rate_hz: 48_000 }.wav_24_bit();
    let apart = sent(&server, &sound, &[("file", &wav), ("second", &noise)]).json();
    assert!(apart["sync"].is_null() && apart["unmatched"].as_str().unwrap().contains("nothing in common"));
    assert_eq!(server.send_as("POST", &sound, "application/json", b"{}").status, 400);
    assert_eq!(sent(&server, "/api/v1/corners/99/take/sound", &[("file", &wav)]).status, 404);
    // A file of the database may go while they are counted.
    let sizes = std::fs::read_dir(folder.path()).unwrap().filter_map(|f| f.ok()?.metadata().ok());
    let size: u64 = sizes.map(|found| found.len()).sum();
    assert!(size < 3_000_000, "no recording lies in the folder: {size} bytes");
}

#[test]
fn a_still_is_held_against_the_plan_or_refused_in_words() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let id = server.demo();
    let still = format!("/api/v1/corners/{id}/take/still");
    let png = server.post("/api/v1/picture", &json!({ "plan": server.plan(id), "width": 320 }));
    assert_eq!(png.status, 200, "{}", png.text);
    let planned = server.post("/api/v1/run", &server.plan(id)).json()["planned"].clone();
    let marks = json!({ "crown": planned["crown"], "eyes": planned["eyes"], "chin": planned["chin"], "shoulder": planned["shoulders"][0], "background": [0.2, 0.3] });
    let answer = sent(&server, &still, &[("marks", marks.to_string().as_bytes()), ("file", &png.bytes)]);
    assert_eq!(answer.status, 200, "{}", answer.text);
    let told = answer.json();
    let of = |measure: &str| {
        let all = told["told"].as_array().unwrap();
        all.iter().find(|one| one["measure"] == measure).unwrap_or_else(|| panic!("{measure}")).clone()
    };
    // Marked where the plan has them, everything is as planned.
    for measure in ["camera", "headroom", "face", "exposure"] {
        assert_eq!(of(measure)["standing"], "good", "{}", of(measure));
    }
    let refused = |marks: &Value, file: &[u8], status: u16, words: &str| {
        let answer = sent(&server, &still, &[("marks", marks.to_string().as_bytes()), ("file", file)]);
        assert!(answer.status == status && answer.text.contains(words), "{}", answer.text);
        answer.problem();
    };
    let with = |field: &str, value: Value| {
        let mut changed = marks.clone();
        changed[field] = value;
        changed
    };
    refused(&marks, b"no picture", 422, "no PNG or JPEG");
    refused(&with("crown", json!([0.5, 1.5])), &png.bytes, 422, "0 to 1");
    refused(&with("crown", json!([0.5])), &png.bytes, 422, "crown");
    refused(&with("ears", json!([0.5, 0.5])), &png.bytes, 422, "ears");
    refused(&with("crown", json!([0.5, 0.9])), &png.bytes, 409, "one under the other");
    // Another shape than the plan's picture.
    let mut upright = server.plan(id);
    upright["layout"]["camera"]["orientation"] = json!("portrait");
    let other = server.post("/api/v1/picture", &json!({ "plan": upright, "width": 320 }));
    refused(&marks, &other.bytes, 409, "as wide as high");
}

#[test]
fn the_logbook_is_kept_listed_and_deleted() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let id = server.demo();
    let log = format!("/api/v1/corners/{id}/log");
    let running = server.get(&format!("/api/v1/corners/{id}/run")).json();
    assert!(running["run"]["shots"].as_array().unwrap().len() >= 2);
    assert!(running["run"]["stood"][0].as_str().unwrap().contains("from the left wall"));
    let entry = |uid: &str, what: Value| json!({ "uid": uid, "session": "session-0001", "at_ms": i64::MAX / 2, "by": "somebody else", "what": what });
    let entries = json!({ "entries": [
        entry("session-0001", json!({ "kind": "session", "begun_ms": 1_796_000_000_000i64, "revision": 1, "learnt": ["Breathe", "Start later"] })),
        entry("take-0001", json!({ "kind": "take", "number": 1, "shot": "talk", "what": "You", "begun_ms": 1_796_000_060_000i64, "seconds": 61.5, "verdict": "keep", "note": "=SUM(A1)", "file": "x-01" })),
    ] });
    let all = server.post(&log, &entries).json();
    let first = &all["entries"][0];
    // Who wrote it and when the server knows better than what is sent.
    assert!(first["by"] == "desk" && first["at_ms"].as_i64().unwrap() <= all["now_ms"].as_i64().unwrap());
    // Who asks again is told only what is new, and how many there are.
    let again = server.post(&log, &json!({ "entries": [], "written": all["written"] })).json();
    assert!(again["entries"].as_array().unwrap().is_empty() && again["count"] == 2, "{again}");
    let table = server.get(&format!("{log}/csv"));
    assert!(table.kind.starts_with("text/csv") && table.text.lines().count() == 3, "{}", table.text);
    assert!(
        table.text.contains("Breathe; Start later") && table.text.contains("'=SUM(A1)"),
        "{}",
        table.text
    );
    let back = server.get(&format!("{log}/json")).json();
    assert_eq!(back["entries"].as_array().unwrap().len(), 2);
    assert_eq!(server.post(&log, &back).status, 200, "what goes out comes in");
    assert_eq!(server.get(&format!("{log}/pdf")).status, 404);
    for bad in [
        json!({ "entries": [entry("short", json!({ "kind": "shot", "shot": "talk", "done": true }))] }),
        json!({ "entries": [entry("take-0002", json!({ "kind": "take", "number": 0, "shot": "talk", "what": "x", "begun_ms": 0 }))] }),
        json!({ "entries": [entry("take-0002", json!({ "kind": "song" }))] }),
        json!({ "entries": [entry("take-0002", json!({ "kind": "shot", "shot": "talk", "done": true, "mood": 1 }))] }),
    ] {
        let refused = server.post(&log, &bad);
        assert_eq!(refused.status, 422, "{}", refused.text);
        refused.problem();
    }
    assert_eq!(
        server.send("DELETE", &format!("/api/v1/corners/{id}/sessions/session-0001"), &[], "").status,
        204
    );
    assert_eq!(
        server.send("DELETE", &format!("/api/v1/corners/{id}/sessions/session-0001"), &[], "").status,
        404
    );
    assert!(server.post(&log, &json!({ "entries": [] })).json()["entries"].as_array().unwrap().is_empty());
    assert_eq!(server.get("/api/v1/logging").json(), json!({ "days": null }));
    assert_eq!(server.send("PUT", "/api/v1/logging", &[], &json!({ "days": 90 }).to_string()).status, 204);
    assert_eq!(server.get("/api/v1/logging").json(), json!({ "days": 90 }));
    let asked = json!({ "plan": server.plan(id), "from": "2030-12-02", "to": "2030-12-08", "minutes": 45, "count": 3 });
    let planned = server.post("/api/v1/sessions", &asked).json();
    let count = planned["sessions"].as_array().unwrap().len();
    assert!(
        (1..=3).contains(&count) && planned["ics"].as_str().unwrap().matches("BEGIN:VEVENT").count() == count
    );
}
