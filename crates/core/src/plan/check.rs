//! What a schema cannot say: sizes that contradict each other, and ids that name nothing.

use super::{Brief, Furniture, Gear, GearLight, Id, Layout, Room, Shape, Support, SupportKind, WALL_NAMES};
use crate::geometry::{DVec2, beyond_m, is_simple, signed_area_m2};
use crate::problem::{Code, Problem, Problems};

/// Two tape readings of one wall may differ by this much, m.
const TAPE_M: f64 = 0.001;
/// Walls shorter than this are no walls, m.
const WALL_LEAST_M: f64 = 0.05;

/// Checks a brief, and a layout made for it.
pub(super) fn plan(brief: &Brief, layout: Option<&Layout>) -> Result<(), Problems> {
    let mut found = Vec::new();
    room(brief, &mut found);
    gear(brief, &mut found);
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
        uses.all(
            today.camera.as_ref(),
            today.lights.as_ref(),
            today.microphone.as_ref(),
            today.furniture.as_ref(),
        );
        uses.background(today.screen.as_ref(), today.backdrop.as_ref());
        for (id, treatment) in today.treatment.iter().flatten() {
            uses.treatment(&format!("treatment.{id}"), treatment);
        }
    }
    if let Some(layout) = layout {
        let mut uses = Uses { brief, at: "layout", found: &mut found };
        uses.all(
            Some(&layout.camera),
            Some(&layout.lights),
            layout.microphone.as_ref(),
            Some(&layout.furniture),
        );
        for (id, angle) in &layout.angles {
            uses.gear(&format!("angles.{id}.body"), &angle.body, "a camera", |g| g.camera().is_some());
            uses.gear(&format!("angles.{id}.lens"), &angle.lens, "a lens", |g| g.lens().is_some());
            uses.mounts(&format!("angles.{id}.lens"), &angle.body, &angle.lens);
            uses.support(&format!("angles.{id}.support"), &angle.support);
        }
        uses.background(layout.screen.as_ref(), layout.backdrop.as_ref());
        for (id, treatment) in &layout.treatment {
            uses.treatment(&format!("treatment.{id}"), treatment);
        }
    }
    for (id, value) in &brief.measured {
        if !crate::reading::is_known(&id.0) {
            found.push(unknown(
                "brief.measured",
                &Id(id.0.clone()),
                "the id of a reading, as sound.room.rt_mid_s",
            ));
        } else if !(-1e6..=1e6).contains(value) {
            found.push(Problem::new(
                format!("brief.measured.{id}"),
                value,
                "-1000000 to 1000000",
                Code::OutOfRange,
            ));
        } else if let Some((low, high)) = crate::reading::measured_range(&id.0)
            && !(low..=high).contains(value)
        {
            found.push(Problem::new(
                format!("brief.measured.{id}"),
                value,
                format!("{low} to {high}"),
                Code::OutOfRange,
            ));
        }
    }
    if found.is_empty() { Ok(()) } else { Err(Problems(found)) }
}

fn unknown(field: &str, id: &Id, accepted: &str) -> Problem {
    Problem::new(field, id, accepted, Code::UnknownId)
}

/// What is wrong with the name of a row of the absorption table.
fn no_material(field: String, row: &str) -> Option<Problem> {
    let known = crate::material::material(row).is_some();
    (!known).then(|| Problem::new(field, row, crate::material::material_names(), Code::BadChoice))
}

fn conflict(field: String, value: f64, accepted: String) -> Problem {
    Problem::new(field, format!("{value} m"), accepted, Code::Conflict)
}

