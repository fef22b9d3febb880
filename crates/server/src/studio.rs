//! Where pictures are taken: one pool of threads that all pages share, and the pictures taken last.
//!
//! Whoever waits for a first picture, or for a picture by itself, comes first. What makes pictures finer takes turns, round by round,
//! and makes way for a first one meanwhile; what it has gathered until then is kept.
use std::num::NonZeroUsize;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex, PoisonError};

use axum::http::StatusCode;
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem, Problems};
use fogon_handover::picture;
use fogon_viewfinder::develop::{self, Exposure};
use fogon_viewfinder::lens::size_px;
use fogon_viewfinder::overlay::Overlay;
use fogon_viewfinder::viewing::{GoneOn, TakenUp, Viewing, Wanted};
use lru::LruCache;
use serde::{Deserialize, Serialize};
use thread_priority::{ThreadPriority, set_current_thread_priority};
use tokio::sync::{Semaphore, SemaphorePermit, watch};
use utoipa::ToSchema;

use crate::problem::Details;

/// Pictures kept: a card's worth each.
const KEPT: NonZeroUsize = NonZeroUsize::MIN.saturating_add(63);
/// Pixels across at least and at most, of a picture that is asked for by itself.
pub(crate) const WIDTHS: std::ops::RangeInclusive<usize> = 64..=1920;
/// So often a still picture gets finer: one round, two, four; of the eyes alone, where every round is of many samples, less often.
const FINER: usize = 3;
const FINER_EYES: usize = 1;
/// Each holds a picture and its scene, some 100 MB: so many are looked through at once.
const VIEWFINDERS_MOST: usize = 12;
/// Width of what is shown of the eyes, m.
const EYES_M: f64 = 0.16;

/// The studio.
pub(crate) struct Studio {
    is_on: bool,
    viewfinders: AtomicUsize,
    pool: Option<rayon::ThreadPool>,
    /// For pictures by themselves: somebody waits for them.
    stills_pool: Option<rayon::ThreadPool>,
    /// How many wait for a first picture.
    waiting: watch::Sender<usize>,
    /// Whose finer picture is gathered.
    turn: Semaphore,
    /// Pictures by themselves are taken one after the other.
    still: Mutex<()>,
    stills: Mutex<LruCache<Vec<u8>, Arc<Vec<u8>>>>,
}

impl Studio {
    /// With nobody in it.
    pub(crate) fn new(is_on: bool) -> Self {
        Self {
            is_on,
            viewfinders: AtomicUsize::new(0),
            pool: pool(true),
            stills_pool: pool(false),
            waiting: watch::Sender::new(0),
            turn: Semaphore::new(1),
            still: Mutex::new(()),
            stills: Mutex::new(LruCache::new(KEPT)),
        }
    }

    /// Whether pictures are taken at all.
    ///
    /// # Errors
    /// They are switched off.
    pub(crate) fn is_open(&self) -> Result<(), Details> {
        let words = "Photographs are switched off: Fogon was started with --no-pictures.";
        if self.is_on { Ok(()) } else { Err(Details::new(StatusCode::CONFLICT, "pictures_off", words)) }
    }

    /// Takes up a viewfinder, given back when it is dropped.
    ///
    /// # Errors
    /// Pictures are switched off, or too many viewfinders are looked through.
    pub(crate) fn viewfinder(self: &Arc<Self>) -> Result<Viewfinder, Details> {
        self.is_open()?;
        let taken = Viewfinder(self.clone());
        if self.viewfinders.fetch_add(1, Ordering::Relaxed) < VIEWFINDERS_MOST {
            return Ok(taken);
        }
        let words = format!("The viewfinder is open on {VIEWFINDERS_MOST} pages already: close one of them.");
        Err(Details::new(StatusCode::SERVICE_UNAVAILABLE, "too_many_viewfinders", words))
    }

    /// Works on the studio's threads. Pages that ask at the same time share them.
    pub(crate) fn work<T: Send>(&self, work: impl FnOnce() -> T + Send) -> T {
        on(self.pool.as_ref(), work)
    }

    /// Somebody waits for a first picture, until this is dropped.
    pub(crate) fn first(&self) -> First<'_> {
        self.waiting.send_modify(|number| *number += 1);
        First(self)
    }

    /// Nobody waits for a first picture.
    pub(crate) fn is_free(&self) -> bool {
        *self.waiting.borrow() == 0
    }

    /// Waits for a turn at a finer picture, until nobody waits for a first one.
    pub(crate) async fn turn(&self) -> Option<SemaphorePermit<'_>> {
        let turn = self.turn.acquire().await.ok()?;
        self.waiting.subscribe().wait_for(|number| *number == 0).await.ok()?;
        Some(turn)
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
        let corner = Corner::resolved(plan)?;
        let exposure = match like {
            Some(like) => Exposure::of(&Corner::resolved(like)?),
            None => Exposure::of(&corner),
        };
        let wanted = match of {
            Of::Whole => Wanted { size: size_px(&corner, width), part: None, exposure, hour: None },
            Of::Eyes => {
                let accepted = "a picture in which the eyes are seen";
                let part =
                    eyes(&corner).ok_or_else(|| Problem::new("of", "eyes", accepted, Code::OutOfRange))?;
                Wanted { size: [width, width / 2], part: Some(part), exposure, hour: None }
            }
        };
        let _one_at_a_time = self.still.lock().unwrap_or_else(PoisonError::into_inner);
        // Somebody else may have asked for the same meanwhile.
        if let Some(found) = kept().get(&key) {
            return Ok(Some(found.clone()));
        }
        let _first = self.first();
        let taken = on(self.stills_pool.as_ref(), || {
            let mut viewing = Viewing::default();
            if viewing.take_up(&corner, plan, &wanted, goes_on) == TakenUp::Left {
                return None;
            }
            let finer = if *of == Of::Eyes { FINER_EYES } else { FINER };
            let mut times = 0;
            while times < finer {
                match viewing.go_on(goes_on) {
                    GoneOn::Finer => times += 1,
                    GoneOn::Gathered => {}
                    GoneOn::Finished => break,
                    GoneOn::Left => return None,
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

/// A viewfinder that somebody looks through.
pub(crate) struct Viewfinder(pub(crate) Arc<Studio>);

impl Drop for Viewfinder {
    fn drop(&mut self) {
        self.0.viewfinders.fetch_sub(1, Ordering::Relaxed);
    }
}

/// As many threads as the machine has; where none can be started, the asking thread does the work.
fn pool(gives_way: bool) -> Option<rayon::ThreadPool> {
    let pool = rayon::ThreadPoolBuilder::new()
        .thread_name(|number| format!("picture-{number}"))
        // What is looked at takes what nothing else wants: readings under a hand come first.
        .start_handler(move |_| {
            if gives_way && let Err(error) = set_current_thread_priority(ThreadPriority::Min) {
                tracing::debug!(?error, "pictures are as urgent as everything else");
            }
        })
        .build();
    if let Err(error) = &pool {
        tracing::warn!(%error, "no threads for pictures");
    }
    pool.ok()
}

fn on<T: Send>(pool: Option<&rayon::ThreadPool>, work: impl FnOnce() -> T + Send) -> T {
    match pool {
        Some(pool) => pool.install(work),
        None => work(),
    }
}

/// Somebody who waits for a first picture.
pub(crate) struct First<'a>(&'a Studio);

impl Drop for First<'_> {
    fn drop(&mut self) {
        self.0.waiting.send_modify(|number| *number -= 1);
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
