//! Sound in and out.

use serde_json::{Value, json};

use crate::running::{Server, folder};

/// A corner is heard as a WAV file with its figures, nearer is clearer; broken or hostile recordings are refused in words and
/// nothing is kept of them; the user's own voice is kept, heard and forgotten.
#[test]
fn a_corner_is_heard_and_recordings_are_kept_within_bounds() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let id = server.demo();
    let plan = server.plan(id);
    let bytes = |path: &str, method: &str, kind: &str, body: Vec<u8>| {
        let request = ureq::http::Request::builder()
            .method(method)
            .uri(format!("{}{path}", server.base))
            .header("content-type", kind)
            .body(body)
            .unwrap();
        let mut answer = server.agent.run(request).unwrap();
        let header = |name: &str| {
            answer.headers().get(name).map_or(f64::NAN, |v| v.to_str().unwrap().parse().unwrap())
        };
        let figures =
            ["fogon-sti", "fogon-snr-db", "fogon-loudness-lufs", "fogon-true-peak-dbtp"].map(header);
        let status = answer.status().as_u16();
        (status, figures, answer.body_mut().with_config().limit(50_000_000).read_to_vec().unwrap())
    };
    let hear =
        |body: &Value| bytes("/api/v1/hear", "POST", "application/json", body.to_string().into_bytes());
    let (status, near, wav) = hear(&json!({ "plan": plan }));
    assert_eq!(status, 200);
    let recording = fogon_recording::read(&wav).unwrap();
    assert!(recording.seconds() > 8.9 && recording.seconds() < 13.0 && recording.sample_rate_hz == 48_000);
    assert!(near[2] > -26.0 && near[2] < -22.9 && near[3] <= -0.99, "{near:?}");
    let measured = fogon_core::sound::loudness::integrated_lufs(&[&recording.samples], 48_000.0).unwrap();
    assert!((measured - near[2]).abs() < 0.1, "{measured} for {}", near[2]);
    let (_, far, _) = hear(&json!({ "plan": plan, "variant": "built-in" }));
    assert!(far[0] < near[0] && far[1] < near[1], "{far:?} against {near:?}");
    let picture = server.post("/api/v1/impulse", &json!({ "plan": plan })).json();
    assert!(picture["is_box"] == true && picture["decays_db"].as_array().unwrap().len() == 6);
    assert!(picture["reflections"].as_array().unwrap().iter().all(|r| r["level_db"].as_f64().unwrap() < 0.0));
    let sound = server.post("/api/v1/assess?sound=true", &plan).json();
    assert!(sound["sound"]["choices"].as_array().unwrap().len() == 7 && !sound["sound_sheets"].is_null());
    assert!(server.post("/api/v1/assess", &plan).json()["sound"].is_null());
    let hung = json!({ "plan": plan, "material": "rug", "width_m": 1.2, "height_m": 0.9 });
    let hung = server.post("/api/v1/treatment", &hung);
    assert!(
        hung.status == 200 && hung.json()["layout"]["treatment"]["rug"]["on"] == "floor",
        "{}",
        hung.text
    );
    // Without another the camera's own microphone hears.
    let mut deaf = plan.clone();
    deaf["layout"]["microphone"] = Value::Null;
    assert_eq!(hear(&json!({ "plan": deaf })).0, 200);
    // Refusals, each by its name.
    let bad = server.post(
        "/api/v1/treatment",
        &json!({ "plan": plan, "material": "velvet", "width_m": 1, "height_m": 1 }),
    );
    assert!(bad.status == 422 && bad.text.contains("material"));
    assert_eq!(server.post("/api/v1/hear", &json!({ "plan": plan, "variant": "whisper" })).status, 422);
    // The user's own voice.
    let put = |body: Vec<u8>| bytes("/api/v1/voice", "PUT", "application/octet-stream", body);
    for (body, code, words) in [
        (b"no sound at all".to_vec(), 422, "no WAV or FLAC"),
        (wav[..wav.len() / 2].to_vec(), 422, "broken after"),
        (vec![0; 21_000_000], 413, "20 MB"),
        (fogon_recording::wav_24_bit(&[0.1; 2_000]), 422, "give 1 to 60 s"),
    ] {
        let (status, _, answer) = put(body);
        assert_eq!(status, code);
        assert!(String::from_utf8(answer).unwrap().contains(words));
    }
    assert!(server.get("/api/v1/voice").json()["seconds"].is_null());
    let own: Vec<f32> = fogon_recording::dry_voice()[..96_000].to_vec();
    assert_eq!(put(fogon_recording::wav_24_bit(&own)).0, 200);
    assert_eq!(server.get("/api/v1/voice").json()["seconds"], 2.0);
    let (_, _, mine) = hear(&json!({ "plan": plan, "own_voice": true }));
    assert!(fogon_recording::read(&mine).unwrap().seconds() < 6.0);
    // Silence is a recording, but nothing to hear.
    assert_eq!(put(fogon_recording::wav_24_bit(&[0.0; 96_000])).0, 200);
    assert_eq!(hear(&json!({ "plan": plan, "own_voice": true })).0, 409);
    assert_eq!(server.send("DELETE", "/api/v1/voice", &[], "").status, 204);
    assert!(server.get("/api/v1/voice").json()["seconds"].is_null());
}