fn room(brief: &Brief, found: &mut Vec<Problem>) {
    let room = &brief.room;
    if let Err(problem) = floor(room) {
        found.push(problem);
        return;
    }
    let walls = room.floor_m.len();
    for (id, opening) in &room.openings {
        let field = format!("brief.room.openings.{id}");
        let Some(wall_m) = wall_length(room, opening.wall) else {
            found.push(no_wall(&field, opening.wall, walls));
            continue;
        };
        let left_m = wall_m - opening.from_m;
        if opening.width_m > left_m + TAPE_M {
            let accepted = if opening.width_m > wall_m {
                format!("at most the wall's {wall_m:.3} m")
            } else {
                format!("at most the {:.3} m left of the wall after from_m", left_m.max(0.0))
            };
            found.push(conflict(format!("{field}.width_m"), opening.width_m, accepted));
        }
        let sill_m = opening.sill_or_usual_m();
        let height_m = opening.height_or_usual_m();
        if sill_m + height_m > room.height_m + TAPE_M {
            let accepted = format!("at most {:.3} m, the ceiling less the sill", room.height_m - sill_m);
            found.push(conflict(format!("{field}.height_m"), height_m, accepted));
        }
    }
    for (id, slope) in &room.slopes {
        let field = format!("brief.room.slopes.{id}");
        let Some(wall_m) = wall_length(room, slope.wall) else {
            found.push(no_wall(&field, slope.wall, walls));
            continue;
        };
        let left_m = wall_m - slope.from_m;
        if left_m < TAPE_M || slope.length_m.is_some_and(|long| long > left_m + TAPE_M) {
            let accepted = format!("a part of the wall's {wall_m:.3} m");
            let (name, value) = match slope.length_m {
                Some(long) if left_m >= TAPE_M => ("length_m", long),
                _ => ("from_m", slope.from_m),
            };
            found.push(conflict(format!("{field}.{name}"), value, accepted));
        }
        if slope.knee_m > room.height_m - TAPE_M {
            let accepted = format!("less than the ceiling's {:.3} m", room.height_m);
            found.push(conflict(format!("{field}.knee_m"), slope.knee_m, accepted));
        }
    }
    for (id, beam) in &room.beams {
        let field = format!("brief.room.beams.{id}");
        if beam.length_m() < 0.02 {
            found.push(conflict(
                format!("{field}.to_m"),
                beam.length_m(),
                "a point 0.02 m or more from from_m".into(),
            ));
        }
        if beam.drop_m > room.height_m - TAPE_M {
            let accepted = format!("less than the ceiling's {:.3} m", room.height_m);
            found.push(conflict(format!("{field}.drop_m"), beam.drop_m, accepted));
        }
    }
    for (id, noise) in &room.noises {
        let Some(at) = noise.position_m else { continue };
        let field = format!("brief.room.noises.{id}.position_m");
        let out = beyond_m(&room.outline(), DVec2::new(at.0[0], at.0[1]));
        if out > 0.0 {
            let accepted = format!("a place {out:.3} m farther inside, clear of the walls");
            found.push(conflict(field, out, accepted));
        } else if !(0.0..=room.height_m).contains(&at.0[2]) {
            let accepted = format!("0 to {:.3} m, under the ceiling", room.height_m);
            found.push(conflict(format!("{field}[2]"), at.0[2], accepted));
        }
    }
    for (id, piece) in &room.furniture {
        furniture(&format!("brief.room.furniture.{id}"), piece, room, found);
    }
}

