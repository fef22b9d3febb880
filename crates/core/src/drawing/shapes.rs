//! What makes a thing recognisable on plan and side view: the lines on furniture, a lamp's face and body, a chair, a stand's
//! legs. Simple shapes of our own, in the room's metres; both drawings project the same lines.

use super::view::{Ink, Stroke, stroke};
use crate::corner::{Corner, LightAt, Source, Thing, What};
use crate::geometry::{DVec2, DVec3, bearing_vector, circle, hull};
use crate::plan::{FurnitureKind, ThingId};

/// Backs of books stand so far apart, m.
const BOOK_M: f64 = 0.11;
/// Boards of a shelf stand so far apart, m.
const BOARD_M: f64 = 0.36;
/// Ribs of a radiator, m.
const RIB_M: f64 = 0.09;
/// The back of a modifier is so much smaller than its face.
const TAPER: f64 = 0.3;
/// From this depth on a lamp's head tapers, m.
const DEEP_M: f64 = 0.12;
/// Thickness of a seat and height of a chair's back over it, m.
const SEAT_M: f64 = 0.07;
const CHAIR_BACK_M: f64 = 0.42;
/// A stand's legs leave its column so high, m.
const LEGS_M: f64 = 0.3;
/// Half the spread of a chair's base, m.
const CHAIR_BASE_M: f64 = 0.22;

/// Lines on a piece of furniture: along its width, its depth with the front ahead, and up, m.
fn lines_of(kind: FurnitureKind, [w, d, h]: [f64; 3]) -> Vec<Vec<[f64; 3]>> {
    let (x, y) = (w / 2.0, d / 2.0);
    let line = |from: [f64; 3], to: [f64; 3]| vec![from, to];
    let across = |at: f64, z: f64| line([-x, at, z], [x, at, z]);
    let deep = |at: f64, z: f64| line([at, -y, z], [at, y, z]);
    let every = |step: f64, length: f64| {
        let count = (length / step).floor().max(1.0) as usize;
        (1..count).map(move |i| length * i as f64 / count as f64).collect::<Vec<_>>()
    };
    match kind {
        FurnitureKind::Desk | FurnitureKind::Table => {
            let foot = |sx: f64, sy: f64| {
                let (cx, cy, r) = (sx * (x - 0.05), sy * (y - 0.05), 0.025);
                vec![
                    [cx - r, cy - r, h],
                    [cx + r, cy - r, h],
                    [cx + r, cy + r, h],
                    [cx - r, cy + r, h],
                    [cx - r, cy - r, h],
                ]
            };
            vec![foot(-1.0, -1.0), foot(1.0, -1.0), foot(1.0, 1.0), foot(-1.0, 1.0)]
        }
        FurnitureKind::Chair => vec![across(0.07 - y, h), across(-y, 0.9 * h)],
        FurnitureKind::Shelf | FurnitureKind::Bookcase => {
            let books = every(BOOK_M, w).into_iter().map(|at| deep(at - x, h));
            let boards = every(BOARD_M, h)
                .into_iter()
                .flat_map(|z| [line([-x, y, z], [x, y, z]), line([-x, -y, z], [-x, y, z])]);
            books.chain(boards).collect()
        }
        FurnitureKind::Bed => {
            let (a, b) = (0.08 - y, (0.45 - y).min(0.0));
            let p = 0.36 * w;
            let pillow = vec![[-p, a, h], [p, a, h], [p, b, h], [-p, b, h], [-p, a, h]];
            vec![pillow, across((0.62 - y).min(0.1), h)]
        }
        FurnitureKind::Sofa => vec![
            across(0.22 - y, h),
            line([0.15 - x, 0.22 - y, h], [0.15 - x, y, h]),
            line([x - 0.15, 0.22 - y, h], [x - 0.15, y, h]),
        ],
        FurnitureKind::Wardrobe => {
            let hangers =
                every(0.14, w).into_iter().map(|at| line([at - x, -0.5 * y, h], [at - x, 0.5 * y, h]));
            std::iter::once(across(0.0, h)).chain(hangers).collect()
        }
        FurnitureKind::Cabinet => {
            vec![across(y - 0.04, h), line([0.0, y - 0.04, h], [0.0, y, h]), line([0.0, y, 0.0], [0.0, y, h])]
        }
        FurnitureKind::Radiator => every(RIB_M, w)
            .into_iter()
            .flat_map(|at| [deep(at - x, h), line([at - x, y, 0.0], [at - x, y, h])])
            .collect(),
        FurnitureKind::Mirror => vec![
            line([-0.3 * w, y, 0.3 * h], [0.1 * w, y, 0.7 * h]),
            line([-0.1 * w, y, 0.3 * h], [0.3 * w, y, 0.7 * h]),
        ],
        FurnitureKind::Lamp => vec![ring(0.55 * x.min(y), h)],
        FurnitureKind::Plant => (0..6)
            .map(|i| {
                let way = DVec2::from_angle(f64::from(i) * std::f64::consts::TAU / 6.0) * x.min(y);
                line([0.0, 0.0, 0.6 * h], [way.x, way.y, h])
            })
            .collect(),
        FurnitureKind::Box => vec![line([-x, -y, h], [x, y, h]), line([-x, y, h], [x, -y, h])],
        FurnitureKind::Picture => Vec::new(),
    }
}

