//! What gear in use cannot work without: told where it lacks, preferred where it works, bought where it is missing.

use fogon_core::assess::without_moves;
use fogon_core::card::card;
use fogon_core::corner::{Corner, Kit, works};
use fogon_core::finding::Severity;
use fogon_core::money::Catalogue;
use fogon_core::plan::{Gear, Id, Plan, ThingId};
use fogon_core::sound::record::{RecordPath, record};
use fogon_testkit::{box_room, set};
use proptest::prelude::*;
use serde_json::json;

use crate::support::{best, bought, bought_among, brief, plain, read};

/// A camera as people have it: how it is powered, what it writes on, whether its lens comes off.
const CAMERAS: [(&str, &[&str]); 4] = [
    ("phone", &[]),
    ("compact", &["camera-power"]),
    ("changeable lens", &["camera-power", "card"]),
    ("on the mains", &["mains-adapter"]),
];

/// The plain corner with a microphone of the catalogue and a camera of some kind, placed so that no rule is broken, and
/// more gear at hand.
fn with(microphone: &str, camera: &[&str], more: &[&str]) -> Plan {
    let mut document = plain();
    let all = &Catalogue::of_fogon().offers;
    let entry = |id: &str| {
        let mut gear = serde_json::to_value(&all[id].gear).unwrap();
        gear["state"] = json!("owned");
        gear
    };
    set(&mut document, "/brief/gear/voice", entry(microphone));
    set(&mut document, "/brief/gear/body/needs", json!(camera));
    for id in more {
        set(&mut document, &format!("/brief/gear/{id}"), entry(id));
    }
    read(&document)
}

fn microphones() -> Vec<&'static str> {
    let all = Catalogue::of_fogon().offers.iter();
    all.filter(|(_, offer)| offer.gear.microphone().is_some()).map(|(id, _)| id.0.as_str()).collect()
}

/// Needs that no support answers and no computer has.
fn needs(gear: &Gear) -> Vec<&str> {
    let all = gear.common().needs.iter().map(String::as_str);
    all.filter(|need| !["camera", "light", "microphone", "screen", "usb-input"].contains(need)).collect()
}

/// Every microphone of the catalogue with every kind of camera: what lacks is told as a stop with the thing's own id and
/// what would mend it, and such a corner is never ready; nothing lacks where there is nothing to lack.
#[test]
fn what_lacks_is_told_for_every_microphone_and_camera() {
    for microphone in microphones() {
        for (kind, camera_needs) in CAMERAS {
            let plan = with(microphone, camera_needs, &[]);
            let judged = without_moves(&plan);
            let mut lacking: Vec<String> =
                camera_needs.iter().map(|need| format!("camera.{need}.missing")).collect();
            let own = needs(&plan.brief.gear["voice"]);
            lacking.extend(own.iter().map(|need| format!("microphone.{need}.missing")));
            let told: Vec<_> = judged
                .findings
                .iter()
                .filter(|f| lacking.contains(&f.id.to_string()))
                .map(|f| (f.severity, f.sentence.as_str(), f.advice.as_ref()))
                .collect();
            assert_eq!(told.len(), lacking.len(), "{microphone} with {kind}: {lacking:?} in {told:?}");
            for (severity, sentence, advice) in &told {
                assert_eq!(*severity, Severity::Stop, "{sentence}");
                assert!(sentence.contains(" needs a") && sentence.ends_with("recorded."), "{sentence}");
                assert!(advice.contains("shelf of owned gear"), "{advice}");
            }
            if !lacking.is_empty() {
                assert!(!judged.verdict.ready, "{microphone} with {kind} is called ready");
            }
            let others = judged.findings.iter().map(|f| f.id.to_string());
            let extra: Vec<_> =
                others.filter(|id| id.ends_with(".missing") && !lacking.contains(id)).collect();
            assert!(extra.is_empty(), "{microphone} with {kind}: {extra:?}");
        }
    }
}

