//! What a purpose wants framed, and where the camera must be for it. Solved on the one projection, so that
//! what is solved is what is drawn: the closed forms of a level camera are the first guess, Newton's steps do the rest.

use crate::corner::{Corner, image_distance_mm};
use crate::geometry::{DVec2, DVec3, bearing_of, bearing_vector, wrap_360};
use crate::person::Landmarks;
use crate::plan::{Brief, CameraHeight, Orientation, Placement, Posture, Purpose};
use crate::shot::lens::{distance_for_frame_m, focal_for_frame_mm};

/// Shoulders are to take this part of a vertical picture's width: a little less than the nine tenths that they may, so that a
/// camera to the millimetre keeps it (Fogon's own rule).
const SHOULDER_PART: f64 = 0.895;
/// Headroom of wider shots, where thirds would leave too much (common practice, no source).
const HEADROOM_MEDIUM: f64 = 0.10;
const HEADROOM_WIDE: f64 = 0.08;
/// Air under and beside a performer with an instrument, parts of the frame (safe areas of EBU R 95, from memory).
const AIR_BELOW: f64 = 0.02;
const AIR_BESIDE: f64 = 0.05;
/// A seated performer is framed down to the lap, this much below the seat's top, m. Fogon's own rule.
const LAP_BELOW_SEAT_M: f64 = 0.05;
/// Width of a performer with arms and an instrument across the body where nobody gives it, m. Fogon's own rule.
const INSTRUMENT_WIDTH_M: f64 = 1.15;
/// Eyes that leave the lens by this much or more want room to look into, degrees (common practice, no source).
pub const LOOKS_ASIDE_DEG: f64 = 5.0;
/// 9:16 cut from the middle of a landscape frame keeps this part of its width: 81 / 256.
pub const VERTICAL_PART: f64 = 81.0 / 256.0;
/// Changes smaller than this end the solution, m and radians; after so many steps it ends anyway.
const SOLVED: f64 = 1e-10;
const STEPS: usize = 12;
/// Thirds are kept while they leave no more headroom than this (Fogon's own rule).
const HEADROOM_MOST: f64 = 0.15;
/// How far the lens goes below the eyes in the school slightly-below, degrees.
const BELOW_DEG: f64 = 6.0;
/// A camera that would look down by more is lowered to where such a shot is taken from, degrees. Fogon's own rule.
const LOOK_DOWN_MOST_DEG: f64 = 10.0;
/// How near that limit the solution comes, degrees.
const LOOKS_DOWN_TO_DEG: f64 = 0.01;
/// Where the eyes look in an audition tape, degrees beside the lens (5-12 common practice).
const AUDITION_GAZE_DEG: f64 = 8.0;

/// A height on the person and where it is to come in the picture.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FramingMark {
    /// Height above the eyes, m; negative below.
    pub above_eyes_m: f64,
    /// Place in the picture, parts from the top.
    pub from_top: f64,
}

/// What is to be framed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wanted {
    /// Height of the frame at the eyes of a level camera, m.
    pub frame_height_m: f64,
    /// Eye line as a fraction from the top, for a level camera.
    pub eye_line: f64,
    /// What comes where above: the eyes, or the crown where headroom decides.
    pub upper: FramingMark,
    /// What the lower edge cuts; `None` where the frame's height at the eyes is what is wanted.
    pub lower: Option<FramingMark>,
    /// How the camera is turned.
    pub orientation: Orientation,
    /// Gaze beside the lens, degrees, positive to camera right.
    pub gaze_deg: f64,
    /// The optical axis must be level.
    pub level_axis: bool,
}

impl Wanted {
    /// How far the lens goes to camera right of the line from the eyes, m, so that eyes that leave the lens have room to
    /// look into: the face on the third away from the gaze.
    pub fn aside_m(&self, brief: &Brief, gaze_deg: f64, image_ratio: f64) -> f64 {
        let aside = gaze_deg.abs() >= LOOKS_ASIDE_DEG && brief.schools.placement == Placement::Thirds;
        if aside { gaze_deg.signum() * self.frame_height_m * image_ratio / 6.0 } else { 0.0 }
    }

