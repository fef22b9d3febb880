//! What leaves the building: well-formed, to scale, readable in black and white, harmless whatever a name says.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use fogon_core::card::{Card, card};
use fogon_core::plan::Plan;
use fogon_handover::picture::{self, Photo};
use fogon_handover::{Paper, csv, html, svg};
use fogon_testkit::set;
use serde_json::{Value, json};
use ttf_parser::Face;

const PLAN: &str = include_str!("../../../docs/examples/box-room.fogon.json");

fn with(edits: &[(&str, Value)]) -> Card {
    let mut document: Value = serde_json::from_str(PLAN).unwrap();
    for (pointer, value) in edits {
        set(&mut document, pointer, value.clone());
    }
    card(&Plan::read(document.to_string().as_bytes()).unwrap()).unwrap()
}

/// Elements of an XML text in order, as (name, attributes, closing); fails on what is not nested properly.
fn elements(text: &str) -> Vec<(String, String)> {
    let mut open: Vec<String> = Vec::new();
    let mut all = Vec::new();
    for piece in text.split('<').skip(1) {
        let (tag, after) = piece.split_once('>').unwrap_or_else(|| panic!("an open tag: {piece:.40}"));
        assert!(!after.contains('>'), "a bare > in {after:.60}");
        if tag.starts_with('?') || tag.starts_with('!') {
            continue;
        }
        if let Some(name) = tag.strip_prefix('/') {
            assert_eq!(open.pop().as_deref(), Some(name));
            continue;
        }
        let body = tag.trim_end_matches('/');
        let (name, attributes) = body.split_once(char::is_whitespace).unwrap_or((body, ""));
        all.push((name.to_owned(), attributes.to_owned()));
        if !tag.ends_with('/') {
            open.push(name.to_owned());
        }
    }
    assert!(open.is_empty(), "left open: {open:?}");
    all
}

fn attribute<'a>(attributes: &'a str, name: &str) -> Option<&'a str> {
    attributes
        .split_once(&format!("{name}=\""))
        .and_then(|(_, rest)| rest.split_once('"'))
        .map(|(value, _)| value)
}

#[test]
fn the_svg_is_one_page_of_its_paper() {
    for (paper, width, height) in [(Paper::A4, 210.0, 297.0), (Paper::Letter, 215.9, 279.4)] {
        assert_eq!(paper.size_mm(), (width, height));
        let text = svg::card(&with(&[]), paper, None);
        let all = elements(&text);
        let (name, attributes) = &all[0];
        assert_eq!(name, "svg");
        assert_eq!(attribute(attributes, "width"), Some(format!("{width}mm").as_str()));
        let tall: f64 = attribute(attributes, "height").unwrap().trim_end_matches("mm").parse().unwrap();
        assert!((tall - height).abs() < 0.06, "{tall} mm for {height}: the demo's card fits one page");
        for (name, attributes) in &all {
            assert!(!matches!(name.as_str(), "script" | "image" | "foreignObject"), "{name}");
            assert!(!attributes.contains("href") && !attributes.contains(" on"), "{name} {attributes}");
        }
    }
}

/// Every colour is a grey: what red says, a black-and-white printer would not.
#[test]
fn paper_needs_no_colour() {
    for text in [svg::card(&with(&[]), Paper::A4, None), html::card(&with(&[]), Paper::A4, None)] {
        let mut seen = 0;
        for piece in text.split('#').skip(1) {
            let digits: String = piece.chars().take_while(char::is_ascii_hexdigit).collect();
            let (red, green, blue) = match digits.len() {
                3 => (&digits[0..1], &digits[1..2], &digits[2..3]),
                6 => (&digits[0..2], &digits[2..4], &digits[4..6]),
                _ => continue,
            };
            assert!(red == green && green == blue, "#{digits} is no grey");
            seen += 1;
        }
        assert!(seen > 10, "only {seen} colours looked at");
        assert!(!text.contains("rgb(") && !text.contains("hsl("));
    }
}

