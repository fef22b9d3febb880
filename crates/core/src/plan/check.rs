//! What a schema cannot say: sizes that contradict each other, and ids that name nothing.

use super::{Brief, Furniture, Gear, Id, Layout, Shape, Support};
use crate::geometry::{DVec2, signed_area_m2};
use crate::problem::{Code, Problem, Problems};

/// Two tape readings of one wall may differ by this much, m.
const TAPE_M: f64 = 0.001;

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
        if !matches!(name.0.as_str(), "wall-0" | "wall-1" | "wall-2" | "wall-3" | "floor" | "ceiling") {
            found.push(unknown("brief.room.surfaces", name, "wall-0 to wall-3, floor or ceiling"));
        }
    }
    for (name, surface) in &brief.room.surfaces {
        if let Some(material) = &surface.material
            && crate::material::material(material).is_none()
        {
            let field = format!("brief.room.surfaces.{name}.material");
            found.push(Problem::new(field, material, crate::material::material_names(), Code::BadChoice));
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
    }
    if let Some(layout) = layout {
        let mut uses = Uses { brief, at: "layout", found: &mut found };
        uses.all(
            Some(&layout.camera),
            Some(&layout.lights),
            layout.microphone.as_ref(),
            Some(&layout.furniture),
        );
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

fn conflict(field: String, value: f64, accepted: String) -> Problem {
    Problem::new(field, format!("{value} m"), accepted, Code::Conflict)
}

fn room(brief: &Brief, found: &mut Vec<Problem>) {
    let room = &brief.room;
    let floor: Vec<DVec2> = room.floor_m.iter().map(|p| (*p).into()).collect();
    let [a, b, c, d] = floor[..] else { return };
    let rectangle = a == DVec2::ZERO
        && (b.y.abs() < TAPE_M && d.x.abs() < TAPE_M)
        && ((c.x - b.x).abs() < TAPE_M && (c.y - d.y).abs() < TAPE_M)
        && signed_area_m2(&floor) > 0.0;
    if !rectangle {
        found.push(Problem::new(
            "brief.room.floor_m",
            format!("{:?}", room.floor_m.iter().map(|p| p.0).collect::<Vec<_>>()),
            "a rectangle [0,0], [width,0], [width,depth], [0,depth]",
            Code::Conflict,
        ));
        return;
    }
    for (name, side) in [("width", b.x), ("depth", d.y)] {
        if !(0.5..=50.0).contains(&side) {
            found.push(Problem::new(
                "brief.room.floor_m",
                format!("a {name} of {side} m"),
                "0.5 to 50 m",
                Code::OutOfRange,
            ));
        }
    }
    for (id, opening) in &room.openings {
        let field = format!("brief.room.openings.{id}");
        let wall_m = if opening.wall % 2 == 0 { b.x } else { d.y };
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
    for (id, piece) in &room.furniture {
        furniture(&format!("brief.room.furniture.{id}"), piece, [b.x, d.y], room.height_m, found);
    }
}

fn furniture(field: &str, piece: &Furniture, sides_m: [f64; 2], ceiling_m: f64, found: &mut Vec<Problem>) {
    let [width, depth, height] = piece.size_m.0;
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
            self.support("camera.support", &camera.support);
        }
        for (id, light) in lights.into_iter().flatten() {
            let lamp = |g: &Gear| g.light().is_some() || g.reflector().is_some();
            self.gear(&format!("lights.{id}.gear"), &light.gear, "a light or reflector", lamp);
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
    }
}
