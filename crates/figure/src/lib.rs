//! The stand-in: a calm, neutral person, made of soft shapes. Everything here is in the figure's own space: the origin between
//! the pupils, x to the figure's left, y up, z forward, metres, for a head 0.23 m high.

mod clothes;
mod eyes;
mod glasses;
mod hair;
mod hands;
mod head;
mod instrument;
mod legs;
mod nets;
mod paint;
mod pose;
mod shape;

use glam::Vec3;

use nets::Grid;

use pose::Pose;

pub use nets::Mesh;
pub use pose::Setting;

/// What a part of the figure is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum What {
    Skin,
    Eye,
    Hair,
    Clothes,
    Glasses,
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
    /// Glasses are worn.
    pub glasses: bool,
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

/// What is the same for everybody, and takes the longest: head and hair. Meshed once, when the application is built.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Head {
    skin: Mesh,
    hair: Mesh,
    strands: Mesh,
}

impl Head {
    /// Meshes it: about a second.
    pub fn meshed() -> Self {
        let planes = [
            Grid::planes(
                -0.17,
                &[(-0.09, 0.006), (-0.058, 0.003), (0.058, 0.0014), (0.09, 0.003), (0.17, 0.006)],
            ),
            Grid::planes(-0.25, &[(-0.12, 0.006), (0.035, 0.0014), (0.125, 0.005)]),
            Grid::planes(-0.125, &[(-0.04, 0.006), (0.03, 0.003), (0.125, 0.0014)]),
        ];
        let skin = Grid { planes }.mesh(head::skin).kept(clothes::shows_skin);
        let hair = Grid {
            planes: [
                Grid::planes(-0.1, &[(0.1, 0.002)]),
                Grid::planes(-0.12, &[(0.14, 0.002)]),
                Grid::planes(-0.135, &[(0.11, 0.002)]),
            ],
        };
        let hair = hair.mesh(hair::cap);
        let strands = hair::strands(&hair);
        let mut head = Self { skin, hair, strands };
        head.fit();
        head
    }

    /// Draws crown and chin to where people's are: so far from the eyes over the height of a head; rounded as it is kept.
    fn fit(&mut self) {
        let heights =
            |is_one: fn(&Vec3) -> bool| self.skin.corners.iter().filter(move |p| is_one(p)).map(|p| p.y);
        let crown = heights(|_| true).fold(f32::MIN, f32::max);
        // The lowest of the profile between mouth and throat.
        let chin = heights(|p| p.x.abs() < 0.004 && p.z > 0.075 && p.y > -0.14).fold(f32::MAX, f32::min);
        let fitted = |y: f32| {
            if y > 0.0 {
                y * CROWN / crown
            } else if y > chin {
                y * CHIN / chin
            } else {
                y + CHIN - chin
            }
        };
        for mesh in [&mut self.skin, &mut self.hair, &mut self.strands] {
            mesh.corners.iter_mut().for_each(|corner| corner.y = fitted(corner.y));
            mesh.round();
        }
    }

    /// As bytes.
    pub fn to_bytes(&self) -> Vec<u8> {
        [&self.skin, &self.hair, &self.strands].iter().flat_map(|mesh| mesh.to_bytes()).collect()
    }

    /// From bytes; nothing if they are none of a head.
    pub fn from_bytes(bytes: &[u8]) -> Option<Self> {
        let (skin, rest) = Mesh::from_bytes(bytes)?;
        let (hair, rest) = Mesh::from_bytes(rest)?;
        let (strands, rest) = Mesh::from_bytes(rest)?;
        rest.is_empty().then_some(Self { skin, hair, strands })
    }
}

/// Crown and chin from the eyes, of a head 0.23 high: (1 - 0.936) and (0.870 - 0.936) of the stature, 0.13 of which is the head
/// (Drillis and Contini 1966, from memory).
const CROWN: f32 = 0.23 * 0.064 / 0.130;
const CHIN: f32 = -0.23 * 0.066 / 0.130;