/// A metre of the room is a metre at the stated scale wherever the plan is drawn, and the ruler beside it agrees.
#[test]
fn lengths_are_to_scale_for_rooms_of_any_size() {
    for (width, depth) in [(2.2, 2.0), (3.4, 2.9), (6.0, 5.0), (9.0, 4.0)] {
        let mut edits =
            vec![("/brief/room/floor_m", json!([[0, 0], [width, 0], [width, depth], [0, depth]]))];
        edits.push(("/brief/room/furniture", json!({})));
        edits.push(("/layout/furniture", json!({})));
        edits.push(("/brief/person/seat_at", Value::Null));
        edits.push(("/brief/room/openings", json!({})));
        edits.push(("/brief/today", Value::Null));
        // Everything where it fits the smallest of these rooms.
        edits.push(("/layout/seat/position_m", json!([1.0, 0.6])));
        edits.push(("/layout/camera/position_m", json!([1.0, 1.6, 1.2])));
        edits.push(("/layout/lights", json!({})));
        edits.push(("/layout/microphone", Value::Null));
        let text = svg::card(&with(&edits), Paper::A4, None);
        let n: f64 = text.split("1 : ").nth(1).unwrap().split('<').next().unwrap().parse().unwrap();
        let ruler =
            elements(&text).into_iter().find(|(name, a)| name == "path" && a.contains("h")).unwrap().1;
        let metre: f64 = ruler.split('h').nth(1).unwrap().split('m').next().unwrap().parse().unwrap();
        assert!((metre - 1000.0 / n).abs() < 0.01, "1 : {n} and {metre} mm");
        let floor =
            attribute(&elements(&text).into_iter().find(|(name, _)| name == "polygon").unwrap().1, "points")
                .unwrap()
                .to_owned();
        let xs: Vec<f64> = floor.split(' ').map(|p| p.split_once(',').unwrap().0.parse().unwrap()).collect();
        let across = xs.iter().copied().fold(f64::NEG_INFINITY, f64::max)
            - xs.iter().copied().fold(f64::INFINITY, f64::min);
        let sides = [width * metre, depth * metre];
        assert!(sides.iter().any(|s| (s - across).abs() < 0.05), "{across} mm for {sides:?}");
    }
}

/// Names are people's own: none of them becomes markup or a formula.
#[test]
fn hostile_names_stay_names() {
    let evil = "<script>alert(1)</script>&\"'=cmd|' /C calc'!A0";
    let card = with(&[
        ("/name", json!(evil)),
        ("/brief/gear/octa/label", json!(evil)),
        ("/brief/gear/camera/label", json!("-1+1")),
    ]);
    for text in [svg::card(&card, Paper::A4, None), html::card(&card, Paper::Letter, None)] {
        assert!(!text.contains("<script"), "markup came through");
        assert!(text.contains("&lt;script&gt;") || text.contains("&#60;script&#62;"));
    }
    elements(&svg::card(&card, Paper::A4, None));
    for line in csv::card(&card).lines() {
        for field in fields(line) {
            assert!(!field.starts_with(['=', '+', '-', '@']), "{field} would run as a formula");
        }
    }
}

/// The table opens in a spreadsheet: every row has as many fields as the head, numbers are metres with a point.
#[test]
fn the_csv_is_a_table() {
    let text = csv::card(&with(&[]));
    let rows: Vec<Vec<String>> = text.lines().map(fields).collect();
    assert!(rows.len() > 8 && rows.iter().all(|r| r.len() == rows[0].len()), "{text}");
    let seat = rows.iter().find(|r| r.iter().any(|f| f.starts_with("Seat"))).unwrap();
    let numbers: Vec<f64> = seat.iter().filter_map(|f| f.parse().ok()).collect();
    let plan: Value = serde_json::from_str(PLAN).unwrap();
    for i in 0..2 {
        let at = plan["layout"]["seat"]["position_m"][i].as_f64().unwrap();
        assert!(numbers.iter().any(|n| (n - at).abs() < 5e-4), "{at} in {seat:?}");
    }
}

/// Fields of one CSV row (RFC 4180).
fn fields(line: &str) -> Vec<String> {
    let mut all = vec![String::new()];
    let mut quoted = false;
    let mut letters = line.chars().peekable();
    while let Some(c) = letters.next() {
        match c {
            '"' if quoted && letters.peek() == Some(&'"') => {
                letters.next();
                all.last_mut().unwrap().push('"');
            }
            '"' => quoted = !quoted,
            ',' if !quoted => all.push(String::new()),
            c => all.last_mut().unwrap().push(c),
        }
    }
    assert!(!quoted, "an open quote in {line}");
    all
}

