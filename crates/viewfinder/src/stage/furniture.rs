//! Furniture as it looks: by its kind, within the size that was measured; and what stands on shelves.
use fogon_core::corner::Corner;
use fogon_core::geometry::{DVec3, bearing_vector};
use fogon_core::light::highlight;
use fogon_core::plan::{Furniture, FurnitureKind, Id};
use glam::Vec3;

use super::shapes::{Frame, Stuff, ball, rod};
use super::things::{Sort, Things, seed_of};
use crate::body::Maker;
use crate::random::Pairs;
use crate::surface::Finish;

const PATCH_M: f32 = 0.12;
/// Thickness of boards, m.
const BOARD_M: f64 = 0.022;
/// Thickness of a desk top, as the core counts it, m.
const TOP_M: f64 = 0.04;

pub(super) const OAK: Vec3 = Vec3::new(0.36, 0.245, 0.15);
const PALE: Vec3 = Vec3::new(0.60, 0.58, 0.54);
const CLOTH: Vec3 = Vec3::new(0.20, 0.23, 0.26);
const LINEN: Vec3 = Vec3::new(0.62, 0.60, 0.56);
const DARK: Vec3 = Vec3::new(0.055, 0.055, 0.06);
const LEAF: Vec3 = Vec3::new(0.075, 0.16, 0.05);
const CLAY: Vec3 = Vec3::new(0.42, 0.20, 0.12);
/// Backs of books: quiet colours.
const SPINES: [Vec3; 6] = [
    Vec3::new(0.30, 0.08, 0.06),
    Vec3::new(0.09, 0.14, 0.24),
    Vec3::new(0.52, 0.47, 0.36),
    Vec3::new(0.10, 0.19, 0.13),
    Vec3::new(0.40, 0.29, 0.12),
    Vec3::new(0.24, 0.24, 0.25),
];

/// Adds all furniture as it stands in the layout; `shining` gives the source of a lamp's shade.
pub(super) fn add(
    maker: &mut Maker,
    things: &mut Things,
    corner: &Corner<'_>,
    shining: impl Fn(&Id) -> Option<u16>,
) {
    for (id, piece) in &corner.brief.room.furniture {
        if piece.kind == FurnitureKind::Chair && !piece.fixed {
            continue; // the person's own, drawn with the person
        }
        let name = format!("the {}", id.words());
        let number = things.number(&name, Sort::Furniture);
        let frame = frame(corner, id, piece);
        add_piece(maker, piece, &frame, [number, seed_of(&name)], shining(id));
    }
}

/// The space of a piece: its left front lower corner as its front is seen, along its width, into its depth, up.
fn frame(corner: &Corner<'_>, id: &Id, piece: &Furniture) -> Frame {
    let (at, bearing_deg) = corner.furniture_at(id, piece);
    let [width, depth, _] = piece.size_m.0;
    // Seen by one who faces its front, left is to the right of its bearing.
    let front = bearing_vector(bearing_deg);
    let axes = [bearing_vector(bearing_deg - 90.0), -front, DVec3::Z];
    Frame { corner: at - axes[0] * (width / 2.0) - axes[1] * (depth / 2.0), axes }
}

