"""Arrivals in boxes by an independent room-acoustics library, and how fast it makes a whole response.

    python room_images.py > ../../crates/core/tests/fixtures/room_images.json
    python room_images.py --time          # seconds for one response of the demo room, beside the core's benchmark
"""

import json
import sys
import time

import numpy as np
import pyroomacoustics as pra

SPEED = 343.0
RATE = 48_000
SIDES = ["west", "east", "south", "north", "floor", "ceiling"]

# Sides, absorption x0 x1 y0 y1 floor ceiling, source, microphone; made up.
SCENES = [
    ("even", [4.0, 3.2, 2.5], [0.2] * 6, [1.2, 1.35, 1.15], [1.85, 1.5, 1.45]),
    ("uneven", [4.0, 3.2, 2.5], [0.1, 0.1, 0.05, 0.3, 0.5, 0.1], [1.2, 1.35, 1.15], [1.85, 1.5, 1.45]),
    ("box-room", [3.4, 2.9, 2.45], [0.15, 0.35, 0.2, 0.25, 0.45, 0.1], [1.9, 1.1, 1.2], [1.7, 1.5, 1.55]),
    ("hall", [1.9, 4.6, 2.6], [0.05, 0.05, 0.3, 0.6, 0.1, 0.08], [0.95, 1.2, 1.45], [0.9, 2.9, 1.5]),
    ("large", [7.3, 5.1, 2.9], [0.3, 0.12, 0.4, 0.2, 0.6, 0.5], [2.2, 2.7, 1.2], [4.4, 2.2, 1.3]),
    ("tall", [2.6, 2.4, 4.8], [0.08, 0.2, 0.1, 0.07, 0.3, 0.15], [1.1, 0.9, 1.1], [1.3, 1.6, 1.35]),
    ("dead", [3.7, 3.1, 2.4], [0.8, 0.7, 0.9, 0.6, 0.7, 0.75], [1.5, 1.2, 1.25], [1.9, 1.7, 1.2]),
]


def room(sides, absorption, source, microphone, order):
    materials = {name: pra.Material(alpha) for name, alpha in zip(SIDES, absorption)}
    box = pra.ShoeBox(sides, fs=RATE, materials=materials, max_order=order, air_absorption=False)
    box.set_sound_speed(SPEED)
    box.add_source(source)
    box.add_microphone(np.array(microphone).reshape(3, 1))
    return box


def decay(time_s, amplitude):
    """T20 by Schroeder's integral over the squared arrivals."""
    order = np.argsort(time_s)
    time_s, energy = time_s[order], amplitude[order] ** 2
    curve = 10 * np.log10(np.cumsum(energy[::-1])[::-1] / energy.sum())
    kept = (curve <= -5) & (curve >= -25)
    slope, _ = np.polyfit(time_s[kept], curve[kept], 1)
    return -60 / slope


def main():
    scenes = []
    for name, sides, absorption, source, microphone in SCENES:
        box = room(sides, absorption, source, microphone, 12)
        box.image_source_model()
        images = box.sources[0].images
        distance = np.linalg.norm(images - np.array(microphone).reshape(3, 1), axis=0)
        amplitude = box.sources[0].damping[0] / (4 * np.pi * distance)
        first = np.argsort(distance, kind="stable")[:50]
        # A whole response of images to order 40, sampled; its decay from the samples.
        whole = room(sides, absorption, source, microphone, 40)
        whole.image_source_model()
        whole.compute_rir()
        response = whole.rir[0][0]
        scenes.append(
            {
                "name": name,
                "dimensions_m": sides,
                "absorption": absorption,
                "source_m": source,
                "microphone_m": microphone,
                "arrivals": [
                    {"time_s": float(distance[i] / SPEED), "amplitude": float(amplitude[i])} for i in first
                ],
                "order": 40,
                "t20_s": float(decay(np.arange(len(response)) / RATE, response)),
            }
        )
    json.dump(
        {"library": f"pyroomacoustics {pra.__version__}", "speed_m_s": SPEED, "scenes": scenes},
        sys.stdout,
        indent=1,
    )
    print()


def timing():
    """Order 30 in six octave bands at 48 kHz: the demo room, its coefficients by band."""
    bands = {
        "coeffs": [0.12, 0.15, 0.2, 0.25, 0.3, 0.35],
        "center_freqs": [125, 250, 500, 1000, 2000, 4000],
    }
    best = np.inf
    for _ in range(7):
        materials = {name: pra.Material(dict(bands)) for name in SIDES}
        box = pra.ShoeBox([3.4, 2.9, 2.45], fs=RATE, materials=materials, max_order=30, air_absorption=False)
        box.set_sound_speed(SPEED)
        box.add_source([1.9, 1.1, 1.2])
        box.add_microphone(np.array([1.7, 1.5, 1.55]).reshape(3, 1))
        begin = time.perf_counter()
        box.image_source_model()
        box.compute_rir()
        best = min(best, time.perf_counter() - begin)
    print(json.dumps({"seconds": best, "images": int(box.sources[0].images.shape[1])}))


if __name__ == "__main__":
    timing() if "--time" in sys.argv else main()
