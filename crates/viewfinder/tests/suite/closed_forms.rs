//! Light and lenses where the answer is known.
use std::f32::consts::PI;
use std::sync::Arc;

use fogon_core::geometry::{DVec3, Pinhole};
use fogon_core::photometry::polygon_illuminance;
use fogon_viewfinder::body::Maker;
use fogon_viewfinder::lens::Lens;
use fogon_viewfinder::panel::{Panel, Shape};
use fogon_viewfinder::render::{Asked, Rendered, render};
use fogon_viewfinder::scene::{Placed, Scene};
use fogon_viewfinder::source::{Emits, Source, Sunbeam};
use fogon_viewfinder::stage::{Staged, lamps::Group, things::Things};
use fogon_viewfinder::surface::Finish;
use fogon_viewfinder::tree::Walk;
use glam::{Affine3A, Vec3};

/// A scene of one body under one panel, seen by a lens, its only light group white and whole.
fn staged(maker: Maker, panel: Panel, luminance: f32, lens: Lens) -> Staged {
    let source =
        Source { emits: Emits::Forward(panel), exponent: 1.0, from: vec![(0, Vec3::splat(luminance))] };
    let body = Placed::new(Arc::new(maker.made()), Affine3A::IDENTITY);
    let scene = Scene::new(vec![body], 1, None, vec![source], 1, lens);
    // D65, so that white is red, green and blue alike.
    let group = Group { from: Vec::new(), dial: 1.0, xy: [0.312_7, 0.329_0] };
    Staged::new(scene, vec![group], Things::default(), Walk::fastest())
}

fn taken(staged: &Staged, [width, height]: [usize; 2], samples: u32) -> Rendered {
    let asked = Asked { width, height, samples, seed: 3, smooth: false, matt: false, walk: None };
    render(staged, &asked)
}

fn lens(from: DVec3, tilt_deg: f64, ratio: f64, radius_m: f32, focus_m: f32) -> Lens {
    Lens::new(&Pinhole::new(from, 0.0, tilt_deg, ratio, ratio, 1.0), radius_m, focus_m)
}

/// A card of a reflectance before a panel: its luminance is rho E / pi with E by Lambert's formula for a polygon.
#[test]
fn a_card_under_a_panel_has_its_luminance_within_half_a_percent() {
    let reflectance = 0.5;
    for (middle, turned) in [(Vec3::new(0.0, -0.6, 1.0), 0.0), (Vec3::new(0.8, -0.5, 0.3), 0.4)] {
        let mut maker = Maker::default();
        let card = maker.material(Finish::Matt, 0);
        let corners = [(-0.1, -0.1), (0.1, -0.1), (0.1, 0.1), (-0.1, 0.1)].map(|(x, z)| Vec3::new(x, 2.0, z));
        maker.quad(corners, Vec3::splat(reflectance), card, 0.05);
        // The panel looks at the card's middle, and is turned away a little.
        let way = (Vec3::Y * 2.0 - middle + Vec3::X * turned).normalize();
        let across = way.cross(Vec3::Z).normalize() * 0.45;
        let up = across.normalize().cross(way) * 0.3;
        let panel = Panel::new(middle, across, -up, Shape::Rectangle);
        assert!(panel.normal().dot(way) > 0.99);
        let outline = [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)]
            .map(|(x, y)| (middle + across * x - up * y).as_dvec3());
        let luminance = 2000.0;
        let wanted = polygon_illuminance(luminance, &outline, DVec3::Y * 2.0, -DVec3::Y)
            * f64::from(reflectance)
            / std::f64::consts::PI;
        // A look at the very middle of the card alone.
        let staged = staged(maker, panel, luminance as f32, lens(DVec3::ZERO, 0.0, 0.004, 0.0, 2.0));
        let picture = taken(&staged, [8, 8], 256);
        let found = mean(&picture.luminance());
        assert!((found - wanted).abs() < 0.005 * wanted, "{found} cd/m2, wanted {wanted}");
    }
}

fn mean(pixels: &[Vec3]) -> f64 {
    pixels.iter().map(|pixel| f64::from(pixel.y)).sum::<f64>() / pixels.len() as f64
}

