//! What the lens sees, by the one projection: room, furniture, a simple stand-in figure, and whatever intrudes.

use crate::assess::bands::{Row, band_of};

use super::labels::{Bare, Label, Naming};
use super::view::{Ink, Stroke, View, stroke};
use crate::corner::{Bound, Corner, Kind, Thing, What, bounds, is_blocked};
use crate::geometry::{DVec2, DVec3, hull};
use crate::reading::Quantity;
use crate::shot::framing::VERTICAL_PART;

/// Depth at which shapes are cut off in front of the lens, m.
const NEAR_M: f64 = 0.05;
/// Pieces of a line that are seen or hidden each by itself.
const PIECES: usize = 24;
/// The safe area for words leaves this much at each side (EBU R 95, from memory).
const SAFE_PART: f64 = 0.05;
/// Corners of the figure's ellipses.
const ROUND: usize = 32;

pub(super) fn draw(corner: &Corner<'_>, all: &[Thing], text_part: f64) -> View {
    let picture = Picture::of(corner, corner.layout.camera.crop);
    let mut strokes = picture.strokes(all, true);
    picture.recorded_round(&mut strokes);
    let labels = picture.guides(&mut strokes);
    let text_size = picture.text_size(text_part);
    Bare { bounds: picture.bounds(), projection: None, strokes, labels }.labelled(text_size, Naming::Letters)
}

/// The picture of another camera, without the guides of the main one.
pub(super) fn draw_other(corner: &Corner<'_>, all: &[Thing], overhead: bool, text_part: f64) -> View {
    let picture = Picture::of(corner, 1.0);
    let strokes = picture.strokes(all, !overhead);
    let text_size = picture.text_size(text_part);
    let bare = Bare { bounds: picture.bounds(), projection: None, strokes, labels: Vec::new() };
    bare.labelled(text_size, Naming::Letters)
}

/// The delivered frame, 1 high, in the middle of the recorded one.
struct Picture<'a> {
    corner: &'a Corner<'a>,
    aspect: f64,
    /// Recorded over delivered width.
    crop: f64,
}

impl<'a> Picture<'a> {
    fn of(corner: &'a Corner<'a>, crop: f64) -> Self {
        Self { corner, aspect: corner.view.width_ratio / corner.view.height_ratio, crop }
    }
}

