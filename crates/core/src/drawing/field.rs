//! What a trade computes at every place, as areas to lay under plan and side view: the light against the face, the voice
//! against the room, what is sharp.

use contour::ContourBuilder;
use serde::Serialize;
use utoipa::ToSchema;

use super::plan_view::turned;
use super::view::Drawing;
use crate::corner::{Corner, Source};
use crate::geometry::{
    DVec2, DVec3, angle_between_deg, bearing_vector, distance_to_edge, inside, whole_steps,
};
use crate::light::cloth;
use crate::shot::lens::{circle_of_confusion_mm, depth_of_field};
use crate::sound::absorption::Absorption;
use crate::sound::pickup::{MicrophonePlaced, pickup};

/// Values are looked up every so often, m; while a hand drags less often.
const STEP_M: f64 = 0.08;
const LIVE_STEP_M: f64 = 0.16;
/// Stops against the face, half a stop apart.
const LIGHT_STOPS: [f64; 13] = [-4.0, -3.5, -3.0, -2.5, -2.0, -1.5, -1.0, -0.5, 0.0, 0.5, 1.0, 1.5, 2.0];
/// Voice over room, dB.
const VOICE_DB: [f64; 7] = [0.0, 2.0, 4.0, 6.0, 9.0, 12.0, 18.0];
/// Blur in parts of what still looks sharp.
const BLUR_TIMES: [f64; 4] = [4.0, 2.0, 1.4, 1.0];
/// Nearer to the mouth than this nothing more is told, m.
const NEAREST_M: f64 = 0.05;

/// Which field.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FieldOf {
    /// Light of all lamps against what they give the face, on surfaces that face each, nothing standing between; stops.
    Light,
    /// Voice straight against voice by way of the room, in the microphone that hears it, aimed at the mouth; dB.
    Sound,
    /// Blur against what still looks sharp; times.
    Shot,
}

/// Where a value is reached or passed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Area {
    /// The value.
    pub level: f64,
    /// Outlines, holes among them: what lies in an odd number of them is meant.
    #[schema(value_type = Vec<Vec<Vec<f64>>>)]
    pub rings: Vec<Vec<[f64; 2]>>,
}

/// Areas over both drawings, in their coordinates, each within the one before. They reach beyond the walls.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Field {
    /// Over the plan: at the height of the eyes or the mouth.
    pub plan: Vec<Area>,
    /// Over the side view: in the plane of the lens axis.
    pub side: Vec<Area>,
}

/// A flat cut through the room: the box that is looked at, the way from it into the room and into the drawing.
pub(super) struct Cut<'a> {
    pub(super) low: DVec2,
    pub(super) high: DVec2,
    pub(super) step_m: f64,
    pub(super) room: Box<dyn Fn(DVec2) -> DVec3 + 'a>,
    pub(super) sheet: Box<dyn Fn(DVec2) -> DVec2 + 'a>,
    pub(super) within: Box<dyn Fn(DVec2) -> bool + 'a>,
}

/// The cuts behind plan and side view; the plan's at a height.
pub(super) fn cuts<'a>(corner: &'a Corner<'a>, turns: u8, height_m: f64, finely: bool) -> [Cut<'a>; 2] {
    let step_m = if finely { STEP_M } else { LIVE_STEP_M };
    let (eyes, along) = (corner.eyes_m, corner.to_lens());
    let [width, depth, height] = corner.room_m;
    let behind = -distance_to_edge(&corner.floor_m, eyes.truncate(), -along.truncate());
    let ahead = distance_to_edge(&corner.floor_m, eyes.truncate(), along.truncate());
    let plan = Cut {
        low: DVec2::ZERO,
        high: DVec2::new(width, depth),
        step_m,
        room: Box::new(move |p| p.extend(height_m)),
        sheet: Box::new(move |p| turned(p, turns)),
        within: Box::new(|p| inside(&corner.floor_m, p, 0.0)),
    };
    let side = Cut {
        low: DVec2::new(behind, 0.0),
        high: DVec2::new(ahead, height),
        step_m,
        room: Box::new(move |p| (eyes + along * p.x).with_z(p.y)),
        sheet: Box::new(|p| DVec2::new(p.x, -p.y)),
        within: Box::new(move |p| {
            let at = eyes + along * p.x;
            p.y > 0.0 && p.y < corner.brief.room.ceiling_m(at.truncate()) && p.x > behind && p.x < ahead
        }),
    };
    [plan, side]
}