/// In a closed room of one reflectance all that the lamp gives is taken up in the end: the light on all surfaces together is
/// flux / (1 - rho) (the integrating sphere's law, which holds for any shape in the mean over its surface).
#[test]
fn a_white_room_keeps_all_light_within_a_percent() {
    for reflectance in [0.3, 0.6, 0.85] {
        let mut maker = Maker::default();
        let paint = maker.material(Finish::Matt, 0);
        let size = Vec3::new(3.4, 2.9, 2.4);
        let mut walls = Vec::new();
        for axis in 0..3 {
            let (u, v) = ((axis + 1) % 3, (axis + 2) % 3);
            for is_far in [false, true] {
                let corner = |a: f32, b: f32| {
                    let mut place = Vec3::ZERO;
                    place[axis] = if is_far { size[axis] } else { 0.0 };
                    place[u] = a * size[u];
                    place[v] = b * size[v];
                    place
                };
                let mut outline = [corner(0.0, 0.0), corner(1.0, 0.0), corner(1.0, 1.0), corner(0.0, 1.0)];
                // Inside is in front.
                if is_far {
                    outline.reverse();
                }
                maker.quad(outline, Vec3::splat(reflectance), paint, 0.25);
                walls.push((outline, size[u] * size[v]));
            }
        }
        let (wide, luminance) = (0.6, 1000.0);
        let panel = Panel::new(
            Vec3::new(1.2, 1.0, 2.0),
            Vec3::X * wide / 2.0,
            Vec3::NEG_Y * wide / 2.0,
            Shape::Rectangle,
        );
        assert!(panel.normal().z < 0.0);
        let flux = PI * luminance * wide * wide;
        let wanted = f64::from(flux / (1.0 - reflectance));
        let staged = staged(maker, panel, luminance, lens(DVec3::ONE, 0.0, 1.0, 0.0, 1.0));
        // Each wall looked at straight and whole, by its own lens: light on it is pi L / rho.
        let mut found = 0.0;
        for (outline, area) in walls {
            let scene = staged.scene.seen_by(facing(&outline, size));
            let staged = Staged::new(scene, staged.groups.clone(), Things::default(), Walk::fastest());
            let picture = taken(&staged, [48, 48], 24);
            found +=
                mean(&picture.luminance()) * std::f64::consts::PI / f64::from(reflectance) * f64::from(area);
        }
        assert!((found - wanted).abs() < 0.01 * wanted, "{reflectance}: {found} lm, wanted {wanted}");
    }
}

/// A lens in the middle of the room, before a wall, that sees all of it and nothing else.
fn facing(outline: &[Vec3; 4], size: Vec3) -> Lens {
    let middle = outline.iter().sum::<Vec3>() / 4.0;
    let (along, up) = (outline[1] - outline[0], outline[3] - outline[0]);
    let forward = -along.cross(up).normalize();
    let depth = (middle - size / 2.0).dot(forward);
    Lens {
        position: middle - forward * depth,
        forward,
        right: along.normalize(),
        up: up.normalize(),
        ratio: [along.length() / depth, up.length() / depth],
        shift: [0.0, 0.0],
        radius_m: 0.0,
        focus_m: 1.0,
    }
}

/// The edge of something bright out of focus: each point becomes an even disc of diameter 2 r (d / u - 1) / d over the width of the
/// field (thin lens), so that the edge climbs as the disc's chords do. The disc's diameter is four times the spread of that climb.
#[test]
fn a_blur_disc_is_as_large_as_the_thin_lens_makes_it() {
    for (depth, focus, radius) in [(3.0, 1.2, 0.02), (0.6, 1.2, 0.02), (4.0, 1.0, 0.008)] {
        let mut maker = Maker::default();
        let shines = maker.material(Finish::Shines(0), 0);
        // All that is left of the middle.
        let corners =
            [(-9.0, -9.0), (0.0, -9.0), (0.0, 9.0), (-9.0, 9.0)].map(|(x, z)| Vec3::new(x, depth, z));
        maker.quad(corners, Vec3::ZERO, shines, 9.0);
        let panel = Panel::new(Vec3::new(-4.5, depth, 0.0), Vec3::X * 4.5, Vec3::Z * 9.0, Shape::Rectangle);
        assert!(panel.normal().y < 0.0);
        let lens = lens(DVec3::ZERO, 0.0, 0.16, radius, focus);
        let staged = staged(maker, panel, 1.0, lens);
        let [width, height] = [240, 16];
        let pixels = taken(&staged, [width, height], 256).luminance();
        let column =
            |x: usize| (0..height).map(|y| f64::from(pixels[y * width + x].y)).sum::<f64>() / height as f64;
        let fall = |x: usize| column(x) - column(x + 1);
        let at = |x: usize| (x + 1) as f64 / width as f64;
        let sum = |of: &dyn Fn(usize) -> f64| (0..width - 1).map(|x| fall(x) * of(x)).sum::<f64>();
        let whole = sum(&|_| 1.0);
        let middle = sum(&at) / whole;
        let found = 4.0 * (sum(&|x| (at(x) - middle).powi(2)) / whole).sqrt();
        let wanted = f64::from(2.0 * radius * (depth / focus - 1.0).abs() / (depth * 0.16));
        assert!((f64::from(lens.blur_part(depth)) - wanted).abs() < 1e-5);
        assert!((found - wanted).abs() < 0.03 * wanted, "{depth} m: {found}, wanted {wanted}");
    }
}

