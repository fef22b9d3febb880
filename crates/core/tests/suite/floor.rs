//! The floor: marks that one tape finds, steps on the phone, and what a tape says of how it was laid.

use fogon_core::card::{
    Got, GotFrom, LaidIn, LaidMark, Mark, Places, Trust, Work, card, laid, laying, places,
};
use fogon_core::geometry::DVec2;
use fogon_core::plan::Plan;
use fogon_core::room::FromCorner;
use fogon_testkit::assert_close;
use serde_json::{Value, json};

use crate::support::{Dice, demo, plain_with, read};

const CORNERS: [(&str, [f64; 2]); 4] =
    [("a", [0.0, 0.0]), ("b", [4.0, 0.0]), ("c", [4.0, 5.0]), ("d", [0.0, 5.0])];

/// Normal with mean 0 and deviation 1 (Box and Muller).
fn normal(dice: &mut Dice) -> f64 {
    (-2.0 * (1.0 - dice.unit()).ln()).sqrt() * (std::f64::consts::TAU * dice.unit()).cos()
}

fn place(plan: &Plan, mark: &str) -> DVec2 {
    card(plan).unwrap().marks.iter().find(|own| own.id == mark).unwrap().at_m.into()
}

/// From a corner to where a mark really is.
fn from_corner(mark: &str, letter: &str, at: DVec2) -> Got {
    let corner = CORNERS.iter().find(|(own, _)| *own == letter).unwrap().1;
    Got { mark: mark.into(), from: GotFrom::Corner(letter.into()), length_m: at.distance(corner.into()) }
}

fn check(plan: &Plan, got: Vec<Got>) -> Places {
    places(&LaidIn { plan: plan.clone(), got }).unwrap()
}

fn mark<'a>(places: &'a Places, id: &str) -> &'a LaidMark {
    places.marks.iter().find(|mark| mark.id == id).unwrap()
}

/// Twenty floors of four marks by SciPy's least squares (reference/floor/places.py): the same places, the same bounds.
#[test]
fn places_agree_with_another_solver() {
    let plan = plain_with(&[]);
    let all: Vec<Value> = serde_json::from_str(include_str!("../fixtures/places.json")).unwrap();
    assert_eq!(all.len(), 20);
    for floor in all {
        let got: Vec<Got> = serde_json::from_value(floor["got"].clone()).unwrap();
        let told = check(&plan, got);
        for own in told.marks.iter().filter(|own| own.trust != Trust::Named) {
            let want = &floor["places"][&own.id];
            let at: [f64; 2] = serde_json::from_value(want["at_m"].clone()).unwrap();
            let found = own.at_m.unwrap();
            assert_close(found[0], at[0], 0.0, 1e-6, &own.words);
            assert_close(found[1], at[1], 0.0, 1e-6, &own.words);
            let bound = want["worst_sigma_m"].as_f64().unwrap() * (-2.0 * 0.05_f64.ln()).sqrt();
            assert_close(own.within_m.unwrap(), bound, 1e-4, 0.0, &own.id);
        }
    }
}

/// A tape that is off by 5 mm, a thousand times: the place is within its stated bound 95 times in 100.
#[test]
fn the_stated_bound_holds_as_often_as_it_says() {
    let plan = plain_with(&[]);
    let laid_at = ["seat", "camera", "key", "microphone"].map(|id| (id, place(&plan, id)));
    let mut dice = Dice(20);
    let mut within = [0; 2];
    for _ in 0..250 {
        for (letters, held) in ["ab", "abc"].into_iter().zip(&mut within) {
            let mut true_places = Vec::new();
            let mut got = Vec::new();
            for (id, planned) in laid_at {
                let at = planned + DVec2::new(normal(&mut dice), normal(&mut dice)) * 0.05;
                true_places.push(at);
                for letter in letters.chars() {
                    let mut one = from_corner(id, &letter.to_string(), at);
                    one.length_m += 0.005 * normal(&mut dice);
                    got.push(one);
                }
            }
            for (mark, at) in check(&plan, got).marks.iter().zip(true_places) {
                // Once in a thousand good distances are taken for a contradiction, and no bound is stated.
                let bound = mark.within_m.unwrap_or(f64::INFINITY);
                *held += usize::from(DVec2::from(mark.at_m.unwrap()).distance(at) <= bound);
            }
        }
    }
    assert!(within.iter().all(|held| *held >= 950), "{within:?}");
}

