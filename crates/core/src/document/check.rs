//! Holds a value against a schema built by `schema.rs` and says in words what is wrong. It knows the
//! keywords that our schemas use and no others; a test holds it against a general validator.

use std::sync::LazyLock;

use serde_json::{Map, Value};

use super::schema::describe_range;
use crate::problem::{Code, Problem};

/// The kinds of problem in the order they are reported; only the first kind met is returned.
#[derive(Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
enum Stage {
    Unknown,
    Missing,
    Type,
    Range,
}

/// All problems of the earliest stage, in document order; empty when the value fits.
pub fn check(schema: &Value, value: &Value) -> Vec<Problem> {
    let mut walk = Walk { root: schema, found: Vec::new() };
    walk.value(schema, value, "");
    let Some(first) = walk.found.iter().map(|(stage, _)| *stage).min() else { return Vec::new() };
    walk.found.into_iter().filter(|(stage, _)| *stage == first).map(|(_, problem)| problem).take(20).collect()
}

struct Walk<'a> {
    root: &'a Value,
    found: Vec<(Stage, Problem)>,
}

impl<'a> Walk<'a> {
    fn say(
        &mut self,
        stage: Stage,
        at: &str,
        value: impl std::fmt::Display,
        accepted: impl Into<String>,
        code: Code,
    ) {
        let field = if at.is_empty() { "document" } else { at };
        self.found.push((stage, Problem::new(field, value, accepted, code)));
    }

