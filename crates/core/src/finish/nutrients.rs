//! What finished compost should hold: from what went in and what was lost on the way, with ranges.
//!
//! Phosphorus and ash stay, and grow as a share while dry matter is eaten. Nitrogen goes as ammonia and in the
//! water that runs off, by the heat model; potassium goes with that water alone, so a roof keeps it. A laboratory
//! knows better: see [`lab`](super::lab).
//!
//! # Source
//! Losses of N, P and K while manure composts: Eghball B. et al. 1997, J. Environmental Quality 26, 189. Dissolved
//! salts by conductivity, 640 mg/L for 1 dS/m: Rhoades J.D. 1996, in Methods of Soil Analysis 3. How far each may be
//! off is our judgement.

use crate::stock::material::Spread;
use crate::tend::diagnose::Stuff;
use crate::tend::now::Now;

/// What compost should hold, shares of dry matter [-] but for C:N [-] and salts [dS/m].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Estimated {
    /// Nitrogen.
    pub nitrogen: Spread,
    /// Phosphorus; none if too little is known of what went in.
    pub phosphorus: Option<Spread>,
    /// Potassium; none likewise.
    pub potassium: Option<Spread>,
    /// Carbon to nitrogen [-].
    pub c_n: Spread,
    /// Ash.
    pub ash: Spread,
    /// Salts, as the conductivity of one part in five of water [dS/m].
    pub ec_ds_m: Option<Spread>,
}

/// What was put in is known so well, share of itself [-].
const PUT_IN: f64 = 0.12;
/// The nitrogen lost by the model may be so much of itself, low and high [-].
const LOST: [f64; 2] = [0.5, 1.6];
/// Potassium that stays under a roof, low, usual, high [-]...
const POTASSIUM_ROOFED: [f64; 3] = [0.85, 0.95, 1.0];
/// ...and in the rain.
const POTASSIUM_OPEN: [f64; 3] = [0.55, 0.80, 0.97];
/// Phosphorus that stays, low, usual, high [-].
const PHOSPHORUS: [f64; 3] = [0.94, 0.98, 1.0];
/// P and K of less of the dry matter than this say nothing of the whole [-].
const KNOWN_LEAST: f64 = 0.6;
/// Potassium that dissolves in water [-], its share of all dissolved salts [-], and litres of water to the kilogram.
const DISSOLVES: f64 = 0.75;
const SHARE_OF_SALTS: f64 = 0.45;
const WATER_L_KG: f64 = 5.0;
/// Dissolved salts at 1 dS/m [g/L].
const SALTS_G_L: f64 = 0.64;
/// No more of dry matter than this is any one of these [-].
const MOST: f64 = 0.95;