/// With all that it needs at hand nothing lacks, each offer serves one need, and the card says what is plugged into what.
#[test]
fn what_is_at_hand_is_plugged_in_and_on_the_card() {
    let all = ["interface-one", "cable-xlr-3", "battery-camera", "card-128"];
    for microphone in microphones() {
        let plan = with(microphone, &["camera-power", "card"], &all);
        let corner = Corner::of(&plan).unwrap();
        let kit = Kit::of(&corner);
        assert_eq!(kit.unmet, [], "{microphone}");
        let card = card(&plan).unwrap();
        let plugs: Vec<String> = card.cables.iter().map(|cable| format!("{cable:?}")).collect();
        let own = needs(&plan.brief.gear["voice"]);
        assert!(plugs.len() >= own.len(), "{microphone}: {plugs:?}");
        if own.contains(&"xlr-input") {
            assert!(plugs.iter().any(|plug| plug.contains("Audio interface")), "{plugs:?}");
        }
    }
    // One cable does not serve two microphones, and a battery is no card.
    let plan = with("boom-condenser", &["card"], &["interface-one", "battery-camera"]);
    let corner = Corner::of(&plan).unwrap();
    let unmet: Vec<(ThingId, &str)> =
        Kit::of(&corner).unmet.into_iter().map(|unmet| (unmet.of, unmet.need)).collect();
    assert_eq!(unmet, [(ThingId::Camera, "card"), (ThingId::Microphone, "xlr-cable")]);
}

/// An XLR microphone without an input is recorded nowhere, and no cable is told for it.
#[test]
fn without_an_input_the_sound_goes_nowhere() {
    let path = |more: &[&str]| {
        let plan = with("boom-condenser", &[], more);
        let told = record(&Corner::of(&plan).unwrap());
        (told.path, told.reason, told.cable_m.is_some())
    };
    let (nowhere, reason, has_cable) = path(&[]);
    assert_eq!((nowhere, has_cable), (RecordPath::Nowhere, false));
    assert!(reason.starts_with("Nowhere yet") && !reason.contains("camera"), "{reason}");
    let (through, reason, has_cable) = path(&["interface-one", "cable-xlr-3"]);
    assert_eq!((through, has_cable), (RecordPath::Computer, true));
    assert!(reason.contains("interface"), "{reason}");
    assert_eq!(path(&["recorder-xlr", "cable-xlr-3"]).0, RecordPath::Recorder);
}

/// Of two microphones at hand the one that works is used, though the other would score better; the other comes into use once
/// its input and cable are there.
#[test]
fn gear_that_works_is_preferred() {
    let with_both = |more: &[&str]| {
        let mut document = box_room();
        let all = &Catalogue::of_fogon().offers;
        document["brief"]["gear"].as_object_mut().unwrap().remove("boom-microphone");
        for id in ["boom-condenser-fine", "boom-shotgun"].iter().chain(more) {
            let mut gear = serde_json::to_value(&all[*id].gear).unwrap();
            gear["state"] = json!("owned");
            set(&mut document, &format!("/brief/gear/{id}"), gear);
        }
        document
    };
    let lacking = with_both(&[]);
    let chosen = brief(&lacking).brief;
    assert!(works(&chosen, &Id::from("boom-shotgun")) && !works(&chosen, &Id::from("boom-condenser-fine")));
    let plan = best(&lacking);
    assert_eq!(plan.layout.microphone.as_ref().unwrap().gear, Id::from("boom-shotgun"));
    assert!(without_moves(&plan).findings.iter().all(|f| !f.id.to_string().ends_with("input.missing")));
    let whole = best(&with_both(&["interface-one", "cable-xlr-3"]));
    assert_eq!(whole.layout.microphone.unwrap().gear, Id::from("boom-condenser-fine"));
}

