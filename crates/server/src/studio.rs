//! Where pictures are taken: one pool of threads that all pages share, and the pictures taken last.
use std::num::NonZeroUsize;
use std::sync::{Arc, Mutex, PoisonError};

use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem, Problems};
use fogon_handover::picture;
use fogon_viewfinder::develop::{self, Exposure};
use fogon_viewfinder::overlay::Overlay;
use fogon_viewfinder::viewing::{TakenUp, Viewing, Wanted};
use lru::LruCache;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Pictures kept: a card's worth each.
const KEPT: NonZeroUsize = NonZeroUsize::MIN.saturating_add(63);
/// Pixels across at least and at most, of a picture that is asked for by itself.
pub(crate) const WIDTHS: std::ops::RangeInclusive<usize> = 64..=1920;
/// So often a still picture gets finer: one round, two, four; of the eyes alone, where every round is of many samples, less often.
const FINER: usize = 3;
const FINER_EYES: usize = 1;
/// Width of what is shown of the eyes, m.
const EYES_M: f64 = 0.16;

/// The studio.
pub(crate) struct Studio {
    pool: Option<rayon::ThreadPool>,
    stills: Mutex<LruCache<Vec<u8>, Arc<Vec<u8>>>>,
}

impl Studio {
    /// With as many threads as the machine has. Where none can be started, the asking thread does the work.
    pub(crate) fn new() -> Self {
        let pool = rayon::ThreadPoolBuilder::new().thread_name(|number| format!("picture-{number}")).build();
        if let Err(error) = &pool {
            tracing::warn!(%error, "no threads for pictures");
        }
        Self { pool: pool.ok(), stills: Mutex::new(LruCache::new(KEPT)) }
    }

    /// Works on the studio's threads. Pages that ask at the same time share them.
    pub(crate) fn work<T: Send>(&self, work: impl FnOnce() -> T + Send) -> T {
        match &self.pool {
            Some(pool) => pool.install(work),
            None => work(),
        }
    }

    /// A plan's picture as a PNG, so wide, exposed as it is or as another plan; nothing if it was left.
    pub(crate) fn still(
        &self,
        plan: &Plan,
        still: &Still,
        goes_on: &(dyn Fn() -> bool + Sync),
    ) -> Result<Option<Arc<Vec<u8>>>, Problems> {
        let Still { width, of, like } = still;
        let width = *width;
        if !WIDTHS.contains(&width) {
            let accepted = format!("a width from {} to {} pixels", WIDTHS.start(), WIDTHS.end());
            return Err(Problem::new("width", width, accepted, Code::OutOfRange).into());
        }
        let key = serde_json::to_vec(&(width, of, like, &plan.brief, &plan.layout)).unwrap_or_default();
        // A thread that broke off while it held the list has left it whole.
        let kept = || self.stills.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(found) = kept().get(&key) {
            return Ok(Some(found.clone()));
        }
        let corner = resolved(plan)?;
        let exposure = match like {
            Some(like) => Exposure::of(&resolved(like)?),
            None => Exposure::of(&corner),
        };
        let wanted = match of {
            Of::Whole => Wanted { size: size_of(&corner, width), part: None, exposure },
            Of::Eyes => {
                let accepted = "a picture in which the eyes are seen";
                let part =
                    eyes(&corner).ok_or_else(|| Problem::new("of", "eyes", accepted, Code::OutOfRange))?;
                Wanted { size: [width, width / 2], part: Some(part), exposure }
            }
        };
        let taken = self.work(|| {
            let mut viewing = Viewing::default();
            if viewing.take_up(&corner, plan, &wanted, goes_on) == TakenUp::Left {
                return None;
            }
            let finer = if *of == Of::Eyes { FINER_EYES } else { FINER };
            for _ in 0..finer {
                if !viewing.go_on(goes_on) {
                    return None;
                }
            }
            viewing.picture(Overlay::None)
        });
        let Some(taken) = taken else { return Ok(None) };
        let bytes =
            Arc::new(picture::png(taken.width, taken.height, &taken.pixels, &develop::settings(&corner))?);
        kept().put(key, bytes.clone());
        Ok(Some(bytes))
    }
}

/// What is wanted of a still picture.
pub(crate) struct Still {
    /// Pixels across.
    pub(crate) width: usize,
    /// Which part.
    pub(crate) of: Of,
    /// The plan by whose camera it is exposed; its own if none is told.
    pub(crate) like: Option<Plan>,
}

impl Still {
    /// The whole picture as its camera is set.
    pub(crate) fn whole(width: usize) -> Self {
        Self { width, of: Of::Whole, like: None }
    }
}

/// Which part of a picture.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum Of {
    /// All of it.
    #[default]
    Whole,
    /// Both eyes, twice as wide as high.
    Eyes,
}

/// Where the eyes lie in the picture, with what is around them; nothing where they are not in it.
fn eyes(corner: &Corner<'_>) -> Option<[f32; 4]> {
    let (x, y) = corner.view.project(corner.eyes_m).filter(|_| corner.view.sees(corner.eyes_m))?;
    let depth_m = corner.view.depth_m(corner.eyes_m);
    let half_wide = EYES_M / 2.0 / corner.view.frame_width_m(depth_m);
    let half_high = EYES_M / 4.0 / corner.view.frame_height_m(depth_m);
    Some([x - half_wide, y - half_high, x + half_wide, y + half_high].map(|edge| edge as f32))
}

/// A plan's corner.
pub(crate) fn resolved(plan: &Plan) -> Result<Corner<'_>, Problems> {
    let unresolved = || Problem::new("layout", "ids", "ids that name gear of the brief", Code::UnknownId);
    Corner::of(plan).ok_or_else(|| unresolved().into())
}

/// Width and height of a picture that is so wide, or of a portrait one so high.
pub(crate) fn size_of(corner: &Corner<'_>, width: usize) -> [usize; 2] {
    let (wide, high) = corner.image_mm;
    let other = |ratio: f64| ((width as f64 * ratio).round() as usize).clamp(1, 4 * width);
    if wide >= high { [width, other(high / wide)] } else { [other(wide / high), width] }
}
