//! The ranges that the figures of a lot lie in.

use super::material::{Material, Spread};
use super::{Figures, Origin, Own, aging};
use crate::base::quantity::Fraction;
use crate::base::words::closed_list;

/// How far a material's carbon, per dry matter, moves either way [-].
///
/// # Source
/// Organic matter is 47 to 58 % carbon whatever the plant, so C:N and nitrogen
/// of one material move against each other; a twentieth either way is our
/// judgement.
pub const CARBON_PLAY: f64 = 0.05;

/// Play of a moisture that was dried and weighed, either way [-]: what one
/// sample tells of a whole barrow. Our judgement, as are those that follow.
pub(crate) const DRIED: f64 = 0.02;
/// Of one that was felt by hand: half the width of its class [-].
const FELT: f64 = 0.05;
/// Of one that the person gave [-].
const SAID_MOISTURE: f64 = 0.05;
/// Of a density from a full measure on a scale, share of it [-].
pub(crate) const WEIGHED: f64 = 0.05;
/// Of any other figure that the person gave, share of it [-].
const SAID: f64 = 0.10;
/// Of a nitrogen that a laboratory found, share of it [-].
pub(crate) const ANALYSED: f64 = 0.05;

closed_list! {
    /// What is sure about an amount.
    Counted {
        /// It was weighed: with another density it takes up another volume.
        ByMass = "weighed",
        /// It was counted in measures: with another density it weighs something else.
        ByVolume = "measured",
    }
}

/// What is not sure about a lot.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Uncertainty {
    /// The ranges of its figures.
    pub ranges: Ranges,
    /// How its amount is known.
    pub counted: Counted,
}

impl Uncertainty {
    /// Of figures that are what they are.
    #[must_use]
    pub fn none(figures: &Figures) -> Self {
        Self { ranges: Ranges::none(figures), counted: Counted::ByMass }
    }
}

/// The figures of a lot that are drawn. Ash, lignin and settle stay as they are.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ranges {
    /// Water, share of fresh mass [-].
    pub moisture: Spread,
    /// Nitrogen, share of dry matter [-].
    pub nitrogen: Spread,
    /// C:N by mass [-].
    pub c_n: Spread,
    /// Loose density [kg/L].
    pub density_kg_l: Spread,
    /// How far carbon moves either way, share of it [-].
    pub carbon_play: f64,
    /// C:N is known better than nitrogen, which then follows from it.
    pub is_c_n_known: bool,
}

/// Which way figures are pulled: 0 at the usual value, −1 at the low end of
/// the range, 1 at the high end.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Pull {
    /// Nitrogen, or C:N where that is known better.
    pub richness: f64,
    /// Carbon, within its play.
    pub carbon: f64,
    /// Moisture, and density with it.
    pub water: f64,
}

/// The ranges of a lot's figures: the book's where the figure is the book's,
/// narrow ones around what was measured, and in between for what a person gave.
#[must_use]
pub fn ranges(material: Option<&Material>, own: &Own, figures: &Figures) -> Ranges {
    let by_book = |spread: Option<Spread>, value: f64, play: f64| match spread {
        Some(spread) if spread.typical > 0.0 => {
            let per = value / spread.typical;
            Spread { low: spread.low * per, typical: value, high: spread.high * per }
        }
        _ => around(value, play * value),
    };
    let moisture = figures.moisture.value.get();
    let moisture = match figures.moisture.origin {
        Origin::Measured => around(moisture, if own.measured.is_by_hand { FELT } else { DRIED }),
        Origin::Own if own.moisture.is_some() => around(moisture, SAID_MOISTURE),
        _ => material.map_or_else(|| around(moisture, SAID_MOISTURE), |row| row.moisture),
    };
    let nitrogen = figures.nitrogen.value.get();
    let density = figures.density_kg_l.value;
    Ranges {
        moisture: Spread { low: moisture.low.max(0.0), high: moisture.high.min(0.999), ..moisture },
        nitrogen: match (own.measured.nitrogen, own.nitrogen) {
            (Some(_), _) => around(nitrogen, ANALYSED * nitrogen),
            (None, Some(_)) => around(nitrogen, SAID * nitrogen),
            (None, None) => aged(by_book(material.map(|row| row.nitrogen), nitrogen, SAID), material, own),
        },
        c_n: match (own.measured.c_n, own.c_n) {
            (Some(_), _) => around(figures.c_n.value, ANALYSED * figures.c_n.value),
            (None, Some(_)) => around(figures.c_n.value, SAID * figures.c_n.value),
            (None, None) => by_book(material.map(|row| row.c_n), figures.c_n.value, SAID),
        },
        density_kg_l: match (own.measured.density_kg_l, own.density_kg_l) {
            (Some(_), _) => around(density, WEIGHED * density),
            (None, Some(_)) => around(density, SAID * density),
            (None, None) => by_book(material.map(|row| row.density_kg_l), density, SAID),
        },
        carbon_play: CARBON_PLAY,
        is_c_n_known: own.measured.nitrogen.is_none()
            && (own.measured.c_n.is_some() || own.c_n.is_some() && own.nitrogen.is_none()),
    }
}

