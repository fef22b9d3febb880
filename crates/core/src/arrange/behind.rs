//! Lights for the background out of the lamps that are left: one on the wall behind the person where it comes out too dark
//! or is wanted in another colour, and a practical lamp on a piece of furniture that the picture shows.

use super::angle::free_id;
use super::bare::dial;
use super::cast::AtHand;
use super::lights::{new_light, source_of};
use super::stands::{Stands, bag_for, set_up, stand_holds};
use crate::assess::PRACTICAL_STOPS;
use crate::assess::legal::Rules;
use crate::colour::mired_shift;
use crate::corner::{Corner, LightAt, carry_light, light_head, things};
use crate::edit::rounded;
use crate::geometry::DVec3;
use crate::light::LightField;
use crate::light::detail::behind;
use crate::light::highlight::highlights;
use crate::plan::{
    BackgroundSchool, Brief, FurnitureKind, Gear, Id, Layout, Light, Purpose, Role, Shape, Support,
    SupportKind, ThingId,
};

/// The background is lit where it would come out darker than this against the face, stops, and then to the level (-1 to
/// -2.5: common practice, no source).
const DARK_STOPS: f64 = -2.5;
const LEVEL_STOPS: f64 = -1.5;
/// A keyed screen gets so much light against the face, stops (level with it to a stop below: common practice, no source).
const KEYED_STOPS: f64 = -0.5;
/// Where a lamp for the wall stands: parts of the way to the wall, beyond the picture's edge, and heights, m.
const ALONG: [f64; 4] = [0.7, 0.5, 0.85, 0.35];
const ASIDE_M: [f64; 4] = [0.05, 0.2, 0.4, 0.7];
const HEIGHTS_M: [f64; 4] = [0.9, 0.5, 1.3, 1.8];
/// Or low behind the person, under the picture: off the axis, and heights, m.
const LOW_ASIDE_M: [f64; 3] = [0.0, 0.3, 0.6];
const LOW_M: [f64; 3] = [0.6, 0.45, 0.3];
/// A practical lamp keeps this far from the edge of the picture and from the middle, parts of its width.
const EDGE: f64 = 0.06;
const MIDDLE: f64 = 0.16;

