//! Outlines on the floor against Shapely (`reference/outlines`): areas, hulls, inside and outside, looks across a room, what
//! panels leave of each other.

use fogon_core::geometry::{
    DVec2, area_beyond_m2, beyond_m, distance_to_edge, hull, inside, is_simple, outside_pieces,
    signed_area_m2,
};
use fogon_testkit::assert_close;
use serde::Deserialize;

#[derive(Deserialize)]
struct Fixture {
    rooms: Vec<Room>,
    panels: Vec<Panels>,
}

#[derive(Deserialize)]
struct Room {
    corners: Vec<[f64; 2]>,
    area_m2: f64,
    hull_area_m2: f64,
    hull_corners: usize,
    points: Vec<At>,
    looks: Vec<Look>,
}

#[derive(Deserialize)]
struct At {
    at: [f64; 2],
    beyond_m: f64,
}

#[derive(Deserialize)]
struct Look {
    at: [f64; 2],
    angle: f64,
    leaves_m: f64,
}

#[derive(Deserialize)]
struct Panels {
    one: Vec<[f64; 2]>,
    others: Vec<Vec<[f64; 2]>>,
    left_m2: f64,
}

fn fixture() -> Fixture {
    serde_json::from_str(include_str!("../fixtures/outlines.json")).unwrap()
}

fn outline(corners: &[[f64; 2]]) -> Vec<DVec2> {
    corners.iter().map(|corner| DVec2::from_array(*corner)).collect()
}

#[test]
fn floors_are_as_large_and_as_far_as_an_independent_library_says() {
    let rooms = fixture().rooms;
    assert_eq!(rooms.len(), 48);
    for (number, room) in rooms.iter().enumerate() {
        let floor = outline(&room.corners);
        assert!(is_simple(&floor), "room {number}");
        assert_close(signed_area_m2(&floor), room.area_m2, 0.0, 1e-9, "area");
        let round = hull(&floor);
        assert_eq!(round.len(), room.hull_corners, "room {number}");
        assert_close(signed_area_m2(&round), room.hull_area_m2, 0.0, 1e-9, "hull");
        // What the hull adds is cut into triangles without a rest.
        let added: f64 = outside_pieces(&floor).iter().map(|piece| signed_area_m2(piece)).sum();
        assert_close(added, room.hull_area_m2 - room.area_m2, 0.0, 1e-6, "pieces");
        for point in &room.points {
            let at = DVec2::from_array(point.at);
            assert_close(beyond_m(&floor, at), point.beyond_m, 0.0, 1e-9, "beyond");
            for margin in [-0.4, 0.0, 0.3] {
                if (point.beyond_m - margin).abs() > 1e-6 {
                    assert_eq!(
                        inside(&floor, at, margin),
                        point.beyond_m < margin,
                        "room {number}, {at}, {margin}"
                    );
                }
            }
        }
        for look in &room.looks {
            let along = DVec2::from_angle(look.angle);
            let leaves = distance_to_edge(&floor, DVec2::from_array(look.at), along);
            assert_close(leaves, look.leaves_m, 0.0, 1e-6, &format!("room {number} from {:?}", look.at));
        }
    }
    let looks: usize = rooms.iter().map(|room| room.looks.len()).sum();
    assert!(looks > 150, "{looks} looks");
}

#[test]
fn panels_leave_of_each_other_what_an_independent_library_says() {
    let panels = fixture().panels;
    for (number, case) in panels.iter().enumerate() {
        let one = outline(&case.one);
        let others: Vec<Vec<DVec2>> = case.others.iter().map(|other| outline(other)).collect();
        let views: Vec<&[DVec2]> = others.iter().map(Vec::as_slice).collect();
        let left = area_beyond_m2(&one, &views);
        assert_close(left, case.left_m2, 0.0, 1e-5, &format!("case {number}"));
        // Whichever way round they are given.
        let turned: Vec<Vec<DVec2>> =
            others.iter().map(|other| other.iter().rev().copied().collect()).collect();
        let views: Vec<&[DVec2]> = turned.iter().map(Vec::as_slice).collect();
        assert_close(area_beyond_m2(&one, &views), left, 0.0, 1e-6, "turned round");
        assert_close(area_beyond_m2(&one, &[]), signed_area_m2(&one).abs(), 0.0, 1e-6, "alone");
        assert!(area_beyond_m2(&one, &[&one]) < 1e-6);
    }
    assert!(panels.iter().any(|case| case.left_m2 < 1e-9) || panels.len() == 40);
}
