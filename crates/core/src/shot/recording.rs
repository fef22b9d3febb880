//! What is recorded: how long a card lasts, how much of the picture is left to reframe.

/// Minutes that a card holds at a data rate; GB is 1e9 bytes, nothing kept in reserve.
pub fn card_minutes(card_gb: f64, bitrate_mbit_s: f64) -> f64 {
    card_gb * 8e3 / bitrate_mbit_s / 60.0
}

/// How far a recording may be enlarged before it has fewer pixels than what is delivered: the smaller of the two
/// sides' quotients.
pub fn reframe_factor(recorded_px: [f64; 2], delivered_px: [f64; 2]) -> f64 {
    (recorded_px[0] / delivered_px[0]).min(recorded_px[1] / delivered_px[1])
}
