//! The shot over distance: along the line from the eyes to the lens, which focal length frames what from where, what
//! that does to face, background and microphone, and where the room or the lens ends it. Closed forms of a level
//! camera throughout: a chart, not a verdict.

use serde::Serialize;
use utoipa::ToSchema;

use super::fit::{self, Stop};
use super::framing::{self, Line, ShotSize};
use super::lens::{blur_disc_mm, crop_factor};
use super::perspective::{ZONES, enlargement_percent, school_scores};
use crate::corner::{Corner, MICROPHONE_MARGIN_M};
use crate::geometry::bearing_of;
use crate::plan::{Id, LensSchool, Orientation};

/// The chart begins here, m: nearer no face is filmed.
const FROM_M: f64 = 0.30;
/// Beyond the wall it goes on so far, m, and no farther than this.
const BEYOND_M: f64 = 0.30;
const TO_M: f64 = 8.0;
/// Distances at which the wanted frame is told.
const STATIONS: usize = 49;
/// Focal lengths that lenses are engraved with, mm.
const ENGRAVED_MM: [f64; 19] = [
    4.0, 5.0, 7.0, 9.0, 12.0, 14.0, 16.0, 18.0, 20.0, 24.0, 28.0, 35.0, 40.0, 50.0, 60.0, 70.0, 85.0, 105.0,
    135.0,
];
/// A frame that differs by no more than this from the wanted one is the wanted one.
const SAME_FRAME: f64 = 0.02;

/// The chart of one corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Chart {
    /// How the camera stands now.
    pub now: Now,
    /// Lens to eyes on the chart, least and most, m.
    #[schema(value_type = Vec<f64>)]
    pub distance_m: [f64; 2],
    /// Focal lengths on the chart, least and most, mm.
    #[schema(value_type = Vec<f64>)]
    pub focal_length_mm: [f64; 2],
    /// Height of the picture on the sensor, mm.
    pub image_height_mm: f64,
    /// Equivalent focal length over the real one.
    pub crop_factor: f64,
    /// The farthest the lens can be from the eyes on this line, m.
    pub room_m: f64,
    /// What ends it, in words.
    pub ends_at: String,
    /// Zones of perspective, nearest first.
    pub zones: Vec<Zone>,
    /// Shot sizes as curves over the distance, closest first.
    pub shots: Vec<ShotCurve>,
    /// Lenses at hand.
    pub lenses: Vec<LensBand>,
    /// The wanted frame at every distance.
    pub along: Vec<Station>,
    /// The wanted frame at every focal length engraved on the lenses at hand.
    pub takes: Vec<Take>,
    /// The two schools, each at its best on this line.
    pub schools: Vec<SchoolBest>,
}

/// How the camera stands now.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Now {
    /// Lens to eyes, m.
    pub distance_m: f64,
    /// Real focal length, mm.
    pub focal_length_mm: f64,
    /// The frame is the wanted one within 2 percent.
    pub frames: bool,
}

/// A zone of perspective.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Zone {
    /// Its name.
    pub name: &'static str,
    /// Where it begins, m.
    pub from_m: f64,
    /// Where it ends, m.
    pub to_m: f64,
}

/// A shot size over the distance: f = u s / (S + s).
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ShotCurve {
    /// In words.
    pub label: String,
    /// Height of the frame at the eyes, m.
    pub frame_height_m: f64,
    /// What the purpose wants.
    pub wanted: bool,
}

/// A lens at hand on the camera in use.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LensBand {
    /// Gear id.
    pub id: Id,
    /// What people call it.
    pub label: String,
    /// Shortest focal length, mm.
    pub focal_min_mm: f64,
    /// Longest focal length, mm.
    pub focal_max_mm: f64,
    /// Nearest focus from the sensor, m.
    pub nearest_focus_m: f64,
    /// The one in use.
    pub in_use: bool,
}

