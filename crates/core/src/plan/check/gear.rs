//! Figures of gear that contradict each other.

use super::refusals::no_material;
use crate::plan::{Brief, Gear, GearLight, Shape};
use crate::problem::{Code, Problem};

pub(super) fn gear(brief: &Brief, found: &mut Vec<Problem>) {
    for (id, gear) in &brief.gear {
        one(&format!("brief.gear.{id}"), gear, found);
    }
}

/// Figures of one thing that contradict each other.
pub(crate) fn one(field: &str, gear: &Gear, found: &mut Vec<Problem>) {
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
            lamp(field, g, found);
            if g.shape == Shape::Ring && g.height_m >= g.width_m {
                let accepted = "an inner diameter smaller than width_m";
                found.push(Problem::new(format!("{field}.height_m"), g.height_m, accepted, Code::Conflict));
            }
        }
        Gear::Treatment(g) => found.extend(no_material(format!("{field}.material"), &g.material)),
        Gear::Support(g) => ordered("height_min_m", g.height_min_m, "height_max_m", g.height_max_m, found),
        _ => {}
    }
    let common = gear.common();
    if common.resale > common.price {
        let accepted = format!("0 to the price, {}", common.price);
        found.push(Problem::new(format!("{field}.resale"), common.resale, accepted, Code::Conflict));
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
