//! What a seat and a take promise, by closed forms: the bands of the assessment where a formula gives the reading, plain
//! geometry where it does not. A search looks at tens of thousands of them before it places anything.

use super::optics::{Optics, Posed};
use super::seats::SeatPlace;
use super::stands::{carries_camera, stands_on_furniture};
use crate::assess::bands::{Row, band_of};
use crate::assess::score::weights;
use crate::corner::{Carrier, STACK_M, stands_on};
use crate::geometry::{DVec2, bearing_of, bearing_vector, distance_to_edge, wrap_180};
use crate::light::house;
use crate::plan::{Brief, Gear, Mounting, Opening, Purpose};
use crate::reading::{Aspect, Band, Quantity, trapezium};
use crate::shot::lens::{blur_disc_mm, circle_of_confusion_mm, depth_of_field};

/// Where the key stands: to the side of the lens, degrees; room that it wants from the eyes to the wall, m: some and all.
const KEY_DEG: f64 = 40.0;
const KEY_ROOM_M: [f64; 2] = [0.9, 1.7];
/// Room that a back light wants behind the person, m: some and all.
const BACK_ROOM_M: [f64; 2] = [0.4, 1.0];
/// A keyed screen wants so much room behind the person, m; less costs so much of the promise.
const KEYED_BEHIND_M: f64 = 1.2;
const KEYED_CLOSE: f64 = 0.3;
/// What a ceiling light gives a face at best, lx.
const CEILING_LX: f64 = 70.0;
/// A window within this of straight behind shows in most pictures, degrees, and costs so much of the promise.
const BEHIND_DEG: f64 = 30.0;
const WINDOW_BEHIND: f64 = 0.03;
/// With no tripod at hand a camera that is over no furniture costs so much of the promise; it is held so far under its lens, m.
const UNCARRIED: f64 = 0.5;
const HELD_BELOW_M: f64 = 0.05;
/// A worn microphone is so far from the mouth, m.
const WORN_M: f64 = 0.23;
/// A camera's own microphone hears from so far, m, and no longer from there.
const OWN_HEARS_M: [f64; 2] = [1.8, 2.8];
/// Distance at which voice and room are alike in a furnished room, with a directional microphone and without, m.
const CRITICAL_M: [f64; 2] = [1.1, 0.6];
/// The same for a microphone on the camera, which is aimed at the mouth: in the middle of what furnished rooms of 9 to 20 m2 give.
const ON_CAMERA_CRITICAL_M: f64 = 1.4;

/// What does not depend on the seat.
pub(super) struct Promising<'a> {
    brief: &'a Brief,
    floor_m: Vec<DVec2>,
    blur: Option<Band>,
    behind: Option<Band>,
    direct: Option<Band>,
    picture: Vec<(Quantity, Option<Band>)>,
    weights: [(Aspect, f64); 5],
    by_window: bool,
    by_ceiling: bool,
    keyed: bool,
    mounting: Option<Mounting>,
    /// Where nothing at hand carries a camera on the floor: what could on furniture, by its range of heights and its reach, m.
    on_furniture: Option<Vec<([f64; 2], f64)>>,
}

/// A seat with the room round it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Round {
    /// From the eyes to the wall the lens looks from, m.
    pub(super) ahead_m: f64,
    /// To what lies behind, m.
    behind_m: f64,
    /// The light's part of the promise, 0 to 1.
    light: f64,
    /// A window lies behind the person.
    window_behind: bool,
}

/// A take's own part of the promise.
#[derive(Debug, Clone, Copy)]
pub(super) struct TakePromise {
    picture: f64,
    pictures: f64,
    sound: f64,
    focal_length_mm: f64,
    f_number: f64,
    depth_m: f64,
    width_mm: f64,
}

impl<'a> Promising<'a> {
    pub(super) fn new(brief: &'a Brief, mounting: Option<Mounting>) -> Self {
        let row = Row { mounting, ..Row::before_layout(brief) };
        let band = |quantity: Quantity| band_of(quantity, &row).0;
        let picture = [
            Quantity::ShotCameraDistanceM,
            Quantity::ShotCameraViewAngleDeg,
            Quantity::ShotFrameHeightErrorPercent,
            Quantity::ShotFocusFrontToleranceM,
        ];
        Self {
            brief,
            floor_m: brief.room.outline(),
            blur: band(Quantity::ShotBackgroundBlurPercent),
            behind: band(Quantity::RoomBackgroundBehindM),
            direct: band(Quantity::SoundMicrophoneDirectToReverberantDb),
            picture: picture.map(|quantity| (quantity, band(quantity))).to_vec(),
            weights: weights(brief),
            by_window: brief.windows_shine(),
            keyed: brief.purpose == Purpose::KeyedBackground,
            by_ceiling: !brief.gear.values().any(|gear| gear.at_hand() && gear.light().is_some()),
            mounting,
            on_furniture: (!carries_camera(brief)).then(|| {
                let small = brief.gear.values().filter(|gear| gear.at_hand()).filter_map(Gear::support);
                let small =
                    small.filter(|support| stands_on_furniture(support) && support.common.offers("camera"));
                let small =
                    small.map(|support| ([support.height_min_m, support.height_max_m], support.reach_m));
                std::iter::once(([0.0, STACK_M], 0.0)).chain(small).collect()
            }),
        }
    }

