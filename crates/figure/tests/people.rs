//! Whoever the stand-in is and however it holds itself: whole surfaces, a body of a person's measures, nothing through anything.
use std::collections::HashMap;
use std::sync::LazyLock;

use fogon_figure::{EYES_BEFORE, Head, Looks, Mesh, Part, Setting, What, eyes_at, face_spots, parts};
use glam::Vec3;

static HEAD: LazyLock<Head> = LazyLock::new(Head::meshed);

fn looks(hair: bool, glasses: bool) -> Looks {
    Looks {
        skin: Vec3::new(0.50, 0.33, 0.25),
        hair: hair.then_some(Vec3::new(0.06, 0.04, 0.03)),
        shirt: Vec3::new(0.14, 0.20, 0.27),
        glasses,
    }
}

/// A person of 1.75 m: eyes 1.64 m over the floor standing, about 1.2 m on a seat of 0.45 m.
fn settings() -> Vec<(&'static str, Setting)> {
    let ahead = Vec3::new(0.0, 0.0, 1.5 + EYES_BEFORE);
    let standing =
        Setting { floor: -1.64, seat: None, table: None, plays: false, head_turn: 0.0, looks_at: ahead };
    let seated = Setting { floor: -1.22, seat: Some(-0.77), ..standing };
    vec![
        ("standing", standing),
        ("standing, playing", Setting { plays: true, ..standing }),
        ("seated", seated),
        ("seated, playing", Setting { plays: true, ..seated }),
        ("at a desk", Setting { table: Some([-0.48, 0.30]), ..seated }),
        ("at a high table", Setting { table: Some([-0.38, 0.42]), ..seated }),
        ("on a low seat", Setting { floor: -1.05, seat: Some(-0.80), ..seated }),
        ("turned", Setting { head_turn: 0.5, ..seated }),
    ]
}

fn reach(parts: &[Part], of: impl Fn(&Part) -> bool) -> [Vec3; 2] {
    let corners = parts.iter().filter(|part| of(part)).flat_map(|part| &part.mesh.corners);
    corners.fold([Vec3::MAX, Vec3::MIN], |[low, high], corner| [low.min(*corner), high.max(*corner)])
}

/// Every surface: numbers, normals of length 1, triangles with their corners, colours that throw back no more than they get.
#[test]
fn surfaces_are_whole() {
    for (name, setting) in settings() {
        for (hair, glasses) in [(true, false), (false, true)] {
            for Part { what, mesh, colours, .. } in parts(&HEAD, &setting, &looks(hair, glasses)) {
                let what = format!("{name}: {what:?}");
                let count = mesh.corners.len();
                assert!(count > 20 && mesh.normals.len() == count && colours.len() == count, "{what}");
                assert!(mesh.corners.iter().all(|corner| corner.is_finite()), "{what}");
                let off = mesh.normals.iter().map(|normal| (normal.length() - 1.0).abs()).fold(0.0, f32::max);
                assert!(off < 1e-3, "{what}: a normal is off by {off}");
                assert!(mesh.triangles.iter().flatten().all(|corner| (*corner as usize) < count), "{what}");
                let is_colour = |colour: &Vec3| colour.min_element() >= 0.0 && colour.max_element() <= 1.0;
                assert!(colours.iter().all(is_colour), "{what}");
            }
        }
    }
}

/// Surfaces look outwards: what lies within is where their volume is counted above nothing.
#[test]
fn surfaces_look_outwards() {
    let (_, setting) = settings()[4];
    for Part { what, mesh, .. } in parts(&HEAD, &setting, &looks(true, true)) {
        // Skin and hair are open where they are covered; lenses are sheets.
        if matches!(what, What::Clothes | What::Eye) {
            let volume: f32 = mesh.faces().map(|[a, b, c]| a.dot(b.cross(c)) / 6.0).sum();
            assert!(volume > 0.0, "{what:?}: {volume}");
        }
        let agree = mesh
            .triangles
            .iter()
            .filter(|corners| {
                let [a, b, c] = corners.map(|corner| mesh.corners[corner as usize]);
                let normal: Vec3 = corners.iter().map(|corner| mesh.normals[*corner as usize]).sum();
                (b - a).cross(c - a).dot(normal) > 0.0
            })
            .count();
        let part = agree as f32 / mesh.triangles.len() as f32;
        // A rim is not much thicker than its cells.
        let least = if what == What::Glasses { 0.94 } else { 0.985 };
        assert!(part > least, "{what:?}: only {part} of the faces look where their normals do");
    }
}

/// Cloth is closed but where limbs go in: an edge belongs to two faces.
#[test]
fn cloth_has_no_holes() {
    for (name, setting) in settings() {
        for Part { mesh, .. } in
            parts(&HEAD, &setting, &looks(true, false)).iter().filter(|part| part.what == What::Clothes)
        {
            let mut edges: HashMap<[u32; 2], i32> = HashMap::new();
            for [a, b, c] in &mesh.triangles {
                for [from, to] in [[a, b], [b, c], [c, a]] {
                    *edges.entry([*from.min(to), *from.max(to)]).or_default() += 1;
                }
            }
            let open = edges.values().filter(|faces| **faces == 1).count();
            let part = open as f32 / edges.len() as f32;
            assert!(part < 0.004, "{name}: {open} of {} edges are open", edges.len());
        }
    }
}

