//! The least time in which a pair of hands is done: what hands do follows one after another, what runs by itself overlaps.
//! One machine with precedence and delays: solved by branch and bound, exactly for what a corner needs.

use std::collections::HashMap;

/// So many partial orders are looked at; a corner needs a few dozen.
const NODES: usize = 50_000;
/// Times nearer to each other than this are one, s.
const SAME_S: f64 = 1e-9;

/// Something to be done.
#[derive(Debug, Clone, PartialEq)]
pub struct Task {
    /// How long it takes, s.
    pub seconds: f64,
    /// By hand, so that nothing else can be done meanwhile.
    pub by_hand: bool,
    /// What must be done before, by its place in the list: earlier ones alone.
    pub after: Vec<usize>,
}

/// When everything is begun.
#[derive(Debug, Clone, PartialEq)]
pub struct Schedule {
    /// When all is done, s.
    pub finish_s: f64,
    /// When each is begun, s.
    pub starts_s: Vec<f64>,
    /// What the finish hangs on, in order.
    pub path: Vec<usize>,
    /// No other order is done earlier; where false, none was found.
    pub is_least: bool,
}

/// The order that is done earliest.
pub fn least(tasks: &[Task]) -> Schedule {
    let mut search = Search::of(tasks);
    search.dive();
    let bound = search.bound(&Partial::new(tasks.len()));
    if search.best_s > bound + SAME_S && search.hands() <= 64 {
        search.branch(&mut Partial::new(tasks.len()), 0);
    }
    let is_least = search.best_s <= bound + SAME_S || search.is_whole;
    let starts_s: Vec<f64> = search.best.iter().zip(tasks).map(|(end, task)| end - task.seconds).collect();
    let path = path(tasks, &search.best);
    Schedule { finish_s: search.best_s, starts_s, path, is_least }
}

/// Some of the tasks placed: when each is done, none where it is not placed yet.
#[derive(Clone)]
struct Partial {
    ends_s: Vec<Option<f64>>,
    /// When the hands are free.
    free_s: f64,
}

impl Partial {
    fn new(count: usize) -> Self {
        Self { ends_s: vec![None; count], free_s: 0.0 }
    }

    /// When everything before a task is done; none where something is not placed.
    fn open_s(&self, task: &Task) -> Option<f64> {
        task.after.iter().try_fold(0.0_f64, |latest, before| Some(latest.max(self.ends_s[*before]?)))
    }
}

struct Search<'a> {
    tasks: &'a [Task],
    /// From the end of each to the finish at least, s.
    tails_s: Vec<f64>,
    best: Vec<f64>,
    best_s: f64,
    nodes: usize,
    is_whole: bool,
    seen: HashMap<u64, Vec<Vec<f64>>>,
}

impl<'a> Search<'a> {
    fn of(tasks: &'a [Task]) -> Self {
        let mut tails_s = vec![0.0_f64; tasks.len()];
        for (index, task) in tasks.iter().enumerate().rev() {
            let own = task.seconds + tails_s[index];
            for before in &task.after {
                tails_s[*before] = tails_s[*before].max(own);
            }
        }
        let (best, best_s) = (Vec::new(), f64::INFINITY);
        Self { tasks, tails_s, best, best_s, nodes: 0, is_whole: true, seen: HashMap::new() }
    }

    fn hands(&self) -> usize {
        self.tasks.iter().filter(|task| task.by_hand).count()
    }

    /// Places what runs by itself as soon as it can.
    fn settle(&self, partial: &mut Partial) {
        for (index, task) in self.tasks.iter().enumerate() {
            if !task.by_hand && partial.ends_s[index].is_none() {
                partial.ends_s[index] = partial.open_s(task).map(|open| open + task.seconds);
            }
        }
    }

    /// What hands could do next: which, and when at the earliest.
    fn next(&self, partial: &Partial) -> Vec<(usize, f64)> {
        let undone = self.tasks.iter().enumerate();
        let undone = undone.filter(|(index, task)| task.by_hand && partial.ends_s[*index].is_none());
        undone.filter_map(|(index, task)| Some((index, partial.open_s(task)?.max(partial.free_s)))).collect()
    }

    fn place(&self, partial: &mut Partial, index: usize, start_s: f64) {
        let end = start_s + self.tasks[index].seconds;
        (partial.ends_s[index], partial.free_s) = (Some(end), end);
        self.settle(partial);
    }

    fn keep(&mut self, partial: &Partial) {
        let ends: Option<Vec<f64>> = partial.ends_s.iter().copied().collect();
        let Some(ends) = ends else { return };
        let finish = ends.iter().copied().fold(0.0, f64::max);
        if finish < self.best_s {
            (self.best, self.best_s) = (ends, finish);
        }
    }

    /// Of what can be begun, always what most hangs on.
    fn dive(&mut self) {
        let mut partial = Partial::new(self.tasks.len());
        self.settle(&mut partial);
        loop {
            let next = self.next(&partial);
            let Some(soonest) = next.iter().map(|(_, start)| *start).min_by(f64::total_cmp) else { break };
            let open = next.into_iter().filter(|(_, start)| *start <= soonest + SAME_S);
            let Some((index, start)) = open.max_by(|a, b| self.tails_s[a.0].total_cmp(&self.tails_s[b.0]))
            else {
                break;
            };
            self.place(&mut partial, index, start);
        }
        self.keep(&partial);
    }

