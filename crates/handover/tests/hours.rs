//! Good hours as files, read back.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use fogon_core::day::{GoodHours, date, days, good_hours, zone_of};
use fogon_core::plan::Plan;
use fogon_handover::hours::{csv, ics};
use fogon_testkit::set;
use icalendar::{Calendar, CalendarComponent, Component};
use serde_json::{Value, json};

/// Three days of a corner with traffic in the morning.
fn hours() -> GoodHours {
    let mut document: Value =
        serde_json::from_str(include_str!("../../../docs/examples/box-room.fogon.json")).unwrap();
    let place = json!({ "latitude_deg": 40.0, "longitude_deg": -4.0, "time_zone": "Europe/Madrid" });
    let quiet = json!([{ "days": ["mon", "tue", "wed"], "from": "07:30", "to": "09:00", "kind": "traffic" }]);
    for (pointer, value) in [
        ("/brief/place", place),
        ("/brief/room/north_deg", json!(30)),
        ("/brief/quiet", quiet),
        ("/brief/schools/window", json!("key")),
    ] {
        set(&mut document, pointer, value);
    }
    let plan = Plan::read(document.to_string().as_bytes()).unwrap();
    let zone = zone_of(&plan.brief);
    let days = days(&zone, date("from", "2026-11-30").unwrap(), date("to", "2026-12-02").unwrap()).unwrap();
    good_hours(&plan, &days, &zone).unwrap()
}

/// Every stretch in which a take can be made is an entry in UTC, with an id that is the same each time and no other's; the name may
/// hold anything.
#[test]
fn the_calendar_is_read_back() {
    let hours = hours();
    let name = "Knives, slow; and \"sharp\"\nBEGIN:VEVENT";
    let text = ics(name, &hours);
    assert_eq!(text, ics(name, &hours));
    assert!(text.lines().all(|line| line.len() <= 75), "long lines are folded");
    let calendar: Calendar = text.parse().unwrap();
    let wanted: Vec<_> = hours.intervals.iter().filter(|one| one.wanted).collect();
    assert_eq!(calendar.components.len(), wanted.len());
    assert!(wanted.len() >= 3);
    let mut ids = Vec::new();
    for (component, one) in calendar.components.iter().zip(wanted) {
        let CalendarComponent::Event(event) = component else { panic!("{component:?}") };
        let stamp = |text: &str| text.replace(['-', ':'], "");
        assert_eq!(event.property_value("DTSTART").unwrap(), stamp(&one.start));
        assert_eq!(event.property_value("DTEND").unwrap(), stamp(&one.end));
        assert!(event.get_summary().unwrap().contains("Knives"));
        ids.push(event.get_uid().unwrap().to_owned());
    }
    ids.sort_unstable();
    ids.dedup();
    assert_eq!(ids.len(), calendar.components.len());
}

/// The table has every stretch, ascending, without a gap.
#[test]
fn the_table_holds_every_stretch() {
    let hours = hours();
    let text = csv(&hours);
    let mut lines = text.split("\r\n");
    assert_eq!(lines.next(), Some("start,end,wanted,light,quiet"));
    let rows: Vec<Vec<&str>> =
        lines.filter(|line| !line.is_empty()).map(|line| line.split(',').collect()).collect();
    assert_eq!(rows.len(), hours.intervals.len());
    assert!(rows.windows(2).all(|pair| pair[0][1] == pair[1][0] && pair[0][0] < pair[0][1]));
    for row in rows {
        assert_eq!(row[2] == "yes", row[3] == "yes" && row[4] == "yes", "{row:?}");
    }
}
