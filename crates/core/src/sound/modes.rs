//! Where a room rings on its own: its modes, between rigid walls of a box (Kuttruff).

/// Axial modes nearer to each other than this part pile up (common practice, no source).
const NEAR: f64 = 0.05;

/// A mode of a box.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize)]
pub struct Mode {
    /// Hz.
    pub frequency_hz: f64,
    /// Half waves along width, depth and height.
    pub n: [u32; 3],
}

/// How many modes there are about up to a frequency (Maa 1939; Bolt 1939).
pub fn count_estimate([a, b, c]: [f64; 3], up_to_hz: f64, speed_m_s: f64) -> f64 {
    let (volume, surface, edges) = (a * b * c, 2.0 * (a * b + b * c + c * a), 4.0 * (a + b + c));
    let k = up_to_hz / speed_m_s;
    let pi = std::f64::consts::PI;
    4.0 * pi / 3.0 * volume * k.powi(3) + pi / 4.0 * surface * k.powi(2) + edges / 8.0 * k
}

/// All modes of a box up to a frequency, lowest first, equal ones in the order of their numbers: c/2 sqrt of the sum of (n / side)^2
/// (Kuttruff); sides over 0 m.
pub fn modes(dimensions_m: [f64; 3], up_to_hz: f64, speed_m_s: f64) -> Vec<Mode> {
    let most = dimensions_m.map(|side| (2.0 * up_to_hz * side / speed_m_s * (1.0 + 1e-12)).floor() as u32);
    let mut found = Vec::new();
    for x in 0..=most[0] {
        for y in 0..=most[1] {
            for z in 0..=most[2] {
                let n = [x, y, z];
                let sum: f64 =
                    n.iter().zip(dimensions_m).map(|(n, side)| (f64::from(*n) / side).powi(2)).sum();
                let frequency_hz = speed_m_s / 2.0 * sum.sqrt();
                if n != [0, 0, 0] && frequency_hz <= up_to_hz * (1.0 + 1e-12) {
                    found.push(Mode { frequency_hz, n });
                }
            }
        }
    }
    found.sort_by(|a, b| a.frequency_hz.total_cmp(&b.frequency_hz).then(a.n.cmp(&b.n)));
    // Equal but for rounding: by their numbers.
    let mut from = 0;
    for to in 1..=found.len() {
        if to == found.len() || found[to].frequency_hz - found[to - 1].frequency_hz > 1e-9 {
            found[from..to].sort_by_key(|mode| mode.n);
            from = to;
        }
    }
    found
}

/// Above this frequency a room is a field, below it single modes (Schroeder 1996): 2000 sqrt(T / V).
pub fn schroeder_frequency_hz(volume_m3: f64, rt60_s: f64) -> f64 {
    2000.0 * (rt60_s / volume_m3).sqrt()
}

/// Axial modes of different sides that lie within 5 % of each other, up to a frequency: pairs of sides (0 to 2) and the
/// lower frequency, each pair of sides once.
pub fn piled_up(dimensions_m: [f64; 3], up_to_hz: f64, speed_m_s: f64) -> Vec<(usize, usize, f64)> {
    let axial = |side: usize| {
        let first = speed_m_s / (2.0 * dimensions_m[side]);
        (1..).map(move |n| f64::from(n) * first).take_while(move |hz| *hz <= up_to_hz)
    };
    let mut found = Vec::new();
    for (a, b) in [(0, 1), (0, 2), (1, 2)] {
        let near = axial(a).flat_map(|f| axial(b).map(move |g| (f.min(g), (f - g).abs())));
        let pair = near.filter(|(low, apart)| *apart < NEAR * low).min_by(|x, y| x.0.total_cmp(&y.0));
        found.extend(pair.map(|(low, _)| (a, b, low)));
    }
    found
}
