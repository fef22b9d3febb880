"""Illuminance from rectangles by double integration; prints the fixture as JSON. See README.md."""

import json

import numpy as np
from scipy.integrate import dblquad

RNG = np.random.default_rng(20261124)


def unit(v):
    return v / np.linalg.norm(v)


def case(index):
    """A random rectangle and a random receiver in front of it; every third one straddles the horizon."""
    width, height = RNG.uniform(0.1, 1.2, 2)
    middle = RNG.uniform(-1.0, 1.0, 3) + np.array([0.0, 0.0, 2.0])
    point = RNG.uniform(-0.4, 0.4, 3)
    towards = unit(point - middle + RNG.uniform(-0.3, 0.3, 3))
    across = unit(np.cross([0.0, 0.0, 1.0], towards))
    up = np.cross(towards, across)
    normal = unit(middle - point + RNG.uniform(-0.4, 0.4, 3))
    if index % 3 == 0:
        # The receiver's plane cuts through the rectangle.
        normal = unit(np.cross(middle - point, across) + 0.1 * (middle - point))
    luminance = RNG.uniform(200.0, 9000.0)

    def integrand(y, x):
        to_source = middle + across * x + up * y - point
        square = to_source @ to_source
        distance = np.sqrt(square)
        receiver = max(normal @ to_source / distance, 0.0)
        source = max(-(towards @ to_source) / distance, 0.0)
        return luminance * receiver * source / square

    value, error = dblquad(integrand, -width / 2, width / 2, -height / 2, height / 2, epsabs=1e-6, epsrel=1e-7)
    corners = [middle + across * a * width / 2 + up * b * height / 2 for a, b in [(-1, -1), (1, -1), (1, 1), (-1, 1)]]
    return {
        "luminance_cd_m2": luminance,
        "polygon_m": [c.tolist() for c in corners],
        "point_m": point.tolist(),
        "normal": normal.tolist(),
        "illuminance_lx": value,
        "integration_error_lx": error,
    }


print(json.dumps([case(i) for i in range(24)], indent=1))