/// A mirror shows what stands before it, at its reflectance; a clear coat at Fresnel's part straight on, ((n - 1) / (n + 1))^2.
#[test]
fn mirrors_and_coats_show_what_shines_before_them() {
    let luminance = 1000.0;
    let straight_on = (0.376_f32 / 2.376).powi(2);
    for (finish, wanted) in [(Finish::Mirror(0.88), 0.88), (Finish::Coat(1.376), straight_on)] {
        let mut maker = Maker::default();
        let plate = maker.material(finish, 0);
        let shines = maker.material(Finish::Shines(0), 1);
        let square = |half: f32, y: f32| {
            [(-half, -half), (half, -half), (half, half), (-half, half)].map(|(x, z)| Vec3::new(x, y, z))
        };
        maker.quad(square(0.2, 1.0), Vec3::ZERO, plate, 1.0);
        // Behind the lens, looking over it at the plate.
        let mut behind = square(0.8, -1.0);
        behind.reverse();
        maker.quad(behind, Vec3::ZERO, shines, 1.0);
        let panel = Panel::new(Vec3::NEG_Y, Vec3::X * 0.8, Vec3::NEG_Z * 0.8, Shape::Rectangle);
        assert!(panel.normal().y > 0.0);
        let staged = staged(maker, panel, luminance, lens(DVec3::ZERO, 0.0, 0.02, 0.0, 1.0));
        let found = mean(&taken(&staged, [4, 4], 16).luminance());
        let wanted = f64::from(wanted * luminance);
        assert!((found - wanted).abs() < 0.005 * wanted, "{finish:?}: {found}, wanted {wanted}");
    }
}

/// The sun behind a window with a reveal: on a floor it lies where straight ways through both edges say, with rho E sin(e) / pi
/// (Lambert), and nowhere else.
#[test]
fn the_sun_lies_where_the_window_lets_it() {
    let (reflectance, illuminance, elevation) = (0.5, 40_000.0_f32, 35f32.to_radians());
    let mut maker = Maker::default();
    let floor = maker.material(Finish::Matt, 0);
    maker.quad(
        [(-3.0, 0.0), (3.0, 0.0), (3.0, 6.0), (-3.0, 6.0)].map(|(x, y)| Vec3::new(x, y, 0.0)),
        Vec3::splat(reflectance),
        floor,
        0.5,
    );
    // The window lies in the plane y = 0 and looks to -y: 1 m wide, 1.2 m high, its sill at 0.9 m, 0.2 m deep.
    let (half_wide, sill, high, reveal_m) = (0.5_f32, 0.9_f32, 1.2_f32, 0.2_f32);
    let beam = Sunbeam {
        to_sun: Vec3::new(0.0, -elevation.cos(), elevation.sin()),
        middle: Vec3::new(0.0, 0.0, sill + high / 2.0),
        along: Vec3::X * half_wide,
        up: Vec3::Z * high / 2.0,
        out: Vec3::NEG_Y,
        reveal_m,
    };
    let source = Source { emits: Emits::Sun(beam), exponent: 1.0, from: vec![(0, Vec3::splat(illuminance))] };
    let body = Placed::new(Arc::new(maker.made()), Affine3A::IDENTITY);
    // The far edge is where the light under the lintel's inner edge lands, the near one over the sill's outer edge.
    let slope = elevation.tan();
    let (near, far) = (sill / slope, (sill + high) / slope - reveal_m);
    let at = |x: f32, y: f32| {
        let eye = DVec3::new(f64::from(x), f64::from(y), 1.0);
        let lens = Lens::new(&Pinhole::new(eye, 0.0, -90.0, 0.002, 0.002, 1.0), 0.0, 1.0);
        let scene = Scene::new(vec![body.clone()], 1, None, vec![source.clone()], 1, lens);
        let group = Group { from: Vec::new(), dial: 1.0, xy: [0.312_7, 0.329_0] };
        let staged = Staged::new(scene, vec![group], Things::default(), Walk::fastest());
        mean(&taken(&staged, [4, 4], 64).luminance())
    };
    let wanted = f64::from(illuminance * elevation.sin()) * f64::from(reflectance) / std::f64::consts::PI;
    for (x, y) in [(0.0, (near + far) / 2.0), (0.45, near + 0.05), (-0.45, far - 0.05)] {
        let found = at(x, y);
        assert!((found - wanted).abs() < 0.005 * wanted, "{found} cd/m2 at {x}, {y}, wanted {wanted}");
    }
    for (x, y) in [(0.0, near - 0.05), (0.0, far + 0.05), (0.55, near + 0.5), (-0.55, near + 0.5)] {
        assert_eq!(at(x, y), 0.0, "at {x}, {y}");
    }
}