fn add_piece(
    maker: &mut Maker,
    piece: &Furniture,
    frame: &Frame,
    [number, seed]: [u16; 2],
    shade: Option<u16>,
) {
    let material = maker.material(Finish::Matt, number);
    let stuff = |colour: Vec3| Stuff { material, colour, patch_m: PATCH_M };
    let [w, d, h] = piece.size_m.0;
    let mut block = |from: [f64; 3], to: [f64; 3], colour: Vec3| frame.block(maker, from, to, stuff(colour));
    match piece.kind {
        FurnitureKind::Desk | FurnitureKind::Table if h > 2.0 * TOP_M => {
            block([0.0, 0.0, h - TOP_M], [w, d, h], OAK);
            for (x, y) in [(0.0, 0.0), (w - 0.05, 0.0), (w - 0.05, d - 0.05), (0.0, d - 0.05)] {
                block([x, y, 0.0], [x + 0.05, y + 0.05, h - TOP_M], OAK * 0.8);
            }
        }
        FurnitureKind::Bookcase => carcass(maker, frame, stuff, [w, d, h], seed),
        FurnitureKind::Shelf if h > 0.5 => carcass(maker, frame, stuff, [w, d, h], seed),
        FurnitureKind::Shelf => {
            block([0.0, 0.0, 0.0], [w, d, h.min(0.04)], OAK);
            row(maker, frame, stuff, [0.02, w - 0.02, h.min(0.04), 0.28], d, seed);
        }
        FurnitureKind::Bed => {
            block([0.0, 0.0, 0.08], [w, d, 0.55 * h], OAK * 0.8);
            block([0.03, 0.03, 0.55 * h], [w - 0.03, d - 0.03, h], LINEN);
            block([0.06 * w, 0.80 * d, h], [0.94 * w, 0.97 * d, h + 0.09], LINEN * 1.2);
        }
        FurnitureKind::Sofa => {
            block([0.0, 0.0, 0.10], [w, d, 0.5 * h], CLOTH);
            block([0.0, 0.72 * d, 0.5 * h], [w, d, h], CLOTH * 1.05);
            for x in [0.0, w - 0.14] {
                block([x, 0.0, 0.5 * h], [x + 0.14, 0.72 * d, 0.72 * h], CLOTH * 1.02);
            }
            let half = (w - 0.28) / 2.0;
            for seat in [0.14, 0.15 + half] {
                block([seat, 0.02, 0.5 * h], [seat + half - 0.01, 0.72 * d, 0.58 * h], CLOTH * 1.1);
            }
        }
        FurnitureKind::Wardrobe | FurnitureKind::Cabinet => {
            block([0.0, 0.02, 0.0], [w, d, h], PALE);
            // Leaves with a gap between them, each with a grip.
            let leaves = ((w / 0.55).round() as usize).clamp(1, 6);
            let wide = w / leaves as f64;
            for leaf in 0..leaves {
                let x = leaf as f64 * wide;
                block([x + 0.003, 0.0, 0.06], [x + wide - 0.003, 0.02, h - 0.003], PALE);
                block([x + wide - 0.05, -0.012, 0.45 * h], [x + wide - 0.035, 0.0, 0.55 * h], DARK);
            }
        }
        FurnitureKind::Radiator => {
            let ribs = ((w / 0.07) as usize).clamp(1, 60);
            let wide = w / ribs as f64;
            for rib in 0..ribs {
                let x = rib as f64 * wide;
                block([x, 0.0, 0.03 * h], [x + 0.8 * wide, d, h], PALE * 1.15);
            }
        }
        FurnitureKind::Mirror => {
            block([0.0, 0.0, 0.0], [w, d, h], OAK * 0.6);
            let glass = maker.material(Finish::Mirror(0.88), number);
            let stuff = Stuff { material: glass, colour: Vec3::ZERO, patch_m: PATCH_M };
            frame.block(maker, [0.03, -0.002, 0.03], [w - 0.03, 0.0, h - 0.03], stuff);
        }
        FurnitureKind::Picture => {
            picture(&mut block, [w, d, h]);
        }
        FurnitureKind::Lamp => lamp(maker, frame, stuff, piece, shade.map(|source| (source, number))),
        FurnitureKind::Plant => plant(maker, frame, stuff, [w, d, h]),
        FurnitureKind::Chair => {
            block([0.0, 0.0, 0.42 * h], [w, d, 0.47 * h], OAK);
            block([0.0, d - 0.04, 0.47 * h], [w, d, h], OAK);
            for (x, y) in [(0.0, 0.0), (w - 0.04, 0.0), (w - 0.04, d - 0.04), (0.0, d - 0.04)] {
                block([x, y, 0.0], [x + 0.04, y + 0.04, 0.42 * h], OAK * 0.8);
            }
        }
        FurnitureKind::Desk | FurnitureKind::Table | FurnitureKind::Box => {
            block([0.0; 3], [w, d, h], OAK * 1.1);
        }
    }
}

/// A frame about a sheet with two quiet fields.
pub(super) fn picture(block: &mut impl FnMut([f64; 3], [f64; 3], Vec3), [w, d, h]: [f64; 3]) {
    let edge = (0.06 * w.min(h)).clamp(0.01, 0.04);
    block([0.0, 0.0, 0.0], [w, d, edge], DARK);
    block([0.0, 0.0, h - edge], [w, d, h], DARK);
    block([0.0, 0.0, edge], [edge, d, h - edge], DARK);
    block([w - edge, 0.0, edge], [w, d, h - edge], DARK);
    let back = d * 0.5;
    block([edge, back, edge], [w - edge, d, 0.42 * h], Vec3::new(0.16, 0.24, 0.22));
    block([edge, back, 0.42 * h], [w - edge, d, h - edge], Vec3::new(0.58, 0.46, 0.28));
}

/// Shelves between two sides, with books and a few things.
fn carcass(
    maker: &mut Maker,
    frame: &Frame,
    stuff: impl Fn(Vec3) -> Stuff + Copy,
    [w, d, h]: [f64; 3],
    seed: u16,
) {
    let rows = ((h / 0.36).round() as usize).clamp(1, 8);
    let high = (h - BOARD_M) / rows as f64;
    for x in [0.0, w - BOARD_M] {
        frame.block(maker, [x, 0.0, 0.0], [x + BOARD_M, d, h], stuff(OAK));
    }
    frame.block(maker, [BOARD_M, d - 0.01, 0.0], [w - BOARD_M, d, h], stuff(OAK * 0.85));
    for level in 0..=rows {
        let z = level as f64 * high;
        frame.block(maker, [BOARD_M, 0.0, z], [w - BOARD_M, d - 0.01, z + BOARD_M], stuff(OAK));
        if level < rows {
            let ends = [BOARD_M + 0.01, w - BOARD_M - 0.01, z + BOARD_M, high - BOARD_M - 0.02];
            row(maker, frame, stuff, ends, d, seed.wrapping_add(level as u16 * 7 + 1));
        }
    }
}

