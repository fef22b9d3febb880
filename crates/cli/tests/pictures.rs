//! Pictures and scenes on the command line: files of the format asked for, the same again, refusals in words.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use std::path::{Path, PathBuf};
use std::process::{Command, Output};

use serde_json::{Value, json};

const PLAN: &str = "docs/examples/box-room.fogon.json";

fn fogon(arguments: &[&str]) -> Output {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    Command::new(env!("CARGO_BIN_EXE_fogon")).args(arguments).current_dir(root).output().unwrap()
}

/// Takes a picture, and gives what is said of it and the file.
fn taken(folder: &Path, name: &str, more: &[&str]) -> (Value, Vec<u8>) {
    let file = folder.join(name).display().to_string();
    let output = fogon(&[&["render", PLAN, "--out", &file], more].concat());
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
    let said = String::from_utf8(output.stdout).unwrap();
    assert_eq!(said.lines().count(), 1, "one line: {said}");
    (serde_json::from_str(&said).unwrap(), std::fs::read(&file).unwrap())
}

/// Width and height of a PNG, and its text.
fn png(bytes: &[u8]) -> ([u32; 2], String) {
    assert_eq!(&bytes[..8], b"\x89PNG\r\n\x1a\n");
    let number = |at: usize| u32::from_be_bytes(bytes[at..at + 4].try_into().unwrap());
    ([number(16), number(20)], String::from_utf8_lossy(bytes).into_owned())
}

/// Numbers of a PFM, from its lower left.
fn pfm(bytes: &[u8], [width, height]: [usize; 2]) -> Vec<f32> {
    let header = format!("PF\n{width} {height}\n-1.0\n");
    let numbers = bytes
        .strip_prefix(header.as_bytes())
        .unwrap_or_else(|| panic!("{:?}", String::from_utf8_lossy(&bytes[..header.len()])));
    assert_eq!(numbers.len(), 12 * width * height);
    numbers.chunks(4).map(|four| f32::from_le_bytes(four.try_into().unwrap())).collect()
}

#[test]
fn pictures_are_files_of_the_format_asked_for() {
    let folder = tempfile::tempdir().unwrap();
    let folder = folder.path();
    let (said, bytes) = taken(folder, "a.png", &["--width", "96", "--samples", "2"]);
    assert_eq!((&said["width"], &said["height"], &said["samples"]), (&json!(96), &json!(54), &json!(2)));
    for time in ["wall_s", "cpu_s", "staged_s"] {
        assert!(said[time].as_f64().unwrap() > 0.0, "{time}");
    }
    assert!(said["time_includes"].as_str().unwrap().contains("every sample"));
    let (size, text) = png(&bytes);
    assert_eq!(size, [96, 54]);
    assert!(text.contains("f/2.8") && text.contains("ISO 100"), "its settings are written into it");
    // The height leads where it alone is told.
    let (_, tall) = taken(folder, "b.png", &["--height", "36", "--samples", "1"]);
    assert_eq!(png(&tall).0, [64, 36]);
    // Linear light, and the camera's signal: one is the other times the exposure.
    let small = ["--width", "48", "--samples", "4"];
    let (_, light) = taken(folder, "light.pfm", &[&small[..], &["--linear"]].concat());
    let (_, signal) = taken(folder, "signal.pfm", &small);
    let (light, signal) = (pfm(&light, [48, 27]), pfm(&signal, [48, 27]));
    let green = |numbers: &[f32]| numbers.iter().skip(1).step_by(3).sum::<f32>() / (numbers.len() / 3) as f32;
    assert!((5.0..500.0).contains(&green(&light)), "a lit room: {} cd/m2", green(&light));
    assert!((0.01..1.0).contains(&green(&signal)), "exposed: {}", green(&signal));
}

/// The same input and seed: the same bytes, whatever the threads; another seed or no smoothing: others.
#[test]
fn the_same_seed_gives_the_same_file() {
    let folder = tempfile::tempdir().unwrap();
    let with = |name: &str, more: &[&str]| {
        taken(folder.path(), name, &[&["--width", "64", "--samples", "2"], more].concat()).1
    };
    let one = with("1.pfm", &["--threads", "1"]);
    assert!(one == with("2.pfm", &["--threads", "2"]));
    assert!(one == with("3.pfm", &[]));
    assert!(one != with("4.pfm", &["--seed", "7"]));
    assert!(one != with("5.pfm", &["--no-denoise"]));
    // Without vector instructions: the same within rounding.
    let raw = |name: &str, more: &[&str]| pfm(&with(name, &[&["--no-denoise"], more].concat()), [64, 36]);
    let (fast, plain) = (raw("6.pfm", &[]), raw("7.pfm", &["--plain"]));
    let worst = fast.iter().zip(&plain).map(|(a, b)| (a - b).abs() / b.abs().max(1e-4)).fold(0.0, f32::max);
    assert!(worst < 1e-3, "{worst}");
}

