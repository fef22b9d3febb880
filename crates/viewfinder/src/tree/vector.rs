//! Eight boxes or triangles at once with AVX2, by the same sums in the same order as the plain way, so that both answer the same
//! to the last bit. The only file with unsafe code: the processor's vector instructions may be called only where it has them,
//! which is asked before.
#![allow(unsafe_code)]

use std::arch::x86_64::*;

use super::plain::{ALONG, EDGE, WIDER};
use super::walk::{self, Eight, Met, Way};
use super::{Hit, Leaf, Node, Ray, Tree, WIDTH};

/// Whether this processor has them; asked once, then remembered by the standard library.
pub(super) fn is_there() -> bool {
    std::arch::is_x86_feature_detected!("avx2")
}

pub(super) fn first(tree: &Tree, ray: &Ray) -> Option<Hit> {
    if !is_there() {
        return walk::first::<super::plain::Plain>(tree, ray);
    }
    // SAFETY: the processor has AVX2.
    unsafe { first_by_eight(tree, ray) }
}

pub(super) fn any(tree: &Tree, ray: &Ray) -> bool {
    if !is_there() {
        return walk::any::<super::plain::Plain>(tree, ray);
    }
    // SAFETY: the processor has AVX2.
    unsafe { any_by_eight(tree, ray) }
}

#[target_feature(enable = "avx2")]
fn first_by_eight(tree: &Tree, ray: &Ray) -> Option<Hit> {
    walk::first::<Vector>(tree, ray)
}

#[target_feature(enable = "avx2")]
fn any_by_eight(tree: &Tree, ray: &Ray) -> bool {
    walk::any::<Vector>(tree, ray)
}

/// Used within the two functions above alone: its parts are inlined into them, where AVX2 is there.
struct Vector;

impl Eight for Vector {
    #[inline(always)]
    fn boxes(node: &Node, way: &Way, reach: f32, at: &mut [f32; WIDTH]) -> u32 {
        // SAFETY: AVX2 is there; eight numbers are read from and written to arrays of eight.
        unsafe {
            let mut near = _mm256_setzero_ps();
            let mut far = _mm256_set1_ps(reach);
            for axis in 0..3 {
                let origin = _mm256_set1_ps(way.origin[axis]);
                let inverse = _mm256_set1_ps(way.inverse[axis]);
                let to = |plane: usize| {
                    let plane = _mm256_load_ps(node.planes[plane].as_ptr());
                    _mm256_mul_ps(_mm256_sub_ps(plane, origin), inverse)
                };
                // Of a number and none these take the second: what came before.
                near = _mm256_max_ps(to(way.near[axis]), near);
                far = _mm256_min_ps(_mm256_mul_ps(to(way.far(axis)), _mm256_set1_ps(WIDER)), far);
            }
            _mm256_storeu_ps(at.as_mut_ptr(), near);
            _mm256_movemask_ps(_mm256_cmp_ps::<_CMP_LE_OQ>(near, far)) as u32
        }
    }

    #[inline(always)]
    fn triangles(leaf: &Leaf, way: &Way, reach: f32, met: &mut Met) -> u32 {
        // SAFETY: AVX2 is there; eight numbers are read from and written to arrays of eight.
        unsafe {
            let direction = [0, 1, 2].map(|axis| _mm256_set1_ps(way.direction[axis]));
            let take = |from: &[[f32; WIDTH]; 3]| [0, 1, 2].map(|axis| _mm256_load_ps(from[axis].as_ptr()));
            let [first, second] = [take(&leaf.edges[0]), take(&leaf.edges[1])];
            let across = cross(direction, second);
            let volume = dot(first, across);
            let inverse = _mm256_div_ps(_mm256_set1_ps(1.0), volume);
            let corner = take(&leaf.corner);
            let from = [0, 1, 2].map(|axis| _mm256_sub_ps(_mm256_set1_ps(way.origin[axis]), corner[axis]));
            let u = _mm256_mul_ps(dot(from, across), inverse);
            let over = cross(from, first);
            let v = _mm256_mul_ps(dot(direction, over), inverse);
            let at = _mm256_mul_ps(dot(second, over), inverse);
            _mm256_storeu_ps(met.at.as_mut_ptr(), at);
            _mm256_storeu_ps(met.u.as_mut_ptr(), u);
            _mm256_storeu_ps(met.v.as_mut_ptr(), v);
            let size = _mm256_andnot_ps(_mm256_set1_ps(-0.0), volume);
            let edge = _mm256_set1_ps(EDGE);
            let tests = [
                _mm256_cmp_ps::<_CMP_GT_OQ>(size, _mm256_set1_ps(ALONG)),
                _mm256_cmp_ps::<_CMP_GE_OQ>(u, edge),
                _mm256_cmp_ps::<_CMP_GE_OQ>(v, edge),
                _mm256_cmp_ps::<_CMP_LE_OQ>(_mm256_add_ps(u, v), _mm256_set1_ps(1.0 - EDGE)),
                _mm256_cmp_ps::<_CMP_GT_OQ>(at, _mm256_setzero_ps()),
                _mm256_cmp_ps::<_CMP_LT_OQ>(at, _mm256_set1_ps(reach)),
            ];
            let [a, b, c, d, e, f] = tests;
            let all =
                _mm256_and_ps(_mm256_and_ps(_mm256_and_ps(a, b), _mm256_and_ps(c, d)), _mm256_and_ps(e, f));
            _mm256_movemask_ps(all) as u32
        }
    }
}

type Three = [__m256; 3];

/// Summed as glam does it: x and y first.
#[inline(always)]
unsafe fn dot(a: Three, b: Three) -> __m256 {
    // SAFETY: called where AVX2 is there.
    unsafe {
        _mm256_add_ps(
            _mm256_add_ps(_mm256_mul_ps(a[0], b[0]), _mm256_mul_ps(a[1], b[1])),
            _mm256_mul_ps(a[2], b[2]),
        )
    }
}

#[inline(always)]
unsafe fn cross(a: Three, b: Three) -> Three {
    // SAFETY: called where AVX2 is there.
    unsafe {
        let part = |i: usize, j: usize| _mm256_sub_ps(_mm256_mul_ps(a[i], b[j]), _mm256_mul_ps(b[i], a[j]));
        [part(1, 2), part(2, 0), part(0, 1)]
    }
}
