//! One more light out of what is at hand, at its best legal place.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::angle::free_id;
use super::behind::{balance, on_the_wall, practical};
use super::furnish::preferred_side;
use super::lights::{new_light, place_light, would_fit};
use super::settle::balance_back;
use super::stands::Stands;
use crate::assess::legal::Rules;
use crate::corner::{Corner, things};
use crate::edit::{fill_bag, rounded};
use crate::geometry::{DVec2, DVec3, beyond_m};
use crate::plan::{Gear, Id, Light, Plan, Role, Support, SupportKind, ThingId};
use crate::problem::{Code, Problem};

/// Lights that a layout may hold.
const MOST: usize = 12;
/// Cells a side of the grid on which the middle of a floor is looked for.
const GRID: i32 = 16;

/// What one more light is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum LampJob {
    /// The main light on the face.
    Key,
    /// From the other side.
    Fill,
    /// On hair and shoulders.
    Back,
    /// On the wall behind.
    Background,
    /// Seen in the picture, on a piece of furniture.
    Practical,
    /// A lamp of the house, in the middle of the ceiling.
    Ceiling,
}

impl LampJob {
    fn role(self) -> Role {
        match self {
            LampJob::Key => Role::Key,
            LampJob::Fill => Role::Fill,
            LampJob::Back => Role::Back,
            LampJob::Background => Role::Background,
            LampJob::Practical | LampJob::Ceiling => Role::Practical,
        }
    }

    fn stem(self) -> &'static str {
        match self {
            LampJob::Key => "key",
            LampJob::Fill => "fill",
            LampJob::Back => "back",
            LampJob::Background => "background",
            LampJob::Practical => "practical",
            LampJob::Ceiling => "ceiling-light",
        }
    }
}

/// The plan with a light or board of the shelf put to a job where it breaks no rule.
///
/// # Errors
/// The gear is no light at hand, it is in use, or no place is free; the last says what of its kind would fit.
pub fn with_light(plan: &Plan, gear_id: &Id, job: LampJob) -> Result<Plan, Problem> {
    let refused =
        |value: &str, accepted: String| Problem::new("layout.lights", value, accepted, Code::Conflict);
    let (brief, layout) = (&plan.brief, &plan.layout);
    if layout.lights.len() >= MOST {
        return Err(refused("one more", format!("at most {MOST} lights")));
    }
    let named = brief.gear.get_key_value(gear_id).filter(|(_, gear)| {
        let lamp = gear.light().is_some();
        let board = gear.reflector().is_some() && job == LampJob::Fill;
        gear.at_hand() && (lamp || board)
    });
    let Some((id, gear)) = named else {
        return Err(refused(&gear_id.0, "a light at hand, or a board as the fill".into()));
    };
    if job != LampJob::Ceiling && layout.lights.values().any(|light| light.gear == *id) {
        return Err(refused(&gear_id.0, "a light that the layout does not use yet".into()));
    }
    let corner =
        Corner::of(plan).ok_or_else(|| refused("the layout", "a layout whose ids name gear".into()))?;
    let name = free_id(&plan.brief, &plan.layout, job.stem());
    let mut stands = Stands::unused(brief, layout);
    let side = preferred_side(brief, layout);
    let role = job.role();
    let mut made = plan.clone();
    // The way from the door to the chair is a rule about the whole.
    let broken = Rules::new(&corner).all(&things(&corner)).len();
    let fits = |light: &Light| {
        let mut trial = layout.clone();
        trial.lights.insert(name.clone(), light.clone());
        Corner::from_parts(brief, &trial)
            .is_some_and(|corner| Rules::new(&corner).all(&things(&corner)).len() <= broken)
    };
    match job {
        LampJob::Key | LampJob::Fill | LampJob::Back => {
            let side = if job == LampJob::Key { side } else { -side };
            for side in [side, -side] {
                place_light(brief, &mut made.layout, &mut stands, (&name, id, gear), role, side, fits);
                if made.layout.lights.contains_key(&name) {
                    break;
                }
            }
        }
        LampJob::Background => {
            if let Some(light) = on_the_wall(brief, layout, &stands, (&name, (id, gear)), -side, fits) {
                made.layout.lights.insert(name.clone(), light);
            }
        }
        LampJob::Practical => {
            if let Some(light) = practical(brief, layout, (id, gear)) {
                made.layout.lights.insert(name.clone(), light);
            }
        }
        LampJob::Ceiling => {
            made.layout.lights.insert(name.clone(), at_the_ceiling(&corner, id, gear, plan));
        }
    }
    if !made.layout.lights.contains_key(&name) {
        let instead = match role {
            Role::Key | Role::Fill | Role::Back => would_fit(brief, layout, (id, gear), role, side),
            Role::Practical => Some("a shelf, cabinet or table that the picture shows would carry it".into()),
            Role::Background => None,
        };
        let words = instead.map_or_else(String::new, |words| format!("; {words}"));
        return Err(refused(&gear_id.0, format!("a corner with a free place for it{words}")));
    }
    let is_new = |id: &Id| *id == name;
    balance_back(brief, &mut made.layout, is_new);
    balance(brief, &mut made.layout, is_new);
    fill_bag(brief, &mut made.layout, &ThingId::Light(name));
    Ok(plan.with_layout(made.layout))
}

/// A lamp of the house: in the middle of the ceiling, shining down.
fn at_the_ceiling(corner: &Corner<'_>, id: &Id, gear: &Gear, plan: &Plan) -> Light {
    let middle = middle(&corner.floor_m);
    let depth = gear.light().map_or(0.1, |lamp| lamp.depth_m);
    let at: DVec3 = middle.extend(plan.brief.room.ceiling_m(middle) - depth - 0.005);
    let support = Support { kind: SupportKind::Ceiling, ..Support::none() };
    let mut light = new_light(id, Role::Practical, support, &plan.brief);
    light.position_m = rounded(at);
    light.aim_m = Some(rounded(at - DVec3::Z));
    light
}

/// The place on a floor that is farthest from its walls, of a grid over it.
fn middle(outline: &[DVec2]) -> DVec2 {
    let high = outline.iter().copied().fold(DVec2::ZERO, DVec2::max);
    let grid = (1..GRID).flat_map(|i| (1..GRID).map(move |j| DVec2::new(f64::from(i), f64::from(j))));
    grid.map(|cell| high * cell / f64::from(GRID))
        .min_by(|a, b| beyond_m(outline, *a).total_cmp(&beyond_m(outline, *b)))
        .unwrap_or(high / 2.0)
}
