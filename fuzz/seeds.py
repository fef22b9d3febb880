#!/usr/bin/env python3
"""Writes a first input for every calculation from the list that `fogon calc --list` prints: usage: seeds.py DIR < list"""
import json, re, sys
from pathlib import Path

for number, one in enumerate(json.load(sys.stdin)):
    asked = {}
    for field in one["fields"]:
        words = re.findall(r"-?\d+(?:\.\d+)?", field["range"])
        asked[field["name"]] = float(words[0]) + 1.0 if words else field["range"]
    Path(sys.argv[1], one["name"]).write_bytes(bytes([number % 256]) + json.dumps(asked).encode())
