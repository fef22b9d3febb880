//! Levels and ears.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::calc::Calculate;
use crate::problem::Problem;
use crate::sound::level::{level_at_distance_db, listening_hours_per_week, sum_db};

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct LevelAtDistance {
    #[schema(minimum = -40.0, maximum = 200.0)]
    level_db: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    at_distance_m: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    wanted_distance_m: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Level {
    level_db: f64,
}

impl Calculate for LevelAtDistance {
    const NAME: &'static str = "level-at-distance";
    const FORMULA: &'static str = "L - 20 lg(wanted / at)";
    const SOURCE: &'static str = "inverse square law, free field";
    type Output = Level;

    fn calculate(self) -> Result<Level, Problem> {
        Ok(Level {
            level_db: level_at_distance_db(self.level_db, self.at_distance_m, self.wanted_distance_m),
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct SumLevels {
    #[schema(min_items = 1, max_items = 100_000)]
    levels_db: Vec<Level1>,
}

/// A level, dB.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[schema(minimum = -40.0, maximum = 200.0)]
struct Level1(f64);

impl Calculate for SumLevels {
    const NAME: &'static str = "sum-levels";
    const FORMULA: &'static str = "10 lg sum of 10^(L/10)";
    const SOURCE: &'static str = "ISO 1996-1 (from memory)";
    type Output = Level;

    fn calculate(self) -> Result<Level, Problem> {
        Ok(Level { level_db: sum_db(self.levels_db.iter().map(|level| level.0)) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct ListeningTime {
    #[schema(minimum = -40.0, maximum = 200.0)]
    level_dba: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Hours {
    hours_per_week: f64,
}

impl Calculate for ListeningTime {
    const NAME: &'static str = "listening-time";
    const FORMULA: &'static str = "40 x 2^((80 - L)/3)";
    const SOURCE: &'static str =
        "WHO-ITU H.870 (from memory): 40 h a week at 80 dBA, half for each 3 dB more";
    type Output = Hours;

    fn calculate(self) -> Result<Hours, Problem> {
        Ok(Hours { hours_per_week: listening_hours_per_week(self.level_dba) })
    }
}

crate::shape!(LevelAtDistance, SumLevels, ListeningTime);
