//! The tree is built from above: each box is divided where the surface areas promise the fewest tests (in bins along each axis),
//! then levels of two are joined to levels of eight.
//!
//! Source (from memory): Wald 2007, On fast construction of SAH-based bounding volume hierarchies.
use glam::Vec3;

use super::walk::WAITING;
use super::{Child, Leaf, Node, Tree, WIDTH};

const BINS: usize = 16;
/// Below this level boxes are halved by number: it bounds the depth whatever the triangles.
const LEVELS: usize = 24;
/// Halves of as many triangles are built beside each other.
const BESIDE: usize = 8192;

#[derive(Debug, Clone, Copy)]
struct Bounds {
    low: Vec3,
    high: Vec3,
}

impl Bounds {
    const NOTHING: Self = Self { low: Vec3::INFINITY, high: Vec3::NEG_INFINITY };

    fn with(self, point: Vec3) -> Self {
        Self { low: self.low.min(point), high: self.high.max(point) }
    }

    fn joined(self, other: Self) -> Self {
        Self { low: self.low.min(other.low), high: self.high.max(other.high) }
    }

    /// Half the surface; nothing for no box.
    fn area(self) -> f32 {
        let size = (self.high - self.low).max(Vec3::ZERO);
        size.x * size.y + size.y * size.z + size.z * size.x
    }
}

/// A triangle while the tree is built.
#[derive(Debug, Clone, Copy)]
struct Part {
    bounds: Bounds,
    middle: Vec3,
    triangle: u32,
}

enum Half {
    Leaf(Bounds, Vec<u32>),
    Inner(Bounds, Box<[Half; 2]>),
}

impl Half {
    fn bounds(&self) -> Bounds {
        let (Self::Leaf(bounds, _) | Self::Inner(bounds, _)) = self;
        *bounds
    }
}

pub(super) fn build(triangles: &[[Vec3; 3]]) -> Tree {
    let mut parts: Vec<Part> = (0..)
        .zip(triangles)
        .filter(|(_, corners)| corners.iter().all(|corner| corner.is_finite()))
        .map(|(triangle, corners)| {
            let bounds = corners.iter().fold(Bounds::NOTHING, |all, &corner| all.with(corner));
            Part { bounds, middle: (bounds.low + bounds.high) / 2.0, triangle }
        })
        .collect();
    let mut tree = Tree::default();
    if !parts.is_empty() {
        tree.nodes.push(EMPTY);
        let top = divide(&mut parts, 0);
        let depth = fill(&mut tree, 0, &top, triangles);
        // Each level leaves at most seven waiting; the levels are bounded by `LEVELS` and halving.
        debug_assert!(depth * (WIDTH - 1) < WAITING, "{depth} levels");
    }
    tree
}

fn divide(parts: &mut [Part], level: usize) -> Half {
    let bounds = parts.iter().fold(Bounds::NOTHING, |all, part| all.joined(part.bounds));
    if parts.len() <= WIDTH {
        return Half::Leaf(bounds, parts.iter().map(|part| part.triangle).collect());
    }
    let at = if level < LEVELS { cheapest(parts) } else { None };
    let at = at.unwrap_or_else(|| halve(parts));
    let many = parts.len() >= BESIDE;
    let (left, right) = parts.split_at_mut(at);
    let (left, right) = if many {
        rayon::join(|| divide(left, level + 1), || divide(right, level + 1))
    } else {
        (divide(left, level + 1), divide(right, level + 1))
    };
    Half::Inner(bounds, Box::new([left, right]))
}

/// In two halves of the same number, along the longest side.
fn halve(parts: &mut [Part]) -> usize {
    let middles = parts.iter().fold(Bounds::NOTHING, |all, part| all.with(part.middle));
    let axis = (middles.high - middles.low).max_position();
    let at = parts.len() / 2;
    parts.select_nth_unstable_by(at, |a, b| {
        a.middle[axis].total_cmp(&b.middle[axis]).then(a.triangle.cmp(&b.triangle))
    });
    at
}

