//! A face is not a point: places on a head, each with its normal, and the light on them. Nose and brow stand in their own
//! light; the rest of the head does so by its normals.

use serde::Serialize;
use utoipa::ToSchema;

use super::field::LightField;
use crate::corner::{Corner, LightAt, light_direction};
use crate::geometry::DVec3;

/// Sizes of a head, m (anthropometric means, from memory): nose forward of the eyes' plane and below them, half its
/// width at the base; half the distance of the eyes; cheeks; brow over the eyes and forward of them.
const NOSE_M: f64 = 0.025;
const NOSE_LOW_M: f64 = 0.045;
const NOSE_HALF_M: f64 = 0.016;
const EYE_HALF_M: f64 = 0.032;
const CHEEK_M: [f64; 2] = [0.048, 0.045];
const BROW_M: [f64; 2] = [0.014, 0.010];
const SOCKET_DEEP_M: f64 = 0.010;
const CROWN_BACK_M: f64 = 0.09;
const SHOULDER_PART: f64 = 0.75;

/// A part of the head or the shoulders.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Spot {
    Forehead,
    CheekRight,
    CheekLeft,
    NoseRight,
    NoseLeft,
    SocketRight,
    SocketLeft,
    Chin,
    Crown,
    ShoulderRight,
    ShoulderLeft,
}

/// The light on one part; right and left are the camera's.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Facet {
    /// Which part.
    pub spot: Spot,
    /// Illuminance, lx.
    pub illuminance_lx: f64,
    /// Against a surface at the eyes that faces the lens, stops; null in the dark.
    pub stops: Option<f64>,
}

/// What a lamp gives the face.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LampOnFace {
    /// The light's id.
    pub id: String,
    /// On a surface at the eyes that faces the lens, straight from the lamp, lx.
    pub illuminance_lx: f64,
    /// Part of all light there.
    pub part: f64,
    /// How large the lamp is as the face sees it, degrees.
    pub angular_size_deg: f64,
    /// From the eyes, m.
    pub distance_m: f64,
    /// What reaches the face against what would if nothing stood between.
    pub unhidden: f64,
}

/// A face under its light.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FaceSeen {
    /// All light on a surface at the eyes that faces the lens, lx: 0 stops.
    pub reference_lx: f64,
    /// Of it what the room throws back, lx.
    pub bounce_lx: f64,
    /// Of it what windows give straight, lx.
    pub windows_lx: f64,
    /// Of it what the ceiling light gives straight that stands in where there is no lamp, lx.
    pub ceiling_lx: f64,
    /// Every part of the head.
    pub facets: Vec<Facet>,
    /// Every lamp, in the order of the layout.
    pub lamps: Vec<LampOnFace>,
}

/// The face under a corner's light.
pub fn face_seen(corner: &Corner<'_>) -> FaceSeen {
    let lit = LightField::of(corner);
    let at_face = lit.at_face();
    let towards = corner.to_lens();
    let lamp = |(light, illuminance_lx): (&LightAt<'_>, f64)| {
        let seen = super::apparent::apparent(corner, light);
        let distance_m = seen.distance_m(corner);
        let open = unhidden_lx(corner, light, towards);
        LampOnFace {
            id: light.id.0.clone(),
            illuminance_lx,
            part: if at_face.camera_lx > 0.0 { illuminance_lx / at_face.camera_lx } else { 0.0 },
            angular_size_deg: super::angular_size_deg(seen.diameter_m, distance_m),
            distance_m,
            unhidden: if open > 0.0 { illuminance_lx / open } else { 1.0 },
        }
    };
    let straight_lx = lit.windows_straight_lx();
    let (windows_lx, ceiling_lx) =
        if super::house::shines(corner) { (0.0, straight_lx) } else { (straight_lx, 0.0) };
    FaceSeen {
        reference_lx: at_face.camera_lx,
        bounce_lx: at_face.bounce_lx,
        windows_lx,
        ceiling_lx,
        facets: facets(&lit),
        lamps: lit.lamps_lx().map(lamp).collect(),
    }
}

/// What a lamp would give the eyes if nothing stood between, lx.
fn unhidden_lx(corner: &Corner<'_>, light: &LightAt<'_>, towards: DVec3) -> f64 {
    super::cloth::faces(light).iter().map(|face| face.illuminance_lx(corner.eyes_m, towards)).sum()
}

/// A point, its normal, and whether the nose or the brow belongs to it and casts no shadow on it.
struct FacePoint {
    spot: Spot,
    at: DVec3,
    normal: DVec3,
    own: Option<usize>,
}

/// Numbers under which nose and brow stand in the light, beyond those of any thing in a room.
const NOSE: usize = usize::MAX - 1;
const BROW: usize = usize::MAX - 2;

/// Forward where the face looks, to camera right, and up.
fn axes(corner: &Corner<'_>) -> (DVec3, DVec3) {
    let forward = light_direction(corner.to_lens(), corner.layout.seat.gaze_offset_deg, 0.0);
    // Who looks at the camera has their left on camera right.
    (forward, DVec3::Z.cross(forward).normalize_or(DVec3::X))
}

