//! What shines in a corner and what of it reaches a place: every lamp by the area formula, less what stands in its way;
//! every board by one bounce; the room by radiosity (docs/workings/light.md). What is told of it stands beside.

use std::sync::Arc;

use super::{apparent, bounce, cloth, house};
use crate::corner::{Corner, Kind, LightAt, Source, What, bounds, things};
use crate::geometry::{DVec2, DVec3};
use crate::photometry::{Blockers, Emitter, Enclosure, Face, Glow, LightSource, Surroundings, sky};
use crate::plan::{Id, ThingId};
use crate::reading::{Origin, Quantity};

/// A board is sampled at these places along each side, with these weights: Gauss and Legendre's, of four.
const BOARD: [(f64, f64); 4] = [
    (0.069_431_844_202_973_7, 0.173_927_422_568_727),
    (0.330_009_478_207_572, 0.326_072_577_431_273),
    (0.669_990_521_792_428, 0.326_072_577_431_273),
    (0.930_568_155_797_026, 0.173_927_422_568_727),
];
/// Walls and beams that stand in the light belong to nothing that is left out.
const NO_ONE: usize = usize::MAX;

/// Illuminances at the eyes, lx.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FaceLight {
    /// On a surface that faces the lens; what the exposure is set by.
    pub camera_lx: f64,
    /// On the cheek turned 45 degrees towards the key.
    pub lit_lx: f64,
    /// On the cheek turned 45 degrees away from it.
    pub shadow_lx: f64,
    /// Part of `camera_lx` that comes from the room's surfaces.
    pub bounce_lx: f64,
    /// Part of `shadow_lx` that does.
    pub shadow_bounce_lx: f64,
}

impl FaceLight {
    /// No light at all.
    pub const DARK: Self =
        Self { camera_lx: 0.0, lit_lx: 0.0, shadow_lx: 0.0, bounce_lx: 0.0, shadow_bounce_lx: 0.0 };
}

/// A corner's light, ready to be read off anywhere.
pub struct LightField<'a> {
    corner: &'a Corner<'a>,
    /// Every face that shines, with the number of the light that it belongs to, windows after the lights.
    shining: Vec<(usize, LightSource)>,
    blockers: Blockers,
    enclosure: Arc<Enclosure>,
    glow: Glow,
    at_face: FaceLight,
    /// What each light gives straight at the eyes, towards the lens, lx; windows after the lights.
    each_lx: Vec<f64>,
    /// What the room throws back of the windows' light there, lx.
    windows_bounce_lx: f64,
    at_eyes: Surroundings,
}

/// A face that lights the room, with its flux.
struct RoomFace {
    face: Face,
    flux_lm: f64,
    screen: Option<Vec<DVec3>>,
}

impl RoomFace {
    fn whole(face: Face) -> Self {
        Self { flux_lm: face.flux_lm(), face, screen: None }
    }

    fn emitter(&self) -> Emitter<'_> {
        Emitter { face: &self.face, flux_lm: self.flux_lm, screen: self.screen.as_deref() }
    }
}

/// The faces of a lamp, each with whom it belongs to among what stands in the light; and what the room gets of it.
fn lamp_faces(light: &LightAt<'_>, owners: &Owners) -> (Vec<LightSource>, Vec<RoomFace>) {
    let own = owners.of(light.id);
    let lamp = light.face();
    let Some((gear, _)) = light.cloth else {
        return (vec![LightSource::new(lamp.clone(), own)], vec![RoomFace::whole(lamp)]);
    };
    let hung = cloth::lit(&light.dark_face(), &lamp, gear);
    let mut faces: Vec<LightSource> =
        hung.pieces.iter().map(|piece| LightSource::new(piece.clone(), owners.cloth_of(light.id))).collect();
    let missed_lm = (lamp.flux_lm() - hung.caught_lm).max(0.0);
    let outline = hung.front.outline.clone();
    // What passes beside the cloth goes on; the cloth stands in the way of the rest.
    faces.push(LightSource::new(lamp.clone(), own));
    let room = vec![
        RoomFace::whole(hung.front),
        RoomFace::whole(hung.back),
        RoomFace { face: lamp, flux_lm: missed_lm, screen: Some(outline) },
    ];
    (faces, room)
}