/// The outline must be one that a tape can go round.
fn floor(room: &Room) -> Result<(), Problem> {
    let outline = room.outline();
    let refused = |value: String, accepted: &str, code: Code| {
        Err(Problem::new("brief.room.floor_m", value, accepted, code))
    };
    let least = outline.iter().copied().fold(DVec2::INFINITY, DVec2::min);
    let [width, depth, _] = room.dimensions_m();
    for (name, side) in [("width", width), ("depth", depth)] {
        if !(0.5..=50.0).contains(&side) {
            return refused(format!("a {name} of {side} m"), "0.5 to 50 m", Code::OutOfRange);
        }
    }
    if least.x.abs() > TAPE_M || least.y.abs() > TAPE_M {
        let value = format!("corners from x = {} m, y = {} m on", least.x, least.y);
        return refused(
            value,
            "corners of which the leftmost has x = 0 and the backmost y = 0",
            Code::Conflict,
        );
    }
    for wall in 0..outline.len() {
        let long = wall_length(room, wall as u8).unwrap_or(0.0);
        if long < WALL_LEAST_M {
            let value = format!("{} of {long} m", room.wall_name(wall));
            return refused(value, "walls of 0.05 m or more", Code::Conflict);
        }
    }
    if !is_simple(&outline) {
        return refused(
            "walls that cross or touch".into(),
            "corners in the order of a walk round the room",
            Code::Conflict,
        );
    }
    if signed_area_m2(&outline) <= 0.0 {
        let accepted =
            "corners counter-clockwise seen from above: back-left, back-right, front-right, front-left";
        return refused("corners given clockwise".into(), accepted, Code::Conflict);
    }
    Ok(())
}

fn wall_length(room: &Room, wall: u8) -> Option<f64> {
    room.wall_m(usize::from(wall)).map(|(start, end)| (end - start).length())
}

fn no_wall(field: &str, wall: u8, walls: usize) -> Problem {
    Problem::new(
        format!("{field}.wall"),
        wall,
        format!("0 to {}, one of the room's {walls} walls", walls.saturating_sub(1)),
        Code::UnknownId,
    )
}

fn furniture(field: &str, piece: &Furniture, room: &Room, found: &mut Vec<Problem>) {
    let [width, depth, height] = piece.size_m.0;
    let [room_width, room_depth, ceiling_m] = room.dimensions_m();
    let sides_m = [room_width, room_depth];
    let before = found.len();
    let (sin, cos) = piece.bearing_deg.to_radians().sin_cos();
    let reach = [(width * cos).abs() + (depth * sin).abs(), (width * sin).abs() + (depth * cos).abs()];
    for axis in 0..2 {
        let half = reach[axis] / 2.0;
        let at = piece.position_m.0[axis];
        if at - half < -0.01 || at + half > sides_m[axis] + 0.01 {
            let accepted = if 2.0 * half > sides_m[axis] {
                format!("a piece that fits the room's {:.3} m", sides_m[axis])
            } else {
                format!("{:.3} to {:.3} m, so that it stands inside the room", half, sides_m[axis] - half)
            };
            found.push(conflict(format!("{field}.position_m[{axis}]"), at, accepted));
        }
    }
    // In the box that holds the room, and in the room itself.
    if found.len() == before && !room.is_rectangle() {
        let outline = room.outline();
        let middle = DVec2::new(piece.position_m.0[0], piece.position_m.0[1]);
        let (right, front) = (DVec2::new(cos, -sin) * width / 2.0, DVec2::new(sin, cos) * depth / 2.0);
        let out = [right + front, right - front, -right + front, -right - front]
            .into_iter()
            .map(|corner| beyond_m(&outline, middle + corner))
            .fold(f64::NEG_INFINITY, f64::max);
        if out > 0.01 {
            let accepted = format!("a place {out:.3} m farther inside, clear of the walls");
            found.push(conflict(format!("{field}.position_m"), out, accepted));
        }
    }
    let foot = piece.position_m.0[2];
    if foot < 0.0 || foot + height > ceiling_m + TAPE_M {
        let accepted =
            format!("0 to {:.3} m, so that it stays under the ceiling", (ceiling_m - height).max(0.0));
        found.push(conflict(format!("{field}.position_m[2]"), foot, accepted));
    }
}

