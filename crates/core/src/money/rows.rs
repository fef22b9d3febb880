//! Things as a table of text, one a row, as shelves and catalogues are kept in files: comma-separated (RFC 4180), UTF-8, with a
//! header. Every refusal names its line.

use std::collections::{BTreeMap, BTreeSet};

use serde::{Deserialize, Serialize};
use serde_json::{Map, Value, json};
use utoipa::ToSchema;

use crate::document::{self, as_cell, from_cell};
use crate::plan::{Gear, Id, gear_agrees};
use crate::problem::{Code, Problem, Problems};

/// The columns, in the order in which they are written. A file may leave out any but `kind` and `label`, and have them in
/// another order.
pub const COLUMNS: [&str; 23] = [
    "id",
    "kind",
    "label",
    "count",
    "state",
    "condition",
    "place",
    "price",
    "price_used",
    "usually_used",
    "rent_per_day",
    "resale",
    "life_years",
    "bought_on",
    "bought_price",
    "mass_kg",
    "power_w",
    "fan_noise_1m_dba",
    "offers",
    "needs",
    "excludes",
    "figures",
    "caution",
];

/// Rows that a file may have.
const MOST_ROWS: usize = 1000;
/// Problems told at once.
const MOST_PROBLEMS: usize = 20;

/// One thing with what it costs.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Offer {
    /// The thing; its price is that of a new one.
    pub gear: Gear,
    /// Price of a used one.
    pub price_used: Option<f64>,
    /// It is usually bought used.
    pub usually_used: bool,
    /// Price of a day's rent.
    pub rent_per_day: Option<f64>,
    /// The caution that stands beside it; empty for most.
    pub caution: String,
}

impl Offer {
    /// A thing with its own price alone.
    pub fn of(gear: Gear) -> Self {
        Self { gear, price_used: None, usually_used: false, rent_per_day: None, caution: String::new() }
    }
}

/// A row that was read.
#[derive(Debug, Clone, PartialEq)]
pub struct Row {
    /// Line of the file, from 1.
    pub line: u64,
    /// Its id: as given, else made of its label.
    pub id: Id,
    /// What it says.
    pub offer: Offer,
}

/// A table that was read.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Rows {
    /// What stands above the header, as `# name: value`.
    pub told: BTreeMap<String, String>,
    /// In the order of the file.
    pub rows: Vec<Row>,
}

/// A thing under its id, held against the schema of gear.
#[derive(Deserialize, ToSchema)]
struct OneThing {
    thing: BTreeMap<Id, Gear>,
}

crate::shape!(OneThing => |one: &OneThing| {
    let mut found = Vec::new();
    one.thing.iter().for_each(|(id, gear)| gear_agrees(&format!("thing.{id}"), gear, &mut found));
    if found.is_empty() { Ok(()) } else { Err(Problems(found)) }
});

/// Reads a table.
///
/// # Errors
/// Up to twenty problems, each with its line and column.
pub fn read(text: &[u8]) -> Result<Rows, Problems> {
    let text = text_of(text)?;
    let mut told = BTreeMap::new();
    for line in text.lines().map_while(|line| line.strip_prefix('#')) {
        if let Some((name, value)) = line.split_once(':') {
            told.insert(name.trim().to_owned(), value.trim().to_owned());
        }
    }
    let mut reader =
        csv::ReaderBuilder::new().comment(Some(b'#')).flexible(true).from_reader(text.as_bytes());
    let header = header(&mut reader)?;
    let mut rows: Vec<Row> = Vec::new();
    let mut problems = Vec::new();
    let mut ids = BTreeSet::new();
    for record in reader.records() {
        let record = match record {
            Ok(record) => record,
            Err(error) => {
                let line = error.position().map_or(0, csv::Position::line);
                problems.push(refused(line, "", "a broken row", "one row of the table"));
                break;
            }
        };
        let line = record.position().map_or(0, csv::Position::line);
        if rows.len() >= MOST_ROWS {
            problems.push(refused(line, "", "one row more", &format!("at most {MOST_ROWS} rows")));
            break;
        }
        if record.iter().all(|field| field.trim().is_empty()) {
            continue;
        }
        match one_row(line, &header, &record) {
            Ok(row) if ids.contains(&row.id) => {
                problems.push(refused(line, "id", &row.id.0, "an id that no row above has"));
            }
            Ok(row) => {
                ids.insert(row.id.clone());
                rows.push(row);
            }
            Err(found) => problems.extend(found.0),
        }
        if problems.len() >= MOST_PROBLEMS {
            problems.truncate(MOST_PROBLEMS);
            break;
        }
    }
    if problems.is_empty() { Ok(Rows { told, rows }) } else { Err(Problems(problems)) }
}

fn refused(line: u64, column: &str, value: &str, accepted: &str) -> Problem {
    let field = if column.is_empty() { format!("line {line}") } else { format!("line {line}, {column}") };
    Problem::new(field, value, accepted, Code::BadTable)
}

