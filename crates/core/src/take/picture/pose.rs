//! Where the camera really is, from four marks on the person and an upright edge: least squares on the plan's own projection.
//!
//! The person is taken to sit where the plan has them. Uprights meet in one point, below the picture where the camera looks down: by
//! how much an edge at the side leans tells the tilt of a camera that is level; an edge near the middle tells whether it is; with two
//! both are told. Without an edge the tilt rests on how the shoulders lie under the head, and the bounds are wider.

use nalgebra::{SMatrix, SVector};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::marks::{Marks, Place};
use crate::corner::{Corner, face_marks};
use crate::geometry::{DVec3, Pinhole};

/// A mark is set to so many pixels of a picture that is 1920 wide.
const MARK_PX: f64 = 3.0;
const PICTURE_PX: f64 = 1920.0;
/// How far a person's own marks are from those of their stature, m. Fogon's own rule, after Drillis and Contini's scatter.
const PERSON_M: f64 = 0.006;
/// What is taken to be possible before anything is looked at: aside, further away, higher, turned aside, up, and over. m and degrees.
/// Fogon's own rule: a plan that was roughly laid.
const POSSIBLE: [f64; 6] = [0.10, 0.50, 0.30, 10.0, 10.0, 4.0];
/// An edge nearer to the middle than this tells whether the camera is level, parts of the width.
const MIDDLE: f64 = 0.15;
/// An edge shorter than this tells nothing, parts of the height.
const SHORTEST: f64 = 0.1;
const STEPS: usize = 30;

/// A value with how far it may be off.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Solved {
    /// By so much it differs from the plan.
    pub by: f64,
    /// Plus or minus, one standard deviation.
    pub sigma: f64,
}

/// Where the camera is, against where it is planned.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Pose {
    /// Higher, m.
    pub higher: Solved,
    /// Further from the eyes, m.
    pub further: Solved,
    /// Turned up, degrees.
    pub turned_up: Solved,
    /// Turned to its right, degrees: the face moves left in the picture.
    pub turned_right: Solved,
    /// Turned over to the right, degrees; none where no edge tells.
    pub rolled: Option<Solved>,
    /// Lens to eyes, m.
    pub distance_m: f64,
    /// Height of the lens over the floor, m.
    pub height_m: f64,
    /// An edge tells the tilt.
    pub by_edge: bool,
}

/// Aside, away, up, m; turned aside, up, over, radians.
type Change = SVector<f64, 6>;

/// A camera that is also turned over.
struct Turned {
    view: Pinhole,
    roll: f64,
}

impl Turned {
    fn of(corner: &Corner<'_>, change: &Change) -> Self {
        let camera = &corner.layout.camera;
        let away = (corner.view.position_m - corner.eyes_m).with_z(0.0).normalize_or(DVec3::Y);
        // To the right of the picture.
        let aside = corner.view.right;
        let mut view = Pinhole::new(
            corner.view.position_m + aside * change[0] + away * change[1] + DVec3::Z * change[2],
            camera.bearing_deg + change[3].to_degrees(),
            camera.tilt_deg + change[4].to_degrees(),
            1.0,
            1.0,
            1.0,
        );
        (view.width_ratio, view.height_ratio) = (corner.view.width_ratio, corner.view.height_ratio);
        Self { view, roll: change[5] }
    }

    /// Right and up of the axis, over the depth.
    fn seen(&self, point: DVec3) -> [f64; 2] {
        let off = point - self.view.position_m;
        let depth = self.view.forward.dot(off).max(1e-3);
        self.over(self.view.right.dot(off) / depth, self.view.up.dot(off) / depth)
    }

    /// Turned over: what stands upright leans to the left in the picture.
    fn over(&self, right: f64, up: f64) -> [f64; 2] {
        let (sin, cos) = self.roll.sin_cos();
        [right * cos - up * sin, right * sin + up * cos]
    }

    /// Where an upright through a point of the picture crosses another height of it.
    fn upright(&self, [right, up]: [f64; 2], to_up: f64) -> f64 {
        // The point in which uprights meet, as homogeneous coordinates of the picture.
        let z = DVec3::Z;
        let [x, y] = self.over(self.view.right.dot(z), self.view.up.dot(z));
        let w = self.view.forward.dot(z);
        let (along_x, along_y) = (x - right * w, y - up * w);
        right + along_x / along_y * (to_up - up)
    }
}

