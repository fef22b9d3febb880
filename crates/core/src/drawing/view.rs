//! A drawing as shapes, marks and words.

use serde::Serialize;
use utoipa::ToSchema;

use crate::geometry::DVec2;
use crate::plan::Point3;

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
    Detail,
    Person,
    Chair,
    Head,
    Camera,
    Light,
    LampFace,
    Board,
    Microphone,
    Screen,
    Backdrop,
    Stand,
    Feet,
    Leg,
    Arm,
    Field,
    Sharp,
    Axis,
    Aim,
    Isolux,
    Cone,
    KeepOut,
    Treatment,
    Parked,
    Cable,
    Voice,
    Echo,
    Intruder,
    Guide,
    Centre,
    SafeArea,
    VerticalCut,
    HeadroomBand,
    EyeLine,
    Headroom,
    CutOff,
    DeliveredEdge,
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
    pub marks: Vec<LetterDisc>,
    /// Words.
    pub words: Vec<Word>,
}

/// Plan, side view and frame of one corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Drawing {
    /// From above, turned so that the lens axis runs nearest to horizontal.
    pub plan: View,
    /// Section along the lens axis, at the same scale, seen so that the axis runs as in the plan.
    pub side: View,
    /// What the lens sees; 1 = the delivered picture's height. What is recorded round it and cut off lies outside 0 to 1.
    pub frame: View,
    /// Quarter turns of the plan, counter-clockwise.
    pub quarter_turns: u8,
}

/// A letter in a disc.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LetterDisc {
    /// The letter.
    pub letter: &'static str,
    /// Id of the thing it stands for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub thing: Option<String>,
    /// Middle of the disc.
    #[schema(value_type = Vec<f64>)]
    pub at: [f64; 2],
    /// What it belongs to.
    pub ink: Ink,
}

/// A word on the drawing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Word {
    /// The words.
    pub text: String,
    /// Left end of the baseline.
    #[schema(value_type = Vec<f64>)]
    pub at: [f64; 2],
    /// A thin line to what the word speaks of, where it stands away from it.
    #[schema(value_type = Option<Vec<Vec<f64>>>)]
    pub leader: Option<[[f64; 2]; 2]>,
}

/// Radius of a mark's disc in parts of the text size.
pub(super) const MARK_RADIUS: f64 = 0.72;

pub(super) fn stroke(ink: Ink, thing: Option<&str>, closed: bool, points: Vec<DVec2>) -> Stroke {
    // A tenth of a millimetre is finer than any pen; shorter numbers keep answers small.
    let short = |v: f64| (v * 10_000.0).round() / 10_000.0;
    let points = points.into_iter().map(|p| [short(p.x), short(p.y)]).collect();
    Stroke { ink, thing: thing.map(str::to_owned), closed, points }
}

pub(super) fn bounds_of(strokes: &[Stroke], margin: f64) -> [f64; 4] {
    let mut bounds = [f64::INFINITY, f64::INFINITY, f64::NEG_INFINITY, f64::NEG_INFINITY];
    for [x, y] in strokes.iter().flat_map(|s| &s.points) {
        bounds = [bounds[0].min(*x), bounds[1].min(*y), bounds[2].max(*x), bounds[3].max(*y)];
    }
    [bounds[0] - margin, bounds[1] - margin, bounds[2] + margin, bounds[3] + margin]
}
