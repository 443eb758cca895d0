//! Figures as a person gives them, in the units they are given in, checked.
//!
//! What each may be stands in one table, [`LIMITS`], which the forms are served too.

use super::{Own, OwnNature};
use crate::base::fault::{At, Fault, FaultCode};
use crate::base::quantity::{self, Fraction};
use crate::base::words::closed_list;

closed_list! {
    /// A figure that a person may give in place of the book's, by its name in the open formats.
    OwnFigure {
        /// Water, % of fresh mass.
        Moisture = "moisture_pct",
        /// Total nitrogen, % of dry matter.
        Nitrogen = "n_pct",
        /// Carbon to nitrogen, by mass.
        CN = "c_n",
        /// Ash, % of dry matter.
        Ash = "ash_pct",
        /// Lignin, % of dry matter.
        Lignin = "lignin_pct",
        /// Loose density, kg/L.
        Density = "density_kg_l",
        /// Volume in the built heap, share of the loose volume.
        Settle = "settle",
        /// How well it holds air space open: 0 collapses, 3 a stiff frame.
        Structure = "structure",
        /// The wettest it may be while it still holds air, % of fresh mass.
        WetMax = "wet_max_pct",
        /// Share of its carbon and nitrogen that decays within a heap's life, %.
        Decays = "decays_pct",
        /// Days since it was dropped or gathered.
        Age = "age_days",
    }
}

impl OwnFigure {
    /// Whether it is kept with a lot; the others may stand in a recipe alone.
    #[must_use]
    pub const fn is_of_a_lot(self) -> bool {
        !matches!(self, Self::Structure | Self::WetMax | Self::Decays | Self::Age)
    }
}

/// What a figure may be, in the unit it is given in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OwnLimit {
    /// Which.
    pub figure: OwnFigure,
    /// Lowest.
    pub low: f64,
    /// Highest.
    pub high: f64,
}

/// What each may be: all water is no material; urea, the richest in nitrogen there is, holds 46.6 %.
pub const LIMITS: [OwnLimit; 11] = [
    OwnLimit { figure: OwnFigure::Moisture, low: 0.0, high: 99.9 },
    OwnLimit { figure: OwnFigure::Nitrogen, low: 0.0, high: 47.0 },
    OwnLimit { figure: OwnFigure::CN, low: 0.0, high: 2000.0 },
    OwnLimit { figure: OwnFigure::Ash, low: 0.0, high: 100.0 },
    OwnLimit { figure: OwnFigure::Lignin, low: 0.0, high: 100.0 },
    OwnLimit { figure: OwnFigure::Density, low: 0.001, high: 5.0 },
    OwnLimit { figure: OwnFigure::Settle, low: 0.0, high: 1.0 },
    OwnLimit { figure: OwnFigure::Structure, low: 0.0, high: 3.0 },
    OwnLimit { figure: OwnFigure::WetMax, low: 10.0, high: 95.0 },
    OwnLimit { figure: OwnFigure::Decays, low: 1.0, high: 100.0 },
    OwnLimit { figure: OwnFigure::Age, low: 0.0, high: 3650.0 },
];

/// What one figure may be.
#[must_use]
pub fn limit(figure: OwnFigure) -> OwnLimit {
    LIMITS[figure as usize]
}

/// Figures as a person gives them: percentages where the name says so.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Given {
    /// Water, % of fresh mass.
    pub moisture_pct: Option<f64>,
    /// Total nitrogen, % of dry matter.
    pub n_pct: Option<f64>,
    /// Carbon to nitrogen, by mass.
    pub c_n: Option<f64>,
    /// Ash, % of dry matter.
    pub ash_pct: Option<f64>,
    /// Lignin, % of dry matter.
    pub lignin_pct: Option<f64>,
    /// Loose density, kg/L.
    pub density_kg_l: Option<f64>,
    /// Volume in the built heap, share of the loose volume.
    pub settle: Option<f64>,
    /// Chopped one particle class finer than it usually arrives.
    pub chopped: bool,
    /// How well it holds air space open: 0 collapses, 3 a stiff frame.
    pub structure: Option<f64>,
    /// The wettest it may be while it still holds air, % of fresh mass.
    pub wet_max_pct: Option<f64>,
    /// Share of its carbon and nitrogen that decays within a heap's life, %.
    pub decays_pct: Option<f64>,
    /// Days since it was dropped or gathered.
    pub age_days: Option<f64>,
}

impl Given {
    /// Whether nothing is left to a row of the table that a sum cannot do without.
    #[must_use]
    pub const fn has_all(&self) -> bool {
        self.moisture_pct.is_some()
            && self.n_pct.is_some()
            && self.c_n.is_some()
            && self.ash_pct.is_some()
            && self.density_kg_l.is_some()
    }

