#!/bin/sh
# Fuzzes every target: so many documents in all, none of which may panic, take longer than a second or 200 MB.
# usage: fuzz/run.sh [documents]      needs a nightly toolchain and cargo-fuzz (cargo install cargo-fuzz)
set -eu
cd "$(dirname "$0")/.."
each=$((${1:-1000000} / 4))
seeds=$(mktemp -d)
trap 'rm -rf "$seeds"' EXIT
mkdir "$seeds/plan" "$seeds/brief" "$seeds/calc" "$seeds/recording" "$seeds/archive" "$seeds/still"
cp docs/examples/*.fogon.json "$seeds/plan"
cp docs/examples/*.brief.json "$seeds/brief"
# What the calculations are asked in their tests, each under the number of its calculation.
cargo run -q --release --bin fogon -- calc --list | python3 fuzz/seeds.py "$seeds/calc"
head -c 60000 crates/recording/assets/dry-voice.flac > "$seeds/recording/voice.flac"
cp docs/screenshots/floor-phone.png "$seeds/still"
for target in plan brief calc recording; do
    most=200000
    cargo +nightly fuzz run -s none "$target" "$seeds/$target" -- \
        -runs="$each" -timeout=1 -rss_limit_mb=200 -max_len="$most" -seed=1 -print_final_stats=1 -verbosity=0
done
cargo +nightly fuzz run -s none archive "$seeds/archive" -- \
    -runs=$((each / 10)) -timeout=1 -rss_limit_mb=200 -max_len=200000 -seed=1 -print_final_stats=1 -verbosity=0
cargo +nightly fuzz run -s none still "$seeds/still" -- \
    -runs=$((each / 10)) -timeout=1 -rss_limit_mb=500 -max_len=200000 -seed=1 -print_final_stats=1 -verbosity=0
