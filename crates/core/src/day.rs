//! The day in a corner: how much light the windows give through it beside the lamps, when the sun lies where it should not, and in
//! which hours the light that is wanted holds while it is quiet.

mod calendar;
mod changes;
mod clock;
mod course;
mod hour;
mod hours;
mod light;
mod noise;
mod placed;
mod regions;
mod sessions;
mod ways;
mod words;
mod year;

pub use calendar::{LocalDay, MOST_DAYS, date, days, sun_at_local, utc, zone_of};
pub use clock::Stretch;
pub use course::{Course, CourseMoment, SunPatch, course};
pub use hour::{Hour, HourLight, SunBeam, hour_light, with_windows_open};
pub use hours::{GoodHours, Interval, Spoils, good_hours};
pub use light::{DayLight, Moment, WindowLight};
pub use regions::{REGIONS, Region};
pub use sessions::{SessionPlanned, sessions};
pub use ways::{Way, WindowWay};
pub use year::{Span, Year, YearDay, year};
