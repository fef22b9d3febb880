"""Illuminance at named points by path tracing with Mitsuba 3: the same faces, the same boxes, the same matt room.

Each face emits one-sidedly and lets other light pass (its body is not part of the scene). Illuminance is read off a matt
grey chip of 4 mm at each point, E = pi L / rho, looked at from 2 cm; its standard error comes from independent runs.
"""

import json
import math

import mitsuba as mi
import numpy as np

mi.set_variant("scalar_rgb")
RUNS, PATHS = 8, 1 << 18
CHIP_M, CHIP_REFLECTANCE = 0.004, 0.5
BLACK_M = 20.0


def polygon(kind, width, height, middle, towards):
    """Corners of a face turned to a point, its width axis level; counter-clockwise from the bright side."""
    middle, towards = np.array(middle, float), np.array(towards, float)
    normal = (towards - middle) / np.linalg.norm(towards - middle)
    across = np.cross([0.0, 0.0, 1.0], normal)
    across /= np.linalg.norm(across)
    up = np.cross(normal, across)
    w, h = width / 2, height / 2
    if kind == "octagon":
        turns = [math.pi / 8 + i * math.pi / 4 for i in range(8)]
        flat = [(w * math.cos(t), w * math.sin(t)) for t in turns]
    else:
        flat = [(-w, -h), (w, -h), (w, h), (-w, h)]
    return [list(map(float, middle + across * x + up * y)) for x, y in flat]


def mesh(name, triangles, bsdf, emitter=None):
    points = np.array([p for t in triangles for p in t], dtype=np.float32)
    props = mi.Properties()
    props["mesh_bsdf"] = mi.load_dict(bsdf)
    if emitter is not None:
        props["mesh_emitter"] = mi.load_dict(emitter)
    made = mi.Mesh(name, len(points), len(triangles), props=props)
    params = mi.traverse(made)
    params["vertex_positions"] = points.ravel()
    params["faces"] = np.arange(len(points), dtype=np.uint32)
    params.update()
    return made


def fan(corners):
    return [(corners[0], corners[i], corners[i + 1]) for i in range(1, len(corners) - 1)]


def grey(reflectance):
    return {"type": "diffuse", "reflectance": {"type": "rgb", "value": [reflectance] * 3}}


def box_sides(low, high, inward):
    (a, b, c), (d, e, f) = low, high
    sides = {
        "floor": [(a, b, c), (d, b, c), (d, e, c), (a, e, c)],
        "ceiling": [(a, b, f), (a, e, f), (d, e, f), (d, b, f)],
        "back": [(a, b, c), (a, b, f), (d, b, f), (d, b, c)],
        "front": [(a, e, c), (d, e, c), (d, e, f), (a, e, f)],
        "left": [(a, b, c), (a, e, c), (a, e, f), (a, b, f)],
        "right": [(d, b, c), (d, b, f), (d, e, f), (d, e, c)],
    }
    return sides if inward else {name: corners[::-1] for name, corners in sides.items()}


def scene(spec):
    parts = {"type": "scene"}
    for i, face in enumerate(spec["faces"]):
        clear = {"type": "mask", "opacity": 0.0, "nested": grey(0.0)}
        light = {"type": "area", "radiance": {"type": "rgb", "value": [face["luminance_cd_m2"]] * 3}}
        parts[f"face-{i}"] = mesh(f"face-{i}", fan(face["outline_m"]), clear, light)
    for i, (low, high) in enumerate(spec["boxes"]):
        for side, corners in box_sides(low, high, inward=False).items():
            parts[f"box-{i}-{side}"] = mesh(f"box-{i}-{side}", fan(corners), {"type": "twosided", "b": grey(0.0)})
    # Without a room, a black one far away.
    size = spec["room"]["size_m"] if spec["room"] else [BLACK_M] * 3
    low = (0.0, 0.0, 0.0) if spec["room"] else (-BLACK_M,) * 3
    for side, corners in box_sides(low, size, inward=True).items():
        reflectance = spec["room"]["reflectance"][side] if spec["room"] else 0.0
        parts[f"room-{side}"] = mesh(f"room-{side}", fan(corners), {"type": "twosided", "b": grey(reflectance)})
    return parts


def measured(spec, point, normal, seed, runs):
    parts = scene(spec)
    point, normal = np.array(point, float), np.array(normal, float)
    helper = [0.0, 0.0, 1.0] if abs(normal[2]) < 0.9 else [1.0, 0.0, 0.0]
    turned = mi.ScalarTransform4f().look_at(origin=list(point), target=list(point + normal), up=helper)
    parts["chip"] = {
        "type": "rectangle",
        "to_world": turned @ mi.ScalarTransform4f().scale(CHIP_M / 2),
        "bsdf": grey(CHIP_REFLECTANCE),
    }
    parts["camera"] = {
        "type": "perspective",
        "fov": 5.0,
        "near_clip": 0.001,
        "to_world": mi.ScalarTransform4f().look_at(
            origin=list(point + normal * 0.02), target=list(point), up=helper
        ),
        "film": {"type": "hdrfilm", "width": 1, "height": 1, "pixel_format": "luminance", "rfilter": {"type": "box"}},
        "sampler": {"type": "independent", "sample_count": PATHS},
    }
    loaded = mi.load_dict(parts)
    integrator = mi.load_dict({"type": "path", "max_depth": 60 if spec["room"] else 3, "rr_depth": 12})
    values = []
    for run in range(runs):
        image = mi.render(loaded, integrator=integrator, seed=seed + run, spp=PATHS)
        values.append(float(np.array(image).ravel()[0]) * math.pi / CHIP_REFLECTANCE)
    return float(np.mean(values)), float(np.std(values, ddof=1) / math.sqrt(runs))


