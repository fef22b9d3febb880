//! What a surface is made of where a ray meets it: packed small, because rays meet surfaces in no order.
use glam::Vec3;

/// How a surface throws light back.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Finish {
    /// The same to all sides.
    Matt,
    /// Matt under a rough sheen, as skin and hair: roughness, and reflectance straight on.
    Sheen {
        /// Roughness of the sheen (alpha of the GGX distribution), 0 to 1.
        roughness: f32,
        /// Reflectance straight on.
        straight_on: f32,
    },
    /// Matt under a smooth clear coat, as an eye, of a refractive index.
    Coat(f32),
    /// It shines: the number of the light source.
    Shines(u16),
    /// A mirror of a reflectance.
    Mirror(f32),
    /// A thin clear sheet, as a spectacle lens: what a coat against glare leaves of its reflection.
    Glass(f32),
}

/// What is to be known of a surface beside its colour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Material {
    /// How it throws light back.
    pub finish: Finish,
    /// The thing that it belongs to, by its number in the scene.
    pub thing: u16,
}

/// A triangle as it looks: normals and colours at its corners.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Look {
    /// Directions outwards, of length 1.
    pub normals: [Vec3; 3],
    /// Reflectances, linear.
    pub colours: [Vec3; 3],
}

/// A [`Look`] with what else belongs to a triangle, in 40 bytes.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Packed {
    face: u32,
    normals: [u32; 3],
    colours: [u32; 3],
    patch: u32,
    material: u16,
    grid: Grid,
}

/// Half of a flat parallelogram that has more patches than one, in rows.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(crate) struct Grid {
    pub(crate) columns: u8,
    pub(crate) rows: u8,
    /// The half with the second corner, or that with the fourth.
    pub(crate) is_second: bool,
}

impl Grid {
    /// Place in the parallelogram of a place in its half.
    fn place(self, u: f32, v: f32) -> (f32, f32) {
        if self.is_second { (u, u + v) } else { (u + v, v) }
    }
}

/// A triangle's surface at a point.
#[derive(Debug, Clone, Copy)]
pub(crate) struct At {
    /// Across the triangle itself.
    pub(crate) face: Vec3,
    /// As it looks: bent over from corner to corner.
    pub(crate) normal: Vec3,
    pub(crate) colour: Vec3,
}

impl Packed {
    pub(crate) fn new(face: Vec3, look: &Look, patch: u32, material: u16, grid: Grid) -> Self {
        Self {
            face: pack_direction(face),
            normals: look.normals.map(pack_direction),
            colours: look.colours.map(pack_colour),
            patch,
            material,
            grid,
        }
    }

    pub(crate) fn at(&self, u: f32, v: f32) -> At {
        let w = 1.0 - u - v;
        let [a, b, c] = self.normals;
        let normal = if a == b && b == c {
            unpack_direction(a)
        } else {
            let [a, b, c] = self.normals.map(unpack_direction);
            (a * w + b * u + c * v).normalize_or_zero()
        };
        At { face: unpack_direction(self.face), normal, colour: self.colour(u, v) }
    }

    pub(crate) fn colour(&self, u: f32, v: f32) -> Vec3 {
        let [a, b, c] = self.colours;
        if a == b && b == c {
            return unpack_colour(a);
        }
        let [a, b, c] = self.colours.map(unpack_colour);
        a * (1.0 - u - v) + b * u + c * v
    }

    pub(crate) fn look(&self) -> Look {
        Look { normals: self.normals.map(unpack_direction), colours: self.colours.map(unpack_colour) }
    }

    pub(crate) fn face(&self) -> Vec3 {
        unpack_direction(self.face)
    }

    /// It is half of a parallelogram with its patches in rows.
    pub(crate) fn is_in_rows(&self) -> bool {
        self.grid != Grid::default()
    }

    /// Its patch, or the first of them.
    pub(crate) fn first_patch(&self) -> usize {
        self.patch as usize
    }

    #[inline]
    pub(crate) fn patch(&self, u: f32, v: f32) -> usize {
        let Grid { columns, rows, .. } = self.grid;
        if columns == 0 {
            return self.patch as usize;
        }
        let (x, y) = self.grid.place(u, v);
        let along =
            |part: f32, number: u8| ((part * f32::from(number)) as usize).min(usize::from(number) - 1);
        self.patch as usize + along(y, rows) * usize::from(columns) + along(x, columns)
    }

    pub(crate) fn material(&self) -> usize {
        usize::from(self.material)
    }
}

/// A direction on an octahedron unfolded to a square, 16 bits a side (Meyer and others 2010, from memory).
fn pack_direction(direction: Vec3) -> u32 {
    let flat = direction / (direction.x.abs() + direction.y.abs() + direction.z.abs()).max(1e-20);
    let (x, y) = if flat.z >= 0.0 { (flat.x, flat.y) } else { folded(flat.x, flat.y) };
    let bits = |part: f32| u32::from(((part.clamp(-1.0, 1.0) * 32767.0).round() as i16).cast_unsigned());
    bits(x) | bits(y) << 16
}

fn unpack_direction(bits: u32) -> Vec3 {
    let part = |bits: u32| f32::from((bits as u16).cast_signed()) / 32767.0;
    let (x, y) = (part(bits), part(bits >> 16));
    let z = 1.0 - x.abs() - y.abs();
    let (x, y) = if z >= 0.0 { (x, y) } else { folded(x, y) };
    Vec3::new(x, y, z).normalize_or_zero()
}

fn folded(x: f32, y: f32) -> (f32, f32) {
    ((1.0 - y.abs()).copysign(x), (1.0 - x.abs()).copysign(y))
}

/// Reflectances by their square roots, 10 bits each: fine where it is dark.
fn pack_colour(colour: Vec3) -> u32 {
    let bits = |part: f32| (part.clamp(0.0, 1.0).sqrt() * 1023.0).round() as u32;
    bits(colour.x) | bits(colour.y) << 10 | bits(colour.z) << 20
}

fn unpack_colour(bits: u32) -> Vec3 {
    let part = |shift: u32| (bits >> shift & 1023) as f32 / 1023.0;
    let root = Vec3::new(part(0), part(10), part(20));
    root * root
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::random::Pairs;

    #[test]
    fn directions_and_colours_come_back() {
        let pairs = [Pairs::new(1, 0, 0), Pairs::new(1, 0, 1)];
        for number in 0..5000 {
            let ([x, y], [z, _]) = (pairs[0].get(number), pairs[1].get(number));
            let colour = Vec3::new(x, y, z);
            let direction = (colour * 2.0 - 1.0).normalize();
            assert!(unpack_direction(pack_direction(direction)).dot(direction) > 1.0 - 1e-6, "{direction}");
            let back = unpack_colour(pack_colour(colour));
            assert!((back - colour).abs().max_element() < 1.1e-3, "{colour} came back as {back}");
        }
    }
}