    /// No order from here on is done earlier than this, s.
    fn bound(&self, partial: &Partial) -> f64 {
        let mut ends = vec![0.0_f64; self.tasks.len()];
        let mut jobs = Vec::new();
        let mut bound = 0.0_f64;
        for (index, task) in self.tasks.iter().enumerate() {
            ends[index] = partial.ends_s[index].unwrap_or_else(|| {
                let open = task.after.iter().map(|before| ends[*before]).fold(0.0, f64::max);
                let start = if task.by_hand { open.max(partial.free_s) } else { open };
                if task.by_hand {
                    jobs.push(Job { open_s: start, left_s: task.seconds, tail_s: self.tails_s[index] });
                }
                start + task.seconds
            });
            bound = bound.max(ends[index] + self.tails_s[index]);
        }
        bound.max(interrupted(jobs))
    }

    fn branch(&mut self, partial: &mut Partial, done: u64) {
        self.nodes += 1;
        if self.nodes > NODES {
            self.is_whole = false;
            return;
        }
        self.settle(partial);
        let mut next = self.next(partial);
        if next.is_empty() {
            self.keep(partial);
            return;
        }
        if self.bound(partial) >= self.best_s - SAME_S || !self.is_new(partial, done) {
            return;
        }
        // What cannot begin before something else is done can wait for it.
        let soonest_end = next.iter().map(|(index, start)| start + self.tasks[*index].seconds);
        let soonest_end = soonest_end.fold(f64::INFINITY, f64::min);
        next.retain(|(_, start)| *start < soonest_end - SAME_S || soonest_end <= partial.free_s + SAME_S);
        next.sort_by(|a, b| a.1.total_cmp(&b.1).then(self.tails_s[b.0].total_cmp(&self.tails_s[a.0])));
        let mut bit = 0;
        let bits: Vec<u32> = self
            .tasks
            .iter()
            .map(|task| {
                let own = bit;
                bit += u32::from(task.by_hand);
                own
            })
            .collect();
        for (index, start) in next {
            let mut further = partial.clone();
            self.place(&mut further, index, start);
            self.branch(&mut further, done | (1 << bits[index]));
        }
    }

    /// Whether no order of the same tasks was met that leaves everything at least as early.
    fn is_new(&mut self, partial: &Partial, done: u64) -> bool {
        let latest = partial.ends_s.iter().flatten().copied().fold(0.0, f64::max);
        let by_itself = self.tasks.iter().zip(&partial.ends_s).filter(|(task, _)| !task.by_hand);
        let waits = by_itself.filter_map(|(_, end)| *end).map(|end| end.max(partial.free_s));
        let state: Vec<f64> = [partial.free_s, latest].into_iter().chain(waits).collect();
        let others = self.seen.entry(done).or_default();
        let is_behind =
            |other: &Vec<f64>| other.iter().zip(&state).all(|(other, own)| *other <= own + SAME_S);
        if others.iter().any(is_behind) {
            return false;
        }
        others.push(state);
        true
    }
}

/// Something that hands have left to do.
#[derive(Clone, Copy)]
struct Job {
    open_s: f64,
    left_s: f64,
    tail_s: f64,
}

/// The finish if hands could lay down one thing for another: what most hangs on is always done first (Jackson 1955).
fn interrupted(mut jobs: Vec<Job>) -> f64 {
    let (mut now, mut finish) = (0.0_f64, 0.0_f64);
    while !jobs.is_empty() {
        let open = jobs.iter().enumerate().filter(|(_, job)| job.open_s <= now + SAME_S);
        let first = open.max_by(|a, b| a.1.tail_s.total_cmp(&b.1.tail_s)).map(|(index, _)| index);
        let later = jobs.iter().map(|job| job.open_s).filter(|open| *open > now + SAME_S);
        let later = later.fold(f64::INFINITY, f64::min);
        let Some(first) = first else {
            now = later;
            continue;
        };
        let job = &mut jobs[first];
        let run = job.left_s.min(later - now);
        now += run;
        job.left_s -= run;
        if job.left_s <= SAME_S {
            finish = finish.max(now + job.tail_s);
            jobs.swap_remove(first);
        }
    }
    finish
}

/// What the finish hangs on: from the last backwards, what ends where the next begins.
fn path(tasks: &[Task], ends_s: &[f64]) -> Vec<usize> {
    let Some(mut at) = (0..ends_s.len()).max_by(|a, b| ends_s[*a].total_cmp(&ends_s[*b])) else {
        return Vec::new();
    };
    let mut path = vec![at];
    loop {
        let start = ends_s[at] - tasks[at].seconds;
        let meets = |other: &usize| (ends_s[*other] - start).abs() <= SAME_S && !path.contains(other);
        let before = tasks[at].after.iter().copied().find(meets);
        let by_hand =
            || (0..tasks.len()).find(|other| tasks[*other].by_hand && tasks[at].by_hand && meets(other));
        let Some(earlier) = before.or_else(by_hand) else { break };
        path.push(earlier);
        at = earlier;
    }
    path.reverse();
    path
}
