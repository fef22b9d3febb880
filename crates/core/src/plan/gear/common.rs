//! What every kind of gear has.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::reading::Origin;

/// What every kind has.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Common {
    /// What people call it.
    #[schema(min_length = 1, max_length = 120)]
    pub label: String,
    /// Price, in the plan's currency.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    pub price: f64,
    /// Price it can be sold for after its life.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    pub resale: f64,
    /// Expected life, years.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.5, maximum = 50.0)]
    pub life_years: Option<f64>,
    /// Mass, kg.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 500.0)]
    pub mass_kg: f64,
    /// Mains power, W.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 20_000.0)]
    pub power_w: Option<f64>,
    /// Level of its fan 1 m away, dBA; none if it is silent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 90.0)]
    pub fan_noise_1m_dba: Option<f64>,
    /// Power factor (1).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 1.0)]
    pub power_factor: Option<f64>,
    /// Plugs, mounts and inputs that it brings, each for one other thing.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub offers: Vec<String>,
    /// Plugs, mounts and inputs that it cannot work without.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub needs: Vec<String>,
    /// Ids or offers of other things that it cannot be used beside.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub excludes: Vec<String>,
    /// How many alike (1).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 20)]
    pub count: Option<u32>,
    /// How well it is kept (good).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub condition: Option<Upkeep>,
    /// Where it lies when it is not in use.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 80)]
    pub place: Option<String>,
    /// When it was bought, and for how much.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bought: Option<BoughtFor>,
    /// The figures are those of its usual kind, not read off the thing itself.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub figures_assumed: bool,
    /// Owned, wanted, never, borrowed, rented.
    #[serde(default)]
    pub state: GearState,
}

impl Common {
    /// Whether it brings a plug, mount or input.
    pub fn offers(&self, what: &str) -> bool {
        self.offers.iter().any(|offer| offer == what)
    }

    /// How many alike there are.
    pub fn pieces(&self) -> usize {
        self.count.map_or(1, |count| count as usize)
    }

    /// What was paid for one, else its price.
    pub fn paid(&self) -> f64 {
        self.bought.as_ref().and_then(|bought| bought.price).unwrap_or(self.price)
    }

    /// Where this thing's figures come from.
    pub fn figures_from(&self) -> Origin {
        if self.figures_assumed { Origin::Assumed } else { Origin::Typed }
    }
}

/// Whether a thing is at hand.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum GearState {
    #[default]
    Owned,
    Wanted,
    Never,
    Borrowed,
    Rented,
}

/// How well a thing is kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Upkeep {
    /// As on its first day.
    New,
    /// It does its work.
    Good,
    /// It does its work, and will not for long.
    Worn,
    /// It does not work: it counts as not at hand.
    Broken,
}

/// A thing's purchase.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BoughtFor {
    /// The day, as `2026-11-28`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(pattern = "^[0-9]{4}-(0[1-9]|1[0-2])-(0[1-9]|[12][0-9]|3[01])$")]
    pub date: Option<String>,
    /// What was paid for one, in the plan's currency.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    pub price: Option<f64>,
}
