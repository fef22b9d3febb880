//! A plan judged, explained and drawn for a page: what may be asked for, and what comes back.

use axum::http::StatusCode;
use fogon_core::arrange::{Ground, Placed, ground, why};
use fogon_core::assess::mend::same_lamp;
use fogon_core::assess::{Assessment, evaluate, without_moves};
use fogon_core::corner::{Corner, unresolved};
use fogon_core::drawing::{
    AngleSeen, Drawing, Field, FieldOf, LightSheets, Naming, Screen, SoundSheets, Style, draw_angles,
    draw_field, draw_for, draw_light, draw_sound,
};
use fogon_core::hand::{Handle, Moved, handles};
use fogon_core::light::head::{FaceSeen, face_seen};
use fogon_core::plan::{Fix, Plan};
use fogon_core::problem::Problems;
use fogon_core::shot::chart::{Chart, chart};
use fogon_core::sound::seen::SoundSeen;
use fogon_core::steps::{StepTold, steps};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::problem::Details;

/// A plan judged, explained and drawn.
#[derive(Serialize, ToSchema)]
pub(crate) struct Judged {
    assessment: Assessment,
    /// The order of the work: how each step stands, what belongs to it, what is best done next.
    steps: Vec<StepTold>,
    /// Where everything stands and what decides that, in the order the marks are laid.
    placed: Vec<Placed>,
    drawing: Drawing,
    /// What can be taken hold of, with its numbers.
    handles: Vec<Handle>,
    /// The face under its light, where there is any.
    #[serde(skip_serializing_if = "Option::is_none")]
    face: Option<FaceSeen>,
    /// What to lay over plan and side view, where the light was asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    light: Option<LightSheets>,
    /// What the trade that was asked for computes at every place, to lay under plan and side view.
    #[serde(skip_serializing_if = "Option::is_none")]
    field: Option<Field>,
    /// The same key put where it is softer, where the light and the moves were asked for and there is such a place.
    #[serde(skip_serializing_if = "Option::is_none")]
    same_lamp: Option<Fix>,
    /// Everything of the sound, where it was asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    sound: Option<SoundSeen>,
    /// The ways of the voice, to lay over plan and side view, where the sound was asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    sound_sheets: Option<SoundSheets>,
    /// The shot over distance, where it was asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    chart: Option<Chart>,
    /// What the room gives, where the chart was asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    ground: Option<Ground>,
    /// What second angles see, where the chart was asked for.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[schema(required = false)]
    angles: Vec<AngleSeen>,
}

/// A plan after a move, judged.
#[derive(Serialize, ToSchema)]
pub(crate) struct MovedOut {
    #[serde(flatten)]
    moved: Moved,
    judged: Judged,
}

impl MovedOut {
    pub(crate) fn new(moved: Moved, judged: Judged) -> Self {
        Self { moved, judged }
    }
}

/// How to draw and judge.
#[derive(Default, Deserialize)]
pub(crate) struct Drawn {
    /// Size of the words on the drawings, 0.5 to 4 times the usual.
    text_scale: Option<f64>,
    /// Size of the words in the frame, 0.5 to 4 times the usual.
    frame_text_scale: Option<f64>,
    /// Pixels across and down that plan and side view share: things are then told by name, in words of one size.
    sheet_width_px: Option<f64>,
    sheet_height_px: Option<f64>,
    /// Quarter turns of the plan, counter-clockwise, instead of those that suit the camera.
    quarter_turns: Option<u8>,
    /// Add the chart of the shot over distance and what the room gives (no).
    chart: Option<bool>,
    /// Add lines of equal light and what the same key would do elsewhere (no).
    light: Option<bool>,
    /// Add what is told of the sound (no).
    sound: Option<bool>,
    /// Look for the moves that mend findings (yes); a hand that is still dragging does not wait for them.
    fixes: Option<bool>,
}

impl Drawn {
    pub(crate) fn check(&self) -> Result<(), Details> {
        let refused = |words: &str| Details::new(StatusCode::BAD_REQUEST, "bad_choice", words);
        for (name, scale) in [("text_scale", self.text_scale), ("frame_text_scale", self.frame_text_scale)] {
            if !(0.5..=4.0).contains(&scale.unwrap_or(1.0)) {
                return Err(refused(&format!("{name}: give 0.5 to 4.")));
            }
        }
        for (name, px) in [("sheet_width_px", self.sheet_width_px), ("sheet_height_px", self.sheet_height_px)]
        {
            if !(50.0..=10_000.0).contains(&px.unwrap_or(500.0)) {
                return Err(refused(&format!("{name}: give 50 to 10000.")));
            }
        }
        if self.quarter_turns.unwrap_or(0) > 3 {
            return Err(refused("quarter_turns: give 0 to 3."));
        }
        Ok(())
    }

    pub(crate) fn judge(&self, plan: &Plan) -> Result<Judged, Details> {
        let text_scale = self.text_scale.unwrap_or(1.0);
        let screen = self.sheet_width_px.zip(self.sheet_height_px);
        let style = Style {
            text_scale,
            frame_text_scale: self.frame_text_scale.unwrap_or(text_scale),
            quarter_turns: self.quarter_turns,
            screen: screen.map(|(width_px, height_px)| Screen { width_px, height_px }),
            naming: if screen.is_some() { Naming::Names } else { Naming::Letters },
        };
        let drawing = draw_for(plan, style).ok_or_else(|| Details::from(Problems::from(unresolved())))?;
        let finely = self.fixes.unwrap_or(true);
        let assessment = if finely { evaluate(plan) } else { without_moves(plan) };
        let corner = Corner::of(plan);
        let steps = corner.as_ref().map_or_else(Vec::new, |corner| steps(corner, &assessment));
        let face = corner.as_ref().map(face_seen);
        let [light, sound, shot] = [self.light, self.sound, self.chart].map(|asked| asked.unwrap_or(false));
        let field = [(light, FieldOf::Light), (sound, FieldOf::Sound), (shot, FieldOf::Shot)]
            .into_iter()
            .find(|(asked, _)| *asked)
            .and_then(|(_, of)| draw_field(plan, &drawing, of, finely));
        let same_lamp = if light && finely { same_lamp(plan) } else { None };
        let light = if light { draw_light(plan, &drawing, finely) } else { None };
        let heard = corner.as_ref().filter(|_| sound);
        let sound = heard.map(fogon_core::sound::seen::seen);
        let sound_sheets = heard.and_then(|_| draw_sound(plan, &drawing));
        let corner = corner.filter(|_| shot);
        let angles = if corner.is_some() { draw_angles(plan, style.frame_text_scale) } else { Vec::new() };
        let (chart, ground) = (corner.as_ref().map(chart), corner.as_ref().map(ground));
        Ok(Judged {
            assessment,
            steps,
            placed: why(plan),
            drawing,
            handles: handles(plan),
            face,
            light,
            field,
            same_lamp,
            sound,
            sound_sheets,
            chart,
            ground,
            angles,
        })
    }
}
