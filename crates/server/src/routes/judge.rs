//! Stateless questions: judge a plan, propose layouts, say what to change, apply a change.

use axum::Json;
use fogon_core::arrange::{AngleKind, LampJob, Proposals, laid_again, propose_until, with_angle, with_light};
use fogon_core::assess::choices::{ChoiceEffect, choices as every_choice};
use fogon_core::hand::{MoveIn, moved};
use fogon_core::money::{FreeMoves, free_moves_until};
use fogon_core::plan::{
    Brief, BriefFile, Clap, Id, Known, Layout, MeasuredId, PatchStep, Plan, apply as apply_patch, still_known,
};
use fogon_core::problem::{Code, Problem, Problems};
use fogon_core::room::{Walk, Walked, walked};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::judged::{Drawn, Judged, MovedOut};
use super::{Query, Sent, blocking, searching};
use crate::problem::Details;

/// A plan and a change to it.
#[derive(Deserialize, ToSchema)]
pub(crate) struct PlanChange {
    plan: Plan,
    #[schema(max_items = 400)]
    patch: Vec<PatchStep>,
}

fogon_core::shape!(
    PlanChange => |asked: &PlanChange| asked.plan.check(),
    EditIn => |asked: &EditIn| asked.before.check().and(asked.after.check()),
    OneMore => |asked: &OneMore| asked.plan.check(),
    OneLight => |asked: &OneLight| asked.plan.check(),
    AgainIn => |asked: &AgainIn| asked.before.check().and(asked.brief.check()),
);