fn ring(radius: f64, z: f64) -> Vec<[f64; 3]> {
    let mut all: Vec<[f64; 3]> = circle(DVec2::ZERO, radius).iter().map(|p| [p.x, p.y, z]).collect();
    all.extend(all.first().copied());
    all
}

/// The lines that make furniture recognisable.
pub(super) fn furniture(corner: &Corner<'_>, thing: &Thing, flat: impl Fn(DVec3) -> DVec2) -> Vec<Stroke> {
    let ThingId::Furniture(id) = &thing.id else { return Vec::new() };
    let Some(piece) = corner.brief.room.furniture.get(id) else { return Vec::new() };
    let (position, bearing_deg) = corner.furniture_at(id, piece);
    let ahead = bearing_vector(bearing_deg);
    let across = DVec3::new(ahead.y, -ahead.x, 0.0);
    let name = corner.name(&thing.id);
    let place = |[x, y, z]: [f64; 3]| flat(position + across * x + ahead * y + DVec3::Z * z);
    lines_of(piece.kind, piece.size_m.0)
        .into_iter()
        .map(|line| stroke(Ink::Detail, Some(&name), false, line.into_iter().map(place).collect()))
        .collect()
}

/// A lamp's head: its body, tapering behind a deep modifier, and its face.
pub(super) fn lamp(light: &LightAt<'_>, name: &str, flat: impl Fn(DVec3) -> DVec2) -> Option<[Stroke; 2]> {
    if !matches!(light.source, Source::Lamp(_)) || light.cloth.is_some() {
        return None;
    }
    let face = light.face();
    let depth = light.depth_m();
    let shrink = if depth > DEEP_M { TAPER } else { 1.0 };
    let back = |p: &DVec3| face.middle + (*p - face.middle) * shrink - face.normal * depth;
    let outline = &face.outline;
    let body: Vec<DVec2> = outline.iter().copied().chain(outline.iter().map(back)).map(&flat).collect();
    let front: Vec<DVec2> = outline.iter().copied().map(&flat).collect();
    Some([
        stroke(Ink::Light, Some(name), true, hull(&body)),
        stroke(Ink::LampFace, Some(name), true, hull(&front)),
    ])
}

