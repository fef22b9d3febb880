//! The stand-in: a calm, neutral person, made of soft shapes. Everything here is in the figure's own space: the origin between
//! the pupils, x to the figure's left, y up, z forward, metres, for a head 0.23 m high.

mod clothes;
mod eyes;
mod hair;
mod head;
mod paint;
mod shape;

use glam::Vec3;

use crate::nets::{Grid, Mesh};

/// One surface of the figure.
#[derive(Debug, Clone)]
pub struct Part {
    /// Its shape.
    pub mesh: Mesh,
    /// Reflectance at each corner, linear, red, green and blue.
    pub colours: Vec<Vec3>,
    /// Roughness and reflectance straight on of what shines on it, 0 for none.
    pub gloss: (f32, f32),
    /// Refractive index of a smooth coat, 0 for none.
    pub mirror: f32,
}

/// All surfaces of a bust.
pub fn parts() -> Vec<Part> {
    vec![skin(), eyes::eye(1.0), eyes::eye(-1.0), hair_cap(), shirt()]
}

/// Head and neck.
fn skin() -> Part {
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
    let mesh = grid.mesh(head::skin).kept(|corner| clothes::shows_skin(corner) && !hair::covers(corner));
    let colours = mesh.corners.iter().map(|&corner| paint::skin(corner)).collect();
    Part { mesh, colours, gloss: (0.40, 0.028), mirror: 0.0 }
}

fn hair_cap() -> Part {
    let across = Grid::planes(-0.1, &[(0.1, 0.002)]);
    let grid = Grid {
        planes: [across, Grid::planes(-0.12, &[(0.14, 0.002)]), Grid::planes(-0.135, &[(0.11, 0.002)])],
    };
    let mesh = grid.mesh(hair::cap);
    let colours = mesh.corners.iter().map(|&corner| paint::hair(corner)).collect();
    Part { mesh, colours, gloss: (0.42, 0.05), mirror: 0.0 }
}

fn shirt() -> Part {
    let across = Grid::planes(-0.33, &[(-0.13, 0.008), (0.13, 0.0035), (0.33, 0.008)]);
    let grid = Grid {
        planes: [
            across,
            Grid::planes(-0.75, &[(-0.26, 0.009), (-0.12, 0.0035)]),
            Grid::planes(-0.20, &[(-0.12, 0.008), (0.06, 0.0035), (0.34, 0.008)]),
        ],
    };
    let mesh = grid.mesh(clothes::shirt);
    let colours = vec![Vec3::new(0.105, 0.135, 0.18); mesh.corners.len()];
    Part { mesh, colours, gloss: (0.0, 0.0), mirror: 0.0 }
}