/// The wanted frame from one distance.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Station {
    /// Lens to eyes, m.
    pub distance_m: f64,
    /// Focal length that frames, mm.
    pub focal_length_mm: f64,
    /// How much larger the nose looks than from 5 ft, percent; none where the lens would touch the face.
    pub nose_percent: Option<f64>,
    /// Blur of the wall behind at the school's aperture, percent of the width.
    pub blur_percent: f64,
    /// Width of the wall behind that comes into view, m.
    pub background_width_m: f64,
    /// Nearest a boomed microphone comes to the mouth out of the picture, m.
    pub microphone_m: f64,
    /// How much weaker the voice is in a microphone on the camera, dB; negative.
    pub on_camera_db: f64,
    /// How well it serves the near, wide school, percent.
    pub near_and_wide_percent: f64,
    /// How well it serves the far, long school, percent.
    pub far_and_long_percent: f64,
}

/// One focal length at its distance.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Take {
    /// The lens.
    pub lens: Id,
    /// What it gives.
    #[serde(flatten)]
    pub station: Station,
    /// What keeps the camera from there, in words.
    pub kept_by: Option<String>,
}

/// A school at its best on this line.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SchoolBest {
    /// Choice of the school `lens`.
    pub id: &'static str,
    /// In words.
    pub label: &'static str,
    /// The one chosen in the brief.
    pub chosen: bool,
    /// Where it does best with the lenses at hand; none where nothing fits.
    pub best: Option<Station>,
}

/// What a chart is computed from.
struct Optics<'a> {
    corner: &'a Corner<'a>,
    want: framing::Wanted,
    line: Line,
    to_lens_deg: f64,
    behind_m: f64,
    crop: f64,
    long_mm: f64,
    width_ratio: f64,
}

/// The chart of a corner.
pub fn chart(corner: &Corner<'_>) -> Chart {
    let (width, height) = corner.image_mm;
    let want = super::framing::wanted_of(corner);
    let optics = Optics {
        corner,
        line: Line::now(corner, &want),
        want,
        to_lens_deg: bearing_of(corner.to_lens()),
        behind_m: corner.background_behind_m(),
        crop: crop_factor(width.max(height)),
        long_mm: width.max(height),
        width_ratio: width / height,
    };
    let lenses: Vec<LensBand> = corner
        .brief
        .gear
        .iter()
        .filter(|(id, g)| g.at_hand() || **id == corner.layout.camera.lens)
        .filter_map(|(id, g)| Some((id, g.lens()?)))
        .filter(|(_, lens)| corner.brief.mounts(&corner.layout.camera.body, lens))
        .map(|(id, lens)| LensBand {
            id: id.clone(),
            label: lens.common.label.clone(),
            focal_min_mm: lens.focal_min_mm,
            focal_max_mm: lens.focal_max_mm,
            nearest_focus_m: lens.nearest_focus_m,
            in_use: *id == corner.layout.camera.lens,
        })
        .collect();
    let room_m = optics.room_m();
    let now_m = corner.subject_distance_m();
    let to_m = (room_m + BEYOND_M).max(now_m + 0.1).clamp(FROM_M + 0.5, TO_M);
    let distances = (0..STATIONS).map(|i| {
        let t = i as f64 / (STATIONS - 1) as f64;
        FROM_M + t * (to_m - FROM_M)
    });
    let along: Vec<Station> = distances.map(|u| optics.station(u)).collect();
    let takes = optics.takes(&lenses);
    let (low, high) = lenses.iter().fold((f64::INFINITY, 0.0f64), |(low, high), lens| {
        (low.min(lens.focal_min_mm), high.max(lens.focal_max_mm))
    });
    let ends = [along.first(), along.last()].map(|s| s.map_or(50.0, |s| s.focal_length_mm));
    Chart {
        now: Now {
            distance_m: now_m,
            focal_length_mm: corner.layout.camera.focal_length_mm,
            // As the person fills it: a tilted camera frames otherwise at the eyes than a level one.
            frames: (super::framed::framed_height_m(corner) / want.frame_height_m - 1.0).abs() <= SAME_FRAME,
        },
        distance_m: [FROM_M, to_m],
        focal_length_mm: [(low.min(ends[0].max(low / 2.0))) / 1.15, high.max(ends[1].min(high * 2.0)) * 1.15],
        image_height_mm: height,
        crop_factor: optics.crop,
        room_m,
        ends_at: optics.ends_at(room_m),
        zones: zones(to_m),
        shots: optics.shots(),
        schools: optics.schools(&along, &lenses),
        lenses,
        along,
        takes,
    }
}

