//! How each step stands, in the words one would use to a friend who films.

use super::kind::Step;
use crate::arrange::nearest_facing;
use crate::assess::Assessment;
use crate::corner::Corner;
use crate::geometry::bearing_of;
use crate::plan::{OpeningKind, Posture, Purpose};
use crate::reading::{Quantity, Reading, Standing};
use crate::units::{aperture, decimals, degrees, focal_mm};

/// Softer than this many degrees, as the face sees the source: Fogon's own words for it.
const SOFTNESS_DEG: [(f64, &str); 3] = [(5.0, "Hard"), (20.0, "Fairly soft"), (40.0, "Soft")];
/// Less than this is no difference that is seen, stops.
const SEEN_STOPS: f64 = 0.15;
/// A key this far to the side comes from the side, degrees.
const ASIDE_DEG: f64 = 8.0;

/// What is told of a step.
#[derive(Default)]
pub(super) struct Told {
    /// The number that tells most.
    pub(super) headline: String,
    /// How it stands.
    pub(super) sentence: String,
    /// What that rests on.
    pub(super) detail: String,
}

pub(super) fn told(corner: &Corner<'_>, assessment: &Assessment, step: Step) -> Told {
    let read = Read { corner, readings: &assessment.readings };
    match step {
        Step::Room => read.room(),
        Step::You => read.you(),
        Step::Shot => read.shot(),
        Step::Light => read.light(),
        Step::Day => read.day(),
        Step::Sound => read.sound(),
        Step::Money => read.money(),
        Step::Card => read.card(assessment),
    }
}

struct Read<'a> {
    corner: &'a Corner<'a>,
    readings: &'a [Reading],
}

