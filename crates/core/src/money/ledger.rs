//! What was spent on what is owned, and what each thing costs for a year of its life.

use serde::Serialize;
use utoipa::ToSchema;

use super::price::per_year;
use crate::plan::{Brief, GearState};

/// One thing that is owned or rented.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LedgerRow {
    /// Gear id.
    pub id: String,
    /// In words.
    pub label: String,
    /// How many.
    pub count: usize,
    /// The day it was bought, where that is told.
    pub date: Option<String>,
    /// What was paid for all of them: as told, else their price.
    pub paid: f64,
    /// What was paid is the catalogue's price and not told.
    pub assumed: bool,
    /// Expected life, years.
    pub life_years: Option<f64>,
    /// What a year of its life costs.
    pub per_year: Option<f64>,
}

/// The ledger.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Ledger {
    /// Dated first, oldest first, then by id.
    pub rows: Vec<LedgerRow>,
    /// What was paid in all.
    pub paid: f64,
    /// What it all costs a year.
    pub per_year: f64,
}

/// The ledger of what a brief owns; what is borrowed or rented costs its owner nothing to keep.
pub fn ledger(brief: &Brief) -> Ledger {
    let owned = brief.gear.iter().filter(|(_, gear)| gear.common().state == GearState::Owned);
    let mut rows: Vec<LedgerRow> = owned
        .filter(|(_, gear)| gear.common().paid() > 0.0)
        .map(|(id, gear)| {
            let common = gear.common();
            let pieces = common.pieces() as f64;
            let told = common.bought.as_ref().and_then(|bought| bought.price);
            LedgerRow {
                id: id.0.clone(),
                label: common.label.clone(),
                count: common.pieces(),
                date: common.bought.as_ref().and_then(|bought| bought.date.clone()),
                paid: pieces * common.paid(),
                assumed: told.is_none(),
                life_years: common.life_years,
                per_year: per_year(common.paid(), common).map(|sum| pieces * sum),
            }
        })
        .collect();
    rows.sort_by(|a, b| (a.date.is_none(), &a.date, &a.id).cmp(&(b.date.is_none(), &b.date, &b.id)));
    let paid = 0.0 + rows.iter().map(|row| row.paid).sum::<f64>();
    let yearly = 0.0 + rows.iter().filter_map(|row| row.per_year).sum::<f64>();
    Ledger { rows, paid, per_year: yearly }
}
