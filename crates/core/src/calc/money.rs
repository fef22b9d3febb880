//! Money: the best kit for a sum, and what a year of a thing costs.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::money::{Scored, best_kit, kit_score};
use crate::problem::{Code, Problem};

/// A thing with a score.
#[derive(Deserialize, ToSchema)]
struct KitItem {
    id: String,
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    price: f64,
    #[schema(minimum = 0.0, maximum = 1_000_000.0)]
    score: f64,
    #[serde(default)]
    aspect: Option<String>,
    #[serde(default)]
    needs: Vec<String>,
    #[serde(default)]
    excludes: Vec<String>,
}

#[derive(Deserialize, ToSchema)]
pub(super) struct BestKit {
    #[schema(max_items = 200)]
    items: Vec<KitItem>,
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    budget: f64,
    #[serde(default)]
    weights: BTreeMap<String, f64>,
}

#[derive(Serialize)]
pub(super) struct KitFound {
    chosen: Vec<String>,
    spent: f64,
    score: f64,
}

impl BestKit {
    /// The index that an id stands for.
    fn at(&self, field: String, id: &str) -> Result<usize, Problem> {
        let found = self.items.iter().position(|item| item.id == id);
        found.ok_or_else(|| Problem::new(field, id, "the id of one of the items", Code::UnknownId))
    }
}

impl Calculate for BestKit {
    const NAME: &'static str = "best-kit";
    const FORMULA: &'static str = "maximise sum over aspects of weight x best chosen score + sum of scores without aspect, price <= budget; then the lowest price, then the first in the list";
    const SOURCE: &'static str = "0-1 integer program, exact";
    type Output = KitFound;

    fn calculate(self) -> Result<KitFound, Problem> {
        let mut things = Vec::new();
        for (at, item) in self.items.iter().enumerate() {
            if self.items[..at].iter().any(|other| other.id == item.id) {
                return Err(Problem::new(
                    format!("items[{at}].id"),
                    &item.id,
                    "an id that no other item has",
                    Code::Conflict,
                ));
            }
            let all = |name: &str, ids: &[String]| -> Result<Vec<usize>, Problem> {
                ids.iter().map(|id| self.at(format!("items[{at}].{name}"), id)).collect()
            };
            things.push(Scored {
                price: item.price,
                score: item.score,
                aspect: item.aspect.clone(),
                needs: all("needs", &item.needs)?,
                excludes: all("excludes", &item.excludes)?,
            });
        }
        if let Some((aspect, weight)) = self.weights.iter().find(|(_, w)| !(w.is_finite() && **w >= 0.0)) {
            return Err(Problem::new(format!("weights.{aspect}"), weight, "0 or more", Code::OutOfRange));
        }
        let chosen = best_kit(&things, self.budget, &self.weights);
        Ok(KitFound {
            spent: 0.0 + chosen.iter().map(|at| things[*at].price).sum::<f64>(),
            score: kit_score(&things, &self.weights, &chosen),
            chosen: chosen.into_iter().map(|at| self.items[at].id.clone()).collect(),
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct CostPerYear {
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    price: f64,
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    resale: f64,
    #[schema(exclusive_minimum = 0.0, maximum = 1000.0)]
    years: f64,
}

#[derive(Serialize)]
pub(super) struct YearlyCost {
    per_year: f64,
}

impl Calculate for CostPerYear {
    const NAME: &'static str = "cost-per-year";
    const FORMULA: &'static str = "(price - resale) / years";
    const SOURCE: &'static str = "straight-line depreciation";
    type Output = YearlyCost;

    fn calculate(self) -> Result<YearlyCost, Problem> {
        if self.resale > self.price {
            let accepted = format!("0 to the price, {}", self.price);
            return Err(Problem::new("resale", self.resale, accepted, Code::Conflict));
        }
        Ok(YearlyCost { per_year: (self.price - self.resale) / self.years })
    }
}

crate::shape!(BestKit, CostPerYear);
