"""Random sets of actions, some by hand, some that run by themselves, with what must be done before what; the least finish by the
constraint solver CP-SAT of OR-Tools: one machine for the hands.

usage: schedules.py > crates/core/tests/fixtures/schedules.json
"""
import json
import random
import sys

from ortools.sat.python import cp_model


def actions(rng, count):
    all = []
    for index in range(count):
        before = [other for other in range(index) if rng.random() < 0.3]
        all.append({"seconds": rng.randint(1, 60), "by_hand": rng.random() < 0.65, "after": before})
    return all


def least(all):
    model = cp_model.CpModel()
    horizon = sum(one["seconds"] for one in all)
    starts, hands = [], []
    finish = model.new_int_var(0, horizon, "finish")
    for index, one in enumerate(all):
        start = model.new_int_var(0, horizon, f"start{index}")
        starts.append(start)
        if one["by_hand"]:
            hands.append(model.new_fixed_size_interval_var(start, one["seconds"], f"hands{index}"))
        model.add(finish >= start + one["seconds"])
        for before in one["after"]:
            model.add(start >= starts[before] + all[before]["seconds"])
    model.add_no_overlap(hands)
    model.minimize(finish)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    assert solver.solve(model) == cp_model.OPTIMAL
    return int(solver.value(finish))


def main():
    rng = random.Random(20)
    sets = []
    for number in range(120):
        # A hundred as small as a corner's rigs, twenty as long as a whole corner.
        all = actions(rng, rng.randint(2, 8) if number < 100 else 24)
        sets.append({"actions": all, "finish_s": least(all)})
    json.dump(sets, sys.stdout)
    print()


main()
