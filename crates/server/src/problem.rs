//! Errors as RFC 9457 problem details, in plain words; one table of status codes.

use axum::Json;
use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use fogon_core::problem::{Problem, Problems};
use fogon_core::units::capital;
use fogon_recording::{NoStill, Unreadable};
use fogon_store::{Step, StoreError};
use serde::Serialize;
use utoipa::ToSchema;

/// A problem as sent to the caller.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct Details {
    /// What kind of problem, as a stable relative reference.
    #[serde(rename = "type")]
    kind: String,
    /// HTTP status.
    status: u16,
    /// What happened, in one sentence.
    title: String,
    /// Each refused field.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    errors: Vec<Refused>,
    /// The revision that is kept now, after a conflict.
    #[serde(skip_serializing_if = "Option::is_none")]
    revision: Option<i64>,
}

/// One refused field.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct Refused {
    #[serde(flatten)]
    problem: Problem,
    /// The same as one sentence.
    sentence: String,
}

impl Details {
    pub(crate) fn new(status: StatusCode, kind: &str, title: impl Into<String>) -> Self {
        let kind = format!("problem:{kind}");
        Self { kind, status: status.as_u16(), title: title.into(), errors: Vec::new(), revision: None }
    }

    /// The address is there, and is not asked in this way.
    pub(crate) fn no_such_way() -> Self {
        Self::new(StatusCode::METHOD_NOT_ALLOWED, "no_such_way", "This address is not asked in this way.")
    }

    pub(crate) fn not_found(what: &str) -> Self {
        Self::new(StatusCode::NOT_FOUND, "not_found", format!("There is no such {what}."))
    }
}

/// Words as a sentence.
pub(crate) fn sentence(words: &str) -> String {
    format!("{}.", capital(words))
}

impl From<Unreadable> for Details {
    fn from(error: Unreadable) -> Self {
        let status = match error {
            Unreadable::TooLarge { .. } => StatusCode::PAYLOAD_TOO_LARGE,
            _ => StatusCode::UNPROCESSABLE_ENTITY,
        };
        Self::new(status, "unreadable_recording", sentence(&error.to_string()))
    }
}

impl From<NoStill> for Details {
    fn from(error: NoStill) -> Self {
        let status = match error {
            NoStill::TooLarge(_) => StatusCode::PAYLOAD_TOO_LARGE,
            _ => StatusCode::UNPROCESSABLE_ENTITY,
        };
        Self::new(status, "unreadable_picture", sentence(&error.to_string()))
    }
}

impl From<QueryRejection> for Details {
    fn from(rejection: QueryRejection) -> Self {
        Self::new(StatusCode::BAD_REQUEST, "bad_choice", format!("{}.", rejection.body_text()))
    }
}

impl From<PathRejection> for Details {
    fn from(_: PathRejection) -> Self {
        Self::not_found("address")
    }
}

impl From<Problems> for Details {
    fn from(problems: Problems) -> Self {
        let errors: Vec<Refused> = problems
            .0
            .into_iter()
            .map(|problem| Refused { sentence: problem.to_string(), problem })
            .collect();
        let title = match errors.as_slice() {
            [only] => only.sentence.clone(),
            many => format!("{} values are not accepted.", many.len()),
        };
        Self { errors, ..Self::new(StatusCode::UNPROCESSABLE_ENTITY, "bad_input", title) }
    }
}

impl From<StoreError> for Details {
    fn from(error: StoreError) -> Self {
        match error {
            StoreError::Missing => Self::not_found("corner"),
            StoreError::Conflict { current } => Self {
                revision: Some(current),
                ..Self::new(
                    StatusCode::PRECONDITION_FAILED,
                    "changed_elsewhere",
                    "This corner was changed in another window. Load it again, then repeat your change.",
                )
            },
            StoreError::NoStep(step) => Self::new(
                StatusCode::CONFLICT,
                "no_such_step",
                match step {
                    Step::Undo => "There is no earlier state of this corner to go back to.",
                    Step::Redo => "Nothing was undone last, so there is nothing to bring back.",
                },
            ),
            StoreError::File(trouble) => {
                tracing::error!(%trouble, "the file");
                Self::new(StatusCode::INTERNAL_SERVER_ERROR, "not_kept", trouble.to_string())
            }
            StoreError::Stored(problem) => {
                tracing::error!(%problem, "stored document");
                Self::new(
                    StatusCode::INTERNAL_SERVER_ERROR,
                    "unreadable",
                    "A stored corner cannot be read by this version.",
                )
            }
        }
    }
}

impl IntoResponse for Details {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let mut response = (status, Json(self)).into_response();
        response
            .headers_mut()
            .insert(header::CONTENT_TYPE, HeaderValue::from_static("application/problem+json"));
        response
    }
}