fn gear(brief: &Brief, found: &mut Vec<Problem>) {
    for (id, gear) in &brief.gear {
        let field = format!("brief.gear.{id}");
        let ordered = |low_name: &str, low: f64, high_name: &str, high: f64, found: &mut Vec<Problem>| {
            if low > high {
                let accepted = format!("at most {high_name}, {high}");
                found.push(Problem::new(format!("{field}.{low_name}"), low, accepted, Code::Conflict));
            }
        };
        match gear {
            Gear::Camera(g) => ordered("iso_min", g.iso_min, "iso_max", g.iso_max, found),
            Gear::Lens(g) => {
                ordered("focal_min_mm", g.focal_min_mm, "focal_max_mm", g.focal_max_mm, found);
                let widest = g.f_number_at_min.max(g.f_number_at_max);
                ordered("f_number_at_min", widest, "f_number_limit", g.f_number_limit, found);
            }
            Gear::Light(g) => {
                ordered("cct_min_k", g.cct_min_k, "cct_max_k", g.cct_max_k, found);
                lamp(&field, g, found);
                if g.shape == Shape::Ring && g.height_m >= g.width_m {
                    let accepted = "an inner diameter smaller than width_m";
                    found.push(Problem::new(
                        format!("{field}.height_m"),
                        g.height_m,
                        accepted,
                        Code::Conflict,
                    ));
                }
            }
            Gear::Treatment(g) => found.extend(no_material(format!("{field}.material"), &g.material)),
            Gear::Support(g) => {
                ordered("height_min_m", g.height_min_m, "height_max_m", g.height_max_m, found)
            }
            _ => {}
        }
        let common = gear.common();
        if common.resale > common.price {
            let accepted = format!("0 to the price, {}", common.price);
            found.push(Problem::new(format!("{field}.resale"), common.resale, accepted, Code::Conflict));
        }
    }
}

/// One figure at least tells how bright a lamp is; a measurement has its distance.
fn lamp(field: &str, lamp: &GearLight, found: &mut Vec<Problem>) {
    let missing = |name: &str, accepted: &str| {
        Problem::new(format!("{field}.{name}"), "nothing", accepted, Code::MissingField)
    };
    match (lamp.measured_lx, lamp.measured_at_m) {
        (Some(_), None) => found.push(missing("measured_at_m", "the distance of measured_lx, 0.1 to 20")),
        (None, Some(_)) => found.push(missing("measured_lx", "what was measured there, 1 to 1000000")),
        _ => {}
    }
    let figures = [
        lamp.measured_lx,
        lamp.illuminance_at_1m_lx,
        lamp.bare_at_1m_lx,
        lamp.flux_lm,
        lamp.common.power_w.filter(|watts| *watts > 0.0),
    ];
    if figures.iter().all(Option::is_none) {
        let accepted =
            "one of illuminance_at_1m_lx, bare_at_1m_lx, flux_lm, power_w, or measured_lx with measured_at_m";
        found.push(missing("illuminance_at_1m_lx", accepted));
    }
}

/// Every id that a layout uses must name a thing of the right kind.
struct Uses<'a> {
    brief: &'a Brief,
    at: &'a str,
    found: &'a mut Vec<Problem>,
}

