//! Seeing oneself and what is behind: angles, letters and focus by worked examples, mirrors by the law of reflection,
//! screens and backdrops where the search puts them.

use fogon_core::corner::Corner;
use fogon_core::geometry::DVec3;
use fogon_core::plan::{Plan, ScreenType};
use fogon_core::shot::behind::behind;
use fogon_core::shot::seeing::{Gaze, capital_mm, focus_magnification, gaze_class, watched};
use fogon_testkit::{assert_close, box_room, set};
use serde_json::{Value, json};

use crate::support::{best, in_the_way, plain_with, value};

const CLASSES: [(f64, f64, Gaze); 6] = [
    // A flip-out screen 0.09 m aside at 1 m, a monitor 0.10 m below the lens at 1.45 m, above it, a phone 0.07 m below
    // its lens at 0.5 m: worked from the geometry; the classes are Fogon's own rule after Chen, CHI 2002 (from memory).
    (5.142_76, 0.0, Gaze::OffLens),
    (0.0, -4.085_62, Gaze::Direct),
    (0.0, 3.945_19, Gaze::Soft),
    (0.0, -7.969_61, Gaze::Soft),
    (0.9, 0.9, Gaze::Direct),
    (0.0, -11.0, Gaze::OffLens),
];

#[test]
fn gaze_letters_and_focus_follow_the_worked_examples() {
    for (aside, up, class) in CLASSES {
        assert_eq!(gaze_class(aside, up), class, "{aside} {up}");
        assert_eq!(gaze_class(-aside, up), class, "either side");
    }
    // Capitals: 2 D tan(angle / 2) (ISO 9241-303 gives 16 to 22 minutes of arc, from memory).
    for (path, arcmin, mm) in
        [(1.0, 16.0, 4.654_22), (1.45, 20.0, 8.435_78), (2.0, 22.0, 12.7991), (1.35, 20.0, 7.854)]
    {
        assert_close(capital_mm(path, arcmin), mm, 1e-5, 0.0, "capital");
    }
    // Screens of 0.1107 m at 1.5 m and 0.155 m at 0.7 m, both 1920 pixels, against 1/1500 of a 16:9 diagonal.
    let full = (36.0, 20.25);
    assert_close(focus_magnification(1.5, 0.1107, 1920.0, full, 1.0), 5.153_21, 1e-4, 0.0, "far");
    assert_close(focus_magnification(0.7, 0.155, 1920.0, full, 1.0), 1.717_52, 1e-4, 0.0, "near");
    assert_close(focus_magnification(1.0, 0.24, 1280.0, full, 0.8), 1.980_77, 1e-4, 0.0, "weak eyes");
}

fn with_screen(kind: &str, school: &str) -> Plan {
    if matches!(kind, "television" | "mirror") {
        // They need room behind the camera: the plain corner has two metres of it.
        let plan = plain_with(&[
            ("/brief/schools/monitor", json!(school)),
            (
                "/brief/gear/own-screen",
                json!({ "kind": "monitor", "label": "Own screen", "mass_kg": 0.6, "screen": kind }),
            ),
        ]);
        return fogon_core::arrange::replaced(&plan).expect("everything finds a place");
    }
    let mut document = box_room();
    set(&mut document, "/brief/schools/monitor", json!(school));
    set(
        &mut document,
        "/brief/gear/own-screen",
        json!({ "kind": "monitor", "label": "Own screen", "mass_kg": 0.6, "screen": kind }),
    );
    best(&document)
}

/// A field monitor goes below the lens, where a look at it passes for a look into the lens; it hangs on the tripod and
/// weighs there; every kind that is at hand finds a place that breaks no rule.
#[test]
fn screens_stand_where_the_eyes_stray_least() {
    for (kind, school) in
        [("field", "field"), ("phone", "phone"), ("television", "television"), ("mirror", "mirror")]
    {
        let plan = with_screen(kind, school);
        let corner = Corner::of(&plan).unwrap();
        let seen = watched(&corner).unwrap_or_else(|| panic!("{kind} has no place"));
        assert!(in_the_way(&plan).iter().all(|f| !f.id.to_string().starts_with("legal.")), "{kind}");
        let (aside, up) = seen.off_lens_deg(&corner);
        assert!(aside.abs() < 2.0, "{kind}: {aside} aside");
        if kind == "field" {
            assert_eq!(gaze_class(aside, up), Gaze::Direct, "{up}");
            // The angle by the dot product, the second route.
            let (a, b) = (corner.view.position_m - corner.eyes_m, seen.at_m - corner.eyes_m);
            let whole = a.cross(b).length().atan2(a.dot(b)).to_degrees();
            assert_close(value(&plan, "shot.screen.gaze_deg"), whole, 0.0, 0.02, "gaze");
            assert!(plan.layout.screen.as_ref().unwrap().support.gear.is_none(), "on the camera");
        }
    }
    // Not owned: said, and no screen.
    let mut document = box_room();
    set(&mut document, "/brief/schools/monitor", json!("television"));
    let plan = best(&document);
    assert!(plan.layout.screen.is_none());
    assert!(fogon_core::assess::without_moves(&plan).findings.iter().any(|f| f.id == "shot.screen.missing"));
}

