//! The binary as a person and a script use it: files in, files out, exit codes.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use std::io::Write;
use std::path::{Path, PathBuf};
use std::process::{Command, Output, Stdio};

use fogon_testkit::{box_room, set};
use serde_json::{Value, json};

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..").canonicalize().unwrap()
}

/// Runs `fogon` in the project's root with some standard input.
fn fogon(arguments: &[&str], input: &str) -> Output {
    let mut child = Command::new(env!("CARGO_BIN_EXE_fogon"))
        .args(arguments)
        .current_dir(root())
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    // A command that refuses its arguments does not wait for input.
    let _ = child.stdin.take().unwrap().write_all(input.as_bytes());
    child.wait_with_output().unwrap()
}

fn said(output: &Output) -> String {
    String::from_utf8(output.stdout.clone()).unwrap()
}

fn complaint(output: &Output) -> String {
    String::from_utf8(output.stderr.clone()).unwrap()
}

fn code(output: &Output) -> i32 {
    output.status.code().unwrap()
}

#[test]
fn from_a_brief_to_a_printed_card() {
    let folder = tempfile::tempdir().unwrap();
    let file = |name: &str| folder.path().join(name).display().to_string();
    let plan = file("corner.fogon.json");
    let found = fogon(&["propose", "docs/examples/box-room.brief.json", "--plan", &plan], "");
    assert_eq!(code(&found), 0, "{}", complaint(&found));
    let found: Value = serde_json::from_str(&said(&found)).unwrap();
    assert!(found["proposals"][0]["reason"].as_str().unwrap().starts_with("You face "));
    let judged = fogon(&["evaluate", &plan, "--strict"], "");
    assert_eq!(code(&judged), 0);
    let judged: Value = serde_json::from_str(&said(&judged)).unwrap();
    assert_eq!(judged["verdict"]["ready"], found["proposals"][0]["ready"]);
    let words = said(&fogon(&["evaluate", &plan, "--format", "text"], ""));
    assert!(words.contains("Mouth to microphone") && words.contains("K Key"), "{words}");

    for (name, paper) in [("a4.svg", "a4"), ("letter.svg", "letter"), ("card.html", "a4"), ("card.csv", "a4")]
    {
        let card = fogon(&["card", &plan, "--out", &file(name), "--paper", paper], "");
        assert_eq!(code(&card), 0, "{name}: {}", complaint(&card));
    }
    let svg = std::fs::read_to_string(file("letter.svg")).unwrap();
    assert!(svg.contains("width=\"215.9mm\"") && svg.contains("Plan and side view, 1 : "), "{}", &svg[..400]);
    to_scale(&svg, &serde_json::from_str(&std::fs::read_to_string(&plan).unwrap()).unwrap());
    let csv = std::fs::read_to_string(file("card.csv")).unwrap();
    let seat = csv.lines().find(|l| l.contains("Seat, plumb")).unwrap();
    let at = &found["proposals"][0]["plan"]["layout"]["seat"]["position_m"];
    assert!(seat.contains(&format!("{:.3}", at[0].as_f64().unwrap())), "{seat} against {at}");
}

/// A metre of the room is as long on paper as the stated scale says: the floor's outline is measured.
fn to_scale(svg: &str, plan: &Value) {
    let n: f64 = svg.split("1 : ").nth(1).unwrap().split('<').next().unwrap().parse().unwrap();
    let points: Vec<(f64, f64)> = svg
        .split("<polygon points=\"")
        .nth(1)
        .unwrap()
        .split('"')
        .next()
        .unwrap()
        .split(' ')
        .map(|p| p.split_once(',').map(|(x, y)| (x.parse().unwrap(), y.parse().unwrap())).unwrap())
        .collect();
    let size = |pick: fn(&(f64, f64)) -> f64| {
        points.iter().map(pick).fold(f64::NEG_INFINITY, f64::max)
            - points.iter().map(pick).fold(f64::INFINITY, f64::min)
    };
    let (mut drawn, corner) = ([size(|p| p.0), size(|p| p.1)], &plan["brief"]["room"]["floor_m"][2]);
    let mut wanted = [0, 1].map(|i| corner[i].as_f64().unwrap() * 1000.0 / n);
    drawn.sort_by(f64::total_cmp);
    wanted.sort_by(f64::total_cmp);
    assert!(drawn.iter().zip(wanted).all(|(d, w)| (d - w).abs() < 0.05), "{drawn:?} mm for {wanted:?} mm");
}

