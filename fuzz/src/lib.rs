//! Changes JSON documents where libFuzzer alone would mostly break their syntax.

use libfuzzer_sys::fuzzer_mutate;
use serde_json::{Value, json};

/// A generator of even numbers (splitmix64).
pub struct Dice(u64);

impl Dice {
    /// From a seed.
    pub fn new(seed: u32) -> Self {
        Self(u64::from(seed) ^ 0x9e37_79b9_7f4a_7c15)
    }

    fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        z ^ (z >> 31)
    }

    fn below(&mut self, most: usize) -> usize {
        (self.next() % most.max(1) as u64) as usize
    }

    fn unit(&mut self) -> f64 {
        (self.next() >> 11) as f64 / (1u64 << 53) as f64
    }
}

/// Changes a document in one to four places, or its bytes now and then; the new length.
pub fn changed(data: &mut [u8], size: usize, max_size: usize, seed: u32) -> usize {
    let mut dice = Dice::new(seed);
    let parsed = if dice.below(8) == 0 { None } else { serde_json::from_slice::<Value>(&data[..size]).ok() };
    let Some(mut value) = parsed else { return fuzzer_mutate(data, size, max_size) };
    for _ in 0..=dice.below(4) {
        let mut all = Vec::new();
        pointers(&value, String::new(), &mut all);
        let pointer = all[dice.below(all.len())].clone();
        let other = all[dice.below(all.len())].clone();
        let copied = value.pointer(&other).cloned().unwrap_or(Value::Null);
        if let Some(at) = value.pointer_mut(&pointer) {
            change(at, copied, &mut dice);
        }
    }
    let text = value.to_string();
    if text.len() > max_size {
        return fuzzer_mutate(data, size, max_size);
    }
    data[..text.len()].copy_from_slice(text.as_bytes());
    text.len()
}

fn pointers(value: &Value, at: String, all: &mut Vec<String>) {
    match value {
        Value::Object(map) => map.iter().for_each(|(key, inner)| {
            pointers(inner, format!("{at}/{}", key.replace('~', "~0").replace('/', "~1")), all);
        }),
        Value::Array(list) => {
            list.iter().enumerate().for_each(|(i, inner)| pointers(inner, format!("{at}/{i}"), all));
        }
        _ => {}
    }
    all.push(at);
}

fn change(at: &mut Value, copied: Value, dice: &mut Dice) {
    const NUMBERS: [f64; 12] = [0.0, -0.0, 1.0, -1.0, 1e-300, 1e300, 5e-324, 1e9, 0.5, 360.0, 1e-6, -1e-6];
    const WORDS: [&str; 8] = ["", "0", "\u{0}", "=1+1", "ä漢🎬", "../..", "none", "\u{202e}abc"];
    match (&mut *at, dice.below(6)) {
        // A little more or less is what a person types.
        (Value::Number(number), 0..=3) => {
            let by = [1.0 + (dice.unit() - 0.5) * 0.2, dice.unit() * 3.0, -1.0, 10.0][dice.below(4)];
            *at = json!(number.as_f64().unwrap_or(0.0) * by);
        }
        (Value::Object(map), 0..=2) => {
            let keys: Vec<String> = map.keys().cloned().collect();
            if let Some(key) = keys.get(dice.below(keys.len())) {
                if dice.below(2) == 0 {
                    map.shift_remove(key);
                } else {
                    let inner = map[key].clone();
                    map.insert(format!("{key}-{}", dice.below(9)), inner);
                }
            }
        }
        (Value::Array(list), 0..=2) if !list.is_empty() => {
            let which = dice.below(list.len());
            if dice.below(2) == 0 {
                list.remove(which);
            } else {
                list.insert(which, list[which].clone());
            }
        }
        (_, 4) => *at = copied,
        (_, _) => {
            *at = match dice.below(5) {
                0 => json!(NUMBERS[dice.below(NUMBERS.len())]),
                1 => json!(WORDS[dice.below(WORDS.len())]),
                2 => Value::Null,
                3 => json!(dice.below(2) == 0),
                _ => json!([]),
            };
        }
    }
}