#[test]
fn what_cannot_be_a_picture_is_refused_in_words() {
    let folder = tempfile::tempdir().unwrap();
    let file = |name: &str| folder.path().join(name).display().to_string();
    let (good, bad) = (file("x.png"), file("x.jpg"));
    for (out, more, words) in [
        (&good, &["--width", "100000"][..], "give a whole number from 1 to 8192"),
        (&good, &["--width", "0"], "from 1 to 8192"),
        (&good, &["--height", "8193"], "height: 8193 is not accepted"),
        (&good, &["--width", "8192"], "width x height"),
        (&good, &["--width", "640", "--height", "640"], "give 360 at a width of 640"),
        (&good, &["--samples", "4097"], "samples"),
        (&good, &["--samples", "0"], "samples"),
        (&good, &["--linear"], ".pfm"),
        (&bad, &[], "ending in .png or .pfm"),
    ] {
        let output = fogon(&[&["render", PLAN, "--out", out], more].concat());
        let complaint = String::from_utf8(output.stderr).unwrap();
        assert_eq!(output.status.code(), Some(2), "{more:?}: {complaint}");
        assert!(complaint.contains(words), "{more:?}: {complaint}");
        assert!(!Path::new(out.as_str()).exists(), "{more:?} leaves no file");
    }
    let nowhere = fogon(&["render", PLAN, "--out", &file("none/x.png"), "--width", "32", "--samples", "1"]);
    assert!(!nowhere.status.success() && !nowhere.stderr.is_empty());
}

/// A scene for another renderer: shapes as PLY, the rest as JSON with the field and opening that the camera has.
#[test]
fn a_scene_is_exported_whole() {
    let folder = tempfile::tempdir().unwrap();
    let scene = folder.path().join("scene");
    let output = fogon(&["export", PLAN, "--scene", &scene.display().to_string()]);
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
    let text = std::fs::read_to_string(scene.join("scene.json")).unwrap();
    let told: Value = serde_json::from_str(&text).unwrap();
    let plan: Value =
        serde_json::from_str(include_str!("../../../docs/examples/box-room.fogon.json")).unwrap();
    let camera = &plan["layout"]["camera"];
    let [focal_mm, number] = ["focal_length_mm", "f_number"].map(|field| camera[field].as_f64().unwrap());
    let focus_mm = 1000.0 * camera["focus_distance_m"].as_f64().unwrap();
    // The image forms behind the focal length: v = f d / (d - f), and the opening f / N stays.
    let image_mm = focal_mm * focus_mm / (focus_mm - focal_mm);
    let is_near = |found: &Value, wanted: f64| (found.as_f64().unwrap() / wanted - 1.0).abs() < 1e-3;
    assert!(is_near(&told["camera"]["focal_mm"], image_mm), "{}", told["camera"]);
    assert!(is_near(&told["camera"]["f_number"], number * image_mm / focal_mm), "{}", told["camera"]);
    let files: Vec<PathBuf> = std::fs::read_dir(&scene).unwrap().map(|entry| entry.unwrap().path()).collect();
    let ply = files.iter().filter(|file| file.extension().is_some_and(|ending| ending == "ply"));
    let mut faces = 0;
    for file in ply {
        let bytes = std::fs::read(file).unwrap();
        let head = String::from_utf8_lossy(&bytes[..bytes.len().min(600)]).into_owned();
        assert!(head.starts_with("ply\nformat binary_little_endian 1.0\n"), "{head}");
        let count = head.lines().find_map(|line| line.strip_prefix("element face ")).unwrap();
        faces += count.parse::<usize>().unwrap();
        let name = file.file_name().unwrap().to_str().unwrap();
        assert!(text.contains(name), "{name} is in the scene");
    }
    assert!(faces > 20_000, "{faces} faces");
}