    /// The same with the frame that many times as high, the eyes on the same line.
    #[must_use]
    pub fn scaled(&self, by: f64) -> Self {
        Self {
            frame_height_m: self.frame_height_m * by,
            upper: FramingMark { above_eyes_m: 0.0, from_top: self.eye_line },
            lower: None,
            ..*self
        }
    }
}

/// A shot size: its name and where the lower edge cuts.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum ShotSize {
    CloseUp,
    HeadAndShoulders,
    MediumCloseUp,
    Medium,
    MediumFull,
}

impl ShotSize {
    /// Closest first.
    pub const ALL: [ShotSize; 5] = [
        ShotSize::CloseUp,
        ShotSize::HeadAndShoulders,
        ShotSize::MediumCloseUp,
        ShotSize::Medium,
        ShotSize::MediumFull,
    ];

    /// In words.
    pub fn label(self) -> &'static str {
        match self {
            ShotSize::CloseUp => "Close-up",
            ShotSize::HeadAndShoulders => "Head and shoulders",
            ShotSize::MediumCloseUp => "From the chest up",
            ShotSize::Medium => "From the waist up",
            ShotSize::MediumFull => "From mid-thigh up",
        }
    }

    /// Height of the lower edge, m; `None` for one that sitting hides.
    fn bottom_m(self, brief: &Brief, marks: &Landmarks) -> Option<f64> {
        match self {
            ShotSize::CloseUp => Some(marks.shoulder_m),
            ShotSize::HeadAndShoulders => Some(marks.armpit_m),
            ShotSize::MediumCloseUp => Some(marks.chest_m),
            ShotSize::Medium => Some(marks.waist_m),
            ShotSize::MediumFull => (brief.person.posture == Posture::Standing).then_some(marks.mid_thigh_m),
        }
    }

    /// Height of a level frame of this size, m, under the placement school.
    pub fn frame_height_m(self, brief: &Brief, marks: &Landmarks) -> Option<f64> {
        Some(Cut::at(brief, marks, self.bottom_m(brief, marks)?).height_m)
    }
}

/// The size of shot of a purpose; a performance frames what the instrument needs.
pub fn size_of(purpose: Purpose) -> Option<ShotSize> {
    match purpose {
        Purpose::TalkToLens | Purpose::AuditionTape | Purpose::KeyedBackground => {
            Some(ShotSize::MediumCloseUp)
        }
        Purpose::ScreenLesson => Some(ShotSize::HeadAndShoulders),
        Purpose::VerticalShort => Some(ShotSize::Medium),
        Purpose::Performance => None,
    }
}

/// A level frame from a lower edge: its height, its eye line, and whether headroom decided it.
struct Cut {
    height_m: f64,
    eye_line: f64,
    by_headroom: bool,
}

impl Cut {
    fn at(brief: &Brief, marks: &Landmarks, bottom_m: f64) -> Self {
        if brief.schools.placement == Placement::Centred {
            return Self { height_m: (marks.eye_m - bottom_m) * 2.0, eye_line: 0.5, by_headroom: false };
        }
        let height_m = (marks.eye_m - bottom_m) * 1.5;
        let headroom = (bottom_m + height_m - marks.crown_m) / height_m;
        if headroom <= HEADROOM_MOST {
            Self { height_m, eye_line: 1.0 / 3.0, by_headroom: false }
        } else {
            let wide = bottom_m < marks.waist_m - 1e-9;
            Self::under(marks, bottom_m, if wide { HEADROOM_WIDE } else { HEADROOM_MEDIUM })
        }
    }

    /// From the lower edge to the crown with so much headroom.
    fn under(marks: &Landmarks, bottom_m: f64, headroom: f64) -> Self {
        let height_m = (marks.crown_m - bottom_m) / (1.0 - headroom);
        Self { height_m, eye_line: headroom + (marks.crown_m - marks.eye_m) / height_m, by_headroom: true }
    }
}

