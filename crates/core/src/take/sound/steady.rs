//! How much the speech changes over the file: who turns away or leaves the microphone is heard.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::frames::{HOP_S, mean_db, speech};

/// Speech is taken together over so long, s, where at least so much of it is speech, s.
const TOGETHER_S: f64 = 3.0;
const LEAST_S: f64 = 1.0;

/// How much the speech changes.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Steadiness {
    /// The loudest part over the softest, dB; null where nobody speaks.
    pub range_db: Option<f64>,
    /// So many parts of three seconds were held against each other.
    pub parts: usize,
}

pub(super) fn of(levels_db: &[f64], onsets_s: &[f64]) -> Steadiness {
    let spoken = speech(levels_db, onsets_s);
    let (together, least) = ((TOGETHER_S / HOP_S) as usize, (LEAST_S / HOP_S) as usize);
    let count = levels_db.len().div_ceil(together);
    let parts: Vec<f64> = (0..count)
        .filter_map(|part| {
            let own: Vec<f64> =
                spoken.iter().filter(|i| **i / together == part).map(|i| levels_db[*i]).collect();
            (own.len() >= least).then(|| mean_db(own)).flatten()
        })
        .collect();
    let most = parts.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let fewest = parts.iter().copied().fold(f64::INFINITY, f64::min);
    Steadiness { range_db: (!parts.is_empty()).then_some(most - fewest), parts: parts.len() }
}
