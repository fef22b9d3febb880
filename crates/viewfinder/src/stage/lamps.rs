//! What shines: the lamps of the layout and what their boards throw back, windows, the light of the house, lit shades; and how
//! light is kept apart, so that a dial turned later needs no new picture.
use fogon_core::colour::xy_at;
use fogon_core::corner::{Corner, LightAt, Source as Gear};
use fogon_core::day::{HourLight, SunBeam};
use fogon_core::geometry::DVec3;
use fogon_core::light::field::{self, lit_board};
use fogon_core::light::highlight::shade;
use fogon_core::light::{LightField, cloth, coloured, house};
use fogon_core::photometry::{self, Face, sky};
use fogon_core::plan::{FurnitureKind, Gel, Id};
use glam::Vec3;

use crate::panel::{Panel, Shape};
use crate::scene::GROUPS;
use crate::source::{Emits, Source, Sunbeam};

/// The colour of a bulb under a shade, K: warm white.
const BULB_K: f64 = 2700.0;

/// What a light of a group is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum From {
    /// A lamp of the layout.
    Lamp(Id),
    /// All windows.
    Windows,
    /// The ceiling light of a room without lamps.
    House,
    /// Lit shades among the furniture.
    Shades,
}

/// A light that is kept apart: how bright and of what colour it is now.
#[derive(Debug, Clone, PartialEq)]
pub struct Group {
    /// What it is; several where there are more lights than groups.
    pub from: Vec<From>,
    /// Its luminance now over that at which its picture was taken.
    pub dial: f32,
    /// Its colour now, CIE 1931 (x, y).
    pub xy: [f64; 2],
}

/// Everything that shines, in a fixed order.
#[derive(Debug, Default)]
pub(super) struct Shining {
    pub(super) sources: Vec<Source>,
    pub(super) groups: Vec<Group>,
    lamps: Vec<(Id, u16)>,
    windows: Vec<(Id, u16)>,
    shades: Vec<(Id, u16)>,
    house: Option<u16>,
}

/// One light before groups are made.
struct Apart {
    from: From,
    /// Flux at full power, lm: the brightest are kept apart, whatever their dials.
    flux_lm: f64,
    dial: f32,
    xy: [f64; 2],
    /// Its faces at full power, each with who wears it.
    faces: Vec<(Face, Wearer)>,
}

#[derive(Clone)]
enum Wearer {
    Lamp(Id),
    Window(Id),
    House,
    Shade(Id),
    /// The side of a shade that nobody needs to find again.
    Nobody,
}

impl Shining {
    /// At an hour the windows are as bright as the sky makes them then, and the sun comes in.
    pub(super) fn of(corner: &Corner<'_>, hour: Option<&HourLight>) -> Self {
        let mut all: Vec<Apart> = corner.lights.iter().filter_map(lamp).collect();
        all.extend(windows(corner, hour));
        if house::shines(corner) {
            let face = house::face(&corner.brief.room);
            let xy = xy_at(house::CCT_K, 0.0);
            let flux_lm = face.flux_lm();
            all.push(Apart { from: From::House, flux_lm, dial: 1.0, xy, faces: vec![(face, Wearer::House)] });
        }
        all.extend(shades(corner));
        // The brightest first; of two alike the first in the layout.
        all.sort_by(|a, b| b.flux_lm.total_cmp(&a.flux_lm));
        let mut shining = Self::default();
        let mut worth = Vec::new();
        for (number, apart) in all.iter().enumerate() {
            let group = number.min(GROUPS - 1);
            let colour = if number < GROUPS {
                shining.groups.push(Group { from: Vec::new(), dial: apart.dial, xy: apart.xy });
                Vec3::ONE
            } else {
                // It shares the last group: its dial and its colour are in its picture.
                let first = &shining.groups[group];
                let (own, shared) = (rgb_of(apart.xy), rgb_of(first.xy));
                own / shared.max(Vec3::splat(1e-3)) * (apart.dial / first.dial.max(1e-3))
            };
            shining.groups[group].from.push(apart.from.clone());
            worth.push((group, colour));
            for (face, wearer) in &apart.faces {
                let from = vec![(group, colour * face.luminance_cd_m2 as f32)];
                shining.push(face, from, wearer.clone());
            }
        }
        shining.boards(corner, &all, &worth);
        let of_windows = all.iter().zip(&worth).find(|(apart, _)| apart.from == From::Windows);
        if let (Some(beam), Some((apart, (group, colour)))) =
            (hour.and_then(|hour| hour.beam.as_ref()), of_windows)
        {
            shining.beams(beam, *group, *colour * rgb_of(beam.xy) / rgb_of(apart.xy).max(Vec3::splat(1e-3)));
        }
        shining
    }

