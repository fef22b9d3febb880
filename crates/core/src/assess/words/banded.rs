//! The sentence, reason and advice for a reading that a band calls fair or poor.

use std::borrow::Cow;

use super::left_to_do;
use super::light::remedies;
use super::safety::MAINS_CAUTION;
use crate::assess::bands::{Row, band_of};
use crate::corner::{Corner, is_worn};
use crate::finding::{Finding, Severity};
use crate::light::LightField;
use crate::plan::{LensSchool, LightSchool, Mounting, Posture, Role};
use crate::reading::{Banded, Reading};
use crate::sound::absorption::Absorption;
use crate::units::{decimals, degrees, two_digits};

/// What is said of one reading.
struct Said {
    sentence: String,
    reason: &'static str,
    advice: Cow<'static, str>,
}

fn said(sentence: String, reason: &'static str, advice: impl Into<Cow<'static, str>>) -> Said {
    Said { sentence, reason, advice: advice.into() }
}

/// The finding of a reading that is not good.
pub(super) fn finding(
    corner: &Corner<'_>,
    lit: &LightField<'_>,
    reading: &Reading,
    severity: Severity,
) -> Option<Finding> {
    let banded = reading.id.quantity.banded()?;
    let words = Words::of(corner, lit, reading).said(banded);
    let mut finding = Finding::new(reading.id.clone(), severity, words.sentence)
        .because(words.reason, reading.working.source)
        .on(reading.id.clone(), reading.value)
        .advise(words.advice);
    finding.school = band_of(reading.id.quantity, &Row::of(corner)).1;
    Some(match banded {
        Banded::RoomMainsLoadFraction => finding.caution(MAINS_CAUTION),
        _ => finding,
    })
}

/// One reading and what its words depend on.
struct Words<'a> {
    corner: &'a Corner<'a>,
    /// Least and most that it may be, where it rests on what nobody told.
    assumed_range: Option<[f64; 2]>,
    lit: &'a LightField<'a>,
    value: f64,
    /// Below the good part of the band.
    low: bool,
}

impl<'a> Words<'a> {
    fn of(corner: &'a Corner<'a>, lit: &'a LightField<'a>, reading: &Reading) -> Self {
        let value = reading.value.unwrap_or(0.0);
        let low = reading.band.and_then(|band| band[1].or(band[0])).is_some_and(|good| value < good);
        Self { corner, assumed_range: reading.assumed_range, lit, value, low }
    }

    /// One word where the value is too low, another where it is too high.
    fn low_or<T>(&self, low: T, high: T) -> T {
        if self.low { low } else { high }
    }

    fn percent(&self) -> String {
        decimals(100.0 * self.value.abs(), 0)
    }

    /// The value without its sign, to so many decimals.
    fn size(&self, digits: usize) -> String {
        decimals(self.value.abs(), digits)
    }

    fn length(&self, metres: f64) -> String {
        self.corner.brief.units.length(metres)
    }

