//! JSON text to a value, refusing what serde_json would let pass: a key given twice, deep nesting, more
//! bytes than a plan can need.

use std::fmt;

use serde::de::{DeserializeSeed, Error as _, MapAccess, SeqAccess, Visitor};
use serde_json::error::Category;
use serde_json::{Map, Number, Value};

use super::{BYTES_MAX, DEPTH_MAX};
use crate::problem::{Code, Problem};

/// Parses one JSON document.
///
/// # Errors
/// `bad_json` for text that is no JSON, a key given twice, numbers beyond an f64, more than 1 MB or more than
/// 32 levels.
pub fn parse(text: &[u8]) -> Result<Value, Problem> {
    let refuse = |found: String, accepted: &str| Problem::new("document", found, accepted, Code::BadJson);
    if text.len() > BYTES_MAX {
        return Err(refuse(format!("{} bytes", text.len()), "at most 1000000 bytes"));
    }
    let text = text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text);
    let mut reader = serde_json::Deserializer::from_slice(text);
    let value = Seed { depth: 0 }.deserialize(&mut reader).and_then(|value| reader.end().map(|()| value));
    value.map_err(|error| refuse(fault(&error), "one JSON value, every key once, at most 32 levels deep"))
}

/// What is wrong with a JSON text, in words, and in which line.
pub fn fault(error: &serde_json::Error) -> String {
    let line = error.line();
    match error.classify() {
        Category::Eof if line <= 1 && error.column() == 0 => "an empty text".to_owned(),
        Category::Eof => format!("a text that ends too early, in line {line}"),
        Category::Syntax => format!("a text that is no JSON in line {line}"),
        // Our own words, without the place that is put behind them.
        Category::Data | Category::Io => {
            let words = error.to_string();
            let words = words.split(" at line ").next().unwrap_or_default();
            format!("{words}, in line {line}")
        }
    }
}

struct Seed {
    depth: usize,
}

impl Seed {
    fn deeper<E: serde::de::Error>(&self) -> Result<Seed, E> {
        if self.depth >= DEPTH_MAX {
            Err(E::custom("nested too deeply"))
        } else {
            Ok(Seed { depth: self.depth + 1 })
        }
    }
}

impl<'de> DeserializeSeed<'de> for Seed {
    type Value = Value;
    fn deserialize<D: serde::Deserializer<'de>>(self, deserializer: D) -> Result<Value, D::Error> {
        deserializer.deserialize_any(self)
    }
}

impl<'de> Visitor<'de> for Seed {
    type Value = Value;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("a JSON value")
    }
    fn visit_unit<E>(self) -> Result<Value, E> {
        Ok(Value::Null)
    }
    fn visit_bool<E>(self, value: bool) -> Result<Value, E> {
        Ok(Value::Bool(value))
    }
    fn visit_u64<E>(self, value: u64) -> Result<Value, E> {
        Ok(Value::Number(value.into()))
    }
    fn visit_i64<E>(self, value: i64) -> Result<Value, E> {
        Ok(Value::Number(value.into()))
    }
    fn visit_f64<E: serde::de::Error>(self, value: f64) -> Result<Value, E> {
        Number::from_f64(value).map(Value::Number).ok_or_else(|| E::custom("a number that is not finite"))
    }
    fn visit_str<E>(self, value: &str) -> Result<Value, E> {
        Ok(Value::String(value.to_owned()))
    }
    fn visit_seq<A: SeqAccess<'de>>(self, mut list: A) -> Result<Value, A::Error> {
        let mut values = Vec::new();
        while let Some(value) = list.next_element_seed(self.deeper()?)? {
            values.push(value);
        }
        Ok(Value::Array(values))
    }
    fn visit_map<A: MapAccess<'de>>(self, mut entries: A) -> Result<Value, A::Error> {
        let mut map = Map::new();
        while let Some(key) = entries.next_key::<String>()? {
            let value = entries.next_value_seed(self.deeper()?)?;
            if map.insert(key.clone(), value).is_some() {
                return Err(A::Error::custom(format!("the key \"{key}\" stands twice")));
            }
        }
        Ok(Value::Object(map))
    }
}
