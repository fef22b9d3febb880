//! What to do and what to buy for a sum: the answer as it is told.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::catalogue::Catalogue;
use super::free::FreeMove;
use super::passed_over::PassedOver;
use super::substitute::Substitute;
use crate::plan::{Money, Plan};
use crate::reading::Change;

/// A thing to buy.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Item {
    /// Catalogue id.
    pub id: String,
    /// In words.
    pub label: String,
    /// How many.
    pub count: usize,
    /// What they cost together.
    pub price: f64,
    /// It is counted used, as it is usually bought.
    pub used: bool,
    /// What they would cost new, where they are counted used.
    pub price_new: Option<f64>,
    /// Rent it for a day at this price before it is bought.
    pub rent_first: Option<f64>,
    /// What a year of their life costs: (price - resale) / years.
    pub per_year: Option<f64>,
    /// The caution that stands beside it; empty for most.
    pub caution: String,
    /// What it is bought for, in a sentence.
    pub reason: String,
}

/// A step of the way: things bought together, the corner working after them.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PathStep {
    /// What is bought, in words.
    pub label: String,
    /// The thing that helps, then what it needs.
    pub items: Vec<Item>,
    /// What the step costs.
    pub price: f64,
    /// What has been spent after it.
    pub spent: f64,
    /// Score before it, 0 to 1; none where nothing could be laid out.
    pub score_before: Option<f64>,
    /// Score after it, 0 to 1.
    pub score: f64,
    /// Things that stood in the way and no longer do.
    pub cleared: usize,
    /// A recording can be made after it.
    pub ready: bool,
    /// Why, in a sentence or two.
    pub reason: String,
    /// Readings before and after.
    pub readings: Vec<Change>,
    /// The corner after it.
    pub plan: Plan,
}

/// What a sum buys.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct CurvePoint {
    /// What is spent.
    pub spent: f64,
    /// Score of the corner with the best kit for it, 0 to 1.
    pub score: f64,
    /// A recording can be made.
    pub ready: bool,
}

/// Something to measure before money is spent on it: for nothing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasureFirst {
    /// What to do.
    pub label: String,
    /// Why, in a sentence.
    pub reason: String,
    /// The reading that it makes sure of.
    pub reading: String,
}

/// Where prices come from.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PricesFrom {
    /// What the catalogue is called.
    pub name: String,
    /// Where its prices come from.
    pub source: String,
    /// Their currency.
    pub currency: String,
    /// When they were looked up.
    pub dated: String,
    /// What to know where the budget is told in another currency; none where it is the same.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

impl PricesFrom {
    /// Those of a catalogue, for a budget.
    pub(super) fn of(catalogue: &Catalogue, money: &Money) -> Self {
        let Catalogue { name, source, currency, dated, offers: _ } = catalogue;
        let unlike = !currency.is_empty() && !money.currency.is_empty() && *currency != money.currency;
        let note = unlike.then(|| {
            format!(
                "Prices are in {currency}, the budget is in {}: 1 {currency} is counted as 1 {}.",
                money.currency, money.currency
            )
        });
        let [name, source, currency, dated] = [name, source, currency, dated].map(String::clone);
        Self { name, source, currency, dated, note }
    }
}

/// What to do and what to buy for a sum.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Advice {
    /// What there is to do, in one sentence.
    pub sentence: String,
    /// The sum that may be spent.
    pub budget: f64,
    /// Score now, from today's arrangement if it was given; 0 without a camera.
    pub score_now: f64,
    /// Measured for nothing before money is spent.
    pub measure_first: Vec<MeasureFirst>,
    /// What can be done for nothing, in order.
    pub free_moves: Vec<FreeMove>,
    /// The corner after the free moves, before anything is bought; none without a camera.
    pub before: Option<Plan>,
    /// What most homes have that would do.
    pub substitutes: Vec<Substitute>,
    /// Everything to buy.
    pub kit: Vec<Item>,
    /// In which order.
    pub path: Vec<PathStep>,
    /// What is spent.
    pub spent: f64,
    /// Score of the corner laid out with the kit.
    pub score: f64,
    /// A recording can be made with it.
    pub ready: bool,
    /// The corner laid out with the kit; none without a camera.
    pub plan: Option<Plan>,
    /// What every sum buys, up to where more would be neither seen nor heard.
    pub curve: Vec<CurvePoint>,
    /// From this sum on more would be neither seen nor heard.
    pub flat_from: f64,
    /// What a year of the kit costs.
    pub per_year: f64,
    /// What is not bought, and why.
    pub passed_over: Vec<PassedOver>,
    /// Where the prices come from.
    pub prices: PricesFrom,
    /// The search for kits ran out of time: there may be better ones.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    #[schema(required = false)]
    pub ended_early: bool,
}

/// What the table of gains says at once, before it is laid out.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AtOnce {
    /// The sum that may be spent.
    pub budget: f64,
    /// Everything to buy.
    pub kit: Vec<Item>,
    /// What is spent.
    pub spent: f64,
    /// The score that is expected, 0 to 1.
    pub score: f64,
}
