#!/bin/sh
# Takes one plan's picture at several sample numbers and holds them against the other renderer. Usage: compare.sh PLAN.json [WIDTH]
set -eu
cd "$(dirname "$0")"
plan="$1"
width="${2:-640}"
fogon="${FOGON_BIN:-../../target/release/fogon}"
folder="$(mktemp -d)"
"$fogon" export "$plan" --scene "$folder/scene"
rows=""
for smooth in "" "--no-denoise"; do
  for samples in 1 2 4 8 16; do
    name="$folder/picture$smooth-$samples.pfm"
    told="$("$fogon" render "$plan" --out "$name" --width "$width" --samples "$samples" --linear --matt $smooth)"
    rows="$rows $name=$(echo "$told" | sed 's/.*"wall_s":\([0-9.e-]*\),"cpu_s":\([0-9.e-]*\),.*/\1,\2/')"
  done
done
# shellcheck disable=SC2086
.venv/bin/python compare.py "$folder/scene" --width "$width" $rows
