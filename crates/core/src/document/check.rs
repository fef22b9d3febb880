//! Says in words a person can act on what a validator finds wrong with a value. Whether it is wrong is the validator's to
//! say; which of its findings to tell, in what order and in which words is ours.

use jsonschema::error::{TypeKind, ValidationErrorKind};
use jsonschema::{JsonType, ValidationError, Validator};
use serde_json::Value;

use super::range::describe_range;
use crate::problem::{Code, Problem};

/// Problems told at once.
const MOST: usize = 20;

/// The kinds of problem in the order they are reported; only the first kind met is returned.
#[derive(Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
enum Stage {
    Unknown,
    Missing,
    Type,
    Range,
}

/// One problem, and where it stands in the document.
struct Found {
    stage: Stage,
    place: Vec<usize>,
    problem: Problem,
}

/// A schema ready to be held against values.
pub struct Checker {
    schema: Value,
    validator: Option<Validator>,
}

impl Checker {
    /// Of one of our schemas.
    pub(super) fn new(schema: Value) -> Self {
        let validator = jsonschema::validator_for(&schema).ok();
        Self { schema, validator }
    }

    /// The schema.
    pub fn schema(&self) -> &Value {
        &self.schema
    }

    /// All problems of the earliest stage, in document order; empty when the value fits.
    pub fn check(&self, value: &Value) -> Vec<Problem> {
        let Some(validator) = &self.validator else {
            // A test builds every schema; one that does not build accepts nothing.
            return vec![Problem::new("document", "the schema", "a schema that holds", Code::WrongType)];
        };
        let mut told = Told { schema: &self.schema, document: value, found: Vec::new() };
        for error in validator.iter_errors(value) {
            told.explain(&error);
        }
        let mut found = told.found;
        let Some(first) = found.iter().map(|found| found.stage).min() else { return Vec::new() };
        found.retain(|found| found.stage == first);
        found.sort_by(|a, b| a.place.cmp(&b.place));
        let mut problems: Vec<Problem> = found.into_iter().map(|found| found.problem).collect();
        // Two keywords may refuse one number.
        problems.dedup();
        problems.truncate(MOST);
        problems
    }
}

struct Told<'a> {
    schema: &'a Value,
    document: &'a Value,
    found: Vec<Found>,
}

/// A path as the document's own nodes see it: `/lights/key/dim`.
fn segments(pointer: &str) -> Vec<String> {
    pointer.split('/').skip(1).map(|part| part.replace("~1", "/").replace("~0", "~")).collect()
}

impl<'a> Told<'a> {
    fn say(
        &mut self,
        stage: Stage,
        at: &[String],
        value: impl std::fmt::Display,
        accepted: String,
        code: Code,
    ) {
        let field = match self.field(at) {
            empty if empty.is_empty() => "document".to_owned(),
            field => field,
        };
        let place = self.place(at);
        self.found.push(Found { stage, place, problem: Problem::new(field, value, accepted, code) });
    }

    /// A path as people write it: `room.openings.door.width_m`, `floor_m[2]`.
    fn field(&self, at: &[String]) -> String {
        let mut node = self.document;
        let mut field = String::new();
        for part in at {
            if node.is_array() {
                field += &format!("[{part}]");
            } else {
                field = if field.is_empty() { part.clone() } else { format!("{field}.{part}") };
            }
            node = child(node, part);
        }
        field
    }

    /// The path by the order of things in the document; what is not there comes last.
    fn place(&self, at: &[String]) -> Vec<usize> {
        let mut node = self.document;
        let mut place = Vec::new();
        for part in at {
            place.push(match node {
                Value::Object(map) => map.keys().position(|key| key == part).unwrap_or(map.len()),
                _ => part.parse().unwrap_or(usize::MAX),
            });
            node = child(node, part);
        }
        place
    }