/// A misread tape, 20 cm off: two distances cannot know, three show it, four or a check diagonal name it.
#[test]
fn a_misread_tape_is_shown_by_three_and_named_by_four() {
    let plan = plain_with(&[]);
    let (key, camera) = (place(&plan, "key"), place(&plan, "camera"));
    let told = |mark: &str, at: DVec2, letters: &str| -> Vec<Got> {
        letters.chars().map(|letter| from_corner(mark, &letter.to_string(), at)).collect()
    };
    for wrong in 0..4 {
        for by in [0.2, -0.2] {
            let spoilt = |mut got: Vec<Got>| {
                let wrong = wrong % got.len();
                got[wrong].length_m += by;
                (got, wrong)
            };
            let (got, _) = spoilt(told("key", key, "ab"));
            let two = check(&plan, got);
            assert_eq!(mark(&two, "key").trust, Trust::Unchecked);
            assert!(mark(&two, "key").words.contains("Two distances cannot show a misread tape"));
            let (got, _) = spoilt(told("key", key, "abc"));
            let three = check(&plan, got);
            assert_eq!((mark(&three, "key").trust, &three.left_out), (Trust::Contradicted, &vec![]));
            assert!(mark(&three, "key").words.contains("one of them is misread"));
            let (got, wrong) = spoilt(told("key", key, "abcd"));
            let four = check(&plan, got);
            let named = mark(&four, "key");
            assert_eq!((named.trust, &four.left_out), (Trust::Named, &vec![wrong]), "{wrong} {by}");
            assert!(named.words.contains(&format!("from corner {}", "abcd".chars().nth(wrong).unwrap())));
            assert!(DVec2::from(named.at_m.unwrap()).distance(key) < 1e-6);
            // Three, and the diagonal to a mark that three others fix.
            let (mut got, wrong) = spoilt(told("key", key, "abc"));
            got.extend(told("camera", camera, "bcd"));
            let diagonal = GotFrom::Mark("camera".into());
            got.push(Got { mark: "key".into(), from: diagonal, length_m: key.distance(camera) });
            assert_eq!(check(&plan, got).left_out, [wrong], "{wrong} {by}");
        }
    }
}

/// What must move is told as the person at the seat sees it, and the corner is judged as it stands.
#[test]
fn what_is_off_is_told_in_words_and_judged_as_it_stands() {
    let plan = plain_with(&[]);
    let seat = place(&plan, "seat");
    let key = place(&plan, "key");
    let away = (key - seat).normalize() * 0.06;
    let told = |id: &str, at: DVec2| -> Vec<Got> {
        ["a", "b", "c"].map(|letter| from_corner(id, letter, at)).into()
    };
    let stands = |got: Vec<Got>| laid(&LaidIn { plan: plan.clone(), got }).unwrap();
    let off = stands(told("key", key + away));
    assert_eq!(off.marks[0].words, "K: move it 6 cm towards you.");
    let at = |plan: &Plan| {
        let [x, y, _] = plan.layout.lights.values().next().unwrap().position_m.0;
        DVec2::new(x, y)
    };
    assert!((at(&off.plan) - at(&plan) - away).length() < 2e-3, "it stands where it is");
    // The camera looks along -y, so that its right is towards smaller x.
    for (id, off, words) in [
        ("microphone", DVec2::Y, "M: move it 10 cm away from the camera."),
        ("microphone", DVec2::X, "M: move it 10 cm towards you."),
        ("camera", DVec2::X, "C: move it 10 cm to camera right."),
        ("seat", -DVec2::Y, "S: move it 10 cm towards the camera."),
    ] {
        let found = check(&plan, told(id, place(&plan, id) + off * 0.1));
        assert_eq!(mark(&found, id).words, words);
    }
    // A lock holds a thing in the plan, not on the floor.
    let locked = plain_with(&[("/layout/lights/key/locked", json!(true))]);
    let stray = laid(&LaidIn { plan: locked, got: told("key", key + away) }).unwrap();
    assert!((at(&stray.plan) - at(&off.plan)).length() < 1e-9);
    let right = stands(told("key", key));
    assert!(right.marks[0].words.starts_with("K stands where it should, to "), "{}", right.marks[0].words);
    assert_eq!((right.plan, right.changes.len()), (plan.clone(), 0));
    // Half a metre nearer the key is brighter: a reading changes its standing, and the verdict is that of the plan as it stands.
    let hot = stands(told("key", key + (seat - key).normalize() * 0.45));
    assert!(
        hot.changes.iter().any(|change| change.reading == "light.face.exposure_stops"),
        "{:?}",
        hot.changes
    );
    for (got, word) in [
        (json!({ "mark": "sofa", "from": { "corner": "a" }, "length_m": 1 }), "got.0.mark"),
        (json!({ "mark": "key", "from": { "corner": "z" }, "length_m": 1 }), "got.0.from.corner"),
        (json!({ "mark": "key", "from": { "wall": "front" }, "length_m": 1 }), "got.0.from.wall"),
        (json!({ "mark": "key", "from": { "mark": "key" }, "length_m": 1 }), "got.0.from.mark"),
    ] {
        let got = vec![serde_json::from_value(got).unwrap()];
        let refused = laid(&LaidIn { plan: plan.clone(), got }).unwrap_err();
        assert!(refused.to_string().contains(word), "{refused}");
    }
}

