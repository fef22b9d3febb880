//! Places by least squares: how far each may be off, whether the distances fit together, and which of them does not.

use nalgebra::{DMatrix, DVector};

use super::entries::Trust;
use crate::geometry::DVec2;

/// One person's tape is off by so much, one standard deviation, m. Fogon's own rule.
const TAPE_SIGMA_M: f64 = 0.005;
/// chi2 of two degrees of freedom that 95 % stay below (closed form: -2 ln 0.05).
const CHI2_PLANE_95: f64 = 5.991_464_547;
/// Standard normal quantile of 0.999, for the bound beyond which distances do not fit together.
const NORMAL_999: f64 = 3.090_232;
/// No mark is laid further than this from its place by mistake: circles that also cross elsewhere are no explanation, m. Fogon's own rule.
const STRAY_M: f64 = 0.5;
/// Steps of the solution; it has settled long before.
const STEPS: usize = 50;

/// A distance, resolved.
#[derive(Debug, Clone, Copy)]
pub(super) struct Taped {
    /// Its place in the list that was given.
    pub(super) index: usize,
    pub(super) mark: usize,
    pub(super) from: Origin,
    pub(super) length_m: f64,
}

/// Where a distance begins.
#[derive(Debug, Clone, Copy)]
pub(super) enum Origin {
    Point(DVec2),
    /// 0: distance from the left wall; 1: from the back wall.
    Wall(usize),
    Mark(usize),
}

/// Of every mark that was taped its place, and the distances that contradict the rest, in the order they were given.
pub(super) fn solved(planned: &[DVec2], taped: &[Taped]) -> (Vec<Option<Solved>>, Vec<usize>) {
    let mut told: Vec<Option<Solved>> = vec![None; planned.len()];
    let mut left_out = Vec::new();
    for group in groups(planned.len(), taped) {
        let solved = solve_group(planned, &group);
        left_out.extend(solved.left_out);
        for (mark, one) in group.marks.iter().zip(solved.marks) {
            told[*mark] = Some(one);
        }
    }
    left_out.sort_unstable();
    (told, left_out)
}

/// Marks that distances tie together, with those distances.
struct Group {
    marks: Vec<usize>,
    taped: Vec<Taped>,
}

fn groups(marks: usize, taped: &[Taped]) -> Vec<Group> {
    let mut of: Vec<usize> = (0..marks).collect();
    for one in taped {
        if let Origin::Mark(other) = one.from {
            let (keep, drop) = (of[one.mark], of[other]);
            of.iter_mut().filter(|group| **group == drop).for_each(|group| *group = keep);
        }
    }
    let group = |name: usize| {
        let own = |mark: &usize| of[*mark] == name;
        let taped: Vec<Taped> = taped.iter().copied().filter(|one| own(&one.mark)).collect();
        let touched = |mark: &usize| {
            taped.iter().any(|t| t.mark == *mark || matches!(t.from, Origin::Mark(o) if o == *mark))
        };
        let marks = (0..marks).filter(own).filter(touched).collect();
        Group { marks, taped }
    };
    (0..marks).map(group).filter(|group| !group.taped.is_empty()).collect()
}

/// A mark as far as it is known.
#[derive(Debug, Clone, Copy)]
pub(super) struct Solved {
    pub(super) at: Option<DVec2>,
    pub(super) within_m: Option<f64>,
    pub(super) trust: Trust,
}

struct SolvedGroup {
    marks: Vec<Solved>,
    left_out: Vec<usize>,
}

/// Places that fit the distances best, with how far off they may be, and what does not fit.
fn solve_group(planned: &[DVec2], group: &Group) -> SolvedGroup {
    let unknown = |trust| SolvedGroup {
        marks: group.marks.iter().map(|_| Solved { at: None, within_m: None, trust }).collect(),
        left_out: Vec::new(),
    };
    let Some(all) = fit(planned, &group.marks, &group.taped) else { return unknown(Trust::Unknown) };
    if all.agrees() {
        let trust = if all.spare > 0 { Trust::Checked } else { Trust::Unchecked };
        return SolvedGroup { marks: all.told(group, trust), left_out: Vec::new() };
    }
    // Which one, left out, lets the others agree: known only where the rest can still be checked, and where it is the only one.
    let without: Vec<(usize, Fit)> = (0..group.taped.len())
        .filter_map(|leave| {
            let mut rest = group.taped.clone();
            let left = rest.remove(leave);
            let fit = fit(planned, &group.marks, &rest)?;
            let is_near = |(mark, at): (&usize, &DVec2)| planned[*mark].distance(*at) <= STRAY_M;
            let is_likely = group.marks.iter().zip(&fit.at).all(is_near);
            (fit.spare > 0 && fit.agrees() && is_likely).then_some((left.index, fit))
        })
        .collect();
    match without.as_slice() {
        [(index, fit)] => SolvedGroup { marks: fit.told(group, Trust::Named), left_out: vec![*index] },
        _ => SolvedGroup { marks: all.told(group, Trust::Contradicted), left_out: Vec::new() },
    }
}

