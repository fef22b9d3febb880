//! Changes as RFC 6902 patches: what `change` writes, `apply` does; nothing lands on a plan it was not made for.

use fogon_core::plan::{Id, PatchStep, Plan, Point3, apply, change};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{demo, plain, read};

/// The demo with some of its layout changed by hand.
fn shuffled(
    iso: f64,
    seat: (f64, f64),
    drop_back: bool,
    drop_microphone: bool,
    dim: f64,
    move_desk: bool,
) -> Plan {
    let mut plan = demo();
    plan.layout.camera.iso = iso;
    plan.layout.seat.position_m.0 = [seat.0, seat.1];
    if drop_back {
        plan.layout.lights.remove("back");
    }
    if drop_microphone {
        plan.layout.microphone = None;
    }
    if let Some(key) = plan.layout.lights.get_mut("key") {
        key.dim = dim;
    }
    if let Some(desk) = plan.layout.furniture.get_mut("desk").filter(|_| move_desk) {
        desk.position_m = Point3([1.0, 1.0, 0.0]);
    }
    plan
}

fn any_plan() -> impl Strategy<Value = Plan> {
    (100.0f64..6400.0, (0.5f64..2.9, 0.5f64..2.4), any::<bool>(), any::<bool>(), 0.01f64..1.0, any::<bool>())
        .prop_map(|(iso, seat, back, microphone, dim, desk)| {
            shuffled(iso.round(), seat, back, microphone, dim, desk)
        })
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 40, ..ProptestConfig::default() })]

    /// There and back again, all of it under /layout/, tests before changes, and only on the plan it was made from.
    #[test]
    fn a_change_does_what_it_says(a in any_plan(), b in any_plan()) {
        let patch = change(&a, &b);
        prop_assert_eq!(&apply(&a, &patch).unwrap(), &b);
        prop_assert_eq!(&apply(&b, &change(&b, &a)).unwrap(), &a);
        prop_assert!(patch.iter().all(|step| step.path.starts_with("/layout/")));
        let changes_from = patch.iter().position(|s| s.op != "test").unwrap_or(patch.len());
        prop_assert!(patch[changes_from..].iter().all(|s| s.op != "test"));
        // What is replaced or removed was tested first.
        for step in patch.iter().filter(|s| s.op == "replace" || s.op == "remove") {
            prop_assert!(patch.iter().any(|t| t.op == "test" && t.path == step.path), "{} untested", step.path);
        }
        if a.layout.camera.iso != b.layout.camera.iso {
            prop_assert!(apply(&b, &patch).is_err(), "made for the other plan");
        }
        prop_assert!(change(&a, &a).is_empty());
    }
}

#[test]
fn a_patch_reaches_nothing_but_the_layout() {
    let plan = demo();
    let step =
        |op: &str, path: &str, value: Option<Value>| PatchStep { op: op.into(), path: path.into(), value };
    for bad in [
        step("replace", "/name", Some(json!("x"))),
        step("replace", "/brief/money/budget", Some(json!(1e6))),
        step("remove", "/brief/room/openings/door", None),
        step("replace", "/layout", Some(json!({}))),
        step("add", "/layouts/x", Some(json!(1))),
    ] {
        let refused = apply(&plan, std::slice::from_ref(&bad)).unwrap_err();
        assert_eq!(refused.0[0].code.as_str(), "patch_refused", "{}", bad.path);
    }
    // A result that is no plan is refused as a document would be.
    for (path, value, code) in [
        ("/layout/camera/iso", json!(-5), "not_positive"),
        ("/layout/camera/colour", json!("red"), "unknown_field"),
        ("/layout/camera/body", json!("throne"), "unknown_id"),
        ("/layout/lights/key/dim", json!("half"), "wrong_type"),
    ] {
        let refused = apply(&plan, &[step("add", path, Some(value))]).unwrap_err();
        assert_eq!(refused.0[0].code.as_str(), code, "{path}");
    }
    for unheard in ["move", "copy", "fly"] {
        assert!(apply(&plan, &[step(unheard, "/layout/camera/iso", Some(json!(100)))]).is_err(), "{unheard}");
    }
    assert_eq!(apply(&plan, &[]).unwrap(), plan);
}

/// A light added to a layout that has none, and taken out again.
#[test]
fn things_are_added_and_removed_whole() {
    let lit = read(&plain());
    let mut dark = lit.clone();
    dark.layout.lights.clear();
    let patch = change(&dark, &lit);
    assert!(patch.iter().any(|s| s.op == "add" && s.path == "/layout/lights/key"));
    assert_eq!(apply(&dark, &patch).unwrap(), lit);
    let out = change(&lit, &dark);
    assert_eq!(out.iter().map(|s| s.op.as_str()).collect::<Vec<_>>(), ["test", "remove"]);
    assert!(!apply(&lit, &out).unwrap().layout.lights.contains_key(&Id::from("key")));
}
