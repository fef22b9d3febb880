"""Changed copies of the example plan, judged by jsonschema against the published schema. Prints the fixture."""

import copy
import json
import pathlib

from jsonschema import Draft202012Validator

ROOT = pathlib.Path(__file__).resolve().parents[2]
PLAN = json.loads((ROOT / "docs/examples/box-room.fogon.json").read_text())
SCHEMA = json.loads((ROOT / "docs/schema/plan.schema.json").read_text())

# Values that stand in for a number, a text, a truth value, a list and an object.
FOR_NUMBER = [-1, 0, 0.5, 3, 1e9, "2", None, True, [1], {}]
FOR_TEXT = ["", "x", "no such word", "x" * 400, 7, None, ["a"]]
FOR_TRUTH = [1, "true", None]
FOR_LIST = [[], [1], [1, 2, 3, 4], ["a", "b"], {}, 0]
FOR_OBJECT = [[], "x", 0]


def places(value, path=()):
    """Every place of a document, itself first."""
    yield path, value
    if isinstance(value, dict):
        for key, item in value.items():
            yield from places(item, path + (key,))
    elif isinstance(value, list):
        for index, item in enumerate(value):
            yield from places(item, path + (index,))


def instead(value):
    if isinstance(value, bool):
        return FOR_TRUTH
    if isinstance(value, (int, float)):
        return FOR_NUMBER
    if isinstance(value, str):
        return FOR_TEXT
    return FOR_LIST if isinstance(value, list) else FOR_OBJECT


def changed(path, value):
    document = copy.deepcopy(PLAN)
    at = document
    for key in path[:-1]:
        at = at[key]
    at[path[-1]] = value
    return document


def without(path):
    document = copy.deepcopy(PLAN)
    at = document
    for key in path[:-1]:
        at = at[key]
    del at[path[-1]]
    return document


def deepest(error):
    """Places that an error names: of a choice, those of every alternative."""
    yield list(error.absolute_path)
    for cause in error.context or []:
        yield from deepest(cause)


def row(validator, path, change, value, document):
    errors = list(validator.iter_errors(document))
    named = sorted({"/".join(map(str, place)) for error in errors for place in deepest(error)})
    pointer = "".join(f"/{key}" for key in path)
    return {"pointer": pointer, "change": change, "value": value, "valid": not errors, "named": named}


def rows():
    Draft202012Validator.check_schema(SCHEMA)
    validator = Draft202012Validator(SCHEMA)
    assert validator.is_valid(PLAN)
    for number, (path, value) in enumerate(places(PLAN)):
        if isinstance(value, dict):
            with_more = changed(path + ("towards",), 3) if path else {**PLAN, "towards": 3}
            yield row(validator, path + ("towards",), "set", 3, with_more)
        if not path:
            continue
        # All of them at every place would be a file of megabytes: each place gets three in turn.
        others = instead(value)
        for step in range(3):
            other = others[(number + step * 3) % len(others)]
            yield row(validator, path, "set", other, changed(path, other))
        if isinstance(path[-1], str):
            yield row(validator, path, "remove", None, without(path))


print("[")
print(",\n".join(json.dumps(found) for found in rows()))
print("]")
