//! A corner as drawings: plan, side view and frame, as shapes in metres (the frame in parts of the picture).
//! Shapes carry what they are, not how they look; paper and page style them.

mod frame;
mod labels;
mod plan_view;
mod reach;
mod side;
mod voice;

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::{Corner, Kind, Thing, What, things};
use crate::geometry::{DVec2, DVec3, hull};
use crate::plan::{Plan, Point3, ThingId};

use labels::Label;
use labels::MARK_RADIUS;
pub use labels::{Mark, Word};
pub use reach::{LightSheet, LightSheets};
pub use voice::SoundSheets;

/// Height of words on plan and side view, in parts of the room's longest side.
const TEXT: f64 = 0.030;
/// Height of words in the frame, in parts of its longer side.
const FRAME_TEXT: f64 = 0.027;

/// What a shape is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Ink {
    Wall,
    Floor,
    Window,
    Door,
    Swing,
    Overhead,
    Furniture,
    Person,
    Head,
    Camera,
    Light,
    Board,
    Microphone,
    Screen,
    Backdrop,
    Stand,
    Feet,
    Arm,
    Field,
    Sharp,
    Axis,
    Aim,
    Isolux,
    Cone,
    KeepOut,
    Treatment,
    Voice,
    Echo,
    Critical,
    Intruder,
    Guide,
    Centre,
    SafeArea,
    VerticalCut,
    HeadroomBand,
    EyeLine,
    Headroom,
}

/// One line or outline.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Stroke {
    /// What it is.
    pub ink: Ink,
    /// Id of the thing it belongs to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub thing: Option<String>,
    /// Closed outline or open line.
    pub closed: bool,
    /// Points: x to the right, y downwards.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub points: Vec<[f64; 2]>,
}

/// How a drawing stands in the room: x = right . (p - origin), y = down . (p - origin), in metres.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Projection {
    /// A point of the room at the drawing's (0, 0).
    pub origin_m: Point3,
    /// Unit vector along the drawing's x.
    pub right: Point3,
    /// Unit vector along the drawing's y.
    pub down: Point3,
}

/// One drawing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct View {
    /// Left, top, right, bottom.
    #[schema(value_type = Vec<f64>)]
    pub bounds: [f64; 4],
    /// How to come from the drawing back into the room; none for the frame, which has depth.
    pub projection: Option<Projection>,
    /// Shapes, from back to front.
    pub strokes: Vec<Stroke>,
    /// Height of the words, in the drawing's units.
    pub text_size: f64,
    /// Radius of the discs that hold the letters.
    pub mark_radius: f64,
    /// Lettered marks.
    pub marks: Vec<Mark>,
    /// Words.
    pub words: Vec<Word>,
}

impl View {
    /// A view with its labels put where they cover least.
    fn labelled(bounds: [f64; 4], strokes: Vec<Stroke>, labels: &[Label], text_size: f64) -> Self {
        let (marks, words) = labels::place(labels, &strokes, bounds, text_size);
        Self {
            bounds,
            projection: None,
            strokes,
            text_size,
            mark_radius: MARK_RADIUS * text_size,
            marks,
            words,
        }
    }
}

/// Plan, side view and frame of one corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Drawing {
    /// From above, turned so that the lens axis runs nearest to horizontal.
    pub plan: View,
    /// Section along the lens axis, at the same scale, seen so that the axis runs as in the plan.
    pub side: View,
    /// What the lens sees; 1 = the picture's height.
    pub frame: View,
    /// Quarter turns of the plan, counter-clockwise.
    pub quarter_turns: u8,
}

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
}

impl Default for Style {
    fn default() -> Self {
        Self { text_scale: 1.0, frame_text_scale: 1.0, quarter_turns: None }
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
    let text_m = TEXT * style.text_scale * width.max(depth);
    Some(Drawing {
        plan: plan_view::draw(&corner, &all, quarter_turns, text_m),
        side: side::draw(&corner, &all, text_m),
        frame: frame::draw(&corner, &all, FRAME_TEXT * style.frame_text_scale),
        quarter_turns,
    })
}

fn stroke(ink: Ink, thing: Option<&str>, closed: bool, points: Vec<DVec2>) -> Stroke {
    // A tenth of a millimetre is finer than any pen; shorter numbers keep answers small.
    let short = |v: f64| (v * 10_000.0).round() / 10_000.0;
    let points = points.into_iter().map(|p| [short(p.x), short(p.y)]).collect();
    Stroke { ink, thing: thing.map(str::to_owned), closed, points }
}

/// How far each lamp reaches, how large it is from the eyes, and the edge that it must stay out of, to lay over plan and
/// side view of the same plan, beside what is written there; less finely while a hand drags. `None` where the plan does not resolve.
pub fn draw_light(plan: &Plan, drawing: &Drawing, finely: bool) -> Option<LightSheets> {
    Some(reach::draw(&Corner::of(plan)?, drawing, finely))
}

/// How far what hangs on a wall is drawn to stand out, m.
const HUNG_M: f64 = 0.06;

/// What hangs or lies against the echo, where `shows` says that its surface is seen from the edge or from above.
fn treatments(
    corner: &Corner<'_>,
    flat: impl Fn(DVec3) -> DVec2,
    shows: impl Fn(DVec3) -> bool,
    strokes: &mut Vec<Stroke>,
) {
    for (id, one) in &corner.layout.treatment {
        let gear = corner.brief.gear.get(&one.gear).and_then(|gear| gear.treatment());
        let (Some(gear), Some(plane)) = (gear, corner.brief.room.surface(&one.on.0)) else { continue };
        if !shows(plane.normal) {
            continue;
        }
        let size = one.size_m(gear);
        let (along, up) = (plane.axes[0] * (size[0] / 2.0), plane.axes[1] * (size[1] / 2.0));
        let corners: Vec<DVec2> = [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)]
            .into_iter()
            .flat_map(|(x, y)| {
                let back = DVec3::from(one.position_m) + along * x + up * y;
                [back, back + plane.normal * HUNG_M]
            })
            .map(&flat)
            .collect();
        let overhead = plane.normal.z < -0.5;
        let ink = if overhead { Ink::Overhead } else { Ink::Treatment };
        let name = corner.name(&ThingId::Treatment(id.clone()));
        strokes.push(stroke(ink, Some(&name), true, hull(&corners)));
    }
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

/// How a piece of a thing is drawn.
fn ink_of(corner: &Corner<'_>, thing: &Thing, what: What) -> Ink {
    match what {
        What::Feet => Ink::Feet,
        What::Column => Ink::Stand,
        What::Boom => Ink::Arm,
        What::Head if thing.kind == Kind::Person => Ink::Head,
        // The body of a board is its frame, drawn as a lamp's body is.
        What::Body if thing.kind == Kind::Light => Ink::Light,
        What::Head
        | What::Body
        | What::Torso
        | What::Legs
        | What::Chair
        | What::Top
        | What::Leg
        | What::Sheet => labels::ink_of(corner, &thing.id),
    }
}

fn bounds_of(strokes: &[Stroke], margin: f64) -> [f64; 4] {
    let mut bounds = [f64::INFINITY, f64::INFINITY, f64::NEG_INFINITY, f64::NEG_INFINITY];
    for [x, y] in strokes.iter().flat_map(|s| &s.points) {
        bounds = [bounds[0].min(*x), bounds[1].min(*y), bounds[2].max(*x), bounds[3].max(*y)];
    }
    [bounds[0] - margin, bounds[1] - margin, bounds[2] + margin, bounds[3] + margin]
}