    /// The figures as sums take them; those that cannot be are left out and told.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::{base::fault::At, stock::Given};
    /// let mut found = Vec::new();
    /// let given = Given { moisture_pct: Some(60.0), c_n: Some(-1.0), ..Given::default() };
    /// let own = given.checked(&At::ROOT, &mut found);
    /// assert_eq!((own.moisture.map(|share| share.get()), own.c_n), (Some(0.6), None));
    /// assert_eq!(found[0].path.to_string(), "c_n");
    /// ```
    #[must_use]
    pub fn checked(&self, at: &At<'_>, found: &mut Vec<Fault>) -> Own {
        let mut plain = |figure, value| checked(figure, value, &at.key(field(figure)), found);
        let c_n = plain(OwnFigure::CN, self.c_n);
        let density_kg_l = plain(OwnFigure::Density, self.density_kg_l);
        let settle = plain(OwnFigure::Settle, self.settle);
        let structure = plain(OwnFigure::Structure, self.structure);
        let age_days = plain(OwnFigure::Age, self.age_days);
        let mut share =
            |figure, value| plain(figure, value).and_then(|percent| Fraction::from_percent(percent).ok());
        let own = Own {
            moisture: share(OwnFigure::Moisture, self.moisture_pct),
            nitrogen: share(OwnFigure::Nitrogen, self.n_pct),
            ash: share(OwnFigure::Ash, self.ash_pct),
            lignin: share(OwnFigure::Lignin, self.lignin_pct),
            c_n,
            density_kg_l,
            settle,
            chopped: self.chopped,
            nature: OwnNature {
                structure: structure.map(|class| class.round() as u8),
                wet_max: share(OwnFigure::WetMax, self.wet_max_pct),
                decays: share(OwnFigure::Decays, self.decays_pct),
                age_days: age_days.map(|days| days.round() as u16),
            },
            ..Own::default()
        };
        if let (Some(ash), Some(lignin)) = (own.ash, own.lignin)
            && lignin.get() > ash.rest() + 1e-9
        {
            found.push(at.key("lignin_pct").fault(FaultCode::MoreThanDryMatter));
        }
        own
    }
}

/// The field of a figure: its name.
const fn field(figure: OwnFigure) -> &'static str {
    figure.as_str()
}

/// One figure within its limits; told at `at` if it is not.
pub(super) fn checked(
    figure: OwnFigure,
    value: Option<f64>,
    at: &At<'_>,
    found: &mut Vec<Fault>,
) -> Option<f64> {
    let OwnLimit { low, high, .. } = limit(figure);
    match quantity::within(value?, low, high) {
        Ok(value) => Some(value),
        Err(fault) => {
            found.push(at.put(fault));
            None
        }
    }
}

impl From<&Own> for Given {
    fn from(own: &Own) -> Self {
        let percent = |share: Option<Fraction>| share.map(Fraction::percent);
        Self {
            moisture_pct: percent(own.moisture),
            n_pct: percent(own.nitrogen),
            c_n: own.c_n,
            ash_pct: percent(own.ash),
            lignin_pct: percent(own.lignin),
            density_kg_l: own.density_kg_l,
            settle: own.settle,
            chopped: own.chopped,
            structure: own.nature.structure.map(f64::from),
            wet_max_pct: percent(own.nature.wet_max),
            decays_pct: percent(own.nature.decays),
            age_days: own.nature.age_days.map(f64::from),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_figure_has_its_limit_at_its_own_place() {
        for (place, limit) in LIMITS.iter().enumerate() {
            assert_eq!(limit.figure as usize, place);
            assert!(limit.low < limit.high);
        }
    }

    #[test]
    fn what_is_given_comes_back_as_it_was_given() {
        let given =
            Given { moisture_pct: Some(14.0), n_pct: Some(0.7), settle: Some(0.5), ..Given::default() };
        let mut found = Vec::new();
        assert_eq!(Given::from(&given.checked(&At::ROOT, &mut found)), given);
        assert_eq!(found, []);
    }

    #[test]
    fn all_that_is_wrong_is_told_at_once() {
        let nan = Given {
            moisture_pct: Some(f64::NAN),
            ash_pct: Some(60.0),
            lignin_pct: Some(50.0),
            density_kg_l: Some(0.0),
            ..Given::default()
        };
        let mut found = Vec::new();
        let _ = nan.checked(&At::ROOT.key("own"), &mut found);
        let paths: Vec<_> = found.iter().map(|fault| fault.path.to_string()).collect();
        assert_eq!(paths, ["own.density_kg_l", "own.moisture_pct", "own.lignin_pct"]);
    }
}