/// Readings, findings, verdict, reasons, handles and drawings of a plan
#[utoipa::path(post, path = "/api/v1/assess", request_body = Plan,
    params(("text_scale" = Option<f64>, Query, description = "size of the words on the drawings, 0.5 to 4 times the usual"),
        ("frame_text_scale" = Option<f64>, Query, description = "size of the words in the frame; as text_scale where missing"),
        ("sheet_width_px" = Option<f64>, Query, description = "pixels across that plan and side view share, 50 to 10000: things are then told by name"),
        ("sheet_height_px" = Option<f64>, Query, description = "pixels down that both take together"),
        ("quarter_turns" = Option<u8>, Query, description = "quarter turns of the plan, 0 to 3, instead of those that suit the camera"),
        ("chart" = Option<bool>, Query, description = "true adds the chart of the shot over distance and what the room gives"),
        ("light" = Option<bool>, Query, description = "true adds lines of equal light and what the same key would do elsewhere"),
        ("sound" = Option<bool>, Query, description = "true adds what is told of the sound"),
        ("fixes" = Option<bool>, Query, description = "false leaves out the moves that mend findings")),
    responses((status = 200, body = Judged), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn assess(
    Query(drawn): Query<Drawn>,
    Sent(plan): Sent<Plan>,
) -> Result<Json<Judged>, Details> {
    drawn.check()?;
    blocking(move || Ok(Json(drawn.judge(&plan)?))).await
}

/// One thing moved by hand as far as the rules let it go, and the plan after it judged
#[utoipa::path(post, path = "/api/v1/move", request_body = MoveIn,
    params(("text_scale" = Option<f64>, Query, description = "as in assess"), ("frame_text_scale" = Option<f64>, Query, description = "as in assess"),
        ("sheet_width_px" = Option<f64>, Query, description = "as in assess"), ("sheet_height_px" = Option<f64>, Query, description = "as in assess"),
        ("quarter_turns" = Option<u8>, Query, description = "as in assess"), ("chart" = Option<bool>, Query, description = "as in assess"), ("light" = Option<bool>, Query, description = "as in assess"), ("sound" = Option<bool>, Query, description = "as in assess"), ("fixes" = Option<bool>, Query, description = "as in assess")),
    responses((status = 200, body = MovedOut), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn move_by_hand(
    Query(drawn): Query<Drawn>,
    Sent(asked): Sent<MoveIn>,
) -> Result<Json<MovedOut>, Details> {
    drawn.check()?;
    blocking(move || {
        let moved = moved(&asked.plan, &asked.by)?;
        let judged = drawn.judge(&moved.plan)?;
        Ok(Json(MovedOut::new(moved, judged)))
    })
    .await
}

/// What each choice of each school would change, with everything where it stands
#[utoipa::path(post, path = "/api/v1/choices", request_body = Plan,
    responses((status = 200, body = Vec<ChoiceEffect>), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn choices(Sent(plan): Sent<Plan>) -> Result<Json<Vec<ChoiceEffect>>, Details> {
    blocking(move || Ok(Json(every_choice(&plan)))).await
}

/// Legal layouts for a brief, best first, or what forbids one
#[utoipa::path(post, path = "/api/v1/propose", request_body = BriefFile,
    responses((status = 200, body = Proposals), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn propose(Sent(file): Sent<BriefFile>) -> Result<Json<Proposals>, Details> {
    searching(move |stop| propose_until(&file.name, &file.brief, stop)).await.map(Json)
}

/// What can be done for nothing, from how the corner stands today, else from the plan
#[utoipa::path(post, path = "/api/v1/free-moves", request_body = Plan,
    responses((status = 200, body = FreeMoves), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn free_moves(Sent(plan): Sent<Plan>) -> Result<Json<FreeMoves>, Details> {
    searching(move |stop| free_moves_until(&plan, stop)).await.map(Json)
}

/// A plan with a change applied, all or nothing
#[utoipa::path(post, path = "/api/v1/apply", request_body = PlanChange,
    responses((status = 200, body = Plan), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn apply(Sent(change): Sent<PlanChange>) -> Result<Json<Plan>, Details> {
    blocking(move || Ok(Json(apply_patch(&change.plan, &change.patch)?))).await
}

/// A corner, laid out or not.
#[derive(Deserialize, ToSchema)]
pub(crate) struct StateIn {
    brief: Brief,
    layout: Option<Layout>,
}

impl StateIn {
    fn check(&self) -> Result<(), Problems> {
        self.brief.check_with(self.layout.as_ref())
    }

    fn parts(&self) -> (&Brief, Option<&Layout>) {
        (&self.brief, self.layout.as_ref())
    }
}

/// A corner before and after a change by hand.
#[derive(Deserialize, ToSchema)]
pub(crate) struct EditIn {
    before: StateIn,
    after: StateIn,
}

/// What of the measured readings still holds after a change.
#[derive(Serialize, ToSchema)]
pub(crate) struct StillMeasured {
    /// Those that hold.
    #[schema(value_type = std::collections::BTreeMap<String, f64>)]
    measured: std::collections::BTreeMap<MeasuredId, f64>,
    /// The reverberation time as it was measured while other things hung.
    clap: Option<Clap>,
    /// Ids of those that are set aside.
    dropped: Vec<String>,
}

/// Which measured readings still hold after a change by hand: not those that belong to a part that was changed
#[utoipa::path(post, path = "/api/v1/measured", request_body = EditIn,
    responses((status = 200, body = StillMeasured), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn measured(Sent(asked): Sent<EditIn>) -> Result<Json<StillMeasured>, Details> {
    blocking(move || {
        let Known { measured, clap } = still_known(asked.before.parts(), asked.after.parts());
        let known = Brief { measured, clap, ..asked.after.brief.clone() };
        let dropped = asked.after.brief.set_aside_in(&known);
        Ok(Json(StillMeasured { measured: known.measured, clap: known.clap, dropped }))
    })
    .await
}

/// The same seat and camera with lights and microphone placed anew, as after gear has changed
#[utoipa::path(post, path = "/api/v1/place", request_body = Plan,
    responses((status = 200, body = Plan), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn place(Sent(plan): Sent<Plan>) -> Result<Json<Plan>, Details> {
    blocking(move || {
        let placed = fogon_core::arrange::replaced(&plan).ok_or_else(|| {
            let problem = Problem::new(
                "layout",
                "this seat and camera",
                "a seat and camera with legal places around them",
                Code::Conflict,
            );
            Details::from(Problems::from(problem))
        })?;
        Ok(Json(placed))
    })
    .await
}

/// A plan, and the answers as they are now.
#[derive(Deserialize, ToSchema)]
pub(crate) struct AgainIn {
    before: Plan,
    brief: Brief,
}

/// The corner laid out again.
#[derive(Serialize, ToSchema)]
pub(crate) struct Again {
    /// None where nothing fits.
    plan: Option<Plan>,
}

/// The best layout for changed answers that keeps what is locked, what hangs and the second angles
#[utoipa::path(post, path = "/api/v1/again", request_body = AgainIn,
    responses((status = 200, body = Again), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn again(Sent(asked): Sent<AgainIn>) -> Result<Json<Again>, Details> {
    let AgainIn { before, brief } = asked;
    searching(move |stop| laid_again(&before.name, &brief, &before.layout, stop))
        .await
        .map(|plan| Json(Again { plan }))
}

/// A plan and the second angle it is to get.
#[derive(Deserialize, ToSchema)]
pub(crate) struct OneMore {
    plan: Plan,
    kind: AngleKind,
}

/// A plan with a second angle where it breaks no rule
#[utoipa::path(post, path = "/api/v1/angle", request_body = OneMore,
    responses((status = 200, body = Plan), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn angle(Sent(asked): Sent<OneMore>) -> Result<Json<Plan>, Details> {
    blocking(move || Ok(Json(with_angle(&asked.plan, asked.kind).map_err(Problems::from)?))).await
}

/// A plan and the light that it is to get.
#[derive(Deserialize, ToSchema)]
pub(crate) struct OneLight {
    plan: Plan,
    /// Gear id of a light at hand, or of a board as the fill.
    gear: Id,
    job: LampJob,
}

/// A plan with one more light where it breaks no rule
#[utoipa::path(post, path = "/api/v1/light", request_body = OneLight,
    responses((status = 200, body = Plan), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn light(Sent(asked): Sent<OneLight>) -> Result<Json<Plan>, Details> {
    blocking(move || Ok(Json(with_light(&asked.plan, &asked.gear, asked.job).map_err(Problems::from)?))).await
}

/// The floor of a walk round the room with a tape, its closing error shared out
#[utoipa::path(post, path = "/api/v1/walk", request_body = Walk,
    responses((status = 200, body = Walked), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn walk(Sent(walk): Sent<Walk>) -> Result<Json<Walked>, Details> {
    Ok(Json(walked(&walk).map_err(Problems::from)?))
}
