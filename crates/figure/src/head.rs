//! Head, ears and neck as one soft shape. Proportions of an adult head (vertex to chin 230 mm, breadth 151 mm, length 193 mm:
//! within the middle of published ranges, from memory); the face is nobody's.
use glam::Vec3;

use crate::shape::{at, common, ellipsoid, join, ramp, rod, turned, without};

/// Where the middle of an eyeball lies, and its radius.
pub(crate) const EYE: Vec3 = Vec3::new(0.0315, 0.0, 0.0705);
pub(crate) const EYE_RADIUS_M: f32 = 0.012;
/// The lids lie on the eyeball.
const LID_RADIUS_M: f32 = 0.0139;

/// Distance to the skin.
pub(crate) fn skin(point: Vec3) -> f32 {
    // Left and right are alike, and meet softly.
    let p = at(point.x.hypot(0.003), point.y, point.z);
    let far = ellipsoid(p, at(0.0, -0.01, 0.0), at(0.11, 0.16, 0.15));
    let neck = neck(p);
    if far > 0.05 {
        return neck.min(far);
    }
    let mut skin = skull(p);
    skin = brows_and_sockets(skin, p);
    skin = join(skin, nose(p), 0.010);
    skin = nostrils(skin, p);
    skin = mouth(skin, p);
    skin = join(skin, ear(p), 0.008);
    skin = join(skin, neck, 0.03);
    lids(skin, p)
}

fn skull(p: Vec3) -> f32 {
    let cranium = ellipsoid(p, at(0.0, 0.030, -0.014), at(0.0755, 0.086, 0.0965));
    let forehead = ellipsoid(p, at(0.0, 0.028, 0.026), at(0.064, 0.070, 0.0655));
    let middle = ellipsoid(p, at(0.0, -0.030, 0.034), at(0.060, 0.058, 0.053));
    let lower = ellipsoid(p, at(0.0, -0.070, 0.042), at(0.044, 0.044, 0.0465));
    let jaw = rod(p, at(0.053, -0.050, 0.004), at(0.0195, -0.098, 0.066), [0.013, 0.012]);
    let chin = ellipsoid(p, at(0.0, -0.101, 0.0765), at(0.0215, 0.0145, 0.015));
    let cheekbone = ellipsoid(p, at(0.044, -0.026, 0.056), at(0.0225, 0.017, 0.022));
    let cheek = ellipsoid(p, at(0.029, -0.043, 0.064), at(0.0215, 0.022, 0.0205));
    let muzzle = ellipsoid(p, at(0.0, -0.074, 0.0735), at(0.031, 0.024, 0.022));
    let mut all = join(cranium, forehead, 0.03);
    all = join(all, middle, 0.03);
    all = join(all, lower, 0.03);
    all = join(all, jaw, 0.034);
    all = join(all, chin, 0.022);
    all = join(all, cheekbone, 0.03);
    all = join(all, cheek, 0.032);
    join(all, muzzle, 0.026)
}

fn brows_and_sockets(skin: f32, p: Vec3) -> f32 {
    let brow = rod(p, at(0.012, 0.0190, 0.0810), at(0.048, 0.0180, 0.0605), [0.008, 0.008]);
    let socket = ellipsoid(p, at(0.031, -0.0005, 0.094), at(0.018, 0.011, 0.0125));
    let corner = ellipsoid(p, at(0.015, 0.0, 0.093), at(0.006, 0.010, 0.008));
    let with_brow = join(skin, brow, 0.024);
    without(without(with_brow, socket, 0.02), corner, 0.014)
}

fn nose(p: Vec3) -> f32 {
    let bridge = rod(p, at(0.0, 0.007, 0.0835), at(0.0, -0.0395, 0.1055), [0.0068, 0.009]);
    let tip = ellipsoid(p, at(0.0, -0.043, 0.108), at(0.0095, 0.0088, 0.0102));
    let wing = ellipsoid(p, at(0.011, -0.0462, 0.098), at(0.0064, 0.0064, 0.0092));
    join(join(bridge, tip, 0.010), wing, 0.007)
}

fn nostrils(skin: f32, p: Vec3) -> f32 {
    let nostril = ellipsoid(p, at(0.0068, -0.0545, 0.1035), at(0.0036, 0.004, 0.0058));
    without(skin, nostril, 0.004)
}

/// Where the lips lie: bent back from the middle, and up a little towards the corners, as in a face at rest.
pub(crate) fn mouth_space(p: Vec3) -> Vec3 {
    let square = p.x * p.x;
    at(p.x, p.y - 3.4 * square, p.z + 12.6 * square)
}

fn mouth(skin: f32, p: Vec3) -> f32 {
    let q = mouth_space(p);
    let upper = ellipsoid(q, at(0.0, -0.072, 0.0938), at(0.0265, 0.0046, 0.007));
    let bow = ellipsoid(q, at(0.006, -0.0705, 0.0945), at(0.009, 0.004, 0.0062));
    let lower = ellipsoid(q, at(0.0, -0.081, 0.0932), at(0.0225, 0.0054, 0.0074));
    let lips = join(join(upper, bow, 0.006), lower, 0.004);
    let skin = join(skin, lips, 0.0085);
    // The groove from nose to lip; the line between the lips is painted.
    let groove = rod(p, at(0.0, -0.059, 0.1015), at(0.0, -0.0665, 0.1025), [0.0014, 0.0020]);
    without(skin, groove, 0.006)
}

