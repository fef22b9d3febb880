//! What is recorded: how long card and battery last, how much of the picture is left to reframe, how long a script
//! reads.

use crate::corner::Corner;
use crate::plan::{Brief, Gear, GearCamera, GearThing};
use crate::reading::{Origin, Quantity, Reading};

/// Recorded and delivered width where nobody gives them, pixels. Fogon's own rule.
const RECORDED_PX: f64 = 3840.0;
pub(super) const DELIVERED_PX: f64 = 1920.0;
/// Data rate where nobody gives it, Mbit/s. Fogon's own rule.
const BITRATE_MBIT_S: f64 = 100.0;
/// Part of a card kept free (common practice, no source).
const CARD_RESERVE: f64 = 0.05;
/// Part of a battery's energy that is to be had (common practice, no source).
pub const DERATING: f64 = 0.85;
/// Draw of a camera that records, W. Fogon's own rule.
const DRAW_W: f64 = 5.0;
/// Reading aloud, words a minute (common practice, no source).
const WORDS_PER_MINUTE: f64 = 150.0;

/// Minutes that a card holds at a data rate; GB is 1e9 bytes, nothing kept in reserve.
pub fn card_minutes(card_gb: f64, bitrate_mbit_s: f64) -> f64 {
    card_gb * 8e3 / bitrate_mbit_s / 60.0
}

/// How far a recording may be enlarged before it has fewer pixels than what is delivered: the smaller of the two
/// sides' quotients.
pub fn reframe_factor(recorded_px: [f64; 2], delivered_px: [f64; 2]) -> f64 {
    (recorded_px[0] / delivered_px[0]).min(recorded_px[1] / delivered_px[1])
}

/// Width of the video that a camera records, pixels.
pub fn recorded_px(body: &GearCamera) -> f64 {
    body.video_width_px.unwrap_or(RECORDED_PX)
}

/// Width of what is delivered, pixels.
pub fn delivered_px(brief: &Brief) -> f64 {
    brief.recording.delivered_width_px.unwrap_or(DELIVERED_PX)
}

/// Width of the recorded video, pixels, and where that comes from.
pub fn video_width_px(corner: &Corner<'_>) -> (f64, Origin) {
    let told = corner.body.video_width_px.is_some();
    let from = if told { corner.body.common.figures_from() } else { Origin::Assumed };
    (recorded_px(corner.body), from)
}

/// The largest card at hand, and what it holds, GB.
fn largest_card<'a>(corner: &Corner<'a>) -> Option<(&'a GearThing, f64)> {
    let at_hand = corner.brief.gear.values().filter(|g| g.at_hand());
    at_hand
        .filter_map(|g| if let Gear::Card(card) = g { Some((card, card.capacity_gb?)) } else { None })
        .max_by(|a, b| a.1.total_cmp(&b.1))
}

/// What the data rate asks of a card, MB/s: 8 bits to a byte.
pub fn card_speed_mb_s(bitrate_mbit_s: f64) -> f64 {
    bitrate_mbit_s / 8.0
}

/// The speed that the largest card at hand keeps up and that which is asked of it, MB/s, where it is too slow.
pub fn too_slow_mb_s(corner: &Corner<'_>) -> Option<(f64, f64)> {
    let kept_up = largest_card(corner)?.0.write_mb_s?;
    let asked = card_speed_mb_s(bitrate(corner).0);
    (kept_up < asked).then_some((kept_up, asked))
}

/// Energy for the camera, Wh: its own battery and those at hand that stand in for it.
fn energy_wh(corner: &Corner<'_>) -> Option<f64> {
    let spare = corner.brief.gear.values().filter(|g| g.at_hand()).filter_map(|g| match g {
        Gear::Power(power) if power.common.offers("camera") => power.energy_wh,
        _ => None,
    });
    let total = corner.body.battery_wh.unwrap_or(0.0) + spare.sum::<f64>();
    (total > 0.0).then_some(total)
}

/// Minutes on the largest card at hand, and on the batteries.
pub fn lasts_min(corner: &Corner<'_>) -> (Option<f64>, Option<f64>) {
    let card = largest_card(corner).map(|(_, gb)| card_minutes(gb * (1.0 - CARD_RESERVE), bitrate(corner).0));
    let battery = energy_wh(corner).map(|wh| 60.0 * wh * DERATING / draw_w(corner).0);
    (card, battery)
}

/// Minutes on the batteries at hand, as measured or computed; none where nothing is told of them.
pub fn battery_min(corner: &Corner<'_>) -> Option<f64> {
    corner.brief.measured_value(Quantity::ShotRecordingBatteryMin).or(lasts_min(corner).1)
}

fn bitrate(corner: &Corner<'_>) -> (f64, Origin) {
    let told = corner.body.common.figures_from();
    corner.body.bitrate_mbit_s.map_or((BITRATE_MBIT_S, Origin::Assumed), |rate| (rate, told))
}

fn draw_w(corner: &Corner<'_>) -> (f64, Origin) {
    corner.body.draw_w.map_or((DRAW_W, Origin::Assumed), |watts| (watts, corner.body.common.figures_from()))
}

