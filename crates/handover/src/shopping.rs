//! The shopping list as CSV (RFC 4180) and as Markdown.

use fogon_core::money::{Item, PricesFrom};

use crate::table::Table;

const COLUMNS: [&str; 9] =
    ["id", "what", "count", "price", "used", "price_new", "rent_first_per_day", "per_year", "why"];

/// One row a thing, in the order in which they are bought.
pub fn csv(items: &[Item]) -> String {
    let mut table = Table::new(COLUMNS);
    let sum = |value: Option<f64>| value.map_or_else(String::new, |value| format!("{value:.2}"));
    for item in items {
        table.row([
            &item.id,
            &item.label,
            &item.count.to_string(),
            &sum(Some(item.price)),
            if item.used { "yes" } else { "no" },
            &sum(item.price_new),
            &sum(item.rent_first),
            &sum(item.per_year),
            &item.reason,
        ]);
    }
    table.text()
}

/// A list with boxes to tick, its sum and its cautions.
pub fn markdown(corner: &str, currency: &str, items: &[Item], prices: &PricesFrom) -> String {
    let money = |sum: f64| format!("{sum:.0} {currency}").trim().to_owned();
    let mut text = format!("# Shopping list: {}\n\n", plain(corner));
    if items.is_empty() {
        text += "Nothing to buy.\n";
        return text;
    }
    for item in items {
        let count = if item.count > 1 { format!("{} x ", item.count) } else { String::new() };
        let used = item.price_new.map_or_else(String::new, |new| format!(" used (new {})", money(new)));
        text += &format!("- [ ] {count}{}: {}{used}\n", plain(&item.label), money(item.price));
        text += &format!("  - {}\n", plain(&item.reason));
        if let Some(rent) = item.rent_first {
            text += &format!("  - Rent it for a day first: {}.\n", money(rent));
        }
        if !item.caution.is_empty() {
            text += &format!("  - Caution: {}\n", plain(&item.caution));
        }
    }
    let total: f64 = items.iter().map(|item| item.price).sum();
    let from: Vec<&str> =
        [prices.source.as_str(), prices.dated.as_str()].into_iter().filter(|said| !said.is_empty()).collect();
    text += &format!("\nTogether {}. Prices: {}.\n", money(total), from.join(", "));
    if let Some(note) = &prices.note {
        text += &format!("{}\n", plain(note));
    }
    text
}

/// Text that Markdown does not take for marks.
fn plain(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    for c in text.chars() {
        if matches!(c, '\\' | '`' | '*' | '_' | '[' | ']' | '<' | '>' | '#' | '|') {
            out.push('\\');
        }
        out.push(if c.is_control() { ' ' } else { c });
    }
    out
}
