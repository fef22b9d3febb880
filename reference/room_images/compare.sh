#!/bin/sh
# One response of the demo room, images to order 30, six octave bands, 48 kHz: ours and the library's in one run.
set -e
cd "$(dirname "$0")"
for run in 1 2 3; do
    "${PYTHON:-.venv/bin/python}" room_images.py --time
    (cd ../.. && cargo bench -q -p fogon-testkit --bench sound -- images_of_order_30 2>&1 | grep "time:")
done
