//! Outlines, solids, the picture's pyramid and bearings, worked by hand.

use fogon_core::geometry::{
    DVec2, DVec3, Pinhole, Solid, bearing_of, bearing_vector, beyond_m, distance_to_edge, inside, is_simple,
    outside_pieces, signed_area_m2, wrap_180,
};

#[test]
fn boxes_touch_overlap_and_part() {
    let cube = |x: f64| {
        Solid::oriented_box(DVec3::new(x, 0.0, 0.5), [DVec3::X * 0.5, DVec3::Y * 0.5, DVec3::Z * 0.5])
    };
    assert!((cube(0.0).overlap_m(&cube(0.9)) - 0.1).abs() < 1e-12);
    assert!(cube(0.0).overlap_m(&cube(1.2)) < 0.0);
    assert!((cube(0.0).gap_m(&cube(1.2), f64::INFINITY) - 0.2).abs() < 1e-3);
    assert!(
        (0.1..=0.2).contains(&cube(0.0).gap_m(&cube(1.2), 0.1)) && cube(0.0).gap_m(&cube(0.9), 1.0) == 0.0
    );
    // Two rods crossing at right angles part only along the cross product of their edges.
    let a = Solid::rod(DVec3::new(-1.0, 0.0, 0.0), DVec3::new(1.0, 0.0, 0.0), 0.01);
    let b = Solid::rod(DVec3::new(0.0, -1.0, 0.05), DVec3::new(0.0, 1.0, 0.05), 0.01);
    assert!(a.overlap_m(&b) <= 0.0);
}

/// The volume under all faces by the divergence theorem: a box, a cylinder's prism (12 sides: area 12 r2 tan 15 degrees), a slab
/// that leans.
#[test]
fn faces_close_around_a_solid() {
    let volume = |solid: &Solid| -> f64 {
        let faces = solid.faces();
        let of = |normal: &DVec3, outline: &[DVec3]| -> f64 {
            let area: DVec3 = outline.windows(2).map(|p| (p[0] - outline[0]).cross(p[1] - outline[0])).sum();
            assert!(area.normalize().dot(*normal) > 0.999);
            outline[0].dot(area) / 6.0
        };
        faces.iter().map(|(normal, outline)| of(normal, outline)).sum()
    };
    let cube = Solid::oriented_box(DVec3::splat(3.0), [DVec3::X, DVec3::Y * 0.5, DVec3::Z * 0.25]);
    let column = Solid::cylinder(DVec2::new(1.0, -2.0), 0.1, 0.5, 2.5);
    let normal = DVec3::new(1.0, 1.0, 1.0).normalize();
    let (a, b) = normal.any_orthonormal_pair();
    let slab = Solid::slab(&[DVec3::ZERO, a, a + b, b], normal, 0.1);
    for (solid, wanted) in [(cube, 1.0), (column, 2.0 * 12.0 * 0.01 * 15f64.to_radians().tan()), (slab, 0.1)]
    {
        assert!((volume(&solid) - wanted).abs() < 1e-9, "{} wanted {wanted}", volume(&solid));
    }
}

#[test]
fn sight_lines_stop_at_solids() {
    let column = Solid::cylinder(DVec2::new(1.0, 0.0), 0.1, 0.0, 2.0);
    assert!(column.blocks(DVec3::new(0.0, 0.0, 1.0), DVec3::new(2.0, 0.0, 1.0)));
    assert!(!column.blocks(DVec3::new(0.0, 0.0, 2.5), DVec3::new(2.0, 0.0, 2.5)));
    assert!(!column.blocks(DVec3::new(0.0, 0.5, 1.0), DVec3::new(2.0, 0.5, 1.0)));
    assert!((column.distance_m(DVec3::new(0.0, 0.0, 1.0)) - 0.9).abs() < 0.005);
}