impl<'a> LightField<'a> {
    /// Lamps, boards and windows, what stands in their light, and the room under them. Without lamp and window the ceiling
    /// light is what there is: it counts as a window does, whose light goes with no dial.
    pub fn of(corner: &'a Corner<'a>) -> Self {
        let mut windows: Vec<Face> = windows(corner).map(|(_, face)| face).collect();
        if house::shines(corner) {
            windows.push(house::face(&corner.brief.room));
        }
        let (blockers, owners) = blockers(corner);
        let mut shining = Vec::with_capacity(corner.lights.len() + windows.len());
        // What the room gets its light from.
        let mut for_room = Vec::with_capacity(shining.capacity());
        for (number, light) in corner.lights.iter().enumerate() {
            if matches!(light.source, Source::Lamp(_)) {
                let (faces, room) = lamp_faces(light, &owners);
                shining.extend(faces.into_iter().map(|face| (number, face)));
                for_room.extend(room);
            }
        }
        let of_lamps = for_room.len();
        let first = corner.lights.len();
        for (number, window) in windows.into_iter().enumerate() {
            for_room.push(RoomFace::whole(window.clone()));
            shining.push((first + number, LightSource::new(window, None)));
        }
        let direct = shining.len();
        for (number, light) in corner.lights.iter().enumerate() {
            let Source::Board(board) = light.source else { continue };
            let own = owners.of(light.id);
            let face = light.dark_face();
            let matt = board.reflectance * (1.0 - board.mirror_part);
            let lit = lit_board(face, matt, |point, normal| {
                shining[..direct].iter().map(|(_, s)| s.illuminance_lx(point, normal, &blockers, own)).sum()
            });
            let images: Vec<LightSource> = if board.mirror_part > 0.0 {
                let mirror = board.reflectance * board.mirror_part;
                let seen = shining[..direct]
                    .iter()
                    .map(|(_, s)| s)
                    .filter(|s| !blockers.blocks(s.face().middle, lit.middle, [own, s.owner()]));
                seen.filter_map(|s| LightSource::mirrored(s.face(), &lit, mirror, own)).collect()
            } else {
                Vec::new()
            };
            shining.push((number, LightSource::new(lit, own)));
            shining.extend(images.into_iter().map(|image| (number, image)));
        }
        let enclosure = bounce::enclosure(corner.brief);
        let glow = enclosure.lit_by(for_room.iter().map(RoomFace::emitter));
        let at_eyes = enclosure.seen_from(&glow, corner.eyes_m);
        let windows_bounce_lx = match of_lamps {
            all if all == for_room.len() => 0.0,
            0 => at_eyes.illuminance_lx(corner.to_lens()),
            _ => {
                let of_windows = enclosure.lit_by(for_room[of_lamps..].iter().map(RoomFace::emitter));
                enclosure.seen_from(&of_windows, corner.eyes_m).illuminance_lx(corner.to_lens())
            }
        };
        let mut field = Self {
            corner,
            shining,
            blockers,
            enclosure,
            glow,
            at_face: FaceLight::DARK,
            each_lx: Vec::new(),
            windows_bounce_lx,
            at_eyes,
        };
        field.each_lx = field.each_lx(corner.eyes_m, corner.to_lens());
        field.at_face = field.towards_lens_and_cheeks();
        field
    }

    /// The corner that is lit.
    pub fn corner(&self) -> &'a Corner<'a> {
        self.corner
    }

    pub(super) fn shining(&self) -> impl Iterator<Item = &LightSource> {
        self.shining.iter().map(|(_, source)| source)
    }

    pub(super) fn blockers(&self) -> &Blockers {
        &self.blockers
    }

    /// What each light gives straight at a point, lx; windows after the lights.
    fn each_lx(&self, point: DVec3, normal: DVec3) -> Vec<f64> {
        let count = self.shining.iter().map(|(number, _)| number + 1).max().unwrap_or(0);
        let mut each = vec![0.0; count.max(self.corner.lights.len())];
        for (number, source) in &self.shining {
            each[*number] += source.illuminance_lx(point, normal, &self.blockers, None);
        }
        each
    }