    /// Sit, or stand.
    fn be(&self) -> &'static str {
        match self.corner.brief.person.posture {
            Posture::Seated => "Sit",
            Posture::Standing => "Stand",
        }
    }

    fn said(&self, banded: Banded) -> Said {
        match banded {
            Banded::ShotFrameHeightErrorPercent
            | Banded::ShotFrameHeadroomFraction
            | Banded::ShotFrameEyeLineError
            | Banded::ShotFrameShoulderFraction
            | Banded::ShotFrameLookRoomFraction => self.framed(banded),
            Banded::ShotCameraViewAngleDeg
            | Banded::ShotCameraDistanceM
            | Banded::ShotFocusFrontToleranceM
            | Banded::ShotBackgroundBlurPercent
            | Banded::ShotExposureFullFrameIso
            | Banded::ShotSeatGazeDeg => self.shot(banded),
            Banded::RoomBackgroundBehindM | Banded::RoomMainsLoadFraction | Banded::SoundRoomRtMidS => {
                self.room(banded)
            }
            Banded::ReadyCornerTimeS => said(
                format!("Putting the corner up takes {}.", crate::ready::in_words(self.value)),
                "A corner that stands quickly gets used more.",
                crate::ready::advice(self.corner)
                    .unwrap_or_else(|| "Leave standing what need not be put away.".to_owned()),
            ),
            Banded::LightKeyAzimuthDeg
            | Banded::LightKeyElevationDeg
            | Banded::LightKeyAngularSizeDeg
            | Banded::LightFaceExposureStops
            | Banded::LightFaceRatio
            | Banded::LightFlareMarginDeg => self.light(banded),
            Banded::SoundMicrophoneDistanceM => self.microphone_distance(),
            Banded::SoundMicrophoneSpeechTransmissionIndex
            | Banded::SoundMicrophoneDirectToReverberantDb
            | Banded::SoundMicrophoneSnrDb => self.heard(banded),
            Banded::SoundMicrophoneGainOverCameraDb => said(
                match self.value {
                    louder if louder >= 0.5 => {
                        format!("The voice is only {} dB louder than at the camera.", decimals(louder, 1))
                    }
                    _ => "The voice is no louder than at the camera.".to_owned(),
                },
                "Each halving of the distance brings 6 dB of voice over the room.",
                match self.corner.heard_by().0.mounting {
                    Mounting::OnCamera | Mounting::BuiltIn => {
                        "Bring the microphone off the camera, to a hand-span or two from the mouth."
                    }
                    _ if left_to_do::is_as_near_as_may_be(self.corner) => {
                        "It is where it belongs; the camera is near, and would hear you nearly as well."
                    }
                    _ => "Bring the microphone nearer to the mouth.",
                },
            ),
        }
    }

    fn framed(&self, banded: Banded) -> Said {
        let tilt = self.low_or(
            "Tilt the camera up a little.",
            "Tilt the camera down a little, or cut the picture tighter afterwards.",
        );
        let back = if self.corner.lens.zooms() {
            "Move the camera back, or use a shorter focal length."
        } else {
            "Move the camera back."
        };
        match banded {
            Banded::ShotFrameHeadroomFraction => said(
                format!("Headroom is {} % of the picture.", decimals(100.0 * self.value, 0)),
                "Too much empty space sinks the head; too little cuts it.",
                tilt,
            ),
            Banded::ShotFrameEyeLineError => said(
                format!(
                    "The eyes sit {} % of the picture too {}.",
                    self.percent(),
                    self.low_or("high", "low")
                ),
                "Eyes are what the viewer looks for first.",
                tilt,
            ),
            Banded::ShotFrameShoulderFraction => said(
                format!("The shoulders fill {} % of the width.", self.percent()),
                "In a vertical picture the shoulders are cut first.",
                back,
            ),
            Banded::ShotFrameLookRoomFraction => said(
                format!("The eyes have {} % of the width to look into.", self.percent()),
                "Eyes that leave the lens look at something: the picture gives it room.",
                self.low_or(
                    "Turn the camera towards what the eyes look at.",
                    "Turn the camera a little away from what the eyes look at.",
                ),
            ),
            _ => said(
                format!(
                    "The picture frames {} % {} than this shot wants.",
                    self.size(0),
                    self.low_or("less", "more")
                ),
                "Shot size is what the viewer reads as distance.",
                if self.low {
                    back
                } else if self.corner.lens.zooms() {
                    "Move the camera nearer, use a longer focal length, or cut the picture tighter afterwards."
                } else {
                    "Move the camera nearer, or cut the picture tighter afterwards."
                },
            ),
        }
    }

    fn shot(&self, banded: Banded) -> Said {
        match banded {
            Banded::ShotCameraViewAngleDeg => said(
                if self.value.abs() < 0.5 {
                    "The lens is level with the eyes.".to_owned()
                } else {
                    let way = if self.value > 0.0 { "down on you" } else { "up at you" };
                    format!("The lens looks {way} by {}.", degrees(self.value.abs()))
                },
                "Level with the eyes is how people talk to each other.",
                left_to_do::lens_height_advice(self.corner, self.value),
            ),
            Banded::ShotCameraDistanceM => self.distance(),
            Banded::ShotFocusFrontToleranceM => {
                let units = self.corner.brief.units;
                let lean = units.gap(self.corner.brief.person.lean().0);
                said(
                    format!(
                        "Leaning in by {lean}, the eyes go soft: {} more depth of field is needed.",
                        units.gap(self.value)
                    ),
                    "Without face tracking, focus must hold while you lean.",
                    if self.corner.body.face_tracking {
                        "Stop down, move the camera back, or turn face tracking on."
                    } else {
                        "Stop down, or move the camera back."
                    },
                )
            }
            Banded::ShotBackgroundBlurPercent => said(
                format!(
                    "The background is {}: blur is {} % of the width.",
                    self.low_or("nearly as sharp as you are", "melted away"),
                    decimals(self.value, 1)
                ),
                "Blur separates a person from the wall behind.",
                if self.low { left_to_do::softer_advice(self.corner) } else { "Stop down a little.".into() },
            ),
            Banded::ShotExposureFullFrameIso => said(
                format!(
                    "The noise will be that of about ISO {} on full frame.",
                    decimals(two_digits(self.value), 0)
                ),
                "Above about 6400 grain shows in skin.",
                left_to_do::one_of(&left_to_do::more_light(self.corner)),
            ),
            _ => said(
                format!("The eyes look {} beside the lens.", degrees(self.value)),
                "An audition is read to someone close beside the lens.",
                "Place the reader's eyes 5 to 12 degrees beside the lens, at its height.",
            ),
        }
    }

    fn distance(&self) -> Said {
        let far = self.corner.brief.schools.lens == LensSchool::FarAndLong;
        let hears = self.corner.microphone.is_some_and(|(gear, _)| gear.mounting == Mounting::OnCamera);
        let advice = match (self.low, self.corner.lens.zooms()) {
            (true, true) if hears => {
                "It stands near for the microphone on it. With one off the camera, go back and zoom in."
            }
            (true, false) if left_to_do::is_fixed(self.corner) => {
                "This is what a wide lens gives from where it frames you; speak to it as to someone across a table."
            }
            (true, true) if far => {
                "Move the camera back and zoom in, or choose the school of the near, wide lens."
            }
            (true, false) if far => {
                "Use a longer lens from further back, or choose the school of the near, wide lens."
            }
            (true, true) => "Move the camera back and zoom in.",
            (true, false) => "Use a longer lens from further back.",
            (false, true) => "Move the camera nearer and zoom out.",
            (false, false) => "Use a wider lens from nearer.",
        };
        let says = self.low_or("near enough to enlarge the nose", "further than the shot needs");
        said(
            format!("The lens is {} from the eyes: {says}.", self.length(self.value)),
            "Perspective depends on distance alone.",
            advice,
        )
    }

    fn room(&self, banded: Banded) -> Said {
        match banded {
            Banded::RoomBackgroundBehindM => said(
                format!("The wall is {} behind you.", self.length(self.value)),
                "Distance to the background is the most visible free improvement.",
                format!(
                    "{} further from the wall, or turn the corner so that the room's length lies behind you.",
                    self.be()
                ),
            ),
            Banded::RoomMainsLoadFraction => said(
                format!("The lamps draw {} % of what the breaker carries.", self.percent()),
                "Hours of load above 80 % heat a circuit.",
                "Move some of it to another circuit, or use more efficient lamps.",
            ),
            _ if let Some([least, most]) = self.assumed_range => said(
                format!(
                    "Reverberation time is assumed: {} to {} s, as in most furnished rooms.",
                    decimals(least, 1),
                    decimals(most, 1)
                ),
                "0.2 to 0.4 s lets a voice sound close; from 0.8 s on words blur.",
                "Say how many soft things are in the room, or clap once to measure it.",
            ),
            _ => {
                let sounds = match self.value {
                    _ if self.low => "very dry",
                    s if s > 0.6 => "echoey",
                    _ => "live",
                };
                said(
                    format!("Reverberation time is {} s: {sounds}.", decimals(self.value, 2)),
                    "0.2 to 0.4 s lets a voice sound close.",
                    self.low_or(
                        "Nothing needs doing; a little less absorption would sound more natural.",
                        "Hang blankets or a heavy curtain, lay a rug, or film where there is a bed or a full bookcase.",
                    ),
                )
            }
        }
    }

    fn light(&self, banded: Banded) -> Said {
        let brief = self.corner.brief;
        let ring = brief.schools.lights == LightSchool::Ring;
        match banded {
            Banded::LightKeyAzimuthDeg => {
                let says = self.low_or("the face goes flat", "half the face goes dark");
                let (reason, advice) = if ring {
                    ("A ring lights evenly only round the lens.", "Put the ring round the lens.")
                } else if brief.windows_shine() {
                    (
                        "A window from the side models a face.",
                        "Turn so that the window is 30 to 90 degrees to the side of the lens.",
                    )
                } else {
                    (
                        "30 to 45 degrees model a face.",
                        "Where the room lets you, put the key 30 to 45 degrees to the side of the lens.",
                    )
                };
                let says = if ring { "its shadow shows at one side" } else { says };
                said(
                    format!("The key is {} off the lens axis: {says}.", degrees(self.value.abs())),
                    reason,
                    advice,
                )
            }
            Banded::LightKeyElevationDeg => {
                let side = if self.value < 0.0 { "below" } else { "above" };
                let says = match (ring, self.low, self.value < 0.0) {
                    (true, ..) => "the ring is not round the lens",
                    (_, true, true) => "light from below looks wrong",
                    (_, true, false) => "a little low",
                    (_, false, _) => "eye sockets go dark",
                };
                said(
                    format!("The key is {} {side} the eyes: {says}.", degrees(self.value.abs())),
                    "Daylight comes from above, and not from overhead.",
                    if ring {
                        "Put the ring round the lens."
                    } else {
                        self.low_or(left_to_do::raise_advice(self.corner), "Lower the key, or move it away.")
                    },
                )
            }
            Banded::LightKeyAngularSizeDeg => said(
                format!(
                    "From the face the key is {} wide: {}.",
                    degrees(self.value),
                    if self.value < 5.0 { "hard shadows" } else { "fairly hard shadows" }
                ),
                "Softness is the size of the source as the face sees it.",
                left_to_do::key_size_advice(self.corner),
            ),
            Banded::LightFaceExposureStops => said(
                format!("The face is {} stops {}.", self.size(1), self.low_or("too dark", "too bright")),
                "Everything else in the picture is judged against the face.",
                if self.low {
                    self.dark_advice()
                } else {
                    "Dim the lamps, lower the ISO, or add a neutral-density filter.".into()
                },
            ),
            Banded::LightFaceRatio => said(
                format!(
                    "The lit side has {} times the light of the shadow side: {}.",
                    decimals(self.value, 1),
                    self.low_or("flat", "dramatic")
                ),
                match brief.schools.lights {
                    LightSchool::Ring | LightSchool::Even => "This school wants both sides nearly alike.",
                    _ => "2 to 4 shapes a face and keeps it friendly.",
                },
                match (self.low, self.corner.role(Role::Fill).next().is_some()) {
                    (true, true) => "Dim the fill, or move it away.",
                    (true, false) => {
                        "Move the key further to the side, or hang something dark on the shadow side."
                    }
                    (false, _) => "Add a board or a dim lamp opposite the key.",
                },
            ),
            _ => said(
                format!("The back light is {} too near the lens axis.", degrees(self.value.abs())),
                "Light that strikes the lens veils the picture.",
                "Move the back light up or aside, or hood the lens.",
            ),
        }
    }

    /// What would mend a face that is too dark: what the settings allow, else the smallest change to the lamps.
    fn dark_advice(&self) -> Cow<'static, str> {
        match crate::light::power::power(self.lit).filter(|power| power.in_hand_stops < 0.0) {
            Some(power) => remedies(self.corner, &power).into(),
            None => {
                let camera = &self.corner.layout.camera;
                let mut all = Vec::new();
                if camera.iso < self.corner.body.iso_max {
                    all.push("raise the ISO");
                }
                all.extend(left_to_do::more_light(self.corner));
                left_to_do::one_of(&all)
            }
        }
    }

    /// The voice against the room and the noise.
    fn heard(&self, banded: Banded) -> Said {
        let absorption = Absorption::of(self.corner);
        let nearer_or_softer = "Bring the microphone nearer, or hang something that absorbs sound: the choices of the Sound step say what gains most.";
        match banded {
            Banded::SoundMicrophoneSnrDb => said(
                format!("The voice is only {} dB over the noise.", decimals(self.value, 0)),
                "Noise is heard under the voice, and no filter takes it out clean.",
                super::sound::quieter(self.corner, &absorption),
            ),
            Banded::SoundMicrophoneSpeechTransmissionIndex => said(
                format!("Room and noise leave a speech transmission index of {}.", decimals(self.value, 2)),
                "Syllables run into each other; a recording should keep an index of 0.75.",
                nearer_or_softer,
            ),
            _ => said(
                match self.value {
                    more if more >= 0.5 => {
                        format!("Your voice is only {} dB louder than the reverberation.", decimals(more, 0))
                    }
                    _ => "The room is as loud as the voice itself, or louder.".to_owned(),
                },
                "From 3 dB on a voice sounds near, from 10 dB on close.",
                nearer_or_softer,
            ),
        }
    }

    fn microphone_distance(&self) -> Said {
        let mounting = Some(self.corner.heard_by().0.mounting);
        let advice = match mounting {
            _ if self.low => "Move it a little away from the mouth.",
            Some(Mounting::OnCamera | Mounting::BuiltIn) => {
                "Use one off the camera: on an arm, on the desk or worn."
            }
            Some(mounting) if is_worn(mounting) => "Fasten it nearer to the mouth.",
            _ if left_to_do::is_as_near_as_may_be(self.corner) => {
                "The picture lets it no nearer: a worn one would be."
            }
            Some(Mounting::Desk) => "Bring it nearer on its stand, just under the picture.",
            _ => "Bring it to just outside the picture, or use a worn one.",
        };
        said(
            format!("The microphone is {} from the mouth.", self.length(self.value)),
            "Nearness beats every other figure of a microphone.",
            advice,
        )
    }
}
