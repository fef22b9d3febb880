//! Eight boxes or triangles at once with AVX2, by the same sums in the same order as the plain way, so that both answer the same
//! to the last bit. The only file with unsafe code: the processor's vector instructions may be called only where it has them,
//! which is asked before.
#![allow(unsafe_code)]

use std::arch::x86_64::*;

use super::plain::{ALONG, EDGE, WIDER};
use arrayvec::ArrayVec;

use super::walk::{Met, WAITING, Waiting, Way, lanes, walks};
use super::{Child, Hit, Leaf, Node, Ray, Tree, WIDTH};

/// Whether this processor has them; asked once, then remembered by the standard library.
pub(super) fn is_there() -> bool {
    std::arch::is_x86_feature_detected!("avx2")
}

pub(super) fn first_or_plain(tree: &Tree, ray: &Ray) -> Option<Hit> {
    if !is_there() {
        return super::plain::first(tree, ray);
    }
    // SAFETY: the processor has AVX2.
    unsafe { first(tree, ray) }
}

pub(super) fn any_or_plain(tree: &Tree, ray: &Ray) -> bool {
    if !is_there() {
        return super::plain::any(tree, ray);
    }
    // SAFETY: the processor has AVX2.
    unsafe { any(tree, ray) }
}

walks!(target_feature(enable = "avx2"));

#[target_feature(enable = "avx2")]
#[inline]
fn boxes(node: &Node, way: &Way, reach: f32, at: &mut [f32; WIDTH]) -> u32 {
    let mut near = _mm256_setzero_ps();
    let mut far = _mm256_set1_ps(reach);
    for axis in 0..3 {
        let origin = _mm256_set1_ps(way.origin[axis]);
        let inverse = _mm256_set1_ps(way.inverse[axis]);
        let low = _mm256_mul_ps(_mm256_sub_ps(load(&node.planes[way.near[axis]]), origin), inverse);
        let high = _mm256_mul_ps(_mm256_sub_ps(load(&node.planes[way.far(axis)]), origin), inverse);
        // Of a number and none these take the second: what came before.
        near = _mm256_max_ps(low, near);
        far = _mm256_min_ps(_mm256_mul_ps(high, _mm256_set1_ps(WIDER)), far);
    }
    store(at, near);
    _mm256_movemask_ps(_mm256_cmp_ps::<_CMP_LE_OQ>(near, far)) as u32
}

#[target_feature(enable = "avx2")]
#[inline]
fn triangles(leaf: &Leaf, way: &Way, reach: f32, met: &mut Met) -> u32 {
    let direction = all(way.direction.to_array());
    let [first, second] = [take(&leaf.edges[0]), take(&leaf.edges[1])];
    let across = cross(direction, second);
    let volume = dot(first, across);
    let inverse = _mm256_div_ps(_mm256_set1_ps(1.0), volume);
    let (origin, corner) = (all(way.origin.to_array()), take(&leaf.corner));
    let from = [
        _mm256_sub_ps(origin[0], corner[0]),
        _mm256_sub_ps(origin[1], corner[1]),
        _mm256_sub_ps(origin[2], corner[2]),
    ];
    let u = _mm256_mul_ps(dot(from, across), inverse);
    let over = cross(from, first);
    let v = _mm256_mul_ps(dot(direction, over), inverse);
    let at = _mm256_mul_ps(dot(second, over), inverse);
    store(&mut met.at, at);
    store(&mut met.u, u);
    store(&mut met.v, v);
    let size = _mm256_andnot_ps(_mm256_set1_ps(-0.0), volume);
    let edge = _mm256_set1_ps(EDGE);
    let a = _mm256_cmp_ps::<_CMP_GT_OQ>(size, _mm256_set1_ps(ALONG));
    let b = _mm256_cmp_ps::<_CMP_GE_OQ>(u, edge);
    let c = _mm256_cmp_ps::<_CMP_GE_OQ>(v, edge);
    let d = _mm256_cmp_ps::<_CMP_LE_OQ>(_mm256_add_ps(u, v), _mm256_set1_ps(1.0 - EDGE));
    let e = _mm256_cmp_ps::<_CMP_GT_OQ>(at, _mm256_setzero_ps());
    let f = _mm256_cmp_ps::<_CMP_LT_OQ>(at, _mm256_set1_ps(reach));
    let whole = _mm256_and_ps(_mm256_and_ps(_mm256_and_ps(a, b), _mm256_and_ps(c, d)), _mm256_and_ps(e, f));
    _mm256_movemask_ps(whole) as u32
}

type Three = [__m256; 3];

#[target_feature(enable = "avx2")]
#[inline]
fn load(from: &[f32; WIDTH]) -> __m256 {
    // SAFETY: eight numbers are read from an array of eight.
    unsafe { _mm256_loadu_ps(from.as_ptr()) }
}

#[target_feature(enable = "avx2")]
#[inline]
fn store(into: &mut [f32; WIDTH], numbers: __m256) {
    // SAFETY: eight numbers are written to an array of eight.
    unsafe { _mm256_storeu_ps(into.as_mut_ptr(), numbers) }
}

#[target_feature(enable = "avx2")]
#[inline]
fn take(from: &[[f32; WIDTH]; 3]) -> Three {
    [load(&from[0]), load(&from[1]), load(&from[2])]
}

#[target_feature(enable = "avx2")]
#[inline]
fn all(of: [f32; 3]) -> Three {
    [_mm256_set1_ps(of[0]), _mm256_set1_ps(of[1]), _mm256_set1_ps(of[2])]
}

/// Summed as glam does it: x and y first.
#[target_feature(enable = "avx2")]
#[inline]
fn dot(a: Three, b: Three) -> __m256 {
    _mm256_add_ps(
        _mm256_add_ps(_mm256_mul_ps(a[0], b[0]), _mm256_mul_ps(a[1], b[1])),
        _mm256_mul_ps(a[2], b[2]),
    )
}

#[target_feature(enable = "avx2")]
#[inline]
fn cross(a: Three, b: Three) -> Three {
    [
        _mm256_sub_ps(_mm256_mul_ps(a[1], b[2]), _mm256_mul_ps(b[1], a[2])),
        _mm256_sub_ps(_mm256_mul_ps(a[2], b[0]), _mm256_mul_ps(b[2], a[0])),
        _mm256_sub_ps(_mm256_mul_ps(a[0], b[1]), _mm256_mul_ps(b[0], a[1])),
    ]
}