/// Puts the parts in order for the cheapest division, and tells where it is; nothing where all lie in one place.
fn cheapest(parts: &mut [Part]) -> Option<usize> {
    let middles = parts.iter().fold(Bounds::NOTHING, |all, part| all.with(part.middle));
    let size = middles.high - middles.low;
    let mut best: Option<(f32, usize, usize)> = None;
    for axis in 0..3 {
        if size[axis] <= 0.0 {
            continue;
        }
        let mut bins = [(Bounds::NOTHING, 0_usize); BINS];
        for part in parts.iter() {
            let (bounds, number) = &mut bins[bin(part, axis, middles.low, size)];
            *bounds = bounds.joined(part.bounds);
            *number += 1;
        }
        // From the right once, then from the left beside it.
        let mut right = [0.0; BINS];
        let (mut bounds, mut number) = (Bounds::NOTHING, 0);
        for i in (1..BINS).rev() {
            bounds = bounds.joined(bins[i].0);
            number += bins[i].1;
            right[i] = bounds.area() * leaves(number);
        }
        let (mut bounds, mut number) = (Bounds::NOTHING, 0);
        for i in 1..BINS {
            bounds = bounds.joined(bins[i - 1].0);
            number += bins[i - 1].1;
            let cost = bounds.area() * leaves(number) + right[i];
            if number > 0 && number < parts.len() && best.is_none_or(|(least, ..)| cost < least) {
                best = Some((cost, axis, i));
            }
        }
    }
    let (_, axis, border) = best?;
    let mut at = 0;
    for i in 0..parts.len() {
        if bin(&parts[i], axis, middles.low, size) < border {
            parts.swap(i, at);
            at += 1;
        }
    }
    Some(at)
}

fn bin(part: &Part, axis: usize, low: Vec3, size: Vec3) -> usize {
    let share = (part.middle[axis] - low[axis]) / size[axis];
    ((share * BINS as f32) as usize).min(BINS - 1)
}

/// Leaves that so many triangles fill.
fn leaves(number: usize) -> f32 {
    number.div_ceil(WIDTH) as f32
}

const EMPTY: Node = Node {
    planes: {
        let (low, high) = ([f32::INFINITY; WIDTH], [f32::NEG_INFINITY; WIDTH]);
        [low, low, low, high, high, high]
    },
    children: [Child::NONE; WIDTH],
};

/// Writes a node with up to eight children, opening the largest of the halves first; tells how many levels lie under it.
fn fill(tree: &mut Tree, index: usize, half: &Half, triangles: &[[Vec3; 3]]) -> usize {
    let mut children: Vec<&Half> = vec![half];
    while children.len() < WIDTH {
        let largest = (0..children.len())
            .filter(|&i| matches!(children[i], Half::Inner(..)))
            .max_by(|&a, &b| children[a].bounds().area().total_cmp(&children[b].bounds().area()));
        let Some(largest) = largest else { break };
        if let Half::Inner(_, halves) = children[largest] {
            children[largest] = &halves[0];
            children.push(&halves[1]);
        }
    }
    let mut depth = 0;
    for (lane, child) in children.into_iter().enumerate() {
        let bounds = child.bounds();
        for axis in 0..3 {
            tree.nodes[index].planes[axis][lane] = bounds.low[axis];
            tree.nodes[index].planes[axis + 3][lane] = bounds.high[axis];
        }
        tree.nodes[index].children[lane] = match child {
            Half::Leaf(_, numbers) => {
                tree.leaves.push(leaf(numbers, triangles));
                Child::leaf(tree.leaves.len() - 1)
            }
            Half::Inner(..) => {
                tree.nodes.push(EMPTY);
                let below = tree.nodes.len() - 1;
                depth = depth.max(fill(tree, below, child, triangles));
                Child::node(below)
            }
        };
    }
    depth + 1
}

fn leaf(numbers: &[u32], triangles: &[[Vec3; 3]]) -> Leaf {
    let nothing = [[0.0; WIDTH]; 3];
    let mut leaf = Leaf { corner: nothing, edges: [nothing; 2], triangles: [u32::MAX; WIDTH] };
    for (lane, &number) in numbers.iter().enumerate() {
        let [a, b, c] = triangles[number as usize];
        for axis in 0..3 {
            leaf.corner[axis][lane] = a[axis];
            leaf.edges[0][axis][lane] = b[axis] - a[axis];
            leaf.edges[1][axis][lane] = c[axis] - a[axis];
        }
        leaf.triangles[lane] = number;
    }
    leaf
}
