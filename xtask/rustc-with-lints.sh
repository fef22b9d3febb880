#!/bin/sh
# A compiler for cargo that lints what it compiles (RUSTC_WORKSPACE_WRAPPER): everything is built once, and a warning is an error.
exec clippy-driver "$@" -D warnings