impl Uses<'_> {
    fn all(
        &mut self,
        camera: Option<&super::Camera>,
        lights: Option<&super::Things<super::Light>>,
        microphone: Option<&super::Microphone>,
        furniture: Option<&super::Things<super::FurnitureAt>>,
    ) {
        if let Some(camera) = camera {
            self.gear("camera.body", &camera.body, "a camera", |g| g.camera().is_some());
            self.gear("camera.lens", &camera.lens, "a lens", |g| g.lens().is_some());
            self.mounts("camera.lens", &camera.body, &camera.lens);
            self.support("camera.support", &camera.support);
        }
        for (id, light) in lights.into_iter().flatten() {
            let lamp = |g: &Gear| g.light().is_some() || g.reflector().is_some();
            self.gear(&format!("lights.{id}.gear"), &light.gear, "a light or reflector", lamp);
            if let Some(cloth) = &light.cloth {
                let thin = |g: &Gear| g.reflector().is_some_and(|panel| panel.transmittance.is_some());
                self.gear(&format!("lights.{id}.cloth.gear"), &cloth.gear, "a panel that light passes", thin);
            }
            self.support(&format!("lights.{id}.support"), &light.support);
        }
        if let Some(microphone) = microphone {
            self.gear("microphone.gear", &microphone.gear, "a microphone", |g| g.microphone().is_some());
            self.support("microphone.support", &microphone.support);
        }
        for id in furniture.into_iter().flatten().map(|(id, _)| id) {
            self.furniture(&format!("furniture.{id}"), id);
        }
    }

    fn background(&mut self, screen: Option<&super::Screen>, backdrop: Option<&super::Backdrop>) {
        if let Some(backdrop) = backdrop {
            self.gear("backdrop.gear", &backdrop.gear, "a backdrop", |g| g.backdrop().is_some());
        }
        if let Some(screen) = screen {
            self.gear("screen.gear", &screen.gear, "a monitor", |g| g.monitor().is_some());
            self.support("screen.support", &screen.support);
        }
    }

    fn treatment(&mut self, field: &str, treatment: &super::Treatment) {
        let is_treatment = |g: &Gear| g.treatment().is_some();
        self.gear(&format!("{field}.gear"), &treatment.gear, "something against the echo", is_treatment);
        let room = &self.brief.room;
        let at = self.at;
        let Some(surface) = room.surface(&treatment.on.0) else {
            let walls = room.floor_m.len().saturating_sub(1);
            let accepted = format!("wall-0 to wall-{walls}, floor or ceiling");
            self.found.push(unknown(&format!("{at}.{field}.on"), &treatment.on, &accepted));
            return;
        };
        let Some(gear) = self.brief.gear.get(&treatment.gear).and_then(Gear::treatment) else { return };
        let off = surface.overhang_m(treatment.position_m.into(), treatment.size_m(gear));
        if off > 0.02 {
            let accepted = format!("a place on {}, {off:.2} m from there", treatment.on);
            self.found.push(conflict(format!("{at}.{field}.position_m"), off, accepted));
        }
    }

    fn gear(&mut self, field: &str, id: &Id, what: &str, fits: impl Fn(&Gear) -> bool) {
        if !self.brief.gear.get(id).is_some_and(fits) {
            let at = self.at;
            self.found.push(unknown(
                &format!("{at}.{field}"),
                id,
                &format!("the id of {what} in brief.gear"),
            ));
        }
    }

    /// A lens that is built into one body is used on no other, nor another lens on that body.
    fn mounts(&mut self, field: &str, body: &Id, lens: &Id) {
        let gear = &self.brief.gear;
        let Some(glass) = gear.get(lens).and_then(Gear::lens) else { return };
        if gear.get(body).and_then(Gear::camera).is_none() || self.brief.mounts(body, glass) {
            return;
        }
        let accepted = match &glass.built_into {
            Some(own) => format!("a lens that fits {body}; this one is built into {own}"),
            None => format!("a lens built into {body}, whose lens cannot be changed"),
        };
        self.found.push(Problem::new(format!("{}.{field}", self.at), lens, accepted, Code::Conflict));
    }

    fn furniture(&mut self, field: &str, id: &Id) {
        if !self.brief.room.furniture.contains_key(id) {
            let at = self.at;
            self.found.push(unknown(&format!("{at}.{field}"), id, "the id of a piece of furniture"));
        }
    }

    fn support(&mut self, field: &str, support: &Support) {
        if let Some(id) = &support.gear {
            self.gear(&format!("{field}.gear"), id, "a support", |g| g.support().is_some());
        }
        if let Some(id) = &support.on {
            self.furniture(&format!("{field}.on"), id);
        }
        if support.kind == SupportKind::Wall && support.base_m.is_none() {
            let at = format!("{}.{field}.base_m", self.at);
            let accepted = "the place on the wall where the arm is fixed, as [x, y]";
            self.found.push(Problem::new(at, "missing", accepted, Code::MissingField));
        }
    }
}
