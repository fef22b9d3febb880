//! A scene for other renderers: `scene.json` and a PLY (binary, little end first) for each mesh. docs/workings/viewfinder.md tells
//! the fields.
use fogon_viewfinder::export::{Exported, ExportedMesh};
use glam::Vec3;
use serde_json::json;

/// The files of a scene, each by its name, for a picture of a size.
pub fn files(scene: &Exported, width: usize, height: usize) -> Vec<(String, Vec<u8>)> {
    let array = |v: Vec3| v.to_array();
    let name = |number: usize| format!("mesh-{number:03}.ply");
    let meshes: Vec<_> = scene
        .meshes
        .iter()
        .enumerate()
        .map(|(number, mesh)| {
            json!({
                "name": mesh.name, "file": name(number), "albedo": "vertex",
                "coat_ior": mesh.coat_ior, "region": mesh.region,
            })
        })
        .collect();
    let lights: Vec<_> = scene
        .lights
        .iter()
        .map(|light| {
            let polygon: Vec<_> = light.polygon.iter().map(|corner| array(*corner)).collect();
            json!({ "polygon": polygon, "radiance": array(light.radiance), "two_sided": false })
        })
        .collect();
    let camera = &scene.camera;
    let document = json!({
        "format": 1, "width": width, "height": height, "meshes": meshes, "lights": lights,
        "camera": {
            "position": array(camera.position), "look_at": array(camera.look_at), "up": array(camera.up),
            "focal_mm": camera.focal_mm, "sensor_width_mm": camera.sensor_width_mm,
            "f_number": camera.f_number, "focus_distance": camera.focus_distance,
        },
    });
    let mut files = vec![("scene.json".to_owned(), format!("{document:#}\n").into_bytes())];
    files.extend(scene.meshes.iter().enumerate().map(|(number, mesh)| (name(number), ply(mesh))));
    files
}

fn ply(mesh: &ExportedMesh) -> Vec<u8> {
    let (corners, triangles) = (mesh.corners.len(), mesh.corners.len() / 3);
    let fields = ["x", "y", "z", "nx", "ny", "nz", "r", "g", "b"];
    let fields: String = fields.iter().map(|field| format!("property float {field}\n")).collect();
    let mut bytes = format!(
        "ply\nformat binary_little_endian 1.0\nelement vertex {corners}\n{fields}element face {triangles}\n\
         property list uchar int vertex_indices\nend_header\n"
    )
    .into_bytes();
    for corner in &mesh.corners {
        bytes.extend(corner.iter().flat_map(|part| part.to_array()).flat_map(f32::to_le_bytes));
    }
    for triangle in 0..triangles as i32 {
        bytes.push(3);
        bytes.extend([0, 1, 2].iter().flat_map(|i| (3 * triangle + i).to_le_bytes()));
    }
    bytes
}