/// Where nothing else is at hand, an XLR microphone alone is placed, told as a stop, and what it lacks is bought first.
#[test]
fn what_is_missing_is_bought() {
    let mut document = box_room();
    let needs = json!(["microphone", "xlr-input", "xlr-cable"]);
    set(&mut document, "/brief/gear/boom-microphone/needs", needs);
    // Its owner wants no other.
    for id in microphones() {
        let mut other = serde_json::to_value(&Catalogue::of_fogon().offers[id].gear).unwrap();
        other["state"] = json!("never");
        set(&mut document, &format!("/brief/gear/{id}"), other);
    }
    let plan = best(&document);
    // Ready before not ready: what nothing records is left out, and the camera's own microphone heard; what is lacking is told.
    assert!(plan.layout.microphone.is_none());
    let judged = without_moves(&plan);
    let told = judged.findings.iter().find(|f| f.id == "microphone.missing").expect("it is told");
    assert!(told.advice.contains("an XLR input and an XLR cable"), "{}", told.advice);
    // By hand it may be placed all the same: then it stops.
    let mut placed = plan.clone();
    placed.layout.microphone = Some(best(&box_room()).layout.microphone.unwrap());
    let plan = placed;
    let ids = |plan: &Plan| -> Vec<String> {
        let found = without_moves(plan).findings.into_iter();
        found.map(|f| f.id.to_string()).filter(|id| id.starts_with("microphone.")).collect()
    };
    assert_eq!(ids(&plan), ["microphone.xlr-input.missing", "microphone.xlr-cable.missing"]);
    let advice = bought_among(&plan, 300.0, |gear| {
        gear.camera().is_none() && gear.lens().is_none() && gear.light().is_none()
    });
    let first = advice.path.first().expect("something is bought");
    let items: Vec<&str> = first.items.iter().map(|item| item.id.as_str()).collect();
    let input = items.iter().any(|id| id.starts_with("interface") || id.starts_with("recorder"));
    assert!(input && items.iter().any(|id| id.starts_with("cable-xlr")), "{items:?}");
    assert!(first.cleared > 0, "{first:?}");
    // With what is bought on the shelf the stop is gone.
    let mut whole = plan.clone();
    for id in items {
        let mut gear = serde_json::to_value(&Catalogue::of_fogon().offers[id].gear).unwrap();
        gear["state"] = json!("owned");
        whole.brief.gear.insert(Id::from(id), serde_json::from_value(gear).unwrap());
    }
    assert_eq!(ids(&whole), Vec::<String>::new());
    // A budget of nothing is answered as one, not as a question left open.
    set(&mut document, "/brief/money/budget", json!(0));
    let told = bought(&best(&document), 0.0).sentence;
    assert!(told.contains("nothing to spend; the corner is ready."), "{told}");
}

/// A lamp that needs what is not at hand gives no light: a poor plan, but one that records.
#[test]
fn a_lamp_without_its_battery_is_told() {
    let mut document = plain();
    set(&mut document, "/brief/gear/lamp/needs", json!(["light", "lamp-battery"]));
    let judged = without_moves(&read(&document));
    let told = judged.findings.iter().find(|f| f.id == "key.lamp-battery.missing").unwrap();
    assert_eq!(told.severity, Severity::Fix);
    assert_eq!(told.sentence, "Lamp needs a lamp battery, and nothing at hand has one: it gives no light.");
    // Of two lamps the search takes the one that works.
    let mut spare = document["brief"]["gear"]["lamp"].clone();
    spare["needs"] = json!(["light"]);
    spare["label"] = json!("Other lamp");
    set(&mut document, "/brief/gear/other", spare);
    let plan =
        best(&json!({ "format": "fogon.brief", "version": 1, "name": "Two", "brief": document["brief"] }));
    let keys: Vec<&Id> = plan.layout.lights.values().map(|light| &light.gear).collect();
    assert_eq!(keys, [&Id::from("other")]);
}

/// Whether a microphone is wireless is a figure of its own, not a word in its label.
#[test]
fn a_label_makes_no_microphone_wireless() {
    let cable = |label: &str, wireless: bool| {
        let mut document = plain();
        set(&mut document, "/brief/gear/voice/label", json!(label));
        set(&mut document, "/brief/gear/voice/wireless", json!(wireless));
        let plan = read(&document);
        record(&Corner::of(&plan).unwrap()).cable_m
    };
    assert!(cable("Not wireless at all", false).is_some());
    assert!(cable("Voice", true).is_none());
    assert_eq!(cable("Wireless, so they said", false), cable("Voice", false));
}

