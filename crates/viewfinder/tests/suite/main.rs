//! The viewfinder against closed forms, against the core, and against itself.
mod closed_forms;
mod plans;
mod same;