    fn resolve(&self, schema: &'a Value) -> &'a Value {
        match schema["$ref"].as_str().and_then(|r| r.rsplit('/').next()) {
            Some(name) => &self.root["$defs"][name],
            None => schema,
        }
    }

    fn value(&mut self, schema: &'a Value, value: &Value, at: &str) {
        let schema = self.resolve(schema);
        if let Some(options) = schema["oneOf"].as_array() {
            return self.one_of(options, value, at);
        }
        let types: Vec<&str> = match &schema["type"] {
            Value::String(one) => vec![one],
            Value::Array(many) => many.iter().filter_map(Value::as_str).collect(),
            _ => return,
        };
        if value.is_null() && types.contains(&"null") {
            return;
        }
        match types.iter().find(|t| **t != "null") {
            Some(&"object") => self.object(schema, value, at),
            Some(&"array") => self.array(schema, value, at),
            Some(&"number") => self.number(schema, value, at, false),
            Some(&"integer") => self.number(schema, value, at, true),
            Some(&"string") => self.string(schema, value, at),
            Some(&"boolean") if !value.is_boolean() => {
                self.say(Stage::Type, at, value, "true or false", Code::WrongType);
            }
            _ => {}
        }
    }

    /// `null or T`, or a choice between objects told apart by one constant field.
    fn one_of(&mut self, options: &'a [Value], value: &Value, at: &str) {
        let resolved: Vec<&'a Value> =
            options.iter().map(|o| self.resolve(o)).filter(|o| o["type"] != "null").collect();
        if value.is_null() && resolved.len() < options.len() {
            return;
        }
        if let [only] = resolved[..] {
            return self.value(only, value, at);
        }
        if let Some(words) = resolved.iter().map(|o| constant(o)).collect::<Option<Vec<_>>>() {
            return self.choice(&words, value, at);
        }
        let Some(tag) = discriminator(&resolved) else { return };
        let Value::Object(map) = value else {
            return self.say(Stage::Type, at, kind_of(value), "an object", Code::WrongType);
        };
        let field = join(at, tag);
        let words: Vec<&str> = resolved.iter().filter_map(|o| constant(&o["properties"][tag])).collect();
        match map.get(tag) {
            None | Some(Value::Null) => {
                self.say(Stage::Missing, &field, "nothing", one_word_of(&words), Code::MissingField);
            }
            Some(found) => match words.iter().position(|w| found == w) {
                Some(index) => self.object(resolved[index], value, at),
                None => self.choice(&words, found, &field),
            },
        }
    }

    fn object(&mut self, schema: &'a Value, value: &Value, at: &str) {
        let Value::Object(map) = value else {
            return self.say(Stage::Type, at, kind_of(value), "an object", Code::WrongType);
        };
        static NONE: LazyLock<Map<String, Value>> = LazyLock::new(Map::new);
        let properties = schema["properties"].as_object().unwrap_or(&NONE);
        for (name, entry) in map {
            let field = join(at, name);
            if let Some(property) = properties.get(name) {
                if !entry.is_null()
                    || schema["required"].as_array().is_some_and(|r| r.iter().any(|n| n == name))
                {
                    self.value(property, entry, &field);
                }
                continue;
            }
            match &schema["additionalProperties"] {
                Value::Object(_) => {
                    let keys = self.resolve(&schema["propertyNames"]);
                    if keys["pattern"].as_str().is_some_and(|pattern| !matches_pattern(pattern, name)) {
                        self.say(
                            Stage::Range,
                            &field,
                            name,
                            pattern_words(&keys["pattern"]),
                            Code::OutOfRange,
                        );
                    }
                    self.value(&schema["additionalProperties"], entry, &field);
                }
                _ => {
                    let known: Vec<&str> = properties.keys().map(String::as_str).collect();
                    let accepted = match nearest(name, &known) {
                        Some(near) => format!("a known field, perhaps {near}"),
                        None => one_word_of(&known),
                    };
                    self.say(Stage::Unknown, &field, kind_of(entry), accepted, Code::UnknownField);
                }
            }
        }
        for name in schema["required"].as_array().into_iter().flatten().filter_map(Value::as_str) {
            if !map.contains_key(name) {
                let accepted = properties.get(name).map_or("a value".into(), |p| self.words(p));
                self.say(Stage::Missing, &join(at, name), "nothing", accepted, Code::MissingField);
            }
        }
        if let Some(most) = schema["maxProperties"].as_u64().filter(|most| map.len() as u64 > *most) {
            self.say(
                Stage::Range,
                at,
                format!("{} entries", map.len()),
                format!("at most {most}"),
                Code::OutOfRange,
            );
        }
    }

    fn array(&mut self, schema: &'a Value, value: &Value, at: &str) {
        let Value::Array(list) = value else {
            return self.say(Stage::Type, at, kind_of(value), self.words(schema), Code::WrongType);
        };
        let (low, high) = (schema["minItems"].as_u64().unwrap_or(0), schema["maxItems"].as_u64());
        if (list.len() as u64) < low || high.is_some_and(|high| list.len() as u64 > high) {
            let accepted = match high {
                Some(high) if high == low => format!("{low} entries"),
                Some(high) => format!("{low} to {high} entries"),
                None => format!("{low} or more entries"),
            };
            self.say(Stage::Range, at, format!("{} entries", list.len()), accepted, Code::OutOfRange);
        }
        for (index, entry) in list.iter().enumerate() {
            self.value(&schema["items"], entry, &format!("{at}[{index}]"));
        }
    }

    fn number(&mut self, schema: &Value, value: &Value, at: &str, whole: bool) {
        let Some(number) = value.as_f64().filter(|_| value.is_number()) else {
            return self.say(Stage::Type, at, kind_of(value), self.words(schema), Code::WrongType);
        };
        if whole && number.fract() != 0.0 {
            return self.say(Stage::Type, at, value, "a whole number", Code::WrongType);
        }
        if let Some(words) = schema["enum"].as_array() {
            if !words.iter().any(|w| w.as_f64() == Some(number)) {
                let words: Vec<String> = words.iter().map(Value::to_string).collect();
                self.say(Stage::Range, at, value, words.join(" or "), Code::BadChoice);
            }
            return;
        }
        let limit = |key: &str| schema[key].as_f64();
        let (low, above) = (limit("minimum"), limit("exclusiveMinimum"));
        let (high, below) = (limit("maximum"), limit("exclusiveMaximum"));
        let fits = low.is_none_or(|l| number >= l)
            && above.is_none_or(|l| number > l)
            && high.is_none_or(|h| number <= h)
            && below.is_none_or(|h| number < h)
            && limit("multipleOf").is_none_or(|step| number % step == 0.0);
        if !fits {
            let must_be_positive = low.is_some_and(|l| l > 0.0) || above.is_some_and(|l| l >= 0.0);
            let code = if number <= 0.0 && must_be_positive { Code::NotPositive } else { Code::OutOfRange };
            self.say(Stage::Range, at, value, describe_range(schema).unwrap_or_default(), code);
        }
    }

    fn string(&mut self, schema: &Value, value: &Value, at: &str) {
        if let Some(words) = schema["enum"].as_array() {
            let words: Vec<&str> = words.iter().filter_map(Value::as_str).collect();
            return self.choice(&words, value, at);
        }
        let Value::String(text) = value else {
            return self.say(Stage::Type, at, kind_of(value), "a text", Code::WrongType);
        };
        let length = text.chars().count() as u64;
        let (low, high) =
            (schema["minLength"].as_u64().unwrap_or(0), schema["maxLength"].as_u64().unwrap_or(u64::MAX));
        if length < low || length > high {
            let accepted = format!("{low} to {high} characters");
            self.say(Stage::Range, at, format!("{length} characters"), accepted, Code::OutOfRange);
        } else if schema["pattern"].as_str().is_some_and(|pattern| !matches_pattern(pattern, text)) {
            self.say(Stage::Range, at, text, pattern_words(&schema["pattern"]), Code::OutOfRange);
        }
    }

    fn choice(&mut self, words: &[&str], value: &Value, at: &str) {
        match value {
            Value::String(word) if words.contains(&word.as_str()) => {}
            Value::String(word) => self.say(Stage::Range, at, word, one_word_of(words), Code::BadChoice),
            other => self.say(Stage::Type, at, kind_of(other), one_word_of(words), Code::WrongType),
        }
    }

    /// What a schema accepts, for messages about missing or mistyped values.
    fn words(&self, schema: &'a Value) -> String {
        let schema = self.resolve(schema);
        if let Some(options) = schema["oneOf"].as_array() {
            return match options.iter().find(|o| o["type"] != "null") {
                Some(option) => self.words(option),
                None => "a value".into(),
            };
        }
        let kind = schema["type"].as_str().or_else(|| {
            schema["type"].as_array().and_then(|t| t.iter().filter_map(Value::as_str).find(|t| *t != "null"))
        });
        match kind {
            Some("number" | "integer") => match describe_range(schema) {
                Some(range) => format!("a number, {range}"),
                None => "a number".into(),
            },
            Some("string") => match schema["enum"].as_array() {
                Some(words) => one_word_of(&words.iter().filter_map(Value::as_str).collect::<Vec<_>>()),
                None => "a text".into(),
            },
            Some("array") => "a list".into(),
            Some("boolean") => "true or false".into(),
            _ => "an object".into(),
        }
    }
}

fn join(at: &str, name: &str) -> String {
    if at.is_empty() { name.to_owned() } else { format!("{at}.{name}") }
}

fn constant(schema: &Value) -> Option<&str> {
    schema["const"].as_str().or_else(|| match schema["enum"].as_array().map(Vec::as_slice) {
        Some([Value::String(only)]) => Some(only),
        _ => None,
    })
}

/// The field that every option fixes to one word.
fn discriminator<'a>(options: &[&'a Value]) -> Option<&'a str> {
    let first = options.first()?["properties"].as_object()?;
    first
        .keys()
        .find(|name| options.iter().all(|o| constant(&o["properties"][name.as_str()]).is_some()))
        .map(String::as_str)
}

