"""Twelve days of forty set-ups: what each wants of camera, size, backdrop and light, what a change of each takes, and the order with the
least changes by OR-Tools' constraint solver, with the bound that it proved. Printed as JSON."""

import json
import random

from ortools.sat.python import cp_model

COUNT = 40
DAYS = 12


def change(day, a, b):
    return sum(cost for cost, x, y in zip(day["costs"], a, b) if x != y)


def solved(day):
    ups = day["set_ups"]
    model = cp_model.CpModel()
    arcs, terms = [], []
    # Node 0 is how it stands before the first, and where the circle closes for nothing.
    for i, own in enumerate(ups, 1):
        first = model.new_bool_var("")
        arcs.append((0, i, first))
        terms.append(change(day, day["stands"], own) * first)
        arcs.append((i, 0, model.new_bool_var("")))
        for j, other in enumerate(ups, 1):
            if i != j:
                goes = model.new_bool_var("")
                arcs.append((i, j, goes))
                terms.append(change(day, own, other) * goes)
    model.add_circuit(arcs)
    model.minimize(sum(terms))
    solver = cp_model.CpSolver()
    solver.parameters.random_seed = 1
    solver.parameters.num_workers = 2
    solver.parameters.max_time_in_seconds = 12
    status = solver.solve(model)
    assert status in (cp_model.OPTIMAL, cp_model.FEASIBLE)
    return int(solver.objective_value), int(solver.best_objective_bound)


def main():
    draw = random.Random(21)
    days = []
    for _ in range(DAYS):
        costs = [draw.choice([100, 115, 140]), draw.choice([30, 45]), draw.choice([15, 180]), draw.choice([25, 55, 75])]
        kinds = [draw.randint(2, 5), 3, draw.randint(2, 4), draw.randint(2, 5)]
        seen = set()
        while len(seen) < min(COUNT, kinds[0] * kinds[1] * kinds[2] * kinds[3]):
            seen.add(tuple(draw.randrange(kind) for kind in kinds))
        ups = sorted(seen)
        draw.shuffle(ups)
        day = {"costs": costs, "stands": [0, 1, 0, 0], "set_ups": [list(up) for up in ups]}
        day["seconds"], day["bound"] = solved(day)
        days.append(day)
    print(json.dumps({"days": days}))


main()
