//! For tests and benchmarks only.