/// A solution by least squares.
struct Fit {
    at: Vec<DVec2>,
    /// Variance of each place, as its worst direction has it, m2.
    worst_m2: Vec<f64>,
    /// Sum of the squared residuals over the tape's variance.
    chi2: f64,
    /// Distances beyond those that are needed.
    spare: usize,
}

impl Fit {
    fn agrees(&self) -> bool {
        self.spare == 0 || self.chi2 <= chi2_bound(self.spare)
    }

    fn told(&self, group: &Group, trust: Trust) -> Vec<Solved> {
        let one = |index: usize| Solved {
            at: Some(self.at[index]),
            within_m: (trust != Trust::Contradicted).then(|| (CHI2_PLANE_95 * self.worst_m2[index]).sqrt()),
            trust,
        };
        (0..group.marks.len()).map(one).collect()
    }
}

/// chi2 that 999 of 1000 stay below (E. B. Wilson and M. M. Hilferty, "The distribution of chi-square", PNAS 17, 1931; from memory).
fn chi2_bound(degrees: usize) -> f64 {
    let d = degrees as f64;
    let part = 2.0 / (9.0 * d);
    d * (1.0 - part + NORMAL_999 * part.sqrt()).powi(3)
}

/// Gauss and Newton from where the marks should be; none where the distances do not fix every place.
fn fit(planned: &[DVec2], marks: &[usize], taped: &[Taped]) -> Option<Fit> {
    let unknowns = 2 * marks.len();
    let spare = taped.len().checked_sub(unknowns)?;
    let place = |mark: usize| marks.iter().position(|own| *own == mark);
    let mut at: Vec<DVec2> = marks.iter().map(|mark| planned[*mark]).collect();
    let system = |at: &[DVec2]| {
        let mut slopes = DMatrix::zeros(taped.len(), unknowns);
        let mut errors = DVector::zeros(taped.len());
        for (row, one) in taped.iter().enumerate() {
            let own = place(one.mark)?;
            let (length, slope, other) = match one.from {
                Origin::Point(point) => along(at[own] - point, None),
                Origin::Mark(other) => along(at[own] - at[place(other)?], place(other)),
                Origin::Wall(axis) => (at[own][axis], DVec2::AXES[axis], None),
            };
            errors[row] = one.length_m - length;
            for axis in 0..2 {
                slopes[(row, 2 * own + axis)] += slope[axis];
                if let Some(other) = other {
                    slopes[(row, 2 * other + axis)] -= slope[axis];
                }
            }
        }
        Some((slopes, errors))
    };
    let mut normal = None;
    for _ in 0..STEPS {
        let (slopes, errors) = system(&at)?;
        let inverse = inverted(slopes.transpose() * &slopes)?;
        let step = &inverse * (slopes.transpose() * errors);
        for (index, at) in at.iter_mut().enumerate() {
            *at += DVec2::new(step[2 * index], step[2 * index + 1]).clamp_length_max(0.5);
        }
        normal = Some(inverse);
        if step.amax() < 1e-9 {
            break;
        }
    }
    let (_, errors) = system(&at)?;
    let inverse = normal?;
    let variance = TAPE_SIGMA_M.powi(2);
    let worst = |index: usize| {
        let (a, b, c) = (
            inverse[(2 * index, 2 * index)],
            inverse[(2 * index, 2 * index + 1)],
            inverse[(2 * index + 1, 2 * index + 1)],
        );
        // The larger eigenvalue of the place's 2 by 2 covariance.
        variance * (0.5 * (a + c) + (0.25 * (a - c).powi(2) + b * b).sqrt())
    };
    let worst_m2: Vec<f64> = (0..marks.len()).map(worst).collect();
    let is_sound =
        at.iter().all(|at| at.is_finite()) && worst_m2.iter().all(|m2| m2.is_finite() && *m2 < 1.0);
    is_sound.then(|| Fit { chi2: errors.norm_squared() / variance, at, worst_m2, spare })
}

fn along(line: DVec2, other: Option<usize>) -> (f64, DVec2, Option<usize>) {
    (line.length(), line.normalize_or(DVec2::X), other)
}

fn inverted(normal: DMatrix<f64>) -> Option<DMatrix<f64>> {
    let inverse = normal.cholesky()?.inverse();
    inverse.iter().all(|value| value.is_finite()).then_some(inverse)
}
