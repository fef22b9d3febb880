//! Plan and side view at 1 : 1 in millimetres as a drawing exchange file, each kind of line in a layer of its own, by the crate `dxf`.

use dxf::entities::{Entity, EntityType, LwPolyline, Text};
use dxf::enums::{AcadVersion, Units};
use dxf::tables::Layer;
use dxf::{Drawing, LwPolylineVertex, Point};
use fogon_core::card::Card;
use fogon_core::drawing::View;
use fogon_core::problem::{Code, Problem};
use uuid::Uuid;

use crate::life_size::layers;
use crate::svg::size;

const MM: f64 = 1000.0;
/// Between plan and side view, mm.
const APART_MM: f64 = 500.0;

/// Both views in one file: the plan above, the side view under it, both with y upwards.
///
/// # Errors
/// A drawing that cannot be written; none is known.
pub fn drawing(card: &Card) -> Result<Vec<u8>, Problem> {
    let mut drawing = Drawing::new();
    // Polylines and the unit need this version; times and ids would make each file another.
    drawing.header.version = AcadVersion::R2000;
    drawing.header.default_drawing_units = Units::Millimeters;
    let epoch = chrono::DateTime::UNIX_EPOCH;
    drawing.header.creation_date = epoch.into();
    drawing.header.creation_date_universal = epoch;
    drawing.header.update_date = epoch.into();
    drawing.header.update_date_universal = epoch;
    drawing.header.fingerprint_guid = Uuid::nil();
    drawing.header.version_guid = Uuid::nil();
    let side_down = size(&card.drawing.plan).1 * MM + APART_MM;
    add(&mut drawing, "plan", &card.drawing.plan, 0.0);
    add(&mut drawing, "side", &card.drawing.side, side_down);
    let mut bytes = Vec::new();
    drawing
        .save(&mut bytes)
        .map_err(|error| Problem::new("dxf", error, "a drawing that can be written", Code::OutOfRange))?;
    Ok(bytes)
}

fn add(drawing: &mut Drawing, of: &str, view: &View, down_mm: f64) {
    let [left, top, ..] = view.bounds;
    let x = |x: f64| (x - left) * MM;
    let y = |y: f64| -((y - top) * MM + down_mm);
    for (name, strokes) in layers(view) {
        let layer = format!("{of}-{name}");
        drawing.add_layer(Layer { name: layer.clone(), ..Layer::default() });
        for stroke in strokes {
            let vertices = stroke
                .points
                .iter()
                .map(|point| LwPolylineVertex {
                    x: x(point[0]),
                    y: y(point[1]),
                    ..LwPolylineVertex::default()
                })
                .collect();
            let mut line = LwPolyline { vertices, ..LwPolyline::default() };
            line.set_is_closed(stroke.closed);
            entity(drawing, &layer, EntityType::LwPolyline(line));
        }
    }
    let layer = format!("{of}-words");
    drawing.add_layer(Layer { name: layer.clone(), ..Layer::default() });
    let words = view.words.iter().map(|word| (word.at, word.text.as_str()));
    for (at, value) in words.chain(view.marks.iter().map(|mark| (mark.at, mark.letter))) {
        let text = Text {
            location: Point::new(x(at[0]), y(at[1]), 0.0),
            text_height: view.text_size * MM,
            value: value.chars().map(|letter| if letter.is_control() { ' ' } else { letter }).collect(),
            ..Text::default()
        };
        entity(drawing, &layer, EntityType::Text(text));
    }
}

fn entity(drawing: &mut Drawing, layer: &str, specific: EntityType) {
    let mut entity = Entity::new(specific);
    entity.common.layer = layer.to_owned();
    drawing.add_entity(entity);
}