    fn push(&mut self, face: &Face, from: Vec<(usize, Vec3)>, wearer: Wearer) {
        let number = self.sources.len() as u16;
        self.sources.push(Source { emits: emits(face), exponent: face.exponent as f32, from });
        match wearer {
            Wearer::Lamp(id) => self.lamps.push((id, number)),
            Wearer::Window(id) => self.windows.push((id, number)),
            Wearer::Shade(id) => self.shades.push((id, number)),
            Wearer::House => self.house = Some(number),
            Wearer::Nobody => {}
        }
    }

    /// The sun behind each window, in the windows' group.
    fn beams(&mut self, beam: &SunBeam, group: usize, colour: Vec3) {
        for pane in &beam.panes {
            let emits = Emits::Sun(Sunbeam {
                to_sun: beam.to_sun.as_vec3(),
                middle: pane.middle_m.as_vec3(),
                along: (pane.along * pane.half_m.x).as_vec3(),
                up: (pane.up * pane.half_m.y).as_vec3(),
                out: pane.out.as_vec3(),
                reveal_m: pane.reveal_m as f32,
            });
            let from = vec![(group, colour * beam.illuminance_lx as f32)];
            self.sources.push(Source { emits, exponent: 1.0, from });
        }
    }

    /// Boards: as bright as each light makes them.
    fn boards(&mut self, corner: &Corner<'_>, all: &[Apart], worth: &[(usize, Vec3)]) {
        let is_board = |light: &&LightAt<'_>| matches!(light.source, Gear::Board(_));
        if !corner.lights.iter().any(|light| is_board(&light)) {
            return;
        }
        let field = LightField::of(corner);
        for light in corner.lights.iter().filter(is_board) {
            let Gear::Board(board) = light.source else { continue };
            let mut from = Vec::new();
            let face = light.dark_face();
            let before = face.normal * 1e-3;
            for (apart, (group, colour)) in all.iter().zip(worth) {
                let lit_lx = |point: DVec3, normal: DVec3| match &apart.from {
                    From::Lamp(id) => {
                        let own = corner.lights.iter().find(|light| light.id == id);
                        own.map_or(0.0, |own| field.light_lx(own, point + before, normal))
                    }
                    From::Windows | From::House => {
                        let lamps: f64 =
                            corner.lights.iter().map(|own| field.light_lx(own, point + before, normal)).sum();
                        (field.direct_lx(point + before, normal) - lamps).max(0.0)
                    }
                    // So little that the core leaves it out.
                    From::Shades => 0.0,
                };
                let lit = lit_board(face.clone(), board.reflectance, lit_lx);
                let full = lit.luminance_cd_m2 / f64::from(apart.dial).max(1e-6);
                if full > 0.0 {
                    from.push((*group, *colour * full as f32));
                }
            }
            self.push(&face, from, Wearer::Lamp(light.id.clone()));
        }
    }

    /// Numbers of the sources that a light wears: its front, and of a cloth its back and the lamp behind.
    pub(super) fn of_light(&self, id: &Id) -> Vec<u16> {
        self.lamps.iter().filter(|(own, _)| own == id).map(|(_, number)| *number).collect()
    }

    pub(super) fn of_window(&self, id: &Id) -> Option<u16> {
        self.windows.iter().find(|(own, _)| own == id).map(|(_, number)| *number)
    }

    pub(super) fn of_shade(&self, id: &Id) -> Option<u16> {
        self.shades.iter().find(|(own, _)| own == id).map(|(_, number)| *number)
    }

    pub(super) fn of_house(&self) -> Option<u16> {
        self.house
    }
}

/// A lamp at full power and without its gel.
fn lamp(light: &LightAt<'_>) -> Option<Apart> {
    let Gear::Lamp(gear) = light.source else { return None };
    let dial = light.light.dim * light.light.gel.map_or(1.0, Gel::transmittance);
    let full = {
        let own = light.face();
        Face { luminance_cd_m2: photometry::luminance_cd_m2(gear), ..own }
    };
    let flux_lm = full.flux_lm();
    let wearer = || Wearer::Lamp(light.id.clone());
    let faces = match light.cloth {
        Some((cloth, _)) => {
            let hung = cloth::lit(&light.dark_face(), &full, cloth);
            vec![(hung.front, wearer()), (hung.back, wearer()), (full, wearer())]
        }
        None => vec![(full, wearer())],
    };
    let xy = coloured::xy_of(light);
    Some(Apart { from: From::Lamp(light.id.clone()), flux_lm, dial: dial as f32, xy, faces })
}

