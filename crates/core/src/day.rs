//! The day in a corner: how much light the windows give through it beside the lamps, when the sun lies where it should not, and in
//! which hours the light that is wanted holds while it is quiet.

mod calendar;
mod course;
mod hours;
mod light;
mod noise;
mod regions;

pub use calendar::{LocalDay, MOST_DAYS, date, days, utc, zone_of};
pub use course::{Course, CourseMoment, Stretch, SunPatch, course};
pub use hours::{GoodHours, Interval, Spoils, good_hours};
pub use light::{DayLight, Moment};
pub use regions::{REGIONS, Region};