/// Tape lengths lead back to the plan: two circles round the corners of the room cross at the mark.
#[test]
fn tape_lengths_lead_back_to_the_plan() {
    for text in [
        include_str!("../../../../docs/examples/box-room.fogon.json"),
        include_str!("../../../../docs/examples/crowded-alcove.fogon.json"),
    ] {
        let plan = Plan::read(text.as_bytes()).unwrap();
        let (told, outline) = (card(&plan).unwrap(), plan.brief.room.outline());
        assert!(told.marks.len() >= 4 && told.baseline.is_none());
        for own in &told.marks {
            let found = crossing(&outline, own, |from| from.length_m);
            assert!(found.distance(own.at_m.into()) < 1e-6, "{}", own.what);
            assert!(own.tape.worst_error_m.is_some_and(|error| error < 0.2), "{}", own.what);
        }
        for line in &told.diagonals {
            let [one, other] = line.between.each_ref().map(|id| place(&plan, id));
            assert_close(line.length_m, one.distance(other), 1e-12, 0.0, "a diagonal");
        }
    }
}

/// Ten floors at random: what is printed, to 5 mm or a quarter inch, leads back to the plan within the error that the card
/// states, and both unit systems to the same place.
#[test]
fn printed_lengths_lead_back_in_both_unit_systems() {
    let mut dice = Dice(300);
    for _ in 0..10 {
        let mut between = |low: f64, high: f64| low + dice.unit() * (high - low);
        let (width, depth) = (between(2.0, 7.0), between(2.0, 7.0));
        let mut at = || [between(0.1, width - 0.1), between(0.1, depth - 0.1)];
        let (seat, camera, key, foot) = (at(), at(), at(), at());
        let edits = [
            ("/brief/room/floor_m", json!([[0, 0], [width, 0], [width, depth], [0, depth]])),
            ("/layout/seat/position_m", json!(seat)),
            ("/layout/camera/position_m", json!([camera[0], camera[1], 1.25])),
            ("/layout/lights/key/position_m", json!([key[0], key[1], 1.9])),
            ("/layout/microphone/support/base_m", json!(foot)),
        ];
        let mut places = Vec::new();
        for (units, half_m) in [("metric", 0.0025), ("imperial", 0.0254 / 8.0)] {
            let plan = plain_with(&[&edits[..], &[("/brief/units", json!(units))]].concat());
            let (told, outline) = (card(&plan).unwrap(), plan.brief.room.outline());
            for own in &told.marks {
                let printed = |metres: f64| printed_m(&told.units.mark(metres));
                for (told, exact) in [
                    (printed(own.tape.from_left_m), own.at_m[0]),
                    (printed(own.tape.from_back_m), own.at_m[1]),
                ] {
                    assert_close(told, exact, 0.0, half_m + 1e-9, &own.what);
                }
                let found = crossing(&outline, own, |from| printed(from.length_m));
                // The error is told for a tape error of a centimetre or half an inch; rounding is a part of that.
                if let Some(worst) = own.tape.worst_error_m {
                    let bound = worst * half_m / told.tape_error_m;
                    let off = found.distance(own.at_m.into());
                    assert!(off <= 1.1 * bound + 5e-4, "{units} {}: {off} of {bound}", own.what);
                    places.push((own.what.clone(), found, bound));
                }
            }
        }
        let (metric, imperial) = places.split_at(places.len() / 2);
        for ((what, one, bound), (_, other, more)) in metric.iter().zip(imperial) {
            assert!(one.distance(*other) <= 1.1 * (bound + more) + 1e-3, "{what}");
        }
    }
}

