//! The viewfinder against closed forms, against the core, and against itself.
mod closed_forms;
mod hostile;
mod kept;
mod looks;
mod plans;
mod same;
