//! What a point sees of a flat face past solid things: the face less their shadows, cut exactly into convex pieces.

use crate::geometry::{DVec2, DVec3, Solid, hull};

/// Nothing thinner than this part of the way from the face to the point counts.
const THIN: f64 = 1e-6;
/// A piece smaller than this is none, m2.
const NOTHING_M2: f64 = 1e-10;

/// Something that stands in the light.
#[derive(Debug, Clone)]
struct Blocker {
    corners: Vec<DVec3>,
    low: DVec3,
    high: DVec3,
    owner: usize,
}

impl Blocker {
    /// At which part of the straight way `along` from a point its box, grown by `by` on all sides, is left; `None` where
    /// the way passes it by.
    fn leaves(&self, from: DVec3, along: DVec3, by: f64) -> Option<f64> {
        let (mut enter, mut leave) = (0.0f64, 1.0f64);
        for axis in 0..3 {
            let (low, high) = (self.low[axis] - by - from[axis], self.high[axis] + by - from[axis]);
            if along[axis].abs() < 1e-12 {
                if low > 0.0 || high < 0.0 {
                    return None;
                }
                continue;
            }
            let (a, b) = (low / along[axis], high / along[axis]);
            enter = enter.max(a.min(b));
            leave = leave.min(a.max(b));
        }
        (enter <= leave).then_some(leave)
    }
}

/// Everything that may stand in the light, each part with the number of the thing that it belongs to.
#[derive(Debug, Clone, Default)]
pub struct Blockers {
    all: Vec<Blocker>,
}

impl Blockers {
    /// One more part of the thing of this number.
    pub fn add(&mut self, solid: &Solid, owner: usize) {
        let (low, high) = solid.bounds();
        self.all.push(Blocker { corners: solid.corners().to_vec(), low, high, owner });
    }

    /// One more convex part by its corners.
    pub fn add_corners(&mut self, corners: &[DVec3], owner: usize) {
        let low = corners.iter().copied().fold(DVec3::INFINITY, DVec3::min);
        let high = corners.iter().copied().fold(DVec3::NEG_INFINITY, DVec3::max);
        self.all.push(Blocker { corners: corners.to_vec(), low, high, owner });
    }

    /// The corners of every part.
    pub(super) fn corners(&self) -> impl Iterator<Item = &[DVec3]> {
        self.all.iter().map(|blocker| blocker.corners.as_slice())
    }

    /// Whether a straight way between two points meets anything but two things, as a box around each part tells.
    pub fn blocks(&self, from: DVec3, to: DVec3, but: [Option<usize>; 2]) -> bool {
        let others = self.all.iter().filter(|b| !but.contains(&Some(b.owner)));
        others.into_iter().any(|b| b.leaves(from, to - from, 0.0).is_some())
    }

    /// The parts near the way from a face to a point, those of the things `but` left out.
    fn between(
        &self,
        middle: DVec3,
        radius_m: f64,
        point: DVec3,
        but: [Option<usize>; 2],
    ) -> impl Iterator<Item = &Blocker> {
        let along = middle - point;
        // The cone from the point to the face is as wide as the face only there.
        self.all.iter().filter(move |b| {
            !but.contains(&Some(b.owner))
                && b.leaves(point, along, radius_m)
                    .is_some_and(|part| b.leaves(point, along, radius_m * part).is_some())
        })
    }
}

/// A flat face as seen from its own plane.
#[derive(Debug, Clone)]
pub(super) struct Sheet {
    middle: DVec3,
    normal: DVec3,
    across: DVec3,
    up: DVec3,
    radius_m: f64,
    outline: Vec<DVec2>,
    hole: Vec<DVec2>,
}

impl Sheet {
    pub(super) fn new(outline: &[DVec3], hole: &[DVec3], middle: DVec3, normal: DVec3) -> Self {
        let across = normal.any_orthonormal_vector();
        let up = normal.cross(across);
        let flat = |corners: &[DVec3]| -> Vec<DVec2> {
            corners.iter().map(|c| DVec2::new((*c - middle).dot(across), (*c - middle).dot(up))).collect()
        };
        let radius_m = outline.iter().map(|c| (*c - middle).length()).fold(0.0, f64::max);
        Self { middle, normal, across, up, radius_m, outline: flat(outline), hole: flat(hole) }
    }