/// A script glass of 70 % takes 0.515 stops: ISO, or the light needed, goes up by as much.
#[test]
fn a_script_glass_takes_its_light() {
    let mut document = box_room();
    set(&mut document, "/brief/recording", json!({ "script_words": 600 }));
    set(
        &mut document,
        "/brief/gear/glass",
        json!({ "kind": "monitor", "label": "Glass", "mass_kg": 1.2, "screen": "script", "width_m": 0.2, "transmittance": 0.7 }),
    );
    let plan = best(&document);
    let corner = Corner::of(&plan).unwrap();
    assert_eq!(corner.screen.unwrap().0.screen, ScreenType::Script);
    assert_close(corner.glass_stops(), 0.514_573, 1e-5, 0.0, "log2 of 0.7");
    assert_close(value(&plan, "shot.script.reading_min"), 4.0, 1e-9, 0.0, "600 words at 150 a minute");
    assert_eq!(gaze_class(value(&plan, "shot.screen.gaze_deg"), 0.0), Gaze::Direct);
    let camera = &plan.layout.camera;
    let bare = 250.0 * camera.f_number.powi(2) / (camera.shutter_s * camera.iso) * camera.nd_stops.exp2();
    assert_close(value(&plan, "shot.exposure.needed_lx"), bare / 0.7, 1e-6, 0.0, "light needed");
    // The glass at 45 degrees, its middle 0.06 m and half its width before the lens: at its far edge the field is
    // W d / v wide, the pupil f / N added.
    let v = camera.focal_length_mm * camera.focus_distance_m
        / (camera.focus_distance_m - camera.focal_length_mm / 1000.0);
    let field = 23.5 * 0.26 / v + camera.focal_length_mm / camera.f_number / 1000.0;
    // The place is told to the millimetre.
    assert_close(value(&plan, "shot.screen.glass_times"), 0.2 / field, 3e-3, 0.0, "glass");
    // At 2 degrees either side and 20 minutes of arc a line holds 16.8 letters, from however far.
    let letters = value(&plan, "shot.script.letters");
    let half = value(&plan, "shot.script.column_deg");
    if half >= 2.0 {
        assert_close(letters, 16.8068, 1e-3, 0.0, "letters");
    } else {
        assert!(letters < 16.81);
    }
}

fn seen_behind(kind: &str, at: [f64; 3], bearing: f64, size: [f64; 3]) -> fogon_core::shot::behind::Behind {
    let piece =
        json!({ "kind": kind, "position_m": at, "bearing_deg": bearing, "size_m": size, "fixed": true });
    let plan = plain_with(&[("/brief/room/furniture/thing", piece)]);
    behind(&Corner::of(&plan).unwrap())
}

/// The plain corner looks along -y from (2, 3, 1.25) at eyes 1.5 m away; the back wall is y = 0.
#[test]
fn what_stands_behind_the_head_is_told() {
    // A lamp pole straight behind the head grows out of it; a head's width aside it does not.
    let pole = |x: f64| seen_behind("lamp", [x, 0.4, 0.0], 0.0, [0.12, 0.12, 1.9]);
    assert_eq!(pole(2.0).grows, Some("thing".into()));
    assert_eq!(pole(2.5).grows, None);
    // A wide bookcase is large and does not grow.
    let bookcase = seen_behind("bookcase", [2.0, 0.2, 0.0], 0.0, [1.6, 0.3, 1.9]);
    assert_eq!((bookcase.large, bookcase.small, bookcase.grows), (1, 0, None));
    // A small picture beside the head, on the wall, square to the lens: the mirror image of the lens lies straight
    // behind the wall, so that only glass on the axis shows it, and there the head is before it.
    assert_eq!(seen_behind("picture", [2.6, 0.02, 1.2], 0.0, [0.3, 0.02, 0.3]).mirrored, None);
    // Turned so that its normal points at the lens, it shows the camera.
    let at = DVec3::new(2.62, 0.3, 1.25);
    let to_lens = DVec3::new(2.0, 3.0, 1.25) - at;
    let bearing = to_lens.x.atan2(to_lens.y).to_degrees().rem_euclid(360.0);
    let glass = seen_behind("mirror", [at.x, at.y, 1.05], bearing, [0.3, 0.02, 0.4]);
    assert_eq!(glass.mirrored, Some(("thing".into(), "camera".into())));
    // A window in the picture.
    let plan = plain_with(&[(
        "/brief/room/openings/window",
        json!({ "kind": "window", "wall": 0, "from_m": 1.3, "width_m": 0.4, "sill_m": 1.1, "height_m": 0.5 }),
    )]);
    assert_eq!(behind(&Corner::of(&plan).unwrap()).window, Some("window".into()));
}