    /// The lamps and boards of the layout, each with what it gives straight at the eyes, towards the lens, lx.
    pub fn lights_lx(&self) -> impl Iterator<Item = (&'a LightAt<'a>, f64)> {
        self.corner.lights.iter().zip(self.each_lx.iter().copied())
    }

    /// The lamps alone.
    pub fn lamps_lx(&self) -> impl Iterator<Item = (&'a LightAt<'a>, f64)> {
        self.lights_lx().filter(|(light, _)| matches!(light.source, Source::Lamp(_)))
    }

    /// What one light gives straight at a point, lx.
    pub fn light_lx(&self, light: &LightAt<'_>, point: DVec3, normal: DVec3) -> f64 {
        let own = self
            .shining
            .iter()
            .filter(|(number, _)| self.corner.lights.get(*number).is_some_and(|other| other.id == light.id));
        own.map(|(_, s)| s.illuminance_lx(point, normal, &self.blockers, None)).sum()
    }

    /// As [`Self::light_lx`], of a board without what it mirrors.
    pub fn matt_lx(&self, light: &LightAt<'_>, point: DVec3, normal: DVec3) -> f64 {
        let own = self.shining.iter().filter(|(number, source)| {
            !source.is_image() && self.corner.lights.get(*number).is_some_and(|other| other.id == light.id)
        });
        own.map(|(_, s)| s.illuminance_lx(point, normal, &self.blockers, None)).sum()
    }

    /// What each window gives straight at the eyes, towards the lens, lx, in the order of their ids; or the ceiling light.
    pub fn each_window_lx(&self) -> impl Iterator<Item = f64> {
        self.each_lx.iter().skip(self.corner.lights.len()).copied()
    }

    /// What the windows, or the ceiling light that stands in for a lamp, give the eyes straight, towards the lens, lx.
    pub fn windows_straight_lx(&self) -> f64 {
        self.each_window_lx().sum()
    }

    /// What the windows give the eyes, towards the lens, straight and by way of the room, lx: it goes with no dial.
    pub fn windows_lx(&self) -> f64 {
        self.windows_straight_lx() + self.windows_bounce_lx
    }

    /// The faces that shine: of lamps and windows, then of boards with what falls on them.
    pub fn faces(&self) -> impl Iterator<Item = &Face> {
        self.shining().map(LightSource::face)
    }

    /// Straight from lamps, boards and windows at a point on a surface of a unit normal, lx.
    pub fn direct_lx(&self, point: DVec3, normal: DVec3) -> f64 {
        self.shining().map(|s| s.illuminance_lx(point, normal, &self.blockers, None)).sum()
    }

    /// From walls, floor and ceiling, lx.
    pub fn bounce_lx(&self, point: DVec3, normal: DVec3) -> f64 {
        self.enclosure.illuminance_lx(&self.glow, point, normal)
    }

    /// Walls, floor and ceiling as the eyes see them.
    pub fn at_eyes(&self) -> &Surroundings {
        &self.at_eyes
    }

    /// Everything that reaches the face.
    pub fn at_face(&self) -> FaceLight {
        self.at_face
    }

    /// Unit normals of the two cheeks, turned 45 degrees to the key and away from it.
    pub fn cheeks(&self) -> [DVec3; 2] {
        let corner = self.corner;
        let towards = corner.to_lens();
        let turned = |degrees: f64| {
            let flat = DVec2::from_angle(degrees.to_radians()).rotate(towards.truncate());
            flat.extend(0.0)
        };
        // A counter-clockwise turn seen from above goes to the person's left, which is camera right.
        let (right, left) = (turned(45.0), turned(-45.0));
        let key_right = apparent::key(corner).map_or_else(
            || self.direct_lx(corner.eyes_m, right) >= self.direct_lx(corner.eyes_m, left),
            |key| corner.light_angles_deg(key.seen.middle_m).0 >= 0.0,
        );
        if key_right { [right, left] } else { [left, right] }
    }

