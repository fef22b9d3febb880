//! Outlines on the floor: simple polygons given counter-clockwise, seen from above, m.

use earcut::Earcut;
use i_overlay::core::fill_rule::FillRule;
use i_overlay::core::overlay_rule::OverlayRule;
use i_overlay::float::single::SingleFloatOverlay;

use super::DVec2;

/// The edges of an outline, each from its corner to the next.
fn edges(outline: &[DVec2]) -> impl Iterator<Item = (DVec2, DVec2)> + '_ {
    outline.iter().copied().zip(outline.iter().copied().cycle().skip(1))
}

/// Square of the distance from a point to a straight piece, m2.
fn off_piece_m2(point: DVec2, (a, b): (DVec2, DVec2)) -> f64 {
    let along = b - a;
    let part = ((point - a).dot(along) / along.length_squared().max(1e-300)).clamp(0.0, 1.0);
    (point - a - along * part).length_squared()
}

/// Distance from a point to a straight piece, m.
fn distance_to_piece(point: DVec2, piece: (DVec2, DVec2)) -> f64 {
    off_piece_m2(point, piece).sqrt()
}

/// How far a point lies beyond an outline, m; negative inside.
pub fn beyond_m(outline: &[DVec2], point: DVec2) -> f64 {
    let Some(mut from) = outline.last().copied() else { return f64::INFINITY };
    let (mut off_m2, mut within) = (f64::INFINITY, false);
    for to in outline {
        off_m2 = off_m2.min(off_piece_m2(point, (from, *to)));
        // Crossings of a ray to the right: an odd number from inside.
        if (from.y > point.y) != (to.y > point.y)
            && point.x < from.x + (to.x - from.x) * (point.y - from.y) / (to.y - from.y)
        {
            within = !within;
        }
        from = *to;
    }
    if within { -off_m2.sqrt() } else { off_m2.sqrt() }
}

/// Whether a point lies in an outline grown by `margin` (negative shrinks it).
pub fn inside(outline: &[DVec2], point: DVec2, margin: f64) -> bool {
    // On the line is inside, whatever the last digit says.
    beyond_m(outline, point) <= margin + 1e-9
}

/// Distance from a point along a horizontal direction to where it first leaves the outline, m; 0 where it never does,
/// from a point outside that looks past it.
pub fn distance_to_edge(outline: &[DVec2], from: DVec2, direction: DVec2) -> f64 {
    edges(outline)
        .filter_map(|(a, b)| {
            let edge = b - a;
            let across = direction.perp_dot(edge);
            let part = (a - from).perp_dot(direction) / across;
            (across > 1e-12 && (-1e-9..=1.0 + 1e-9).contains(&part))
                .then(|| (a - from).perp_dot(edge) / across)
        })
        .filter(|distance| *distance > -1e-9)
        .min_by(f64::total_cmp)
        .map_or(0.0, |distance| distance.max(0.0))
}

/// Whether the corner of this number (the first again after the last) is an outer one, not one that juts inwards.
pub fn is_outer_corner(outline: &[DVec2], corner: usize) -> bool {
    let count = outline.len();
    let at = |index: usize| outline[index % count];
    (at(corner) - at(corner + count - 1)).perp_dot(at(corner + 1) - at(corner)) > 1e-9
}

/// Area of an outline, positive when counter-clockwise, m2.
pub fn signed_area_m2(outline: &[DVec2]) -> f64 {
    edges(outline).map(|(a, b)| a.perp_dot(b)).sum::<f64>() / 2.0
}

/// Area of an outline that none of the others covers, m2, whichever way round they are given.
pub fn area_beyond_m2(outline: &[DVec2], others: &[&[DVec2]]) -> f64 {
    let flat = |outline: &[DVec2]| outline.iter().map(|p| p.to_array()).collect::<Vec<_>>();
    let others: Vec<Vec<[f64; 2]>> = others.iter().map(|other| flat(other)).collect();
    let left = flat(outline).overlay(&others, OverlayRule::Difference, FillRule::NonZero);
    let area = |ring: &Vec<[f64; 2]>| {
        signed_area_m2(&ring.iter().map(|p| DVec2::from_array(*p)).collect::<Vec<_>>())
    };
    // Outer rings run one way, holes the other.
    left.iter().flatten().map(area).sum::<f64>().abs()
}

