//! A laboratory's sheet: carbon and nitrogen of one sample or several.

use super::reading;
use crate::base::fault::{At, Fault, FaultCode};
use crate::base::quantity::Fraction;
use crate::base::words::closed_list;
use crate::stock::material::Spread;
use crate::stock::ranges::{ANALYSED, around};

closed_list! {
    /// What the percents of a sheet are of.
    LabBasis {
        /// Of dry matter.
        Dry = "dry",
        /// Of the sample as it came, water and all.
        Received = "received",
    }
}

/// One sample of a sheet, in percent.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LabSample {
    /// Total carbon [%].
    pub c_pct: f64,
    /// Total nitrogen [%].
    pub n_pct: f64,
}

/// A sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct Lab {
    /// What its percents are of.
    pub basis: LabBasis,
    /// Water of the sample, % of fresh mass, if it is told; needed of one as received.
    pub moisture_pct: Option<f64>,
    /// One or several samples of the same lot.
    pub samples: Vec<LabSample>,
}

/// What a sheet says.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LabResult {
    /// Water, share of fresh mass, if it is told.
    pub moisture: Option<Fraction>,
    /// Nitrogen, share of dry matter, with its range.
    pub nitrogen: Spread,
    /// Carbon to nitrogen, by mass, with its range.
    pub c_n: Spread,
}

/// Most samples of one sheet.
const MOST_SAMPLES: usize = 20;

/// More carbon than this no sample holds [%]: charcoal and oils come near it.
const MOST_C_PCT: f64 = 95.0;

/// More nitrogen than this no material holds [%]: urea.
const MOST_N_PCT: f64 = 47.0;