/// The least of card, battery and clip limit that a session does not fit into: which, and how many minutes it gives.
/// What was measured stands in place of what is computed.
pub fn too_short(corner: &Corner<'_>) -> Option<(&'static str, f64)> {
    let session = corner.brief.recording.session_min?;
    let (card, battery) = lasts_min(corner);
    let measured = |quantity: Quantity, computed| corner.brief.measured_value(quantity).or(computed);
    [
        ("card", measured(Quantity::ShotRecordingCardMin, card)),
        ("battery", measured(Quantity::ShotRecordingBatteryMin, battery)),
        ("clip", corner.body.clip_limit_min),
    ]
    .into_iter()
    .filter_map(|(what, minutes)| Some((what, minutes?)))
    .filter(|(_, minutes)| *minutes < session)
    .min_by(|a, b| a.1.total_cmp(&b.1))
}

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = vec![reframing(corner)];
    all.extend(cropped(corner));
    all.extend(card(corner));
    all.extend(card_speed(corner));
    all.extend(battery(corner));
    all.extend(script(corner));
    all
}

fn reframing(corner: &Corner<'_>) -> Reading {
    let recording = &corner.brief.recording;
    let (recorded, from) = video_width_px(corner);
    let delivered =
        recording.delivered_width_px.map_or((DELIVERED_PX, Origin::Assumed), |px| (px, Origin::Typed));
    // Both are 16:9, so that one side tells; a vertical cut keeps 81/256 of the width and delivers 9/16 of it.
    let part = if recording.vertical_cut { super::framing::VERTICAL_PART / (9.0 / 16.0) } else { 1.0 };
    let crop = corner.layout.camera.crop;
    let left = part * reframe_factor([recorded; 2], [delivered.0; 2]) / crop;
    Reading::new(Quantity::ShotRecordingReframeFactor, left)
        .by(
            "recorded / delivered pixels / crop; in a vertical cut x 9/16",
            "raster of ITU-R BT.709 (from memory)",
        )
        .with("recorded width", recorded, "px", from)
        .with("crop", crop, "\u{d7}", Origin::Typed)
        .with("delivered width", delivered.0, "px", delivered.1)
        .with("part for the vertical cut", part, "", Origin::Computed)
        .note("So far the picture can be cut tighter afterwards without being enlarged; noise grows by 2 log2 of it in stops. Below 1 it is enlarged.")
}

/// What is left of the recorded width where the picture is cropped.
fn cropped(corner: &Corner<'_>) -> Option<Reading> {
    let crop = corner.layout.camera.crop;
    let (recorded, from) = video_width_px(corner);
    (crop > 1.0).then(|| {
        Reading::new(Quantity::ShotRecordingCropWidthPx, recorded / crop)
            .by("recorded width / crop", "arithmetic")
            .with("recorded width", recorded, "px", from)
            .with("crop", crop, "\u{d7}", Origin::Typed)
            .with("delivered width", delivered_px(corner.brief), "px", Origin::Assumed)
            .note("Record the whole picture and cut it in the edit: the marks and drawings show what is delivered.")
    })
}

fn card(corner: &Corner<'_>) -> Option<Reading> {
    let (rate, from) = bitrate(corner);
    let reading = Reading::new(Quantity::ShotRecordingCardMin, lasts_min(corner).0?)
        .by("GB x 8000 (1 - reserve) / (Mbit/s) / 60", "arithmetic; GB is 1e9 bytes")
        .with("largest card at hand", largest_card(corner)?.1, "GB", Origin::Typed)
        .with("data rate", rate, "Mbit/s", from)
        .with("kept free", CARD_RESERVE, "", Origin::Assumed);
    Some(reading)
}

fn card_speed(corner: &Corner<'_>) -> Option<Reading> {
    let (card, _) = largest_card(corner)?;
    let (rate, from) = bitrate(corner);
    let mut reading = Reading::new(Quantity::ShotRecordingCardSpeedMbS, card_speed_mb_s(rate))
        .by("(Mbit/s) / 8", "arithmetic; speed classes V10, V30, V60, V90 are MB/s kept up (from memory)")
        .with("data rate", rate, "Mbit/s", from);
    if let Some(kept_up) = card.write_mb_s {
        reading = reading.with("the card keeps up", kept_up, "MB/s", card.common.figures_from());
    }
    Some(reading.note("The speed that is kept up counts, not the highest printed on the card."))
}

fn battery(corner: &Corner<'_>) -> Option<Reading> {
    let (draw, from) = draw_w(corner);
    let reading = Reading::new(Quantity::ShotRecordingBatteryMin, lasts_min(corner).1?)
        .by("60 x Wh x 0.85 / W", "arithmetic; 0.85: common practice, no source")
        .with("energy", energy_wh(corner)?, "Wh", Origin::Typed)
        .with("draw while recording", draw, "W", from)
        .with("part to be had", DERATING, "", Origin::Assumed)
        .note("Cold and age take more. Charge on a hard surface, never unattended, and with the charger that belongs to it.");
    Some(reading)
}

fn script(corner: &Corner<'_>) -> Option<Reading> {
    let recording = &corner.brief.recording;
    let words = recording.script_words?;
    let (speed, from) = recording
        .words_per_minute
        .map_or((WORDS_PER_MINUTE, Origin::Assumed), |speed| (speed, Origin::Typed));
    let reading = Reading::new(Quantity::ShotScriptReadingMin, words / speed)
        .by("words / words a minute", "arithmetic; 150 a minute: common practice, no source")
        .with("words", words, "", Origin::Typed)
        .with("words a minute", speed, "", from);
    Some(reading)
}