    /// What a camera costs that nothing at hand carries where it would be.
    pub(super) fn uncarried(&self, place: &SeatPlace, bearing_deg: f64, eye_m: f64, posed: &Posed) -> f64 {
        let Some(carriers) = &self.on_furniture else { return 0.0 };
        let at = place.seat_m + bearing_vector(bearing_deg).truncate() * posed.ahead_m;
        let z = eye_m + posed.rise_m - HELD_BELOW_M;
        let is_carried = self.brief.room.furniture.iter().any(|(id, piece)| {
            let moved = place.desk.as_ref().filter(|(desk, _)| desk == id).map(|(_, at)| at);
            let (position, bearing) =
                moved.map_or((piece.position_m, piece.bearing_deg), |at| (at.position_m, at.bearing_deg));
            let carrier = Carrier::of_piece(id, piece, position.into(), bearing);
            stands_on(piece.kind)
                && carriers.iter().any(|(range, reach)| {
                    carrier.beyond_m(z, *range) <= 0.0 && carrier.beside_m(at) <= *reach
                })
        });
        if is_carried { 0.0 } else { UNCARRIED }
    }

    fn weight(&self, aspect: Aspect) -> f64 {
        self.weights.iter().find(|(of, _)| *of == aspect).map_or(0.0, |(_, weight)| *weight)
    }

    /// The room round a seat that faces a bearing.
    pub(super) fn round(&self, seat_m: DVec2, eye_m: f64, bearing_deg: f64) -> Round {
        let to = |turn: f64| bearing_vector(bearing_deg + turn).truncate();
        let reach = |turn: f64| distance_to_edge(&self.floor_m, seat_m, to(turn));
        let part = |metres: f64, [some, all]: [f64; 2]| ((metres - some) / (all - some)).clamp(0.0, 1.0);
        let behind_m =
            crate::corner::behind_m(&self.brief.room, &self.floor_m, seat_m.extend(eye_m), -to(0.0));
        let light = if self.by_window {
            self.window(seat_m, bearing_deg)
        } else if self.by_ceiling {
            self.ceiling(seat_m, eye_m, to(0.0))
        } else {
            let key = part(reach(KEY_DEG).max(reach(-KEY_DEG)), KEY_ROOM_M);
            0.8 * key + 0.2 * part(behind_m, BACK_ROOM_M)
        };
        let away = bearing_deg + 180.0;
        let window_behind = self.windows().any(|window| {
            let off = window.middle_m(&self.floor_m) - seat_m;
            wrap_180(bearing_of(off.extend(0.0)) - away).abs() < BEHIND_DEG
        });
        Round { ahead_m: reach(0.0), behind_m, light, window_behind }
    }

    /// How well the ceiling light would show the face: straight from it, by the inverse square law.
    fn ceiling(&self, seat_m: DVec2, eye_m: f64, ahead: DVec2) -> f64 {
        let lamp = house::face(&self.brief.room).middle;
        let off = lamp - seat_m.extend(eye_m);
        let facing = off.truncate().dot(ahead).max(0.0);
        let lux =
            house::FLUX_LM / std::f64::consts::PI * off.z.max(0.0) * facing / off.length_squared().powi(2);
        (lux / CEILING_LX).min(1.0)
    }

    /// How well a window would serve as the key: from the side and near.
    fn window(&self, seat_m: DVec2, bearing_deg: f64) -> f64 {
        self.windows()
            .map(|window| {
                let off = window.middle_m(&self.floor_m) - seat_m;
                let azimuth = wrap_180(bearing_of(off.extend(0.0)) - bearing_deg).abs();
                let side = trapezium(azimuth, [Some(15.0), Some(35.0), Some(75.0), Some(105.0)]);
                side * trapezium(off.length(), [None, None, Some(1.8), Some(5.0)])
            })
            .fold(0.0, f64::max)
    }

    fn windows(&self) -> impl Iterator<Item = &Opening> {
        self.brief.room.openings.values().filter(|opening| opening.is_open_to_light())
    }

