//! A corner as drawings: plan, side view and frame, as shapes in metres (the frame in parts of the picture).
//! Shapes carry what they are, not how they look; paper and page style them.

mod away;
mod field;
mod frame;
mod labels;
mod plan_view;
mod reach;
mod shapes;
mod side;
mod things;
mod view;
mod voice;

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::{Corner, Thing, things};
use crate::plan::{Plan, ThingId};
use crate::power::Power;
use crate::ready::Parked;

pub use field::{Area, Field, FieldOf};
pub use labels::Naming;
pub use reach::{LightSheet, LightSheets};
pub use view::{Drawing, Ink, LetterDisc, Projection, Stroke, View, Word};
pub use voice::SoundSheets;

/// Height of words on plan and side view, in parts of the room's longest side.
const TEXT: f64 = 0.030;
/// Height of words on a screen, px.
const WORDS_PX: f64 = 12.5;
/// Height of words in the frame, in parts of its longer side.
const FRAME_TEXT: f64 = 0.027;

/// How to draw.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Style {
    /// Size of the words on plan and side view, in parts of the usual.
    pub text_scale: f64,
    /// Size of the words in the frame, in parts of the usual.
    pub frame_text_scale: f64,
    /// Quarter turns of the plan, so that it does not turn under a hand that drags the camera; else those that suit
    /// the camera.
    pub quarter_turns: Option<u8>,
    /// The screen that plan and side view share, which then decides the size of their words.
    pub screen: Option<Screen>,
    /// How things are told apart on plan and side view.
    pub naming: Naming,
}

/// Pixels that plan and side view may take, one above the other at one scale.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Screen {
    /// Across.
    pub width_px: f64,
    /// Both heights together.
    pub height_px: f64,
}

impl Screen {
    /// Height of words, m: as high on the screen as they are read well.
    fn text_m(self, plan: [f64; 4], side: [f64; 4]) -> f64 {
        let [width, high] = [0, 1].map(|axis| [plan, side].map(|bounds| bounds[axis + 2] - bounds[axis]));
        let scale = (self.width_px / width[0].max(width[1])).min(self.height_px / (high[0] + high[1]));
        WORDS_PX / scale
    }
}

impl Default for Style {
    fn default() -> Self {
        Self {
            text_scale: 1.0,
            frame_text_scale: 1.0,
            quarter_turns: None,
            screen: None,
            naming: Naming::Letters,
        }
    }
}

/// Draws a plan as usual. `None` where it does not resolve.
pub fn draw(plan: &Plan) -> Option<Drawing> {
    draw_for(plan, Style::default())
}

/// Draws a plan for a page or a screen of some size.
pub fn draw_for(plan: &Plan, style: Style) -> Option<Drawing> {
    let corner = Corner::of(plan)?;
    let all = things(&corner);
    let quarter_turns = style.quarter_turns.unwrap_or_else(|| plan_view::quarter_turns(&corner));
    let [width, depth, _] = corner.room_m;
    let (plan, side) = (plan_view::draw(&corner, &all, quarter_turns), side::draw(&corner, &all));
    let text_m = match style.screen {
        Some(screen) => screen.text_m(plan.bounds, side.bounds),
        None => TEXT * style.text_scale * width.max(depth),
    };
    Some(Drawing {
        plan: plan.labelled(text_m, style.naming),
        side: side.labelled(text_m, style.naming),
        frame: frame::draw(&corner, &all, FRAME_TEXT * style.frame_text_scale),
        quarter_turns,
    })
}

/// The floor with every stand in use and put away, and the cables of the mains.
pub fn draw_away(corner: &Corner<'_>, parked: &[Parked], power: &Power, text_scale: f64) -> View {
    let quarter_turns = plan_view::quarter_turns(corner);
    let [width, depth, _] = corner.room_m;
    let bare = away::draw(corner, &things(corner), (parked, power), quarter_turns);
    bare.labelled(TEXT * text_scale * width.max(depth), Naming::Letters)
}

/// How far each lamp reaches, how large it is from the eyes, and the edge that it must stay out of, to lay over plan and
/// side view of the same plan, beside what is written there; less finely while a hand drags. `None` where the plan does not resolve.
pub fn draw_light(plan: &Plan, drawing: &Drawing, finely: bool) -> Option<LightSheets> {
    Some(reach::draw(&Corner::of(plan)?, drawing, finely))
}

/// What a trade computes at every place, to lay under plan and side view of the same plan; less finely while a hand drags.
/// `None` where the plan does not resolve.
pub fn draw_field(plan: &Plan, drawing: &Drawing, of: FieldOf, finely: bool) -> Option<Field> {
    Some(field::draw(&Corner::of(plan)?, drawing, of, finely))
}

/// The ways of the voice, to lay over plan and side view of the same plan. `None` where the plan does not resolve.
pub fn draw_sound(plan: &Plan, drawing: &Drawing) -> Option<SoundSheets> {
    Some(voice::draw(&Corner::of(plan)?, drawing))
}

/// What a second angle sees: room and furniture, and the person where it does not look down on a bench.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AngleSeen {
    /// Its id in the layout.
    pub id: String,
    /// What it sees; 1 = the picture's height.
    pub view: View,
}

/// The pictures of all second angles of a plan.
pub fn draw_angles(plan: &Plan, text_scale: f64) -> Vec<AngleSeen> {
    let Some(corner) = Corner::of(plan) else { return Vec::new() };
    let all = things(&corner);
    let seen = |angle: &crate::corner::AngleAt<'_>| {
        let own = ThingId::Angle(angle.id.clone());
        let mut other = corner.clone();
        other.view = angle.view;
        let others: Vec<Thing> = all.iter().filter(|thing| thing.id != own).cloned().collect();
        let view = frame::draw_other(&other, &others, angle.is_overhead(), FRAME_TEXT * text_scale);
        AngleSeen { id: corner.name(&own), view }
    };
    corner.angles.iter().map(seen).collect()
}