/// Books in a row from left to right, and where they end a bowl or a small plant: x from and to, the board's top, and room above it.
pub(super) fn row(
    maker: &mut Maker,
    frame: &Frame,
    stuff: impl Fn(Vec3) -> Stuff + Copy,
    [from, to, z, room]: [f64; 4],
    depth: f64,
    seed: u16,
) {
    let pairs = Pairs::new(u32::from(seed), 3, 0);
    let filled = from + (to - from) * (0.45 + 0.35 * f64::from(pairs.get(0)[0]));
    let mut x = from;
    let mut number = 1;
    while x < filled && number < 60 {
        let [a, b] = pairs.get(number).map(f64::from);
        let thick = 0.018 + 0.03 * a;
        let high = room.min(0.30) * (0.72 + 0.22 * b);
        let deep = (depth - 0.03).min(0.20) * (0.85 + 0.15 * a);
        if x + thick > to {
            break;
        }
        let spine = SPINES[(number as usize * 5 + usize::from(seed) + (b * 4.0) as usize) % SPINES.len()];
        let book = [[x, 0.012, z], [x + thick - 0.0015, 0.012 + deep, z + high]];
        frame.block(maker, book[0], book[1], stuff(spine));
        x += thick;
        number += 1;
    }
    if to - x > 0.14 && room > 0.10 {
        let radius = ((to - x - 0.03) / 2.0).min(0.06).min(room / 2.4).min(depth / 2.2);
        let at = frame.at([to - radius - 0.02, depth / 2.0, z + 0.8 * radius]);
        ball(maker, at, DVec3::new(radius, radius, 0.8 * radius), stuff(CLAY));
    }
}

fn lamp(
    maker: &mut Maker,
    frame: &Frame,
    stuff: impl Fn(Vec3) -> Stuff,
    piece: &Furniture,
    shade: Option<(u16, u16)>,
) {
    let [w, d, h] = piece.size_m.0;
    let (high, _) = highlight::shade(piece);
    let middle = |z: f64| frame.at([w / 2.0, d / 2.0, z]);
    rod(maker, middle(0.0), middle(0.02), [0.3 * w, 0.3 * w], stuff(DARK));
    rod(maker, middle(0.02), middle(h - high), [0.012, 0.012], stuff(DARK));
    let stuff = match shade {
        Some((source, number)) => {
            let material = maker.material(Finish::Shines(source), number);
            Stuff { material, colour: Vec3::ZERO, patch_m: PATCH_M }
        }
        None => stuff(LINEN),
    };
    frame.block(maker, [0.0, 0.0, h - high], [w, d, h], stuff);
}

/// Leaves on stalks from a pot.
fn plant(maker: &mut Maker, frame: &Frame, stuff: impl Fn(Vec3) -> Stuff, [w, d, h]: [f64; 3]) {
    let radius = 0.28 * w.min(d);
    let middle = |z: f64| frame.at([w / 2.0, d / 2.0, z]);
    let pot = (0.28 * h).min(0.35);
    rod(maker, middle(0.0), middle(pot), [0.75 * radius, radius], stuff(CLAY));
    let pairs = Pairs::new(11, 0, 0);
    for number in 0..46 {
        let [a, b] = pairs.get(number).map(f64::from);
        let turn = std::f64::consts::TAU * a;
        let (reach, top) = (0.5 * w.min(d) * b.sqrt(), pot + (h - pot) * (0.25 + 0.72 * (1.0 - b * 0.6)));
        let root = middle(pot);
        let out = frame.axes[0] * turn.cos() + frame.axes[1] * turn.sin();
        let tip = middle(top) + out * reach - DVec3::Z * (0.25 * reach);
        let before = root.lerp(tip, 0.55) + DVec3::Z * (0.12 * (h - pot));
        let side = out.cross(DVec3::Z) * (0.05 + 0.03 * b).min(0.2 * w);
        let fold = DVec3::Z * -0.012;
        let bent = before.lerp(tip, 0.5) + DVec3::Z * 0.02;
        let colour = LEAF * (0.8 + 0.5 * a as f32);
        let stuff = stuff(colour);
        for (p, q, r) in [(before, bent + side + fold, tip), (before, tip, bent - side + fold)] {
            // Both sides, a hair apart.
            let corners = [p, q, r].map(|corner| corner.as_vec3());
            maker.flat(corners, stuff.colour, stuff.material, stuff.patch_m);
            let under = [r, q, p].map(|corner| (corner - DVec3::Z * 0.001).as_vec3());
            maker.flat(under, stuff.colour, stuff.material, stuff.patch_m);
        }
    }
}
