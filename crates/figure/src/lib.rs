//! The stand-in: a calm, neutral person, made of soft shapes. Everything here is in the figure's own space: the origin between
//! the pupils, x to the figure's left, y up, z forward, metres, for a head 0.23 m high.

mod clothes;
mod eyes;
mod hair;
mod head;
mod nets;
mod paint;
mod shape;

use glam::Vec3;

use nets::Grid;

pub use nets::Mesh;

/// What a part of the figure is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum What {
    Skin,
    Eye,
    Hair,
    Clothes,
    Glasses,
    Chair,
    Instrument,
}

/// How a part throws light back.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Stuff {
    /// The same to all sides.
    Matt,
    /// Matt under a rough sheen.
    Sheen {
        /// Alpha of the GGX distribution.
        roughness: f32,
        /// Reflectance straight on.
        straight_on: f32,
    },
    /// Matt under a smooth clear coat of a refractive index.
    Coat(f32),
    /// A thin clear sheet.
    Glass,
}

/// Colours that differ from person to person: reflectances, linear red, green and blue.
#[derive(Debug, Clone, PartialEq)]
pub struct Looks {
    /// Skin, before cheeks, lips and shade.
    pub skin: Vec3,
    /// Hair, if there is any.
    pub hair: Option<Vec3>,
    /// What is worn.
    pub shirt: Vec3,
}

/// One surface of the figure.
#[derive(Debug, Clone)]
pub struct Part {
    /// What it is.
    pub what: What,
    /// Its shape.
    pub mesh: Mesh,
    /// Reflectance at each corner, linear, red, green and blue.
    pub colours: Vec<Vec3>,
    /// How it throws light back.
    pub stuff: Stuff,
}

/// All surfaces of a bust.
pub fn parts(looks: &Looks) -> Vec<Part> {
    let mut all = vec![skin(looks), eyes::eye(1.0), eyes::eye(-1.0), shirt(looks)];
    all.extend(looks.hair.map(hair_cap));
    all
}

/// Head and neck.
fn skin(looks: &Looks) -> Part {
    let grid = Grid {
        planes: [
            Grid::planes(
                -0.17,
                &[(-0.09, 0.006), (-0.058, 0.003), (0.058, 0.0014), (0.09, 0.003), (0.17, 0.006)],
            ),
            Grid::planes(-0.25, &[(-0.12, 0.006), (0.035, 0.0014), (0.125, 0.005)]),
            Grid::planes(-0.125, &[(-0.04, 0.006), (0.03, 0.003), (0.125, 0.0014)]),
        ],
    };
    let under_hair = |corner| looks.hair.is_some() && hair::covers(corner);
    let mesh = grid.mesh(head::skin).kept(|corner| clothes::shows_skin(corner) && !under_hair(corner));
    let colours = mesh.corners.iter().map(|&corner| paint::skin(corner, looks)).collect();
    Part { what: What::Skin, mesh, colours, stuff: Stuff::Sheen { roughness: 0.40, straight_on: 0.028 } }
}

fn hair_cap(colour: Vec3) -> Part {
    let across = Grid::planes(-0.1, &[(0.1, 0.002)]);
    let grid = Grid {
        planes: [across, Grid::planes(-0.12, &[(0.14, 0.002)]), Grid::planes(-0.135, &[(0.11, 0.002)])],
    };
    let mesh = grid.mesh(hair::cap);
    let colours = mesh.corners.iter().map(|&corner| paint::hair(corner, colour)).collect();
    Part { what: What::Hair, mesh, colours, stuff: Stuff::Sheen { roughness: 0.42, straight_on: 0.05 } }
}

fn shirt(looks: &Looks) -> Part {
    let across = Grid::planes(-0.33, &[(-0.13, 0.008), (0.13, 0.0035), (0.33, 0.008)]);
    let grid = Grid {
        planes: [
            across,
            Grid::planes(-0.75, &[(-0.26, 0.009), (-0.12, 0.0035)]),
            Grid::planes(-0.20, &[(-0.12, 0.008), (0.06, 0.0035), (0.34, 0.008)]),
        ],
    };
    let mesh = grid.mesh(clothes::shirt);
    let colours = vec![looks.shirt; mesh.corners.len()];
    Part { what: What::Clothes, mesh, colours, stuff: Stuff::Matt }
}
