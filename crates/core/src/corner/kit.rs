//! The gear in use as one working whole: what each thing cannot work without, and what at hand offers it. A need and an
//! offer are the same word in the gear's figures (`xlr-input`); an offer serves one need.

use super::Corner;
use crate::plan::{Gear, Id, Part, RecordSchool, ThingId};

/// Needs that the layout's supports answer, not other gear: a stand made for such a thing.
const CARRIED: [&str; 4] = ["camera", "light", "microphone", "screen"];

/// What the computer on which a corner is planned has: it records as well.
const BY_COMPUTER: &str = "usb-input";

/// A need that something at hand answers.
#[derive(Debug, Clone, PartialEq)]
pub struct Link<'a> {
    /// The thing of the layout that it serves.
    pub of: ThingId,
    /// The gear that has the need.
    pub gear: &'a Id,
    /// What it needs.
    pub need: &'a str,
    /// The gear that offers it; none where the computer does on which the corner is planned.
    pub by: Option<&'a Id>,
}

/// A need that nothing at hand answers.
#[derive(Debug, Clone, PartialEq)]
pub struct Unmet<'a> {
    /// The thing of the layout that does not work for lack of it.
    pub of: ThingId,
    /// The gear that has the need.
    pub gear: &'a Id,
    /// What it needs.
    pub need: &'a str,
}

/// The gear in use, resolved.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Kit<'a> {
    /// Needs that are met, in the order of the layout's parts.
    pub links: Vec<Link<'a>>,
    /// Needs that are not.
    pub unmet: Vec<Unmet<'a>>,
}

/// What is still on offer, each once.
struct Offers<'a> {
    left: Vec<(&'a Id, &'a Gear, Vec<&'a str>)>,
}

impl<'a> Offers<'a> {
    /// Everything at hand, in the order in which it is asked: where the sound is recorded apart, recorders come first.
    fn of(corner: &Corner<'a>) -> Self {
        let brief = corner.brief;
        let separate = brief.schools.record == RecordSchool::Separate;
        let mut left: Vec<_> = brief
            .gear
            .iter()
            .filter(|(_, gear)| gear.at_hand() && gear.support().is_none())
            .map(|(id, gear)| {
                let words = gear.common().offers.iter().map(String::as_str);
                (id, gear, (0..gear.common().pieces()).flat_map(|_| words.clone()).collect())
            })
            .collect();
        left.sort_by_key(|(_, gear, _): &(&Id, &Gear, Vec<&str>)| match gear {
            Gear::Recorder(_) => usize::from(!separate),
            Gear::Interface(_) => usize::from(separate),
            _ => 2,
        });
        Self { left }
    }

    /// Takes one offer of a word from anything but the gear that asks.
    fn take(&mut self, need: &str, but: &Id) -> Option<(&'a Id, &'a Gear)> {
        let (id, gear, words) =
            self.left.iter_mut().find(|(id, _, words)| *id != but && words.contains(&need))?;
        let at = words.iter().position(|word| *word == need)?;
        words.remove(at);
        Some((id, gear))
    }
}

impl<'a> Kit<'a> {
    /// The kit of a corner. What answers a need is in use as well, and its own needs count.
    pub fn of(corner: &Corner<'a>) -> Self {
        let mut kit = Self::default();
        let layout: &'a crate::plan::Layout = corner.layout;
        let in_use = layout.parts().flat_map(|part| part.gear().map(move |gear| (part, gear)));
        let mut waiting: Vec<(ThingId, &'a Id, &'a Gear)> = in_use
            .filter_map(|(part, id)| {
                let (id, gear) = corner.brief.gear.get_key_value(id)?;
                has_needs(gear).then(|| (Part::id(part), id, gear))
            })
            .collect();
        if waiting.is_empty() {
            return kit;
        }
        let mut offers = Offers::of(corner);
        waiting.reverse();
        while let Some((of, id, gear)) = waiting.pop() {
            for need in gear.common().needs.iter().map(String::as_str).filter(|need| !CARRIED.contains(need))
            {
                match offers.take(need, id) {
                    Some((by, answer)) => {
                        if has_needs(answer) && !kit.links.iter().any(|link| link.by == Some(by)) {
                            waiting.push((of.clone(), by, answer));
                        }
                        kit.links.push(Link { of: of.clone(), gear: id, need, by: Some(by) });
                    }
                    None if need == BY_COMPUTER => {
                        kit.links.push(Link { of: of.clone(), gear: id, need, by: None });
                    }
                    None => kit.unmet.push(Unmet { of: of.clone(), gear: id, need }),
                }
            }
        }
        kit
    }

    /// What a thing is plugged into, of the kind that records: the link that answers its need of an input.
    pub fn input(&self, of: &ThingId) -> Option<&Link<'a>> {
        self.links.iter().find(|link| link.of == *of && link.need.ends_with("input"))
    }

    /// Whether a thing lacks something it cannot work without.
    pub fn lacks(&self, of: &ThingId) -> bool {
        self.unmet.iter().any(|unmet| unmet.of == *of)
    }
}

fn has_needs(gear: &Gear) -> bool {
    gear.common().needs.iter().any(|need| !CARRIED.contains(&need.as_str()))
}

/// Whether everything that a thing needs is offered by other gear at hand, nothing else being in use.
pub fn works(brief: &crate::plan::Brief, id: &Id) -> bool {
    brief.gear.contains_key(id) && unmet_needs(brief, id).is_empty()
}

/// What a thing needs that no other gear at hand offers, nothing else being in use.
pub fn unmet_needs<'a>(brief: &'a crate::plan::Brief, id: &Id) -> Vec<&'a str> {
    let Some(gear) = brief.gear.get(id) else { return Vec::new() };
    let offered = |need: &str| {
        let others = brief.gear.iter().filter(|(other, gear)| *other != id && gear.at_hand());
        others.into_iter().any(|(_, gear)| gear.common().offers(need))
    };
    let needs = gear.common().needs.iter().map(String::as_str);
    needs.filter(|need| !(CARRIED.contains(need) || *need == BY_COMPUTER || offered(need))).collect()
}
