//! Automatic gain: in a pause it turns the noise up.

use super::frames::{DIGITAL_DB, HOP_S, LENGTH_S, is_clap, mean_db, speech};

/// A pause that tells something is so long, s: the end of the last word dies away first.
const PAUSE_S: f64 = 1.2;
const DIES_S: f64 = 0.4;
/// Begin and end of it are taken over so long, s.
const PART_S: f64 = 0.3;

/// By how much the noise rises from the beginning of a pause to its end, dB, in the pause where it rises most; none without a pause.
pub(super) fn rise_db(levels_db: &[f64], onsets_s: &[f64]) -> Option<f64> {
    let stretches = |seconds: f64| (seconds / HOP_S).round() as usize;
    let mut busy: Vec<usize> = speech(levels_db, onsets_s);
    let first = *busy.first()?;
    busy.extend((first..levels_db.len()).filter(|i| is_clap(*i, onsets_s) || levels_db[*i] < DIGITAL_DB));
    busy.push(levels_db.len());
    busy.sort_unstable();
    let rises = busy.windows(2).filter_map(|pair| {
        // A stretch that overlaps speech is none of the pause.
        let from = pair[0] + stretches(LENGTH_S) + stretches(DIES_S) - stretches(LENGTH_S) / 2;
        let to = pair[1].saturating_sub(if pair[1] == levels_db.len() { 0 } else { stretches(LENGTH_S) });
        let part = stretches(PART_S);
        (to >= from + stretches(PAUSE_S)).then(|| {
            let begin = mean_db(levels_db[from..from + part].iter().copied())?;
            let end = mean_db(levels_db[to - part..to].iter().copied())?;
            Some(end - begin)
        })?
    });
    rises.max_by(f64::total_cmp)
}
