//! Distance and focal length by hand: the camera goes along its line from the eyes and keeps them where they are in
//! the picture. Near the wanted frame the focal length is drawn to it; beyond what the lenses at hand reach it stops.

use crate::corner::Corner;
use crate::edit::{fill_bag, set_pose};
use crate::finding::Rule;
use crate::geometry::{DVec2, DVec3};
use crate::plan::{Layout, Plan, SupportKind, ThingId};
use crate::shot::framing::{Line, Wanted, depth_on, focal_on, pose_on};
use crate::shot::lens::frame_size_m;

use super::moves::{Grasp, Grip, Held, Outcome};
use super::resist;

/// A frame no further from the wanted one than this is drawn to it.
const NEAR_FRAME: f64 = 0.06;

/// What a hand asks for: a distance and a focal length, and the frame they give.
#[derive(Debug, Clone, Copy)]
struct Asked {
    distance_m: f64,
    focal_mm: f64,
    /// It frames the wanted shot.
    framed: bool,
}

/// Moves and zooms the camera.
pub(super) fn shot(before: &Plan, corner: &Corner<'_>, by: &Grasp<'_>) -> Outcome {
    let wanted = crate::shot::wanted_of(corner);
    let now = Asked {
        distance_m: corner.subject_distance_m(),
        focal_mm: corner.layout.camera.focal_length_mm,
        framed: false,
    };
    let mut snaps = Vec::new();
    let mut asked = asked(corner, by, &wanted, now);
    let height = |a: Asked| frame_size_m(corner.image_mm.1, a.focal_mm, a.distance_m);
    if by.snap && !asked.framed && (height(asked) / wanted.frame_height_m - 1.0).abs() < NEAR_FRAME {
        asked = Asked { focal_mm: focal_for(corner, asked.distance_m, &wanted), framed: true, ..asked };
        snaps.push("The wanted frame.".to_owned());
    }
    let (reached, kept) = within_lenses(corner, asked, &wanted);
    let from = corner.layout.camera.focal_length_mm;
    let put = |part: f64| {
        let focal = from * (reached.focal_mm / from).powf(part);
        let distance = now.distance_m + part * (reached.distance_m - now.distance_m);
        layout_at(
            corner,
            &wanted,
            Asked { distance_m: distance, focal_mm: focal, framed: reached.framed && part >= 1.0 },
        )
    };
    let mut after = resist::along(before, by.anyway, put);
    if after.held.is_none() {
        after.snaps = snaps;
        after.held = kept;
    }
    after
}

/// The point asked for.
fn asked(corner: &Corner<'_>, by: &Grasp<'_>, wanted: &Wanted, now: Asked) -> Asked {
    match (by.grip, by.to_m, by.distance_m, by.focal_length_mm) {
        (Grip::Zoom, Some(to), ..) => Asked { focal_mm: through(corner, to.into()), ..now },
        (_, _, Some(distance_m), Some(focal_mm)) => Asked { distance_m, focal_mm, framed: false },
        (_, _, Some(distance_m), None) => {
            Asked { distance_m, focal_mm: focal_for(corner, distance_m, wanted), framed: true }
        }
        (_, _, None, Some(focal_mm)) => {
            let distance_m = distance_for(corner, focal_mm, wanted);
            Asked { distance_m, focal_mm, framed: true }
        }
        _ => now,
    }
}

/// Focal length with which the picture's edge passes plumb over a point of the floor, mm.
fn through(corner: &Corner<'_>, at: DVec3) -> f64 {
    let forward = corner.view.forward.truncate().normalize_or_zero();
    let off = at.truncate() - corner.view.position_m.truncate();
    let (ahead, aside) = (off.dot(forward), off.perp_dot(forward).abs());
    let camera = &corner.layout.camera;
    if ahead < 0.05 || aside < 0.01 {
        return camera.focal_length_mm;
    }
    let image_m = corner.image_mm.0 / 1000.0 * ahead / (2.0 * aside);
    let u = camera.focus_distance_m;
    // 1/f = 1/v + 1/u, as focused.
    1000.0 * image_m * u / (image_m + u)
}

fn focal_for(corner: &Corner<'_>, distance_m: f64, wanted: &Wanted) -> f64 {
    focal_on(Line::now(corner, wanted), wanted, distance_m, corner.image_mm.1)
}

fn distance_for(corner: &Corner<'_>, focal_mm: f64, wanted: &Wanted) -> f64 {
    depth_on(Line::now(corner, wanted), wanted, focal_mm, corner.image_mm.1)
}

/// What is asked for, as far as the lenses at hand go, and why not farther.
fn within_lenses(corner: &Corner<'_>, asked: Asked, wanted: &Wanted) -> (Asked, Option<Held>) {
    if corner.lens_for(asked.focal_mm).is_some() {
        return (asked, None);
    }
    let ends = corner.lenses().flat_map(|(_, lens)| [lens.focal_min_mm, lens.focal_max_mm]);
    let off = |f: &f64| (f / asked.focal_mm).log2().abs();
    let Some(end) = ends.min_by(|a, b| off(a).total_cmp(&off(b))) else { return (asked, None) };
    let distance_m = if asked.framed { distance_for(corner, end, wanted) } else { asked.distance_m };
    let side = if end < asked.focal_mm { "longer" } else { "shorter" };
    let sentence = format!("No lens at hand goes {side} than {end} mm.");
    (Asked { distance_m, focal_mm: end, ..asked }, Some(Held { rule: Rule::Lens, sentence }))
}

/// The camera at a distance and a focal length, on its line from the eyes.
fn layout_at(corner: &Corner<'_>, wanted: &Wanted, at: Asked) -> Layout {
    let mut layout = corner.layout.clone();
    let (width, height) = corner.image_mm;
    let focal =
        if at.framed { (at.focal_mm * 100.0).round() / 100.0 } else { (at.focal_mm * 10.0).round() / 10.0 };
    let line = Line::now(corner, wanted);
    let frame = frame_size_m(height, focal, at.distance_m);
    let want = if at.framed { *wanted } else { wanted.scaled(frame / wanted.frame_height_m) };
    let view = &corner.view;
    let to_lens_deg = crate::geometry::bearing_of(-view.forward.with_z(0.0));
    let mut pose = pose_on(line, &want, focal, height, corner.eyes_m, to_lens_deg);
    // The face stays where it is across the picture.
    let (x, _) = view.project(corner.eyes_m).unwrap_or((0.5, 0.5));
    pose.position_m += view.right * ((0.5 - x) * want.frame_height_m * width / height);
    let camera = &mut layout.camera;
    if let Some((id, lens)) = corner.lens_for(focal) {
        camera.lens = id.clone();
        let widest = (lens.widest_f_number(focal) * 10.0).round() / 10.0;
        camera.f_number = camera.f_number.clamp(widest, lens.f_number_limit.max(widest));
    }
    let foot = camera.support.base_m.map(DVec2::from);
    let was = view.position_m.truncate();
    set_pose(camera, &pose, focal);
    // A boom's foot goes along; a floor stand's is plumb again; an arm on the wall is fixed anew.
    if camera.support.kind == SupportKind::Wall {
        super::follow::refix(corner, &mut camera.support, pose.position_m);
    }
    if camera.support.kind == SupportKind::Boom {
        camera.support.base_m =
            foot.map(|foot| crate::edit::rounded_floor(foot + pose.position_m.truncate() - was));
    }
    super::follow::after_camera(corner, &mut layout);
    fill_bag(corner.brief, &mut layout, &ThingId::Camera);
    layout
}
