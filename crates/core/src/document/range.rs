//! What a number or a count may be, in words.

use serde_json::Value;

/// What a number or count schema accepts, in words: `0.8 to 2.3`, `above 0 to 50`, `1 or more`.
pub fn describe_range(schema: &Value) -> Option<String> {
    let number = |key: &str| schema[key].as_f64();
    if let (Some(step), Some(low), Some(high)) = (number("multipleOf"), number("minimum"), number("maximum"))
    {
        let words: Vec<String> = (0..)
            .map(|i| low + step * f64::from(i))
            .take_while(|v| *v <= high)
            .map(|v| v.to_string())
            .collect();
        return Some(words.join(" or "));
    }
    let low = number("minimum")
        .map(|v| format!("{v}"))
        .or(number("exclusiveMinimum").map(|v| format!("above {v}")));
    let high = number("maximum")
        .map(|v| format!("{v}"))
        .or(number("exclusiveMaximum").map(|v| format!("below {v}")));
    match (low, high) {
        (Some(low), Some(high)) => Some(format!("{low} to {high}")),
        (Some(low), None) => Some(format!("{low} or more")),
        (None, Some(high)) => Some(format!("{high} or less")),
        (None, None) => None,
    }
}