#[test]
fn the_page_names_its_paper_and_needs_nothing_from_elsewhere() {
    let text = html::card(&with(&[]), Paper::Letter, None);
    assert!(text.starts_with("<!doctype html>") && text.contains("@page{size:letter;"));
    assert!(html::card(&with(&[]), Paper::A4, None).contains("@page{size:A4;"));
    for outside in ["http:", "https:", "<link", "<img", "@import", "url(h"] {
        assert!(!text.replace("http://www.w3.org/2000/svg", "").contains(outside), "{outside}");
    }
    // Every mark, setting and dial of the card is on the page.
    let shown = with(&[]);
    for mark in &shown.marks {
        assert!(text.contains(&format!("{} {}", mark.number, mark.letter)) && text.contains(&mark.what));
    }
    for setting in &shown.settings {
        assert!(text.contains(setting.name) && text.contains(&setting.value), "{}", setting.name);
    }
    assert!(shown.dials.iter().all(|d| text.contains(&d.place)));
    assert!(shown.before.iter().all(|b| text.contains(b)));
}

/// Width of words at a size of 1, by the letters of the typeface.
fn width(words: &str, is_bold: bool) -> f64 {
    let regular: &[u8] = include_bytes!("../assets/atkinson-regular.ttf");
    let bold: &[u8] = include_bytes!("../assets/atkinson-bold.ttf");
    let face = Face::parse(if is_bold { bold } else { regular }, 0).unwrap();
    let wide = |letter: char| {
        face.glyph_index(letter).and_then(|glyph| face.glyph_hor_advance(glyph)).unwrap_or(1000)
    };
    words.chars().map(|letter| f64::from(wide(letter)) / f64::from(face.units_per_em())).sum()
}

/// Lines of text that stand on a sheet itself, not in a drawing: left, right, baseline, size, words.
fn lines_of(svg: &str) -> Vec<(f64, f64, f64, f64, String)> {
    let mut all = Vec::new();
    let mut down = 0.0;
    for piece in svg.split('<').skip(1) {
        let (tag, words) = piece.split_once('>').unwrap();
        let weight = attribute(tag, "font-weight").filter(|_| attribute(tag, "text-anchor").is_none());
        // Pages stand one under the other.
        if let Some(moved) = attribute(tag, "transform").and_then(|moved| moved.strip_prefix("translate(0 "))
        {
            down = moved.trim_end_matches(')').parse().unwrap();
        }
        if let (Some("text"), Some(weight)) = (tag.split(' ').next(), weight) {
            let number = |name: &str| attribute(tag, name).and_then(|v| v.parse::<f64>().ok());
            let (Some(x), Some(y), Some(size)) = (number("x"), number("y"), number("font-size")) else {
                continue;
            };
            let words = words
                .replace("&amp;", "&")
                .replace("&lt;", "<")
                .replace("&#39;", "'")
                .replace("&quot;", "\"");
            all.push((x, x + size * width(&words, weight == "700"), y + down, size, words));
        }
    }
    all
}

/// Names as long as they may be, in either unit system, with everything set that can be: no line runs off the paper, and none
/// over another.
#[test]
fn nothing_runs_off_the_card_or_over_another_line() {
    let long = "A name that goes on about the attic room and its lamp, the chair, and all ".repeat(2)[..119]
        .to_owned();
    let unbroken = "Unbreakable".repeat(10);
    for units in ["metric", "imperial"] {
        for (name, label) in [
            (&long, "60 W LED, 65 cm octagonal softbox with a grid and a second layer of cloth"),
            (&unbroken, "x"),
        ] {
            let card = with(&[
                ("/name", json!(name)),
                ("/brief/units", json!(units)),
                ("/brief/gear/octa/label", json!(label)),
                ("/brief/gear/camera/label", json!(label)),
                ("/layout/camera/nd_stops", json!(1.5)),
            ]);
            for paper in [Paper::A4, Paper::Letter] {
                let text = svg::card(&card, paper, None);
                let lines = lines_of(&text);
                assert!(lines.len() > 60, "{} lines", lines.len());
                for (_, right, _, _, words) in &lines {
                    assert!(*right < paper.size_mm().0 - 4.0, "{words} ends at {right:.0} mm");
                }
                for (i, (left, right, y, size, words)) in lines.iter().enumerate() {
                    for (other_left, other_right, other_y, other_size, other) in &lines[..i] {
                        let apart = (y - other_y).abs() >= 0.85 * size.min(*other_size);
                        let beside = right <= other_left || other_right <= left;
                        assert!(apart || beside, "{words} runs over {other}");
                    }
                }
            }
            assert!(html::card(&card, Paper::A4, None).contains("overflow-wrap"));
        }
    }
}