/// An interface that is lent brings the stop back: the kit is resolved anew with every plan.
#[test]
fn the_kit_follows_the_shelf() {
    let mut plan = with("boom-condenser", &[], &["interface-one", "cable-xlr-3"]);
    let lacks =
        |plan: &Plan| without_moves(plan).findings.iter().any(|f| f.id == "microphone.xlr-input.missing");
    assert!(!lacks(&plan));
    let mut lent = serde_json::to_value(&plan).unwrap();
    set(&mut lent, "/brief/gear/interface-one/state", json!("wanted"));
    assert!(lacks(&read(&lent)));
    plan.brief.gear.remove("cable-xlr-3");
    assert!(without_moves(&plan).findings.iter().any(|f| f.id == "microphone.xlr-cable.missing"));
}

/// One word of needs and offers, and a gear figure that has some of them.
const WORDS: [&str; 4] = ["xlr-input", "xlr-cable", "battery", "card"];

proptest! {
    #![proptest_config(ProptestConfig { cases: 80, ..ProptestConfig::default() })]

    /// Whatever is at hand: of each word as many needs stay unmet as there are more needs than offers, where nothing else that
    /// helps has needs of its own; each link names gear that is there and offers that word; an offer serves once.
    #[test]
    fn needs_are_met_as_far_as_offers_go(
        needs in prop::collection::vec(0usize..4, 0..5),
        camera in prop::collection::vec(0usize..4, 0..4),
        offers in prop::collection::vec(prop::collection::vec(0usize..4, 0..3), 0..5),
        lent in any::<prop::sample::Index>(),
    ) {
        let words = |all: &[usize]| all.iter().map(|i| WORDS[*i]).collect::<Vec<_>>();
        let mut document = plain();
        set(&mut document, "/brief/gear/voice/needs", json!(words(&needs)));
        set(&mut document, "/brief/gear/body/needs", json!(words(&camera)));
        // One of the helpers is only wanted: what it offers is not at hand.
        let wanted = (!offers.is_empty()).then(|| lent.index(offers.len()));
        for (index, offered) in offers.iter().enumerate() {
            let state = if Some(index) == wanted { "wanted" } else { "owned" };
            let box_of = json!({ "kind": "accessory", "label": "Box", "mass_kg": 0.1, "offers": words(offered), "state": state });
            set(&mut document, &format!("/brief/gear/box-{index}"), box_of);
        }
        let plan = read(&document);
        let corner = Corner::of(&plan).unwrap();
        let kit = Kit::of(&corner);
        for (index, word) in WORDS.iter().enumerate() {
            let asked = needs.iter().chain(&camera).filter(|i| **i == index).count();
            let there = offers.iter().enumerate().filter(|(at, _)| Some(*at) != wanted);
            let offered = there.flat_map(|(_, offered)| offered).filter(|i| **i == index).count();
            let unmet = kit.unmet.iter().filter(|unmet| unmet.need == *word).count();
            prop_assert_eq!(unmet, asked.saturating_sub(offered), "{} {:?}", word, kit);
            for gear in plan.brief.gear.iter() {
                let used = kit.links.iter().filter(|link| link.need == *word && link.by == Some(gear.0)).count();
                let has = gear.1.common().offers.iter().filter(|offer| offer == word).count();
                prop_assert!(used <= has, "{} serves {used} times with {has}", gear.0);
            }
        }
        let links_and_unmet = kit.links.len() + kit.unmet.len();
        prop_assert_eq!(links_and_unmet, needs.len() + camera.len());
        // What is told is what is unmet, each thing and word once.
        let told = without_moves(&plan).findings.into_iter().map(|f| f.id.to_string());
        let told = told.filter(|id| WORDS.iter().any(|word| id.ends_with(&format!(".{word}.missing")))).count();
        let mut distinct: Vec<(String, &str)> = kit.unmet.iter().map(|u| (u.of.words(), u.need)).collect();
        distinct.sort();
        distinct.dedup();
        prop_assert!(told >= distinct.len() && told <= kit.unmet.len(), "{told} told of {:?}", kit.unmet);
        prop_assert!(kit.unmet.is_empty() || !without_moves(&plan).verdict.ready);
    }
}