#[test]
fn exit_codes_say_what_happened() {
    let mut bare = box_room();
    set(&mut bare, "/brief/gear", json!({}));
    let bare = bare.to_string();
    let nothing = fogon(&["propose", "-"], &bare);
    assert_eq!(code(&nothing), 0);
    let nothing: Value = serde_json::from_str(&said(&nothing)).unwrap();
    assert_eq!((&nothing["proposals"], nothing["obstacles"].as_array().unwrap().len()), (&json!([]), 2));
    assert_eq!(code(&fogon(&["propose", "-", "--strict"], &bare)), 1);

    let mut plan: Value = serde_json::from_str(
        &std::fs::read_to_string(root().join("docs/examples/box-room.fogon.json")).unwrap(),
    )
    .unwrap();
    // No focal length of this lens: a rule is broken.
    set(&mut plan, "/layout/camera/focal_length_mm", json!(300));
    let silent = plan.to_string();
    assert_eq!(code(&fogon(&["evaluate", "-"], &silent)), 0);
    assert_eq!(code(&fogon(&["evaluate", "-", "--strict"], &silent)), 1);

    set(&mut plan, "/brief/room/height_m", json!(-2.4));
    let refused = fogon(&["evaluate", "-"], &plan.to_string());
    assert_eq!((code(&refused), said(&refused).as_str()), (2, ""));
    let line = complaint(&refused);
    assert!(line.starts_with("brief.room.height_m: -2.4 is not accepted, give 1.8 to 8"), "{line}");
    for arguments in [
        &["evaluate", "-", "--format", "pdf"][..],
        &["card", "docs/examples/box-room.fogon.json", "--out", "card.docx"],
        &["levitate"],
    ] {
        assert_eq!(code(&fogon(arguments, &silent)), 2, "{arguments:?}");
    }
    for arguments in [
        &["propose", "docs/examples/missing.json"][..],
        &["card", "docs/examples/box-room.fogon.json", "--out", "/nonexistent/card.svg"],
        &["serve", "--database", "/nonexistent/corners.sqlite3", "--port", "0"],
    ] {
        let output = fogon(arguments, "");
        assert_eq!(code(&output), 3, "{arguments:?}: {}", complaint(&output));
        assert_eq!(complaint(&output).lines().count(), 1);
    }
}