/// A camera as far away as a plan may hold it: every length on the card is a number.
#[test]
fn a_far_camera_has_a_card_of_numbers() {
    let plan: Value = serde_json::from_str(PLAN).unwrap();
    let height = plan["layout"]["camera"]["position_m"][2].clone();
    for at in [json!([1.7, 3.89, height]), json!([4.39, 2.0, height]), json!([-0.69, -0.69, height])] {
        let card = with(&[("/layout/camera/position_m", at.clone())]);
        for text in [svg::card(&card, Paper::A4, None), html::card(&card, Paper::A4, None), csv::card(&card)]
        {
            for broken in ["infmm", "inf\"", "NaN", "inf,", "-inf", "nan"] {
                assert!(!text.contains(broken), "{broken} with the camera at {at}");
            }
        }
        elements(&svg::card(&card, Paper::A4, None));
    }
}

/// In feet and inches the paper holds no metric length or mass but what lenses are told in; its ruler is three feet long.
#[test]
fn paper_in_feet_holds_no_metres() {
    let card = with(&[("/brief/units", json!("imperial")), ("/brief/gear/octa/label", json!("Softbox"))]);
    let svg = svg::card(&card, Paper::Letter, None);
    assert!(svg.contains(">3 ft<") && !svg.contains(">1 m<"));
    for text in [svg, html::card(&card, Paper::Letter, None)] {
        // Words alone: attributes of drawings are in millimetres of paper.
        let mut words = String::new();
        let mut inside = false;
        let body = text.split_once("</style>").map_or(text.as_str(), |(_, body)| body);
        for c in body.chars() {
            match c {
                '<' => inside = true,
                '>' => {
                    inside = false;
                    words.push('\n');
                }
                c if !inside => words.push(c),
                _ => {}
            }
        }
        for line in words.lines() {
            let parts: Vec<&str> = line.split_whitespace().collect();
            for pair in parts.windows(2) {
                let number = pair[0].trim_start_matches(['\u{2212}', '(']).parse::<f64>().is_ok();
                let unit = pair[1].trim_end_matches(['.', ',', ';', ':', ')']);
                let of_lens = line.contains("full-frame") || line.contains("focal") || line.contains(" mm, ");
                assert!(!(number && ["m", "cm", "kg"].contains(&unit)), "{line}");
                assert!(!(number && unit == "mm") || of_lens, "{line}");
            }
        }
    }
    // The table for spreadsheets stays in metres, and says so in its head.
    let table = csv::card(&card);
    assert!(table.lines().next().is_some_and(|head| head.contains("from_left_m")));
    let marks = |table: &str| -> Vec<Vec<String>> {
        let rows = table.lines().map(fields).filter(|row| row[0] == "mark");
        // How far a mark may be off hangs on the tape: a quarter inch is read less finely than a centimetre.
        rows.map(|row| row[4..10].to_vec()).collect()
    };
    assert_eq!(marks(&table), marks(&csv::card(&with(&[]))));
}

/// With a photograph the card holds it, in its place and with its guides, and draws nothing that the photograph shows.
#[test]
fn a_photograph_takes_the_place_of_the_drawn_picture() {
    let card = with(&[]);
    let png = picture::png(2, 1, &[10, 20, 30, 255, 40, 50, 60, 255], "39 mm").unwrap();
    let photo = || Some(Photo { png: &png, aspect: 2.0 });
    for (plain, seen) in [
        (svg::card(&card, Paper::A4, None), svg::card(&card, Paper::A4, photo())),
        (html::card(&card, Paper::A4, None), html::card(&card, Paper::A4, photo())),
    ] {
        assert!(!plain.contains("<image") && seen.matches("href=\"data:image/png;base64,iVBOR").count() == 1);
        assert!(seen.matches("<polygon").count() < plain.matches("<polygon").count());
    }
    elements(&svg::card(&card, Paper::A4, photo()));
}
