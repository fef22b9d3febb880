//! What is used for which job: the lamps, boards and microphones at hand, by the school of light and of microphone.

use crate::photometry::flux_lm;
use crate::plan::{
    Brief, Gear, GearMicrophone, Id, LightSchool, MicrophoneSchool, Mounting, OpeningKind, Shape,
};

/// A thing at hand with its id.
pub(super) type Named<'a> = (&'a Id, &'a Gear);

/// What is used for which job.
pub(super) struct Cast<'a> {
    pub(super) key: Option<Named<'a>>,
    pub(super) fill: Option<Named<'a>>,
    pub(super) back: Option<Named<'a>>,
    /// Lamps that are left for the background.
    pub(super) spare: Vec<Named<'a>>,
    pub(super) microphones: Vec<(&'a Id, &'a GearMicrophone)>,
}

/// A board counts as one from this reflectance on; darker ones take light away.
const BOARD: f64 = 0.4;

pub(super) fn cast(brief: &Brief) -> Cast<'_> {
    let at_hand = || brief.gear.iter().filter(|(_, g)| g.at_hand());
    let mut lamps: Vec<(&Id, &Gear, f64)> =
        at_hand().filter_map(|(id, gear)| gear.light().map(|g| (id, gear, flux_lm(g)))).collect();
    lamps.sort_by(|a, b| b.2.total_cmp(&a.2).then(a.0.cmp(b.0)));
    let mut lamps: Vec<Named<'_>> = lamps.into_iter().map(|(id, gear, _)| (id, gear)).collect();
    let school = brief.schools.lights;
    let is_ring = |(_, gear): &Named<'_>| gear.light().is_some_and(|lamp| lamp.shape == Shape::Ring);
    let by_window = brief.windows_shine()
        && brief.room.openings.values().any(|opening| opening.kind == OpeningKind::Window);
    let key = match school {
        LightSchool::WindowOnly => None,
        _ if by_window => None,
        LightSchool::Ring => lamps.iter().position(is_ring).map(|at| lamps.remove(at)),
        _ => (!lamps.is_empty()).then(|| lamps.remove(0)),
    };
    if school == LightSchool::WindowOnly {
        lamps.clear();
    }
    let board = at_hand()
        .find(|(_, g)| g.reflector().is_some_and(|r| r.reflectance > BOARD && r.transmittance.is_none()));
    let wants_back = school == LightSchool::ThreePoint && !lamps.is_empty();
    let back = if wants_back && (board.is_some() || lamps.len() > 1) { lamps.pop() } else { None };
    let fill = match school {
        LightSchool::One | LightSchool::Ring => None,
        LightSchool::Even => lamps.first().copied().or(board),
        _ => board.or_else(|| lamps.first().copied()),
    };
    lamps.retain(|(id, _)| fill.is_none_or(|(used, _)| used != *id));
    Cast { key, fill, back, spare: lamps, microphones: microphones(brief) }
}

/// Every microphone at hand, the one that the school wants first.
fn microphones(brief: &Brief) -> Vec<(&Id, &GearMicrophone)> {
    let wanted = match brief.schools.microphone {
        MicrophoneSchool::Boom => [Mounting::Boom, Mounting::Lavalier, Mounting::Desk],
        MicrophoneSchool::Lavalier => [Mounting::Lavalier, Mounting::Headset, Mounting::Boom],
        MicrophoneSchool::Desk => [Mounting::Desk, Mounting::Boom, Mounting::Lavalier],
        MicrophoneSchool::InShot => [Mounting::Boom, Mounting::Desk, Mounting::Lavalier],
    };
    let rank = |m: Mounting| {
        wanted.iter().position(|w| *w == m).unwrap_or(match m {
            Mounting::Headset => 3,
            Mounting::Desk => 4,
            Mounting::OnCamera => 5,
            _ => 6,
        })
    };
    let at_hand = brief.gear.iter().filter(|(_, g)| g.at_hand());
    let mut all: Vec<_> = at_hand.filter_map(|(id, g)| g.microphone().map(|m| (id, m))).collect();
    all.sort_by_key(|(id, m)| (rank(m.mounting), (*id).clone()));
    all
}
