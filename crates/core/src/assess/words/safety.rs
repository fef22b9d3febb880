//! What can hurt or break: warmth, hot lamps, weights, things overhead. The usual caution stands beside the number.

use crate::corner::{Corner, Kind, Source, things};
use crate::finding::{Finding, Note, Severity, Topic};
use crate::photometry::{flux_lm, power_w};
use crate::plan::ThingId;
use crate::reading::{Quantity, Reading, ReadingId};
use crate::room::StandState;
use crate::units::{capital, decimals};

/// Lamps below this luminous efficacy give most of their power as heat (common figures: halogen 15-20 lm/W, LED
/// 70-110 lm/W), from this power on.
const HOT_LM_W: f64 = 30.0;
const HOT_W: f64 = 40.0;
/// Distance from a hot lamp to anything that burns, m (Fogon's own rule where the lamp is unmarked).
const HOT_CLEAR_M: f64 = 1.0;
/// A stand should carry so many times what it does (common practice, no source).
const PAYLOAD_TIMES: f64 = 1.5;
/// A closed room that becomes so much warmer is told, K. Fogon's own rule.
const WARM_K: f64 = 6.0;

const HEAT_CAUTION: &str = "Drink, air the room, and stop when you feel unwell; nothing stands on or over a lamp's vents. Batteries are charged on a hard surface while someone is there, never when swollen.";
const OVERHEAD_CAUTION: &str = "What falls from above can kill: fix into studs or joists, never into board alone; a second, short steel tether on everything overhead; nothing over the seat. Tenants ask first. A licensed builder decides.";
pub(super) const TIP_CAUTION: &str = "A stand that tips can hurt someone: level floor, legs fully spread, bag on the rear leg, a leg under the load, cable tied low. These sums find rule breaks; they do not certify a rig.";
pub(super) const MAINS_CAUTION: &str = "Overloaded circuits and leads can burn. Local electrical codes and a licensed electrician decide; no extension lead into another, reels fully unwound.";
const HOT_CAUTION: &str = "Hot lamps set paper, foam and cloth alight and burn hands: keep the distance printed on the lamp, never diffuse one with paper or cloth, let it cool before moving it.";

/// What never stands in the way; hot lamps may.
pub(super) fn notes(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let mut all: Vec<Finding> = warmth(corner, readings).into_iter().collect();
    all.extend(overhead(corner));
    all.extend(payloads(corner));
    all
}

/// A closed room that lamps and a person warm.
fn warmth(corner: &Corner<'_>, readings: &[Reading]) -> Option<Finding> {
    let quantity = Quantity::RoomHeatRiseK;
    let found = readings.iter().find(|reading| reading.id == quantity)?;
    let rise = found.value.filter(|rise| *rise > WARM_K)?;
    let words = corner.brief.units.warmer(rise);
    Some(
        Finding::new(
            quantity,
            Severity::Consider,
            format!("In the end lamps and you warm the closed room by about {words}."),
        )
        .because(
            "Sweat shows before you feel it, and cameras switch off when they are hot.",
            "common practice, no source",
        )
        .on(quantity, Some(rise))
        .caution(HEAT_CAUTION)
        .advise("Air the room between takes, and switch the lamps off while you are not recording."),
    )
}

/// Stands and arms that carry what they may and little more.
fn payloads(corner: &Corner<'_>) -> Vec<Finding> {
    let all = crate::room::sandbags(corner);
    let scant = |stand: &StandState| {
        let times = stand.payload_kg?.0 / stand.load_kg.max(1e-9);
        (1.0..PAYLOAD_TIMES).contains(&times).then(|| {
            let id = ReadingId::of(Quantity::RoomPayloadTimes, corner.name(&stand.thing));
            let words = format!(
                "The stand of the {} can carry only {} times its load.",
                stand.words(),
                decimals(times, 1)
            );
            Finding::new(id.clone(), Severity::Consider, words)
                .because("1.5 times and more keeps heads from sinking.", "common practice, no source")
                .on(id, Some(times))
                .caution(TIP_CAUTION)
                .advise("Use a stronger stand, or a lighter modifier.")
        })
    };
    all.iter().filter_map(scant).collect()
}

/// What is fixed to wall or ceiling.
fn overhead(corner: &Corner<'_>) -> Option<Finding> {
    let hung: Vec<String> = crate::room::fixed(corner).iter().map(ThingId::words).collect();
    let names = match hung.as_slice() {
        [] => return None,
        [one] => format!("The {one} hangs"),
        [others @ .., last] => format!("The {} and {last} hang", others.join(", ")),
    };
    Some(
        Finding::new(
            Note::Overhead,
            Severity::Consider,
            format!("{names} from wall or ceiling: each needs a sound fixing and a tether."),
        )
        .because("A clamp or a screw that lets go gives no warning.", "common practice, no source")
        .caution(OVERHEAD_CAUTION)
        .advise("Pull on every fixing with twice the load before you hang anything."),
    )
}

pub(super) fn hot_lamps(corner: &Corner<'_>) -> Vec<Finding> {
    let mut all = Vec::new();
    for light in &corner.lights {
        let Source::Lamp(lamp) = light.source else { continue };
        let (watts, assumed) = power_w(lamp);
        let efficacy = flux_lm(lamp) / watts;
        if assumed || watts < HOT_W || efficacy >= HOT_LM_W {
            continue;
        }
        if light.cloth.is_some() || light.light.gel.is_some() {
            let what = if light.cloth.is_some() { "cloth or paper" } else { "a gel" };
            all.push(
                Finding::new(
                    Topic::Hot(corner.named(ThingId::Light(light.id.clone()))),
                    Severity::Stop,
                    format!("{} runs hot, and {what} is planned in front of it.", capital(light.label())),
                )
                .because(
                    "Paper, cloth and gels in front of a hot lamp catch fire.",
                    "common practice, no source; 30 lm/W tells hot lamps from others: Fogon's own rule",
                )
                .beside("efficacy", efficacy, "lm/W")
                .advise("Use an LED lamp, or bounce this one off the ceiling.")
                .caution(HOT_CAUTION),
            );
            continue;
        }
        let head = light.position_m;
        let units = corner.brief.units;
        let near = things(corner)
            .into_iter()
            .filter(|thing| thing.kind == Kind::Furniture)
            .map(|thing| {
                let off = thing.pieces.iter().map(|piece| piece.solid.distance_m(head));
                (off.fold(f64::INFINITY, f64::min), thing.label)
            })
            .min_by(|a, b| a.0.total_cmp(&b.0))
            .filter(|(distance, _)| *distance < HOT_CLEAR_M);
        let label = capital(light.label());
        let (severity, sentence) = match near {
            Some((distance, furniture)) => (
                Severity::Fix,
                format!(
                    "{label} runs hot and is {} from {furniture}; keep {}.",
                    units.length(distance),
                    units.length(HOT_CLEAR_M)
                ),
            ),
            None => (
                Severity::Consider,
                format!("{label} runs hot: {} lm from each watt.", decimals(efficacy, 0)),
            ),
        };
        all.push(
            Finding::new(Topic::Hot(corner.named(ThingId::Light(light.id.clone()))), severity, sentence)
                .because(
                    "A lamp that gives little light for its watts gives the rest as heat.",
                    "IEC 60598-1 distance mark (from memory); a metre where unmarked is Fogon's own rule",
                )
                .beside("efficacy", efficacy, "lm/W")
                .advise(format!(
                    "Keep it {} from anything that burns, or use an LED lamp.",
                    units.length(HOT_CLEAR_M)
                ))
                .caution(HOT_CAUTION),
        );
    }
    all
}