EYES = [1.6, 1.2, 1.22]
KEY = {"outline_m": polygon("octagon", 0.9, 0.9, [0.85, 2.0, 1.75], EYES), "luminance_cd_m2": 3000.0}
PANEL = {"outline_m": polygon("rectangle", 0.6, 0.4, [2.5, 2.1, 1.5], EYES), "luminance_cd_m2": 2500.0}
TALL = {"outline_m": polygon("rectangle", 0.3, 1.2, [0.5, 1.3, 1.3], EYES), "luminance_cd_m2": 1800.0}
# Turned to the ceiling and to a wall near by: what they light lights the face.
UP = {"outline_m": polygon("rectangle", 0.3, 0.3, [1.0, 1.9, 1.9], [1.1, 1.9, 2.45]), "luminance_cd_m2": 20000.0}
ASIDE = {"outline_m": polygon("rectangle", 0.3, 0.2, [0.45, 1.5, 1.3], [0.0, 1.55, 1.4]), "luminance_cd_m2": 20000.0}
TO_LENS, TO_KEY, FROM_KEY = [0.0, 1.0, 0.0], [-0.7071067811865476, 0.7071067811865476, 0.0], [0.7071067811865476, 0.7071067811865476, 0.0]


def room(all_round, floor=None, ceiling=None):
    names = ("back", "front", "left", "right")
    sides = {name: all_round for name in names}
    sides |= {"floor": all_round if floor is None else floor, "ceiling": all_round if ceiling is None else ceiling}
    return {"size_m": [3.4, 2.9, 2.45], "reflectance": sides}


# Boxes that cut the way from the key to the eyes and the cheek: a microphone's body, a shelf's end, two that overlap.
ARM = ([1.15, 1.55, 1.30], [1.25, 1.75, 1.56])
BOARD = ([1.05, 1.35, 1.45], [1.45, 1.75, 1.49])
POST = ([1.20, 1.50, 0.0], [1.26, 1.56, 2.0])
SCENES = [
    ("unoccluded octagon", [KEY], [], None, [(EYES, TO_LENS), (EYES, TO_KEY), (EYES, FROM_KEY)]),
    ("tall panel, cut by the horizon", [TALL], [], None, [(EYES, TO_LENS), (EYES, [-1.0, 0.0, 0.0]), ([1.6, 1.2, 0.8], TO_LENS)]),
    ("three faces", [KEY, PANEL, TALL], [], None, [(EYES, TO_LENS), ([1.6, 1.1, 1.0], TO_KEY)]),
    ("half hidden by a block", [KEY], [ARM], None, [(EYES, TO_KEY), (EYES, TO_LENS)]),
    ("half hidden by a board edge on", [KEY], [BOARD], None, [(EYES, TO_KEY), ([1.6, 1.2, 1.12], TO_KEY)]),
    ("hidden by two that overlap", [KEY], [ARM, POST], None, [(EYES, TO_KEY), (EYES, TO_LENS)]),
    ("dark matt room", [KEY], [], room(0.3), [(EYES, TO_LENS), (EYES, FROM_KEY), ([1.6, 0.3, 1.2], TO_LENS)]),
    ("light matt room", [KEY], [], room(0.6), [(EYES, TO_LENS), (EYES, FROM_KEY), (EYES, [0.0, 0.0, 1.0])]),
    ("white ceiling, wooden floor", [KEY], [], room(0.65, 0.3, 0.8), [(EYES, TO_LENS), (EYES, FROM_KEY), (EYES, [0.0, 0.0, -1.0])]),
    ("turned to the ceiling", [UP], [], room(0.65, 0.3, 0.8), [(EYES, TO_LENS), (EYES, TO_KEY), ([1.2, 1.7, 1.6], [0.0, 0.0, 1.0])]),
    ("turned to a wall", [ASIDE], [], room(0.65, 0.3, 0.8), [(EYES, TO_LENS), (EYES, TO_KEY), ([0.9, 1.5, 1.2], [-1.0, 0.0, 0.0])]),
    ("two lamps in a white room", [KEY, PANEL], [], room(0.8, 0.2, 0.85), [(EYES, TO_LENS), (EYES, TO_KEY), (EYES, FROM_KEY)]),
]

if __name__ == "__main__":
    found = []
    for number, (name, faces, boxes, walls, meters) in enumerate(SCENES):
        spec = {"name": name, "faces": faces, "boxes": boxes, "room": walls}
        points = []
        for k, (point, normal) in enumerate(meters):
            # Light that comes only by walls takes more paths to tell.
            runs = 3 * RUNS if name.startswith("turned") else RUNS
            mean, error = measured(spec, point, normal, seed=1000 * number + 100 * k, runs=runs)
            points.append({"point_m": point, "normal": normal, "illuminance_lx": mean, "standard_error_lx": error})
        found.append(spec | {"points": points})
    print(json.dumps(found, indent=1))
