//! What a laboratory or a kit found in compost or in soil, on one footing.
//!
//! Shares are told as received or of dry matter; here they are always of dry matter, so that one result can
//! stand beside another. What a result says takes the place of what was estimated, from its day on.
//!
//! # Source
//! TMECC 2002, Test Methods for the Examination of Composting and Compost (04.00, 05.00).

use serde::{Deserialize, Serialize};

use crate::base::fault::{At, Fault, FaultCode};
use crate::base::quantity;
use crate::base::words::closed_list;
use crate::stock::field_test::LabBasis;

closed_list! {
    /// A figure that a laboratory or a kit tells.
    LabFigure {
        /// Nitrogen [%].
        Nitrogen = "n-pct",
        /// Phosphorus [%].
        Phosphorus = "p-pct",
        /// Potassium [%].
        Potassium = "k-pct",
        /// Acidity [-].
        Acidity = "ph",
        /// Salts, as conductivity [dS/m].
        Salts = "ec-ds-m",
        /// Water [% of fresh mass].
        Moisture = "moisture-pct",
        /// Organic matter [%].
        OrganicMatter = "organic-matter-pct",
        /// Carbon to nitrogen [-].
        CarbonToNitrogen = "c-n",
        /// Microbial carbon [µg/g].
        MicrobialMass = "microbial-mass",
        /// Fungi to bacteria by mass [-].
        FungusToBacteria = "fungus-to-bacteria",
    }
}

/// What a figure may be, lowest and highest, and whether it is a share of the sample.
struct Row {
    figure: LabFigure,
    range: [f64; 2],
    is_share: bool,
}

/// A figure is a row.
const ROWS: [Row; 10] = [
    Row { figure: LabFigure::Nitrogen, range: [0.0, 15.0], is_share: true },
    Row { figure: LabFigure::Phosphorus, range: [0.0, 15.0], is_share: true },
    Row { figure: LabFigure::Potassium, range: [0.0, 20.0], is_share: true },
    Row { figure: LabFigure::Acidity, range: [2.0, 13.0], is_share: false },
    Row { figure: LabFigure::Salts, range: [0.0, 60.0], is_share: false },
    Row { figure: LabFigure::Moisture, range: [0.0, 95.0], is_share: false },
    Row { figure: LabFigure::OrganicMatter, range: [0.0, 100.0], is_share: true },
    Row { figure: LabFigure::CarbonToNitrogen, range: [3.0, 200.0], is_share: false },
    Row { figure: LabFigure::MicrobialMass, range: [0.0, 50_000.0], is_share: false },
    Row { figure: LabFigure::FungusToBacteria, range: [0.0, 100.0], is_share: false },
];

impl LabFigure {
    fn row(self) -> &'static Row {
        let row = &ROWS[self as usize];
        debug_assert!(row.figure == self);
        row
    }

    /// What it may be, lowest and highest.
    #[must_use]
    pub fn range(self) -> [f64; 2] {
        self.row().range
    }

    /// Whether it is told as received or of dry matter.
    #[must_use]
    pub fn has_basis(self) -> bool {
        self.row().is_share
    }
}

/// A result as it was typed in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct LabFound {
    /// Of what its shares are told.
    pub basis: LabBasis,
    /// Its figures, each once.
    pub figures: Vec<(LabFigure, f64)>,
}

impl LabFound {
    /// A figure as it was typed in.
    #[must_use]
    pub fn typed(&self, figure: LabFigure) -> Option<f64> {
        self.figures.iter().find(|(of, _)| *of == figure).map(|(_, value)| *value)
    }

    /// All that is wrong with it: no figure, one twice, one that cannot be, shares as received whose water is not
    /// told.
    #[must_use]
    pub fn faults(&self, at: &At<'_>) -> Vec<Fault> {
        let list = at.key("figures");
        let mut found = Vec::new();
        if self.figures.is_empty() {
            found.push(list.fault(FaultCode::NothingMeasured));
        }
        for (nth, (figure, value)) in self.figures.iter().enumerate() {
            let one = list.index(nth);
            let [low, high] = figure.range();
            if let Err(fault) = quantity::within(*value, low, high) {
                found.push(one.key("value").put(fault));
            }
            if self.figures[..nth].iter().any(|(before, _)| before == figure) {
                found.push(one.key("figure").fault(FaultCode::Twice).with("field", figure.as_str()));
            }
        }
        let is_wet = self.basis == LabBasis::Received && self.figures.iter().any(|(of, _)| of.has_basis());
        if is_wet && self.typed(LabFigure::Moisture).is_none() {
            found.push(at.key("basis").fault(FaultCode::MoistureMissing));
        }
        found
    }

    /// A figure on the one footing: a share of dry matter, whatever it was told of.
    ///
    /// # Example
    /// Nine in a thousand as received, with 40 % of water, are fifteen of dry matter.
    /// ```
    /// use zymarch_core::finish::lab::{LabFigure, LabFound};
    /// use zymarch_core::stock::field_test::LabBasis;
    /// let figures = vec![(LabFigure::Nitrogen, 0.9), (LabFigure::Moisture, 40.0), (LabFigure::Acidity, 7.4)];
    /// let got = LabFound { basis: LabBasis::Received, figures };
    /// assert!((got.dry(LabFigure::Nitrogen).expect("told") - 1.5).abs() < 1e-12);
    /// assert_eq!((got.dry(LabFigure::Acidity), got.dry(LabFigure::Salts)), (Some(7.4), None));
    /// ```
    #[must_use]
    pub fn dry(&self, figure: LabFigure) -> Option<f64> {
        let value = self.typed(figure)?;
        if self.basis == LabBasis::Dry || !figure.has_basis() {
            return Some(value);
        }
        let water = self.typed(LabFigure::Moisture)?;
        Some(value / (1.0 - water / 100.0))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_figure_has_its_row() {
        for &figure in LabFigure::ALL {
            assert_eq!(figure.row().figure, figure);
            assert!(figure.range()[0] < figure.range()[1]);
        }
    }

    #[test]
    fn what_cannot_be_is_named() {
        let codes = |basis, figures: &[(LabFigure, f64)]| {
            let result = LabFound { basis, figures: figures.to_vec() };
            let found = result.faults(&At::ROOT);
            found.iter().map(|fault| (fault.path.to_string(), fault.code)).collect::<Vec<_>>()
        };
        let n = LabFigure::Nitrogen;
        assert_eq!(codes(LabBasis::Dry, &[]), [("figures".into(), FaultCode::NothingMeasured)]);
        assert_eq!(codes(LabBasis::Received, &[(n, 1.0)]), [("basis".into(), FaultCode::MoistureMissing)]);
        assert_eq!(codes(LabBasis::Received, &[(LabFigure::Acidity, 7.0)]), []);
        let twice = codes(LabBasis::Dry, &[(n, 1.0), (n, 99.0)]);
        assert_eq!(twice[0].0, "figures[1].value");
        assert_eq!(twice[1], ("figures[1].figure".into(), FaultCode::Twice));
        assert_eq!(codes(LabBasis::Dry, &[(LabFigure::Acidity, f64::NAN)]).len(), 1);
    }
}