    /// The node of the schema that holds the keyword which refuses.
    fn node(&self, error: &ValidationError<'_>) -> &'a Value {
        let path = error.schema_path().as_str();
        let parent = path.rsplit_once('/').map_or("", |(parent, _)| parent);
        self.schema.pointer(parent).unwrap_or(&Value::Null)
    }

    fn resolve(&self, schema: &'a Value) -> &'a Value {
        match schema["$ref"].as_str().and_then(|r| r.rsplit('/').next()) {
            Some(name) => &self.schema["$defs"][name],
            None => schema,
        }
    }

    fn explain(&mut self, error: &ValidationError<'_>) {
        let at = segments(error.instance_path().as_str());
        let value = error.instance().as_ref();
        let schema = self.node(error);
        match error.kind() {
            ValidationErrorKind::AdditionalProperties { unexpected } => {
                let known: Vec<&str> = schema["properties"]
                    .as_object()
                    .into_iter()
                    .flat_map(|m| m.keys())
                    .map(String::as_str)
                    .collect();
                for name in unexpected {
                    let accepted = match nearest(name, &known) {
                        Some(near) => format!("a known field, perhaps {near}"),
                        None => one_word_of(&known),
                    };
                    let field = [at.as_slice(), std::slice::from_ref(name)].concat();
                    self.say(Stage::Unknown, &field, kind_of(&value[name]), accepted, Code::UnknownField);
                }
            }
            ValidationErrorKind::Required { property } => {
                let name = property.as_str().unwrap_or_default();
                let accepted = schema["properties"].get(name).map_or("a value".into(), |p| self.words(p));
                let field = [at.as_slice(), &[name.to_owned()]].concat();
                self.say(Stage::Missing, &field, "nothing", accepted, Code::MissingField);
            }
            ValidationErrorKind::Type { kind } => {
                let whole = matches!(kind, TypeKind::Single(JsonType::Integer)) && value.is_number();
                let accepted = if whole { "a whole number".into() } else { self.words(schema) };
                self.say(Stage::Type, &at, kind_of(value), accepted, Code::WrongType);
            }
            ValidationErrorKind::Enum { .. } | ValidationErrorKind::Constant { .. } => {
                self.choice(&at, value, schema);
            }
            ValidationErrorKind::Minimum { .. }
            | ValidationErrorKind::Maximum { .. }
            | ValidationErrorKind::ExclusiveMinimum { .. }
            | ValidationErrorKind::ExclusiveMaximum { .. }
            | ValidationErrorKind::MultipleOf { .. } => {
                let limit = |key: &str| schema[key].as_f64();
                let must_be_positive = limit("minimum").is_some_and(|l| l > 0.0)
                    || limit("exclusiveMinimum").is_some_and(|l| l >= 0.0);
                let negative = value.as_f64().is_some_and(|number| number <= 0.0);
                let code = if negative && must_be_positive { Code::NotPositive } else { Code::OutOfRange };
                self.say(Stage::Range, &at, value, describe_range(schema).unwrap_or_default(), code);
            }
            ValidationErrorKind::MinItems { .. } | ValidationErrorKind::MaxItems { .. } => {
                let (low, high) = (schema["minItems"].as_u64().unwrap_or(0), schema["maxItems"].as_u64());
                let accepted = match high {
                    Some(high) if high == low => format!("{low} entries"),
                    Some(high) => format!("{low} to {high} entries"),
                    None => format!("{low} or more entries"),
                };
                let count = value.as_array().map_or(0, Vec::len);
                self.say(Stage::Range, &at, format!("{count} entries"), accepted, Code::OutOfRange);
            }
            ValidationErrorKind::MaxProperties { limit } => {
                let count = value.as_object().map_or(0, serde_json::Map::len);
                let accepted = format!("at most {limit}");
                self.say(Stage::Range, &at, format!("{count} entries"), accepted, Code::OutOfRange);
            }
            ValidationErrorKind::MinLength { .. } | ValidationErrorKind::MaxLength { .. } => {
                let (low, high) = (schema["minLength"].as_u64().unwrap_or(0), &schema["maxLength"]);
                let length = value.as_str().map_or(0, |text| text.chars().count());
                let accepted = format!("{low} to {high} characters");
                self.say(Stage::Range, &at, format!("{length} characters"), accepted, Code::OutOfRange);
            }
            ValidationErrorKind::Pattern { pattern } => {
                let text = value.as_str().unwrap_or_default();
                self.say(Stage::Range, &at, text, pattern_words(pattern), Code::OutOfRange);
            }
            ValidationErrorKind::PropertyNames { error } => {
                let name = error.instance().as_str().unwrap_or_default().to_owned();
                let pattern = schema["propertyNames"].clone();
                let pattern = self.resolve_owned(&pattern)["pattern"].as_str().unwrap_or_default().to_owned();
                let field = [at.as_slice(), std::slice::from_ref(&name)].concat();
                self.say(Stage::Range, &field, &name, pattern_words(&pattern), Code::OutOfRange);
            }
            ValidationErrorKind::OneOfNotValid { context } => self.one_of(&at, value, schema, context),
            // Our schemas use no other keywords.
            _ => self.say(Stage::Type, &at, kind_of(value), self.words(schema), Code::WrongType),
        }
    }

    fn resolve_owned(&self, schema: &Value) -> Value {
        match schema["$ref"].as_str().and_then(|r| r.rsplit('/').next()) {
            Some(name) => self.schema["$defs"][name].clone(),
            None => schema.clone(),
        }
    }

    /// `null or T`, or a choice between objects told apart by one constant field.
    fn one_of(
        &mut self,
        at: &[String],
        value: &Value,
        schema: &'a Value,
        context: &[Vec<ValidationError<'static>>],
    ) {
        let options = schema["oneOf"].as_array().into_iter().flatten().map(|option| self.resolve(option));
        let told: Vec<(&'a Value, &Vec<ValidationError<'static>>)> =
            options.zip(context).filter(|(option, _)| option["type"] != "null").collect();
        if let [(_, errors)] = told[..] {
            return errors.iter().for_each(|error| self.explain(error));
        }
        let schemas: Vec<&Value> = told.iter().map(|(option, _)| *option).collect();
        if let Some(words) = schemas.iter().map(|option| constant(option)).collect::<Option<Vec<_>>>() {
            return self.choose(at, value, &words);
        }
        let Some(tag) = discriminator(&schemas) else { return };
        let Value::Object(map) = value else {
            return self.say(Stage::Type, at, kind_of(value), "an object".into(), Code::WrongType);
        };
        let field = [at, &[tag.to_owned()]].concat();
        let words: Vec<&str> =
            schemas.iter().filter_map(|option| constant(&option["properties"][tag])).collect();
        match map.get(tag) {
            None | Some(Value::Null) => {
                self.say(Stage::Missing, &field, "nothing", one_word_of(&words), Code::MissingField);
            }
            Some(found) => match words.iter().position(|word| found == word) {
                Some(index) => told[index].1.iter().for_each(|error| self.explain(error)),
                None => self.choose(&field, found, &words),
            },
        }
    }

    /// None of the words or numbers allowed here; a value of another type is told as such.
    fn choice(&mut self, at: &[String], value: &Value, schema: &Value) {
        let Some(options) = schema["enum"].as_array() else {
            return self.choose(at, value, &constant(schema).into_iter().collect::<Vec<_>>());
        };
        if options.iter().all(Value::is_number) {
            if value.is_number() {
                let words: Vec<String> = options.iter().map(Value::to_string).collect();
                self.say(Stage::Range, at, value, words.join(" or "), Code::BadChoice);
            }
            return;
        }
        let words: Vec<&str> = options.iter().filter_map(Value::as_str).collect();
        self.choose(at, value, &words);
    }

    fn choose(&mut self, at: &[String], value: &Value, words: &[&str]) {
        match value {
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

fn child<'v>(node: &'v Value, part: &str) -> &'v Value {
    match node {
        Value::Array(list) => {
            part.parse().ok().and_then(|index: usize| list.get(index)).unwrap_or(&Value::Null)
        }
        other => &other[part],
    }
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
    known
        .iter()
        .copied()
        .map(|k| (strsim::levenshtein(name, k), k))
        .filter(|(d, _)| *d <= 2)
        .min()
        .map(|(_, k)| k)
}

fn pattern_words(pattern: &str) -> String {
    match pattern {
        p if p.contains(":[0-5]") => "a time of day, as 07:30".into(),
        p if p.contains("_.") => "small letters, digits, dots, underscores and hyphens".into(),
        p if p.contains('_') => "the name of a thing: small letters, digits, hyphens and underscores".into(),
        _ => "1 to 32 small letters, digits and hyphens".into(),
    }
}