/// The frame that a brief's purpose and placement school ask for; `image_ratio` is width over height.
pub fn wanted(brief: &Brief, marks: &Landmarks, image_ratio: f64) -> Wanted {
    let orientation = match brief.purpose {
        Purpose::VerticalShort => Orientation::Portrait,
        _ => Orientation::Landscape,
    };
    let mut cut = match size_of(brief.purpose) {
        Some(size) => Cut::at(brief, marks, size.bottom_m(brief, marks).unwrap_or(marks.chest_m)),
        None => performer(brief, marks, image_ratio),
    };
    // A vertical picture, and the vertical cut of a landscape one, must hold the shoulders.
    let width_ratio = match brief.purpose {
        Purpose::VerticalShort => Some(image_ratio),
        _ if brief.recording.vertical_cut => Some(image_ratio * VERTICAL_PART),
        _ => None,
    };
    let mut by_width = false;
    if let Some(ratio) = width_ratio {
        let least = brief.person.shoulder_breadth_m() / SHOULDER_PART / ratio;
        if cut.height_m < least {
            let centred = brief.schools.placement == Placement::Centred;
            let over = HEADROOM_MEDIUM + (marks.crown_m - marks.eye_m) / least;
            let eye_line = if centred { 0.5 } else { over };
            cut = Cut { height_m: least, eye_line, by_headroom: false };
            by_width = true;
        }
    }
    let upper = if cut.by_headroom {
        let above_eyes_m = marks.crown_m - marks.eye_m;
        FramingMark { above_eyes_m, from_top: cut.eye_line - above_eyes_m / cut.height_m }
    } else {
        FramingMark { above_eyes_m: 0.0, from_top: cut.eye_line }
    };
    Wanted {
        frame_height_m: cut.height_m,
        eye_line: cut.eye_line,
        upper,
        lower: (!by_width)
            .then(|| FramingMark { above_eyes_m: -(1.0 - cut.eye_line) * cut.height_m, from_top: 1.0 }),
        orientation,
        gaze_deg: if brief.purpose == Purpose::AuditionTape { AUDITION_GAZE_DEG } else { 0.0 },
        level_axis: brief.purpose == Purpose::AuditionTape,
    }
}

/// The frame that holds a performer and the instrument: from the lap (seated) or mid-thigh to the crown, and as wide
/// as both, with air around them.
fn performer(brief: &Brief, marks: &Landmarks, image_ratio: f64) -> Cut {
    let bottom = match brief.person.seat_height() {
        Some((seat, _)) => seat - LAP_BELOW_SEAT_M,
        None => marks.mid_thigh_m,
    };
    let width = brief.person.instrument_width_m.unwrap_or(INSTRUMENT_WIDTH_M);
    let width = width.max(brief.person.shoulder_breadth_m());
    let by_height = (marks.crown_m - bottom) / (1.0 - HEADROOM_WIDE - AIR_BELOW);
    let by_width = width / (image_ratio * (1.0 - 2.0 * AIR_BESIDE));
    let height_m = by_height.max(by_width);
    let eye_line = HEADROOM_WIDE + (marks.crown_m - marks.eye_m) / height_m;
    Cut { height_m, eye_line, by_headroom: true }
}

/// A camera's place and direction.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pose {
    /// Camera point, m.
    pub position_m: DVec3,
    /// Bearing of the axis, degrees.
    pub bearing_deg: f64,
    /// Tilt, degrees, positive up.
    pub tilt_deg: f64,
    /// Depth of the eyes along the axis, m; also the focus distance.
    pub subject_distance_m: f64,
}

/// On which line from the eyes the lens stands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Line {
    /// At this angle above the eyes, radians; the camera is tilted to frame.
    Elevation(f64),
    /// Level, at the height that frames.
    Level,
}

impl Line {
    /// The line of a brief's school and purpose.
    pub fn of(brief: &Brief, wanted: &Wanted) -> Self {
        match brief.schools.camera_height {
            _ if wanted.level_axis => Line::Level,
            CameraHeight::Level => Line::Elevation(0.0),
            CameraHeight::SlightlyBelow => Line::Elevation(-BELOW_DEG.to_radians()),
        }
    }

    /// The line on which the camera of a corner stands now.
    pub fn now(corner: &Corner<'_>, wanted: &Wanted) -> Self {
        if wanted.level_axis {
            return Line::Level;
        }
        let off = corner.view.position_m - corner.eyes_m;
        let flat = off.truncate().dot(-corner.view.forward.truncate().normalize_or_zero());
        Line::Elevation(off.z.atan2(flat))
    }
}