fn kind_of(value: &Value) -> String {
    match value {
        Value::Array(list) => format!("a list of {}", list.len()),
        Value::Object(_) => "an object".into(),
        other => other.to_string(),
    }
}

fn one_word_of(words: &[&str]) -> String {
    if words.len() > 24 { format!("one of {} known names", words.len()) } else { words.join(", ") }
}

/// The known name that differs least, if it is near enough to be a slip of the hand.
fn nearest<'a>(name: &str, known: &[&'a str]) -> Option<&'a str> {
    known.iter().copied().map(|k| (distance(name, k), k)).filter(|(d, _)| *d <= 2).min().map(|(_, k)| k)
}

fn distance(a: &str, b: &str) -> usize {
    let b: Vec<char> = b.chars().collect();
    let mut row: Vec<usize> = (0..=b.len()).collect();
    for (i, ca) in a.chars().take(64).enumerate() {
        let mut diagonal = row[0];
        row[0] = i + 1;
        for (j, cb) in b.iter().enumerate() {
            let replaced = diagonal + usize::from(ca != *cb);
            diagonal = row[j + 1];
            row[j + 1] = replaced.min(row[j] + 1).min(diagonal + 1);
        }
    }
    row[b.len()]
}

/// The two patterns our schemas use, `^[set]{1,n}$`, without a pattern engine.
fn matches_pattern(pattern: &str, text: &str) -> bool {
    let Some((set, count)) =
        pattern.strip_prefix("^[").and_then(|p| p.strip_suffix("}$")).and_then(|p| p.split_once("]{1,"))
    else {
        return true;
    };
    let most: usize = count.parse().unwrap_or(usize::MAX);
    let length = text.chars().count();
    let allowed = |c: char| match c {
        'a'..='z' => set.contains("a-z"),
        '0'..='9' => set.contains("0-9"),
        '-' => set.ends_with('-'),
        other => set.contains(other),
    };
    (1..=most).contains(&length) && text.chars().all(allowed)
}

fn pattern_words(pattern: &Value) -> String {
    match pattern.as_str() {
        Some(p) if p.contains("_.") => "small letters, digits, dots, underscores and hyphens".into(),
        _ => "1 to 32 small letters, digits and hyphens".into(),
    }
}
