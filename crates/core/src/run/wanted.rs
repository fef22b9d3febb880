//! The shots that a purpose and the angles of a corner ask for; everything can be changed by hand. Common practice, no source.

use crate::corner::Corner;
use crate::plan::{Id, Purpose, ShotKind, ShotSize, WantedShot};

use super::script::words_in;

/// Lengths where no script tells them, s. Fogon's own rule.
const TALK_S: f64 = 180.0;
const PIECE_S: f64 = 90.0;
const SHORT_S: f64 = 45.0;
const INSERT_S: f64 = 10.0;
/// Reading aloud where no pace is told, words a minute (common practice, no source).
pub(super) const USUAL_PACE: f64 = 150.0;

/// The size in which a purpose is laid out.
pub(super) fn planned_size(purpose: Purpose) -> ShotSize {
    if purpose == Purpose::Performance { ShotSize::Wide } else { ShotSize::Medium }
}

/// A list in the order in which it is written.
struct List(Vec<(Id, WantedShot)>);

impl List {
    fn add(
        &mut self,
        id: &str,
        kind: ShotKind,
        size: ShotSize,
        what: &str,
        seconds: f64,
        takes: u8,
    ) -> &mut WantedShot {
        let place = u16::try_from(self.0.len()).unwrap_or(u16::MAX);
        let shot = WantedShot {
            place,
            what: what.to_owned(),
            kind,
            size,
            angle: None,
            backdrop: String::new(),
            light: String::new(),
            action: String::new(),
            seconds,
            takes,
            speed: None,
            stillness_s: 0.0,
            note: String::new(),
        };
        self.0.push((Id(id.to_owned()), shot));
        let last = self.0.len() - 1;
        &mut self.0[last].1
    }

    /// What is shown between, and slowed down where the camera can.
    fn inserts(&mut self, corner: &Corner<'_>, what: &str) {
        self.add("insert", ShotKind::Insert, ShotSize::Close, what, INSERT_S, 2).action = "hands".into();
        let rate = corner.layout.camera.frame_rate_hz;
        if let Some(slow) = corner.brief.recording.slow_motion_hz.filter(|slow| *slow > rate) {
            let shot = self.add(
                "slow-insert",
                ShotKind::SlowInsert,
                ShotSize::Close,
                "The same, slowed down",
                INSERT_S,
                2,
            );
            shot.speed = Some(rate / slow);
            shot.action = "hands".into();
        }
    }
}

/// The shots that are wanted where nobody wrote any down.
pub fn wanted(corner: &Corner<'_>) -> Vec<(Id, WantedShot)> {
    use ShotKind::{Empty, Insert, Slate, Take, Test};
    use ShotSize::{Close, Medium, Wide};
    let recording = &corner.brief.recording;
    let words = match words_in(&corner.brief.run.script.join(" ")) {
        0 => recording.script_words,
        words => Some(words as f64),
    };
    let script_s = words.map(|words| words / recording.words_per_minute.unwrap_or(USUAL_PACE) * 60.0);
    let lasts = |usual: f64| script_s.unwrap_or(usual).clamp(1.0, 7200.0);
    let mut list = List(Vec::new());
    match corner.brief.purpose {
        Purpose::TalkToLens => {
            list.add("talk", Take, Medium, "You, talking to the lens", lasts(TALK_S), 2).action =
                "talk".into();
            list.inserts(corner, "What you talk about, close");
        }
        Purpose::ScreenLesson => {
            list.add("hello", Take, Medium, "Your face: what they will learn", 20.0, 2).action =
                "hello".into();
            list.add("lesson", Take, Medium, "Your voice over the screen", lasts(TALK_S), 2).action =
                "lesson".into();
            list.add("goodbye", Take, Medium, "Your face: what they do next", 15.0, 2).action =
                "goodbye".into();
        }
        Purpose::VerticalShort => {
            list.add("hook", Take, Medium, "The first sentence by itself", 5.0, 3).action = "hook".into();
            list.add("short", Take, Medium, "The whole short", lasts(SHORT_S), 3).action = "short".into();
            list.inserts(corner, "What it is about, close, held upright");
        }
        Purpose::AuditionTape => {
            let slate = list.add("slate", Slate, Medium, "Name and piece, into the lens", 10.0, 2);
            slate.note = "The only shot in which you look into the lens.".into();
            list.add("test", Test, Medium, "A try, looked at and not sent", 30.0, 1);
            let piece = list.add("piece", Take, Medium, "The piece, eyes beside the lens", lasts(PIECE_S), 3);
            piece.stillness_s = 4.0;
            piece.note = "Be still at both ends. Send one take, uncut.".into();
            piece.action = "piece".into();
        }
        Purpose::Performance => {
            let note = "Play to the click or to the sound that was recorded before.";
            let whole = list.add("wide", Take, Wide, "The whole piece, all of you", lasts(TALK_S), 2);
            whole.note = note.into();
            whole.action = "piece".into();
            if corner.angles.is_empty() {
                for (id, size, what) in [
                    ("medium", Medium, "The whole piece, you and the instrument"),
                    ("close", Close, "The whole piece, hands"),
                ] {
                    let shot = list.add(id, Take, size, what, lasts(TALK_S), 1);
                    shot.note = note.into();
                    shot.action = "piece".into();
                }
            }
        }
        Purpose::KeyedBackground => {
            list.add("empty", Empty, Medium, "The screen without you", 5.0, 1).note =
                "It shows how even the screen is, and helps the key.".into();
            list.add("talk", Take, Medium, "You before the screen", lasts(TALK_S), 2).action = "talk".into();
        }
    }
    for angle in &corner.angles {
        let action = if corner.brief.purpose == Purpose::Performance { "piece" } else { "hands" };
        let (kind, size, what, seconds) = if angle.is_overhead() {
            (Insert, Close, "What your hands do, from above", 20.0)
        } else {
            (Take, Medium, "The same from the side", list.0.first().map_or(TALK_S, |(_, shot)| shot.seconds))
        };
        let name = format!("from-{}", angle.id.0);
        let id: String = name.chars().take(32).collect();
        let shot = list.add(&id, kind, size, what, seconds, 1);
        shot.angle = Some(angle.id.clone());
        shot.action = action.into();
    }
    list.0
}