    fn towards_lens_and_cheeks(&self) -> FaceLight {
        let corner = self.corner;
        let around = &self.at_eyes;
        let on = |normal: DVec3| (self.direct_lx(corner.eyes_m, normal), around.illuminance_lx(normal));
        let camera = (self.each_lx.iter().sum::<f64>(), around.illuminance_lx(corner.to_lens()));
        let [lit, shadow] = self.cheeks().map(on);
        FaceLight {
            camera_lx: camera.0 + camera.1,
            lit_lx: lit.0 + lit.1,
            shadow_lx: shadow.0 + shadow.1,
            bounce_lx: camera.1,
            shadow_bounce_lx: shadow.1,
        }
    }
}

/// The windows that give light, as faces under an overcast sky.
pub fn windows<'a>(corner: &'a Corner<'_>) -> impl Iterator<Item = (&'a Id, Face)> {
    let luminance = sky::window_luminance_cd_m2(sky::OVERCAST_LX);
    corner.clear_windows().filter(|_| corner.brief.windows_shine()).map(move |(id, opening, pane)| {
        // Along the wall as it runs, which is clockwise seen from inside.
        let inside = pane.corners().into_iter().rev().collect();
        (id, Face::flat(inside, luminance * opening.curtain_lets_through()))
    })
}

/// Numbers of the things that may stand in the light.
struct Owners {
    things: Vec<ThingId>,
    /// Lights whose cloth has a number of its own, and that number.
    cloths: Vec<(Id, usize)>,
}

impl Owners {
    fn of(&self, light: &Id) -> Option<usize> {
        self.things.iter().position(|thing| matches!(thing, ThingId::Light(id) if id == light))
    }

    fn cloth_of(&self, light: &Id) -> Option<usize> {
        self.cloths.iter().find(|(id, _)| id == light).map(|(_, number)| *number)
    }
}

/// What may stand in the light. The head is what is lit; a glass lets light pass; a cloth stands before its own lamp.
fn blockers(corner: &Corner<'_>) -> (Blockers, Owners) {
    let mut blockers = Blockers::default();
    let all = things(corner);
    let clothed = corner.lights.iter().filter(|light| light.cloth.is_some());
    let cloths: Vec<(Id, usize)> =
        clothed.enumerate().map(|(number, light)| (light.id.clone(), all.len() + number)).collect();
    for (owner, thing) in all.iter().enumerate().filter(|(_, thing)| !thing.glass) {
        let cloth = match &thing.id {
            ThingId::Light(own) => cloths.iter().find(|(id, _)| id == own).map(|(_, number)| *number),
            _ => None,
        };
        let shades = |what: What| thing.kind != Kind::Person || what != What::Head;
        for (index, piece) in thing.pieces.iter().enumerate().filter(|(_, piece)| shades(piece.what)) {
            // Of a lamp with a cloth the cloth comes first.
            let number = cloth.filter(|_| index == 0).unwrap_or(owner);
            blockers.add(&piece.solid, number);
        }
    }
    for bound in bounds(&corner.brief.room, 0.0) {
        blockers.add(&bound.solid, NO_ONE);
    }
    (blockers, Owners { things: all.into_iter().map(|thing| thing.id).collect(), cloths })
}

/// A white board under the lamps: L = rho E / pi with E the mean over the board.
pub fn lit_board(mut board: Face, reflectance: f64, lit_lx: impl Fn(DVec3, DVec3) -> f64) -> Face {
    let [a, b, _, d] = board.outline[..] else { return board };
    let mut mean_lx = 0.0;
    for (x, weight_x) in BOARD {
        for (y, weight_y) in BOARD {
            let point = a + (b - a) * x + (d - a) * y;
            mean_lx += weight_x * weight_y * lit_lx(point, board.normal);
        }
    }
    board.luminance_cd_m2 = reflectance * mean_lx / std::f64::consts::PI;
    board
}

/// Light on the face towards the lens, lx: as measured, else as computed.
pub fn towards_lens_lx(corner: &Corner<'_>, computed: &FaceLight) -> (f64, Origin) {
    match corner.brief.measured_value(Quantity::LightFaceIlluminanceLx) {
        Some(measured) if measured > 0.0 => (measured, Origin::Measured),
        _ => (computed.camera_lx, Origin::Computed),
    }
}

/// Everything that reaches the face.
pub fn at_face(corner: &Corner<'_>) -> FaceLight {
    LightField::of(corner).at_face()
}