/// The bytes as text, small enough to be read.
fn text_of(text: &[u8]) -> Result<&str, Problem> {
    let most = document::BYTES_MAX;
    if text.len() > most {
        let line = text[..most].iter().filter(|byte| **byte == b'\n').count() as u64 + 1;
        return Err(refused(line, "", "more of the file", &format!("a file of at most {most} bytes")));
    }
    let text = text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text);
    std::str::from_utf8(text).map_err(|error| {
        let before = &text[..error.valid_up_to()];
        let line = before.iter().filter(|byte| **byte == b'\n').count() as u64 + 1;
        refused(line, "", "letters in another encoding", "text in UTF-8: save the file once more as UTF-8")
    })
}

fn header(reader: &mut csv::Reader<&[u8]>) -> Result<Vec<&'static str>, Problems> {
    let broken = |_| refused(1, "", "no header", "the names of the columns");
    let record = reader.headers().map_err(broken)?.clone();
    let line = record.position().map_or(1, csv::Position::line);
    let mut names: Vec<&'static str> = Vec::new();
    let mut problems = Vec::new();
    for name in record.iter().map(str::trim) {
        match COLUMNS.iter().find(|column| **column == name) {
            Some(column) if !names.contains(column) => names.push(column),
            Some(_) => problems.push(refused(line, name, "twice", "each column once")),
            None => problems.push(refused(line, "", name, &format!("one of {}", COLUMNS.join(", ")))),
        }
    }
    for needed in ["kind", "label"] {
        if problems.is_empty() && !names.contains(&needed) {
            problems.push(refused(line, needed, "no such column", "a column of this name"));
        }
    }
    if problems.is_empty() { Ok(names) } else { Err(Problems(problems)) }
}

/// A row's fields by column; an empty one is absent.
type Fields<'a> = BTreeMap<&'static str, &'a str>;

