//! Voice, room and noise.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::calc::Calculate;
use crate::problem::{Code, Problem};
use crate::sound::decay::{SPEED_M_S, sabine_constant};
use crate::sound::field;
use crate::sound::intelligibility::{BandOfSpeech, speech_transmission_index};
use crate::sound::voice::SpeechBands;

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct CriticalDistance {
    #[schema(minimum = 1.0, maximum = 20_000.0)]
    volume_m3: f64,
    #[schema(exclusive_minimum = 0.0, maximum = 100.0)]
    rt60_s: f64,
    #[serde(default = "one")]
    #[schema(minimum = 1.0, maximum = 10_000.0)]
    source_q: f64,
    #[serde(default = "one")]
    #[schema(minimum = 1.0, maximum = 10_000.0)]
    microphone_q: f64,
}

fn one() -> f64 {
    1.0
}

#[derive(Serialize)]
pub(in crate::calc) struct Distance {
    distance_m: f64,
}

impl Calculate for CriticalDistance {
    const NAME: &'static str = "critical-distance";
    const FORMULA: &'static str = "sqrt(Qs Qm K V / (16 pi T)), K = 24 ln 10 / 343; a plan's reading has R = A / (1 - mean absorption) in place of K V / T";
    const SOURCE: &'static str = "Beranek; Kuttruff (from memory)";
    type Output = Distance;

    fn calculate(self) -> Result<Distance, Problem> {
        let room = sabine_constant(SPEED_M_S) * self.volume_m3 / self.rt60_s;
        let distance_m = field::critical_distance_m(self.source_q, self.microphone_q, room);
        if !distance_m.is_finite() {
            let accepted = "a time that is not vanishing";
            return Err(Problem::new("rt60_s", self.rt60_s, accepted, Code::OutOfRange));
        }
        Ok(Distance { distance_m })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct DirectToReverberant {
    #[schema(minimum = 0.02, maximum = 50.0)]
    distance_m: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    critical_distance_m: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct RatioDb {
    ratio_db: f64,
}

impl Calculate for DirectToReverberant {
    const NAME: &'static str = "direct-to-reverberant";
    const FORMULA: &'static str = "20 lg(Dc / r)";
    const SOURCE: &'static str = "definition of the critical distance";
    type Output = RatioDb;

    fn calculate(self) -> Result<RatioDb, Problem> {
        let ratio_db = field::direct_to_reverberant_db(self.distance_m, self.critical_distance_m);
        Ok(RatioDb { ratio_db })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct ClarityC50 {
    #[schema(minimum = 0.01, maximum = 100.0)]
    rt60_s: f64,
    #[serde(default)]
    #[schema(minimum = -200.0, maximum = 200.0)]
    direct_to_reverberant_db: Option<f64>,
}

#[derive(Serialize)]
pub(in crate::calc) struct Clarity {
    c50_db: f64,
}

impl Calculate for ClarityC50 {
    const NAME: &'static str = "clarity-c50";
    const FORMULA: &'static str =
        "10 lg((d + 1 - e) / e), e = exp(-0.05 x 6 ln 10 / T), d = 10^(ratio/10), 0 without one";
    const SOURCE: &'static str = "ISO 3382-1 with an exponential decay from 0 (from memory)";
    type Output = Clarity;

    fn calculate(self) -> Result<Clarity, Problem> {
        Ok(Clarity { c50_db: field::clarity_c50_db(self.rt60_s, self.direct_to_reverberant_db) })
    }
}

/// Seconds, 0 for no decay.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[schema(minimum = 0.0, maximum = 100.0)]
struct Seconds(f64);

/// Decibels.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[schema(minimum = -200.0, maximum = 200.0)]
struct Decibels(f64);

/// Seven values under the names of the octave bands.
#[derive(Clone, Copy, Deserialize, Serialize, ToSchema)]
struct BySpeechBand<T> {
    #[serde(rename = "125")]
    hz_125: T,
    #[serde(rename = "250")]
    hz_250: T,
    #[serde(rename = "500")]
    hz_500: T,
    #[serde(rename = "1000")]
    hz_1000: T,
    #[serde(rename = "2000")]
    hz_2000: T,
    #[serde(rename = "4000")]
    hz_4000: T,
    #[serde(rename = "8000")]
    hz_8000: T,
}

impl<T> BySpeechBand<T> {
    fn values(self) -> [T; 7] {
        [self.hz_125, self.hz_250, self.hz_500, self.hz_1000, self.hz_2000, self.hz_4000, self.hz_8000]
    }
}

impl From<SpeechBands> for BySpeechBand<f64> {
    fn from([hz_125, hz_250, hz_500, hz_1000, hz_2000, hz_4000, hz_8000]: SpeechBands) -> Self {
        Self { hz_125, hz_250, hz_500, hz_1000, hz_2000, hz_4000, hz_8000 }
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct SpeechTransmissionIndex {
    rt60_s: BySpeechBand<Seconds>,
    snr_db: BySpeechBand<Option<Decibels>>,
    #[serde(default)]
    direct_to_reverberant_db: Option<BySpeechBand<Option<Decibels>>>,
}

#[derive(Serialize)]
pub(in crate::calc) struct Index {
    sti: f64,
    mti: BySpeechBand<f64>,
}

impl Calculate for SpeechTransmissionIndex {
    const NAME: &'static str = "speech-transmission-index";
    const FORMULA: &'static str = "m(F) = |d + 1/(1 + j 2 pi F T / 6 ln 10)| / (d + 1) / (1 + 10^(-SNR/10)); 14 modulations, clipped to 15 dB; sum of alpha MTI - sum of beta sqrt(MTI MTI next), male, no masking";
    const SOURCE: &'static str = "IEC 60268-16:2011; Houtgast and Steeneken 1973, 1985; weights from memory";
    type Output = Index;

    fn calculate(self) -> Result<Index, Problem> {
        let (times, noise) = (self.rt60_s.values(), self.snr_db.values());
        let direct = self.direct_to_reverberant_db.map_or([None; 7], |ratios| ratios.values());
        let bands = std::array::from_fn(|band| BandOfSpeech {
            rt60_s: times[band].0,
            snr_db: noise[band].map(|db| db.0),
            direct_to_reverberant_db: direct[band].map(|db| db.0),
        });
        let (sti, mti) = speech_transmission_index(&bands);
        Ok(Index { sti, mti: mti.into() })
    }
}

crate::shape!(CriticalDistance, DirectToReverberant, ClarityC50, SpeechTransmissionIndex);
