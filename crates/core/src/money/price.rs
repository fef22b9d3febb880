//! What a thing costs here: new, used or by the day, and a year of its life.

use super::rows::Offer;
use crate::plan::{Common, Gear};

/// From this price on a light, a camera or a lens is worth renting for a day before it is bought, in the plan's currency.
/// Fogon's own rule.
const RENT_FIRST_FROM: f64 = 250.0;

impl Offer {
    /// What is counted for one: the used price where it is usually bought used.
    pub fn price(&self) -> f64 {
        let used = self.price_used.filter(|_| self.usually_used);
        used.unwrap_or(self.gear.common().price)
    }

    /// The same in whole cents, so that sums are exact.
    pub fn cents(&self) -> i64 {
        (self.price() * 100.0).round() as i64
    }

    /// A used one is counted.
    pub fn is_used(&self) -> bool {
        self.usually_used && self.price_used.is_some()
    }

    /// What a day's rent costs, where trying it out for a day comes before buying it.
    pub fn rent_first(&self) -> Option<f64> {
        let worth = matches!(self.gear, Gear::Light(_) | Gear::Camera(_) | Gear::Lens(_));
        self.rent_per_day.filter(|_| worth && self.price() >= RENT_FIRST_FROM)
    }
}

/// What a year of a thing's life costs: (price - resale) / years; none where its life is not told, or it sells for more.
pub fn per_year(price: f64, common: &Common) -> Option<f64> {
    common.life_years.filter(|years| *years > 0.0).map(|years| (price - common.resale).max(0.0) / years)
}
