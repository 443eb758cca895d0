//! Small functions of temperature, air and ammonia.

use super::constants::{CAPACITY_AIR, CAPACITY_VAPOUR, FILM_PH, HALF_OXYGEN, LATENT};

/// How well microbes work at a temperature, by their least, best and most [°C]: 0 to 1.
///
/// # Source
/// Rosso L. et al. 1993, An unexpected correlation between cardinal temperatures, J. Theor. Biol. 162.
///
/// # Example
/// ```
/// use zymarch_core::tend::heat::functions::rosso;
/// assert!((rosso(35.0, [-3.0, 58.0, 76.0]) - 0.580130).abs() < 1e-6);
/// assert_eq!(rosso(80.0, [-3.0, 58.0, 76.0]), 0.0);
/// ```
#[must_use]
pub fn rosso(t: f64, [least, best, most]: [f64; 3]) -> f64 {
    if t <= least || t >= most {
        return 0.0;
    }
    let off = t - least;
    (t - most) * off * off
        / ((best - least) * ((best - least) * (t - best) - (best - most) * (best + least - 2.0 * t)))
}

/// Pressure of saturated vapour [Pa].
///
/// # Source
/// Alduchov O.A. and Eskridge R.E. 1996, Improved Magnus form approximation, J. Appl. Meteorol. 35.
#[must_use]
pub fn saturation_pa(t: f64) -> f64 {
    610.94 * (17.625 * t / (t + 243.04)).exp()
}

/// Water in air of a vapour pressure [kg/kg dry air].
#[must_use]
pub fn humidity(vapour_pa: f64, pressure_pa: f64) -> f64 {
    0.622 * vapour_pa / (pressure_pa - vapour_pa).max(0.05 * pressure_pa)
}

/// Heat in moist air, relative to 0 °C [MJ/kg dry air].
#[must_use]
pub fn enthalpy(t: f64, humidity: f64) -> f64 {
    CAPACITY_AIR * t + humidity * (LATENT + CAPACITY_VAPOUR * t)
}

/// Oxygen that is left over that of the air, where so much air comes in at a level and so much is wanted
/// [kg/h]: what comes in is what is used, and what is used follows Monod.
#[must_use]
pub fn oxygen_left(air: f64, level: f64, demand: f64) -> f64 {
    if air <= 0.0 {
        return 0.0;
    }
    let b = air * HALF_OXYGEN + demand - air * level;
    let q = (b * b + 4.0 * air * air * level * HALF_OXYGEN).sqrt();
    if b > 0.0 { 2.0 * air * level * HALF_OXYGEN / (b + q) } else { (q - b) / (2.0 * air) }
}

/// Share of ammoniacal nitrogen that is ammonia and not ammonium, in so much water [-].
///
/// # Source
/// pKa: Emerson K. et al. 1975, Aqueous ammonia equilibrium calculations, J. Fish. Res. Board Can. 32.
/// The pH of the film is fitted.
#[must_use]
pub fn free_ammonia(t: f64, nitrogen_kg: f64, water_kg: f64) -> f64 {
    let [at, rise, low, high] = FILM_PH;
    let grams = 1000.0 * nitrogen_kg / water_kg.max(1e-3);
    let ph = (at + rise * (0.5 * grams.max(0.0) + 0.05).log10()).clamp(low, high);
    let pka = 0.0902 + 2729.92 / (t + 273.15);
    1.0 / (1.0 + 10_f64.powf(pka - ph))
}

/// Pressure of the air at a height above the sea [m]: the standard atmosphere [Pa].
#[must_use]
pub fn pressure_pa(altitude_m: f64) -> f64 {
    101_325.0 * (1.0 - 2.25577e-5 * altitude_m).powf(5.2559)
}

#[cfg(test)]
mod tests {
    use super::super::constants::{WARMTH, WARMTH_RESISTANT};
    use super::*;

    fn near(got: f64, want: f64) {
        assert!((got - want).abs() <= 5e-7 * want.abs().max(1.0), "{got} is not {want}");
    }

    #[test]
    fn spot_values() {
        for (t, want) in [(5.0, 0.030_744), (18.0, 0.199_862), (58.0, 1.0), (70.0, 0.656_847)] {
            near(rosso(t, WARMTH), want);
        }
        for (t, want) in [(5.0, 0.157_003), (18.0, 0.653_379), (35.0, 1.0), (50.0, 0.654_169)] {
            near(rosso(t, WARMTH_RESISTANT), want);
        }
        near(saturation_pa(0.0), 610.94);
        assert!(
            (saturation_pa(18.0) - 2059.73).abs() < 0.005 && (saturation_pa(60.0) - 20023.0).abs() < 0.05
        );
        near(humidity(0.65 * saturation_pa(18.0), 101_325.0), 0.008_328_6);
        near(humidity(saturation_pa(60.0), 101_325.0), 0.153_185_8);
        near(enthalpy(60.0, 0.153_185_8), 0.460_573_1);
        near(oxygen_left(5.0, 1.0, 10.0), 0.081_136_5);
        near(oxygen_left(10.0, 0.8, 1.0), 0.711_825_4);
        near(free_ammonia(60.0, 1.0, 500.0), 0.728_311_9);
        near(free_ammonia(25.0, 0.1, 300.0), 0.101_948_3);
        near(pressure_pa(0.0), 101_325.0);
    }

    #[test]
    fn ends_are_nothing_and_beyond_them_is_nothing() {
        for t in [-50.0, -3.0, 76.0, 200.0] {
            near(rosso(t, WARMTH), 0.0);
        }
        near(oxygen_left(0.0, 1.0, 1.0), 0.0);
        near(oxygen_left(5.0, 0.7, 0.0), 0.7);
    }
}
