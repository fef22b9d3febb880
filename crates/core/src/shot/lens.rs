//! Thin-lens formulas: field, framed size, depth of field, blur (Ray, Applied Photographic Optics,
//! from memory). Lengths in mm inside a formula, metres at its edge.

/// Where the optics are published.
pub(super) const OPTICS: &str = "Ray, Applied Photographic Optics (from memory); thin lens";

/// Field of view of one side, degrees, for a side and an image distance over 0 mm: 2 atan(s / 2v) (pinhole).
pub fn field_of_view_deg(side_mm: f64, image_distance_mm: f64) -> f64 {
    2.0 * (side_mm / (2.0 * image_distance_mm)).atan().to_degrees()
}

/// Size framed at a subject distance, m: S = s (u - f) / f (thin lens); 0 or less where the subject stands within the focal
/// length.
pub fn frame_size_m(side_mm: f64, focal_length_mm: f64, subject_distance_m: f64) -> f64 {
    side_mm * (subject_distance_m * 1000.0 - focal_length_mm) / focal_length_mm / 1000.0
}

/// Distance that frames a size, m: u = f (1 + S / s) (thin lens); side over 0 mm.
pub fn distance_for_frame_m(side_mm: f64, focal_length_mm: f64, framed_m: f64) -> f64 {
    focal_length_mm * (1.0 + framed_m * 1000.0 / side_mm) / 1000.0
}

/// Focal length that frames a size from a distance, mm: f = u s / (S + s) (thin lens).
pub fn focal_for_frame_mm(side_mm: f64, distance_m: f64, framed_m: f64) -> f64 {
    distance_m * 1000.0 * side_mm / (framed_m * 1000.0 + side_mm)
}

/// Near and far limit and hyperfocal distance, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DepthOfField {
    /// Nearest sharp distance.
    pub near_m: f64,
    /// Farthest sharp distance; none when it is infinite.
    pub far_m: Option<f64>,
    /// Hyperfocal distance.
    pub hyperfocal_m: f64,
}

/// Depth of field, m: h = f^2 / (N c) + f; near = u (h - f) / (h + u - 2f); far = u (h - f) / (h - u), none from the hyperfocal
/// distance h on (thin lens). Circle of confusion and f-number over 0.
pub fn depth_of_field(
    focal_length_mm: f64,
    f_number: f64,
    subject_distance_m: f64,
    circle_mm: f64,
) -> DepthOfField {
    let (f, u) = (focal_length_mm, subject_distance_m * 1000.0);
    let h = f * f / (f_number * circle_mm) + f;
    DepthOfField {
        near_m: u * (h - f) / (h + u - 2.0 * f) / 1000.0,
        far_m: (u < h).then(|| u * (h - f) / (h - u) / 1000.0),
        hyperfocal_m: h / 1000.0,
    }
}

/// Blur disc of a point at `background_m` from the lens, mm: b = (f^2 / N) |x - u| / (x (u - f)) (thin lens); the subject beyond
/// the focal length.
pub fn blur_disc_mm(focal_length_mm: f64, f_number: f64, subject_distance_m: f64, background_m: f64) -> f64 {
    let (f, u, x) = (focal_length_mm, subject_distance_m * 1000.0, background_m * 1000.0);
    f * f / f_number * (x - u).abs() / (x * (u - f))
}

/// Smallest f-number that holds a lean towards the lens: N = f^2 a / (c (u - a) (u - f)); `None` where the lean
/// reaches the lens.
pub fn f_number_for_lean(
    focal_length_mm: f64,
    subject_distance_m: f64,
    lean_m: f64,
    circle_mm: f64,
) -> Option<f64> {
    let (f, u, a) = (focal_length_mm, subject_distance_m * 1000.0, lean_m * 1000.0);
    (a < u - f).then(|| f * f * a / (circle_mm * (u - a) * (u - f)))
}

/// How many times narrower than the 36 mm of full frame a 16:9 picture is; real x this = equivalent, for focal
/// lengths and, as to blur and depth alone, for f-numbers.
pub fn crop_factor(long_side_mm: f64) -> f64 {
    36.0 / long_side_mm
}

/// The usual circle of confusion: diagonal of the active area over 1500 (convention, common practice), mm.
pub fn circle_of_confusion_mm((width_mm, height_mm): (f64, f64)) -> f64 {
    width_mm.hypot(height_mm) / 1500.0
}
