//! Plans at the edge of what a plan may be: a picture without end or a number that is none must not come of them.
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_viewfinder::overlay::Overlay;
use fogon_viewfinder::render::Asked;
use fogon_viewfinder::viewing::{GoneOn, TakenUp, Viewing, Wanted};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::plans::{plan, small, taken};

/// Every pixel is light: a number, not below nothing.
fn is_light(plan: &Plan, what: &str) {
    let asked = Asked { width: 64, height: 36, smooth: true, ..small(1) };
    for (at, pixel) in taken(plan, &asked).signal().iter().enumerate() {
        assert!(pixel.is_finite() && pixel.min_element() >= 0.0, "{what}: {pixel} at {at}");
    }
}

/// So many lights and pieces of furniture as a plan may hold, of every kind; one more is refused in words before anything is drawn.
#[test]
fn the_fullest_plan_is_drawn_and_a_fuller_one_is_refused() {
    const KINDS: [&str; 14] = [
        "desk", "table", "chair", "bed", "sofa", "cabinet", "wardrobe", "bookcase", "shelf", "radiator",
        "mirror", "picture", "lamp", "plant",
    ];
    let filled = |document: &mut Value, lights: usize, pieces: usize| {
        let key = document["layout"]["lights"]["key"].clone();
        let [all, furniture] = ["/layout/lights", "/brief/room/furniture"]
            .map(|at| document.pointer(at).and_then(Value::as_object).map_or(0, serde_json::Map::len));
        for number in all..lights {
            let mut light = key.clone();
            light["position_m"] = json!([0.3 + 0.2 * number as f64, 0.4 + 0.15 * number as f64, 1.9]);
            light["cct_k"] = json!(2700.0 + 200.0 * number as f64);
            document["layout"]["lights"][format!("light-{number}")] = light;
        }
        for number in furniture..pieces {
            let kind = KINDS[number % KINDS.len()];
            document["brief"]["room"]["furniture"][format!("piece-{number}")] = json!({
                "kind": kind, "position_m": [0.2 + 0.07 * number as f64, 0.3 + 0.05 * number as f64, 0.0],
                "bearing_deg": 9.0 * number as f64 % 360.0, "size_m": [0.4, 0.3, 0.8], "fixed": true,
            });
        }
    };
    is_light(&plan(|document| filled(document, 12, 40)), "full");
    for (lights, pieces, field) in
        [(13, 2, "layout.lights"), (2, 41, "brief.room.furniture"), (4000, 4000, "")]
    {
        let mut document: Value =
            serde_json::from_str(include_str!("../../../../docs/examples/box-room.fogon.json"))
                .expect("JSON");
        filled(&mut document, lights, pieces);
        let refused = Plan::read(document.to_string().as_bytes()).expect_err("too much");
        assert!(refused.to_string().contains(field), "{refused}");
        assert!(refused.to_string().contains("at most"), "{refused}");
    }
}

/// Lamps and boards without extent are refused by their field, and so is a picture of no room.
#[test]
fn what_has_no_extent_is_refused() {
    let document: Value =
        serde_json::from_str(include_str!("../../../../docs/examples/box-room.fogon.json")).expect("JSON");
    let key = document["layout"]["lights"]["key"]["gear"].as_str().expect("the key has gear").to_owned();
    for (pointer, value) in [
        (format!("/brief/gear/{key}/width_m"), json!(0.0)),
        (format!("/brief/gear/{key}/height_m"), json!(-1.0)),
        ("/brief/room/height_m".to_owned(), json!(0.0)),
        ("/layout/camera/focal_length_mm".to_owned(), json!(0.0)),
        ("/layout/camera/f_number".to_owned(), json!(0.0)),
        ("/layout/camera/focus_distance_m".to_owned(), json!(0.0)),
    ] {
        let mut wrong = document.clone();
        let Some(field) = wrong.pointer_mut(&pointer) else { continue };
        *field = value;
        let refused = Plan::read(wrong.to_string().as_bytes()).expect_err(&pointer);
        let name = pointer.rsplit('/').next().unwrap_or_default();
        assert!(refused.to_string().contains(name), "{pointer}: {refused}");
    }
}

/// A lens in the desk, in the wall, in the person's head, at a lamp's face and in the floor sees something, never nothing.
#[test]
fn a_lens_inside_a_thing_takes_a_picture() {
    let whole = plan(|_| {});
    let corner = Corner::of(&whole).expect("it resolves");
    let eyes = corner.eyes_m;
    let key = whole.layout.lights.values().next().expect("it has a light").position_m;
    let desk = whole.layout.furniture.values().next().map_or([1.7, 2.5, 0.7], |place| {
        let [x, y] = [place.position_m.0[0], place.position_m.0[1]];
        [x, y, 0.72]
    });
    for (place, what) in [
        (desk, "the desk"),
        ([0.0, 1.0, 1.2], "the wall"),
        ([eyes.x, eyes.y, eyes.z], "the eyes"),
        ([key.0[0], key.0[1], key.0[2]], "the key"),
        ([1.5, 1.5, 0.0], "the floor"),
    ] {
        let inside = plan(|document| document["layout"]["camera"]["position_m"] = json!(place));
        is_light(&inside, what);
    }
}