/// Clothes as light as the wall behind are told, where both are known.
#[test]
fn clothes_of_the_walls_tone_are_told() {
    let alike = |cloth: f64, wall: f64| {
        let plan = plain_with(&[
            ("/brief/person/clothing_reflectance", json!(cloth)),
            ("/brief/room/surfaces", json!({ "wall-0": { "reflectance": wall } })),
        ]);
        behind(&Corner::of(&plan).unwrap()).alike_stops.is_some()
    };
    assert!(alike(0.5, 0.55) && !alike(0.2, 0.6));
}

/// Hair of the wall's tone is told, unless a back light outlines it; a bald head has none.
#[test]
fn hair_against_the_wall_is_told() {
    let told = |hair: &str, wall: f64| {
        let plan = plain_with(&[
            ("/brief/person/hair", json!(hair)),
            ("/brief/room/surfaces", json!({ "wall-0": { "reflectance": wall } })),
        ]);
        fogon_core::assess::without_moves(&plan).findings.iter().any(|f| f.id == "shot.background.hair")
    };
    assert!(told("dark", 0.06) && told("light", 0.4));
    assert!(!told("dark", 0.6) && !told("light", 0.06) && !told("none", 0.06));
}

/// Luminances against the face and an 18 % card, worked by Lambert's L = rho E / pi: a shade of 470 lm at half
/// transmittance 0.2 m across and high, an overcast sky of 10,000 lx, a weak practical, all over a face of 500 lx and
/// reflectance 0.35.
#[test]
fn highlights_follow_the_worked_examples() {
    use fogon_core::light::highlight::{shade_luminance_cd_m2, stops_over};
    let shade = shade_luminance_cd_m2(470.0, 0.5, std::f64::consts::PI * 0.2 * 0.2);
    assert_close(shade, 595.262, 1e-6, 0.0, "shade");
    for (luminance, face, grey) in
        [(shade, 3.417_67, 4.377_02), (3183.10, 5.836_50, 6.795_86), (120.0, 1.107_18, 2.066_53)]
    {
        assert_close(stops_over(luminance, 500.0, 0.35), face, 0.0, 2e-5, "over the face");
        assert_close(stops_over(luminance, 500.0, 0.18), grey, 0.0, 2e-5, "over the card");
    }
    // In the plain corner: a window 0.8 x 0.6 m in the back wall, 3 m from the lens. On 36 x 20.25 mm behind 40 mm
    // focused at 1.5 m it takes 0.8 x 0.6 of the framed 2.628 x 1.478 m: 12.4 %.
    let window = json!({ "kind": "window", "wall": 0, "from_m": 1.6, "width_m": 0.8, "sill_m": 0.95, "height_m": 0.6 });
    let open = ("/brief/schools/window", json!("key"));
    let plan = plain_with(&[("/brief/room/openings/window", window.clone()), open.clone()]);
    let told = crate::support::reading(&plan, "light.window.highlight_stops");
    let input = |name: &str| told.working.inputs.iter().find(|i| i.name == name).unwrap().value;
    assert_close(input("part of the picture"), 12.36, 5e-3, 0.0, "part");
    let face = value(&plan, "light.face.illuminance_lx");
    let by_hand = (0.68 * 4961.77 / (0.35 * face)).log2();
    assert_close(told.value.unwrap(), by_hand, 1e-6, 0.0, "over the face");
    let burns = |plan: &Plan| {
        fogon_core::assess::without_moves(plan)
            .findings
            .iter()
            .any(|f| f.id == "light.window.highlight_stops")
    };
    assert!(burns(&plan));
    assert!(!burns(&plain_with(&[("/brief/room/openings/window", window.clone())])), "shut out");
    // A profile that holds more keeps it; a paper roll before it hides it; out of the picture nothing is told.
    let holds =
        [("/brief/room/openings/window", window), open, ("/brief/gear/body/headroom_stops", json!(9))];
    assert!(!burns(&plain_with(&holds)));
    let aside =
        json!({ "kind": "window", "wall": 0, "from_m": 0.1, "width_m": 0.3, "sill_m": 1.0, "height_m": 0.4 });
    let plan = plain_with(&[("/brief/room/openings/window", aside)]);
    let all = fogon_core::assess::without_moves(&plan).readings;
    assert!(all.iter().all(|r| r.id != "light.window.highlight_stops"));
}

