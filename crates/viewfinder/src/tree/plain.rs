//! Boxes and triangles one after the other: what every faster way has to agree with.
use arrayvec::ArrayVec;
use glam::Vec3;

use super::walk::{Met, WAITING, Waiting, Way, lanes, walks};
use super::{Child, Hit, Leaf, Node, Ray, Tree, WIDTH};

/// A box is widened by so much of its distance, so that rounding never lets a ray slip between two.
pub(super) const WIDER: f32 = 1.0 + 4.0 * f32::EPSILON;
/// A triangle's edges are as wide, so that no ray slips between two that share one.
pub(super) const EDGE: f32 = -1e-6;
/// A ray that runs along a triangle does not meet it.
pub(super) const ALONG: f32 = 1e-12;

walks!();

/// Boxes that a ray enters before `reach`, and where.
#[inline(always)]
fn boxes(node: &Node, way: &Way, reach: f32, at: &mut [f32; WIDTH]) -> u32 {
    let mut mask = 0;
    for (lane, at) in at.iter_mut().enumerate() {
        let (mut near, mut far) = (0.0_f32, reach);
        for axis in 0..3 {
            let to = |plane: usize| (node.planes[plane][lane] - way.origin[axis]) * way.inverse[axis];
            // A ray within a plane gives no number, which max and min pass over.
            near = to(way.near[axis]).max(near);
            far = (to(way.far(axis)) * WIDER).min(far);
        }
        *at = near;
        mask |= u32::from(near <= far) << lane;
    }
    mask
}

/// Triangles that it meets before `reach`, and where.
#[inline(always)]
fn triangles(leaf: &Leaf, way: &Way, reach: f32, met: &mut Met) -> u32 {
    let mut mask = 0;
    let take = |from: &[[f32; WIDTH]; 3], lane: usize| Vec3::new(from[0][lane], from[1][lane], from[2][lane]);
    for lane in 0..WIDTH {
        let [first, second] = [take(&leaf.edges[0], lane), take(&leaf.edges[1], lane)];
        let across = way.direction.cross(second);
        let volume = first.dot(across);
        let inverse = 1.0 / volume;
        let from = way.origin - take(&leaf.corner, lane);
        let u = from.dot(across) * inverse;
        let over = from.cross(first);
        let v = way.direction.dot(over) * inverse;
        let at = second.dot(over) * inverse;
        met.at[lane] = at;
        met.u[lane] = u;
        met.v[lane] = v;
        let is_met =
            volume.abs() > ALONG && u >= EDGE && v >= EDGE && u + v <= 1.0 - EDGE && at > 0.0 && at < reach;
        mask |= u32::from(is_met) << lane;
    }
    mask
}