/// The contract of `calc`: one object in, one out; a refusal is exit code 2, one line, and nothing else.
#[test]
fn calc_answers_or_refuses_in_one_line() {
    let list: Value = serde_json::from_str(&said(&fogon(&["calc", "--list"], ""))).unwrap();
    assert!(list.as_array().unwrap().iter().all(|c| {
        c["fields"].as_array().is_some_and(|f| !f.is_empty())
            && c["formula"].is_string()
            && c["source"].is_string()
    }));
    let mark =
        fogon(&["calc", "tape-mark"], r#"{"room_width_m":3.4,"room_depth_m":2.9,"x_m":1.2,"y_m":1.4}"#);
    let mark: Value = serde_json::from_str(&said(&mark)).unwrap();
    // 1.8439, 2.6077, 0.01526: worked by hand from plane geometry.
    for (field, want) in
        [("to_back_left_corner_m", 1.8439), ("to_back_right_corner_m", 2.6077), ("worst_error_m", 0.01526)]
    {
        assert!((mark[field].as_f64().unwrap() - want).abs() < 5e-5, "{field}: {mark}");
    }
    for (name, input) in [
        ("tape-mark", ""),
        ("tape-mark", "{\"room_width_m\":NaN}"),
        ("frame-size", "{\"sensor_width_mm\":36,\"sensor_width_mm\":36}"),
        ("frame-size", "[]"),
        ("nonsense", "{}"),
    ] {
        let refused = fogon(&["calc", name], input);
        assert_eq!((code(&refused), said(&refused).as_str()), (2, ""), "{name} {input}");
        let line = complaint(&refused);
        assert!(line.lines().count() == 1 && line.contains(" is not accepted, give "), "{line}");
    }
}

/// The published schemas are those that documents are read with.
#[test]
fn the_published_schemas_are_current() {
    for which in ["plan", "brief"] {
        let printed = said(&fogon(&["schema", which], ""));
        let path = root().join(format!("docs/schema/{which}.schema.json"));
        assert!(std::fs::read_to_string(path).unwrap() == printed, "run: cargo xtask types");
    }
}

/// Files as other programs write them: a byte order mark, Windows line ends, tabs; and as nobody should.
#[test]
fn files_from_elsewhere_are_read_or_refused_in_words() {
    let text = std::fs::read_to_string(root().join("docs/examples/box-room.fogon.json")).unwrap();
    for good in [format!("\u{feff}{text}"), text.replace('\n', "\r\n"), text.replace("  ", "\t")] {
        assert_eq!(code(&fogon(&["evaluate", "-"], &good)), 0);
    }
    for (bad, words) in [
        ("[".repeat(100_000), "32 levels deep"),
        (text.replacen("\"name\"", "\"name\": \"x\", \"name\"", 1), "stands twice"),
        (text.replacen("2.45", "1e999", 1), "document"),
        (text.replacen("\"fogon.plan\"", "\"fogon.brief\"", 1), "format"),
        ("x".repeat(3_000_000), "at most 1000000 bytes"),
        (String::new(), "document"),
    ] {
        let output = fogon(&["evaluate", "-"], &bad);
        assert_eq!((code(&output), said(&output).as_str()), (2, ""), "{words}");
        let line = complaint(&output);
        assert!(line.contains(words) && line.len() < 4000, "{words}: {line:.300}");
    }
}

/// Help and version are answers; every command explains itself.
#[test]
fn help_is_an_answer() {
    for arguments in [
        &["--help"][..],
        &["--version"],
        &["propose", "--help"],
        &["evaluate", "--help"],
        &["calc", "--help"],
        &["card", "--help"],
        &["serve", "--help"],
        &["demo", "--help"],
        &["schema", "--help"],
    ] {
        let output = fogon(arguments, "");
        assert_eq!(code(&output), 0, "{arguments:?}");
        assert!(said(&output).len() > 10 && complaint(&output).is_empty(), "{arguments:?}");
    }
    let openapi: Value = serde_json::from_str(&said(&fogon(&["schema", "openapi"], ""))).unwrap();
    assert!(openapi["paths"]["/api/v1/assess"]["post"].is_object());
}

/// A card replaces the file it is written to, whole.
#[test]
fn a_card_replaces_its_file_whole() {
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("card.csv");
    std::fs::write(&out, "an earlier file").unwrap();
    let plan = "docs/examples/box-room.fogon.json";
    assert_eq!(code(&fogon(&["card", plan, "--out", &out.display().to_string()], "")), 0);
    let first = std::fs::read_to_string(&out).unwrap();
    assert!(first.starts_with("kind,number,letter,what,") && !first.contains("an earlier file"));
    // The same plan gives the same card, to the letter; nothing else is left beside it.
    assert_eq!(code(&fogon(&["card", plan, "--out", &out.display().to_string()], "")), 0);
    assert_eq!(std::fs::read_to_string(&out).unwrap(), first);
    assert_eq!(std::fs::read_dir(folder.path()).unwrap().count(), 1);
}

/// The assessment as text in feet and inches: no line holds a metric length or mass; what lenses are told in stays.
#[test]
fn text_is_in_the_corners_units() {
    let mut plan: Value = serde_json::from_str(
        &std::fs::read_to_string(root().join("docs/examples/box-room.fogon.json")).unwrap(),
    )
    .unwrap();
    let metric = said(&fogon(&["evaluate", "-", "--format", "text"], &plan.to_string()));
    assert!(metric.contains(" m good") && metric.contains(" kg"), "{metric}");
    set(&mut plan, "/brief/units", json!("imperial"));
    let imperial = said(&fogon(&["evaluate", "-", "--format", "text"], &plan.to_string()));
    let is_metric = |line: &&str| {
        let words: Vec<&str> = line.split_whitespace().collect();
        words.windows(2).any(|pair| {
            let number = pair[0].trim_start_matches('\u{2212}').parse::<f64>().is_ok();
            let unit = pair[1].trim_end_matches(['.', ',', ';', ':']);
            number
                && (["m", "cm", "kg", "m\u{b2}"].contains(&unit)
                    || unit == "mm" && !line.contains("focal") && !line.contains("lens"))
        })
    };
    let wrong: Vec<&str> = imperial.lines().filter(is_metric).collect();
    assert!(wrong.is_empty(), "{wrong:#?}");
    assert!(imperial.contains(" lb") && imperial.contains("' "), "{imperial}");
    assert_eq!(metric.lines().count(), imperial.lines().count());
}

/// What a microphone lacks is said on the command line as on the page, and with `--strict` it counts.
#[test]
fn a_missing_input_is_a_stop_on_the_command_line() {
    let mut plan: Value = serde_json::from_str(
        &std::fs::read_to_string(root().join("docs/examples/box-room.fogon.json")).unwrap(),
    )
    .unwrap();
    set(&mut plan, "/brief/gear/boom-microphone/needs", json!(["microphone", "xlr-input"]));
    let lacking = fogon(&["evaluate", "-", "--strict", "--format", "text"], &plan.to_string());
    assert_eq!(code(&lacking), 1);
    let words = said(&lacking);
    let stop = words.lines().find(|line| line.starts_with("STOP")).unwrap_or_else(|| panic!("{words}"));
    assert!(stop.contains("needs an XLR input, and nothing at hand has one"), "{stop}");
    let recorder =
        json!({ "kind": "recorder", "label": "Recorder", "mass_kg": 0.3, "offers": ["xlr-input"] });
    set(&mut plan, "/brief/gear/recorder", recorder);
    assert_eq!(code(&fogon(&["evaluate", "-", "--strict"], &plan.to_string())), 0);
    // It is on every form of the card.
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("plan.json");
    std::fs::write(&file, plan.to_string()).unwrap();
    for name in ["card.html", "card.svg", "card.csv"] {
        let out = folder.path().join(name);
        assert_eq!(
            code(&fogon(&["card", &file.display().to_string(), "--out", &out.display().to_string()], "")),
            0
        );
        let text = std::fs::read_to_string(&out).unwrap();
        assert!(text.contains("Recorder"), "{name} tells no plug: {text:.600}");
    }
}

/// A place far outside the room is refused by its field; one just outside is judged.
#[test]
fn places_outside_the_room_are_told_or_refused() {
    let mut plan: Value = serde_json::from_str(
        &std::fs::read_to_string(root().join("docs/examples/box-room.fogon.json")).unwrap(),
    )
    .unwrap();
    set(&mut plan, "/layout/seat/position_m", json!([1.7, -0.02]));
    let near = fogon(&["evaluate", "-", "--strict", "--format", "text"], &plan.to_string());
    assert_eq!(code(&near), 1, "{}", complaint(&near));
    assert!(said(&near).contains("beyond the back wall"), "{}", said(&near));
    set(&mut plan, "/layout/seat/position_m", json!([1.7, -1.5]));
    let far = fogon(&["evaluate", "-"], &plan.to_string());
    assert_eq!((code(&far), said(&far).as_str()), (2, ""));
    let line = complaint(&far);
    assert!(
        line.starts_with("layout.seat.position_m: a place 1.50 m outside the room is not accepted"),
        "{line}"
    );
}

/// What to buy, from a plan or a brief, as JSON or as a list; a wrong catalogue is refused by line.
#[test]
fn buy_advises_within_the_sum() {
    let advice = fogon(&["buy", "docs/examples/hallway.brief.json", "--budget", "120"], "");
    let told: Value = serde_json::from_str(&said(&advice)).unwrap();
    assert!(told["spent"].as_f64().unwrap() <= 120.0 && told["score"].as_f64() >= told["score_now"].as_f64());
    assert!(told["plan"]["layout"]["seat"].is_object() && told["curve"].is_array());
    let folder = tempfile::tempdir().unwrap();
    let own = folder.path().join("own.csv");
    std::fs::write(&own, "kind,label,price\naccessory,Tape,4\nlamp,Torch,9\n").unwrap();
    let own = own.to_str().unwrap();
    let refused = fogon(&["buy", "docs/examples/hallway.brief.json", "--catalogue", own], "");
    assert_eq!(code(&refused), 2);
    assert!(complaint(&refused).starts_with("line 3, kind: lamp is not accepted"), "{}", complaint(&refused));
    std::fs::write(own, "kind,label,price\naccessory,Tape,4\n").unwrap();
    let nothing =
        ["buy", "docs/examples/hallway.brief.json", "--catalogue", own, "--only", "--list", "markdown"];
    assert!(said(&fogon(&nothing, "")).contains("Nothing to buy."));
    assert_eq!(code(&fogon(&["buy", "-", "--budget", "-3"], "")), 2);
    assert_eq!(code(&fogon(&["buy", "-", "--school", "opera"], "")), 2);
}

/// The hours of a plan on standard input, as JSON, table and calendar; what is wrong is named by its flag or field.
#[test]
fn good_hours_come_as_json_table_and_calendar() {
    let text = std::fs::read_to_string(root().join("docs/examples/box-room.fogon.json")).unwrap();
    let mut plan: Value = serde_json::from_str(&text).unwrap();
    let place = json!({ "latitude_deg": 40.0, "longitude_deg": -4.0, "time_zone": "Europe/Madrid" });
    set(&mut plan, "/brief/place", place);
    set(&mut plan, "/brief/room/north_deg", json!(30));
    set(&mut plan, "/brief/schools/window", json!("key"));
    let plan = plan.to_string();
    let ask = |from: &str, to: &str, format: &str, plan: &str| {
        fogon(&["hours", "-", "--from", from, "--to", to, "--format", format], plan)
    };
    let found = ask("2026-03-28", "2026-03-30", "json", &plan);
    assert_eq!(code(&found), 0, "{}", complaint(&found));
    let found: Value = serde_json::from_str(&said(&found)).unwrap();
    let all = found["intervals"].as_array().unwrap();
    // Local days: the clock goes forward on the 29th.
    assert_eq!(
        (&all[0]["start"], &all[all.len() - 1]["end"]),
        (&json!("2026-03-27T23:00:00Z"), &json!("2026-03-30T22:00:00Z"))
    );
    assert!(all.iter().any(|one| one["wanted"] == true) && all.iter().any(|one| one["light"] == false));
    assert!(
        said(&ask("2026-03-28", "2026-03-28", "csv", &plan)).starts_with("start,end,wanted,light,quiet\r\n")
    );
    assert!(said(&ask("2026-03-28", "2026-03-28", "ics", &plan)).starts_with("BEGIN:VCALENDAR"));
    let refused = |from: &str, to: &str, plan: &str| {
        let found = ask(from, to, "json", plan);
        assert_ne!(code(&found), 0);
        complaint(&found)
    };
    assert!(refused("2026-03-28", "2027-06-01", &plan).contains("no more than 400 days"));
    assert!(refused("2026-03-28", "2026-03-27", &plan).contains("2026-03-28 or later"));
    assert!(refused("2026-02-30", "2026-03-27", &plan).contains("a date from 1900 to 2100"));
    let lost = plan.replacen("\"time_zone\"", "\"zone\"", 1);
    assert!(refused("2026-03-28", "2026-03-28", &lost).contains("brief.place"));
}