fn windows(corner: &Corner<'_>, hour: Option<&HourLight>) -> Option<Apart> {
    let at_hour = |id: &Id, face: Face| {
        let own = hour.and_then(|hour| hour.windows.iter().find(|(other, _)| other == id));
        Face { luminance_cd_m2: own.map_or(face.luminance_cd_m2, |(_, luminance)| *luminance), ..face }
    };
    let faces: Vec<(Face, Wearer)> =
        field::windows(corner).map(|(id, face)| (at_hour(id, face), Wearer::Window(id.clone()))).collect();
    let flux_lm = faces.iter().map(|(face, _)| face.flux_lm()).sum();
    let xy = hour.map_or_else(|| xy_at(sky::OVERCAST_K, 0.0), |hour| hour.xy);
    (!faces.is_empty()).then_some(Apart { from: From::Windows, flux_lm, dial: 1.0, xy, faces })
}

/// Lit shades: four sides each.
fn shades(corner: &Corner<'_>) -> Option<Apart> {
    let mut faces = Vec::new();
    for (id, piece) in &corner.brief.room.furniture {
        if piece.kind != FurnitureKind::Lamp {
            continue;
        }
        let height = piece.size_m.0[2];
        let (high, luminance) = shade(piece);
        let corners = corner.furniture_box(id, piece);
        for side in 0..4 {
            let (a, b) = (corners[side], corners[(side + 1) % 4]);
            let low = DVec3::Z * (height - high);
            // Counter-clockwise seen from outside, whichever way the box was told.
            let mut outline = vec![a + low, b + low, b + DVec3::Z * height, a + DVec3::Z * height];
            let middle = corners.iter().sum::<DVec3>() / 8.0;
            if Face::flat(outline.clone(), 1.0).normal.dot((a + b) / 2.0 - middle) < 0.0 {
                outline.reverse();
            }
            let wearer = if side == 0 { Wearer::Shade(id.clone()) } else { Wearer::Nobody };
            faces.push((Face::flat(outline, luminance), wearer));
        }
    }
    let flux_lm = faces.iter().map(|(face, _)| face.flux_lm()).sum();
    let xy = xy_at(BULB_K, 0.0);
    (!faces.is_empty()).then_some(Apart { from: From::Shades, flux_lm, dial: 1.0, xy, faces })
}

/// A face as what is sampled: outlines by what they are.
fn emits(face: &Face) -> Emits {
    match face.emits {
        photometry::Emits::Around { axis, half_length_m, half_width_m } => Emits::Around {
            middle: face.middle.as_vec3(),
            along: (axis * half_length_m).as_vec3(),
            radius_m: half_width_m as f32,
        },
        photometry::Emits::AllRound(radius) => {
            Emits::AllRound { middle: face.middle.as_vec3(), radius_m: radius as f32 }
        }
        photometry::Emits::Forward => {
            let middle = face.middle.as_vec3();
            if let [a, b, _, d] = face.outline[..] {
                let (across, up) = ((b - a) / 2.0, (d - a) / 2.0);
                return Emits::Forward(Panel::new(middle, across.as_vec3(), up.as_vec3(), Shape::Rectangle));
            }
            // Round ones and octagons: their middle and how far they reach.
            let reach = |outline: &[DVec3]| outline.first().map_or(0.0, |p| p.distance(face.middle));
            let (across, up) = photometry::axes(face.normal);
            let (radius, shape) = if face.outline.len() == 8 {
                (reach(&face.outline), Shape::Octagon)
            } else {
                // The outline's circle is a little outside, so that its area is the circle's.
                let radius = |area: f64| (area / std::f64::consts::PI).sqrt();
                let hole = if face.hole.is_empty() { 0.0 } else { reach(&face.hole) / reach(&face.outline) };
                let outer = radius(face.area_m2 / (1.0 - hole * hole));
                (outer, if hole > 0.0 { Shape::Ring(hole as f32) } else { Shape::Disc })
            };
            Emits::Forward(Panel::new(middle, (across * radius).as_vec3(), (up * radius).as_vec3(), shape))
        }
    }
}

/// A chromaticity as linear red, green and blue of luminance 1.
pub(crate) fn rgb_of([x, y]: [f64; 2]) -> Vec3 {
    let xyz = [x / y, 1.0, (1.0 - x - y) / y];
    // IEC 61966-2-1, from memory.
    let row = |a: f64, b: f64, c: f64| (a * xyz[0] + b * xyz[1] + c * xyz[2]) as f32;
    Vec3::new(
        row(3.240_97, -1.537_383, -0.498_611),
        row(-0.969_244, 1.875_968, 0.041_555),
        row(0.055_63, -0.203_977, 1.056_972),
    )
    .max(Vec3::ZERO)
}