/// A chroma screen on stands goes as far back as it fits, lets the person be keyed, and is what the background is.
#[test]
fn a_keyed_background_needs_its_screen() {
    let mut document = box_room();
    set(&mut document, "/brief/purpose", json!("keyed-background"));
    let bare = best(&document);
    assert!(in_the_way(&bare).iter().any(|f| f.id == "shot.background.no-key-screen"));
    set(
        &mut document,
        "/brief/gear/screen",
        json!({ "kind": "backdrop", "label": "Chroma screen", "mass_kg": 5, "backdrop": "chroma", "width_m": 1.5, "height_m": 2.0, "offers": ["ceiling"] }),
    );
    let plan = best(&document);
    let hung = plan.layout.backdrop.as_ref().expect("it finds a place");
    assert!(in_the_way(&plan).iter().all(|f| f.id != "shot.background.no-key-screen"));
    let corner = Corner::of(&plan).unwrap();
    // Plumb behind the eyes on the lens axis: the distance by coordinates is the distance told.
    let off = DVec3::new(hung.position_m.0[0], hung.position_m.0[1], 0.0) - corner.eyes_m.with_z(0.0);
    assert_close(value(&plan, "room.background_behind_m"), off.length(), 0.0, 0.01, "to the screen");
    assert!(off.length() >= 1.0 - 0.01);
    // Green before green is keyed out with it.
    for (colour, vanishes) in [("green", true), ("red", false)] {
        let mut worn = plan.clone();
        worn.brief.person.clothing_colour = serde_json::from_value(json!(colour)).expect("a colour");
        assert_eq!(in_the_way(&worn).iter().any(|f| f.id == "shot.cloth.keyed"), vanishes, "{colour}");
    }
    // A wall painted so needs none.
    let mut painted = document.clone();
    painted["brief"]["gear"]["screen"] = Value::Null;
    painted["brief"]["gear"].as_object_mut().unwrap().remove("screen");
    let chroma = json!({ "look": "chroma" });
    set(
        &mut painted,
        "/brief/room/surfaces",
        json!({ "wall-0": chroma, "wall-1": chroma, "wall-2": chroma, "wall-3": chroma }),
    );
    assert!(in_the_way(&best(&painted)).iter().all(|f| f.id != "shot.background.no-key-screen"));
}

