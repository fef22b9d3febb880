//! `fogon take` and `fogon run` as people use them: recordings with known truth, two files fitted together, files that are no use.
//!
//! The recordings in `takes` were made with speech synthesis, simulated rooms and numpy; beside what was put in, truth.json has what
//! numpy and scipy, pyloudnorm and ffmpeg measure in them, and the tolerances.

#![allow(clippy::unwrap_used)]

use std::path::{Path, PathBuf};
use std::process::{Command, Output};

use serde_json::Value;

fn takes() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/takes")
}

fn plan() -> String {
    Path::new(env!("CARGO_MANIFEST_DIR"))
        .join("../../docs/examples/box-room.fogon.json")
        .display()
        .to_string()
}

fn fogon(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_fogon")).args(arguments).output().unwrap()
}

fn measured(arguments: &[&str]) -> Value {
    let output = fogon(&[&["take"], arguments].concat());
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
    serde_json::from_slice(&output.stdout).unwrap()
}

fn file(name: &str) -> String {
    takes().join(format!("{name}.flac")).display().to_string()
}

#[track_caller]
fn near(got: &Value, want: &Value, tolerance: f64, what: &str) {
    match (got.as_f64(), want.as_f64()) {
        (Some(got), Some(want)) => assert!((got - want).abs() <= tolerance, "{what}: got {got}, want {want}"),
        _ => assert_eq!(got, want, "{what}"),
    }
}

#[test]
fn every_recording_gives_its_truth() {
    let truth: Value = serde_json::from_slice(&std::fs::read(takes().join("truth.json")).unwrap()).unwrap();
    let within = |name: &str| truth["tolerances"][name].as_f64().unwrap();
    for (name, want) in truth["measured"].as_object().unwrap() {
        if name == "06_sync_pair" {
            continue;
        }
        let got = measured(&[&file(name), "--plan", &plan()]);
        near(&got["duration_s"], &want["duration_s"], 1e-6, name);
        near(&got["integrated_lufs"], &want["integrated_lufs"], within("lufs"), name);
        near(&got["imbalance_db"], &want["imbalance_db"], within("rms_db"), name);
        for (got, want) in
            got["per_channel"].as_array().unwrap().iter().zip(want["per_channel"].as_array().unwrap())
        {
            let field = |field: &str, other: &str, tolerance: f64| {
                near(&got[field], &want[other], tolerance, &format!("{name} {field}"));
            };
            field("sample_peak_dbfs", "sample_peak_dbfs", within("sample_peak_db"));
            field("true_peak_dbtp", "true_peak_dbtp_annex2", within("true_peak_annex2_db"));
            field("rms_dbfs", "rms_dbfs", within("rms_db"));
            field("dc_offset", "dc_offset", within("dc"));
            field("noise_dbfs_a", "noise_dbfs_a", within("noise_and_speech_dba"));
            field("speech_dbfs_a", "speech_dbfs_a", within("noise_and_speech_dba"));
            field("snr_db_a", "snr_db_a", within("snr_db"));
            field("snr_reliable", "snr_reliable", 0.0);
            for run in ["runs_ge3", "longest_run", "first_run_s"] {
                near(&got["clipping"][run], &want["clipping"][run], 1e-5, &format!("{name} {run}"));
            }
            let dropouts = want["dropouts_s"].as_array().unwrap();
            assert_eq!(got["dropouts_s"].as_array().unwrap().len(), dropouts.len(), "{name}");
            for (index, want) in dropouts.iter().enumerate() {
                for part in 0..2 {
                    near(&got["dropouts_s"][index][part], &want[part], within("dropout_s"), name);
                }
            }
            assert_eq!(got["hum"]["present"], want["hum"]["present"], "{name}");
            if want["hum"]["present"] == true {
                assert_eq!(got["hum"]["mains_hz"], want["hum"]["mains_hz"]);
                near(&got["hum"]["total_dbfs"], &want["hum"]["total_dbfs"], within("hum_line_db"), name);
                for line in 0..5 {
                    let (got, want) = (&got["hum"]["lines_dbfs"][line], &want["hum"]["lines_dbfs"][line]);
                    near(got, want, within("hum_line_db"), &format!("{name} line {line}"));
                }
            }
        }
        if name == "05_clap_room" {
            near(
                &got["clap"]["onset_s"],
                &truth["constructed"][name]["clap_onset_s"],
                within("clap_onset_s"),
                name,
            );
            for hz in ["500", "1000", "2000", "4000"] {
                let built = truth["constructed"][name]["rir_octave_t30_s"][hz].as_f64().unwrap();
                let band = &got["rt"]["bands"][hz];
                assert_eq!(band["valid"], true);
                near(&band["t30_s"], &Value::from(built), within("rt_octave_rel") * built, hz);
            }
            let mid = got["rt"]["mid_s"].as_f64().unwrap();
            let built = truth["constructed"][name]["rir_t30_s"].as_f64().unwrap();
            assert!((mid / built - 1.0).abs() < within("rt_rel"), "{mid}");
        } else if name.starts_with("0") && !name.starts_with("06") {
            assert!(got["clap"].is_null() && got["rt"].is_null(), "{name}");
        }
        let verdicts = got["verdicts"].as_array().unwrap();
        assert!(
            verdicts
                .iter()
                .all(|v| v["measure"].is_string() && v["standing"].is_string() && v["sentence"].is_string())
        );
        let poor =
            |measure: &str| verdicts.iter().any(|v| v["measure"] == measure && v["standing"] == "poor");
        assert_eq!(poor("hum"), name == "02_hum50");
        assert_eq!(poor("clipping"), name == "03_clipped");
        assert_eq!(poor("channels"), name == "04_dead_right");
        assert_eq!(poor("dropouts"), name == "07_dropout_dc_44k1");
    }
}

