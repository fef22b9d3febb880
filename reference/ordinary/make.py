"""Writes docs/examples/ordinary: 54 briefs of ordinary corners, six purposes in three rooms with three cameras each.

usage: python3 reference/ordinary/make.py        (standard library only)
"""

import json
import pathlib

OUT = pathlib.Path(__file__).resolve().parents[2] / "docs" / "examples" / "ordinary"

ROOMS = {"square": (3.0, 3.0), "spare": (4.0, 3.5), "narrow": (2.0, 4.6)}


def camera(label, width, height, iso, tracking, mass, **more):
    return {"kind": "camera", "label": label, "mass_kg": mass, "sensor_width_mm": width, "sensor_height_mm": height,
            "iso_min": iso[0], "iso_max": iso[1], "face_tracking": tracking, **more}


def lens(label, low, high, widest, near, limit=None, **more):
    return {"kind": "lens", "label": label, "mass_kg": 0.3, "focal_min_mm": low, "focal_max_mm": high,
            "f_number_at_min": widest, "f_number_at_max": widest, "f_number_limit": limit or widest,
            "nearest_focus_m": near, **more}


def lamp(label, shape, width, height, depth, lux, watts, mass, low=5600, high=5600):
    return {"kind": "light", "label": label, "mass_kg": mass, "power_w": watts, "shape": shape, "width_m": width,
            "height_m": height, "depth_m": depth, "illuminance_at_1m_lx": lux, "cct_min_k": low, "cct_max_k": high}


def stand(label, offers, low, high, foot, payload, **more):
    return {"kind": "support", "label": label, "mass_kg": 1.8, "offers": [offers], "height_min_m": low,
            "height_max_m": high, "foot_radius_m": foot, "payload_kg": payload, **more}


TRIPOD = stand("Tripod", "camera", 0.4, 1.75, 0.42, 4)
LIGHT_STAND = stand("Light stand", "light", 0.7, 2.2, 0.40, 5)

KITS = {
    "phone": {
        "phone": camera("Phone", 9.8, 7.3, (50, 6400), True, 0.2),
        "phone-lens": lens("Phone lens", 6.53, 6.53, 1.8, 0.1, built_into="phone"),
        "tripod": TRIPOD,
        "panel": lamp("LED panel", "rectangle", 0.30, 0.20, 0.04, 900, 20, 0.5, 3200, 5600),
        "panel-stand": LIGHT_STAND,
        "lavalier": {"kind": "microphone", "label": "Wired lavalier", "mass_kg": 0.03, "mounting": "lavalier",
                     "pattern_a": 1.0, "self_noise_dba": 28},
    },
    "webcam": {
        "webcam": camera("Webcam", 6.4, 4.8, (100, 3200), False, 0.15, video_width_px=1920),
        "webcam-lens": lens("Webcam lens", 4.9, 4.9, 2.0, 0.1, built_into="webcam"),
        "tripod": TRIPOD,
        "softbox": lamp("Softbox", "octagon", 0.55, 0.55, 0.32, 2000, 40, 1.5),
        "softbox-stand": LIGHT_STAND,
        "headset": {"kind": "microphone", "label": "Headset", "mass_kg": 0.05, "mounting": "headset",
                    "pattern_a": 0.5, "self_noise_dba": 26},
    },
    "zoom": {
        "body": camera("Small-sensor body", 23.5, 15.6, (100, 25600), True, 0.5),
        "zoom": lens("Kit zoom", 16, 50, 3.5, 0.25, limit=22),
        "tripod": TRIPOD,
        "softbox": lamp("Softbox", "octagon", 0.65, 0.65, 0.35, 2600, 60, 1.9, 2800, 6500),
        "small": lamp("Small panel", "rectangle", 0.18, 0.11, 0.05, 650, 12, 0.35, 3000, 6000),
        "softbox-stand": LIGHT_STAND,
        "small-stand": LIGHT_STAND,
        "condenser": {"kind": "microphone", "label": "Small condenser", "mass_kg": 0.2, "mounting": "boom",
                      "pattern_a": 0.25, "self_noise_dba": 14, "sensitivity_mv_pa": 15},
        "arm": stand("Stand with boom", "microphone", 0.9, 2.2, 0.38, 2, reach_m=1.0),
    },
}

# Purpose: posture, at a desk, stature.
PEOPLE = {
    "talk-to-lens": ("seated", True, 1.72),
    "screen-lesson": ("seated", True, 1.64),
    "vertical-short": ("standing", False, 1.68),
    "audition-tape": ("standing", False, 1.80),
    "performance": ("seated", False, 1.76),
    "keyed-background": ("seated", False, 1.70),
}

SCREEN = {"kind": "backdrop", "label": "Chroma cloth hung from the ceiling", "backdrop": "chroma", "mass_kg": 2.0,
          "width_m": 1.8, "height_m": 2.2, "reflectance": 0.3, "offers": ["ceiling"]}


def brief(purpose, room, kit):
    width, depth = ROOMS[room]
    posture, at_desk, stature = PEOPLE[purpose]
    gear = json.loads(json.dumps(KITS[kit]))
    if purpose == "keyed-background":
        gear["chroma"] = SCREEN
    person = {"stature_m": stature, "posture": posture}
    furniture = {}
    if at_desk:
        person["seat_at"] = "desk"
        furniture["desk"] = {"kind": "desk", "position_m": [width / 2, depth / 2, 0], "bearing_deg": 180,
                             "size_m": [1.2, 0.6, 0.74]}
    openings = {
        "door": {"kind": "door", "wall": 0, "from_m": 0.2, "width_m": 0.8, "height_m": 2.0, "swing": "out"},
        "window": {"kind": "window", "wall": 2, "from_m": round((width - 1.2) / 2, 2), "width_m": 1.2, "sill_m": 0.9,
                   "height_m": 1.2},
    }
    return {"format": "fogon.brief", "version": 1, "name": f"{purpose}, {room} room, {kit}",
            "brief": {"units": "metric",
                      "room": {"floor_m": [[0, 0], [width, 0], [width, depth], [0, depth]], "height_m": 2.45,
                               "openings": openings, "furniture": furniture, "furnishing": "some",
                               "mains": {"voltage_v": 230, "frequency_hz": 50, "breaker_a": 16}},
                      "person": person, "purpose": purpose, "gear": gear,
                      "money": {"budget": 150, "currency": "EUR"}}}


def main():
    OUT.mkdir(parents=True, exist_ok=True)
    for purpose in PEOPLE:
        for room in ROOMS:
            for kit in KITS:
                path = OUT / f"{purpose}.{room}.{kit}.brief.json"
                path.write_text(json.dumps(brief(purpose, room, kit), indent=1) + "\n")


if __name__ == "__main__":
    main()
