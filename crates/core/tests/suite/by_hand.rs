//! The legal rules once more, by hand: points sampled on everything that is drawn, with formulas written out
//! here from the definitions of the plan document, and nothing of the code that places things.

use serde_json::Value;

type P = [f64; 3];

fn number(v: &Value) -> f64 {
    v.as_f64().unwrap_or_else(|| panic!("{v} is no number"))
}

fn point(v: &Value) -> P {
    [0, 1, 2].map(|i| number(&v[i]))
}

fn minus(a: P, b: P) -> P {
    [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
}

fn dot(a: P, b: P) -> f64 {
    a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

fn length(a: P) -> f64 {
    dot(a, a).sqrt()
}

fn along(a: P, b: P, part: f64) -> P {
    [0, 1, 2].map(|i| a[i] + (b[i] - a[i]) * part)
}

/// The mouth below the eyes, parts of the stature: a little below the middle between eyes and chin.
const MOUTH_BELOW_EYES: f64 = 0.040;

/// Where a point falls in the picture, -0.5 to 0.5 each way; `None` behind the lens. Pinhole at the camera
/// point, image distance f u / (u - f), the largest 16:9 area of the sensor.
fn in_picture(plan: &Value, p: P) -> Option<(f64, f64)> {
    let camera = &plan["layout"]["camera"];
    let body = &plan["brief"]["gear"][camera["body"].as_str().unwrap()];
    let (w, h) = (number(&body["sensor_width_mm"]), number(&body["sensor_height_mm"]));
    let (w, h) = if w / h < 16.0 / 9.0 { (w, w * 9.0 / 16.0) } else { (h * 16.0 / 9.0, h) };
    let crop = camera["crop"].as_f64().unwrap_or(1.0);
    let (w, h) = (w / crop, h / crop);
    let (w, h) = if camera["orientation"] == "portrait" { (h, w) } else { (w, h) };
    let (f, u) = (number(&camera["focal_length_mm"]), 1000.0 * number(&camera["focus_distance_m"]));
    let image = f * u / (u - f);
    let (sin_b, cos_b) = number(&camera["bearing_deg"]).to_radians().sin_cos();
    let (sin_t, cos_t) = number(&camera["tilt_deg"]).to_radians().sin_cos();
    let forward = [sin_b * cos_t, cos_b * cos_t, sin_t];
    let right = [cos_b, -sin_b, 0.0];
    let up = [-sin_b * sin_t, -cos_b * sin_t, cos_t];
    let ray = minus(p, point(&camera["position_m"]));
    let depth = dot(ray, forward);
    (depth > 0.0).then(|| (dot(ray, right) / depth * image / w, dot(ray, up) / depth * image / h))
}

fn seen(plan: &Value, p: P) -> bool {
    in_picture(plan, p).is_some_and(|(x, y)| x.abs() <= 0.5 && y.abs() <= 0.5)
}

/// Points on a support: column from floor to the height it holds at, then the arm.
fn carried(plan: &Value, support: &Value, hold: P) -> Vec<P> {
    let mut points = Vec::new();
    let base = match support["kind"].as_str().unwrap() {
        "floor" => [hold[0], hold[1], 0.0],
        "boom" => [number(&support["base_m"][0]), number(&support["base_m"][1]), 0.0],
        "ceiling" => {
            let top = [hold[0], hold[1], ceiling_over(plan, hold)];
            return (0..=20).map(|i| along(hold, top, f64::from(i) / 20.0)).collect();
        }
        "wall" => {
            let fixed = [number(&support["base_m"][0]), number(&support["base_m"][1]), hold[2]];
            let floor: Vec<P> = plan["brief"]["room"]["floor_m"]
                .as_array()
                .unwrap()
                .iter()
                .map(|p| [number(&p[0]), number(&p[1]), hold[2]])
                .collect();
            let on_a_wall = (0..floor.len()).any(|i| {
                let (a, b) = (floor[i], floor[(i + 1) % floor.len()]);
                (length(minus(fixed, a)) + length(minus(fixed, b)) - length(minus(a, b))).abs() < 1e-3
            });
            assert!(on_a_wall, "the arm at {fixed:?} is fixed to no wall");
            let reach = number(&plan["brief"]["gear"][support["gear"].as_str().unwrap()]["reach_m"]);
            assert!(length(minus(fixed, hold)) <= reach + 0.02, "the arm at {fixed:?} is too short");
            return (0..=20).map(|i| along(fixed, hold, f64::from(i) / 20.0)).collect();
        }
        _ => return points,
    };
    let top = [base[0], base[1], hold[2]];
    for i in 0..=40 {
        points.push(along(base, top, f64::from(i) / 40.0));
        points.push(along(top, hold, f64::from(i) / 40.0));
    }
    let gear = &plan["brief"]["gear"][support["gear"].as_str().unwrap_or("-")];
    let own = support["foot_radius_m"].as_f64();
    let radius = own.or(gear["foot_radius_m"].as_f64()).unwrap_or(0.45);
    points.extend((0..24).map(|i| {
        let (sin, cos) = (f64::from(i) * std::f64::consts::TAU / 24.0).sin_cos();
        [base[0] + radius * cos, base[1] + radius * sin, 0.05]
    }));
    points
}

/// Points on a lamp's or board's face and back.
fn head(plan: &Value, light: &Value, eyes: P) -> (Vec<P>, P) {
    let gear = &plan["brief"]["gear"][light["gear"].as_str().unwrap()];
    let middle = point(&light["position_m"]);
    let aim = if light["aim_m"].is_array() { point(&light["aim_m"]) } else { eyes };
    let back = minus(middle, aim).map(|v| v / length(minus(middle, aim)));
    let flat = back[0].hypot(back[1]);
    let across = [-back[1] / flat, back[0] / flat, 0.0];
    let up = [-back[2] * back[0] / flat, -back[2] * back[1] / flat, flat];
    let depth = if gear["kind"] == "light" { gear["depth_m"].as_f64().unwrap_or(0.0) } else { 0.02 };
    let (w, h) = (number(&gear["width_m"]) / 2.0, number(&gear["height_m"]) / 2.0);
    let mut points = Vec::new();
    for i in 0..16 {
        let (sin, cos) = (f64::from(i) * std::f64::consts::TAU / 16.0).sin_cos();
        // A rectangle reaches its corners; an octagon, measured across corners, holds a circle of cos(pi/8).
        let (x, y) = if gear["shape"] == "octagon" {
            (w * 0.92 * cos, w * 0.92 * sin)
        } else {
            let most = cos.abs().max(sin.abs());
            (w * cos / most, h * sin / most)
        };
        for deep in [0.0, depth] {
            points.push([0, 1, 2].map(|k| middle[k] + across[k] * x + up[k] * y + back[k] * deep));
        }
    }
    (points, [0, 1, 2].map(|k| middle[k] + back[k] * depth))
}

/// Points on a screen or mirror that faces the eyes, with its stand; none for a script glass, which the lens looks
/// through. Widths are those of usual screens where none is told.
fn screen(plan: &Value, used: &Value, eyes: P) -> Vec<P> {
    let gear = &plan["brief"]["gear"][used["gear"].as_str().unwrap()];
    let usual = match gear["screen"].as_str().unwrap_or("field") {
        "script" => return Vec::new(),
        "phone" => 0.14,
        "television" => 0.89,
        "laptop" | "mirror" => 0.30,
        _ => 0.155,
    };
    let width = gear["width_m"].as_f64().unwrap_or(usual);
    let height = width * 9.0 / 16.0;
    let middle = point(&used["position_m"]);
    let facing = minus(eyes, middle).map(|v| v / length(minus(eyes, middle)));
    let flat = facing[0].hypot(facing[1]);
    let across = [-facing[1] / flat, facing[0] / flat, 0.0];
    let up = [-facing[2] * facing[0] / flat, -facing[2] * facing[1] / flat, flat];
    let mut points = Vec::new();
    for (x, y) in [(-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5), (0.0, 0.0)] {
        points.push([0, 1, 2].map(|k| middle[k] + across[k] * x * width + up[k] * y * height));
    }
    points.extend(carried(plan, &used["support"], [middle[0], middle[1], middle[2] - height / 2.0]));
    points
}

/// Points on a backdrop's sheet, and on the stands at its ends.
fn backdrop(plan: &Value, used: &Value) -> (Vec<P>, Vec<P>) {
    let gear = &plan["brief"]["gear"][used["gear"].as_str().unwrap()];
    let (width, height) = (number(&gear["width_m"]), number(&gear["height_m"]));
    let (sin, cos) = number(&used["bearing_deg"]).to_radians().sin_cos();
    let at = |aside: f64, z: f64| {
        [number(&used["position_m"][0]) + cos * aside, number(&used["position_m"][1]) - sin * aside, z]
    };
    let sheet = (0..=10).flat_map(|i| {
        let aside = width * (f64::from(i) / 10.0 - 0.5);
        [at(aside, 0.02), at(aside, height / 2.0), at(aside, height)]
    });
    let ends = [-width / 2.0 - 0.02, width / 2.0 + 0.02];
    let stands = ends.iter().flat_map(|end| (0..=20).map(move |i| (*end, height * f64::from(i) / 20.0)));
    let stands = if used["hung"] == "stands" { stands.map(|(a, z)| at(a, z)).collect() } else { Vec::new() };
    (sheet.collect(), stands)
}

/// Fails unless nothing shows in the picture that must not, everything stays in the room and out of the door's
/// swing, and the eyes do not.
pub(crate) fn assert_legal(plan: &Value) {
    let layout = &plan["layout"];
    let person = &plan["brief"]["person"];
    let stature = number(&person["stature_m"]);
    let seat = person["seat_height_m"].as_f64().unwrap_or(0.45);
    let eye = if person["posture"] == "seated" { seat + 0.456 * stature } else { 0.936 * stature };
    let eyes = [number(&layout["seat"]["position_m"][0]), number(&layout["seat"]["position_m"][1]), eye];
    assert!(seen(plan, eyes), "the eyes are out of the picture");
    let mut things: Vec<(String, Vec<P>)> = Vec::new();
    for (id, light) in layout["lights"].as_object().unwrap() {
        let (mut points, hold) = head(plan, light, eyes);
        let near = points.iter().map(|p| length(minus(*p, eyes))).fold(f64::INFINITY, f64::min);
        assert!(near >= 0.30 - 0.01, "{id} is {near} m from the eyes");
        for p in &points {
            let air = ceiling_over(plan, *p) - p[2];
            assert!(air >= 0.085, "{id} at {p:?} comes within {air} m of the ceiling");
        }
        points.extend(carried(plan, &light["support"], hold));
        things.push((id.clone(), points));
    }
    if let Some(used) = layout.get("microphone").filter(|m| !m.is_null()) {
        let gear = &plan["brief"]["gear"][used["gear"].as_str().unwrap()];
        let shown = plan["brief"]["schools"]["microphone"] == "in-shot";
        if !shown && matches!(gear["mounting"].as_str().unwrap(), "boom" | "desk") {
            let capsule = point(&used["position_m"]);
            let (x, y) = in_picture(plan, capsule).unwrap_or((9.0, 9.0));
            assert!(x.abs() > 0.5 || y.abs() > 0.5, "the capsule shows at {x} {y}");
            // Held by the end of its body, 16 cm from the capsule and away from the mouth.
            let (sin, cos) = number(&layout["seat"]["bearing_deg"]).to_radians().sin_cos();
            let mouth = [eyes[0] + 0.02 * sin, eyes[1] + 0.02 * cos, eye - MOUTH_BELOW_EYES * stature];
            let out = 1.0 + 0.16 / length(minus(capsule, mouth));
            let hold = along(mouth, capsule, out);
            things.push(("microphone".into(), carried(plan, &used["support"], hold)));
        }
    }
    if let Some(used) = layout.get("screen").filter(|s| !s.is_null()) {
        things.push(("the screen".into(), screen(plan, used, eyes)));
    }
    let hung = layout.get("backdrop").filter(|b| !b.is_null()).map(|used| backdrop(plan, used));
    let floor: Vec<P> = plan["brief"]["room"]["floor_m"]
        .as_array()
        .unwrap()
        .iter()
        .map(|p| [number(&p[0]), number(&p[1]), 0.0])
        .collect();
    if let Some((sheet, stands)) = hung {
        for p in &sheet {
            assert!(in_the_room(plan, &floor, *p), "the backdrop at {p:?} is outside the room");
        }
        things.push(("the backdrop's stands".into(), stands));
    }
    let crown = eyes[2] + 0.064 * stature;
    assert!(in_the_room(plan, &floor, [eyes[0], eyes[1], crown]), "the head is not in the room");
    let lens = point(&layout["camera"]["position_m"]);
    // The line from lens to eyes stays in the room, and 0.2 m behind the lens there is room as well.
    let flat = number(&plan["brief"]["gear"][layout["camera"]["body"].as_str().unwrap()]["mass_kg"]) <= 0.25;
    let behind = if flat && layout["camera"]["support"]["kind"] != "floor" { 0.05 } else { 0.2 };
    for part in [-behind / length(minus(eyes, lens)), 0.0, 0.1, 0.25, 0.5, 0.75, 0.9] {
        let p = along(lens, eyes, part);
        assert!(in_the_room(plan, &floor, p), "the lens looks at {p:?}, outside the room");
    }
    for (id, points) in &things {
        for p in points {
            assert!(!seen(plan, *p), "a part of {id} at {p:?} shows in the picture");
            assert!(in_the_room(plan, &floor, *p), "a part of {id} at {p:?} is outside the room");
            assert!(!in_a_swing(plan, &floor, *p), "a part of {id} at {p:?} stands in a door's swing");
        }
    }
}

/// Two things may overlap by this much, m.
const TOUCH: f64 = 0.011;

/// Height of the ceiling over a point: the flat one, or lower where a slope or a beam is.
fn ceiling_over(plan: &Value, p: P) -> f64 {
    let room = &plan["brief"]["room"];
    let floor = room["floor_m"].as_array().unwrap();
    let flat = number(&room["height_m"]);
    let mut low = flat;
    for slope in room["slopes"].as_object().into_iter().flat_map(|s| s.values()) {
        let wall = slope["wall"].as_u64().unwrap() as usize;
        let corner = |i: usize| [number(&floor[i % floor.len()][0]), number(&floor[i % floor.len()][1]), 0.0];
        let (a, b) = (corner(wall), corner(wall + 1));
        let run = minus(b, a).map(|v| v / length(minus(b, a)));
        let (beside, off) = (dot(minus(p, a), run), dot(minus(p, a), [-run[1], run[0], 0.0]));
        let from = slope["from_m"].as_f64().unwrap_or(0.0);
        let to = from + slope["length_m"].as_f64().unwrap_or(length(minus(b, a)) - from);
        let (knee, reach) = (number(&slope["knee_m"]), number(&slope["run_m"]));
        // Things may touch its ends by 1 cm, as anything may touch anything.
        if (from + TOUCH..=to - TOUCH).contains(&beside) && (0.0..reach).contains(&off) {
            low = low.min(knee + (flat - knee) * off / reach);
        }
    }
    for beam in room["beams"].as_object().into_iter().flat_map(|b| b.values()) {
        let end = |name: &str| [number(&beam[name][0]), number(&beam[name][1]), 0.0];
        let (a, b) = (end("from_m"), end("to_m"));
        let run = minus(b, a).map(|v| v / length(minus(b, a)));
        let (beside, off) = (dot(minus(p, a), run), dot(minus(p, a), [-run[1], run[0], 0.0]));
        let long = length(minus(b, a));
        let over = off.abs() <= number(&beam["width_m"]) / 2.0 - TOUCH;
        if (TOUCH..=long - TOUCH).contains(&beside) && over {
            low = low.min(flat - number(&beam["drop_m"]));
        }
    }
    low
}

/// Whether a point is in the room, to 1.2 cm: the walls seen from it turn once all round, and it is over the floor
/// and under the ceiling.
fn in_the_room(plan: &Value, floor: &[P], p: P) -> bool {
    let around: f64 = (0..floor.len())
        .map(|i| {
            let (a, b) = (minus(floor[i], p), minus(floor[(i + 1) % floor.len()], p));
            (a[0] * b[1] - a[1] * b[0]).atan2(a[0] * b[0] + a[1] * b[1])
        })
        .sum();
    let at_a_wall = (0..floor.len()).any(|i| {
        let (a, b) = (floor[i], floor[(i + 1) % floor.len()]);
        let flat = [p[0], p[1], 0.0];
        let part = (dot(minus(flat, a), minus(b, a)) / dot(minus(b, a), minus(b, a))).clamp(0.0, 1.0);
        length(minus(flat, along(a, b, part))) < 0.012
    });
    (around > 3.0 || at_a_wall) && p[2] >= -0.012 && p[2] <= ceiling_over(plan, p) + 0.012
}

/// Whether a point lies more than 2 cm inside the quarter circle that a door sweeps.
fn in_a_swing(plan: &Value, floor: &[P], p: P) -> bool {
    plan["brief"]["room"]["openings"].as_object().is_some_and(|openings| {
        openings.values().filter(|o| o["kind"] == "door").any(|door| {
            let wall = door["wall"].as_u64().unwrap() as usize;
            let (a, b) = (floor[wall], floor[(wall + 1) % floor.len()]);
            let run = minus(b, a).map(|v| v / length(minus(b, a)));
            let (from, width) = (number(&door["from_m"]), number(&door["width_m"]));
            // Facing a wall from inside, its direction runs from right to left: the left hinge is at the far end.
            let (hinge, leaf) = match door["swing"].as_str().unwrap_or("in-left") {
                "in-left" => (along(a, b, (from + width) / length(minus(b, a))), run.map(|v| -v)),
                "in-right" => (along(a, b, from / length(minus(b, a))), run),
                _ => return false,
            };
            let inward = [-run[1], run[0], 0.0];
            let offset = minus([p[0], p[1], 0.0], hinge);
            let (x, y) = (dot(offset, leaf), dot(offset, inward));
            x > 0.02
                && y > 0.02
                && x.hypot(y) < width - 0.02
                && p[2] < door["height_m"].as_f64().unwrap_or(2.0) - 0.02
        })
    })
}