impl Picture<'_> {
    /// The recorded frame: left, top, right, bottom.
    fn bounds(&self) -> [f64; 4] {
        let margin = (self.crop - 1.0) / 2.0;
        [-margin * self.aspect, -margin, (1.0 + margin) * self.aspect, 1.0 + margin]
    }

    fn text_size(&self, part: f64) -> f64 {
        part * self.aspect.max(1.0) * self.crop
    }

    /// What is recorded round the delivered frame and cut off: a veil on each side of it, and its edge.
    fn recorded_round(&self, strokes: &mut Vec<Stroke>) {
        if self.crop <= 1.0 {
            return;
        }
        let [left, top, right, bottom] = self.bounds();
        let a = self.aspect;
        let mut outline = |ink, [x0, y0, x1, y1]: [f64; 4]| {
            let points = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)].map(DVec2::from).to_vec();
            strokes.push(stroke(ink, None, true, points));
        };
        for side in
            [[left, top, right, 0.0], [left, 1.0, right, bottom], [left, 0.0, 0.0, 1.0], [a, 0.0, right, 1.0]]
        {
            outline(Ink::CutOff, side);
        }
        outline(Ink::DeliveredEdge, [0.0, 0.0, a, 1.0]);
    }

    /// Everything that the lens sees, from back to front.
    fn strokes(&self, all: &[Thing], with_figure: bool) -> Vec<Stroke> {
        let corner = self.corner;
        let mut strokes = Vec::new();
        let bounds = bounds(&corner.brief.room, 0.0);
        self.room(&bounds, &mut strokes);
        self.overhead(&bounds, &mut strokes);
        // Painter's order: far things first, the person by their own depth.
        let mut layers: Vec<(f64, Vec<Stroke>)> = Vec::new();
        if with_figure {
            layers.push((corner.view.depth_m(corner.eyes_m), self.figure()));
        }
        for thing in all {
            // The lens looks through a script glass, and past a screen beside it.
            if matches!(thing.kind, Kind::Person | Kind::Camera) || thing.glass {
                continue;
            }
            let name = corner.name(&thing.id);
            for part in &thing.pieces {
                let depths: Vec<f64> = part.solid.corners().iter().map(|c| corner.view.depth_m(*c)).collect();
                let depth = depths.iter().sum::<f64>() / depths.len().max(1) as f64;
                let (low, high) = part.solid.bounds();
                if is_blocked(&bounds, corner.view.position_m, (low + high) / 2.0) {
                    continue; // round an inner corner
                }
                let ink = match (thing.kind, part.what) {
                    (Kind::Furniture, _) => Ink::Furniture,
                    (Kind::Backdrop, What::Sheet) => Ink::Backdrop,
                    _ => Ink::Intruder,
                };
                if let Some(outline) = self.silhouette(part.solid.corners()) {
                    layers.push((depth, vec![stroke(ink, Some(&name), true, outline)]));
                }
            }
        }
        layers.sort_by(|a, b| b.0.total_cmp(&a.0));
        strokes.extend(layers.into_iter().flat_map(|(_, s)| s));
        strokes
    }

    /// Picture coordinates: 1 = the picture's height.
    fn at(&self, point: DVec3) -> Option<DVec2> {
        self.corner.view.project(point).map(|(x, y)| DVec2::new(x * self.aspect, y))
    }

    /// A convex outline of projected corners cut to the picture; `None` where nothing of it shows.
    fn silhouette(&self, corners: &[DVec3]) -> Option<Vec<DVec2>> {
        let depth = |p: DVec3| self.corner.view.depth_m(p);
        let mut points: Vec<DVec2> =
            corners.iter().filter(|c| depth(**c) > NEAR_M).filter_map(|c| self.at(*c)).collect();
        // Where a thing reaches behind the lens, the lines between its corners are cut at the near plane.
        if points.len() < corners.len() {
            for (i, a) in corners.iter().enumerate() {
                for b in &corners[i + 1..] {
                    let (da, db) = (depth(*a), depth(*b));
                    if (da > NEAR_M) != (db > NEAR_M) {
                        let t = (NEAR_M * 1.001 - da) / (db - da);
                        points.extend(self.at(*a + (*b - *a) * t));
                    }
                }
            }
        }
        let outline = self.cut(hull(&points));
        (outline.len() > 2).then_some(outline)
    }

    /// Sutherland-Hodgman against the picture's four edges.
    fn cut(&self, mut outline: Vec<DVec2>) -> Vec<DVec2> {
        let [left, top, right, bottom] = self.bounds();
        let (first, last) = (DVec2::new(left, top), DVec2::new(right, bottom));
        let edges: [(DVec2, DVec2); 4] =
            [(first, DVec2::X), (last, DVec2::NEG_X), (first, DVec2::Y), (last, DVec2::NEG_Y)];
        for (origin, inward) in edges {
            let side = |p: DVec2| inward.dot(p - origin);
            let mut kept = Vec::with_capacity(outline.len() + 2);
            for (i, a) in outline.iter().enumerate() {
                let b = outline[(i + 1) % outline.len()];
                let (sa, sb) = (side(*a), side(b));
                if sa >= 0.0 {
                    kept.push(*a);
                }
                if (sa > 0.0 && sb < 0.0) || (sa < 0.0 && sb > 0.0) {
                    kept.push(*a + (b - *a) * (sa / (sa - sb)));
                }
            }
            outline = kept;
        }
        outline
    }

    /// A line in the room, cut to the picture.
    fn line(&self, from: DVec3, to: DVec3) -> Option<Vec<DVec2>> {
        let (mut a, mut b) = (from, to);
        let (da, db) = (self.corner.view.depth_m(a), self.corner.view.depth_m(b));
        if da <= NEAR_M && db <= NEAR_M {
            return None;
        }
        let crossing = a + (b - a) * ((NEAR_M * 1.001 - da) / (db - da));
        if da <= NEAR_M {
            a = crossing;
        } else if db <= NEAR_M {
            b = crossing;
        }
        let (p, q) = (self.at(a)?, self.at(b)?);
        // Liang-Barsky.
        let d = q - p;
        let (mut enter, mut leave) = (0.0f64, 1.0f64);
        let [left, top, right, bottom] = self.bounds();
        for (slope, room) in [(-d.x, p.x - left), (d.x, right - p.x), (-d.y, p.y - top), (d.y, bottom - p.y)]
        {
            if slope.abs() < 1e-12 {
                if room < 0.0 {
                    return None;
                }
            } else if slope < 0.0 {
                enter = enter.max(room / slope);
            } else {
                leave = leave.min(room / slope);
            }
        }
        (enter < leave).then(|| vec![p + d * enter, p + d * leave])
    }

    /// A line of the room as far as no inner corner, slope or beam hides it.
    fn seen(&self, bounds: &[Bound], from: DVec3, to: DVec3, strokes: &mut Vec<Stroke>) {
        let pieces = if bounds.is_empty() { 1 } else { PIECES };
        let at = |i: usize| from.lerp(to, i as f64 / pieces as f64);
        let lens = self.corner.view.position_m;
        let hidden = |i: usize| {
            let middle = (at(i) + at(i + 1)) / 2.0;
            is_blocked(bounds, lens, middle + (lens - middle).normalize_or_zero() * 0.01)
        };
        let mut start = None;
        for i in 0..=pieces {
            if i < pieces && !hidden(i) {
                start = start.or(Some(i));
            } else if let Some(first) = start.take() {
                let line = self.line(at(first), at(i));
                strokes.extend(line.map(|points| stroke(Ink::Wall, None, false, points)));
            }
        }
    }

    /// The lower edges of slopes and beams.
    fn overhead(&self, bounds: &[Bound], strokes: &mut Vec<Stroke>) {
        let room = &self.corner.brief.room;
        let mut line = |from: DVec3, to: DVec3| self.seen(bounds, from, to, strokes);
        for slope in room.slopes.values() {
            let Some((from, to, inward)) = slope.ends_m(room) else { continue };
            let (knee, top, run) = (slope.knee_m, room.height_m, inward * slope.run_m);
            line(from.extend(knee), to.extend(knee));
            line((from + run).extend(top), (to + run).extend(top));
            line(from.extend(knee), (from + run).extend(top));
            line(to.extend(knee), (to + run).extend(top));
        }
        for beam in room.beams.values() {
            let outline = beam.outline_m();
            for (a, b) in outline.iter().zip(outline.iter().cycle().skip(1)) {
                for z in [room.height_m - beam.drop_m, room.height_m] {
                    line(a.extend(z), b.extend(z));
                }
                line(a.extend(room.height_m - beam.drop_m), a.extend(room.height_m));
            }
        }
    }

    fn room(&self, bounds: &[Bound], strokes: &mut Vec<Stroke>) {
        let floor = &self.corner.floor_m;
        let height = self.corner.room_m[2];
        for (index, (a, b)) in floor.iter().zip(floor.iter().cycle().skip(1)).enumerate() {
            for (from, to) in [
                (a.extend(0.0), b.extend(0.0)),
                (a.extend(height), b.extend(height)),
                (a.extend(0.0), a.extend(height)),
            ] {
                self.seen(bounds, from, to, strokes);
            }
            let along = (*b - *a).normalize_or_zero();
            for (id, opening) in &self.corner.brief.room.openings {
                if usize::from(opening.wall) != index {
                    continue;
                }
                let (x0, x1) = (*a + along * opening.from_m, *a + along * (opening.from_m + opening.width_m));
                let (z0, z1) =
                    (opening.sill_or_usual_m(), opening.sill_or_usual_m() + opening.height_or_usual_m());
                let middle = ((x0 + x1) / 2.0 + along.perp() * 0.01).extend((z0 + z1) / 2.0);
                if is_blocked(bounds, self.corner.view.position_m, middle) {
                    continue;
                }
                let corners = [x0.extend(z0), x1.extend(z0), x1.extend(z1), x0.extend(z1)];
                let ink = match opening.kind {
                    crate::plan::OpeningKind::Door => Ink::Door,
                    crate::plan::OpeningKind::Window => Ink::Window,
                };
                if let Some(outline) = self.silhouette(&corners) {
                    strokes.push(stroke(ink, Some(&id.0), true, outline));
                }
            }
        }
    }

    /// Head, neck and shoulders turned to the lens.
    fn figure(&self) -> Vec<Stroke> {
        let corner = self.corner;
        let marks = &corner.landmarks;
        let right = corner.view.right;
        let at = |across: f64, z: f64| corner.eyes_m.with_z(z) + right * across;
        let half = corner.brief.person.shoulder_breadth_m() / 2.0;
        let head_height = marks.crown_m - marks.chin_m;
        let neck = 0.30 * head_height;
        let neck_top = marks.chin_m + 0.06 * head_height;
        let shoulder = marks.shoulder_m;
        // From the neck over the shoulder to the arm, then down beside the body.
        let side = |sign: f64| {
            vec![
                at(sign * neck, neck_top),
                at(sign * neck, shoulder + 0.03),
                at(sign * half * 0.60, shoulder + 0.005),
                at(sign * half * 0.86, shoulder - 0.025),
                at(sign * half * 0.98, shoulder - 0.075),
                at(sign * half * 1.04, marks.chest_m),
                at(sign * half * 1.05, marks.waist_m - 0.35),
            ]
        };
        let mut body = side(-1.0);
        body.extend(side(1.0).into_iter().rev());
        let middle = (marks.crown_m + marks.chin_m) / 2.0;
        let head: Vec<DVec3> = (0..ROUND)
            .map(|i| {
                let (sin, cos) = (i as f64 * std::f64::consts::TAU / ROUND as f64).sin_cos();
                // A little narrower at the chin.
                let width = head_height * 0.375 * if sin < 0.0 { 1.0 + 0.14 * sin } else { 1.0 };
                at(width * cos, middle + head_height / 2.0 * sin)
            })
            .collect();
        let mut strokes = Vec::new();
        let mut outline = |ink, points: Vec<DVec3>| {
            let flat: Vec<DVec2> = points.iter().filter_map(|p| self.at(*p)).collect();
            let cut = self.cut(flat);
            if cut.len() > 2 {
                strokes.push(stroke(ink, Some("person"), true, cut));
            }
        };
        outline(Ink::Person, body);
        outline(Ink::Head, head);
        for (from, to) in [
            (at(-0.045, marks.eye_m), at(-0.018, marks.eye_m)),
            (at(0.018, marks.eye_m), at(0.045, marks.eye_m)),
            (at(-0.022, marks.mouth_m), at(0.022, marks.mouth_m)),
        ] {
            strokes.extend(self.line(from, to).map(|p| stroke(Ink::Head, Some("person"), false, p)));
        }
        strokes
    }

    /// Guides that are switched on when wanted: centre, safe area, vertical cut, headroom band.
    fn switched(&self, strokes: &mut Vec<Stroke>) {
        let a = self.aspect;
        let line = |from: (f64, f64), to: (f64, f64)| vec![DVec2::from(from), DVec2::from(to)];
        let arm = 0.04;
        strokes.push(stroke(Ink::Centre, None, false, line((a / 2.0 - arm, 0.5), (a / 2.0 + arm, 0.5))));
        strokes.push(stroke(Ink::Centre, None, false, line((a / 2.0, 0.5 - arm), (a / 2.0, 0.5 + arm))));
        let (x, y) = (SAFE_PART * a, SAFE_PART);
        let safe = [(x, y), (a - x, y), (a - x, 1.0 - y), (x, 1.0 - y)].map(DVec2::from).to_vec();
        strokes.push(stroke(Ink::SafeArea, None, true, safe));
        if a > 1.0 {
            let half = VERTICAL_PART / 2.0;
            for x in [0.5 - half, 0.5 + half] {
                strokes.push(stroke(Ink::VerticalCut, None, false, line((x * a, 0.0), (x * a, 1.0))));
            }
        }
        let id = Quantity::ShotFrameHeadroomFraction;
        if let Some([_, Some(low), Some(high), _]) = band_of(id, &Row::of(self.corner)).0 {
            let band = [(0.0, low), (a, low), (a, high), (0.0, high)].map(DVec2::from).to_vec();
            strokes.push(stroke(Ink::HeadroomBand, None, true, band));
        }
    }

    /// Thirds, eye line and headroom.
    fn guides(&self, strokes: &mut Vec<Stroke>) -> Vec<Label> {
        let a = self.aspect;
        self.switched(strokes);
        for part in [1.0 / 3.0, 2.0 / 3.0] {
            strokes.push(stroke(Ink::Guide, None, false, vec![DVec2::new(0.0, part), DVec2::new(a, part)]));
            strokes.push(stroke(
                Ink::Guide,
                None,
                false,
                vec![DVec2::new(part * a, 0.0), DVec2::new(part * a, 1.0)],
            ));
        }
        let corner = self.corner;
        let mut labels = Vec::new();
        let eyes = self.at(corner.eyes_m);
        if let Some(eyes) = eyes.filter(|e| (0.0..=1.0).contains(&e.y)) {
            strokes.push(stroke(
                Ink::EyeLine,
                None,
                false,
                vec![DVec2::new(0.0, eyes.y), DVec2::new(a, eyes.y)],
            ));
            labels.push(Label {
                letter: "",
                thing: None,
                name: None,
                text: format!("eyes {:.0} % down", 100.0 * eyes.y),
                at: DVec2::new(self.bounds()[0] + 0.02 * a * self.crop, eyes.y),
                ink: Ink::EyeLine,
            });
        }
        if let Some(crown) = self.at(corner.eyes_m.with_z(corner.landmarks.crown_m)) {
            if crown.y > 0.0 {
                strokes.push(stroke(
                    Ink::Headroom,
                    None,
                    false,
                    vec![DVec2::new(crown.x, 0.0), DVec2::new(crown.x, crown.y)],
                ));
            }
            labels.push(Label {
                letter: "",
                thing: None,
                name: None,
                text: format!("headroom {:.0} %", 100.0 * crown.y),
                at: DVec2::new(crown.x, (crown.y / 2.0).max(0.0)),
                ink: Ink::Headroom,
            });
        }
        labels
    }
}