impl Cut<'_> {
    /// A value over the box, row by row, and what turns it into lines.
    pub(super) fn values(&self, value: impl Fn(DVec3) -> f64) -> (Vec<f64>, ContourBuilder) {
        let size = self.high - self.low;
        let (columns, rows) = (whole_steps(size.x, self.step_m) + 2, whole_steps(size.y, self.step_m) + 2);
        let at = |column: usize, row: usize| self.low + DVec2::new(column as f64, row as f64) * self.step_m;
        let values = (0..rows)
            .flat_map(|row| (0..columns).map(move |column| (column, row)))
            .map(|(column, row)| value((self.room)(at(column, row))))
            .collect();
        let builder = ContourBuilder::new(columns, rows, true)
            // It counts a value as the middle of its cell.
            .x_origin(self.low.x - self.step_m / 2.0)
            .y_origin(self.low.y - self.step_m / 2.0)
            .x_step(self.step_m)
            .y_step(self.step_m);
        (values, builder)
    }

    fn areas(&self, levels: &[f64], value: impl Fn(DVec3) -> f64) -> Vec<Area> {
        let (values, builder) = self.values(value);
        let Ok(found) = builder.contours(&values, levels) else { return Vec::new() };
        let sheet = |[x, y]: [f64; 2]| short((self.sheet)(DVec2::new(x, y)));
        found
            .iter()
            .map(|area| {
                let polygons = area.geometry().0.iter();
                let rings = polygons.flat_map(|one| std::iter::once(one.exterior()).chain(one.interiors()));
                let rings = rings.map(|ring| ring.coords().map(|at| sheet([at.x, at.y])).collect());
                Area { level: area.threshold(), rings: rings.collect() }
            })
            .filter(|area| !area.rings.is_empty())
            .collect()
    }
}

/// To the millimetre: finer than a screen shows.
fn short(at: DVec2) -> [f64; 2] {
    ((at * 1000.0).round() / 1000.0).to_array()
}

pub(super) fn draw(corner: &Corner<'_>, drawing: &Drawing, of: FieldOf, finely: bool) -> Field {
    match of {
        FieldOf::Light => light(corner, drawing.quarter_turns, finely),
        FieldOf::Sound => sound(corner, drawing.quarter_turns, finely),
        FieldOf::Shot => shot(corner, drawing.quarter_turns),
    }
}

fn light(corner: &Corner<'_>, turns: u8, finely: bool) -> Field {
    let lamps = corner.lights.iter().filter(|light| matches!(light.source, Source::Lamp(_)));
    let faces: Vec<_> = lamps.map(cloth::whole).collect();
    let lux = |at: DVec3| -> f64 {
        faces.iter().map(|face| face.illuminance_lx(at, (face.middle - at).normalize_or_zero())).sum()
    };
    let reference = lux(corner.eyes_m);
    if reference <= 0.0 {
        return Field::default();
    }
    let stops = |at: DVec3| (lux(at) / reference).log2().max(-12.0);
    let [plan, side] = cuts(corner, turns, corner.eyes_m.z, finely).map(|cut| cut.areas(&LIGHT_STOPS, stops));
    Field { plan, side }
}

fn sound(corner: &Corner<'_>, turns: u8, finely: bool) -> Field {
    let (scene, at) = crate::sound::scene(corner, &Absorption::of(corner));
    let mouth = corner.mouth_m;
    let ahead = bearing_vector(corner.layout.seat.bearing_deg);
    let over_room = |place: DVec3| {
        let off = place - mouth;
        let distance_m = off.length().max(NEAREST_M);
        let off_axis_deg = angle_between_deg(ahead, off);
        let got = pickup(&scene, &MicrophonePlaced { distance_m, off_axis_deg, voice_gain_db: 0.0, ..at });
        got.direct_dba - got.reverberant_dba
    };
    let [plan, side] = cuts(corner, turns, mouth.z, finely).map(|cut| cut.areas(&VOICE_DB, over_room));
    Field { plan, side }
}

/// Depths along the lens axis within which the blur is at most so many times what still looks sharp.
fn shot(corner: &Corner<'_>, turns: u8) -> Field {
    let (view, camera) = (&corner.view, &corner.layout.camera);
    let (along, eyes) = (corner.to_lens(), corner.eyes_m);
    let far_m = corner.room_m[0] + corner.room_m[1];
    let upright = |p: DVec3| DVec2::new(along.dot(p - eyes), -p.z);
    let at = |depth: f64, side: f64, up: f64| {
        view.position_m
            + view.forward * depth
            + view.right * (side * depth * view.width_ratio / 2.0)
            + view.up * (up * depth * view.height_ratio / 2.0)
    };
    let mut field = Field::default();
    for level in BLUR_TIMES {
        let blur_mm = level * circle_of_confusion_mm(corner.image_mm);
        let sharp = depth_of_field(camera.focal_length_mm, camera.f_number, camera.focus_distance_m, blur_mm);
        let (near, far) = (sharp.near_m, sharp.far_m.unwrap_or(far_m).min(far_m));
        let flat = [at(near, -1.0, 0.0), at(near, 1.0, 0.0), at(far, 1.0, 0.0), at(far, -1.0, 0.0)];
        let tall = [at(near, 0.0, -1.0), at(near, 0.0, 1.0), at(far, 0.0, 1.0), at(far, 0.0, -1.0)];
        let plan = flat.map(|p| short(turned(p.truncate(), turns))).to_vec();
        field.plan.push(Area { level, rings: vec![plan] });
        field.side.push(Area { level, rings: vec![tall.map(|p| short(upright(p))).to_vec()] });
    }
    field
}