    /// A take's own part.
    pub(super) fn of_take(&self, optics: &Optics<'_>, posed: &Posed) -> TakePromise {
        let (width, height) = optics.body.active_area_mm();
        let (width, height) = (width / posed.take.crop, height / posed.take.crop);
        let f_number =
            crate::shot::f_number(self.brief, optics.body, optics.lens, posed.take.focal_length_mm);
        let depth_m = posed.pose.subject_distance_m;
        let circle = circle_of_confusion_mm((width, height));
        let field = depth_of_field(posed.take.focal_length_mm, f_number, depth_m, circle);
        let lean = self.brief.person.lean().0;
        let tracked = self.brief.person.face_tracking && optics.body.face_tracking;
        let (mut sum, mut count) = (0.0, 0.0);
        for (quantity, band) in &self.picture {
            let value = match quantity {
                Quantity::ShotCameraDistanceM => posed.ahead_m.hypot(posed.rise_m),
                Quantity::ShotCameraViewAngleDeg => posed.rise_m.atan2(posed.ahead_m).to_degrees(),
                Quantity::ShotFrameHeightErrorPercent => 100.0 * (posed.take.size - 1.0),
                _ if tracked => continue,
                _ => depth_m - field.near_m - lean,
            };
            if let Some(band) = band {
                sum += trapezium(value, *band);
                count += 1.0;
            }
        }
        TakePromise {
            picture: sum,
            pictures: count,
            sound: self.sound(optics, posed),
            focal_length_mm: posed.take.focal_length_mm,
            f_number,
            depth_m,
            width_mm: width.max(height),
        }
    }

    /// How near a microphone comes out of such a frame, as it is heard.
    fn sound(&self, optics: &Optics<'_>, posed: &Posed) -> f64 {
        let camera_m = posed.ahead_m.hypot(posed.rise_m);
        let frame_m = optics.want.frame_height_m * posed.take.size;
        // Over the upper edge, aside of the axis by what the field widens: Fogon's own estimate.
        let out_of_frame_m = || {
            let spread = (frame_m / 2.0 / camera_m.max(0.1)).atan().cos();
            (optics.want.eye_line * frame_m + 0.20) * spread + 0.05
        };
        let (distance_m, critical_m) = match self.mounting {
            Some(Mounting::Boom) => (out_of_frame_m(), CRITICAL_M[0]),
            Some(Mounting::Desk) => ((out_of_frame_m() - 0.05).max(0.3), CRITICAL_M[0]),
            Some(Mounting::Lavalier | Mounting::Headset) => (WORN_M, CRITICAL_M[1]),
            // As far as the lens: it gains nothing over it, and counts as the one of four readings that distance moves.
            Some(Mounting::OnCamera) => {
                let band = self.direct.unwrap_or([None; 4]);
                return 0.5 * trapezium(20.0 * (ON_CAMERA_CRITICAL_M / camera_m).log10(), band);
            }
            // Its own microphone hears from so far; nearer gains nothing.
            Some(Mounting::BuiltIn) | None => {
                return trapezium(camera_m, [None, None, Some(OWN_HEARS_M[0]), Some(OWN_HEARS_M[1])]);
            }
        };
        let direct_db = 20.0 * (critical_m / distance_m).log10();
        let gain_db = 20.0 * (camera_m / distance_m).log10();
        let direct = trapezium(direct_db, [Some(-6.0), Some(6.0), None, None]);
        0.75 * direct + 0.25 * trapezium(gain_db, [Some(0.0), Some(6.0), None, None])
    }

    /// The promise of a take from a seat, about 0 to 1.
    pub(super) fn of(&self, take: &TakePromise, round: &Round) -> f64 {
        let disc = blur_disc_mm(
            take.focal_length_mm,
            take.f_number,
            take.depth_m,
            take.depth_m + round.behind_m.max(0.01),
        );
        let blur = self.blur.map(|band| trapezium(100.0 * disc / take.width_mm, band));
        let pictures = take.pictures + if blur.is_some() { 1.0 } else { 0.0 };
        let picture = (take.picture + blur.unwrap_or(0.0)) / f64::max(pictures, 1.0);
        let room = self.behind.map_or(1.0, |band| trapezium(round.behind_m, band));
        self.weight(Aspect::Picture) * picture
            + self.weight(Aspect::Room) * 0.5 * room
            + self.weight(Aspect::Light) * 0.5 * round.light
            + self.weight(Aspect::Sound) * 0.5 * take.sound
            + 0.002 * round.behind_m.min(3.0)
            - if round.window_behind { WINDOW_BEHIND } else { 0.0 }
            - if self.keyed && round.behind_m < KEYED_BEHIND_M { KEYED_CLOSE } else { 0.0 }
    }
}
