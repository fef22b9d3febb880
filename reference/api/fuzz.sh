#!/bin/sh
# Asks a server of its own, on loopback, what its description allows and what it does not: no fault, no hang, no status that is not
# described. usage: reference/api/fuzz.sh [examples of each operation]     needs target/release/fogon and requirements.txt
set -eu
cd "$(dirname "$0")/../.."
folder=$(mktemp -d)
port=4239
target/release/fogon demo --no-token --no-pictures --port "$port" --database "$folder/c.sqlite3" > "$folder/said" &
server=$!
trap 'kill "$server"; wait "$server" || true; rm -rf "$folder"' EXIT
for _ in 1 2 3 4 5 6 7 8 9 10; do
    sleep 1
    grep -q http "$folder/said" && break
done
# Answers are held against their description but for their bodies, which our own tests look at; a body that is refused has no
# other check than its status.
schemathesis run "http://127.0.0.1:$port/api/v1/openapi.json" \
    --checks not_a_server_error,status_code_conformance,content_type_conformance,response_headers_conformance \
    --max-examples "${1:-300}" --seed 1 --request-timeout 60 --workers 2 --mode all --phases examples,coverage,fuzzing \
    --suppress-health-check all --continue-on-failure