/// Whether no two edges of an outline meet but at the corners they share.
pub fn is_simple(outline: &[DVec2]) -> bool {
    let all: Vec<_> = edges(outline).collect();
    let count = all.len();
    (0..count).all(|i| {
        (i + 1..count).all(|j| {
            if j == i + 1 || (i == 0 && j == count - 1) {
                // Neighbours share a corner and may not fold back on each other.
                let (d, e) = (all[i].1 - all[i].0, all[j].1 - all[j].0);
                !(d.perp_dot(e).abs() < 1e-12 && d.dot(e) < 0.0)
            } else {
                let near = [
                    distance_to_piece(all[i].0, all[j]),
                    distance_to_piece(all[i].1, all[j]),
                    distance_to_piece(all[j].0, all[i]),
                    distance_to_piece(all[j].1, all[i]),
                ];
                near.iter().all(|d| *d > 1e-6) && !crosses(all[i], all[j])
            }
        })
    })
}

fn crosses((a, b): (DVec2, DVec2), (c, d): (DVec2, DVec2)) -> bool {
    let side = |p: DVec2, q: DVec2, r: DVec2| (q - p).perp_dot(r - p) > 0.0;
    side(a, b, c) != side(a, b, d) && side(c, d, a) != side(c, d, b)
}

/// Convex hull, counter-clockwise in a frame with y upwards (monotone chain; Andrew 1979).
pub fn hull(points: &[DVec2]) -> Vec<DVec2> {
    let mut sorted = points.to_vec();
    sorted.sort_by(|a, b| a.x.total_cmp(&b.x).then(a.y.total_cmp(&b.y)));
    sorted.dedup_by(|a, b| (*a - *b).length() < 1e-9);
    if sorted.len() < 3 {
        return sorted;
    }
    let mut chain: Vec<DVec2> = Vec::new();
    for pass in 0..2 {
        let start = chain.len();
        let run: Box<dyn Iterator<Item = &DVec2>> =
            if pass == 0 { Box::new(sorted.iter()) } else { Box::new(sorted.iter().rev()) };
        for point in run {
            while chain.len() >= start + 2 {
                let (a, b) = (chain[chain.len() - 2], chain[chain.len() - 1]);
                if (b - a).perp_dot(*point - b) > 1e-12 {
                    break;
                }
                chain.pop();
            }
            chain.push(*point);
        }
        chain.pop();
    }
    chain
}

/// What lies between an outline and its hull, as triangles, counter-clockwise; none where it is convex.
pub fn outside_pieces(outline: &[DVec2]) -> Vec<[DVec2; 3]> {
    let on_hull = hull(outline);
    let count = outline.len();
    let is_hull: Vec<bool> =
        outline.iter().map(|p| on_hull.iter().any(|h| (*h - *p).length() < 1e-9)).collect();
    let Some(start) = is_hull.iter().position(|on| *on) else { return Vec::new() };
    let mut pieces = Vec::new();
    let mut pocket = vec![outline[start]];
    for step in 1..=count {
        let at = (start + step) % count;
        pocket.push(outline[at]);
        if is_hull[at] {
            if pocket.len() > 2 {
                pieces.extend(triangles(&pocket));
            }
            pocket = vec![outline[at]];
        }
    }
    pieces
}

/// An outline in triangles, counter-clockwise.
pub fn triangles(outline: &[DVec2]) -> Vec<[DVec2; 3]> {
    let mut indices: Vec<u32> = Vec::new();
    Earcut::new().earcut(outline.iter().map(|p| p.to_array()), &[], &mut indices);
    let pieces = indices.as_chunks::<3>().0.iter().filter_map(|corners| {
        let mut piece = corners.map(|i| outline[i as usize]);
        let area = signed_area_m2(&piece);
        if area < 0.0 {
            piece.reverse();
        }
        // A corner in the middle of a straight wall leaves nothing out.
        (area.abs() > 1e-6).then_some(piece)
    });
    pieces.collect()
}