/// What compost should hold, from what went in, what is left of it, the nitrogen that was lost [kg], and whether
/// rain was kept off; none if nothing is left, or nothing went in.
///
/// # Formula
/// ```text
/// n = (ΣN − N_lost) / m_dry      p = ΣP·kept / m_dry      k = ΣK·kept / m_dry      ash = ΣAsh / m_dry
/// EC = k·1000·0.75 / 5 / 0.45 / 0.64
/// ```
#[must_use]
pub fn estimated(put_in: &[Stuff<'_>], now: &Now, n_lost_kg: f64, is_roofed: bool) -> Option<Estimated> {
    let dry_left = now.dry_kg;
    let dry = |of: &Stuff<'_>| of.item.wet_mass_kg * of.item.figures.moisture.value.rest();
    let dry_in: f64 = put_in.iter().map(dry).sum();
    let is_some = dry_in > 0.0 && dry_left.low > 0.0 && dry_left.value > 0.0;
    if !is_some {
        return None;
    }
    let share = |[low, usual, high]: [f64; 3]| Spread {
        low: (low / dry_left.high).clamp(0.0, MOST),
        typical: (usual / dry_left.value).clamp(0.0, MOST),
        high: (high / dry_left.low).clamp(0.0, MOST),
    };
    let n_in: f64 = put_in.iter().map(|of| dry(of) * of.item.figures.nitrogen.value.get()).sum();
    let n_left = |put_in: f64, lost: f64| (n_in * put_in - n_lost_kg * lost).max(0.0);
    let ash: f64 = put_in.iter().map(|of| dry(of) * of.item.figures.ash.value.get()).sum();
    let kept = |of: fn(&crate::stock::material::Material) -> Option<crate::base::quantity::Fraction>,
                [low, usual, high]: [f64; 3]| {
        let known = put_in.iter().filter_map(|one| Some((dry(one), of(one.row?)?.get())));
        let (mut known_dry, mut kg) = (0.0, 0.0);
        for (dry, share) in known {
            known_dry += dry;
            kg += dry * share;
        }
        // The rest is taken to hold as much as what is known of it.
        let whole = kg * dry_in / known_dry;
        (known_dry >= KNOWN_LEAST * dry_in)
            .then(|| share([whole * low * (1.0 - PUT_IN), whole * usual, whole * high * (1.0 + PUT_IN)]))
    };
    let potassium = kept(|row| row.potassium, if is_roofed { POTASSIUM_ROOFED } else { POTASSIUM_OPEN });
    Some(Estimated {
        nitrogen: share([n_left(1.0 - PUT_IN, LOST[1]), n_left(1.0, 1.0), n_left(1.0 + PUT_IN, LOST[0])]),
        phosphorus: kept(|row| row.phosphorus, PHOSPHORUS),
        potassium,
        c_n: Spread { low: now.c_n.low, typical: now.c_n.value, high: now.c_n.high },
        ash: share([ash * (1.0 - PUT_IN), ash, ash * (1.0 + PUT_IN)]),
        ec_ds_m: potassium.map(|of| {
            let ec = |share: f64| share * 1000.0 * DISSOLVES / WATER_L_KG / SHARE_OF_SALTS / SALTS_G_L;
            // Chloride, sodium and nitrate are more here, less there.
            Spread { low: 0.6 * ec(of.low), typical: ec(of.typical), high: 1.5 * ec(of.high) }
        }),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::mix::Item;
    use crate::stock::{Own, figures, material};
    use crate::tend::now::Guess;

    fn stuff(id: &str, kg: f64) -> Stuff<'static> {
        let row = material::find(id);
        Stuff {
            item: Item { wet_mass_kg: kg, figures: figures(row, &Own::default()).expect("is listed") },
            row,
        }
    }

    fn guess(value: f64) -> Guess {
        Guess { value, low: 0.9 * value, high: 1.1 * value, measured: 0 }
    }

    fn now(dry_kg: f64) -> Now {
        Now {
            wet_kg: guess(2.0 * dry_kg),
            dry_kg: guess(dry_kg),
            moisture: guess(0.5),
            c_n: guess(14.0),
            volume_m3: guess(0.5),
            volume_left: guess(0.5),
        }
    }

    #[test]
    fn a_heap_by_hand() {
        // 100 kg of wheat straw at 12 % water: 88 kg dry, with 0.5 % N, 0.08 % P, 1.2 % K and 7 % ash.
        let put_in = [stuff("wheat-straw", 100.0)];
        let got = estimated(&put_in, &now(44.0), 0.1, true).expect("is there");
        assert!((got.nitrogen.typical - (0.44 - 0.1) / 44.0).abs() < 1e-12);
        assert!((got.phosphorus.expect("is known").typical - 0.0704 * 0.98 / 44.0).abs() < 1e-12);
        assert!((got.potassium.expect("is known").typical - 1.056 * 0.95 / 44.0).abs() < 1e-12);
        assert!((got.ash.typical - 0.14).abs() < 1e-12);
        assert!(got.nitrogen.low < got.nitrogen.typical && got.nitrogen.typical < got.nitrogen.high);
    }

    #[test]
    fn a_roof_keeps_potassium_and_salts() {
        let put_in = [stuff("wheat-straw", 100.0), stuff("sheep-manure", 80.0)];
        let of = |is_roofed| estimated(&put_in, &now(60.0), 0.3, is_roofed).expect("is there");
        let (roofed, open) = (of(true), of(false));
        assert!(open.potassium.expect("is known").typical < roofed.potassium.expect("is known").typical);
        assert!(open.ec_ds_m.expect("is known").typical < roofed.ec_ds_m.expect("is known").typical);
        assert_eq!(open.phosphorus, roofed.phosphorus);
    }

    #[test]
    fn where_too_little_is_known_nothing_is_said() {
        let put_in = [stuff("wheat-straw", 10.0), Stuff { row: None, ..stuff("sheep-manure", 100.0) }];
        let got = estimated(&put_in, &now(20.0), 0.0, true).expect("is there");
        assert_eq!((got.phosphorus, got.potassium, got.ec_ds_m), (None, None, None));
        assert_eq!(estimated(&[], &now(20.0), 0.0, true), None);
        assert_eq!(estimated(&put_in, &now(0.0), 0.0, true), None);
    }
}
