//! A scene as plain data, for other renderers: y up, as they have it.
use glam::{Vec2, Vec3};

use crate::source::{Emits, Source};
use crate::stage::Staged;
use crate::stage::things::Sort;
use crate::surface::Finish;

/// Sides of what stands for a round lamp.
const ROUND: usize = 32;

/// A scene, y up, right-handed, metres; light in cd/m2 times a colour of luminance 1.
#[derive(Debug, Clone)]
pub struct Exported {
    /// Surfaces, one mesh for each material.
    pub meshes: Vec<ExportedMesh>,
    /// What shines.
    pub lights: Vec<ExportedLight>,
    /// Where it is seen from.
    pub camera: ExportedCamera,
}

/// Triangles that share nothing, with a normal and a colour at each corner.
#[derive(Debug, Clone)]
pub struct ExportedMesh {
    /// What it is.
    pub name: String,
    /// `face`, `clothes` or `background`.
    pub region: &'static str,
    /// Refractive index of a smooth coat, 0 for none.
    pub coat_ior: f32,
    /// Place, normal and reflectance of each corner, three to a triangle.
    pub corners: Vec<[Vec3; 3]>,
}

/// A flat shining polygon.
#[derive(Debug, Clone)]
pub struct ExportedLight {
    /// Corners, counter-clockwise seen from where it shines.
    pub polygon: Vec<Vec3>,
    /// Radiance, linear red, green and blue.
    pub radiance: Vec3,
}

/// A thin lens.
#[derive(Debug, Clone)]
pub struct ExportedCamera {
    /// Middle of the lens.
    pub position: Vec3,
    /// A point on its axis.
    pub look_at: Vec3,
    /// Up.
    pub up: Vec3,
    /// Image distance, mm: with it the field is that of the lens as it is focused.
    pub focal_mm: f32,
    /// Width of the picture on the sensor, mm.
    pub sensor_width_mm: f32,
    /// Image distance over the opening.
    pub f_number: f32,
    /// Depth of the plane in focus, m.
    pub focus_distance: f32,
}

fn y_up(point: Vec3) -> Vec3 {
    Vec3::new(point.x, point.z, -point.y)
}

/// A staged plan whose picture on the sensor is so wide, mm.
pub fn exported(staged: &Staged, sensor_width_mm: f32) -> Exported {
    let scene = &staged.scene;
    let mut meshes: Vec<ExportedMesh> = Vec::new();
    for placed in &scene.bodies {
        let body = &placed.body;
        let first = meshes.len();
        let mut mesh_of = vec![None; body.materials.len()];
        for (number, material) in body.materials.iter().enumerate() {
            let coat_ior = match material.finish {
                Finish::Coat(index) => index,
                Finish::Matt | Finish::Sheen { .. } | Finish::Mirror(_) => 0.0,
                Finish::Shines(_) | Finish::Glass(_) => continue,
            };
            let (name, sort) = staged.things.get(material.thing).unwrap_or(("thing", Sort::Room));
            let region = match sort {
                Sort::Skin => "face",
                Sort::Person if name == "clothes" || name == "hair" => "clothes",
                Sort::Person => "face",
                Sort::Room | Sort::Furniture | Sort::SetUp => "background",
            };
            mesh_of[number] = Some(meshes.len());
            let name = format!("{} {name}", meshes.len() - first);
            meshes.push(ExportedMesh { name, region, coat_ior, corners: Vec::new() });
        }
        for (packed, corners) in body.triangles.iter().zip(&body.corners()) {
            let Some(mesh) = mesh_of[packed.material()] else { continue };
            let look = packed.look();
            meshes[mesh].corners.extend([0, 1, 2].map(|i| {
                let normal = placed.to_room.transform_vector3(look.normals[i]).normalize_or_zero();
                [y_up(placed.to_room.transform_point3(corners[i])), y_up(normal), look.colours[i]]
            }));
        }
    }
    meshes.retain(|mesh| !mesh.corners.is_empty());
    let lights = scene.sources.iter().flat_map(|source| lights(source, staged)).collect();
    let lens = &scene.lens;
    let focal_mm = sensor_width_mm / lens.ratio[0];
    let camera = ExportedCamera {
        position: y_up(lens.position),
        look_at: y_up(lens.position + lens.forward),
        up: y_up(lens.up),
        focal_mm,
        sensor_width_mm,
        f_number: focal_mm / (2000.0 * lens.radius_m).max(1e-6),
        focus_distance: lens.focus_m,
    };
    Exported { meshes, lights, camera }
}

/// A source as flat polygons; a beam that narrows counts as an even face of its luminance straight on.
fn lights(source: &Source, staged: &Staged) -> Vec<ExportedLight> {
    let colour = |group: usize| staged.groups.get(group).map_or(Vec3::ZERO, crate::develop::unbalanced);
    let radiance: Vec3 = source.from.iter().map(|(group, luminance)| *luminance * colour(*group)).sum();
    let light =
        |polygon: Vec<Vec3>| ExportedLight { polygon: polygon.into_iter().map(y_up).collect(), radiance };
    match source.emits {
        // Comes from no face in the room.
        Emits::Sun(_) => Vec::new(),
        Emits::Forward(panel) => panel.outlines().into_iter().map(light).collect(),
        Emits::Around { middle, along, radius_m } => {
            let (a, b) = crate::bounce::across(along.normalize_or(Vec3::Z));
            let at = |step: usize| {
                let way = Vec2::from_angle(step as f32 / ROUND as f32 * std::f32::consts::TAU);
                (a * way.x + b * way.y) * radius_m
            };
            (0..ROUND)
                .map(|step| {
                    let (p, q) = (at(step), at(step + 1));
                    light(vec![
                        middle - along + p,
                        middle - along + q,
                        middle + along + q,
                        middle + along + p,
                    ])
                })
                .collect()
        }
        Emits::AllRound { middle, radius_m } => {
            let at = |ring: usize, step: usize| {
                let (sine, cosine) = (ring as f32 / 8.0 * std::f32::consts::PI).sin_cos();
                let way = Vec2::from_angle(step as f32 / 16.0 * std::f32::consts::TAU);
                middle + Vec3::new(sine * way.x, sine * way.y, cosine) * radius_m
            };
            (0..8)
                .flat_map(|ring| (0..16).map(move |step| (ring, step)))
                .flat_map(|(ring, step)| {
                    let [p, q] = [at(ring, step), at(ring + 1, step)];
                    let [r, s] = [at(ring + 1, step + 1), at(ring, step + 1)];
                    let mut pieces = Vec::new();
                    if ring < 7 {
                        pieces.push(light(vec![p, q, r]));
                    }
                    if ring > 0 {
                        pieces.push(light(vec![p, r, s]));
                    }
                    pieces
                })
                .collect()
        }
    }
}
