//! The light on a screen that is to be keyed out: how even it is where the picture shows it, how bright beside the face, and
//! what it throws on the person's back.

use super::AREA_FORMULA;
use super::field::LightField;
use crate::geometry::{DVec2, DVec3, bearing_vector};
use crate::photometry::polygon_illuminance;
use crate::plan::{BackdropType, Purpose, Role, WALL_NAMES};
use crate::reading::{Origin, Quantity, Reading};

/// Places across and up the picture at which the screen is looked at.
const GRID: [f64; 3] = [0.08, 0.5, 0.92];
/// Lamps that light a screen evenly (common practice, no source).
const LAMPS: f64 = 2.0;

/// The screen: a point of its plane, its normal to the lens, its corners, and what it reflects.
struct Screen {
    on: DVec3,
    normal: DVec3,
    outline: [DVec3; 4],
    reflectance: (f64, Origin),
}

fn screen(lit: &LightField<'_>) -> Option<Screen> {
    let corner = lit.corner();
    let behind = corner.eyes_m - corner.to_lens() * corner.background_behind_m();
    let towards = |normal: DVec3| if normal.dot(corner.to_lens()) < 0.0 { -normal } else { normal };
    let usual = (BackdropType::Chroma.usual_reflectance(), Origin::Assumed);
    let given = |value: Option<f64>| value.map_or(usual, |told| (told, Origin::Typed));
    if let Some((gear, used)) = corner.backdrop.filter(|_| corner.backdrop_behind_m().is_some()) {
        let face = bearing_vector(used.bearing_deg);
        let across = DVec3::new(face.y, -face.x, 0.0) * (gear.width_m / 2.0);
        let foot = DVec2::from(used.position_m).extend(0.0);
        let up = DVec3::Z * gear.height_m;
        let outline = [foot - across, foot + across, foot + across + up, foot - across + up];
        return Some(Screen {
            on: behind,
            normal: towards(face),
            outline,
            reflectance: given(gear.reflectance),
        });
    }
    let (wall, _) = corner.wall_behind()?;
    let (start, end) = corner.brief.room.wall_m(wall)?;
    let normal = towards((end - start).normalize_or_zero().perp().extend(0.0));
    let told = corner.brief.room.surfaces.get(WALL_NAMES[wall]).and_then(|s| s.reflectance);
    let high = corner.brief.room.height_m;
    let outline = [start.extend(0.0), end.extend(0.0), end.extend(high), start.extend(high)];
    Some(Screen { on: behind, normal, outline, reflectance: given(told) })
}

/// What is told of the screen of a keyed background; nothing for other purposes, without a screen, or where the picture looks past it.
pub(super) fn readings(lit: &LightField<'_>) -> Vec<Reading> {
    let corner = lit.corner();
    if corner.brief.purpose != Purpose::KeyedBackground || !corner.has_key_screen() {
        return Vec::new();
    }
    let Some(Screen { on, normal, outline, reflectance: (reflectance, from) }) = screen(lit) else {
        return Vec::new();
    };
    let view = &corner.view;
    // Where the line through a place of the picture meets the plane, a hair before it.
    let meets = |x: f64, y: f64| {
        let ray = view.forward
            + view.right * ((x - 0.5) * view.width_ratio)
            + view.up * ((0.5 - y) * view.height_ratio);
        let rate = normal.dot(ray);
        (rate < -1e-6)
            .then(|| view.position_m + ray * (normal.dot(on - view.position_m) / rate) + normal * 0.01)
    };
    let places: Option<Vec<DVec3>> =
        GRID.iter().flat_map(|y| GRID.iter().map(move |x| (*x, *y))).map(|(x, y)| meets(x, y)).collect();
    let Some(places) = places else { return Vec::new() };
    let lux: Vec<f64> =
        places.iter().map(|at| lit.direct_lx(*at, normal) + lit.bounce_lx(*at, normal)).collect();
    let (least, most) = lux.iter().fold((f64::INFINITY, 0.0f64), |(l, m), lux| (l.min(*lux), m.max(*lux)));
    let mean = lux.iter().sum::<f64>() / lux.len() as f64;
    let face = lit.at_face().camera_lx;
    let luminance = reflectance * mean / std::f64::consts::PI;
    let spill = polygon_illuminance(luminance, &outline, corner.eyes_m, -corner.to_lens());
    let rim: f64 = corner
        .role(Role::Back)
        .map(|back| {
            let towards = (back.position_m - corner.eyes_m).normalize_or_zero();
            lit.light_lx(back, corner.eyes_m, towards)
        })
        .sum();
    let distance = (corner.eyes_m - on).length();
    let eats = corner.backdrop.map_or(0.0, |(_, used)| used.hung.depth_m());
    let lamps = corner.role(Role::Background).count() as f64;
    let mut all = vec![
        Reading::new(Quantity::LightScreenDepthM, distance + eats)
            .by("from the eyes to the screen + what holds it up", "the distance before a screen: common practice, no source")
            .with("eyes to screen", distance, "m", Origin::Computed)
            .with("behind it", eats, "m", Origin::Computed)
            .with("lamps on the screen", lamps, "", Origin::Typed)
            .with("lamps wanted", LAMPS, "", Origin::Computed)
            .note("Two lamps on two stands, one beside each edge and half the screen's width before it, light it evenly: common practice, no source."),
    ];
    if rim > 0.0 && spill > 0.0 {
        all.push(
            Reading::new(Quantity::LightScreenRimStops, (rim / spill).log2())
                .by("log2(back light on the hair / the screen's light on the back)", AREA_FORMULA)
                .with("back light", rim, "lx", Origin::Computed)
                .with("spill", spill, "lx", Origin::Computed)
                .note("Two stops and more drown the colour: Fogon's own rule."),
        );
    }
    all.extend([
        Reading::new(Quantity::LightScreenEvennessStops, (most / least).log2() / 2.0)
            .by("log2(most / least) / 2 over 3 x 3 places in the picture", "a third of a stop either way: common practice, no source")
            .with("most", most, "lx", Origin::Computed)
            .with("least", least, "lx", Origin::Computed),
        Reading::new(Quantity::LightScreenLevelStops, (mean / face).log2())
            .by("log2(mean on the screen / light on the face)", AREA_FORMULA)
            .with("on the screen", mean, "lx", Origin::Computed)
            .with("on the face", face, "lx", Origin::Computed)
            .note("Level with the face to a stop below: common practice, no source."),
        Reading::new(Quantity::LightScreenSpillStops, (spill / face).log2())
            .by("log2(light of the whole screen on the back / light on the face), lit as the picture shows it", AREA_FORMULA)
            .with("spill", spill, "lx", Origin::Computed)
            .with("reflectance of the screen", reflectance, "", from)
            .note("Its colour on hair and shoulders. A back light two stops over it drowns it; more distance is better: common practice, no source."),
    ]);
    all
}