/// Lights for the background on what is left; `side` is tried first, +1 camera right.
pub(super) fn place(
    brief: &Brief,
    layout: &mut Layout,
    stands: &mut Stands<'_>,
    spare: &[AtHand<'_>],
    side: f64,
) {
    let mut left: Vec<AtHand<'_>> = spare.to_vec();
    let mut light_up = |layout: &mut Layout, lamp, hand| {
        let name = free_id(brief, layout, "background");
        if let Some(light) = on_the_wall(brief, layout, stands, (&name, lamp), hand, |_| true) {
            stands.take(&light.support);
            layout.lights.insert(name, light);
        }
    };
    // A keyed screen is lit from both sides, and nothing else is seen before it.
    if brief.purpose == Purpose::KeyedBackground {
        for hand in [side, -side] {
            if let Some(lamp) = left.pop() {
                light_up(layout, lamp, hand);
            }
        }
        return;
    }
    let is_bulb = |(_, gear): &AtHand<'_>| gear.light().is_some_and(|lamp| lamp.shape == Shape::Bulb);
    if let Some(at) = left.iter().position(is_bulb)
        && let Some(light) = practical(brief, layout, left[at])
    {
        layout.lights.insert(free_id(brief, layout, "practical"), light);
        left.remove(at);
    }
    if let Some(lamp) = left.pop()
        && wants_light(brief, layout)
    {
        light_up(layout, lamp, side);
    }
}

/// What is behind the person wants light: a keyed screen, a wall in another colour, or one that comes out too dark against the
/// face.
pub(super) fn wants_light(brief: &Brief, layout: &Layout) -> bool {
    let chosen =
        brief.purpose == Purpose::KeyedBackground || brief.schools.background == BackgroundSchool::Coloured;
    let corner = Corner::from_parts(brief, layout);
    let seen = || corner.as_ref().and_then(|corner| behind(&LightField::of(corner)));
    chosen || seen().is_some_and(|seen| seen.stops() < DARK_STOPS)
}

/// A lamp beside the picture that shines on the wall behind the person.
pub(super) fn on_the_wall(
    brief: &Brief,
    layout: &Layout,
    stands: &Stands<'_>,
    (name, (id, gear)): (&Id, AtHand<'_>),
    side: f64,
    fits: impl Fn(&Light) -> bool,
) -> Option<Light> {
    let corner = Corner::from_parts(brief, layout)?;
    let rules = Rules::new(&corner);
    let others = things(&corner);
    let source = source_of(gear)?;
    let away = -corner.to_lens();
    let wall_m = corner.background_behind_m();
    let aim = corner.eyes_m + away * (wall_m - 0.01);
    let options: Vec<Support> = [SupportKind::Floor, SupportKind::Boom]
        .into_iter()
        .flat_map(|kind| stands.options("light", kind))
        .filter(|support| support.gear.is_some())
        .collect();
    let right = DVec3::new(away.y, -away.x, 0.0);
    let mut blank = new_light(id, Role::Background, Support::none(), brief);
    if brief.schools.background == BackgroundSchool::Coloured {
        blank.cct_k = farthest_k(gear, layout).or(blank.cct_k);
    }
    let half_m = gear.light().map_or(0.2, |lamp| lamp.width_m.max(lamp.height_m) / 2.0 + lamp.depth_m);
    for along in ALONG {
        let level = corner.eyes_m + away * (wall_m * along);
        let edge = corner.view.width_ratio / 2.0 * corner.view.depth_m(level);
        let beside = ASIDE_M.map(|aside| (edge + half_m + aside, HEIGHTS_M.as_slice()));
        let under = LOW_ASIDE_M.map(|aside| (aside, LOW_M.as_slice()));
        for (aside, heights) in beside.into_iter().chain(under) {
            for (hand, height) in [side, -side].into_iter().flat_map(|h| heights.iter().map(move |z| (h, *z)))
            {
                let position = (level + right * (hand * aside)).with_z(height);
                blank.position_m = rounded(position);
                blank.aim_m = Some(rounded(aim));
                let at = LightAt {
                    id: name,
                    light: &blank,
                    source,
                    position_m: position,
                    aim_m: aim,
                    cloth: None,
                };
                let mut thing = light_head(&at);
                if !rules.allows(&thing, &others) {
                    continue;
                }
                for support in options.iter().flat_map(|o| set_up(&corner, o, at.hold_m(), hand)) {
                    carry_light(&corner, &at, &support, &mut thing);
                    let mut light = Light { support, ..blank.clone() };
                    if !stand_holds(&corner, &light.support, at.hold_m(), gear.common().mass_kg)
                        || !rules.allows(&thing, &others)
                    {
                        continue;
                    }
                    let put = |l: &mut Layout| drop(l.lights.insert(name.clone(), light.clone()));
                    let own = ThingId::Light(name.clone());
                    light.support.sandbag_kg = bag_for(brief, layout, put, &own);
                    if fits(&light) {
                        return Some(light);
                    }
                }
            }
        }
    }
    None
}

/// The end of a lamp's range that differs most from the key, K.
fn farthest_k(gear: &Gear, layout: &Layout) -> Option<f64> {
    let lamp = gear.light()?;
    let key = layout.lights.values().find(|light| light.role == Role::Key)?.cct_k?;
    let far = |cct_k: f64| mired_shift(key, cct_k).abs();
    Some(if far(lamp.cct_min_k) >= far(lamp.cct_max_k) { lamp.cct_min_k } else { lamp.cct_max_k })
}

/// A bulb on a piece of furniture between the person and the wall that the picture shows, beside the head.
pub(super) fn practical(brief: &Brief, layout: &Layout, (id, gear): AtHand<'_>) -> Option<Light> {
    let corner = Corner::from_parts(brief, layout)?;
    let broken = Rules::new(&corner).all(&things(&corner)).len();
    let lamp = gear.light()?;
    let stands_free = |kind: FurnitureKind| {
        matches!(
            kind,
            FurnitureKind::Shelf | FurnitureKind::Bookcase | FurnitureKind::Cabinet | FurnitureKind::Table
        )
    };
    let mut found =
        brief.room.furniture.iter().filter(|(_, piece)| stands_free(piece.kind)).filter_map(|(on, piece)| {
            let (middle, _) = corner.furniture_at(on, piece);
            let position =
                middle.with_z(middle.z + piece.size_m.0[2] + lamp.height_m.max(lamp.width_m) / 2.0 + 0.01);
            let behind = (corner.eyes_m - position).dot(corner.to_lens());
            let seen = corner.outline_in_picture(&[position])?.first().copied()?;
            let in_picture = (EDGE..=1.0 - EDGE).contains(&seen.x) && (EDGE..=1.0 - EDGE).contains(&seen.y);
            (behind > 0.2 && in_picture && (seen.x - 0.5).abs() > MIDDLE).then_some((on, position))
        });
    found.find_map(|(on, position)| {
        let support = Support::on(on);
        let mut light = new_light(id, Role::Practical, support, brief);
        light.position_m = rounded(position);
        light.aim_m = Some(rounded(corner.eyes_m));
        // Only a layout that has it tells that it may be seen.
        let mut trial = layout.clone();
        trial.lights.insert(Id::from("practical"), light.clone());
        let tried = Corner::from_parts(brief, &trial)?;
        (Rules::new(&tried).all(&things(&tried)).len() <= broken).then_some(light)
    })
}

/// Dials of the lights for the background that are asked for, once the face has its light.
pub(super) fn balance(brief: &Brief, layout: &mut Layout, asked: impl Fn(&Id) -> bool) {
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    let lit = LightField::of(&corner);
    let on_it: Vec<&LightAt<'_>> =
        corner.role(Role::Background).filter(|l| l.light.dim > 0.0 && asked(l.id)).collect();
    let seen = behind(&lit);
    let light_there =
        |light: &LightAt<'_>| seen.map_or(0.0, |at| lit.light_lx(light, at.at_m, corner.to_lens()));
    let together: f64 = on_it.iter().map(|light| light_there(light)).sum();
    for light in on_it {
        let Some(seen) = seen else { continue };
        let keyed = brief.purpose == Purpose::KeyedBackground;
        let wanted = if keyed {
            KEYED_STOPS.exp2() * seen.face_lx
        } else {
            LEVEL_STOPS.exp2() * seen.skin * seen.face_lx / seen.reflectance
        };
        // All of them together bring what is wanted beyond the rest.
        let dim = light.light.dim * ((wanted - (seen.behind_lx - together)) / together.max(1e-9));
        if let Some(light) = layout.lights.get_mut(light.id) {
            light.dim = dial(dim.clamp(0.02, 1.0));
        }
    }
    let seen = highlights(&corner, &lit.at_face());
    for light in corner.role(Role::Practical).filter(|l| asked(l.id)) {
        let Some(found) = seen.iter().find(|h| h.id == ThingId::Light(light.id.clone())) else { continue };
        if let Some(light) = layout.lights.get_mut(light.id) {
            light.dim = dial((light.dim * (PRACTICAL_STOPS - found.over_face_stops).exp2()).clamp(0.01, 1.0));
        }
    }
}