fn zones(to_m: f64) -> Vec<Zone> {
    let starts = std::iter::once(FROM_M).chain(ZONES.iter().map(|(_, end)| *end));
    ZONES
        .iter()
        .zip(starts)
        .filter(|(_, from)| *from < to_m)
        .map(|((name, end), from_m)| Zone { name, from_m, to_m: end.min(to_m) })
        .collect()
}

impl Optics<'_> {
    /// The focal length of the wanted frame.
    fn focal_mm(&self, distance_m: f64) -> f64 {
        framing::focal_on(self.line, &self.want, distance_m, self.corner.image_mm.1)
    }

    fn station(&self, distance_m: f64) -> Station {
        let corner = self.corner;
        let want = &self.want;
        let focal = self.focal_mm(distance_m);
        let lens = corner.lens_for(focal).map_or(corner.lens, |(_, lens)| lens);
        let f_number = super::f_number(corner.brief, corner.body, lens, focal);
        let wall = distance_m + self.behind_m.max(0.01);
        let blur = blur_disc_mm(focal, f_number, distance_m, wall) / self.long_mm;
        let below = corner.eyes_m.z - corner.mouth_m.z;
        // Over the upper edge or under the lower one, whichever is nearer to the mouth.
        let over = want.eye_line * want.frame_height_m + below;
        let under = (1.0 - want.eye_line) * want.frame_height_m - below;
        let microphone_m = over.min(under).max(0.0) + MICROPHONE_MARGIN_M;
        let (near, far) = school_scores(distance_m, focal * self.crop, blur);
        Station {
            distance_m,
            focal_length_mm: focal,
            nose_percent: enlargement_percent(distance_m),
            blur_percent: 100.0 * blur,
            background_width_m: want.frame_height_m * self.width_ratio * wall / distance_m,
            microphone_m,
            on_camera_db: 20.0 * (microphone_m / distance_m.max(0.05)).log10(),
            near_and_wide_percent: 100.0 * near,
            far_and_long_percent: 100.0 * far,
        }
    }

    /// What keeps the camera from a distance at a focal length, and by how much, m; at most 0 when nothing does.
    fn lacks(&self, distance_m: f64, nearest_focus_m: f64) -> (f64, Stop) {
        let focal = self.focal_mm(distance_m);
        let pose = framing::pose_on(
            self.line,
            &self.want,
            focal,
            self.corner.image_mm.1,
            self.corner.eyes_m,
            self.to_lens_deg,
        );
        fit::lacks_m(&self.corner.brief.room, &pose, focal, nearest_focus_m, self.corner.behind_sensor_m())
    }

    /// The farthest a camera fits on this line, m, by halving.
    fn room_m(&self) -> f64 {
        let fits = |u: f64| {
            let (lacking, _) = self.lacks(u, 0.0);
            lacking <= 0.0
        };
        let (mut good, mut bad) = (FROM_M, TO_M);
        if fits(bad) {
            return TO_M;
        }
        while bad - good > 0.001 {
            let middle = (good + bad) / 2.0;
            if fits(middle) { good = middle } else { bad = middle }
        }
        good
    }

    fn ends_at(&self, room_m: f64) -> String {
        let room = &self.corner.brief.room;
        match self.lacks(room_m + 0.01, 0.0).1 {
            Stop::Overhead => "the slope or beam over the camera".into(),
            Stop::Floor => "the floor".into(),
            Stop::NearestFocus => String::new(),
            Stop::Wall => {
                let met = room.wall_met(self.corner.eyes_m.truncate(), self.corner.to_lens().truncate());
                met.map_or_else(|| "the wall".into(), |wall| room.wall_name(wall))
            }
        }
    }

    fn shots(&self) -> Vec<ShotCurve> {
        let corner = self.corner;
        let portrait = corner.layout.camera.orientation == Orientation::Portrait;
        let wanted = self.want.frame_height_m;
        let mut all: Vec<ShotCurve> = ShotSize::ALL
            .iter()
            .filter_map(|size| Some((size.label(), size.frame_height_m(corner.brief, &corner.landmarks)?)))
            .map(|(label, frame_height_m)| ShotCurve {
                label: label.into(),
                frame_height_m,
                wanted: (frame_height_m / wanted - 1.0).abs() < 1e-6,
            })
            .collect();
        if !all.iter().any(|shot| shot.wanted) {
            let label = if portrait || corner.brief.recording.vertical_cut {
                "Shoulders in the vertical picture"
            } else {
                "You and the instrument"
            };
            all.push(ShotCurve { label: label.into(), frame_height_m: wanted, wanted: true });
            all.sort_by(|a, b| a.frame_height_m.total_cmp(&b.frame_height_m));
        }
        all
    }

    /// Focal lengths engraved on the lenses at hand, their ends and the one in use.
    fn takes(&self, lenses: &[LensBand]) -> Vec<Take> {
        let now = self.corner.layout.camera.focal_length_mm;
        let mut all: Vec<(f64, &LensBand)> = Vec::new();
        for lens in lenses {
            let inside = |f: &f64| (lens.focal_min_mm..=lens.focal_max_mm).contains(f);
            let ends = [lens.focal_min_mm, lens.focal_max_mm];
            all.extend(ENGRAVED_MM.into_iter().chain(ends).filter(inside).map(|f| (f, lens)));
            if lens.in_use {
                all.push((now, lens));
            }
        }
        all.sort_by(|a, b| a.0.total_cmp(&b.0).then(b.1.in_use.cmp(&a.1.in_use)));
        all.dedup_by(|a, b| (a.0 / b.0).log2().abs() < 0.02);
        all.into_iter().map(|(focal, lens)| self.take(focal, lens)).collect()
    }

    fn take(&self, focal_length_mm: f64, lens: &LensBand) -> Take {
        let u = framing::depth_on(self.line, &self.want, focal_length_mm, self.corner.image_mm.1);
        let (lacking, stop) = self.lacks(u, lens.nearest_focus_m);
        let gap = self.corner.brief.units.gap(lacking);
        let kept_by = (lacking > 1e-6).then(|| match stop {
            Stop::NearestFocus => format!("{gap} nearer than the lens focuses"),
            Stop::Wall => format!("{gap} more room needed"),
            Stop::Overhead => format!("{gap} under the slope or beam"),
            Stop::Floor => "below the floor".into(),
        });
        Take { lens: lens.id.clone(), station: self.station(u), kept_by }
    }

    fn schools(&self, along: &[Station], lenses: &[LensBand]) -> Vec<SchoolBest> {
        let fits = |s: &&Station| {
            lenses
                .iter()
                .filter(|l| (l.focal_min_mm - 0.05..=l.focal_max_mm + 0.05).contains(&s.focal_length_mm))
                .any(|l| self.lacks(s.distance_m, l.nearest_focus_m).0 <= 0.0)
        };
        let best = |score: fn(&Station) -> f64| {
            let fitting: Vec<&Station> = along.iter().filter(fits).collect();
            let most = fitting.iter().map(|s| score(s)).fold(f64::NEG_INFINITY, f64::max);
            // Of those that serve alike, the one in the middle.
            let alike: Vec<&Station> = fitting.into_iter().filter(|s| score(s) > most - 1e-9).collect();
            alike.get(alike.len() / 2).map(|s| (*s).clone())
        };
        let chosen = self.corner.brief.schools.lens;
        vec![
            SchoolBest {
                id: "near-and-wide",
                label: "Wide lens, near",
                chosen: chosen == LensSchool::NearAndWide,
                best: best(|s| s.near_and_wide_percent),
            },
            SchoolBest {
                id: "far-and-long",
                label: "Longer lens, further back",
                chosen: chosen == LensSchool::FarAndLong,
                best: best(|s| s.far_and_long_percent),
            },
        ]
    }
}