#[test]
fn a_recorder_is_fitted_to_the_camera() {
    let truth: Value = serde_json::from_slice(&std::fs::read(takes().join("truth.json")).unwrap()).unwrap();
    let built = &truth["constructed"]["06_sync_pair"];
    let (recorder, camera) = (file("06a_recorder"), file("06b_camera"));
    let folder = tempfile::tempdir().unwrap();
    let fitted = folder.path().join("fitted.wav").display().to_string();
    let sync = measured(&[&recorder, "--second", &camera, "--fit", &fitted])["sync"].clone();
    near(&sync["offset_s"], &built["offset_s"], 0.0005, "offset");
    near(&sync["drift_ppm"], &built["drift_ppm"], 60.0, "drift");
    assert!((20.0..120.0).contains(&sync["drift_sigma_ppm"].as_f64().unwrap()));
    let again = measured(&[&fitted, "--second", &camera])["sync"].clone();
    assert!(again["offset_s"].as_f64().unwrap().abs() < 0.0005, "{again}");
    assert!(again["drift_ppm"].as_f64().unwrap().abs() < 60.0, "{again}");
}

#[test]
fn what_is_no_take_is_refused_in_words() {
    let folder = tempfile::tempdir().unwrap();
    let path = |name: &str, bytes: &[u8]| {
        let path = folder.path().join(name);
        std::fs::write(&path, bytes).unwrap();
        path.display().to_string()
    };
    let good = std::fs::read(file("01_clean_m23lufs")).unwrap();
    let large = folder.path().join("large.wav");
    // Three hundred megabytes that lie nowhere: no more than fifty are read.
    std::fs::File::create(&large).unwrap().set_len(300_000_000).unwrap();
    for (file, words) in [
        (path("empty.wav", b""), "no WAV or FLAC"),
        (path("words.wav", b"This is no sound at all."), "no WAV or FLAC"),
        (path("half.flac", &good[..good.len() / 2]), "broken after"),
        (large.display().to_string(), "give at most 50000000 bytes"),
    ] {
        let output = fogon(&["take", &file]);
        let complaint = String::from_utf8_lossy(&output.stderr);
        assert_eq!(output.status.code(), Some(2), "{file}: {complaint}");
        assert!(complaint.contains(words) && complaint.trim().lines().count() == 1, "{complaint}");
        assert!(output.stdout.is_empty());
    }
    // Two files that have nothing in common.
    let output = fogon(&["take", &file("01_clean_m23lufs"), "--second", &file("05_clap_room")]);
    assert!(String::from_utf8_lossy(&output.stderr).contains("nothing in common"));
}

#[test]
fn a_run_sheet_is_printed_for_people_and_for_tables() {
    let said = |format: &str| {
        let output = fogon(&["run", &plan(), "--format", format]);
        assert!(output.status.success());
        String::from_utf8(output.stdout).unwrap()
    };
    let run: Value = serde_json::from_str(&said("json")).unwrap();
    let shots = run["shots"].as_array().unwrap().len();
    assert!(shots >= 2 && run["best"]["shots"].as_array().unwrap().len() == shots);
    let text = said("text");
    assert!(text.contains("Set-up 1:") && text.contains("[ ] You, talking to the lens"), "{text}");
    let table = said("csv");
    assert!(
        table.starts_with("order,number,shot,what,kind,size,set_up") && table.lines().count() == shots + 1
    );
}
