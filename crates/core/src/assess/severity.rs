//! The one table of severities, beside the bands: what stands in the way of a recording, and why. Only what a viewer would not
//! forgive does: not heard, not seen, cut off, out of focus, unsafe, or a room so live that words blur. What is a matter of
//! taste is told and never blocks. Fogon's own rules.

use crate::corner::Corner;
use crate::finding::Severity;
use crate::reading::{Band, Banded, Origin, Quantity, Reading, Standing, standing};

/// Below this speech transmission index a voice is not heard; nor below the ratio to the noise.
pub const HEARD_STI: f64 = 0.60;
/// The voice over the noise, dB.
pub const HEARD_SNR_DB: f64 = 20.0;
/// A room that rings longer blurs words, s.
const BLURS_S: f64 = 0.8;
/// From this clarity on a recorded voice is free of the room, dB (Fogon's own scale, after ISO 3382-1).
const CLEAR_C50_DB: f64 = 15.0;

/// What a poor reading does.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Weight {
    /// It stands in the way.
    Blocks,
    /// It stands in the way where the value is too low; too high is a matter of taste.
    BlocksLow,
    /// It stands in the way where the value is too high; too low is a matter of taste.
    BlocksHigh,
    /// A matter of taste: it is told.
    Taste,
    /// It stands in the way where it was told or measured, is over 0.8 s, and the microphone in use lets the room through.
    BlocksIfHeard,
}

/// What a poor reading does, and why.
pub fn weight(banded: Banded) -> (Weight, &'static str) {
    match banded {
        Banded::ShotFrameHeightErrorPercent => {
            (Weight::Taste, "a wider or tighter shot of the same person is still a shot")
        }
        Banded::ShotFrameHeadroomFraction => {
            (Weight::BlocksLow, "a head that is cut off cannot be put back; air over it can be cut")
        }
        Banded::ShotFrameEyeLineError => (Weight::Taste, "where the eyes sit is composition"),
        Banded::ShotFrameShoulderFraction => (Weight::BlocksHigh, "shoulders beyond the edge are cut off"),
        Banded::ShotFrameLookRoomFraction => (Weight::Taste, "room to look into is composition"),
        Banded::ShotCameraViewAngleDeg => {
            (Weight::Taste, "people are seen from a little above and below every day")
        }
        Banded::ShotCameraDistanceM => {
            (Weight::Taste, "near or far is what the schools of the lens differ in")
        }
        Banded::ShotFocusFrontToleranceM => (Weight::Blocks, "a soft face cannot be sharpened afterwards"),
        Banded::ShotBackgroundBlurPercent => (Weight::Taste, "how soft the background is, is a look"),
        Banded::ShotExposureFullFrameIso => (Weight::Blocks, "so much grain hides a face"),
        Banded::ShotSeatGazeDeg => {
            (Weight::Taste, "eyes nearer to the lens, or farther from it, are still seen")
        }
        Banded::RoomBackgroundBehindM => (Weight::Taste, "a near wall is plain, not wrong"),
        Banded::RoomMainsLoadFraction => {
            (Weight::Blocks, "a breaker that trips ends the take, and hot leads burn")
        }
        Banded::ReadyCornerTimeS => (Weight::Taste, "who puts up longer records less often, not worse"),
        Banded::LightKeyAzimuthDeg
        | Banded::LightKeyElevationDeg
        | Banded::LightKeyAngularSizeDeg
        | Banded::LightFaceRatio => (Weight::Taste, "how light shapes a face that is seen is a look"),
        Banded::LightFaceExposureStops => {
            (Weight::Blocks, "a stop off, and the face is lost in the dark or blown out")
        }
        Banded::LightFlareMarginDeg => {
            (Weight::Taste, "a veil takes contrast, not the face; a hood takes it away")
        }
        Banded::SoundMicrophoneDistanceM => (Weight::Taste, "what is heard counts, not the way there"),
        Banded::SoundMicrophoneSpeechTransmissionIndex => {
            (Weight::BlocksLow, "words that are not understood are lost")
        }
        Banded::SoundMicrophoneDirectToReverberantDb => {
            (Weight::Taste, "a voice in its room is still a voice; the index tells when words go")
        }
        Banded::SoundMicrophoneSnrDb => (Weight::BlocksLow, "a voice under noise is not listened to"),
        Banded::SoundMicrophoneGainOverCameraDb => {
            (Weight::Taste, "what is heard counts, not what it is better than")
        }
        Banded::SoundRoomRtMidS => {
            (Weight::BlocksIfHeard, "words blur where a near microphone still hears the room")
        }
    }
}