/// All surfaces of a figure.
pub fn parts(head: &Head, setting: &Setting, looks: &Looks) -> Vec<Part> {
    let pose = Pose::of(setting);
    let mut all =
        vec![skin(head, looks), eyes::eye(1.0, setting.looks_at), eyes::eye(-1.0, setting.looks_at)];
    all.extend(looks.hair.into_iter().flat_map(|colour| hair(head, colour)));
    if looks.glasses {
        all.extend(glasses::parts());
    }
    // The neck twists.
    for part in &mut all {
        turn(&mut part.mesh, setting.head_turn);
    }
    all.extend(body(setting, &pose, looks));
    all
}

/// The axis about which the head turns, before the ears.
const NECK_Z: f32 = -0.035;

/// How far the middle between the pupils lies before the figure's origin.
pub const EYES_BEFORE: f32 = 0.080;

/// Turns what lies above the collar to the figure's left, the neck ever less downwards.
fn turn(mesh: &mut Mesh, by: f32) {
    if by == 0.0 {
        return;
    }
    for (corner, normal) in mesh.corners.iter_mut().zip(&mut mesh.normals) {
        let (sine, cosine) = (by * shape::ramp(-0.21, -0.10, corner.y)).sin_cos();
        let turned = |v: Vec3| Vec3::new(cosine * v.x + sine * v.z, v.y, cosine * v.z - sine * v.x);
        let pivot = Vec3::Z * NECK_Z;
        *corner = turned(*corner - pivot) + pivot;
        *normal = turned(*normal);
    }
}

/// Where the middle between the pupils lies once the head is turned.
pub fn eyes_at(head_turn: f32) -> Vec3 {
    let reach = EYES_BEFORE - NECK_Z;
    Vec3::new(reach * head_turn.sin(), 0.0, reach * head_turn.cos() + NECK_Z)
}

/// Places on the face at which light is told: forehead, left cheek, right cheek, chin; a little off the skin, in the figure's space.
pub fn face_spots(head_turn: f32) -> Vec<Vec3> {
    let spots = [(0.0, 0.055, 0.094), (0.036, -0.036, 0.084), (-0.036, -0.036, 0.084), (0.0, -0.108, 0.093)];
    let mut mesh = Mesh {
        corners: spots.map(Vec3::from).to_vec(),
        normals: vec![Vec3::Z; spots.len()],
        triangles: Vec::new(),
    };
    turn(&mut mesh, head_turn);
    mesh.corners
}

/// Head and neck.
fn skin(head: &Head, looks: &Looks) -> Part {
    let is_hidden = |corner| looks.hair.is_some() && hair::covers(corner);
    let mesh = head.skin.kept(|corner| !is_hidden(corner));
    let colours = mesh.corners.iter().map(|&corner| paint::skin(corner, looks)).collect();
    Part { what: What::Skin, mesh, colours, stuff: SKIN }
}

const SKIN: Stuff = Stuff::Sheen { roughness: 0.40, straight_on: 0.028 };

/// The body of the hair, darker than its strands, for little light gets down to it; and the strands.
fn hair(head: &Head, colour: Vec3) -> [Part; 2] {
    let body = plain(What::Hair, Stuff::Matt, colour * 0.7, head.hair.clone());
    let mesh = head.strands.clone();
    let colours =
        (0..mesh.corners.len()).map(|corner| paint::strand(corner / hair::CORNERS, colour)).collect();
    let stuff = Stuff::Sheen { roughness: 0.36, straight_on: 0.05 };
    [body, Part { what: What::Hair, mesh, colours, stuff }]
}

/// A part of one colour, meshed on cells of a size within a box.
fn plain(what: What, stuff: Stuff, colour: Vec3, mesh: Mesh) -> Part {
    let colours = vec![colour; mesh.corners.len()];
    Part { what, mesh, colours, stuff }
}

fn cells(low: Vec3, high: Vec3, size: f32) -> Grid {
    Grid { planes: [0, 1, 2].map(|axis| Grid::planes(low[axis], &[(high[axis], size)])) }
}

