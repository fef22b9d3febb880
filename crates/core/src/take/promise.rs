//! What a plan promises of a recording and of its picture.

use crate::assess::readings;
use crate::corner::Corner;
use crate::reading::{Origin, Quantity, Reading};
use crate::sound::gain::{CREST_DB, TARGET_PEAK_DBFS};

/// What a plan promises.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Promise {
    /// Speech over noise, dB(A).
    pub snr_db: Option<f64>,
    /// Reverberation time, mean of 500 Hz and 1 kHz, s, and whether it was assumed.
    pub rt_mid_s: Option<(f64, bool)>,
    /// Direct sound over what the room sends back, dB.
    pub direct_to_reverberant_db: Option<f64>,
    /// Face over or under the exposure that is set, stops.
    pub face_stops: Option<f64>,
    /// What is behind the person, over or under the face, stops.
    pub background_stops: Option<f64>,
    /// Evenness of a keyed screen, stops.
    pub screen_stops: Option<f64>,
}

impl Promise {
    /// What a corner promises.
    pub fn of(corner: &Corner<'_>) -> Self {
        let all = readings(corner);
        let find = |quantity: Quantity| all.iter().find(|reading: &&Reading| reading.id == quantity);
        let value = |quantity: Quantity| find(quantity)?.value;
        let room = find(Quantity::SoundRoomRtMidS);
        Self {
            snr_db: value(Quantity::SoundMicrophoneSnrDb),
            rt_mid_s: room.and_then(|reading| Some((reading.value?, reading.from == Origin::Assumed))),
            direct_to_reverberant_db: value(Quantity::SoundMicrophoneDirectToReverberantDb),
            face_stops: value(Quantity::LightFaceExposureStops),
            background_stops: value(Quantity::LightBackgroundStops),
            screen_stops: value(Quantity::LightScreenEvennessStops),
        }
    }

    /// Noise in a file whose loudest words peak where they should, dBFS(A).
    pub fn noise_dbfs(&self) -> Option<f64> {
        self.snr_db.map(|snr| TARGET_PEAK_DBFS - CREST_DB - snr)
    }
}