/// Where a lens of `focal_length_mm` on an image of `image_height_mm` must be to frame what is wanted, when the
/// person at `eyes_m` has the lens at bearing `to_lens_deg`.
pub fn pose(
    brief: &Brief,
    wanted: &Wanted,
    focal_length_mm: f64,
    image_height_mm: f64,
    eyes_m: DVec3,
    to_lens_deg: f64,
) -> Pose {
    let mut line = Line::of(brief, wanted);
    let on = |line| pose_on(line, wanted, focal_length_mm, image_height_mm, eyes_m, to_lens_deg);
    let mut found = on(line);
    for _ in 0..STEPS {
        let over_deg = -found.tilt_deg - LOOK_DOWN_MOST_DEG;
        // Lower by as much, the tilt is less by nearly as much.
        let Line::Elevation(angle) = line else { break };
        if over_deg < LOOKS_DOWN_TO_DEG {
            break;
        }
        line = Line::Elevation(angle - over_deg.to_radians());
        found = on(line);
    }
    found
}

/// As [`pose`], on a given line from the eyes.
pub fn pose_on(
    line: Line,
    wanted: &Wanted,
    focal_length_mm: f64,
    image_height_mm: f64,
    eyes_m: DVec3,
    to_lens_deg: f64,
) -> Pose {
    let solved = Aim::on(line, wanted, focal_length_mm, image_height_mm);
    let to_lens = bearing_vector(to_lens_deg);
    Pose {
        position_m: eyes_m + to_lens * solved.lens.x + DVec3::Z * solved.lens.y,
        bearing_deg: wrap_360(bearing_of(-to_lens)),
        tilt_deg: solved.tilt.to_degrees(),
        subject_distance_m: solved.depth_m(),
    }
}

/// Depth of the eyes, m, from which a lens on a line frames what is wanted.
pub fn depth_on(line: Line, wanted: &Wanted, focal_length_mm: f64, image_height_mm: f64) -> f64 {
    Aim::on(line, wanted, focal_length_mm, image_height_mm).depth_m()
}

/// Focal length, mm, with which a lens on a line frames what is wanted from a depth of the eyes: the inverse of [`depth_on`].
pub fn focal_on(line: Line, wanted: &Wanted, depth_m: f64, image_height_mm: f64) -> f64 {
    let mut focal = focal_for_frame_mm(image_height_mm, depth_m, wanted.frame_height_m);
    // Depth and focal length are nearly proportional.
    for _ in 0..STEPS {
        let part = depth_m / depth_on(line, wanted, focal, image_height_mm);
        if !(0.5..=2.0).contains(&part) {
            break;
        }
        focal *= part;
        if (part - 1.0).abs() < SOLVED {
            break;
        }
    }
    focal
}

/// Tilt, radians, and focal length, mm, that frame what is wanted from where a lens stands: `flat_m` from the eyes and
/// `above_m` over them. `None` where nothing does.
pub fn from_here(wanted: &Wanted, image_height_mm: f64, flat_m: f64, above_m: f64) -> Option<(f64, f64)> {
    let lens = DVec2::new(flat_m, above_m);
    let rise = (0.5 - wanted.eye_line) * wanted.frame_height_m;
    // The eyes lie `rise` above the axis at the depth where the frame has the wanted height.
    let beside = (rise / lens.length()).clamp(-1.0, 1.0).asin();
    let tilt = if wanted.level_axis { 0.0 } else { -above_m.atan2(flat_m) - beside };
    let mut aim = Aim { lens, tilt };
    let mut focal = focal_for_frame_mm(image_height_mm, aim.depth_m(), wanted.frame_height_m);
    for _ in 0..if wanted.level_axis { 0 } else { STEPS } {
        let off = |by: DVec2| {
            let turned = Aim { lens, tilt: aim.tilt + by.x };
            turned.off(wanted, focal * (1.0 + by.y), image_height_mm)
        };
        let here = off(DVec2::ZERO)?;
        let (turn, zoom) =
            ((off(DVec2::new(1e-6, 0.0))? - here) / 1e-6, (off(DVec2::new(0.0, 1e-6))? - here) / 1e-6);
        let determinant = turn.perp_dot(zoom);
        if determinant.abs() < 1e-12 {
            return None;
        }
        let step = DVec2::new(-here.perp_dot(zoom), -turn.perp_dot(here)) / determinant;
        aim.tilt += step.x;
        focal *= 1.0 + step.y;
        if step.length() < SOLVED {
            break;
        }
    }
    (focal.is_finite() && focal > 0.0).then_some((aim.tilt, focal))
}

