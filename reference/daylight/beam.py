"""Minutes of sun on a point behind a window, by brute force at steps of five seconds.

Sun: pvlib's own writing of NREL's algorithm. Geometry: a straight way from the point has to pass through the window's rectangle in
the wall and through the same rectangle where the pane is; nothing else stands in the way.

usage: python beam.py > crates/core/tests/fixtures/beam.json     (needs pvlib and numpy)
"""

import json
import random

import numpy as np
import pandas as pd
from pvlib.solarposition import spa_python


def minutes(case):
    times = pd.date_range(f"{case['date']}T00:00:00Z", periods=17280, freq="5s")
    sun = spa_python(times, case["latitude_deg"], case["longitude_deg"], altitude=0, pressure=101325,
                     temperature=12, delta_t=69.0, atmos_refract=0.5667)
    elevation = np.radians(sun.apparent_elevation.to_numpy())
    azimuth = np.radians(sun.azimuth.to_numpy() - case["window_azimuth_deg"])
    # Axes of the window: across to the right of who looks out, up, and outwards.
    across = np.cos(elevation) * np.sin(azimuth)
    outwards = np.cos(elevation) * np.cos(azimuth)
    up = np.sin(elevation)
    lit = (outwards > 0) & (elevation > 0)
    safe = np.where(outwards > 0, outwards, 1.0)
    for depth in (case["depth_m"], case["depth_m"] + case["reveal_m"]):
        x = case["beside_m"] + across / safe * depth
        z = case["height_m"] + up / safe * depth
        lit &= (np.abs(x) <= case["width_m"] / 2) & (z >= case["sill_m"]) & (z <= case["sill_m"] + case["window_height_m"])
    return float(lit.sum() * 5 / 60)


def main():
    rng = random.Random(5)
    found = []
    while len(found) < 20:
        case = {
            "date": f"{rng.randrange(1990, 2045)}-{rng.randrange(1, 13):02}-{rng.randrange(1, 29):02}",
            "latitude_deg": round(rng.uniform(-65, 65), 3), "longitude_deg": round(rng.uniform(-175, 175), 3),
            "window_azimuth_deg": round(rng.uniform(0, 360), 1), "width_m": round(rng.uniform(0.6, 2.4), 2),
            "sill_m": round(rng.uniform(0, 1.2), 2), "window_height_m": round(rng.uniform(0.6, 1.6), 2),
            "reveal_m": round(rng.uniform(0, 0.4), 2), "depth_m": round(rng.uniform(0.3, 3.0), 2),
            "beside_m": round(rng.uniform(-1.2, 1.2), 2), "height_m": round(rng.uniform(0.6, 1.7), 2),
        }
        case["minutes"] = round(minutes(case), 2)
        # Most windows never lie in the sun's way: two without a beam are enough.
        dark = sum(1 for one in found if one["minutes"] == 0)
        if case["minutes"] > 0 or dark < 2:
            found.append(case)
    print(json.dumps(found, indent=1))


if __name__ == "__main__":
    main()