/// The camera's place from the marks; `cut` brings a place of the still to the planned picture, `width_px` is the width of that.
pub(super) fn solve(corner: &Corner<'_>, marks: &Marks, cut: &dyn Fn(Place) -> Place, width_px: f64) -> Pose {
    let ratios = (corner.view.width_ratio, corner.view.height_ratio);
    let plane = |place: Place| {
        let [x, y] = cut(place);
        [(x - 0.5) * ratios.0, (0.5 - y) * ratios.1]
    };
    let points = face_marks(corner);
    let nearer = |one: Place| {
        let apart = |point: DVec3| {
            let (x, y) = corner.view.project(point).unwrap_or((0.5, 0.5));
            (x - one[0]).hypot(y - one[1])
        };
        let [right, left] = points.shoulders_m;
        if apart(right) < apart(left) { right } else { left }
    };
    let seen: Vec<(DVec3, [f64; 2])> = [
        (points.crown_m, marks.crown),
        (points.eyes_m, marks.eyes),
        (points.chin_m, marks.chin),
        (nearer(cut(marks.shoulder)), marks.shoulder),
    ]
    .into_iter()
    .map(|(point, mark)| (point, plane(mark)))
    .collect();
    let edges: Vec<[[f64; 2]; 2]> = marks
        .edges
        .iter()
        .filter(|[a, b]| (a[1] - b[1]).abs() > SHORTEST)
        .map(|[a, b]| [plane(*a), plane(*b)])
        .collect();
    let is_middle = |edge: &[[f64; 2]; 2]| ((edge[0][0] + edge[1][0]) / 2.0).abs() < MIDDLE * ratios.0;
    let rolls = edges.len() > 1 || edges.iter().any(is_middle);
    // A pixel of a finer picture is not set more finely by hand.
    let pixel = ratios.0 * MARK_PX / PICTURE_PX.min(4.0 * width_px);
    let person = PERSON_M / (corner.eyes_m - corner.view.position_m).length().max(0.2);
    let residuals = |change: &Change| -> Vec<f64> {
        let camera = Turned::of(corner, change);
        let mut all = Vec::with_capacity(16);
        for (index, (point, mark)) in seen.iter().enumerate() {
            let sigma = if index == 1 { pixel } else { pixel.hypot(person) };
            let [x, y] = camera.seen(*point);
            all.push((x - mark[0]) / if index == 3 { sigma * 3.0 } else { sigma });
            all.push((y - mark[1]) / sigma);
        }
        for [a, b] in &edges {
            all.push((camera.upright(*a, b[1]) - b[0]) / (pixel * std::f64::consts::SQRT_2));
        }
        for (index, possible) in POSSIBLE.iter().enumerate() {
            let sigma = if index < 3 { *possible } else { possible.to_radians() };
            // Without an edge that tells it, the camera is taken to be level.
            let sigma = if index == 5 && !rolls { 1e-6 } else { sigma };
            all.push(change[index] / sigma);
        }
        all
    };
    let (change, covariance) = least_squares(&residuals);
    let camera = Turned::of(corner, &change);
    let solved = |index: usize, scale: f64| Solved {
        by: change[index] * scale,
        sigma: covariance[(index, index)].max(0.0).sqrt() * scale,
    };
    let degree = 1f64.to_degrees();
    let (planned, now) = (
        (corner.view.position_m - corner.eyes_m).length(),
        (camera.view.position_m - corner.eyes_m).length(),
    );
    Pose {
        higher: solved(2, 1.0),
        further: Solved { by: now - planned, sigma: solved(1, 1.0).sigma },
        turned_up: solved(4, degree),
        turned_right: solved(3, degree),
        rolled: rolls.then(|| Solved { by: -change[5] * degree, ..solved(5, degree) }),
        distance_m: now,
        height_m: camera.view.position_m.z,
        by_edge: edges.iter().any(|edge| !is_middle(edge)) || edges.len() > 1,
    }
}

/// Gauss and Newton with damping (Levenberg 1944, Marquardt 1963): the change with the least squares, and its covariance.
fn least_squares(residuals: &dyn Fn(&Change) -> Vec<f64>) -> (Change, SMatrix<f64, 6, 6>) {
    let square = |all: &[f64]| all.iter().map(|r| r * r).sum::<f64>();
    let mut at = Change::zeros();
    let mut own = residuals(&at);
    let mut damping = 1e-3;
    let normal = |at: &Change, own: &[f64]| {
        let step = 1e-6;
        let columns: Vec<Vec<f64>> = (0..6)
            .map(|index| {
                let mut moved = *at;
                moved[index] += step;
                residuals(&moved).iter().zip(own).map(|(a, b)| (a - b) / step).collect()
            })
            .collect();
        let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        let matrix = SMatrix::<f64, 6, 6>::from_fn(|i, j| dot(&columns[i], &columns[j]));
        let right = Change::from_fn(|i, _| dot(&columns[i], own));
        (matrix, right)
    };
    for _ in 0..STEPS {
        let (matrix, right) = normal(&at, &own);
        let damped = matrix + SMatrix::from_diagonal(&matrix.diagonal()) * damping;
        let Some(step) = damped.lu().solve(&right) else { break };
        let next = at - step;
        let found = residuals(&next);
        if square(&found) <= square(&own) {
            let done = square(&own) - square(&found) < 1e-12;
            (at, own, damping) = (next, found, damping * 0.3);
            if done {
                break;
            }
        } else {
            damping *= 10.0;
        }
    }
    let covariance = normal(&at, &own).0.try_inverse().unwrap_or_else(SMatrix::zeros);
    (at, covariance)
}