fn places(corner: &Corner<'_>) -> Vec<FacePoint> {
    let (forward, side) = axes(corner);
    let marks = &corner.landmarks;
    let eyes = corner.eyes_m;
    let at = |f: f64, s: f64, u: f64| eyes + forward * f + side * s + DVec3::Z * u;
    let towards = |f: f64, s: f64, u: f64| (forward * f + side * s + DVec3::Z * u).normalize_or(forward);
    let place = |spot, at, normal, own| FacePoint { spot, at, normal, own };
    let shoulder = corner.brief.person.shoulder_breadth_m() / 2.0 * SHOULDER_PART;
    let (crown, chin) = (marks.crown_m - marks.eye_m, marks.chin_m - marks.eye_m);
    let low = marks.shoulder_m - marks.eye_m;
    let mut all = vec![
        place(Spot::Forehead, at(0.0, 0.0, 0.05), towards(0.95, 0.0, 0.31), None),
        place(Spot::Chin, at(0.0, 0.0, 0.9 * chin), towards(0.94, 0.0, -0.34), None),
        place(Spot::Crown, at(-CROWN_BACK_M, 0.0, crown), DVec3::Z, None),
    ];
    for (hand, cheek, nose, socket, shoulders) in [
        (1.0, Spot::CheekRight, Spot::NoseRight, Spot::SocketRight, Spot::ShoulderRight),
        (-1.0, Spot::CheekLeft, Spot::NoseLeft, Spot::SocketLeft, Spot::ShoulderLeft),
    ] {
        let out = [CHEEK_M[0] * hand, -CHEEK_M[1]];
        all.push(place(cheek, at(-0.005, out[0], out[1]), towards(1.0, hand, 0.0), None));
        let flank = at(0.5 * NOSE_M, 0.6 * NOSE_HALF_M * hand, -0.7 * NOSE_LOW_M);
        all.push(place(nose, flank, towards(0.5, 0.87 * hand, 0.0), Some(NOSE)));
        all.push(place(socket, at(-SOCKET_DEEP_M, EYE_HALF_M * hand, 0.0), forward, None));
        all.push(place(shoulders, at(-CROWN_BACK_M, shoulder * hand, low + 0.002), DVec3::Z, None));
    }
    all
}

/// The light on every part of the head, against that on a surface which faces the lens; the room's is taken at the eyes.
pub fn facets(lit: &LightField<'_>) -> Vec<Facet> {
    let corner = lit.corner();
    let (forward, side) = axes(corner);
    let at = |f: f64, s: f64, u: f64| corner.eyes_m + forward * f + side * s + DVec3::Z * u;
    let mut blockers = lit.blockers().clone();
    let nose = [
        at(0.002, 0.0, -0.005),
        at(NOSE_M, 0.0, -NOSE_LOW_M + 0.008),
        at(0.0, NOSE_HALF_M, -NOSE_LOW_M),
        at(0.0, -NOSE_HALF_M, -NOSE_LOW_M),
        at(NOSE_M - 0.004, 0.0, -NOSE_LOW_M - 0.004),
    ];
    blockers.add_corners(&nose, NOSE);
    // A bar over both eyes, from the bottom of the sockets to before them.
    let bar: Vec<DVec3> = [-0.055, 0.055]
        .into_iter()
        .flat_map(|s| {
            [
                at(-SOCKET_DEEP_M, s, BROW_M[0]),
                at(BROW_M[1], s, BROW_M[0]),
                at(-SOCKET_DEEP_M, s, 0.022),
                at(BROW_M[1] - 0.004, s, 0.022),
            ]
        })
        .collect();
    blockers.add_corners(&bar, BROW);
    let around = lit.at_eyes();
    let reference = lit.at_face().camera_lx;
    places(corner)
        .into_iter()
        .map(|place| {
            let own = place.own.or(matches!(place.spot, Spot::Forehead).then_some(BROW));
            let direct: f64 =
                lit.shining().map(|s| s.illuminance_lx(place.at, place.normal, &blockers, own)).sum();
            let illuminance_lx = direct + around.illuminance_lx(place.normal);
            let stops = (illuminance_lx / reference).log2();
            Facet { spot: place.spot, illuminance_lx, stops: stops.is_finite().then_some(stops) }
        })
        .collect()
}

/// Where the shadow of the nose falls on the face: to the side, positive to camera right, and down, m. A nose `NOSE_M`
/// proud of a flat face: p tan(azimuth), p tan(elevation) / cos(azimuth).
pub fn nose_shadow_m(azimuth_deg: f64, elevation_deg: f64) -> (f64, f64) {
    let (azimuth, elevation) = (azimuth_deg.to_radians(), elevation_deg.to_radians());
    (-NOSE_M * azimuth.tan(), NOSE_M * elevation.tan() / azimuth.cos())
}
