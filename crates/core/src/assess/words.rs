//! From readings and breaches to findings in plain words: what is the matter, why it matters, what to do.

mod banded;
mod left_to_do;
mod light;
mod missing;
mod safety;
mod shot;
mod sound;

use super::legal::Breach;
use super::severity::severity_of;
use crate::corner::Corner;
use crate::finding::{Finding, Rule, Severity, Topic};
use crate::light::LightReport;
use crate::reading::Reading;
use safety::{MAINS_CAUTION, TIP_CAUTION};

pub(crate) use light::PRACTICAL_STOPS;

/// All findings of a corner, worst first; moves that mend them are added later.
pub(super) fn findings(
    corner: &Corner<'_>,
    lit: &LightReport<'_>,
    readings: &[Reading],
    breaches: &[Breach],
) -> Vec<Finding> {
    let mut all: Vec<Finding> = Vec::new();
    for finding in breaches.iter().map(|breach| of_breach(corner, breach)) {
        // All that is wrong with a stand is told at once: whoever buys another must know all of it.
        match all.iter_mut().find(|told| told.id == finding.id && is_of_support(&told.id)) {
            Some(told) => told.sentence = format!("{} {}", told.sentence, finding.sentence),
            None => all.push(finding),
        }
    }
    all.extend(beside_readings(corner, readings));
    for reading in readings {
        if let Some(severity) = severity_of(corner, reading) {
            all.extend(banded::finding(corner, lit, reading, severity));
        }
    }
    all.extend(shot::notes(corner, readings));
    all.extend(light::notes(lit, readings));
    all.extend(sound::notes(corner, readings));
    all.extend(safety::notes(corner, readings));
    all.sort_by_key(|finding| finding.severity);
    // Two breaches of one rule by one thing are one finding.
    let mut seen = Vec::new();
    all.retain(|finding| {
        let is_new = !seen.contains(&finding.id);
        seen.push(finding.id.clone());
        is_new
    });
    all
}

fn is_of_support(topic: &Topic) -> bool {
    matches!(topic, Topic::Broken(Rule::Support, _))
}

/// Findings that can stand in the way and come from no single reading's band and no broken rule; a search counts them as well.
pub(super) fn beside_readings(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let mut all = missing::missing(corner, readings);
    all.extend(safety::hot_lamps(corner));
    all.extend(shot::in_the_way(corner));
    all
}

fn of_breach(corner: &Corner<'_>, breach: &Breach) -> Finding {
    let (reason, source) = match breach.rule {
        Rule::Picture => ("What shows in the picture cannot be cut out afterwards.", "Fogon's own rule"),
        Rule::Door => ("A door must always open freely.", "Fogon's own rule"),
        Rule::Exit => (
            "You must be able to get up without moving gear.",
            "width of the way: common practice, no source",
        ),
        Rule::Way => (
            "You must be able to come and go without moving gear.",
            "width of the way: common practice, no source",
        ),
        Rule::Support => (
            "A stand must hold what it carries.",
            "rigid-body statics; safety factor 1.5 is Fogon's own rule",
        ),
        Rule::Mains => {
            ("A breaker that trips ends the take; one that does not can burn.", "circuit arithmetic")
        }
        Rule::Camera | Rule::Lens => ("The camera must fit and focus where it stands.", "thin-lens geometry"),
        Rule::Sight => ("Lens, key and microphone need a free line.", "geometry"),
        Rule::Near => ("Lamps this near are in the way of the head, and hot.", "Fogon's own rule"),
        Rule::Room | Rule::Collision => ("Things cannot be in one place.", "geometry"),
        Rule::Gear => ("Without it nothing is recorded.", "Fogon's own rule"),
    };
    let topic = Topic::Broken(breach.rule, corner.named(breach.thing.clone()));
    let mut finding = Finding::new(topic, Severity::Stop, breach.sentence.clone())
        .because(reason, source)
        .advise(breach.frees.clone());
    let lacking = breach.lacking;
    if lacking.value() > 0.0 {
        finding = finding.beside(format!("legal.{}", breach.rule.word()), lacking.value(), lacking.unit());
    }
    match breach.rule {
        Rule::Support => finding.caution(TIP_CAUTION),
        Rule::Mains => finding.caution(MAINS_CAUTION),
        _ => finding,
    }
}