    /// Corners of what a point sees of the face, one list for each convex piece; `None` where nothing stands between
    /// and the face has no hole: all of it.
    pub(super) fn seen(
        &self,
        point: DVec3,
        blockers: &Blockers,
        but: [Option<usize>; 2],
    ) -> Option<Vec<Vec<DVec3>>> {
        // Cut only once something turns out to stand between: most faces are seen whole.
        let mut cut: Option<Vec<Vec<DVec2>>> =
            (!self.hole.is_empty()).then(|| less(vec![self.outline.clone()], &self.hole));
        for blocker in blockers.between(self.middle, self.radius_m, point, but) {
            let shadow = self.shadow(point, &blocker.corners);
            if shadow.len() >= 3 {
                let left = less(cut.take().unwrap_or_else(|| vec![self.outline.clone()]), &shadow);
                let gone = left.is_empty();
                cut = Some(left);
                if gone {
                    break;
                }
            }
        }
        let pieces = cut?;
        let back = |p: &DVec2| self.middle + self.across * p.x + self.up * p.y;
        Some(pieces.iter().map(|piece| piece.iter().map(back).collect()).collect())
    }

    /// Outline of a convex thing's shadow on the face's plane, thrown from the point, as far as the thing lies between.
    fn shadow(&self, point: DVec3, corners: &[DVec3]) -> Vec<DVec2> {
        let off = self.normal.dot(point - self.middle);
        if off <= 0.0 {
            return Vec::new();
        }
        // Heights over the face, as parts of the point's.
        let height = |c: DVec3| self.normal.dot(c - self.middle) / off;
        let (low, high) = (THIN, 1.0 - THIN);
        let mut between: Vec<DVec3> = Vec::with_capacity(corners.len());
        let inside = |h: f64| (low..=high).contains(&h);
        let heights: Vec<f64> = corners.iter().map(|c| height(*c)).collect();
        between.extend(corners.iter().zip(&heights).filter(|(_, h)| inside(**h)).map(|(c, _)| *c));
        if between.len() < corners.len() {
            for limit in [low, high] {
                for (i, a) in heights.iter().enumerate() {
                    for (j, b) in heights.iter().enumerate().skip(i + 1) {
                        if (a - limit) * (b - limit) < 0.0 {
                            between.push(corners[i] + (corners[j] - corners[i]) * ((limit - a) / (b - a)));
                        }
                    }
                }
            }
        }
        let thrown: Vec<DVec2> = between
            .iter()
            .map(|c| point + (*c - point) / (1.0 - height(*c)) - self.middle)
            .map(|p| DVec2::new(p.dot(self.across), p.dot(self.up)))
            .collect();
        if thrown.len() < 3 { Vec::new() } else { hull(&thrown) }
    }
}

/// Convex pieces less a convex shadow (counter-clockwise): what lies outside its first edge, then inside that and
/// outside the second, and so on.
pub(super) fn less(pieces: Vec<Vec<DVec2>>, shadow: &[DVec2]) -> Vec<Vec<DVec2>> {
    let mut left = Vec::with_capacity(pieces.len());
    let (low, high) = extent(shadow);
    for piece in pieces {
        let (piece_low, piece_high) = extent(&piece);
        let beside = piece_low.cmpge(high).any() || piece_high.cmple(low).any();
        if beside || is_apart(&piece, shadow) || is_apart(shadow, &piece) {
            left.push(piece);
            continue;
        }
        let mut rest = piece;
        for (a, b) in shadow.iter().zip(shadow.iter().cycle().skip(1)) {
            let side = |p: DVec2| (*b - *a).perp_dot(p - *a);
            let outside = cut(&rest, |p| -side(p));
            if area_m2(&outside) > NOTHING_M2 {
                left.push(outside);
            }
            rest = cut(&rest, side);
            if area_m2(&rest) <= NOTHING_M2 {
                break;
            }
        }
    }
    left
}

/// Low and high corner of the box around an outline.
fn extent(outline: &[DVec2]) -> (DVec2, DVec2) {
    let low = outline.iter().copied().fold(DVec2::INFINITY, DVec2::min);
    (low, outline.iter().copied().fold(DVec2::NEG_INFINITY, DVec2::max))
}

/// Whether an edge of the first outline (counter-clockwise) has all of the second on its outer side.
fn is_apart(outline: &[DVec2], other: &[DVec2]) -> bool {
    outline
        .iter()
        .zip(outline.iter().cycle().skip(1))
        .any(|(a, b)| other.iter().all(|p| (*b - *a).perp_dot(*p - *a) <= 0.0))
}

/// The part of a convex outline where `side` is positive.
pub(super) fn cut(outline: &[DVec2], side: impl Fn(DVec2) -> f64) -> Vec<DVec2> {
    let mut kept = Vec::with_capacity(outline.len() + 2);
    for (a, b) in outline.iter().zip(outline.iter().cycle().skip(1)) {
        let (at_a, at_b) = (side(*a), side(*b));
        if at_a >= 0.0 {
            kept.push(*a);
        }
        if (at_a > 0.0 && at_b < 0.0) || (at_a < 0.0 && at_b > 0.0) {
            kept.push(*a + (*b - *a) * (at_a / (at_a - at_b)));
        }
    }
    kept
}

fn area_m2(outline: &[DVec2]) -> f64 {
    if outline.len() < 3 { 0.0 } else { crate::geometry::signed_area_m2(outline).abs() }
}
