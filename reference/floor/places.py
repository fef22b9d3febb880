"""Random floors taped from corners, walls and other marks, with errors of the tape; the marks' places by scipy.optimize.least_squares and
their covariance from its Jacobian.

usage: places.py > crates/core/tests/fixtures/places.json
"""
import json
import sys

import numpy as np
from scipy.optimize import least_squares

SIGMA_M = 0.005
WIDTH_M, DEPTH_M = 4.0, 5.0
CORNERS = {"a": (0, 0), "b": (WIDTH_M, 0), "c": (WIDTH_M, DEPTH_M), "d": (0, DEPTH_M)}
# The marks of the plan in tests/suite/floor.rs, where they should be.
MARKS = {"seat": (2.0, 1.5), "camera": (2.0, 3.0), "key": (1.1, 2.4), "microphone": (2.9, 1.5)}


def length(places, mark, start):
    kind, name = next(iter(start.items()))
    if kind == "wall":
        return places[mark][0 if name == "left" else 1]
    other = CORNERS[name] if kind == "corner" else places[name]
    return float(np.hypot(*(np.array(places[mark]) - other)))


def floor(rng):
    true = {name: np.array(at) + rng.normal(0, 0.06, 2) for name, at in MARKS.items()}
    got = []
    for name in MARKS:
        starts = [{"corner": corner} for corner in rng.choice(list(CORNERS), rng.integers(2, 5), replace=False)]
        if rng.random() < 0.5:
            starts.append({"wall": str(rng.choice(["left", "back"]))})
        others = [other for other in MARKS if other != name]
        if rng.random() < 0.5:
            starts.append({"mark": str(rng.choice(others))})
        for start in starts:
            got.append({"mark": name, "from": start, "length_m": length(true, name, start) + rng.normal(0, SIGMA_M)})
    names = list(MARKS)

    def errors(x):
        places = {name: x[2 * i:2 * i + 2] for i, name in enumerate(names)}
        return [(length(places, one["mark"], one["from"]) - one["length_m"]) / SIGMA_M for one in got]

    start = np.concatenate([MARKS[name] for name in names])
    best = least_squares(errors, start, xtol=1e-15, ftol=1e-15, gtol=1e-15)
    covariance = np.linalg.inv(best.jac.T @ best.jac)
    places = {}
    for i, name in enumerate(names):
        block = covariance[2 * i:2 * i + 2, 2 * i:2 * i + 2]
        places[name] = {"at_m": best.x[2 * i:2 * i + 2].tolist(), "worst_sigma_m": float(np.sqrt(np.linalg.eigvalsh(block)[-1]))}
    return {"got": got, "places": places}


def main():
    rng = np.random.default_rng(20)
    json.dump([floor(rng) for _ in range(20)], sys.stdout, indent=1)
    print()


if __name__ == "__main__":
    main()
