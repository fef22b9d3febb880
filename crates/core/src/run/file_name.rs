//! How files are named, so that they sort as they were shot.

use crate::plan::FILE_FIELDS;

/// The usual pattern.
const USUAL: &str = "{date}-{shot}-{take}";
/// No file system takes longer names; a camera's or recorder's ending comes to it.
const LONGEST: usize = 100;

/// What a name is made of.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FileName<'a> {
    /// As `2026-11-29`.
    pub date: &'a str,
    /// The corner.
    pub corner: &'a str,
    /// The shot.
    pub shot: &'a str,
    /// Wide, medium or close.
    pub size: &'a str,
    /// Number of the take.
    pub take: u32,
}

/// A file's name without its ending: letters, digits and hyphens alone.
pub fn file_name(pattern: Option<&str>, of: &FileName<'_>) -> String {
    let mut text = pattern.unwrap_or(USUAL).to_owned();
    let take = format!("{:02}", of.take);
    for (field, value) in FILE_FIELDS.into_iter().zip([of.date, of.corner, of.shot, of.size, &take]) {
        text = text.replace(&format!("{{{field}}}"), value);
    }
    let words: Vec<String> = text
        .split(|c: char| !c.is_alphanumeric())
        .filter(|word| !word.is_empty())
        .map(str::to_lowercase)
        .collect();
    let name = words.join("-");
    let name: String = name.chars().take(LONGEST).collect();
    if name.is_empty() { format!("take-{take}") } else { name.trim_end_matches('-').to_owned() }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_sort_and_hold_nothing_that_a_file_system_refuses() {
        let of = FileName { date: "2026-11-29", corner: "Box room", shot: "Slate: name / piece", size: "medium", take: 3 };
        assert_eq!(file_name(None, &of), "2026-11-29-slate-name-piece-03");
        assert_eq!(file_name(Some("{corner}_{take}_{size}"), &of), "box-room-03-medium");
        assert_eq!(file_name(Some("../{shot}"), &FileName { shot: "???", ..of }), "take-03");
        assert!(file_name(Some("{shot}"), &FileName { shot: &"ä".repeat(300), ..of }).chars().count() <= LONGEST);
    }
}
