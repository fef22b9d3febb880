//! The colour of the light on the face: what lamps and windows mix to, and how far each lies from it.

use super::apparent::windows;
use super::coloured::is_apart;
use super::field::LightField;
use super::house;
use crate::colour::{cct_duv, mired_shift, mixed_xy, xy_at};
use crate::corner::Corner;
use crate::photometry::sky::OVERCAST_K;
use crate::plan::ThingId;
use crate::reading::{Origin, Quantity, Reading};

/// A lamp that gives less than this of the light on the face tints it little (an eighth: Fogon's own rule).
const COUNTS: f64 = 1.0 / 8.0;

/// One source's colour and its part of the mixture.
#[derive(Debug, Clone, PartialEq)]
pub struct Tint {
    /// The lamp, or the window; none of the ceiling light.
    pub id: Option<ThingId>,
    /// Its temperature, K.
    pub cct_k: f64,
    /// Its part of the light on the face.
    pub part: f64,
}

/// What lamps and windows mix to on the face.
#[derive(Debug, Clone, PartialEq)]
pub struct Mixture {
    /// K.
    pub cct_k: f64,
    /// Off the Planckian locus, + = green.
    pub duv: f64,
    /// Each source.
    pub tints: Vec<Tint>,
}

impl Tint {
    /// What it is, in words.
    pub fn words(&self) -> String {
        self.id.as_ref().map_or_else(|| "ceiling light".to_owned(), ThingId::words)
    }
}

impl Mixture {
    /// The largest difference between two sources that count, mired, with the cooler and the warmer one.
    pub fn widest(&self) -> Option<(f64, &Tint, &Tint)> {
        let counted = || self.tints.iter().filter(|t| t.part > COUNTS);
        let cool = counted().max_by(|a, b| a.cct_k.total_cmp(&b.cct_k))?;
        let warm = counted().min_by(|a, b| a.cct_k.total_cmp(&b.cct_k))?;
        Some((mired_shift(cool.cct_k, warm.cct_k), cool, warm))
    }
}

/// One source before it is mixed.
struct TintSource {
    id: Option<ThingId>,
    cct_k: f64,
    xy: [f64; 2],
    illuminance_lx: f64,
}

/// The mixture of lamps and windows on a surface at the eyes that faces the lens; the room is taken to throw their light
/// back as it is, and lights for the background are left out. `None` where nothing shines.
pub fn mixture(field: &LightField<'_>) -> Option<Mixture> {
    // Sources of one temperature are looked up once.
    let mut known: Vec<(f64, [f64; 2])> = Vec::new();
    let mut xy_of_cct = |cct_k: f64| match known.iter().find(|(other, _)| *other == cct_k) {
        Some((_, xy)) => *xy,
        None => {
            let xy = xy_at(cct_k, 0.0);
            known.push((cct_k, xy));
            xy
        }
    };
    let mut all: Vec<TintSource> = Vec::new();
    for (light, illuminance_lx) in field.lamps_lx().filter(|(light, _)| !is_apart(light)) {
        let cct_k = light.cct_k();
        let xy = light.light.colour.map_or_else(|| xy_of_cct(cct_k), |colour| [colour.x, colour.y]);
        all.push(TintSource { id: Some(ThingId::Light(light.id.clone())), cct_k, xy, illuminance_lx });
    }
    for ((id, _), illuminance_lx) in windows(field.corner()).zip(field.each_window_lx()) {
        let xy = xy_of_cct(OVERCAST_K);
        all.push(TintSource {
            id: Some(ThingId::Opening(id.clone())),
            cct_k: OVERCAST_K,
            xy,
            illuminance_lx,
        });
    }
    if house::shines(field.corner()) {
        let (cct_k, illuminance_lx) = (house::CCT_K, field.windows_lx());
        all.push(TintSource { id: None, cct_k, xy: xy_of_cct(cct_k), illuminance_lx });
    }
    let whole: f64 = all.iter().map(|source| source.illuminance_lx).sum();
    let xy = mixed_xy(all.iter().map(|source| (source.xy, source.illuminance_lx)))?;
    let (cct_k, duv) = cct_duv(xy)?;
    let part =
        |source: TintSource| Tint { part: source.illuminance_lx / whole, id: source.id, cct_k: source.cct_k };
    Some(Mixture { cct_k, duv, tints: all.into_iter().map(part).collect() })
}

pub(super) fn readings(corner: &Corner<'_>, mixture: &Mixture) -> Vec<Reading> {
    let camera = &corner.layout.camera;
    let source = "CIE 015 (from memory): tristimulus values add, kelvins do not";
    let mut cct = Reading::new(Quantity::LightFaceCctK, mixture.cct_k)
        .by("nearest point of the Planckian locus to the sum of the sources' tristimulus values", source)
        .within(100.0)
        .note("A cloth or softbox warms its lamp by 10 to 30 mired: balance on a grey card through it. Common practice, no source.");
    for tint in &mixture.tints {
        let (name, from) = match tint.id {
            Some(ThingId::Opening(_)) => ("window, overcast sky", Origin::Assumed),
            None => ("ceiling light", Origin::Assumed),
            _ => ("lamp", Origin::Typed),
        };
        cct =
            cct.with(name, tint.cct_k, "K", from).with("its part", 100.0 * tint.part, "%", Origin::Computed);
    }
    vec![
        cct,
        Reading::new(Quantity::LightFaceDuv, mixture.duv)
            .by("distance from the locus in CIE 1960 (u, v), + = green", source)
            .note(
                "Beyond 0.003 either way set the tint as well, on a grey card: common practice, no source.",
            ),
        Reading::new(
            Quantity::LightFaceWhiteBalanceMired,
            mired_shift(camera.white_balance_k, mixture.cct_k),
        )
        .by(
            "1e6 / light - 1e6 / camera",
            "definition of the mired; 5.5 are just seen: Judd 1933 (from memory)",
        )
        .with("white balance set", camera.white_balance_k, "K", Origin::Typed)
        .with("light on the face", mixture.cct_k, "K", Origin::Computed)
        .note("Positive: the picture comes out warm."),
    ]
}
