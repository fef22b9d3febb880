//! What air takes from sound on its way (ISO 9613-1:1993).

/// Air of a heated room: degrees Celsius and per cent of relative humidity.
pub const ROOM_AIR: (f64, f64) = (20.0, 50.0);

/// Attenuation of a pure tone, dB per metre, at a temperature in degrees Celsius and a relative humidity in per cent
/// (ISO 9613-1 equations 3 to 5, B.1 to B.3), at 101.325 kPa.
pub fn attenuation_db_m(frequency_hz: f64, temperature_c: f64, humidity_percent: f64) -> f64 {
    let kelvin = temperature_c + 273.15;
    let relative = kelvin / 293.15;
    let saturation = 10f64.powf(-6.8346 * (273.16 / kelvin).powf(1.261) + 4.6151);
    let water = humidity_percent * saturation;
    let oxygen_hz = 24.0 + 4.04e4 * water * (0.02 + water) / (0.391 + water);
    let nitrogen_hz =
        relative.powf(-0.5) * (9.0 + 280.0 * water * (-4.170 * (relative.powf(-1.0 / 3.0) - 1.0)).exp());
    let f2 = frequency_hz * frequency_hz;
    let relaxation = |weight: f64, theta: f64, hz: f64| weight * (-theta / kelvin).exp() / (hz + f2 / hz);
    8.686
        * f2
        * (1.84e-11 * relative.sqrt()
            + relative.powf(-2.5)
                * (relaxation(0.01275, 2239.1, oxygen_hz) + relaxation(0.1068, 3352.0, nitrogen_hz)))
}

/// The same as an energy coefficient m, 1/m: dB per metre over 10 lg e.
pub fn coefficient_m(frequency_hz: f64, temperature_c: f64, humidity_percent: f64) -> f64 {
    attenuation_db_m(frequency_hz, temperature_c, humidity_percent) / (10.0 * std::f64::consts::LOG10_E)
}