/// A session that outlasts card or battery stands in the way; stripes of few pixels are spoken of.
#[test]
fn what_ends_a_take_or_crawls_in_it_is_told() {
    // 64 GB at 50 Mbit/s, 5 % kept free: 162 min; 16.4 Wh at 5 W, 0.85 of it: 167 min (arithmetic).
    let plan = |session: f64| {
        plain_with(&[
            ("/brief/recording", json!({ "session_min": session })),
            ("/brief/gear/body/bitrate_mbit_s", json!(50)),
            ("/brief/gear/body/battery_wh", json!(16.416)),
            ("/brief/gear/card", json!({ "kind": "card", "label": "Card", "capacity_gb": 64 })),
        ])
    };
    assert_close(value(&plan(60.0), "shot.recording.card_min"), 162.133, 1e-5, 0.0, "card");
    assert_close(value(&plan(60.0), "shot.recording.battery_min"), 167.443, 1e-5, 0.0, "battery");
    let short = |session: f64| {
        in_the_way(&plan(session)).into_iter().find(|f| f.id == "shot.recording.session").map(|f| f.sentence)
    };
    assert_eq!(short(160.0), None);
    assert_eq!(short(165.0).unwrap(), "The card holds 162 of the 165 minutes planned.");
    // 280 Mbit/s are 35 MB/s: a card that keeps up 30 stops the recording, one that keeps up 60 does not.
    let slow = |mb_s: f64| {
        let card = json!({ "kind": "card", "label": "Card", "capacity_gb": 256, "write_mb_s": mb_s });
        let plan = plain_with(&[("/brief/gear/body/bitrate_mbit_s", json!(280)), ("/brief/gear/card", card)]);
        assert_close(value(&plan, "shot.recording.card_speed_mb_s"), 35.0, 1e-12, 0.0, "speed");
        in_the_way(&plan).into_iter().find(|f| f.id == "shot.recording.slow-card").map(|f| f.sentence)
    };
    assert_eq!(slow(60.0), None);
    assert_eq!(slow(30.0).unwrap(), "The card keeps up 30.0 MB/s; the camera writes 35.0.");
    // 3840 pixels over 36 x (1500 - 40) / 40 = 1314 mm: a pair of 0.5 mm is 1.5 pixels (at risk), of 1.8 mm 5.3 (to be
    // watched), of 3 mm 8.8 (drawn as it is).
    let moire = |pitch: f64| {
        let plan = plain_with(&[("/brief/person/stripe_pitch_mm", json!(pitch))]);
        fogon_core::assess::without_moves(&plan).findings.iter().any(|f| f.id == "shot.cloth.moire")
    };
    assert!(moire(0.5) && moire(1.8) && !moire(3.0));
    // 25 delivered of 100 recorded: a quarter of the speed, two stops dearer at half the frame each.
    let slow = plain_with(&[("/brief/recording", json!({ "slow_motion_hz": 100 }))]);
    assert_close(value(&slow, "shot.insert.speed_percent"), 25.0, 1e-9, 0.0, "speed");
    assert_close(
        value(&slow, "shot.insert.light_stops"),
        1.0,
        1e-9,
        0.0,
        "1/50 s against 1/100 s, flicker-free",
    );
}

/// A view of the bench from above covers it where the ceiling lets it, straight over its middle; one from the side stands
/// 30 degrees or more from the first. Neither shows in the picture or breaks a rule.
#[test]
fn second_angles_cover_and_break_no_rule() {
    use fogon_core::arrange::{AngleKind, with_angle};
    let plan = plain_with(&[(
        "/brief/room/furniture/bench",
        json!({ "kind": "table", "position_m": [2.0, 1.95, 0], "size_m": [1.0, 0.5, 0.74], "fixed": true }),
    )]);
    let both = with_angle(&with_angle(&plan, AngleKind::Overhead).unwrap(), AngleKind::Side).unwrap();
    assert!(
        in_the_way(&both).iter().all(|f| !f.id.to_string().starts_with("legal.")),
        "{:?}",
        in_the_way(&both)
    );
    let over = &both.layout.angles["overhead"];
    assert_eq!((over.position_m.0[0], over.position_m.0[1]), (2.0, 1.95));
    // S = s (u - f) / f at the bench's top, worked out here: 24 mm on 36 x 20.25 mm.
    let u = 1000.0 * (over.position_m.0[2] - 0.74);
    assert_close(
        value(&both, "shot.overhead.covers_width_m"),
        36.0 * (u - 24.0) / 24.0 / 1000.0,
        1e-6,
        0.0,
        "across",
    );
    assert_close(
        value(&both, "shot.overhead.covers_height_m"),
        20.25 * (u - 24.0) / 24.0 / 1000.0,
        1e-6,
        0.0,
        "deep",
    );
    assert!(value(&both, "shot.overhead.covers_width_m") >= 1.0, "all of the bench");
    assert!(value(&both, "shot.side-angle.off_axis_deg") >= 30.0);
    let pictures = fogon_core::drawing::draw_angles(&both, 1.0);
    assert_eq!(pictures.len(), 2);
    assert!(
        pictures[0].view.strokes.iter().any(|s| s.thing.as_deref() == Some("bench")),
        "the bench is in its picture"
    );
    // No bench, nothing to look down on.
    assert!(
        with_angle(&plain_with(&[]), AngleKind::Overhead).unwrap_err().accepted.contains("desk or a table")
    );
    // Put beside the first camera, it is told.
    let mut near = both.clone();
    let side = near.layout.angles.get_mut("side-angle").unwrap();
    side.position_m = fogon_core::plan::Point3([2.6, 2.9, 1.3]);
    let told = fogon_core::assess::without_moves(&near);
    assert!(told.findings.iter().any(|f| f.id == "shot.side-angle.jump"));
}
