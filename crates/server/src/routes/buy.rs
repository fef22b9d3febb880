//! What to do and what to buy for a sum, as it becomes known: how far the work is, what the table of gains says, then the advice.

use std::convert::Infallible;
use std::sync::Arc;
use std::time::Duration;

use axum::body::Body;
use axum::extract::State;
use axum::http::{HeaderValue, header};
use axum::response::{IntoResponse, Response};
use fogon_core::arrange::Stop;
use fogon_core::money::{Advice, AtOnce};
use fogon_core::plan::Plan;
use futures_util::stream;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{App, Sent, blocking_while_awaited};
use crate::desk::Waiting;
use crate::problem::Details;

/// How often it is said how far the work is.
const EVERY: Duration = Duration::from_millis(100);

/// A plan and the sum that may be spent on it.
#[derive(Deserialize, ToSchema)]
pub(crate) struct BuyIn {
    plan: Plan,
    /// The plan's own where it is left out.
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    budget: Option<f64>,
}

fogon_core::shape!(BuyIn => |asked: &BuyIn| asked.plan.check());

/// One line of the answer.
#[derive(Serialize, ToSchema)]
#[serde(tag = "line", rename_all = "kebab-case")]
pub(crate) enum BuyLine {
    /// How far the work is.
    Progress {
        /// Things on offer that have been laid out in this corner.
        tried: usize,
        /// Kits that have been taken apart and put together anew.
        kits: usize,
    },
    /// What the table of gains says, being checked.
    Table(AtOnce),
    /// The advice, as it was laid out.
    Advice(Box<Advice>),
    /// The work broke off.
    Failed {
        /// Why, in words.
        sentence: String,
    },
}

impl BuyLine {
    fn written(&self) -> Result<Vec<u8>, Infallible> {
        let mut line = serde_json::to_vec(self).unwrap_or_default();
        line.push(b'\n');
        Ok(line)
    }
}

/// Where an answer stands.
struct Answering {
    case: Arc<Waiting>,
    sibling: Option<Waiting>,
    plan: Plan,
    budget: f64,
    told: Option<(usize, usize)>,
    table: Told,
    ended: bool,
}

/// What has been told of the table.
#[derive(PartialEq)]
enum Told {
    Nothing,
    /// As the table under other weights has it.
    Reweighed,
    Own,
}

impl Answering {
    async fn next(mut self) -> Option<(Result<Vec<u8>, Infallible>, Self)> {
        while !self.ended {
            if let Some(line) = self.line().await {
                return Some((line.written(), self));
            }
            tokio::time::sleep(EVERY).await;
        }
        None
    }

    /// What there is to say now.
    async fn line(&mut self) -> Option<BuyLine> {
        let case = self.case.0.clone();
        let weights = self.plan.brief.money.weights;
        match case.counter() {
            Some(counter) if self.table != Told::Own => {
                self.table = Told::Own;
                return Some(BuyLine::Table(counter.at_once(self.budget, weights)));
            }
            None if self.table == Told::Nothing => {
                if let Some(counter) = self.sibling.as_ref().and_then(|sibling| sibling.0.counter()) {
                    self.table = Told::Reweighed;
                    return Some(BuyLine::Table(counter.at_once(self.budget, weights)));
                }
            }
            _ => {}
        }
        if case.counter().is_some_and(|counter| counter.is_explored()) {
            self.ended = true;
            let budget = self.budget;
            let advice = blocking_while_awaited(move |gone| case.counter()?.advice(budget, Stop::when(gone)));
            return Some(match advice.await {
                Ok(advice) => BuyLine::Advice(Box::new(advice)),
                Err(_) => BuyLine::Failed { sentence: "The work broke off. Ask again.".to_owned() },
            });
        }
        if case.has_failed() {
            self.ended = true;
            return Some(BuyLine::Failed { sentence: case.why().to_owned() });
        }
        let progress = case.progress();
        if self.told != Some(progress) {
            self.told = Some(progress);
            return Some(BuyLine::Progress { tried: progress.0, kits: progress.1 });
        }
        None
    }
}

/// What to do for nothing and what to buy for a sum: lines of JSON as they become known, the last one the advice
#[utoipa::path(post, path = "/api/v1/buy", request_body = BuyIn,
    responses((status = 200, body = BuyLine, content_type = "application/x-ndjson"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn buy(State(app): State<App>, Sent(asked): Sent<BuyIn>) -> Result<Response, Details> {
    let (case, sibling) = app.desk.case(&asked.plan, &app.catalogue)?;
    let budget = asked.budget.unwrap_or(asked.plan.brief.money.budget);
    let answering = Answering {
        case: Arc::new(case),
        sibling,
        plan: asked.plan,
        budget,
        told: None,
        table: Told::Nothing,
        ended: false,
    };
    let mut response = Body::from_stream(stream::unfold(answering, Answering::next)).into_response();
    response.headers_mut().insert(header::CONTENT_TYPE, HeaderValue::from_static("application/x-ndjson"));
    Ok(response)
}