/// A lens in the upright plane through eyes and lens; the eyes are at the origin, x runs to the lens, y up.
#[derive(Debug, Clone, Copy)]
struct Aim {
    lens: DVec2,
    tilt: f64,
}

impl Aim {
    /// What would be right if all of the person lay as deep as the eyes.
    fn level(line: Line, wanted: &Wanted, focal_length_mm: f64, image_height_mm: f64) -> Self {
        let depth = distance_for_frame_m(image_height_mm, focal_length_mm, wanted.frame_height_m);
        let rise = (0.5 - wanted.eye_line) * wanted.frame_height_m;
        match line {
            Line::Level => Self { lens: DVec2::new(depth, -rise), tilt: 0.0 },
            Line::Elevation(angle) => {
                let lens = DVec2::from_angle(angle) * depth.hypot(rise);
                Self { lens, tilt: -angle - (rise / depth).atan() }
            }
        }
    }

    /// The aim on a line that frames what is wanted.
    fn on(line: Line, wanted: &Wanted, focal_length_mm: f64, image_height_mm: f64) -> Self {
        let first = Self::level(line, wanted, focal_length_mm, image_height_mm);
        first.solved(line, wanted, focal_length_mm, image_height_mm).unwrap_or(first)
    }

    /// Depth of the eyes along the axis, m.
    fn depth_m(&self) -> f64 {
        self.lens.x * self.tilt.cos() - self.lens.y * self.tilt.sin()
    }

    /// How far the upper and the lower mark (or the height) come out from what is wanted, parts of the picture.
    fn off(&self, wanted: &Wanted, focal_length_mm: f64, image_height_mm: f64) -> Option<DVec2> {
        let image = image_distance_mm(focal_length_mm, self.depth_m())? / image_height_mm;
        let (sin, cos) = self.tilt.sin_cos();
        let off = |mark: FramingMark| {
            let at = DVec2::new(0.0, mark.above_eyes_m) - self.lens;
            let (depth, up) = (at.y * sin - at.x * cos, at.x * sin + at.y * cos);
            0.5 - up / depth * image - mark.from_top
        };
        let second = match wanted.lower {
            Some(mark) => off(mark),
            None => self.depth_m() / image / wanted.frame_height_m - 1.0,
        };
        Some(DVec2::new(off(wanted.upper), second))
    }

    /// This aim changed: the distance on the line, and the tilt or (level) the height.
    fn changed(&self, line: Line, by: DVec2) -> Self {
        match line {
            Line::Level => Self { lens: self.lens + by, tilt: 0.0 },
            Line::Elevation(angle) => {
                Self { lens: self.lens + DVec2::from_angle(angle) * by.x, tilt: self.tilt + by.y }
            }
        }
    }

    /// Newton's steps until both marks are where they are wanted; `None` where they lead nowhere.
    fn solved(self, line: Line, wanted: &Wanted, focal_length_mm: f64, image_height_mm: f64) -> Option<Self> {
        let off = |aim: &Self| aim.off(wanted, focal_length_mm, image_height_mm);
        let mut aim = self;
        for _ in 0..STEPS {
            let here = off(&aim)?;
            let slope = |by: DVec2| Some((off(&aim.changed(line, by))? - here) / 1e-6);
            let (along, turn) = (slope(DVec2::new(1e-6, 0.0))?, slope(DVec2::new(0.0, 1e-6))?);
            let determinant = along.perp_dot(turn);
            if determinant.abs() < 1e-12 {
                return None;
            }
            let step = DVec2::new(-here.perp_dot(turn), -along.perp_dot(here)) / determinant;
            aim = aim.changed(line, step);
            if step.length() < SOLVED {
                break;
            }
        }
        aim.depth_m().is_finite().then_some(aim)
    }
}
/// What is wanted of this corner's frame.
pub fn wanted_of(corner: &Corner<'_>) -> Wanted {
    wanted(corner.brief, &corner.landmarks, corner.image_mm.0 / corner.image_mm.1)
}
