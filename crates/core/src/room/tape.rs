//! Marks that one person can lay with one tape.

use serde::Serialize;
use utoipa::ToSchema;

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

/// The tape lengths of a mark at (x, y) in a room of a given width. Two circles that cross at the angle g
/// magnify an error of both radii by 1 / min(sin(g/2), cos(g/2)).
pub fn tape_mark(room_width_m: f64, x_m: f64, y_m: f64, tape_error_m: f64) -> TapeMark {
    let to_left = x_m.hypot(y_m);
    let to_right = (room_width_m - x_m).hypot(y_m);
    // The angle at the mark between the two corners, from the two sides and the wall between them.
    let crossing = (x_m.atan2(y_m) + (room_width_m - x_m).atan2(y_m)) / 2.0;
    let worst = tape_error_m / crossing.sin().min(crossing.cos());
    TapeMark {
        from_left_m: x_m,
        from_back_m: y_m,
        to_back_left_corner_m: to_left,
        to_back_right_corner_m: to_right,
        worst_error_m: (y_m > 0.0 && worst.is_finite()).then_some(worst),
    }
}
