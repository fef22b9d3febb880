//! How files are named, so that they sort as they were shot.

use crate::plan::FILE_FIELDS;

/// The usual pattern.
const USUAL: &str = "{date}-{shot}-{take}";
/// No file system takes longer names; a camera's or recorder's ending comes to it.
const LONGEST: usize = 100;
/// What stands for day and take while the rest is made fit for a file system.
const OPEN: [(&str, &str); 2] = [("{date}", "\u{1}"), ("{take}", "\u{2}")];

/// The names of a shot's files without their ending: letters, digits and hyphens, with `{date}` and `{take}` still open.
pub fn file_stem(pattern: Option<&str>, corner: &str, shot: &str, size: &str) -> String {
    let mut text = pattern.unwrap_or(USUAL).to_owned();
    for field in FILE_FIELDS {
        let name = format!("{{{field}}}");
        let value = match field {
            "corner" => corner,
            "shot" => shot,
            "size" => size,
            _ => OPEN.iter().find(|(open, _)| *open == name).map_or("", |(_, stands)| stands),
        };
        text = text.replace(&name, value);
    }
    let is_open = |c: char| OPEN.iter().any(|(_, stands)| stands.starts_with(c));
    let words: Vec<String> = text
        .split(|c: char| !c.is_alphanumeric() && !is_open(c))
        .filter(|word| !word.is_empty())
        .map(str::to_lowercase)
        .collect();
    let mut stem: String = words.join("-").chars().take(LONGEST).collect();
    for (open, stands) in OPEN {
        stem = stem.replace(stands, open);
    }
    if stem.is_empty() { "{take}".to_owned() } else { stem.trim_end_matches('-').to_owned() }
}