/// How much a reading's standing matters in its corner. What would stand otherwise within the range of something that nobody
/// told never blocks; nor does what the camera's own microphone hears, which is told as the microphone that is missing.
pub(super) fn severity_of(corner: &Corner<'_>, reading: &Reading) -> Option<Severity> {
    let banded = reading.id.quantity.banded()?;
    match reading.standing {
        Standing::Good | Standing::Plain => None,
        _ if is_of_missing_microphone(corner, banded) || is_of_missing_key(corner, banded) => None,
        Standing::Fair => Some(Severity::Consider),
        Standing::Poor if blocks(corner, banded, reading) => Some(Severity::Fix),
        Standing::Poor => Some(Severity::Consider),
    }
}

/// What is told as the microphone that is missing, not by itself.
fn is_of_missing_microphone(corner: &Corner<'_>, banded: Banded) -> bool {
    let of_microphone = matches!(
        banded,
        Banded::SoundMicrophoneDistanceM
            | Banded::SoundMicrophoneSpeechTransmissionIndex
            | Banded::SoundMicrophoneDirectToReverberantDb
            | Banded::SoundMicrophoneSnrDb
            | Banded::SoundMicrophoneGainOverCameraDb
    );
    corner.microphone.is_none() && of_microphone
}

/// What is told as the key that is missing, not by itself.
fn is_of_missing_key(corner: &Corner<'_>, banded: Banded) -> bool {
    banded == Banded::LightFaceRatio && crate::light::house::shines(corner)
}

/// Whether a poor reading stands in the way.
fn blocks(corner: &Corner<'_>, banded: Banded, reading: &Reading) -> bool {
    let (Some(value), Some(band)) = (reading.value, reading.band) else { return false };
    let low = is_low(value, band);
    let by_weight = match weight(banded).0 {
        Weight::Blocks => true,
        Weight::BlocksLow => low,
        Weight::BlocksHigh => !low,
        Weight::Taste => false,
        Weight::BlocksIfHeard => value > BLURS_S && room_is_heard(corner),
    };
    let whole_range_is_poor = reading.assumed_range.is_none_or(|ends| {
        ends.iter().all(|end| standing(*end, band) == Standing::Poor && is_low(*end, band) == low)
    });
    // What the time of an unknown room would be is a guess, however long it comes out.
    let guessed = banded == Banded::SoundRoomRtMidS && reading.from == Origin::Assumed;
    by_weight && whole_range_is_poor && !guessed
}

/// Below the good part of a band.
fn is_low(value: f64, band: Band) -> bool {
    band[1].or(band[0]).is_some_and(|good| value < good)
}

/// The microphone that hears the voice lets the room through.
fn room_is_heard(corner: &Corner<'_>) -> bool {
    let (scene, at) = crate::sound::scene(corner, &crate::sound::absorption::Absorption::of(corner));
    crate::sound::pickup::pickup(&scene, &at).c50_1k_db < CLEAR_C50_DB
}

/// Whether the voice is heard by what these readings tell of it: understood, and over the noise.
pub(super) fn is_heard(corner: &Corner<'_>, readings: &[Reading]) -> bool {
    let heard = [Quantity::SoundMicrophoneSpeechTransmissionIndex, Quantity::SoundMicrophoneSnrDb];
    readings.iter().filter(|reading| heard.contains(&reading.id.quantity)).all(|reading| {
        let banded = reading.id.quantity.banded();
        reading.standing != Standing::Poor || !banded.is_some_and(|banded| blocks(corner, banded, reading))
    })
}
