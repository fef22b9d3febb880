//! Hands at rest.
use glam::Vec3;

use crate::pose::Hand;
use crate::shape::{ellipsoid, join, rod};

/// Where fingers begin beside the middle of the palm, how long they are, and how thick: index to little finger.
const FINGERS: [[f32; 3]; 4] =
    [[0.027, 0.078, 0.0082], [0.009, 0.085, 0.0084], [-0.009, 0.079, 0.0080], [-0.026, 0.063, 0.0072]];

/// Distance to the skin of a hand on a side (1 left).
pub(crate) fn hand(hand: &Hand, side: f32, point: Vec3) -> f32 {
    let ahead = hand.fingers;
    let up = hand.back.reject_from_normalized(ahead).normalize_or_zero();
    // To the thumb.
    let beside = ahead.cross(up) * side;
    let off = point - hand.wrist;
    // As if it lay before us: x to the thumb, y along, z to the back.
    let p = Vec3::new(off.dot(beside), off.dot(ahead), off.dot(up));
    let far = (p - Vec3::new(0.0, 0.07, 0.0)).length() - 0.14;
    if far > 0.03 {
        return far;
    }
    // Up the sleeve, along the forearm.
    let sleeve = hand.forearm * -0.045;
    let sleeve = Vec3::new(sleeve.dot(beside), sleeve.dot(ahead), sleeve.dot(up));
    let wrist = rod(p, sleeve, Vec3::new(0.0, 0.012, 0.0), [0.0265, 0.0245]);
    let palm = ellipsoid(p, Vec3::new(0.001, 0.052, 0.0), Vec3::new(0.041, 0.056, 0.0165));
    let heel = ellipsoid(p, Vec3::new(0.019, 0.034, -0.006), Vec3::new(0.021, 0.033, 0.0165));
    let mut all = join(join(wrist, palm, 0.030), heel, 0.018);
    for [x, length, thick] in FINGERS {
        all = join(all, finger(p, x, length, thick, hand.bent), 0.007);
    }
    let (root, middle) = (Vec3::new(0.026, 0.022, -0.004), Vec3::new(0.050, 0.058, -0.012));
    let tip = middle + Vec3::new(0.004, 0.034, -0.004);
    let thumb = join(rod(p, root, middle, [0.0135, 0.0105]), rod(p, middle, tip, [0.0105, 0.0085]), 0.006);
    join(all, thumb, 0.014)
}

/// Three joints, each bent towards the palm.
fn finger(p: Vec3, x: f32, length: f32, thick: f32, bent: f32) -> f32 {
    let mut from = Vec3::new(x * 0.92, 0.092 - 9.0 * x * x, 0.002);
    let spread = x * 1.3;
    let mut turn = 0.5 * bent;
    let mut all = f32::INFINITY;
    for (part, radius) in [(0.44, 1.0), (0.31, 0.93), (0.25, 0.84)] {
        let way = Vec3::new(spread * turn.cos(), turn.cos(), -turn.sin()).normalize();
        let to = from + way * (length * part);
        let piece = rod(p, from, to, [thick * radius, thick * radius * 0.95]);
        all = if all.is_finite() { join(all, piece, 0.004) } else { piece };
        from = to;
        turn += bent;
    }
    all
}
