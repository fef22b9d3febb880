//! Mirror images of a source in the walls of a box (Allen and Berkley 1979).

use std::f64::consts::PI;

use crate::geometry::DVec3;

/// Sides of a box in the order of its absorption: left, right, back, front, floor, ceiling.
pub const SIDES: usize = 6;

/// One image of the source.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Image {
    /// Where it stands, from the microphone, m.
    pub off_m: DVec3,
    /// How often each side reflects on the way.
    pub hits: [u16; SIDES],
}

impl Image {
    /// How many sides reflect on the way.
    pub fn order(&self) -> u32 {
        self.hits.iter().map(|n| u32::from(*n)).sum()
    }

    /// Product of the factors of all reflections over 4 pi d.
    pub fn amplitude(&self, factors: &[f64; SIDES]) -> f64 {
        let product: f64 = self.hits.iter().zip(factors).map(|(n, f)| f.powi(i32::from(*n))).product();
        product / (4.0 * PI * self.off_m.length())
    }
}

/// Along one axis: where an image stands from the microphone, and how often the near and the far side reflect.
type Along = (f64, u16, u16);

/// All images along an axis that are no farther than `reach_m`, or whose order is at most `order`.
fn along(side_m: f64, source_m: f64, microphone_m: f64, reach_m: f64) -> Vec<Along> {
    let most = (reach_m / (2.0 * side_m)).ceil() as i32 + 1;
    let mut all = Vec::with_capacity(4 * most as usize + 2);
    for k in -most..=most {
        for mirrored in [false, true] {
            let at = if mirrored { -source_m } else { source_m } + 2.0 * f64::from(k) * side_m;
            let off = at - microphone_m;
            if off.abs() <= reach_m {
                let (near, far) = ((k - i32::from(mirrored)).unsigned_abs(), k.unsigned_abs());
                all.push((off, near as u16, far as u16));
            }
        }
    }
    all
}

/// Every image no farther from the microphone than `reach_m`, in no order.
pub fn within(dimensions_m: [f64; 3], source_m: DVec3, microphone_m: DVec3, reach_m: f64) -> Vec<Image> {
    let axis = |i: usize| along(dimensions_m[i], source_m[i], microphone_m[i], reach_m);
    let (xs, ys, zs) = (axis(0), axis(1), axis(2));
    let reach2 = reach_m * reach_m;
    let mut all = Vec::new();
    for (x, x0, x1) in &xs {
        for (y, y0, y1) in &ys {
            let flat = x * x + y * y;
            if flat > reach2 {
                continue;
            }
            for (z, z0, z1) in &zs {
                if flat + z * z <= reach2 {
                    all.push(Image { off_m: DVec3::new(*x, *y, *z), hits: [*x0, *x1, *y0, *y1, *z0, *z1] });
                }
            }
        }
    }
    all
}

/// Every image of at most `order` reflections, in no order.
pub fn up_to_order(dimensions_m: [f64; 3], source_m: DVec3, microphone_m: DVec3, order: u32) -> Vec<Image> {
    let axis = |i: usize| {
        let reach = (f64::from(order) + 2.0) * dimensions_m[i];
        let mut all = along(dimensions_m[i], source_m[i], microphone_m[i], reach);
        all.retain(|(_, near, far)| u32::from(near + far) <= order);
        all
    };
    let (xs, ys, zs) = (axis(0), axis(1), axis(2));
    let mut all = Vec::new();
    for (x, x0, x1) in &xs {
        for (y, y0, y1) in &ys {
            let left = order.checked_sub(u32::from(x0 + x1 + y0 + y1));
            let Some(left) = left else { continue };
            for (z, z0, z1) in zs.iter().filter(|(_, z0, z1)| u32::from(z0 + z1) <= left) {
                all.push(Image { off_m: DVec3::new(*x, *y, *z), hits: [*x0, *x1, *y0, *y1, *z0, *z1] });
            }
        }
    }
    all
}

/// A sound that arrives at the microphone.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize)]
pub struct Arrival {
    /// After it left the source, s.
    pub time_s: f64,
    /// Against 1 at the source: product of reflection factors over 4 pi d.
    pub amplitude: f64,
    /// Reflections on the way.
    pub order: u32,
}

/// The first arrivals, earliest first, at equal times by order; `absorption` of the sides.
pub fn first_arrivals(
    dimensions_m: [f64; 3],
    absorption: &[f64; SIDES],
    source_m: DVec3,
    microphone_m: DVec3,
    count: usize,
    speed_m_s: f64,
) -> Vec<Arrival> {
    let factors = absorption.map(|alpha| (1.0 - alpha).max(0.0).sqrt());
    let volume: f64 = dimensions_m.iter().product();
    // So many images stand in a sphere of this radius, by the room's volume; more until there are enough.
    let mut reach =
        (3.0 * volume * count as f64 / (4.0 * PI)).cbrt() + dimensions_m.iter().sum::<f64>() / 4.0;
    let mut images = within(dimensions_m, source_m, microphone_m, reach);
    while images.len() < count {
        reach *= 1.1;
        images = within(dimensions_m, source_m, microphone_m, reach);
    }
    let mut all: Vec<Arrival> = images
        .iter()
        .map(|image| Arrival {
            time_s: image.off_m.length() / speed_m_s,
            amplitude: image.amplitude(&factors),
            order: image.order(),
        })
        .collect();
    all.sort_by(|a, b| a.time_s.total_cmp(&b.time_s).then(a.order.cmp(&b.order)));
    all.truncate(count);
    all
}
