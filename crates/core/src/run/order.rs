//! The order of set-ups that takes the least time to change between them.
//!
//! Up to fifteen set-ups by dynamic programming over their sets (Held and Karp 1962), which is exact; above, by moving stretches and
//! turning them round until nothing gains, from many beginnings, with the order as typed among them: it is never worse than that.

/// So many are solved exactly.
const EXACT: usize = 15;
/// So often an order is shaken and mended.
const SHAKES: usize = 400;

/// An order, and what its changes take.
#[derive(Debug, Clone, PartialEq)]
pub struct Order {
    /// Set-ups, first to last.
    pub order: Vec<usize>,
    /// All changes together, s.
    pub seconds: f64,
    /// No other order takes less.
    pub is_least: bool,
}

/// What changes take: from what stands to each set-up, and from each to each, s; the way back takes the same.
#[derive(Debug, Clone, PartialEq)]
pub struct Changes {
    /// From what stands.
    pub first: Vec<f64>,
    /// From one to another.
    pub between: Vec<Vec<f64>>,
}

impl Changes {
    /// All changes of an order, s.
    pub fn seconds(&self, order: &[usize]) -> f64 {
        let first = order.first().map_or(0.0, |one| self.first[*one]);
        first + order.windows(2).map(|pair| self.between[pair[0]][pair[1]]).sum::<f64>()
    }
}

/// The order with the least changes; `typed` is the order as it was written down.
pub fn least(changes: &Changes, typed: &[usize]) -> Order {
    if typed.len() <= EXACT { exact(changes) } else { searched(changes, typed) }
}

fn exact(changes: &Changes) -> Order {
    let count = changes.first.len();
    if count == 0 {
        return Order { order: Vec::new(), seconds: 0.0, is_least: true };
    }
    // The least that leads through a set of set-ups to one of them, and the one before it.
    let sets = 1usize << count;
    let mut best = vec![f64::INFINITY; sets * count];
    let mut before = vec![usize::MAX; sets * count];
    for one in 0..count {
        best[(1 << one) * count + one] = changes.first[one];
    }
    for set in 1..sets {
        for last in (0..count).filter(|last| set & (1 << last) != 0) {
            let so_far = best[set * count + last];
            for next in (0..count).filter(|next| set & (1 << next) == 0) {
                let seconds = so_far + changes.between[last][next];
                let at = (set | 1 << next) * count + next;
                if seconds < best[at] {
                    (best[at], before[at]) = (seconds, last);
                }
            }
        }
    }
    let whole = sets - 1;
    let mut last =
        (0..count).min_by(|a, b| best[whole * count + a].total_cmp(&best[whole * count + b])).unwrap_or(0);
    let seconds = best[whole * count + last];
    let (mut set, mut order) = (whole, vec![last]);
    while before[set * count + last] != usize::MAX {
        let previous = before[set * count + last];
        set &= !(1 << last);
        last = previous;
        order.push(last);
    }
    order.reverse();
    Order { order, seconds, is_least: true }
}

fn searched(changes: &Changes, typed: &[usize]) -> Order {
    let mut state = 0x2545_f491_4f6c_dd1du64;
    let mut below = |count: usize| {
        state ^= state << 13;
        state ^= state >> 7;
        state ^= state << 17;
        (state % count.max(1) as u64) as usize
    };
    let mut best = mended(changes, typed.to_vec());
    let mut so_far = changes.seconds(&best);
    // From the nearest on, beginning with each.
    for begin in 0..typed.len() {
        let order = mended(changes, nearest(changes, begin));
        let seconds = changes.seconds(&order);
        if seconds < so_far {
            (best, so_far) = (order, seconds);
        }
    }
    let (mut own, mut own_seconds) = (best.clone(), so_far);
    for _ in 0..SHAKES {
        // Four stretches in another order.
        let mut cuts = [below(own.len()), below(own.len()), below(own.len())];
        cuts.sort_unstable();
        let [a, b, c] = cuts;
        let shaken = [&own[..a], &own[b..c], &own[a..b], &own[c..]].concat();
        let order = mended(changes, shaken);
        let seconds = changes.seconds(&order);
        if seconds <= own_seconds {
            (own, own_seconds) = (order, seconds);
        }
        if own_seconds < so_far {
            (best, so_far) = (own.clone(), own_seconds);
        }
    }
    Order { order: best, seconds: so_far, is_least: false }
}

fn nearest(changes: &Changes, begin: usize) -> Vec<usize> {
    let mut order = vec![begin];
    let mut left: Vec<usize> = (0..changes.first.len()).filter(|one| *one != begin).collect();
    while let Some(last) = order.last().copied() {
        let next = (0..left.len())
            .min_by(|a, b| changes.between[last][left[*a]].total_cmp(&changes.between[last][left[*b]]));
        match next {
            Some(at) => order.push(left.swap_remove(at)),
            None => break,
        }
    }
    order
}

/// Stretches moved and turned round until nothing gains.
fn mended(changes: &Changes, mut order: Vec<usize>) -> Vec<usize> {
    let count = order.len();
    // What it takes to come from the one before a place to what stands there.
    let to = |before: Option<usize>, one: usize| match before {
        Some(before) => changes.between[before][one],
        None => changes.first[one],
    };
    loop {
        let mut gained = false;
        for from in 0..count {
            for end in from + 1..=count {
                let before = from.checked_sub(1).map(|at| order[at]);
                let after = order.get(end).copied();
                let (head, tail) = (order[from], order[end - 1]);
                let own = to(before, head) + after.map_or(0.0, |after| changes.between[tail][after]);
                // Turned round where it stands.
                let turned = to(before, tail) + after.map_or(0.0, |after| changes.between[head][after]);
                if turned < own - 1e-9 {
                    order[from..end].reverse();
                    gained = true;
                    continue;
                }
                if end - from > 3 {
                    continue;
                }
                // Moved elsewhere.
                let closed = after.map_or(0.0, |after| to(before, after));
                let mut elsewhere: Option<(usize, f64)> = None;
                for place in (0..from).chain(end + 1..=count) {
                    let left = place.checked_sub(1).map(|at| order[at]);
                    let right = order.get(place).copied();
                    let opened = right.map_or(0.0, |right| to(left, right));
                    let put = to(left, head) + right.map_or(0.0, |right| changes.between[tail][right]);
                    let gain = own - closed + opened - put;
                    if gain > 1e-9 && elsewhere.is_none_or(|(_, most)| gain > most) {
                        elsewhere = Some((place, gain));
                    }
                }
                if let Some((place, _)) = elsewhere {
                    let stretch: Vec<usize> = order.drain(from..end).collect();
                    let place = if place > from { place - stretch.len() } else { place };
                    order.splice(place..place, stretch);
                    gained = true;
                }
            }
        }
        if !gained {
            return order;
        }
    }
}
