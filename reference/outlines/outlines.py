"""Outlines of rooms, looked at by Shapely. Prints the fixture."""

import json
import math

import numpy as np
from shapely.geometry import LineString, Point, Polygon
from shapely.ops import unary_union

DRAW = np.random.default_rng(20261126)


def length(low, high):
    return float(round(DRAW.uniform(low, high), 3))


def room(kind):
    """A room's floor, counter-clockwise: box, L, U, alcove, cut-off corner, or any star round its middle."""
    w, d = length(2.5, 6.0), length(2.5, 6.0)
    a, b = round(0.55 * w, 3), round(0.6 * d, 3)
    if kind == 0:
        return [[0, 0], [w, 0], [w, d], [0, d]]
    if kind == 1:
        return [[0, 0], [w, 0], [w, b], [a, b], [a, d], [0, d]]
    if kind == 2:
        c = round(0.25 * w, 3)
        return [[0, 0], [w, 0], [w, d], [w - c, d], [w - c, b], [c, b], [c, d], [0, d]]
    if kind == 3:
        return [[0, 0], [a, 0], [a, -0.7], [w, -0.7], [w, d], [0, d]]
    if kind == 4:
        return [[0, 0], [w, 0], [w, b], [a, d], [0, d]]
    turns = np.sort(DRAW.uniform(0, 2 * math.pi, 9))
    while np.max(np.diff(np.append(turns, turns[0] + 2 * math.pi))) > 2.5 or np.min(np.diff(turns)) < 0.15:
        turns = np.sort(DRAW.uniform(0, 2 * math.pi, 9))
    return [[round(3 + length(1.0, 3.0) * math.cos(t), 3), round(3 + length(1.0, 3.0) * math.sin(t), 3)] for t in turns]


def first_exit(outline, at, bearing):
    """From a point inside along a direction to where it first leaves the outline, m."""
    far = (at[0] + 50 * math.cos(bearing), at[1] + 50 * math.sin(bearing))
    crossed = outline.exterior.intersection(LineString([at, far]))
    parts = getattr(crossed, "geoms", [crossed])
    return min(Point(at).distance(part) for part in parts)


def rooms():
    for number in range(48):
        corners = room(number % 6)
        outline = Polygon(corners)
        assert outline.is_valid and outline.exterior.is_ccw
        low_x, low_y, high_x, high_y = outline.bounds
        points, looks = [], []
        for _ in range(12):
            at = [length(low_x - 1, high_x + 1), length(low_y - 1, high_y + 1)]
            off = outline.exterior.distance(Point(at))
            points.append({"at": at, "beyond_m": -off if outline.contains(Point(at)) else off})
            bearing = float(DRAW.uniform(0, 2 * math.pi))
            # Along an edge, or through a corner, the answer hangs on the last digit.
            if outline.contains(Point(at)) and off > 0.05:
                looks.append({"at": at, "angle": bearing, "leaves_m": first_exit(outline, at, bearing)})
        hull = outline.convex_hull
        yield {
            "corners": corners,
            "area_m2": outline.area,
            "hull_area_m2": hull.area,
            "hull_corners": len(hull.exterior.coords) - 1,
            "points": points,
            "looks": looks,
        }


def panel():
    w, h, turn = length(0.3, 1.6), length(0.3, 1.2), float(DRAW.uniform(0, math.pi))
    x, y = length(0, 1.5), length(0, 1.5)
    cos, sin = math.cos(turn), math.sin(turn)
    corners = [(-w / 2, -h / 2), (w / 2, -h / 2), (w / 2, h / 2), (-w / 2, h / 2)]
    return [[round(x + cos * u - sin * v, 4), round(y + sin * u + cos * v, 4)] for u, v in corners]


def panels():
    for count in [1, 2, 3, 5] * 10:
        one, others = panel(), [panel() for _ in range(count)]
        left = Polygon(one).difference(unary_union([Polygon(other) for other in others]))
        yield {"one": one, "others": others, "left_m2": left.area}


print(json.dumps({"rooms": list(rooms()), "panels": list(panels())}, indent=None))
