//! Looks at every seat, facing and take by closed forms, and tries the most promising of every facing in full.

use super::backdrop;
use super::cast;
use super::furnish::{self, Furnished, Terms};
use super::optics::{Optics, Posed, Shot};
use super::promise::{Promising, TakePromise};
use super::proposal::Judged;
use super::seats::{self, Facing, SeatPlace};
use super::stop::Stop;
use crate::geometry::DVec2;
use crate::plan::{Brief, Layout};

/// How much of each facing is tried.
#[derive(Debug, Clone, Copy)]
pub(super) struct Effort {
    /// Candidates that are lit and judged.
    pub(super) kept: usize,
    /// Candidates whose seat and camera are legal that are given up on before the next facing.
    pub(super) lost: usize,
    /// Candidates of which seat and camera alone are tried.
    pub(super) bare: usize,
    /// On which terms they are furnished.
    pub(super) terms: Terms,
}

impl Effort {
    /// For a layout that is proposed.
    pub(super) const fn keeping(kept: usize, terms: Terms) -> Self {
        // Where a screen finds its place shows only once door and way are looked at.
        Self { kept, lost: 4, bare: if terms.with_screen { 160 } else { 48 }, terms }
    }

    /// To see whether there is any.
    pub(super) const ANY: Self =
        Self { kept: 1, lost: 1, bare: 12, terms: Terms { may_leave_out: true, with_screen: false } };
}

/// The most promising of one facing among which those to be tried are chosen.
const LOOKED_AT: usize = 1500;
/// Two shots of one facing nearer to each other than this, m, and with focal lengths within this factor, are alike.
const ALIKE_M: f64 = 0.30;
const ALIKE_TIMES: f64 = 1.25;

/// What was judged and what fell, over some facings.
#[derive(Default)]
pub(super) struct Searched {
    pub(super) judged: Vec<Judged>,
    pub(super) failed: Vec<furnish::Failed>,
    /// Candidates that were looked at.
    pub(super) looked_at: usize,
}

/// One seat with one take, by its promise.
#[derive(Clone, Copy)]
struct Candidate {
    optics: usize,
    take: usize,
    place: usize,
    promise: f64,
}

/// Tries the most promising shots of each facing.
pub(super) fn search(
    brief: &Brief,
    optics: &[Optics<'_>],
    facings: &[Facing],
    effort: Effort,
    size: f64,
    stop: Stop<'_>,
) -> Searched {
    let mut found = Searched::default();
    let mounting = cast::microphones(brief).first().map(|(_, gear)| gear.mounting);
    let promising = Promising::new(brief, mounting);
    let takes: Vec<Vec<(Posed, TakePromise)>> = optics
        .iter()
        .map(|optics| {
            let posed = optics.takes(brief, size).into_iter().map(|take| optics.posed(brief, take));
            posed
                .filter(|posed| posed.too_near_m <= 0.0 && posed.ahead_m.is_finite())
                .map(|posed| (posed, promising.of_take(optics, &posed)))
                .collect()
        })
        .collect();
    for facing in facings {
        if stop.is_wanted() {
            break;
        }
        let mut places = seats::places(brief, facing);
        if effort.terms.with_screen {
            places.retain(|place| backdrop::has_room(brief, place.seat_m, facing.bearing_deg));
        }
        let mut all = candidates(brief, optics, &takes, &places, facing, &promising);
        found.looked_at += places.len() * takes.iter().map(Vec::len).sum::<usize>();
        all.sort_by(|a, b| b.promise.total_cmp(&a.promise));
        all.truncate(LOOKED_AT);
        let shots = chosen(&all, &takes, &places, effort.bare).into_iter().map(|c| {
            let (posed, _) = &takes[c.optics][c.take];
            optics[c.optics].shot_of(brief, facing, places[c.place].clone(), posed)
        });
        let (mut kept, mut lost) = (0, 0);
        for shot in shots {
            if kept >= effort.kept || lost >= effort.lost || stop.is_wanted() {
                break;
            }
            match judge(brief, shot, effort.terms) {
                Ok(candidate) => {
                    kept += 1;
                    found.judged.push(candidate);
                }
                Err(reason) => {
                    lost += usize::from(!reason.bare);
                    found.failed.push(reason);
                }
            }
        }
    }
    // Stable: equal candidates stay in grid order.
    found.judged.sort_by(Judged::order);
    found
}

/// Every seat with every take that fits before it.
fn candidates(
    brief: &Brief,
    optics: &[Optics<'_>],
    takes: &[Vec<(Posed, TakePromise)>],
    places: &[SeatPlace],
    facing: &Facing,
    promising: &Promising<'_>,
) -> Vec<Candidate> {
    let ahead = crate::geometry::bearing_vector(facing.bearing_deg).truncate();
    let room = &brief.room;
    let slopes = !room.slopes.is_empty() || !room.beams.is_empty();
    let mut all = Vec::new();
    for (place, seat) in places.iter().enumerate() {
        let eye_m = optics.first().map_or(1.2, |optics| optics.eye_m);
        let round = promising.round(seat.seat_m, eye_m, facing.bearing_deg);
        for (which, of_one) in takes.iter().enumerate() {
            for (take, (posed, promise)) in of_one.iter().enumerate() {
                let lens_z = eye_m + posed.rise_m;
                let back_z = lens_z + posed.behind_rise_m;
                let fits = posed.ahead_m + posed.behind_m <= round.ahead_m + 1e-9
                    && (0.2..room.height_m - 0.1).contains(&lens_z)
                    && (!slopes || {
                        let under = |off_m: f64| room.ceiling_m(seat.seat_m + ahead * off_m);
                        lens_z + 0.1 <= under(posed.ahead_m)
                            && back_z <= under(posed.ahead_m + posed.behind_m)
                    });
                if fits {
                    all.push(Candidate {
                        optics: which,
                        take,
                        place,
                        promise: promising.of(promise, &round)
                            - promising.uncarried(seat, facing.bearing_deg, eye_m, posed),
                    });
                }
            }
        }
    }
    all
}

/// The first of the promising that are not alike, then the others.
fn chosen(
    all: &[Candidate],
    takes: &[Vec<(Posed, TakePromise)>],
    places: &[SeatPlace],
    most: usize,
) -> Vec<Candidate> {
    let seat = |c: &Candidate| -> DVec2 { places[c.place].seat_m };
    let length = |c: &Candidate| {
        let take = takes[c.optics][c.take].0.take;
        take.focal_length_mm * take.crop
    };
    let mut first: Vec<Candidate> = Vec::new();
    for candidate in all {
        let alike = |other: &Candidate| {
            let times = length(candidate) / length(other);
            candidate.optics == other.optics
                && (seat(candidate) - seat(other)).length() < ALIKE_M
                && (1.0 / ALIKE_TIMES..ALIKE_TIMES).contains(&times)
        };
        if first.len() < most && !first.iter().any(alike) {
            first.push(*candidate);
        }
    }
    first
}

pub(super) fn judge(brief: &Brief, shot: Shot, terms: Terms) -> Result<Judged, furnish::Failed> {
    let Furnished { layout, quick, free_floor_m2 } = furnish::furnish(brief, &shot, terms)?;
    Ok(Judged { shot, layout, quick, free_floor_m2 })
}

/// The same shot with something of its layout placed otherwise.
pub(super) fn rejudged(brief: &Brief, judged: &Judged, layout: Layout) -> Judged {
    let quick = crate::assess::quick(brief, &layout);
    Judged { layout, quick, ..judged.clone() }
}
