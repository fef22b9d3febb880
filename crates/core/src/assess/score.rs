//! From readings to one number: the mean of each aspect, weighted by the spending school.

use crate::plan::{Brief, Purpose, Spending, Weights};
use crate::reading::{Aspect, Reading};

/// Weights of sound, light, room, picture and comfort: the person's own, else those of the spending school. Fogon's own rule; sound before light before picture is
/// common practice, no source.
pub fn weights(brief: &Brief) -> [(Aspect, f64); 5] {
    let own = brief.money.weights.filter(|own| own.sum() > 0.0);
    let [sound, light, room, picture, comfort] = match (own, brief.schools.spending) {
        (Some(Weights { sound, light, room, picture, comfort }), _) => [sound, light, room, picture, comfort],
        // A voice over slides: picture money goes to sound, whatever the school.
        (None, _) if brief.purpose == Purpose::ScreenLesson => [0.55, 0.20, 0.15, 0.05, 0.05],
        (None, Spending::Sound) => [0.40, 0.30, 0.14, 0.10, 0.06],
        (None, Spending::Light) => [0.28, 0.42, 0.10, 0.14, 0.06],
        (None, Spending::Lens) => [0.25, 0.25, 0.08, 0.36, 0.06],
        (None, Spending::SetAndLight) => [0.22, 0.32, 0.28, 0.12, 0.06],
    };
    [
        (Aspect::Sound, sound),
        (Aspect::Light, light),
        (Aspect::Room, room),
        (Aspect::Picture, picture),
        (Aspect::Comfort, comfort),
    ]
}

/// Mean score of an aspect's readings; `None` if it has none.
pub fn aspect_score(readings: &[Reading], aspect: Aspect) -> Option<f64> {
    let (sum, count) = readings
        .iter()
        .filter(|r| r.aspect == Some(aspect))
        .filter_map(|r| r.score)
        .fold((0.0, 0), |(sum, count), score| (sum + score, count + 1));
    (count > 0).then(|| sum / f64::from(count))
}

/// Score of the layout, in [0, 1]: sum(weight x aspect) / sum(weights of the aspects that have readings).
pub fn layout_score(readings: &[Reading], brief: &Brief) -> f64 {
    let (sum, total) = weights(brief).into_iter().fold((0.0, 0.0), |(sum, total), (aspect, weight)| {
        match aspect_score(readings, aspect) {
            Some(score) => (sum + weight * score, total + weight),
            None => (sum, total),
        }
    });
    if total > 0.0 { sum / total } else { 0.0 }
}
