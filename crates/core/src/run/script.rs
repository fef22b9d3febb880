//! A script: how many words, how long it takes at one's own pace, in lines that fit the screen, paragraph by paragraph.

use serde::Serialize;
use textwrap::{Options, WordSeparator, WordSplitter, WrapAlgorithm};
use unicode_segmentation::UnicodeSegmentation;
use utoipa::ToSchema;

/// Letters of a line where nobody told of a screen (common practice, no source: 30 to 40 are read without turning the head).
const LETTERS: usize = 36;
/// Fewer letters break words, more are no column.
const LETTERS_WITHIN: (usize, usize) = (12, 120);

/// A paragraph: one take.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Paragraph {
    /// Its number, from 1.
    pub number: usize,
    /// Words.
    pub words: usize,
    /// How long it takes to say, s.
    pub seconds: f64,
    /// Lines that fit the screen.
    pub lines: Vec<String>,
}

/// A script.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Script {
    /// Words.
    pub words: usize,
    /// How long it takes to say, s.
    pub seconds: f64,
    /// Words a minute that were reckoned with.
    pub words_per_minute: f64,
    /// That pace was told; else it is the usual one.
    pub own_pace: bool,
    /// Letters of a line.
    pub letters: usize,
    /// Paragraph by paragraph.
    pub paragraphs: Vec<Paragraph>,
}

/// Words of a text, as Unicode parts them (UAX 29).
pub fn words_in(text: &str) -> usize {
    text.unicode_words().count()
}

/// Paragraphs at a pace, in lines of at most so many letters; `None` where there is no word in them.
pub fn script(
    paragraphs: &[String],
    words_per_minute: f64,
    own_pace: bool,
    letters: Option<f64>,
) -> Option<Script> {
    let (least, most) = LETTERS_WITHIN;
    let letters = letters.map_or(LETTERS, |letters| letters.floor() as usize).clamp(least, most);
    let options = Options::new(letters)
        .word_separator(WordSeparator::UnicodeBreakProperties)
        .word_splitter(WordSplitter::NoHyphenation)
        .wrap_algorithm(WrapAlgorithm::FirstFit);
    let seconds = |words: usize| words as f64 / words_per_minute * 60.0;
    let paragraphs: Vec<Paragraph> = paragraphs
        .iter()
        .map(|text| text.split_whitespace().collect::<Vec<_>>().join(" "))
        .filter(|text| words_in(text) > 0)
        .enumerate()
        .map(|(index, text)| {
            let words = words_in(&text);
            let lines = textwrap::wrap(&text, &options).into_iter().map(|line| line.into_owned()).collect();
            Paragraph { number: index + 1, words, seconds: seconds(words), lines }
        })
        .collect();
    let words = paragraphs.iter().map(|one| one.words).sum();
    (words > 0).then(|| Script {
        words,
        seconds: seconds(words),
        words_per_minute,
        own_pace,
        letters,
        paragraphs,
    })
}
