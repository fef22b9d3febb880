//! The card as plain text, for notes on a phone or a message: what is on paper, without the drawings.

use fogon_core::card::{Card, Mark};

/// A heading and its lines; nothing where there are no lines.
fn section(into: &mut String, title: &str, lines: impl IntoIterator<Item = String>) {
    let mut lines = lines.into_iter().peekable();
    if lines.peek().is_none() {
        return;
    }
    into.push_str(&format!("\n{}\n", title.to_uppercase()));
    for line in lines {
        into.push_str(&format!("- {line}\n"));
    }
}

fn of_mark(card: &Card, mark: &Mark) -> String {
    let length = |metres: f64| card.units.mark(metres);
    let [one, other] = &mark.tape.corners;
    format!(
        "{} {}: {}, {} from the left wall, {} from the back wall; {} from corner {}, {} from corner {}. {}",
        mark.number,
        mark.letter,
        mark.what,
        length(mark.tape.from_left_m),
        length(mark.tape.from_back_m),
        length(one.length_m),
        one.corner,
        length(other.length_m),
        other.corner,
        mark.set
    )
    .trim_end()
    .to_owned()
}

/// The card as lines of text, in the order of the paper.
pub fn card(card: &Card) -> String {
    let Card {
        name,
        units: _,
        verdict,
        room,
        marks,
        aims,
        baseline: _,
        diagonals: _,
        hung,
        tape_error_m: _,
        settings,
        dials,
        microphone,
        cables,
        before,
        cautions,
        assumed,
        drawing: _,
        ready,
        power: _,
        away: _,
    } = card;
    let mut text = format!("{name}\nRoom {room}. {verdict} {}\n", ready.sentence);
    let taped = card.baseline_words().into_iter().chain(marks.iter().map(|mark| of_mark(card, mark)));
    section(
        &mut text,
        "Marks, in the order to lay them; left and right are the camera's",
        taped.chain(card.diagonals_words()).chain(aims.clone()),
    );
    section(&mut text, "Camera", settings.iter().map(|one| format!("{}: {}", one.name, one.value)));
    section(
        &mut text,
        "Lights",
        dials.iter().map(|dial| format!("{} {}: {}", dial.letter, dial.what, dial.words())),
    );
    section(&mut text, "Microphone", [microphone.clone()]);
    section(&mut text, "Plugs", cables.iter().map(|cable| format!("{} into {}", cable.of, cable.to)));
    section(&mut text, "Against the echo", hung.iter().map(|one| format!("{}: {}", one.what, one.place)));
    section(&mut text, "Before every take", before.iter().cloned());
    section(&mut text, "Cautions", cautions.iter().cloned());
    section(&mut text, "Assumed, not measured", assumed.iter().cloned());
    text
}
