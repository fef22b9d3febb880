"""Pictures of an exported scene against Mitsuba 3: error, time for the same error, brightness by region. See README.md."""

import argparse
import json
import os
import tempfile
import time

import numpy as np

os.environ.setdefault("DRJIT_LIBLLVM_PATH", "/usr/lib/x86_64-linux-gnu/libLLVM.so.19.1")
import mitsuba as mi  # noqa: E402

mi.set_variant("llvm_ad_rgb")
LUMINANCE = np.array([0.2126, 0.7152, 0.0722])
BATCHES, BATCH_SAMPLES, PASS_SAMPLES = 4, 160, 32
CURVE = [1, 4, 16, 64]


def read_pfm(path):
    with open(path, "rb") as file:
        file.readline()
        width, height = map(int, file.readline().split())
        little = float(file.readline()) < 0
        pixels = np.frombuffer(file.read(), "<f4" if little else ">f4").reshape(height, width, 3)
    return pixels[::-1].astype(np.float64)


def with_texels(path):
    """A coated surface takes no colours at corners: one texel to each triangle, the mean of its corners."""
    mesh = mi.traverse(mi.load_dict({"type": "ply", "filename": path}))
    places = np.array(mesh["vertex_positions"]).reshape(-1, 3)
    normals = np.array(mesh["vertex_normals"]).reshape(-1, 3)
    colours = np.array(mesh["vertex_color"]).reshape(-1, 3)
    faces = np.array(mesh["faces"]).reshape(-1, 3)
    side = int(np.ceil(np.sqrt(len(faces))))
    texels = np.zeros((side, side, 3), np.float32)
    texels.reshape(-1, 3)[: len(faces)] = colours[faces].mean(1)
    number = np.arange(len(faces))
    middles = np.stack([(number % side + 0.5) / side, (number // side + 0.5) / side], 1)
    made = mi.Mesh("coated", 3 * len(faces), len(faces), has_vertex_normals=True, has_vertex_texcoords=True)
    parts = mi.traverse(made)
    parts["vertex_positions"] = places[faces].ravel()
    parts["vertex_normals"] = normals[faces].ravel()
    parts["vertex_texcoords"] = middles.repeat(3, 0).astype(np.float32).ravel()
    parts["faces"] = np.arange(3 * len(faces), dtype=np.uint32)
    parts.update()
    out = os.path.join(tempfile.mkdtemp(), "coated.ply")
    made.write_ply(out)
    return out, texels


def surface(folder, mesh):
    path = os.path.join(folder, mesh["file"])
    if mesh["coat_ior"] <= 1:
        colour = {"type": "mesh_attribute", "name": "vertex_color"}
        matt = {"type": "twosided", "b": {"type": "diffuse", "reflectance": colour}}
        return {"type": "ply", "filename": path, "bsdf": matt}
    path, texels = with_texels(path)
    colour = {"type": "bitmap", "data": mi.TensorXf(texels), "raw": True, "filter_type": "nearest"}
    coat = {"type": "plastic", "diffuse_reflectance": colour, "int_ior": mesh["coat_ior"], "ext_ior": 1.0, "nonlinear": False}
    return {"type": "ply", "filename": path, "bsdf": coat}


def lamp(light):
    corners = np.array(light["polygon"], float)
    shines = {"type": "area", "radiance": {"type": "rgb", "value": light["radiance"]}}
    black = {"type": "diffuse", "reflectance": {"type": "rgb", "value": 0.0}}
    if len(corners) == 4 and np.allclose(corners[0] + corners[2], corners[1] + corners[3], atol=1e-5):
        across, up = (corners[1] - corners[0]) / 2, (corners[3] - corners[0]) / 2
        normal = np.cross(across, up)
        place = np.eye(4)
        place[:3] = np.stack([across, up, normal / np.linalg.norm(normal), corners.mean(0)], 1)
        return {"type": "rectangle", "to_world": mi.ScalarTransform4f(place), "bsdf": black, "emitter": shines}
    path = os.path.join(tempfile.mkdtemp(), "lamp.ply")
    count = len(corners)
    with open(path, "w") as file:
        file.write(f"ply\nformat ascii 1.0\nelement vertex {count}\nproperty float x\nproperty float y\nproperty float z\n")
        file.write(f"element face {count - 2}\nproperty list uchar int vertex_indices\nend_header\n")
        file.writelines(f"{x!r} {y!r} {z!r}\n" for x, y, z in corners.tolist())
        file.writelines(f"3 0 {i} {i + 1}\n" for i in range(1, count - 1))
    return {"type": "ply", "filename": path, "face_normals": True, "bsdf": black, "emitter": shines}


def scene_of(folder, told, width, height, depth, sampler):
    camera = told["camera"]
    field = 2 * np.degrees(np.arctan(camera["sensor_width_mm"] / (2 * camera["focal_mm"])))
    film = {
        "type": "hdrfilm", "width": width, "height": height, "pixel_format": "rgb", "component_format": "float32",
        "rfilter": {"type": "box"},
    }
    look = mi.ScalarTransform4f().look_at(origin=camera["position"], target=camera["look_at"], up=camera["up"])
    sensor = {
        "type": "thinlens", "fov": float(field), "fov_axis": "x", "to_world": look, "film": film,
        "aperture_radius": camera["focal_mm"] / 2000 / camera["f_number"],
        "focus_distance": float(camera["focus_distance"]), "near_clip": 1e-3, "far_clip": 1e3,
        "sampler": {"type": sampler, "sample_count": 4},
    }
    scene = {"type": "scene", "sensor": sensor, "integrator": {"type": "path", "max_depth": depth, "rr_depth": 5}}
    scene.update({f"m{i:03d}": surface(folder, mesh) for i, mesh in enumerate(told["meshes"])})
    scene.update({f"z{i:03d}": lamp(light) for i, light in enumerate(told["lights"])})
    return mi.load_dict(scene)


def taken(scene, samples, seed):
    started, busy = time.time(), time.process_time()
    picture = np.array(mi.render(scene, spp=samples, seed=seed)).astype(np.float64)
    return picture, time.time() - started, time.process_time() - busy


def reference_of(folder, told, size):
    scene = scene_of(folder, told, *size, 16, "independent")
    passes = BATCH_SAMPLES // PASS_SAMPLES
    seeds = [[1000 + 100 * batch + i for i in range(passes)] for batch in range(BATCHES)]
    batches = np.array([np.mean([taken(scene, PASS_SAMPLES, seed)[0] for seed in row], 0) for row in seeds])
    return batches, batches.mean(0), batches.var(0, ddof=1) / BATCHES


def regions_of(folder, told, size):
    """Pixels through which sixteen looks meet one region alone."""
    width, height = size
    scene = scene_of(folder, told, *size, 2, "independent")
    sensor, shapes = scene.sensors()[0], {shape.id(): shape for shape in scene.shapes()}
    rng, masks = np.random.default_rng(7), {}
    across, down = np.meshgrid(np.arange(width), np.arange(height))
    for _ in range(16):
        jitter = rng.random((4, width * height))
        place = mi.Point2f(mi.Float((across.ravel() + jitter[0]) / width), mi.Float((down.ravel() + jitter[1]) / height))
        ray, _ = sensor.sample_ray(mi.Float(0), mi.Float(0.5), place, mi.Point2f(mi.Float(jitter[2]), mi.Float(jitter[3])))
        met = scene.ray_intersect(ray)
        found = {}
        for i, mesh in enumerate(told["meshes"]):
            is_one = np.array(met.is_valid() & (met.shape == mi.ShapePtr(shapes[f"m{i:03d}"]))).reshape(height, width)
            found[mesh["region"]] = found.get(mesh["region"], False) | is_one
        masks = {name: masks.get(name, True) & mask for name, mask in found.items()}
    return {"all": np.ones((height, width), bool), **masks}


def error_of(picture, reference, variance):
    over = reference**2 + (0.05 * reference.mean()) ** 2
    return np.sqrt(max(((picture - reference) ** 2 / over).mean() - (variance / over).mean(), 1e-12))


def curve_of(folder, told, size, reference, variance):
    scene = scene_of(folder, told, *size, 8, "multijitter")
    taken(scene, 1, 1)
    curve = []
    for samples in CURVE:
        taken(scene, samples, 2)  # compiled now
        runs = [taken(scene, samples, 3 + i) for i in range(3 if samples <= 16 else 1)]
        picture, wall, cpu = min(runs, key=lambda run: run[2])
        curve.append({"samples": samples, "wall_s": wall, "cpu_s": cpu, "error": error_of(picture, reference, variance)})
    return curve


def time_for(error, curve, which):
    errors = np.array([point["error"] for point in curve])
    times = np.array([point[which] for point in curve])
    if error < errors[-1]:
        return times[-1] * (errors[-1] / error) ** 2
    if error > errors[0]:
        return times[0] * (errors[0] / error) ** 2
    return float(np.exp(np.interp(-np.log(error), -np.log(errors), np.log(times))))


def main():
    arguments = argparse.ArgumentParser(description=__doc__)
    arguments.add_argument("scene", help="folder with scene.json")
    arguments.add_argument("pictures", nargs="+", help="PICTURE.pfm=wall_s,cpu_s")
    arguments.add_argument("--width", type=int)
    given = arguments.parse_args()
    with open(os.path.join(given.scene, "scene.json")) as file:
        told = json.load(file)
    width = given.width or told["width"]
    size = (width, round(width * told["height"] / told["width"]))
    batches, reference, variance = reference_of(given.scene, told, size)
    masks = regions_of(given.scene, told, size)
    curve = curve_of(given.scene, told, size, reference, variance)
    print("Mitsuba: samples, wall s, CPU s, error")
    for point in curve:
        print(f"  {point['samples']:4d} {point['wall_s']:8.3f} {point['cpu_s']:8.3f} {point['error']:8.4f}")
    for entry in given.pictures:
        path, times = entry.rsplit("=", 1)
        wall, cpu = map(float, times.split(","))
        picture = read_pfm(path)
        error = error_of(picture, reference, variance)
        ratio = time_for(error, curve, "wall_s") / wall
        print(f"{os.path.basename(path)}: {wall:.3f} s, error {error:.4f}, {ratio:.1f} times as fast", end="")
        print(f" ({time_for(error, curve, 'cpu_s') / cpu:.1f} by CPU seconds)")
        for name, mask in masks.items():
            own = (picture[mask] @ LUMINANCE).mean()
            others = np.array([(batch[mask] @ LUMINANCE).mean() for batch in batches])
            unsure = others.std(ddof=1) / np.sqrt(BATCHES) / others.mean()
            print(f"    {name}: {100 * (own / others.mean() - 1):+.2f} % (+-{100 * unsure:.2f})")


if __name__ == "__main__":
    main()
