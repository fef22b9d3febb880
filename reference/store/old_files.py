#!/usr/bin/env python3
"""Files as each earlier version of the tables left them, written with Python's own SQLite: usage: old_files.py"""
import json
import re
import sqlite3
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
FILES = ROOT / "crates/store/tests/files"
# Versions in which a corner and each of its saves held their document as text.
VERSIONS = range(1, 5)
NAMES = ["one", "two", "three"]
# The year 3000: never long enough ago to be taken out of the bin.
FAR_MS = 32_503_680_000_000


def steps():
    """What each migration runs, as the store has it."""
    source = (ROOT / "crates/store/src/tables.rs").read_text()
    return re.findall(r'M::up\(\s*"(.*?)",\s*\)', source, re.S)


def document(name):
    brief = json.loads((ROOT / "docs/examples/box-room.brief.json").read_text())
    return json.dumps(dict(brief, name=name), indent=2)


def saves(version):
    """Columns of a save in this version, and a row for each name."""
    columns = ["corner", "number", "at_ms", "document"]
    columns += ["undo_to"] if version >= 2 else []
    columns += ["save_key"] if version >= 4 else []
    rows = []
    for number, name in enumerate(NAMES, 1):
        row = [1, number, number * 1000, document(name), number - 1 or None, f"k{number}"]
        rows.append(row[: len(columns)])
    return columns, rows


def write(version, path):
    path.unlink(missing_ok=True)
    file = sqlite3.connect(path)
    for step in steps()[:version]:
        file.executescript(step)
    file.execute(f"PRAGMA user_version = {version}")
    insert = "INSERT INTO corner (name, revision, updated_ms, document) VALUES (?, ?, ?, ?)"
    file.execute(insert, ["three", 3, 3000, document("three")])
    columns, rows = saves(version)
    places = ", ".join("?" for _ in columns)
    file.executemany(f"INSERT INTO revision ({', '.join(columns)}) VALUES ({places})", rows)
    if version >= 3:
        file.execute("INSERT INTO voice VALUES (1, x'52494646')")
    if version >= 4:
        file.execute(insert, ["gone", 1, 1, document("gone")])
        file.execute("UPDATE corner SET deleted_ms = ? WHERE name = 'gone'", [FAR_MS])
        gone = "INSERT INTO revision (corner, number, at_ms, document) VALUES (2, 1, 1, ?)"
        file.execute(gone, [document("gone")])
    file.commit()
    file.execute("VACUUM")
    file.close()


for version in VERSIONS:
    write(version, FILES / f"version-{version}.db")
