//! How far to turn up the input.

use super::pickup::Pickup;
use super::record::input;
use crate::corner::Corner;
use crate::plan::GearMicrophone;
use crate::reading::{Origin, Quantity, Reading};

/// Level that fills the scale of an input nobody has figures of, dBu (common practice, no source).
const FULL_SCALE_DBU: f64 = 4.0;

/// Peaks of speech over its mean level, dB (measured speech 12 to 20, common practice, no source).
pub const CREST_DB: f64 = 18.0;
/// Where the loudest words should peak, dBFS: the middle of -12 to -6 (common practice, no source).
pub const TARGET_PEAK_DBFS: f64 = -9.0;
/// More gain than this is noisy on many inputs, dB (common practice, no source).
pub const MUCH_DB: f64 = 60.0;

/// What an input has to give.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize)]
pub struct Gain {
    /// Level of the peaks at the microphone, dB re 20 uPa.
    pub peak_spl_db: f64,
    /// Voltage of the peaks at the microphone's output, dBu.
    pub peak_output_dbu: f64,
    /// Gain that brings them to the wanted level, dB.
    pub gain_db: f64,
}

/// Gain from the level of speech at the microphone: dBu = SPL - 94 + 20 lg(V/Pa) + 2.2185, gain = target - (dBu - full
/// scale).
pub fn preamplifier(
    speech_db: f64,
    crest_db: f64,
    sensitivity_mv_pa: f64,
    full_scale_dbu: f64,
    target_peak_dbfs: f64,
) -> Gain {
    let peak_spl_db = speech_db + crest_db;
    let volts_db = 20.0 * (sensitivity_mv_pa / 1000.0).log10() - 20.0 * 0.774_596_669_241_483_4f64.log10();
    let peak_output_dbu = peak_spl_db - 94.0 + volts_db;
    Gain { peak_spl_db, peak_output_dbu, gain_db: target_peak_dbfs - (peak_output_dbu - full_scale_dbu) }
}

/// Gain of the input for the loudest words, with its working; `None` where the sensitivity is not known.
pub fn gain_reading(corner: &Corner<'_>, gear: &GearMicrophone, got: &Pickup) -> Option<Reading> {
    let sensitivity = gear.sensitivity_mv_pa?;
    let thing = input(corner);
    let (full_scale, from) = thing
        .and_then(|thing| Some((thing.full_scale_dbu?, thing.common.figures_from())))
        .unwrap_or((FULL_SCALE_DBU, Origin::Assumed));
    let Gain { peak_spl_db, peak_output_dbu, gain_db } =
        preamplifier(got.speech_db, CREST_DB, sensitivity, full_scale, TARGET_PEAK_DBFS);
    let mut reading = Reading::new(Quantity::SoundMicrophoneGainDb, gain_db)
        .by(
            "target - (SPL - 94 + 20 lg(V/Pa) + 2.2185 - full scale)",
            "unit arithmetic; crest 18 dB is a planning figure",
        )
        .with("speech at the microphone", got.speech_db, "dB", Origin::Computed)
        .with("its peaks", peak_spl_db, "dB", Origin::Computed)
        .with("at the microphone's output", peak_output_dbu, "dBu", Origin::Computed)
        .with("full scale of the input", full_scale, "dBu", from)
        .with("wanted peak", TARGET_PEAK_DBFS, "dBFS", Origin::Computed)
        .within(6.0);
    let most = thing.and_then(|thing| thing.gain_max_db).unwrap_or(MUCH_DB);
    reading = reading.note(if gain_db > most {
        "More than the input has: come nearer, or use a stronger preamplifier."
    } else {
        "Set it by the meter: the loudest sentence between \u{2212}12 and \u{2212}6 dBFS, automatic gain off."
    });
    Some(reading)
}