/// What stored dung has lost is not sure either.
fn aged(of: Spread, material: Option<&Material>, own: &Own) -> Spread {
    let kept = material.zip(own.nature.age_days).and_then(|(row, days)| aging::nitrogen_kept(row, days));
    kept.map_or(of, |kept| Spread {
        low: of.low * kept.low / kept.typical,
        high: of.high * kept.high / kept.typical,
        ..of
    })
}

pub(crate) fn around(value: f64, play: f64) -> Spread {
    Spread { low: value - play, typical: value, high: value + play }
}

impl Ranges {
    /// No play at all.
    #[must_use]
    pub(crate) fn none(figures: &Figures) -> Self {
        Self {
            moisture: around(figures.moisture.value.get(), 0.0),
            nitrogen: around(figures.nitrogen.value.get(), 0.0),
            c_n: around(figures.c_n.value, 0.0),
            density_kg_l: around(figures.density_kg_l.value, 0.0),
            carbon_play: 0.0,
            is_c_n_known: false,
        }
    }

    /// The figures with some pulled from their usual values.
    ///
    /// # Example
    /// Straw pulled to its most nitrogen holds the same carbon, so its C:N falls.
    /// ```
    /// use zymarch_core::stock::{self, Pull, material, ranges};
    /// let (straw, own) = (material::find("wheat-straw"), stock::Own::default());
    /// let usual = stock::figures(straw, &own)?;
    /// let rich = ranges(straw, &own, &usual).at(&usual, Pull { richness: 1.0, ..Pull::default() });
    /// assert!((rich.nitrogen.value.get() - 0.007).abs() < 1e-9);
    /// assert!((rich.c_n.value - 0.005 * 92.0 / 0.007).abs() < 1e-6);
    /// # Ok::<(), zymarch_core::base::fault::Fault>(())
    /// ```
    #[must_use]
    pub fn at(&self, usual: &Figures, pull: Pull) -> Figures {
        let carbon = usual.nitrogen.value.get() * usual.c_n.value * (1.0 + self.carbon_play * pull.carbon);
        let (nitrogen, c_n) = if self.is_c_n_known {
            let c_n = pulled(self.c_n, pull.richness);
            (if c_n > 0.0 { carbon / c_n } else { usual.nitrogen.value.get() }, c_n)
        } else {
            let nitrogen = pulled(self.nitrogen, pull.richness);
            (nitrogen, if nitrogen > 0.0 { carbon / nitrogen } else { usual.c_n.value })
        };
        let mut figures = *usual;
        let share = |value: f64| Fraction::new(value.clamp(0.0, 1.0)).unwrap_or(Fraction::ZERO);
        figures.nitrogen.value = share(nitrogen);
        figures.c_n.value = c_n;
        figures.moisture.value = share(pulled(self.moisture, pull.water));
        figures.density_kg_l.value = pulled(self.density_kg_l, pull.water).max(1e-6);
        figures
    }
}

fn pulled(spread: Spread, pull: f64) -> f64 {
    let end = if pull < 0.0 { spread.low } else { spread.high };
    spread.typical + pull.abs() * (end - spread.typical)
}