/// Sizes of one pixel, and parts of a picture far outside of it.
#[test]
fn pictures_of_a_pixel_and_parts_beside_the_picture() {
    let plan = plan(|_| {});
    let corner = Corner::of(&plan).expect("it resolves");
    for (size, part) in [
        ([1, 1], None),
        ([1, 400], None),
        ([3, 2], Some([0.4, 0.3, 0.400_01, 0.300_01])),
        ([40, 20], Some([-3.0, 4.0, -2.5, 4.2])),
    ] {
        let mut viewing = Viewing::default();
        let wanted = Wanted { part, ..Wanted::whole(&corner, size) };
        assert_eq!(viewing.take_up(&corner, &plan, &wanted, &|| true), TakenUp::Begun);
        while viewing.go_on(&|| true) != GoneOn::Finished {}
        let picture = viewing.picture(Overlay::Stops).expect("there is one");
        assert_eq!(picture.pixels.len(), 4 * size[0] * size[1]);
        assert!(picture.told.face_stops.is_finite() && picture.is_finished);
        assert!(viewing.look([1.0, 1.0]).is_some_and(|looked| looked.stops.is_finite()));
    }
}

/// Left at any moment, a picture is as it was; taken up again, it is what it would have been.
#[test]
fn a_picture_that_is_left_is_left_whole() {
    use std::sync::atomic::{AtomicUsize, Ordering};
    let plan = plan(|_| {});
    let corner = Corner::of(&plan).expect("it resolves");
    let wanted = Wanted::whole(&corner, [96, 54]);
    let finished = |viewing: &mut Viewing| {
        while viewing.go_on(&|| true) != GoneOn::Finished {}
        viewing.picture(Overlay::None).expect("there is one").pixels
    };
    let mut whole = Viewing::default();
    whole.take_up(&corner, &plan, &wanted, &|| true);
    let whole = finished(&mut whole);
    for leaves_after in [1, 9] {
        let asked = AtomicUsize::new(0);
        let goes_on = || asked.fetch_add(1, Ordering::Relaxed) < leaves_after;
        let mut viewing = Viewing::default();
        if viewing.take_up(&corner, &plan, &wanted, &goes_on) == TakenUp::Left {
            assert!(viewing.picture(Overlay::None).is_none(), "{leaves_after}");
            viewing.take_up(&corner, &plan, &wanted, &|| true);
        }
        let before = viewing.picture(Overlay::None).expect("there is one").samples;
        while !matches!(viewing.go_on(&goes_on), GoneOn::Left | GoneOn::Finished) {}
        assert!(viewing.picture(Overlay::None).is_some_and(|picture| picture.samples >= before));
        assert!(finished(&mut viewing) == whole, "left after {leaves_after} questions");
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 4, max_shrink_iters: 5, ..ProptestConfig::default() })]

    /// Wherever the lens stands and however it is set, whoever sits there: light in every pixel, and numbers that can be told.
    #[test]
    fn any_camera_takes_a_picture(
        place in (0.0f64..3.4, 0.0f64..2.9, 0.0f64..2.45),
        way in (0.0f64..360.0, -60.0f64..60.0),
        lens in (12.0f64..60.0, 1.4f64..22.0, 0.3f64..9.0),
        person in (1.4f64..2.1, 0.02f64..0.7, any::<bool>(), 0usize..4),
        portrait: bool,
    ) {
        let plan = plan(|document| {
            let camera = &mut document["layout"]["camera"];
            camera["position_m"] = json!([place.0, place.1, place.2]);
            camera["bearing_deg"] = json!(way.0);
            camera["tilt_deg"] = json!(way.1);
            camera["focal_length_mm"] = json!(lens.0);
            camera["f_number"] = json!(lens.1);
            camera["focus_distance_m"] = json!(lens.2);
            camera["orientation"] = json!(if portrait { "portrait" } else { "landscape" });
            let told = &mut document["brief"]["person"];
            told["stature_m"] = json!(person.0);
            told["skin_reflectance"] = json!(person.1);
            told["glasses"] = json!(person.2);
            told["hair"] = json!(["dark", "light", "grey", "none"][person.3]);
        });
        let corner = Corner::of(&plan).expect("it resolves");
        let size = fogon_viewfinder::lens::size_px(&corner, 48);
        let mut viewing = Viewing::default();
        viewing.take_up(&corner, &plan, &Wanted::whole(&corner, size), &|| true);
        viewing.go_on(&|| true);
        let picture = viewing.picture(Overlay::Clipping).expect("there is one");
        prop_assert_eq!(picture.pixels.len(), 4 * size[0] * size[1]);
        prop_assert!(picture.told.face_stops.is_finite());
        prop_assert!((0.0..=1.0).contains(&picture.told.clipped_part));
    }
}
