"""Correlated colour temperature and Duv by colour-science, and the colour matching functions that the core reads.

Writes crates/core/src/colour/cie_1931_2_degree.csv (nm, x, y, z; 1 nm) and prints the fixture.
"""

import json
import pathlib
import warnings

import numpy as np

warnings.filterwarnings("ignore")
import colour  # noqa: E402

ROOT = pathlib.Path(__file__).resolve().parents[2]


def matching_functions():
    functions = colour.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"]
    rows = [
        f"{int(nm)},{x:.12g},{y:.12g},{z:.12g}"
        for nm, (x, y, z) in zip(functions.wavelengths, functions.values)
    ]
    path = ROOT / "crates/core/src/colour/cie_1931_2_degree.csv"
    path.parent.mkdir(exist_ok=True)
    path.write_text("\n".join(rows) + "\n")


def rows():
    draw = np.random.default_rng(20261125)
    found = []
    for _ in range(60):
        cct = float(1e6 / draw.uniform(1e6 / 10_000, 1e6 / 2_000))
        duv = float(draw.uniform(-0.02, 0.02))
        uv = colour.temperature.CCT_to_uv_Ohno2013([cct, duv])
        x, y = (float(v) for v in colour.UCS_uv_to_xy(uv))
        # Back from the printed coordinates, so that both sides start from the same digits.
        x, y = round(x, 7), round(y, 7)
        back = colour.temperature.uv_to_CCT_Ohno2013(colour.xy_to_UCS_uv([x, y]))
        found.append({"x": x, "y": y, "cct_k": float(back[0]), "duv": float(back[1])})
    return found


def mixes():
    draw = np.random.default_rng(7)
    found = []
    for _ in range(12):
        lights = []
        total = np.zeros(3)
        for _ in range(int(draw.integers(2, 5))):
            cct = round(float(draw.uniform(2_200, 9_000)))
            duv = round(float(draw.uniform(-0.01, 0.01)), 4)
            lux = round(float(draw.uniform(20, 1_500)))
            lights.append({"cct_k": cct, "duv": duv, "illuminance_lx": lux})
            x, y = colour.UCS_uv_to_xy(colour.temperature.CCT_to_uv_Ohno2013([cct, duv]))
            total += np.array([x / y, 1.0, (1 - x - y) / y]) * lux
        x, y = total[:2] / total.sum()
        cct, duv = colour.temperature.uv_to_CCT_Ohno2013(colour.xy_to_UCS_uv([x, y]))
        found.append({"lights": lights, "x": float(x), "y": float(y), "cct_k": float(cct), "duv": float(duv)})
    return found


if __name__ == "__main__":
    matching_functions()
    planck = [
        {"cct_k": t, "xy": [float(v) for v in colour.UCS_uv_to_xy(colour.temperature.CCT_to_uv_Planck1900(t))]}
        for t in (2_000, 2_700, 3_200, 4_000, 4_800, 5_600, 6_500, 8_000, 10_000)
    ]
    print(json.dumps({"temperatures": rows(), "mixes": mixes(), "planck": planck}, indent=1))
