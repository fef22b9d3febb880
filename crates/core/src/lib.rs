//! The rules and the computation of Fogon, in the words of the job and in the order it is done.
//!
//! Shared: `units`, `geometry`, `problem`, `document`, `reading`, `finding`, `material`, `photometry`, `plan`.
//! Then `person` and `corner` (the plan resolved into vectors and solids), the trades `room`, `shot`, `light`,
//! `daylight`, `sound`, `power` (plugs and cables), `ready` (how soon it stands); small changes to a layout in `edit`; `assess` joins them, and on that stand `arrange`, `hand`,
//! `drawing`, `steps` (the order of the work), `money`, `card` and `day`, then `take` (a test take, measured) and `run` (the run of a day). `calc` is the calculator over all of them. Nothing here reads a file, a clock or the network; the same input gives the
//! same output.

pub mod arrange;
pub mod assess;
pub mod calc;
pub mod card;
pub mod colour;
pub mod corner;
pub mod day;
pub mod daylight;
pub mod document;
pub mod drawing;
pub mod edit;
pub mod exposure;
pub mod finding;
pub mod geometry;
pub mod glossary;
pub mod hand;
mod kept;
pub mod light;
pub mod material;
pub mod money;
mod parallel;
pub mod person;
pub mod photometry;
pub mod plan;
pub mod power;
pub mod problem;
pub mod reading;
pub mod ready;
pub mod room;
pub mod run;
pub mod shot;
pub mod sound;
pub mod steps;
pub mod take;
pub mod units;