/// A length as it is printed: `1.625 m`, `5' 4\u{bd}"`.
fn printed_m(text: &str) -> f64 {
    if let Some(beyond) = text.strip_prefix('\u{2212}') {
        return -printed_m(beyond);
    }
    if let Some(metres) = text.strip_suffix(" m") {
        return metres.parse().unwrap();
    }
    let (feet, inches) =
        text.trim_end_matches('"').split_once("' ").unwrap_or(("0", text.trim_end_matches('"')));
    let whole: String = inches.chars().filter(char::is_ascii_digit).collect();
    let part = match inches.chars().last() {
        Some('\u{bc}') => 0.25,
        Some('\u{bd}') => 0.5,
        Some('\u{be}') => 0.75,
        _ => 0.0,
    };
    (12.0 * feet.parse::<f64>().unwrap() + whole.parse::<f64>().unwrap_or(0.0) + part) * 0.0254
}

/// Where circles round two corners cross, on the side on which the mark is.
fn crossing(outline: &[DVec2], mark: &Mark, length_m: impl Fn(&FromCorner) -> f64) -> DVec2 {
    let [(a, ra), (b, rb)] = mark.tape.corners.each_ref().map(|from| {
        let at = "abcdefghijkl".find(from.corner).unwrap();
        (outline[at], length_m(from))
    });
    let line = (b - a).normalize();
    let along = (ra * ra - rb * rb + a.distance_squared(b)) / (2.0 * a.distance(b));
    let aside = (ra * ra - along * along).max(0.0).sqrt();
    let crossings = [1.0, -1.0].map(|side| a + line * along + line.perp() * aside * side);
    let at = DVec2::from(mark.at_m);
    if crossings[0].distance(at) < crossings[1].distance(at) { crossings[0] } else { crossings[1] }
}

/// Cupboards along the walls hide every corner: a point of its own, with the seat's mark, is measured once and the rest from both.
#[test]
fn hidden_corners_leave_a_baseline() {
    let cupboard = |x: f64, y: f64, w: f64, d: f64| json!({ "kind": "shelf", "position_m": [x, y, 0], "bearing_deg": 0, "size_m": [w, d, 2.0], "fixed": true });
    let mut corners = serde_json::to_value(plain_with(&[])).unwrap();
    corners["brief"]["room"]["furniture"] = json!({
        "one": cupboard(0.3, 0.3, 0.5, 0.5), "two": cupboard(3.7, 0.3, 0.5, 0.5),
        "three": cupboard(3.7, 4.7, 0.5, 0.5), "four": cupboard(0.3, 4.7, 0.5, 0.5),
    });
    let plan = read(&corners);
    let told = card(&plan).unwrap();
    let line = told.baseline.expect("no corner is in sight");
    let (seat, second) = (place(&plan, "seat"), DVec2::from(line.at_m));
    assert_close(line.length_m, seat.distance(second), 1e-12, 0.0, "the baseline");
    for own in told.marks.iter().skip(1) {
        let from: Vec<&str> = own.tape.corners.iter().map(|from| from.corner).collect();
        assert_eq!(from, ["S", "X"], "{}", own.what);
        assert_close(own.tape.corners[1].length_m, second.distance(own.at_m.into()), 1e-12, 0.0, "from X");
        assert!(own.tape.worst_error_m.is_some_and(|error| error < 0.05), "{} {:?}", own.what, own.tape);
    }
    let steps = laying(&card(&plan).unwrap());
    assert!(
        steps[0].id.starts_with("mark.seat.") && steps[1].id.starts_with("baseline."),
        "measured before it is used"
    );
    assert!(card(&plain_with(&[])).unwrap().baseline.is_none());
}

/// A step is known by what it says: a tick does not outlive a change.
#[test]
fn a_step_that_changes_is_another_step() {
    let (before, after) = (plain_with(&[]), plain_with(&[("/layout/camera/iso", json!(400))]));
    let ids = |plan: &Plan| -> Vec<String> {
        laying(&card(plan).unwrap()).into_iter().map(|step| step.id).collect()
    };
    let (before, after) = (ids(&before), ids(&after));
    let gone: Vec<_> = before.iter().filter(|id| !after.contains(id)).collect();
    assert!(gone.len() == 1 && gone[0].starts_with("camera.iso."), "{gone:?}");
    let mut unique = before.clone();
    unique.sort();
    unique.dedup();
    assert_eq!(unique.len(), before.len());
    let demo = laying(&card(&demo()).unwrap());
    let kinds: Vec<Work> = demo.iter().map(|step| step.work).collect();
    for work in [Work::Mark, Work::Tape, Work::Set, Work::Check] {
        assert!(kinds.contains(&work), "{work:?}");
    }
    assert!(demo.iter().all(|step| !step.measures.is_empty() || !step.notes.is_empty()));
}