impl Lab {
    /// C:N and nitrogen of the samples' means, each with the range that the samples span; of one
    /// sample, with what one sample tells of a whole lot.
    ///
    /// # Formula
    /// ```text
    /// C:N = mean C / mean N          n = mean N / (1 − m) as received, mean N of dry matter
    /// ```
    ///
    /// # Source
    /// Mass balance; that percents as received are turned to dry matter by the moisture of the
    /// sample is how TMECC 2002 (US Composting Council) reports them.
    ///
    /// # Errors
    /// A [`Fault`] of the field that cannot be.
    ///
    /// # Example
    /// Dung as received with 60 % water, 16 and 17 % C, 0.8 and 0.85 % N: 16.5 / 0.825 is 20 to 1,
    /// and 0.825 / 0.4 is 2.06 % nitrogen of dry matter.
    /// ```
    /// use zymarch_core::stock::field_test::{Lab, LabBasis, LabSample};
    /// let sample = |c_pct, n_pct| LabSample { c_pct, n_pct };
    /// let sheet = Lab { basis: LabBasis::Received, moisture_pct: Some(60.0), samples: vec![sample(16.0, 0.8), sample(17.0, 0.85)] };
    /// let found = sheet.result()?;
    /// assert!((found.c_n.typical - 20.0).abs() < 1e-9);
    /// assert!((found.nitrogen.typical - 0.020625).abs() < 1e-9);
    /// # Ok::<(), zymarch_core::base::fault::Fault>(())
    /// ```
    pub fn result(&self) -> Result<LabResult, Fault> {
        let list = At::ROOT.key("samples");
        if self.samples.is_empty() {
            return Err(list.fault(FaultCode::Empty));
        }
        list.holds(self.samples.len(), MOST_SAMPLES)?;
        let moisture = self
            .moisture_pct
            .map(|percent| {
                reading("moisture_pct", percent, true, 99.0).and_then(|percent| {
                    Fraction::from_percent(percent).map_err(|bad| At::ROOT.key("moisture_pct").put(bad))
                })
            })
            .transpose()?;
        let solids = match (self.basis, moisture) {
            (LabBasis::Dry, _) => 1.0,
            (LabBasis::Received, Some(moisture)) => moisture.rest(),
            (LabBasis::Received, None) => return Err(Fault::of("moisture_pct", FaultCode::Missing)),
        };
        for (index, sample) in self.samples.iter().enumerate() {
            let at = list.index(index);
            // A percent as received is of solids and water together, so no more than its solids.
            reading("c_pct", sample.c_pct, false, MOST_C_PCT * solids).map_err(|bad| at.put(bad))?;
            reading("n_pct", sample.n_pct, false, MOST_N_PCT * solids).map_err(|bad| at.put(bad))?;
        }
        let count = self.samples.len() as f64;
        let mean = |of: fn(&LabSample) -> f64| self.samples.iter().map(of).sum::<f64>() / count;
        let c_n = mean(|sample| sample.c_pct) / mean(|sample| sample.n_pct);
        let nitrogen = mean(|sample| sample.n_pct) / 100.0 / solids;
        let spanned = |typical: f64, of: &dyn Fn(&LabSample) -> f64| {
            if self.samples.len() < 2 {
                return around(typical, ANALYSED * typical);
            }
            let values = || self.samples.iter().map(of);
            Spread { low: values().fold(typical, f64::min), typical, high: values().fold(typical, f64::max) }
        };
        Ok(LabResult {
            moisture,
            nitrogen: spanned(nitrogen, &|sample| sample.n_pct / 100.0 / solids),
            c_n: spanned(c_n, &|sample| sample.c_pct / sample.n_pct),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn sheet(basis: LabBasis, moisture_pct: Option<f64>, samples: &[(f64, f64)]) -> Lab {
        let samples = samples.iter().map(|&(c_pct, n_pct)| LabSample { c_pct, n_pct }).collect();
        Lab { basis, moisture_pct, samples }
    }

    #[test]
    fn the_ratio_is_the_same_whatever_the_basis() {
        let dry = sheet(LabBasis::Dry, None, &[(40.0, 2.0)]).result().expect("is sound");
        let wet = sheet(LabBasis::Received, Some(75.0), &[(10.0, 0.5)]).result().expect("is sound");
        assert!((dry.c_n.typical - 20.0).abs() < 1e-12 && (wet.c_n.typical - 20.0).abs() < 1e-12);
        assert!((dry.nitrogen.typical - wet.nitrogen.typical).abs() < 1e-12);
    }

    #[test]
    fn samples_span_a_range_and_one_sample_has_its_own() {
        let three =
            sheet(LabBasis::Dry, None, &[(40.0, 2.0), (42.0, 1.75), (38.0, 2.0)]).result().expect("is sound");
        assert!((three.c_n.low - 19.0).abs() < 1e-12 && (three.c_n.high - 24.0).abs() < 1e-12);
        let one = sheet(LabBasis::Dry, None, &[(40.0, 2.0)]).result().expect("is sound");
        assert!((one.c_n.low - 19.0).abs() < 1e-9 && (one.c_n.high - 21.0).abs() < 1e-9);
    }

    #[test]
    fn what_cannot_be_is_refused_by_field() {
        let field = |sheet: Lab| sheet.result().expect_err("refused").path.to_string();
        assert_eq!(field(sheet(LabBasis::Received, None, &[(16.0, 0.8)])), "moisture_pct");
        assert_eq!(field(sheet(LabBasis::Dry, None, &[])), "samples");
        assert_eq!(field(sheet(LabBasis::Dry, None, &[(40.0, 2.0), (40.0, 0.0)])), "samples[1].n_pct");
        assert_eq!(field(sheet(LabBasis::Dry, None, &[(f64::NAN, 2.0)])), "samples[0].c_pct");
        assert_eq!(field(sheet(LabBasis::Received, Some(90.0), &[(40.0, 2.0)])), "samples[0].c_pct");
        assert_eq!(field(sheet(LabBasis::Dry, Some(120.0), &[(40.0, 2.0)])), "moisture_pct");
    }
}
