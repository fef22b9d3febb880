//! What stands behind the head, by its size and place in the picture: large things and small ones, something that grows
//! out of the head, a bright window, a mirror or glass that shows the camera or a lamp, clothes of the background's
//! colour, a backdrop too narrow for the picture. Bands and limits: few large things good, many small ones distracting
//! is common practice, no source; the limits are Fogon's own rule.

use crate::corner::{Corner, shown};
use crate::geometry::{DVec3, signed_area_m2};
use crate::person::HEAD_RADIUS_M;
use crate::plan::{FurnitureKind, Hair, Id, Purpose, Role, WALL_NAMES};
use crate::reading::{Origin, Quantity, Reading};

/// A thing is large from this part of the picture on, and seen at all from that.
const LARGE: f64 = 0.04;
const SEEN: f64 = 0.002;
/// Narrower than so many heads, a thing over the crown seems to grow out of it.
const STALK_HEADS: f64 = 1.3;
/// Clothes and background nearer than this in light are one, stops.
const SAME_STOPS: f64 = 0.4;
/// The same for hair, and what dark and light hair reflect. Fogon's own rule.
const SAME_HAIR_STOPS: f64 = 1.0;
const DARK_HAIR: f64 = 0.05;
const LIGHT_HAIR: f64 = 0.35;

/// Things in the picture behind the person.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Behind {
    /// How many are large.
    pub large: usize,
    /// How many are small.
    pub small: usize,
    /// One that grows out of the head.
    pub grows: Option<Id>,
    /// A window in the picture.
    pub window: Option<Id>,
    /// A mirror or glass, and what it shows.
    pub mirrored: Option<(Id, String)>,
    /// The background's light against that of what is worn, stops, where both are known and alike.
    pub alike_stops: Option<f64>,
    /// The same for the hair, where no back light outlines it.
    pub hair_stops: Option<f64>,
}

/// What lies behind the person in this corner's picture.
pub fn behind(corner: &Corner<'_>) -> Behind {
    let mut found = Behind::default();
    let room = &corner.brief.room;
    let head = head(corner);
    let screened = corner.backdrop_behind_m();
    let away = -corner.to_lens();
    // A backdrop hides what is behind it.
    let hidden = |at: DVec3| screened.is_some_and(|to| (at - corner.eyes_m).dot(away) > to);
    for (id, piece) in &room.furniture {
        if piece.kind == FurnitureKind::Chair && !piece.fixed {
            continue;
        }
        let corners = corner.furniture_box(id, piece);
        let middle = corners.iter().copied().sum::<DVec3>() / 8.0;
        let beyond = corner.view.depth_m(middle) > corner.subject_distance_m();
        if !beyond || hidden(middle) {
            continue;
        }
        let Some(flat) = corner.outline_in_picture(&corners) else { continue };
        let Some((low, high)) = shown(&flat) else { continue };
        let part = signed_area_m2(&flat).abs().min((high.x - low.x) * (high.y - low.y));
        if part < SEEN {
            continue;
        }
        if part >= LARGE {
            found.large += 1
        } else {
            found.small += 1
        }
        if let Some((left, right, top)) = head
            && high.x - low.x < STALK_HEADS * (right - left)
            && high.x > left
            && low.x < right
            && low.y < top
            && high.y > top - 0.02
        {
            found.grows = Some(id.clone());
        }
        let mirror = matches!(piece.kind, FurnitureKind::Mirror | FurnitureKind::Picture);
        if mirror && let Some(what) = shows(corner, &corners) {
            found.mirrored = Some((id.clone(), what));
        }
    }
    for (id, opening) in room.openings.iter().filter(|(_, o)| o.is_open_to_light()) {
        let middle = opening.middle_m(&corner.floor_m);
        let z = opening.sill_or_usual_m() + opening.height_or_usual_m() / 2.0;
        let at = middle.extend(z);
        if corner.view.sees(at) && !hidden(at) {
            found.window = Some(id.clone());
        }
    }
    found.alike_stops =
        corner.brief.person.clothing_reflectance.and_then(|worn| alike(corner, worn, SAME_STOPS));
    if corner.role(Role::Back).next().is_none() {
        found.hair_stops = hair_reflectance(corner).and_then(|hair| alike(corner, hair, SAME_HAIR_STOPS));
    }
    found
}

/// Left, right and top of the head in the picture.
fn head(corner: &Corner<'_>) -> Option<(f64, f64, f64)> {
    let right = corner.view.right * HEAD_RADIUS_M;
    let (left, _) = corner.view.project(corner.eyes_m - right)?;
    let (right, _) = corner.view.project(corner.eyes_m + right)?;
    let (_, top) = corner.view.project(corner.eyes_m.with_z(corner.landmarks.crown_m))?;
    Some((left, right, top))
}