/// Measures of an adult of 1.75 m, within what people differ by: breadth over the shoulders (0.42 to 0.52 m over clothes), feet on
/// the floor, hands on the table, knees under it (ISO 7250-1 and DIN 33402-2, from memory).
#[test]
fn a_body_has_a_persons_measures() {
    for (name, setting) in settings() {
        let all = parts(&HEAD, &setting, &looks(false, false));
        let [low, high] = reach(&all, |part| part.what != What::Instrument);
        assert!((low.y - setting.floor).abs() < 0.02, "{name}: feet at {}, floor {}", low.y, setting.floor);
        assert!((0.10..0.13).contains(&high.y), "{name}: the crown is {} over the eyes", high.y);
        let upper = |part: &Part| part.what == What::Clothes;
        let shoulders = all.iter().filter(|part| upper(part)).flat_map(|part| &part.mesh.corners);
        let wide = 2.0
            * shoulders
                .filter(|corner| (corner.y + 0.28).abs() < 0.03)
                .map(|c| c.x.abs())
                .fold(0.0, f32::max);
        assert!((0.40..0.56).contains(&wide), "{name}: {wide} m over the shoulders");
    }
    // Hands lie on the table, and nothing of them within it.
    let (_, at_desk) = settings()[4];
    let all = parts(&HEAD, &at_desk, &looks(true, false));
    let table = at_desk.table.expect("it sits at one")[0];
    let hands = all.iter().filter(|part| part.what == What::Skin).skip(1).take(2);
    for hand in hands {
        let lowest = hand.mesh.corners.iter().map(|corner| corner.y).fold(f32::MAX, f32::min);
        assert!((-0.004..0.012).contains(&(lowest - table)), "a hand lies {} over the table", lowest - table);
    }
}

/// The head turns, the chest does not: eyes, spots on the face and the mesh turn together.
#[test]
fn a_head_turns_as_a_whole() {
    let (_, straight) = settings()[2];
    let of = |turn: f32| {
        parts(&HEAD, &Setting { head_turn: turn, ..straight }, &looks(true, true))
            .into_iter()
            .map(|part| (part.what, part.mesh))
            .collect::<Vec<_>>()
    };
    let (before, after) = (of(0.0), of(0.4));
    for ((what, a), (_, b)) in before.iter().zip(&after) {
        let moved = a.corners.iter().zip(&b.corners).map(|(a, b)| a.distance(*b)).fold(0.0, f32::max);
        match what {
            What::Skin | What::Eye | What::Hair | What::Glasses if a.corners.iter().any(|c| c.y > -0.1) => {
                assert!(moved > 0.02, "{what:?} stays");
            }
            _ => assert!(moved < 1e-6, "{what:?} moves by {moved}"),
        }
    }
    // A spot on the face lies at the skin, however far the head is turned.
    for turn in [-0.5, 0.0, 0.3, 0.5] {
        let turned = of(turn);
        let (_, skin) = turned.iter().find(|(what, _)| *what == What::Skin).expect("it has a face");
        for spot in face_spots(turn) {
            let near = skin.corners.iter().map(|corner| corner.distance(spot)).fold(f32::MAX, f32::min);
            assert!(near < 0.012, "turned by {turn}, a spot is {near} m off the skin");
        }
        let eyes: Vec<&Mesh> =
            turned.iter().filter(|(what, _)| *what == What::Eye).map(|(_, mesh)| mesh).collect();
        let middle = eyes.iter().flat_map(|mesh| &mesh.corners).sum::<Vec3>()
            / eyes.iter().map(|mesh| mesh.corners.len() as f32).sum::<f32>();
        assert!(middle.distance(eyes_at(turn)) < 0.02, "{middle} and {}", eyes_at(turn));
    }
}

/// Glasses sit before the eyes and off the cheeks; hair lies on the head and not before the face.
#[test]
fn what_is_worn_sits_where_it_is_worn() {
    let (_, setting) = settings()[2];
    let all = parts(&HEAD, &setting, &looks(true, true));
    let [eye_low, eye_high] = reach(&all, |part| part.what == What::Eye);
    let [low, high] = reach(&all, |part| part.what == What::Glasses);
    assert!(high.z > eye_high.z + 0.006 && high.z < eye_high.z + 0.035, "{} before {}", high.z, eye_high.z);
    assert!(low.y < eye_low.y - 0.005 && high.y > eye_high.y + 0.005 && high.x < 0.09);
    let [_, hair] = reach(&all, |part| part.what == What::Hair);
    let [_, skin] = reach(&all, |part| part.what == What::Skin);
    assert!(hair.y > 0.115 && hair.z < skin.z + 0.06, "hair up to {hair}, skin up to {skin}");
    let before_face = all
        .iter()
        .filter(|part| part.what == What::Hair)
        .flat_map(|part| &part.mesh.corners)
        .filter(|corner| corner.z > 0.06 && corner.y < 0.04 && corner.x.abs() < 0.05)
        .count();
    assert_eq!(before_face, 0, "hair before the eyes");
}
