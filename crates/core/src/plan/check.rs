//! What a schema cannot say: sizes that contradict each other, and ids that name nothing.

pub(crate) mod gear;
mod refusals;
mod room;
mod uses;

use super::run::bad_pattern;
use super::{Brief, Layout, WALL_NAMES};
use crate::problem::{Code, Problem, Problems};
use crate::reading::{Measurable, Quantity};
use refusals::{no_material, unknown};
use uses::Uses;

pub use uses::OUTSIDE_M;

/// Checks a brief, and a layout made for it.
pub(super) fn plan(brief: &Brief, layout: Option<&Layout>) -> Result<(), Problems> {
    let mut found = Vec::new();
    room::room(brief, &mut found);
    gear::gear(brief, &mut found);
    if let Some(id) = &brief.person.seat_at
        && !brief.room.furniture.contains_key(id)
    {
        found.push(unknown(
            "brief.person.seat_at",
            id,
            "the id of a piece of furniture in brief.room.furniture",
        ));
    }
    for name in brief.room.surfaces.keys() {
        let walls = &WALL_NAMES[..brief.room.floor_m.len().min(WALL_NAMES.len())];
        if !walls.contains(&name.0.as_str()) && !matches!(name.0.as_str(), "floor" | "ceiling") {
            let accepted = format!("wall-0 to wall-{}, floor or ceiling", walls.len().saturating_sub(1));
            found.push(unknown("brief.room.surfaces", name, &accepted));
        }
    }
    for (name, surface) in &brief.room.surfaces {
        for (field, row) in [("material", &surface.material), ("cover_material", &surface.cover_material)] {
            let field = format!("brief.room.surfaces.{name}.{field}");
            found.extend(row.as_ref().and_then(|row| no_material(field, row)));
        }
    }
    if let Some(today) = &brief.today {
        let mut uses = Uses { brief, at: "brief.today", found: &mut found };
        today.parts().for_each(|part| uses.part(part));
    }
    if let Some(layout) = layout {
        let mut uses = Uses { brief, at: "layout", found: &mut found };
        layout.parts().for_each(|part| uses.part(part));
    }
    place(brief, &mut found);
    if let Some(pattern) = &brief.run.file_pattern {
        found.extend(bad_pattern(pattern));
    }
    measured(brief, &mut found);
    if found.is_empty() { Ok(()) } else { Err(Problems(found)) }
}

/// The time zone is one that there is.
fn place(brief: &Brief, found: &mut Vec<Problem>) {
    if let Some(place) = brief.place.as_ref().filter(|place| place.zone().is_none()) {
        let accepted = "the name of a time zone, as Europe/Madrid or America/Bogota";
        let field = "brief.place.time_zone";
        found.push(Problem::new(field, &place.time_zone, accepted, Code::UnknownName));
    }
}

/// A measured value is one that somebody can measure, and makes sense.
fn measured(brief: &Brief, found: &mut Vec<Problem>) {
    if let Some(clap) = &brief.clap {
        if let Some(Measurable { range: (low, high), .. }) = Quantity::SoundRoomRtMidS.measurable()
            && !(low..=high).contains(&clap.rt_mid_s)
        {
            let accepted = format!("{low} to {high}");
            found.push(Problem::new("brief.clap.rt_mid_s", clap.rt_mid_s, accepted, Code::OutOfRange));
        }
        let mut uses = Uses { brief, at: "brief.clap", found };
        clap.treatment.iter().for_each(|(id, hung)| uses.part(super::Part::Treatment(id, hung)));
    }
    for (id, value) in &brief.measured {
        let field = format!("brief.measured.{id}");
        let Some(quantity) = Quantity::of_id(&id.0) else {
            let accepted = "the id of a reading, as sound.room.rt_mid_s";
            found.push(Problem::new("brief.measured", id, accepted, Code::UnknownId));
            continue;
        };
        let Some(Measurable { range: (low, high), .. }) = quantity.measurable() else {
            let all = Quantity::ALL.iter().filter(|quantity| quantity.measurable().is_some());
            let names: Vec<&str> = all.map(|quantity| quantity.id()).collect();
            let accepted = format!("a reading that can be measured: {}", names.join(", "));
            found.push(Problem::new("brief.measured", id, accepted, Code::UnknownId));
            continue;
        };
        if !(low..=high).contains(value) {
            found.push(Problem::new(field, value, format!("{low} to {high}"), Code::OutOfRange));
        }
    }
}