/// What a flat thing's front reflects into the lens: the camera itself or a lamp, by their mirror images.
fn shows(corner: &Corner<'_>, corners: &[DVec3; 8]) -> Option<String> {
    // The front is the side that faces the bearing: corners 2, 3, 6, 7.
    let [right, left, up] = [corners[2], corners[3], corners[7] - corners[3]];
    let across = right - left;
    let normal = up.cross(across).normalize_or_zero();
    let lens = corner.view.position_m;
    let normal = if normal.dot(lens - left) < 0.0 { -normal } else { normal };
    let image = |point: DVec3| point - normal * (2.0 * normal.dot(point - left));
    let visible = |point: DVec3| {
        let target = image(point);
        let (from, to) = (normal.dot(lens - left), normal.dot(target - left));
        // Both before the glass, and the way to the image through it, where the picture shows it and nobody hides it.
        if normal.dot(point - left) <= 0.0 || from <= 0.0 {
            return false;
        }
        let at = lens + (target - lens) * (from / (from - to));
        let (x, z) =
            ((at - left).dot(across) / across.length_squared(), (at - left).dot(up) / up.length_squared());
        let inside = (0.0..=1.0).contains(&x) && (0.0..=1.0).contains(&z);
        inside && corner.view.sees(at) && !behind_person(corner, at)
    };
    if visible(lens) {
        return Some("camera".into());
    }
    corner.lights.iter().find(|light| visible(light.position_m)).map(|light| light.words())
}

/// Whether head or torso hides a point from the lens.
fn behind_person(corner: &Corner<'_>, at: DVec3) -> bool {
    let Some((x, y)) = corner.view.project(at) else { return true };
    let Some((left, right, top)) = head(corner) else { return false };
    let half = corner.brief.person.shoulder_breadth_m() / 2.0;
    let shoulder = corner.eyes_m.with_z(corner.landmarks.shoulder_m);
    let edge = |side: f64| corner.view.project(shoulder + corner.view.right * (side * half));
    let in_head = x > left && x < right && y > top;
    let in_body = match (edge(-1.0), edge(1.0)) {
        (Some((l, level)), Some((r, _))) => x > l && x < r && y > level,
        _ => false,
    };
    in_head || in_body
}

/// What the hair reflects, where there is any and it is told.
fn hair_reflectance(corner: &Corner<'_>) -> Option<f64> {
    match corner.brief.person.hair? {
        Hair::Dark => Some(DARK_HAIR),
        Hair::Light | Hair::Grey => Some(LIGHT_HAIR),
        Hair::None => None,
    }
}

/// Stops between what has a reflectance and the background, where that is told and no more than `most` apart.
fn alike(corner: &Corner<'_>, reflectance: f64, most: f64) -> Option<f64> {
    let background = match corner.backdrop {
        Some((gear, _)) if corner.backdrop_behind_m().is_some() => gear.reflectance?,
        _ => {
            let (wall, _) = corner.wall_behind()?;
            corner.brief.room.surfaces.get(WALL_NAMES[wall])?.reflectance?
        }
    };
    let stops = (background / reflectance).log2();
    (stops.abs() < most).then_some(stops)
}

/// How far the backdrop reaches beyond the picture on either side, m; negative where its edge shows.
pub fn backdrop_margin_m(corner: &Corner<'_>) -> Option<f64> {
    let (gear, _) = corner.backdrop?;
    let depth = corner.subject_distance_m() + corner.backdrop_behind_m()?;
    Some((gear.width_m - corner.view.frame_width_m(depth)) / 2.0)
}

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let found = behind(corner);
    let mut all = vec![
        Reading::new(Quantity::ShotBackgroundThings, (found.large + found.small) as f64)
            .by("things whose outline takes 0.2 % of the picture or more; large from 4 %", "perspective geometry; limits are Fogon's own rule")
            .with("large", found.large as f64, "", Origin::Computed)
            .with("small", found.small as f64, "", Origin::Computed)
            .note("A few large things behind you are calm, many small ones are not: common practice, no source."),
    ];
    if let Some(margin) = backdrop_margin_m(corner) {
        all.push(
            Reading::new(Quantity::ShotBackgroundBackdropMarginM, margin)
                .by("(width - framed width there) / 2", super::lens::OPTICS)
                .with(
                    "eyes to the backdrop",
                    corner.backdrop_behind_m().unwrap_or(0.0),
                    "m",
                    Origin::Computed,
                )
                .with("lens to eyes", corner.subject_distance_m(), "m", Origin::Computed),
        );
    }
    all
}

/// Whether this purpose asks for a plain background.
pub fn wants_plain(purpose: Purpose) -> bool {
    matches!(purpose, Purpose::AuditionTape | Purpose::ScreenLesson | Purpose::KeyedBackground)
}
