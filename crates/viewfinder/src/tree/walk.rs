//! From node to node: the nearest first where the first hit is wanted, in any order where any will do.
use glam::Vec3;

use super::{Child, Ray, WIDTH};

/// Children that wait at most: the build keeps the tree shallow enough.
pub(super) const WAITING: usize = 320;

/// A ray as nodes are tested against it.
pub(super) struct Way {
    pub(super) origin: Vec3,
    pub(super) direction: Vec3,
    pub(super) inverse: Vec3,
    /// For x, y and z, which plane of a node the ray comes to first.
    pub(super) near: [usize; 3],
}

impl Way {
    /// Nothing for a ray without a place or a direction: it meets nothing.
    #[inline(always)]
    pub(super) fn of(ray: &Ray) -> Option<Self> {
        if !ray.origin.is_finite() || !ray.direction.is_finite() || ray.direction == Vec3::ZERO {
            return None;
        }
        let inverse = ray.direction.recip();
        let near = [0, 1, 2].map(|axis| axis + if inverse[axis] < 0.0 { 3 } else { 0 });
        Some(Self { origin: ray.origin, direction: ray.direction, inverse, near })
    }

    /// The plane opposite to a near one.
    #[inline(always)]
    pub(super) fn far(&self, axis: usize) -> usize {
        2 * axis + 3 - self.near[axis]
    }
}

/// Where a ray meets the triangles of a leaf; only those said to be met count.
#[derive(Default)]
pub(super) struct Met {
    pub(super) at: [f32; WIDTH],
    pub(super) u: [f32; WIDTH],
    pub(super) v: [f32; WIDTH],
}

#[derive(Clone, Copy)]
pub(super) struct Waiting {
    pub(super) child: Child,
    pub(super) at: f32,
}

/// The two walks over `boxes` and `triangles` of the file that they are written into: tests of eight at once, each as a mask with a
/// bit for each. A macro, because what the processor needs to be told of a function does not pass through a trait.
macro_rules! walks {
    ($($with:meta)?) => {
        $(#[$with])?
        pub(super) fn first(tree: &Tree, ray: &Ray) -> Option<Hit> {
            if tree.nodes.is_empty() {
                return None;
            }
            let way = Way::of(ray)?;
            let mut reach = ray.reach;
            let mut hit = None;
            let mut at = [0.0; WIDTH];
            let mut met = Met::default();
            let mut waiting = ArrayVec::<Waiting, WAITING>::new();
            waiting.push(Waiting { child: Child::node(0), at: 0.0 });
            while let Some(next) = waiting.pop() {
                if next.at >= reach {
                    continue;
                }
                let (is_leaf, index) = next.child.get();
                if is_leaf {
                    let leaf = &tree.leaves[index];
                    for lane in lanes(triangles(leaf, &way, reach, &mut met)) {
                        // Several of one leaf may be met: the nearest of them counts, and of two as near the first given.
                        if met.at[lane] < reach {
                            reach = met.at[lane];
                            hit = Some(Hit {
                                at: reach,
                                u: met.u[lane],
                                v: met.v[lane],
                                triangle: leaf.triangles[lane],
                            });
                        }
                    }
                    continue;
                }
                let node = &tree.nodes[index];
                let before = waiting.len();
                for lane in lanes(boxes(node, &way, reach, &mut at)) {
                    // Kept with the nearest last: it is taken first.
                    let one = Waiting { child: node.children[lane], at: at[lane] };
                    waiting.push(one);
                    let mut place = waiting.len() - 1;
                    while place > before && waiting[place - 1].at < one.at {
                        waiting[place] = waiting[place - 1];
                        place -= 1;
                    }
                    waiting[place] = one;
                }
            }
            hit
        }

        $(#[$with])?
        pub(super) fn any(tree: &Tree, ray: &Ray) -> bool {
            if tree.nodes.is_empty() {
                return false;
            }
            let Some(way) = Way::of(ray) else { return false };
            let mut at = [0.0; WIDTH];
            let mut met = Met::default();
            let mut waiting = ArrayVec::<Child, WAITING>::new();
            waiting.push(Child::node(0));
            while let Some(next) = waiting.pop() {
                let (is_leaf, index) = next.get();
                if is_leaf {
                    if triangles(&tree.leaves[index], &way, ray.reach, &mut met) != 0 {
                        return true;
                    }
                    continue;
                }
                let node = &tree.nodes[index];
                for lane in lanes(boxes(node, &way, ray.reach, &mut at)) {
                    waiting.push(node.children[lane]);
                }
            }
            false
        }
    };
}
pub(super) use walks;

/// The lanes of a mask, in order.
#[inline(always)]
pub(super) fn lanes(mut mask: u32) -> impl Iterator<Item = usize> {
    std::iter::from_fn(move || {
        let lane = mask.trailing_zeros() as usize;
        mask &= mask.wrapping_sub(1);
        (lane < WIDTH).then_some(lane)
    })
}
