"""How soon a server answers what to buy: the table's kit and the laid-out one, for each demo corner. Standard library only.

usage: buying.py http://127.0.0.1:PORT
"""
import json
import statistics
import sys
import time
import urllib.request

BASE = sys.argv[1]


def get(path):
    return json.load(urllib.request.urlopen(BASE + path))


def lines(plan, budget):
    body = json.dumps({"plan": plan, "budget": budget}).encode()
    request = urllib.request.Request(BASE + "/api/v1/buy", body, {"content-type": "application/json", "origin": BASE})
    began = time.perf_counter()
    with urllib.request.urlopen(request) as answer:
        for line in answer:
            yield (time.perf_counter() - began) * 1000, json.loads(line)


for corner in get("/api/v1/corners"):
    kept = get(f"/api/v1/corners/{corner['id']}")
    plan = {"format": "fogon.plan", "version": 1, **{key: kept[key] for key in ("name", "brief", "layout")}}
    first = {line["line"]: ms for ms, line in lines(plan, 1000)}
    tables, whole = [], []
    for at in range(40):
        for ms, line in lines(plan, 20 + 37 * at):
            if line["line"] == "table":
                tables.append(ms)
            if line["line"] == "advice":
                whole.append(ms)
    print(f"{corner['name']}: first table {first['table'] / 1000:.1f} s, true kit {first['advice'] / 1000:.1f} s; then {len(tables)} budgets:"
          f" table {statistics.median(tables):.1f} ms at the median, most {max(tables):.1f};"
          f" true kit {statistics.median(whole):.0f} ms at the median, most {max(whole):.0f}")