impl Read<'_> {
    fn of(&self, quantity: Quantity) -> Option<&Reading> {
        self.readings.iter().find(|reading| reading.id == quantity)
    }

    fn value(&self, quantity: Quantity) -> Option<f64> {
        self.of(quantity)?.value
    }

    fn standing(&self, quantity: Quantity) -> Standing {
        self.of(quantity).map_or(Standing::Plain, |reading| reading.standing)
    }

    fn length(&self, metres: f64) -> String {
        self.corner.brief.units.length(metres)
    }

    fn sits(&self) -> bool {
        self.corner.brief.person.posture == Posture::Seated
    }

    fn room(&self) -> Told {
        let [width, depth, height] = self.corner.room_m.map(|side| self.length(side));
        let behind = self.length(self.corner.background_behind_m());
        let enough = match self.standing(Quantity::RoomBackgroundBehindM) {
            Standing::Poor => "too near to separate you from it",
            Standing::Fair => "enough to separate you from it a little",
            Standing::Good | Standing::Plain => "enough to separate you from it",
        };
        let what = if self.corner.backdrop_behind_m().is_some() { "backdrop" } else { "wall" };
        Told {
            headline: format!("{width} \u{d7} {depth}"),
            sentence: format!("The {what} is {behind} behind you: {enough}."),
            detail: format!("The room is {width} by {depth}, {height} high."),
        }
    }

    fn you(&self) -> Told {
        let corner = self.corner;
        let eyes = corner.eyes_m;
        let does = if self.sits() { "sit" } else { "stand" };
        let facing = nearest_facing(corner.brief, bearing_of(corner.to_lens()));
        let gaze = self.value(Quantity::ShotSeatGazeDeg).unwrap_or(0.0);
        let looks = if gaze.abs() < 1.0 {
            "You look into the lens.".to_owned()
        } else {
            format!("You look {} beside the lens.", degrees(gaze.abs()))
        };
        let stature = self.length(corner.brief.person.stature_m);
        let posture = if self.sits() { "seated" } else { "standing" };
        Told {
            headline: format!("{stature}, {posture}"),
            sentence: format!(
                "You {does} facing {facing}, with your eyes {} above the floor.",
                self.length(eyes.z)
            ),
            detail: looks,
        }
    }

    fn shot(&self) -> Told {
        let camera = &self.corner.layout.camera;
        let distance = self.length(self.corner.lens_to_eyes_m());
        let (fits, frame) = (
            self.standing(Quantity::ShotFrameHeightErrorPercent),
            match self.corner.brief.purpose {
                Purpose::TalkToLens | Purpose::AuditionTape | Purpose::KeyedBackground => "from the chest up",
                Purpose::ScreenLesson => "head and shoulders",
                Purpose::Performance => "with your instrument",
                Purpose::VerticalShort => "from the waist up, upright",
            },
        );
        let error = self.value(Quantity::ShotFrameHeightErrorPercent).unwrap_or(0.0);
        let sentence = match fits {
            Standing::Poor if error > 0.0 => {
                format!("The picture is wider than {frame}: move the camera nearer or zoom in.")
            }
            Standing::Poor => {
                format!("The picture is tighter than {frame}: move the camera back or zoom out.")
            }
            _ => format!("The picture shows you {frame}, seen from {distance}."),
        };
        let focal = focal_mm(camera.focal_length_mm);
        let blur = match (
            self.standing(Quantity::ShotBackgroundBlurPercent),
            self.value(Quantity::ShotBackgroundBlurPercent),
        ) {
            (_, None) => String::new(),
            (Standing::Poor | Standing::Fair, Some(blur)) if blur < 1.5 => {
                "; the background is nearly as sharp as you are".to_owned()
            }
            (_, Some(_)) => "; the background is softly blurred".to_owned(),
        };
        Told {
            headline: format!("{focal} mm lens, {distance}"),
            sentence,
            detail: format!("Lens at {focal} mm, {}{blur}.", aperture(camera.f_number)),
        }
    }

    fn light(&self) -> Told {
        // The reading has no side.
        let key = crate::light::apparent::key(self.corner);
        let azimuth = key.map(|key| self.corner.light_angles_deg(key.seen.middle_m).0);
        let ratio = self.value(Quantity::LightFaceRatio);
        let in_stops = |ratio: f64| match decimals(ratio.max(1.0).log2(), 1) {
            stops if stops == "0.0" => "even".to_owned(),
            stops => format!("{stops} stops"),
        };
        let headline = match (azimuth, ratio) {
            (None, None) => "no light".to_owned(),
            (None, Some(ratio)) => format!("no key, {}", in_stops(ratio)),
            (Some(azimuth), None) => format!("{}\u{b0}", decimals(azimuth.abs(), 0)),
            (Some(azimuth), Some(ratio)) => {
                format!("{}\u{b0}, {}", decimals(azimuth.abs(), 0), in_stops(ratio))
            }
        };
        let size = self.value(Quantity::LightKeyAngularSizeDeg);
        let soft = size.map_or("", |size| {
            SOFTNESS_DEG.iter().find(|(limit, _)| size < *limit).map_or("Very soft", |(_, word)| word)
        });
        let shadow = ratio.map_or(String::new(), |ratio| match ratio.max(1.0).log2() {
            stops if stops < SEEN_STOPS => ", both sides of the face alike".to_owned(),
            stops => format!(", the shadow side {} stops darker", decimals(stops, 1)),
        });
        let sentence = match azimuth {
            Some(azimuth) => {
                let from = match azimuth {
                    a if a > ASIDE_DEG => "from camera right",
                    a if a < -ASIDE_DEG => "from camera left",
                    _ => "from the front",
                };
                format!("{soft} light {from}{shadow}.")
            }
            None if ratio.is_some() => "There is no key light: only the room lights you.".to_owned(),
            None => "No light reaches your face.".to_owned(),
        };
        Told { headline, sentence, detail: self.exposed() }
    }

    /// How bright the face is, and whether that is right for the camera.
    fn exposed(&self) -> String {
        let Some(lux) = self.value(Quantity::LightFaceIlluminanceLx) else { return String::new() };
        let iso = decimals(self.corner.layout.camera.iso, 0);
        let right = match self.value(Quantity::LightFaceExposureStops) {
            Some(stops) if stops.abs() < SEEN_STOPS => format!("right for ISO {iso}"),
            Some(stops) if stops < 0.0 => {
                format!("{} stops too dark at ISO {iso}", decimals(-stops, 1))
            }
            Some(stops) => format!("{} stops too bright at ISO {iso}", decimals(stops, 1)),
            None => return format!("{} lx at the face.", decimals(lux, 0)),
        };
        format!("{} lx at the face: {right}.", decimals(lux, 0))
    }

    fn day(&self) -> Told {
        let windows =
            self.corner.brief.room.openings.values().filter(|o| o.kind == OpeningKind::Window).count();
        let count = if windows == 1 { "1 window".to_owned() } else { format!("{windows} windows") };
        let (it, them) = if windows == 1 { ("the window", "it") } else { ("the windows", "them") };
        match (windows, self.corner.brief.windows_shine()) {
            (0, _) => Told {
                headline: "no window".to_owned(),
                sentence: "There is no window: the picture is the same at every hour.".to_owned(),
                detail: String::new(),
            },
            (_, true) => Told {
                headline: format!("{count} as the key"),
                sentence: format!("Daylight from {it} lights you: record in one go, under an even sky."),
                detail: if self.corner.brief.place.is_some() {
                    "It changes with hour and weather. Set the white balance again for each take."
                } else {
                    "It changes with hour and weather. Say where the room is, and the good hours are told."
                }
                .to_owned(),
            },
            (_, false) => Told {
                headline: format!("{count}, covered"),
                sentence: format!(
                    "Cover {it} before you record: then the picture is the same at every hour."
                ),
                detail: format!("All figures of the light count {them} as covered."),
            },
        }
    }

    fn sound(&self) -> Told {
        let corner = self.corner;
        let distance = self.value(Quantity::SoundMicrophoneDistanceM).map(|m| self.length(m));
        let time = self.of(Quantity::SoundRoomRtMidS);
        let range = time.and_then(|reading| reading.assumed_range);
        let ring = match (range, time.and_then(|reading| reading.value)) {
            (Some([least, most]), _) => format!("{} to {} s", decimals(least, 1), decimals(most, 1)),
            (None, Some(seconds)) => format!("{} s", decimals(seconds, 2)),
            (None, None) => String::new(),
        };
        let head = if corner.hears_by_camera() { "no microphone" } else { distance.as_deref().unwrap_or("") };
        let headline = [head, &ring].iter().filter(|w| !w.is_empty()).copied().collect::<Vec<_>>().join(", ");
        let over = self.value(Quantity::SoundMicrophoneDirectToReverberantDb);
        let by = over.map_or(String::new(), |db| match decimals(db.abs(), 0).as_str() {
            "0" => ": your voice is as loud as the room".to_owned(),
            db_words if db > 0.0 => format!(": your voice is {db_words} dB louder than the room"),
            db_words => format!(": the room is {db_words} dB louder than your voice"),
        });
        let clear = match (
            self.standing(Quantity::SoundMicrophoneSpeechTransmissionIndex),
            self.standing(Quantity::SoundMicrophoneDirectToReverberantDb),
        ) {
            (Standing::Poor, _) => "Hard to follow",
            (_, Standing::Poor) => "Distant and roomy",
            (Standing::Fair, _) | (_, Standing::Fair) => "Clear, with some of the room",
            _ => "Clear and close",
        };
        let used = corner.layout.microphone.as_ref();
        let label =
            used.and_then(|used| corner.brief.gear.get(&used.gear)).map(|gear| gear.common().label.clone());
        let where_it_is = distance.map_or(String::new(), |distance| format!(", {distance} from your mouth"));
        let name = label.unwrap_or_else(|| "The camera's own microphone".to_owned());
        // What is assumed is told by its finding.
        let known = match range {
            None if !ring.is_empty() => format!(" Reverberation time {ring}."),
            _ => String::new(),
        };
        Told { headline, sentence: format!("{clear}{by}."), detail: format!("{name}{where_it_is}.{known}") }
    }

    fn money(&self) -> Told {
        let money = &self.corner.brief.money;
        let sum = money.told(money.budget);
        let nothing = money.budget <= 0.0;
        Told {
            headline: if nothing { "nothing to spend".to_owned() } else { format!("{sum} to spend") },
            sentence: if nothing {
                "What you can move for nothing.".to_owned()
            } else {
                format!("What you can move for nothing, then what {sum} would buy.")
            },
            detail: String::new(),
        }
    }

    fn card(&self, assessment: &Assessment) -> Told {
        let marks = self.corner.placed().iter().filter(|thing| !thing.letter.is_empty()).count();
        let ready = assessment.verdict.ready;
        Told {
            headline: if marks == 1 { "1 mark".to_owned() } else { format!("{marks} marks") },
            sentence: if ready {
                "Ready: print the card, tape the marks, set the camera, record.".to_owned()
            } else {
                "Not ready yet: the card shows what is planned so far.".to_owned()
            },
            detail: String::new(),
        }
    }
}