/// The three legs of a light or microphone stand from above.
pub(super) fn legs(feet: &[DVec2], name: &str) -> Vec<Stroke> {
    let (low, high) = extent(feet);
    let (middle, radius) = ((low + high) / 2.0, (high - low).max_element() / 2.0);
    (0..3)
        .map(|leg| {
            let way =
                DVec2::from_angle(std::f64::consts::FRAC_PI_2 + f64::from(leg) * std::f64::consts::TAU / 3.0);
            stroke(Ink::Leg, Some(name), false, vec![middle, middle + way * radius])
        })
        .collect()
}

/// The legs of a stand from the side, from its column to the edge of its feet.
pub(super) fn legs_from_side(name: &str, feet: &[DVec2]) -> Vec<Stroke> {
    let (low, high) = extent(feet);
    let top = DVec2::new((low.x + high.x) / 2.0, -LEGS_M);
    [low.x, high.x].map(|x| stroke(Ink::Leg, Some(name), false, vec![top, DVec2::new(x, 0.0)])).to_vec()
}

fn extent(points: &[DVec2]) -> (DVec2, DVec2) {
    points.iter().fold((DVec2::INFINITY, DVec2::NEG_INFINITY), |(low, high), p| (low.min(*p), high.max(*p)))
}

/// A chair from the side in place of the box that it takes up: seat, back, post and base.
pub(super) fn chair_from_side(name: &str, taken: &[DVec2], faces_right: bool) -> Vec<Stroke> {
    let (low, high) = extent(taken);
    // Heights run downwards on the drawing.
    let (seat, middle) = (low.y, (low.x + high.x) / 2.0);
    let (back, lean) = if faces_right { (low.x, -0.06) } else { (high.x, 0.06) };
    let slab = [(low.x, seat), (high.x, seat), (high.x, seat + SEAT_M), (low.x, seat + SEAT_M)];
    let line = |from: (f64, f64), to: (f64, f64)| {
        stroke(Ink::Leg, Some(name), false, vec![DVec2::from(from), DVec2::from(to)])
    };
    vec![
        stroke(Ink::Chair, Some(name), true, slab.map(DVec2::from).to_vec()),
        line((back, seat), (back + lean, seat - CHAIR_BACK_M)),
        line((middle, seat + SEAT_M), (middle, -0.05)),
        line((middle - CHAIR_BASE_M, -0.02), (middle + CHAIR_BASE_M, -0.02)),
    ]
}

/// The back of a chair from above: its edge behind the person.
pub(super) fn chair_back(name: &str, taken: &[DVec2], ahead: DVec2) -> Stroke {
    let mut corners = taken.to_vec();
    corners.sort_by(|a, b| a.dot(ahead).total_cmp(&b.dot(ahead)));
    let edge = &corners[..corners.len() / 2];
    let pairs = edge.iter().flat_map(|a| edge.iter().map(move |b| (*a, *b)));
    let (a, b) = pairs.max_by(|p, q| p.0.distance(p.1).total_cmp(&q.0.distance(q.1))).unwrap_or_default();
    let middle = (a + b) / 2.0 - ahead * 0.06;
    stroke(Ink::Leg, Some(name), false, vec![a, middle + (a - b) * 0.25, middle, middle + (b - a) * 0.25, b])
}

/// An outline with its corners cut, twice: what is soft, as a body, has none.
pub(super) fn rounded(outline: &[DVec2]) -> Vec<DVec2> {
    let cut = |points: Vec<DVec2>| -> Vec<DVec2> {
        let next = points.iter().cycle().skip(1);
        points.iter().zip(next).flat_map(|(a, b)| [a.lerp(*b, 0.22), a.lerp(*b, 0.78)]).collect()
    };
    cut(cut(outline.to_vec()))
}

/// How far up a piece reaches: what is lower is drawn first from above.
pub(super) fn top_m(piece: &crate::corner::Piece) -> f64 {
    piece.solid.bounds().1.z
}

/// Whether a piece of a person is soft.
pub(super) fn is_soft(what: What) -> bool {
    matches!(what, What::Torso | What::Legs | What::Chair)
}