fn ear(p: Vec3) -> f32 {
    let q = turned(p - at(0.0775, -0.013, -0.012), -0.38);
    // Leaning back.
    let q = at(q.x, q.y, q.z + 0.16 * q.y);
    let shell = ellipsoid(q, at(0.0, 0.002, 0.0), at(0.0062, 0.0300, 0.0175));
    let lobe = ellipsoid(q, at(-0.001, -0.0265, 0.0045), at(0.0050, 0.0085, 0.0075));
    let bowl = ellipsoid(q, at(0.0075, -0.005, 0.0035), at(0.0070, 0.0105, 0.0085));
    let fold = ellipsoid(q, at(0.0070, 0.0130, -0.0010), at(0.0045, 0.0110, 0.0075));
    let mut ear = join(shell, lobe, 0.008);
    ear = without(ear, fold, 0.004);
    ear = without(ear, bowl, 0.004);
    // The flap before the bowl.
    join(ear, ellipsoid(q, at(0.0025, -0.006, 0.0130), at(0.0030, 0.0055, 0.0030)), 0.004)
}

/// Neck and what of the shoulders a collar shows.
pub(crate) fn neck(p: Vec3) -> f32 {
    let column = rod(p, at(0.0, -0.055, -0.022), at(0.0, -0.200, -0.042), [0.050, 0.0535]);
    let muscle = rod(p, at(0.058, -0.055, -0.020), at(0.016, -0.193, 0.006), [0.010, 0.008]);
    let larynx = ellipsoid(p, at(0.0, -0.143, 0.0195), at(0.011, 0.015, 0.010));
    let shoulder = rod(p, at(0.0, -0.175, -0.058), at(0.150, -0.240, -0.048), [0.038, 0.034]);
    let collarbone = rod(p, at(0.012, -0.206, 0.022), at(0.120, -0.214, -0.010), [0.007, 0.006]);
    let mut neck = join(column, muscle, 0.022);
    neck = join(neck, larynx, 0.018);
    neck = join(neck, shoulder, 0.07);
    // Soft in the middle, where left and right meet.
    let pit = ellipsoid(p, at(0.0, -0.205, 0.006), at(0.030, 0.022, 0.020));
    join(join(neck, collarbone, 0.03), pit, 0.03)
}

/// Lids: a shell about the eyeball, open in an almond.
fn lids(skin: f32, p: Vec3) -> f32 {
    let from = p - EYE;
    let shell = from.length() - LID_RADIUS_M;
    if shell.abs() > 0.012 {
        return skin;
    }
    // Only before the eyeball.
    let shell = common(shell, 0.002 - from.z, 0.004);
    let lids = without(shell, opening(p), 0.0022);
    let with_lids = join(skin, lids, 0.0065);
    // The eyeball has its place.
    without(with_lids, from.length() - EYE_RADIUS_M - 0.0002, 0.0008).max(-without_depth(p))
}

/// Keeps the opening open through whatever lies over it.
fn without_depth(p: Vec3) -> f32 {
    let from = p - EYE;
    common(opening(p), 0.004 - from.z, 0.001)
}

/// The almond between the lids, as a distance seen from the front: higher at the outer corner.
fn opening(p: Vec3) -> f32 {
    const HALF_WIDTH: f32 = 0.0138;
    let (x, y) = (p.x - EYE.x, p.y - EYE.y);
    let y = y - 0.06 * x;
    // Two arcs through both corners.
    let arc = |height: f32, y: f32| {
        let radius = (HALF_WIDTH * HALF_WIDTH + height * height) / (2.0 * height);
        (x * x + (y + radius - height).powi(2)).sqrt() - radius
    };
    arc(0.0046, y).max(arc(0.0046, -y))
}

/// How far a point of the skin is in the shade of the brow's hair, 0 to 1.
pub(crate) fn brow_hair(point: Vec3) -> f32 {
    let x = point.x.abs();
    let part = ((x - 0.0125) / 0.038).clamp(0.0, 1.0);
    let line = 0.0212 + 0.0034 * (1.0 - (1.8 * (part - 0.60)).powi(2)).max(-1.0) - 0.0040 * part * part;
    let thick = 0.0036 * (1.0 - 0.66 * part) + 0.0007;
    let inside = ramp(0.0095, 0.0140, x) * (1.0 - ramp(0.0485, 0.0530, x));
    inside * (1.0 - ramp(0.55 * thick, 1.25 * thick, (point.y - line).abs())) * ramp(0.035, 0.045, point.z)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Vertex, chin, breadth and length of the head (ISO 7250-1 and DIN 33402-2 put the middle adult between 215 and 240 mm,
    /// 145 and 160 mm, 180 and 208 mm: from memory), and the eyes half way up.
    #[test]
    fn the_head_is_as_large_as_a_head() {
        let reach = |direction: Vec3, from: Vec3| {
            let mut along = 0.3;
            while along > 0.0 && skin(from + direction * along) > 0.0 {
                along -= 0.0005;
            }
            along
        };
        let top = reach(Vec3::Y, at(0.0, 0.0, -0.014));
        assert!((0.105..0.125).contains(&top), "{top}");
        let breadth = 2.0 * reach(Vec3::X, at(0.0, 0.05, -0.014));
        assert!((0.145..0.160).contains(&breadth), "{breadth}");
        let length = reach(Vec3::Z, at(0.0, 0.03, 0.0)) + reach(-Vec3::Z, at(0.0, 0.03, 0.0));
        assert!((0.180..0.208).contains(&length), "{length}");
    }
}
