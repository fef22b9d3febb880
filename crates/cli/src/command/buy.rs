//! `fogon buy`: a plan or a brief in, free moves and what to buy for a sum out.

use std::path::PathBuf;
use std::sync::Arc;

use clap::{Args, ValueEnum};
use fogon_core::document;
use fogon_core::money::{Advice, Asked, PHONE_AT_HAND_UP_TO, advise};
use fogon_core::plan::{BriefFile, Plan, Spending};

use crate::outcome::Failure;
use crate::prices::Prices;
use crate::read;

#[derive(Args)]
pub(crate) struct Arguments {
    /// Plan or brief file, or - for standard input
    plan: PathBuf,
    /// The sum that may be spent; what the file says where it is left out
    #[arg(long, value_name = "N", value_parser = sum)]
    budget: Option<f64>,
    /// Spending school: sound, light, lens or set-and-light
    #[arg(long, value_name = "NAME", value_parser = school)]
    school: Option<Spending>,
    #[command(flatten)]
    prices: Prices,
    /// Leave out what is owned; up to 150 a phone counts as owned
    #[arg(long)]
    from_nothing: bool,
    /// The shopping list alone, as a table or as text
    #[arg(long, value_name = "FORMAT")]
    list: Option<List>,
}

#[derive(Clone, Copy, ValueEnum)]
enum List {
    Csv,
    Markdown,
}

fn sum(text: &str) -> Result<f64, String> {
    let value = text.parse::<f64>().ok().filter(|value| (0.0..=10_000_000.0).contains(value));
    value.ok_or_else(|| "give a sum from 0 to 10000000".to_owned())
}

fn school(text: &str) -> Result<Spending, String> {
    serde_json::from_value(serde_json::Value::from(text))
        .map_err(|_| "give sound, light, lens or set-and-light".to_owned())
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let mut asked = asked(&read::bytes(&arguments.plan)?)?;
    if let Some(school) = arguments.school {
        asked.brief_mut().schools.spending = school;
    }
    let budget = arguments.budget.unwrap_or(asked.brief().money.budget);
    if arguments.from_nothing {
        asked = asked.from_nothing(budget <= PHONE_AT_HAND_UP_TO);
    }
    let catalogue = Arc::new(arguments.prices.catalogue()?);
    let Some(advice) = advise(&asked, &catalogue, budget) else {
        return Err(Failure::Io("the advice was left before its end".to_owned()));
    };
    match arguments.list {
        None => read::print_json(&advice),
        Some(list) => read::print(&listed(list, &asked, &advice)),
    }
}

fn listed(list: List, asked: &Asked, advice: &Advice) -> String {
    let (name, currency) = (asked.name(), &asked.brief().money.currency);
    match list {
        List::Csv => fogon_handover::shopping::csv(&advice.kit),
        List::Markdown => fogon_handover::shopping::markdown(name, currency, &advice.kit, &advice.prices),
    }
}

/// A plan, or a brief before there is one: the file says which.
fn asked(text: &[u8]) -> Result<Asked, Failure> {
    let value = document::parse(text)?;
    Ok(match value["format"].as_str() {
        Some("fogon.brief") => Asked::Brief(Box::new(document::from_value::<BriefFile>(value)?)),
        _ => Asked::Plan(Box::new(document::from_value::<Plan>(value)?)),
    })
}
