//! Marks that one person can lay with one tape.

use serde::Serialize;
use utoipa::ToSchema;

use crate::geometry::DVec2;

/// A place on the floor as tape lengths, m.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct TapeMark {
    /// From the left wall.
    pub from_left_m: f64,
    /// From the back wall.
    pub from_back_m: f64,
    /// To the back-left corner.
    pub to_back_left_corner_m: f64,
    /// To the back-right corner.
    pub to_back_right_corner_m: f64,
    /// How far off the mark may be when both corner lengths are off by the tape error; none on the back wall.
    pub worst_error_m: Option<f64>,
}

/// The tape lengths of a mark at (x, y) in a room of a given width.
pub fn tape_mark(room_width_m: f64, x_m: f64, y_m: f64, tape_error_m: f64) -> TapeMark {
    let (at, right) = (DVec2::new(x_m, y_m), DVec2::new(room_width_m, 0.0));
    let worst = worst_error_m(at, [DVec2::ZERO, right], tape_error_m);
    TapeMark {
        from_left_m: x_m,
        from_back_m: y_m,
        to_back_left_corner_m: at.length(),
        to_back_right_corner_m: at.distance(right),
        worst_error_m: (y_m > 0.0 && worst.is_finite()).then_some(worst),
    }
}

/// A corner of the room and the tape length from it, m.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FromCorner {
    /// Its letter on plan and card.
    pub corner: &'static str,
    /// From it to the mark.
    pub length_m: f64,
}

/// A mark by its two corners.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CornerMark {
    /// From the wall on the left, x = 0, m.
    pub from_left_m: f64,
    /// From the wall at the back, y = 0, m.
    pub from_back_m: f64,
    /// The two corners whose lengths fix the mark best, in the order of their letters.
    pub corners: [FromCorner; 2],
    /// How far off the mark may be when both lengths are off by the tape error; none in line with both corners.
    pub worst_error_m: Option<f64>,
}

/// How far off a mark may be for a tape error in both corner lengths: two circles that cross at the angle g magnify
/// it by 1 / min(sin(g/2), cos(g/2)). Infinite in line with both.
pub fn worst_error_m(at: DVec2, corners: [DVec2; 2], tape_error_m: f64) -> f64 {
    let [a, b] = corners.map(|corner| corner - at);
    let half = a.perp_dot(b).abs().atan2(a.dot(b)) / 2.0;
    tape_error_m / half.sin().min(half.cos()).max(0.0)
}

/// The mark by the two of these lettered corners that give the smallest worst error; the first of equals. `None` for
/// fewer than two corners.
pub fn corner_mark(at: DVec2, corners: &[(&'static str, DVec2)], tape_error_m: f64) -> Option<CornerMark> {
    let mut best: Option<(f64, usize, usize)> = None;
    for first in 0..corners.len() {
        for second in first + 1..corners.len() {
            let worst = worst_error_m(at, [corners[first].1, corners[second].1], tape_error_m);
            if best.is_none_or(|(least, ..)| worst < least - 1e-9) {
                best = Some((worst, first, second));
            }
        }
    }
    let (worst, first, second) = best?;
    let from =
        |index: usize| FromCorner { corner: corners[index].0, length_m: corners[index].1.distance(at) };
    Some(CornerMark {
        from_left_m: at.x,
        from_back_m: at.y,
        corners: [from(first), from(second)],
        worst_error_m: worst.is_finite().then_some(worst),
    })
}