/// Shirt, hands, trousers, shoes, and what is played.
fn body(setting: &Setting, pose: &Pose, looks: &Looks) -> Vec<Part> {
    let reach = pose.arms.iter().fold(0.30_f32, |reach, arm| reach.max(arm.elbow.x.abs() + 0.09));
    let ahead = pose.arms.iter().fold(0.10_f32, |ahead, arm| ahead.max(arm.hand.wrist.z + 0.03));
    let lowest = pose.arms.iter().fold(pose.hips - 0.12, |low, arm| low.min(arm.hand.wrist.y - 0.05));
    let shirt = Grid {
        planes: [
            Grid::planes(-reach, &[(-0.13, 0.0075), (0.13, 0.0035), (reach, 0.0075)]),
            Grid::planes(lowest, &[(-0.27, 0.0085), (-0.085, 0.0035)]),
            Grid::planes(-0.20, &[(-0.12, 0.008), (0.06, 0.0035), (ahead.max(0.08), 0.008)]),
        ],
    };
    let shirt = shirt.mesh(|point| clothes::shirt(pose, point));
    let mut all: Vec<Part> = [shirt, clothes::collar(pose)]
        .into_iter()
        .map(|mesh| plain(What::Clothes, Stuff::Matt, looks.shirt, mesh))
        .collect();
    for (arm, side) in pose.arms.iter().zip([1.0, -1.0]) {
        let (wrist, fingers) = (arm.hand.wrist, arm.hand.fingers * 0.20);
        let around = Vec3::splat(0.075);
        let grid = cells(wrist.min(wrist + fingers) - around, wrist.max(wrist + fingers) + around, 0.0035);
        let mesh = grid.mesh(|point| hands::hand(&arm.hand, side, point));
        // A little redder than the face, as hands are.
        all.push(plain(What::Skin, SKIN, looks.skin * Vec3::new(0.97, 0.90, 0.87), mesh));
    }
    let (low, high) =
        (Vec3::new(-0.24, setting.floor + 0.02, -0.22), Vec3::new(0.24, pose.hips + 0.10, 0.50));
    let cloth = Vec3::new(0.052, 0.056, 0.068);
    let trousers = cells(low, high, 0.011).mesh(|point| legs::trousers(pose, point));
    all.push(plain(What::Clothes, Stuff::Matt, cloth, trousers));
    let (low, high) =
        (Vec3::new(-0.20, setting.floor - 0.01, -0.18), Vec3::new(0.20, setting.floor + 0.12, 0.62));
    let shoes = cells(low, high, 0.008).mesh(|point| legs::shoes(pose, point));
    all.push(plain(What::Clothes, Stuff::Matt, Vec3::new(0.045, 0.034, 0.026), shoes));
    if setting.plays {
        let (low, high) = (Vec3::new(-0.34, -0.68, 0.02), Vec3::new(0.24, -0.28, 0.27));
        let body = cells(low, high, 0.006).mesh(instrument::body);
        let varnish = Stuff::Sheen { roughness: 0.30, straight_on: 0.04 };
        all.push(plain(What::Instrument, varnish, Vec3::new(0.40, 0.20, 0.075), body));
        let (low, high) = (Vec3::new(-0.25, -0.56, 0.13), Vec3::new(0.54, -0.29, 0.24));
        let neck = cells(low, high, 0.006).mesh(instrument::neck);
        all.push(plain(What::Instrument, varnish, Vec3::new(0.085, 0.050, 0.030), neck));
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_head_comes_back_from_its_bytes() {
        let head = Head::meshed();
        let bytes = head.to_bytes();
        assert_eq!(Head::from_bytes(&bytes).as_ref(), Some(&head));
        for cut in [0, 3, 4, 100, bytes.len() - 1] {
            assert_eq!(Head::from_bytes(&bytes[..cut]), None, "{cut} bytes");
        }
        let mut odd = bytes.clone();
        odd[..4].copy_from_slice(&u32::MAX.to_le_bytes());
        assert_eq!(Head::from_bytes(&odd), None);
    }
}
