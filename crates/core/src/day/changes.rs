//! When something changes in the course of a day.

use super::calendar::LocalDay;
use super::clock::MINUTE_S;

/// It is looked at every so many seconds; where it changes between, to the minute.
const STEP_S: i64 = 300;

/// Where a state begins in a day, s since 1970 UTC, and which; the first at the day's start, the others at whole minutes. A state that
/// lasts for less than five minutes may be missed.
pub(super) fn changes_of<T: PartialEq + Clone>(day: &LocalDay, state: impl Fn(i64) -> T) -> Vec<(i64, T)> {
    let mut is = state(day.start_s);
    let mut all = vec![(day.start_s, is.clone())];
    let mut at = day.start_s;
    while at + STEP_S < day.end_s {
        let next = at + STEP_S;
        let will_be = state(next);
        let mut from = at;
        while will_be != is {
            // The first minute at which it is no longer as it was.
            let (mut before, mut after) = (from, next);
            while after - before > MINUTE_S {
                let middle = before + (after - before) / (2 * MINUTE_S) * MINUTE_S;
                if state(middle) == is { before = middle } else { after = middle }
            }
            is = state(after);
            all.push((after, is.clone()));
            from = after;
        }
        at = next;
    }
    all
}

/// The stretches in which something holds, from and to, s since 1970 UTC.
pub(super) fn stretches<T>(changes: &[(i64, T)], end_s: i64, holds: impl Fn(&T) -> bool) -> Vec<(i64, i64)> {
    let mut all: Vec<(i64, i64)> = Vec::new();
    for (index, (from, _)) in changes.iter().enumerate().filter(|(_, (_, state))| holds(state)) {
        let to = changes.get(index + 1).map_or(end_s, |(next, _)| *next);
        match all.last_mut() {
            Some(last) if last.1 == *from => last.1 = to,
            _ => all.push((*from, to)),
        }
    }
    all
}
