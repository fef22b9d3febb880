"""Points of a room in a picture of 1920 pixels across, by OpenCV's projectPoints.

A camera is told as Fogon tells it: camera point, bearing (clockwise from +y seen from above), tilt (up positive),
focal length, distance of the plane in focus, size of the picture on the sensor. Only these words are shared: the
rotation is composed here from axis rotations (cv2.Rodrigues), the projection is OpenCV's pinhole without distortion.
"""

import json
import sys

import cv2
import numpy as np

WIDTH_PX = 1920


def rotation(bearing_deg, tilt_deg):
    """World to camera axes (right, down, forward)."""
    # Looking along +y with z up: right +x, down -z, forward +y.
    level = np.array([[1.0, 0.0, 0.0], [0.0, 0.0, -1.0], [0.0, 1.0, 0.0]])
    # Clockwise from above is a negative turn about +z.
    turn, _ = cv2.Rodrigues(np.array([0.0, 0.0, -np.radians(bearing_deg)]))
    lift, _ = cv2.Rodrigues(np.array([np.radians(tilt_deg), 0.0, 0.0]))
    world_from_camera = turn @ lift @ level.T
    return world_from_camera.T


def project(camera, points):
    f, u = camera["focal_length_mm"], camera["focus_distance_m"] * 1000.0
    image = f * u / (u - f)
    width, height = camera["image_mm"]
    per_mm = WIDTH_PX / width
    matrix = np.array(
        [[image * per_mm, 0, WIDTH_PX / 2], [0, image * per_mm, height * per_mm / 2], [0, 0, 1.0]]
    )
    turned = rotation(camera["bearing_deg"], camera["tilt_deg"])
    vector, _ = cv2.Rodrigues(turned)
    moved = -turned @ np.array(camera["position_m"])
    pixels, _ = cv2.projectPoints(np.array(points), vector, moved, matrix, None)
    return [[float(v) for v in p] for p in pixels.reshape(-1, 2)]


def scenes():
    generator = np.random.default_rng(20261125)
    for _ in range(24):
        camera = {
            "position_m": [round(float(v), 3) for v in generator.uniform([0.5, 0.5, 0.8], [3.5, 4.5, 1.9])],
            "bearing_deg": round(float(generator.uniform(0, 360)), 2),
            "tilt_deg": round(float(generator.uniform(-35, 35)), 2),
            "focal_length_mm": round(float(generator.uniform(6, 85)), 1),
            "focus_distance_m": round(float(generator.uniform(0.5, 3.0)), 3),
            "image_mm": [round(float(w), 3) for w in generator.uniform(5, 36, 1)] * 2,
        }
        camera["image_mm"][1] = round(camera["image_mm"][0] * 9 / 16, 4)
        turned = rotation(camera["bearing_deg"], camera["tilt_deg"])
        points = []
        while len(points) < 12:
            # Somewhere in front of the lens, in and around the picture.
            ahead = generator.uniform(0.4, 5.0)
            side, down = generator.uniform(-0.9, 0.9, 2) * ahead
            at = np.array(camera["position_m"]) + turned.T @ np.array([side, down, ahead])
            points.append([round(float(v), 4) for v in at])
        yield {"camera": camera, "points_m": points, "pixels": project(camera, points)}


def chest():
    """A chest behind the person of the plain corner that the tests build, to compare with what is drawn."""
    camera = {
        "position_m": [2.0, 3.0, 1.25],
        "bearing_deg": 188.0,
        "tilt_deg": -6.0,
        "focal_length_mm": 40.0,
        "focus_distance_m": 1.5,
        "image_mm": [36.0, 20.25],
    }
    points = [[x, y, z] for x in (1.2, 1.7) for y in (0.2, 0.7) for z in (0.0, 1.15)]
    return {"camera": camera, "points_m": points, "pixels": project(camera, points)}


json.dump({"width_px": WIDTH_PX, "scenes": list(scenes()), "chest": chest()}, sys.stdout, indent=1)
sys.stdout.write("\n")