/// 50 mm on 36 x 20.25 mm focused at 1.45 m frames 1.008 x 0.567 m (S = s (u - f) / f, worked by hand), and a point half a frame height up lies on the top edge.
#[test]
fn projects_the_frame_it_was_focused_for() {
    let image_distance = 50.0 * 1450.0 / (1450.0 - 50.0);
    let camera = Pinhole::new(DVec3::new(1.0, 2.5, 1.2), 180.0, 0.0, 36.0, 20.25, image_distance);
    assert!((camera.frame_height_m(1.45) - 0.567).abs() < 1e-9);
    assert!((camera.frame_width_m(1.45) - 1.008).abs() < 1e-9);
    let top_right = DVec3::new(1.0 - 0.504, 2.5 - 1.45, 1.2 + 0.2835);
    let (x, y) = camera.project(top_right).unwrap();
    assert!((x - 1.0).abs() < 1e-9 && y.abs() < 1e-9, "{x} {y}");
    assert!(camera.project(DVec3::new(1.0, 2.6, 1.2)).is_none());
}

#[test]
fn a_tilted_camera_keeps_its_axis_in_the_middle() {
    let camera = Pinhole::new(DVec3::ZERO, 30.0, -12.0, 36.0, 20.25, 50.0);
    let (x, y) = camera.project(camera.forward * 2.0).unwrap();
    assert!((x - 0.5).abs() < 1e-12 && (y - 0.5).abs() < 1e-12);
    assert!(camera.up.z > 0.0 && camera.forward.z < 0.0);
}

fn outline(points: &[[f64; 2]]) -> Vec<DVec2> {
    points.iter().map(|p| DVec2::from_array(*p)).collect()
}

#[test]
fn rays_and_areas_in_a_rectangle() {
    let room = outline(&[[0.0, 0.0], [3.4, 0.0], [3.4, 2.9], [0.0, 2.9]]);
    assert!((signed_area_m2(&room) - 9.86).abs() < 1e-12);
    assert!((distance_to_edge(&room, DVec2::new(1.0, 1.0), DVec2::X) - 2.4).abs() < 1e-12);
    assert!((distance_to_edge(&room, DVec2::new(1.0, 1.0), DVec2::NEG_Y) - 1.0).abs() < 1e-12);
    assert!(inside(&room, DVec2::new(3.4, 1.0), 0.0));
    assert!(!inside(&room, DVec2::new(3.35, 1.0), -0.1));
    assert!(outside_pieces(&room).is_empty());
}

/// An L of 4 x 3 m without its front-right 2 x 1 m, worked by hand.
#[test]
fn an_l_has_an_inner_corner() {
    let room = outline(&[[0.0, 0.0], [4.0, 0.0], [4.0, 2.0], [2.0, 2.0], [2.0, 3.0], [0.0, 3.0]]);
    assert!(is_simple(&room) && (signed_area_m2(&room) - 10.0).abs() < 1e-12);
    assert!((beyond_m(&room, DVec2::new(3.0, 2.5)) - 0.5).abs() < 1e-12);
    assert!((beyond_m(&room, DVec2::new(1.5, 1.5)) + 0.5f64.hypot(0.5)).abs() < 1e-12);
    // Along the back wall the ray goes on to the right wall, farther in front it meets the inner one.
    assert!((distance_to_edge(&room, DVec2::new(1.0, 1.0), DVec2::X) - 3.0).abs() < 1e-12);
    assert!((distance_to_edge(&room, DVec2::new(1.0, 2.5), DVec2::X) - 1.0).abs() < 1e-12);
    let left_out: f64 = outside_pieces(&room).iter().map(|t| signed_area_m2(t)).sum();
    assert!((left_out - 1.0).abs() < 1e-12, "the hull cuts the notch in half: {left_out}");
    let crossed = outline(&[[0.0, 0.0], [2.0, 0.0], [0.0, 2.0], [2.0, 2.0]]);
    assert!(!is_simple(&crossed));
}

#[test]
fn bearings_run_clockwise_from_the_back_wall_normal() {
    assert!((bearing_vector(90.0) - DVec3::X).length() < 1e-12);
    assert!((bearing_of(DVec3::new(-1.0, 0.0, 0.3)) - 270.0).abs() < 1e-12);
    assert_eq!(wrap_180(-180.0), 180.0);
    assert_eq!(wrap_180(190.0), -170.0);
    assert_eq!(bearing_of(DVec3::new(-1e-300, 1.0, 0.0)), 0.0);
}
