//! Tables that the page shows: schools, catalogue, materials, the plan schema.

use std::collections::BTreeMap;
use std::sync::Arc;

use axum::Json;
use axum::extract::State;
use fogon_core::document::Shape;
use fogon_core::glossary::{Term, terms};
use fogon_core::material::{MATERIALS, Use};
use fogon_core::money::{Catalogue, Offer};
use fogon_core::plan::{Plan, School, all_schools};
use serde::Serialize;
use utoipa::ToSchema;

/// A surface finish.
#[derive(Serialize, ToSchema)]
pub(crate) struct Finish {
    id: &'static str,
    label: &'static str,
    /// Absorption at 125, 250, 500, 1000, 2000 and 4000 Hz.
    #[schema(value_type = Vec<f64>)]
    absorption: [f64; 6],
    kind: Use,
}

/// Where practitioners disagree
#[utoipa::path(get, path = "/api/v1/schools", responses((status = 200, body = Vec<School>)))]
pub(crate) async fn schools() -> Json<Vec<School>> {
    Json(all_schools())
}

/// The words of the trade
#[utoipa::path(get, path = "/api/v1/glossary", responses((status = 200, body = Vec<Term>)))]
pub(crate) async fn glossary() -> Json<&'static [Term]> {
    Json(terms())
}

/// The catalogue, by id
#[utoipa::path(get, path = "/api/v1/catalogue", responses((status = 200, body = BTreeMap<String, Offer>)))]
pub(crate) async fn catalogue(State(catalogue): State<Arc<Catalogue>>) -> Json<BTreeMap<String, Offer>> {
    Json(catalogue.offers.iter().map(|(id, offer)| (id.0.clone(), offer.clone())).collect())
}

/// Surface finishes
#[utoipa::path(get, path = "/api/v1/materials", responses((status = 200, body = Vec<Finish>)))]
pub(crate) async fn materials() -> Json<Vec<Finish>> {
    let finishes =
        MATERIALS.iter().map(|m| Finish { id: m.id, label: m.label, absorption: m.absorption, kind: m.kind });
    Json(finishes.collect())
}

/// The JSON Schema (2020-12) of a plan file
#[utoipa::path(get, path = "/api/v1/schema/plan", responses((status = 200, body = Object)))]
pub(crate) async fn plan_schema() -> Json<serde_json::Value> {
    Json(Plan::shape().clone())
}
