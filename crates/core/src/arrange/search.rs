//! Tries the most promising shots of every facing.

use super::furnish::{self, Furnished};
use super::optics::{Optics, Shot, shots};
use super::proposal::Judged;
use super::seats::Facing;
use crate::plan::Brief;

/// Candidates with a camera that are lit and judged, for each facing.
pub(super) const KEPT_A_FACING: usize = 5;

/// Candidates of one facing whose seat and camera are legal that are given up on before the next facing.
const FAILED_A_FACING: usize = 6;

/// What was judged and what fell, over some facings.
#[derive(Default)]
pub(super) struct Searched {
    pub(super) judged: Vec<Judged>,
    pub(super) failed: Vec<furnish::Failed>,
}

/// Tries the most promising shots of each facing until enough are legal.
pub(super) fn search(brief: &Brief, optics: &[Optics<'_>], facings: &[Facing], most: usize) -> Searched {
    let mut found = Searched::default();
    for facing in facings {
        let mut shots = shots(brief, optics, facing);
        shots.sort_by(|a, b| b.promise.total_cmp(&a.promise));
        let (mut kept, mut lost) = (0, 0);
        for shot in shots {
            if kept >= most || lost >= FAILED_A_FACING {
                break;
            }
            match judge(brief, shot) {
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

pub(super) fn judge(brief: &Brief, shot: Shot) -> Result<Judged, furnish::Failed> {
    let Furnished { layout, quick, free_floor_m2 } = furnish::furnish(brief, &shot)?;
    Ok(Judged { shot, layout, quick, free_floor_m2 })
}
