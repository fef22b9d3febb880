//! Lists that come and go as files: the shelf as a table, the shopping list, the ledger.

use std::borrow::Cow;
use std::collections::BTreeMap;

use axum::Json;
use fogon_core::money::{Item, Ledger, Offer, PricesFrom, ledger as ledger_of, read_rows, write_rows};
use fogon_core::plan::{Brief, Gear, Id};
use fogon_handover::shopping as list;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Body, Sent, blocking};
use crate::problem::Details;

/// A brief alone.
#[derive(Deserialize, ToSchema)]
pub(crate) struct BriefIn {
    brief: Brief,
}

/// A shelf that was read from a table.
#[derive(Serialize, ToSchema)]
pub(crate) struct ShelfRead {
    /// What it holds, by id.
    gear: BTreeMap<String, Gear>,
}

/// A shelf as a table (CSV), read
#[utoipa::path(post, path = "/api/v1/shelf", request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = ShelfRead), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn shelf(Body(bytes): Body) -> Result<Json<ShelfRead>, Details> {
    blocking(move || {
        let rows = read_rows(&bytes)?.rows;
        Ok(Json(ShelfRead { gear: rows.into_iter().map(|row| (row.id.0, row.offer.gear)).collect() }))
    })
    .await
}

/// What a brief owns, as a table (CSV)
#[utoipa::path(post, path = "/api/v1/shelf/table", request_body = BriefIn,
    responses((status = 200, body = String, content_type = "text/csv"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn shelf_table(Sent(BriefIn { brief }): Sent<BriefIn>) -> Result<String, Details> {
    blocking(move || {
        let offers =
            brief.gear.iter().map(|(id, gear): (&Id, &Gear)| (id, Cow::Owned(Offer::of(gear.clone()))));
        Ok(write_rows(&[], offers))
    })
    .await
}

/// What is to be bought.
#[derive(Deserialize, ToSchema)]
pub(crate) struct ShoppingIn {
    plan: fogon_core::plan::Plan,
    #[schema(max_items = 400)]
    items: Vec<Item>,
    prices: PricesFrom,
    format: ListFormat,
}

/// How a list is written.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum ListFormat {
    /// A table.
    Csv,
    /// Text with boxes to tick.
    Markdown,
}

fogon_core::shape!(
    ShoppingIn => |asked: &ShoppingIn| asked.plan.check(),
    BriefIn => |asked: &BriefIn| asked.brief.check(),
);

/// A shopping list as a table (CSV) or as text (Markdown)
#[utoipa::path(post, path = "/api/v1/shopping", request_body = ShoppingIn,
    responses((status = 200, body = String, content_type = "text/plain"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn shopping(Sent(asked): Sent<ShoppingIn>) -> Result<String, Details> {
    let currency = &asked.plan.brief.money.currency;
    Ok(match asked.format {
        ListFormat::Csv => list::csv(&asked.items),
        ListFormat::Markdown => list::markdown(&asked.plan.name, currency, &asked.items, &asked.prices),
    })
}

/// What was spent on what a brief owns, and what it costs a year
#[utoipa::path(post, path = "/api/v1/ledger", request_body = BriefIn,
    responses((status = 200, body = Ledger), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn ledger(Sent(BriefIn { brief }): Sent<BriefIn>) -> Result<Json<Ledger>, Details> {
    Ok(Json(ledger_of(&brief)))
}