fn one_row(line: u64, header: &[&'static str], record: &csv::StringRecord) -> Result<Row, Problems> {
    if record.len() > header.len() {
        let found = format!("{} fields", record.len());
        return Err(refused(line, "", &found, &format!("{}, as the header has", header.len())).into());
    }
    let pairs = header.iter().copied().zip(record.iter().map(str::trim));
    let fields: Fields<'_> = pairs.filter(|(_, text)| !text.is_empty()).collect();
    let label = fields.get("label").copied().unwrap_or_default();
    let id = fields.get("id").map_or_else(|| slug(label), |id| (*id).to_owned());
    let thing = thing(line, &fields)?;
    let checked: OneThing = document::from_value(json!({ "thing": { &id: thing } }))
        .map_err(|problems| by_line(line, &id, problems))?;
    let Some((id, gear)) = checked.thing.into_iter().next() else {
        return Err(refused(line, "", "nothing", "one thing").into());
    };
    let price_used = sum(line, "price_used", &fields)?;
    let usually_used = flag(line, "usually_used", &fields)?;
    if usually_used && price_used.is_none() {
        return Err(refused(line, "price_used", "nothing", "the price of a used one").into());
    }
    let rent_per_day = sum(line, "rent_per_day", &fields)?;
    let caution = fields.get("caution").map_or_else(String::new, |text| (*text).to_owned());
    Ok(Row { line, id, offer: Offer { gear, price_used, usually_used, rent_per_day, caution } })
}

/// An id made of a label.
fn slug(label: &str) -> String {
    let mut id = String::new();
    for c in label.to_lowercase().chars() {
        if c.is_ascii_alphanumeric() {
            id.push(c);
        } else if !id.ends_with('-') && !id.is_empty() {
            id.push('-');
        }
    }
    id.truncate(28);
    let id = id.trim_matches('-');
    if id.is_empty() { "thing".to_owned() } else { id.to_owned() }
}

/// The row as the document of a thing.
fn thing(line: u64, fields: &Fields<'_>) -> Result<Value, Problems> {
    let mut thing = Map::new();
    for (column, text) in fields {
        match *column {
            "kind" | "label" | "state" | "condition" | "place" => {
                thing.insert((*column).to_owned(), json!(from_cell(text)));
            }
            "count" | "price" | "resale" | "life_years" | "mass_kg" | "power_w" | "fan_noise_1m_dba" => {
                thing.insert((*column).to_owned(), number(line, column, text)?);
            }
            "bought_on" => put_in(&mut thing, "bought", "date", json!(text)),
            "bought_price" => put_in(&mut thing, "bought", "price", number(line, column, text)?),
            "offers" | "needs" | "excludes" => {
                thing.insert((*column).to_owned(), json!(text.split_whitespace().collect::<Vec<_>>()));
            }
            "figures" => {
                for figure in text.split_whitespace() {
                    let Some((name, value)) = figure.split_once('=') else {
                        return Err(refused(line, column, figure, "figures as name=value").into());
                    };
                    let taken = COLUMNS.contains(&name) || thing.contains_key(name);
                    if taken || thing.insert(name.to_owned(), plain(value)).is_some() {
                        return Err(refused(line, column, figure, "each figure once, and no column's").into());
                    }
                }
            }
            // Read apart: they belong to the offer, not to the thing.
            _ => {}
        }
    }
    thing.entry("state").or_insert_with(|| json!("owned"));
    Ok(Value::Object(thing))
}

fn put_in(thing: &mut Map<String, Value>, name: &str, inner: &str, value: Value) {
    if let Some(map) = thing.entry(name).or_insert_with(|| json!({})).as_object_mut() {
        map.insert(inner.to_owned(), value);
    }
}

fn number(line: u64, column: &str, text: &str) -> Result<Value, Problem> {
    let value = text.parse::<f64>().ok().filter(|value| value.is_finite());
    let value =
        value.ok_or_else(|| refused(line, column, text, "a number, with a point for its decimals"))?;
    Ok(if value.fract() == 0.0 && value.abs() < 1e15 { json!(value as i64) } else { json!(value) })
}

/// A figure: a number, yes or no, else a word.
fn plain(text: &str) -> Value {
    match text {
        "true" => json!(true),
        "false" => json!(false),
        _ => number(0, "", text).unwrap_or_else(|_| json!(text)),
    }
}

fn sum(line: u64, column: &'static str, fields: &Fields<'_>) -> Result<Option<f64>, Problem> {
    let Some(text) = fields.get(column) else { return Ok(None) };
    let value = number(line, column, text)?.as_f64().filter(|value| (0.0..=10_000_000.0).contains(value));
    value.map(Some).ok_or_else(|| refused(line, column, text, "0 to 10000000"))
}

fn flag(line: u64, column: &'static str, fields: &Fields<'_>) -> Result<bool, Problem> {
    match fields.get(column) {
        None | Some(&"false") => Ok(false),
        Some(&"true") => Ok(true),
        Some(text) => Err(refused(line, column, text, "true or false")),
    }
}

/// Problems of a thing told by its line and column.
fn by_line(line: u64, id: &str, problems: Problems) -> Problems {
    let inside = format!("thing.{id}");
    let told = problems.0.into_iter().map(|problem| {
        let rest = problem.field.strip_prefix(&inside).map(|rest| rest.trim_start_matches('.'));
        let column = match rest.unwrap_or("id") {
            "bought.date" => "bought_on",
            "bought.price" => "bought_price",
            other => other,
        };
        let field = if column.is_empty() { format!("line {line}") } else { format!("line {line}, {column}") };
        Problem { field, ..problem }
    });
    Problems(told.collect())
}

/// Writes a table that [`read`] reads back as the same things; `told` stands above the header.
pub fn write<'a>(
    told: &[(&str, &str)],
    offers: impl Iterator<Item = (&'a Id, std::borrow::Cow<'a, Offer>)>,
) -> String {
    let mut text: String = told.iter().map(|(name, value)| format!("# {name}: {value}\n")).collect();
    // Rows in memory: writing them does not fail.
    let mut writer = csv::Writer::from_writer(Vec::new());
    let _ = writer.write_record(COLUMNS);
    for (id, offer) in offers {
        let _ = writer.write_record(record(id, &offer));
    }
    text += &String::from_utf8(writer.into_inner().unwrap_or_default()).unwrap_or_default();
    text
}

fn record(id: &Id, offer: &Offer) -> [String; COLUMNS.len()] {
    let mut thing = match serde_json::to_value(&offer.gear) {
        Ok(Value::Object(map)) => map,
        _ => Map::new(),
    };
    let bought = thing.remove("bought").unwrap_or_default();
    let said = |value: Option<f64>| value.map_or_else(String::new, |value| value.to_string());
    let known = COLUMNS.map(|column| match column {
        "id" => id.0.clone(),
        "price_used" => said(offer.price_used),
        "usually_used" => {
            if offer.usually_used {
                "true".to_owned()
            } else {
                String::new()
            }
        }
        "rent_per_day" => said(offer.rent_per_day),
        "caution" => as_cell(&offer.caution).into_owned(),
        "bought_on" => text(&bought["date"]),
        "bought_price" => text(&bought["price"]),
        "figures" => String::new(),
        other => thing.remove(other).map_or_else(String::new, |value| cell(&value)),
    });
    let figures: Vec<String> = thing.iter().map(|(name, value)| format!("{name}={}", text(value))).collect();
    let mut all = known;
    if let Some(at) = COLUMNS.iter().position(|column| *column == "figures") {
        all[at] = figures.join(" ");
    }
    all
}

fn cell(value: &Value) -> String {
    match value {
        Value::String(text) => as_cell(text).into_owned(),
        other => text(other),
    }
}

fn text(value: &Value) -> String {
    match value {
        Value::Null => String::new(),
        Value::String(text) => text.clone(),
        Value::Array(list) => list.iter().map(text).collect::<Vec<_>>().join(" "),
        other => other.to_string(),
    }
}
