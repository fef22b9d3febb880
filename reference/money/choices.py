"""Random large choices of things under a budget, solved by HiGHS through scipy.optimize.milp.

Half are kits (a thing needs all of some others, stands beside none of some others, of one aspect only the best counts), half are
bundles (at most one of a group, needs used up one by one by what offers them). Each is solved for the largest gain, then for the
least money at that gain.
"""
import json
import sys

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

THINGS, NEEDS, EXCLUSIONS = 60, 12, 6
ASPECTS = ["sound", "light", "room", "picture", "comfort"]


def solved(price, gain, rows, limits, budget):
    """Largest gain, then the least money for it."""
    rows = [np.asarray(row, float) for row in rows] + [np.asarray(price, float)]
    limits = list(limits) + [budget]
    inner = dict(integrality=np.ones(len(price)), bounds=Bounds(0, 1), options={"mip_rel_gap": 0.0})
    first = milp(-np.asarray(gain), constraints=LinearConstraint(np.array(rows), -np.inf, limits), **inner)
    assert first.success, first.message
    best = float(np.asarray(gain) @ np.round(first.x))
    rows.append(-np.asarray(gain, float))
    limits.append(-best + 1e-9)
    second = milp(np.asarray(price), constraints=LinearConstraint(np.array(rows), -np.inf, limits), **inner)
    assert second.success, second.message
    return best, float(np.asarray(price) @ np.round(second.x))


def kit(rng):
    """Things with a score, needs and exclusions between single things."""
    items = []
    for at in range(THINGS):
        items.append({"price": int(rng.integers(5, 400)), "score": int(rng.integers(1, 400)) / 1000,
                      "aspect": ASPECTS[rng.integers(5)] if rng.random() < 0.4 else None, "needs": [], "excludes": []})
    for field, count in (("needs", NEEDS), ("excludes", EXCLUSIONS)):
        for _ in range(count):
            a, b = rng.choice(THINGS, 2, replace=False)
            items[a][field].append(int(b))
    weights = {aspect: int(rng.integers(2, 30)) / 10 for aspect in ASPECTS}
    budget = int(rng.integers(100, 3000))
    with_aspect = [at for at, item in enumerate(items) if item["aspect"]]
    price = [item["price"] for item in items] + [0] * len(with_aspect)
    gain = [0 if item["aspect"] else item["score"] for item in items]
    gain += [weights[items[at]["aspect"]] * items[at]["score"] for at in with_aspect]
    rows, limits = [], []

    def row(entries, limit):
        line = np.zeros(len(price))
        for column, factor in entries:
            line[column] += factor
        rows.append(line)
        limits.append(limit)

    for counts, at in enumerate(with_aspect, THINGS):
        row([(counts, 1), (at, -1)], 0)
    for aspect in ASPECTS:
        row([(counts, 1) for counts, at in enumerate(with_aspect, THINGS) if items[at]["aspect"] == aspect], 1)
    for at, item in enumerate(items):
        for other in item["needs"]:
            row([(at, 1), (other, -1)], 0)
        for other in item["excludes"]:
            row([(at, 1), (other, 1)], 1)
    score, spent = solved(price, gain, rows, limits, budget)
    return {"items": items, "weights": weights, "budget": budget, "score": score, "spent": spent}


def bundles(rng):
    """Things of which one of a group is taken, with needs that offers use up."""
    tags, groups = ["input", "stand", "camera", "key"], ["microphone", "light", "lens", "treatment"]
    items = []
    for _ in range(THINGS):
        items.append({"price": int(rng.integers(5, 400)), "gain": int(rng.integers(0, 400)) / 1000,
                      "group": groups[rng.integers(4)] if rng.random() < 0.5 else None, "needs": [], "offers": []})
    for _ in range(2 * NEEDS):
        items[rng.integers(THINGS)]["needs"].append(tags[rng.integers(4)])
    for _ in range(NEEDS):
        items[rng.integers(THINGS)]["offers"].append(tags[rng.integers(4)])
    budget = int(rng.integers(100, 3000))
    rows = [[1 if item["group"] == group else 0 for item in items] for group in groups]
    rows += [[item["needs"].count(tag) - item["offers"].count(tag) for item in items] for tag in tags]
    limits = [1] * len(groups) + [0] * len(tags)
    gain, spent = solved([i["price"] for i in items], [i["gain"] for i in items], rows, limits, budget)
    return {"items": items, "budget": budget, "gain": gain, "spent": spent}


def main():
    rng = np.random.default_rng(17)
    told = {"kits": [kit(rng) for _ in range(25)], "bundles": [bundles(rng) for _ in range(25)]}
    for one in told["kits"] + told["bundles"]:
        one["items"] = [{field: value for field, value in item.items() if value not in (None, [])} for item in one["items"]]
    # Not to standard output: the solver writes there too.
    with open(sys.argv[1], "w", encoding="utf-8") as file:
        file.write(json.dumps(told, separators=(",", ":")) + "\n")


if __name__ == "__main__":
    main()
