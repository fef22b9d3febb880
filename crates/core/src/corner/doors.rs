//! The floor that doors need.

use crate::geometry::DVec2;
use crate::plan::{Opening, Swing};

/// The floor that a door needs to swing, counter-clockwise; empty for doors that need none.
pub fn door_swing(opening: &Opening, floor: &[DVec2]) -> Vec<DVec2> {
    let wall = usize::from(opening.wall);
    let (Some(start), Some(end)) = (floor.get(wall), floor.get((wall + 1) % floor.len())) else {
        return Vec::new();
    };
    let along = (*end - *start).normalize_or_zero();
    let inward = along.perp();
    let near = *start + along * opening.from_m;
    let far = near + along * opening.width_m;
    // Facing the wall from inside, its direction runs from right to left.
    let (hinge, closed) = match opening.swing_or_usual() {
        Swing::InLeft => (far, -along),
        Swing::InRight => (near, along),
        Swing::Out | Swing::Sliding => return Vec::new(),
    };
    let mut outline = vec![hinge];
    outline.extend((0..=6).map(|i| {
        let angle = f64::from(i) * std::f64::consts::FRAC_PI_2 / 6.0;
        hinge + (closed * angle.cos() + inward * angle.sin()) * opening.width_m
    }));
    if crate::geometry::signed_area_m2(&outline) < 0.0 {
        outline.reverse();
    }
    outline
}
