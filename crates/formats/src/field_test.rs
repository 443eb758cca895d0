//! `zymarch-test/1`: a test on a lot, as it was read, and what follows from it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::Fault;
use zymarch_core::base::quantity::Fraction;
use zymarch_core::stock::Figures;
use zymarch_core::stock::field_test as rule;
use zymarch_core::stock::field_test::{
    Bean, BeanVerdict, Bucket, Drying, Feel, Lab, LabBasis, Steadiness, TestKind, TestedFigure, Weigh,
    air_from_density,
};

use crate::recipe::{RecipeFigure, RecipeTest};
use crate::working::{Input, Line};

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-test/1";

/// What was read in a test.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(tag = "kind", rename_all = "lowercase", deny_unknown_fields)]
pub enum Readings {
    /// One full measure on a scale.
    Weigh {
        /// What the measure holds, litres.
        litres: f64,
        /// Full, with the measure itself, kg.
        full_kg: f64,
        /// The measure alone, kg.
        empty_kg: f64,
    },
    /// A sample weighed wet and again while it dries, all with the dish.
    Drying {
        /// The dish alone, g.
        dish_g: f64,
        /// Dish and fresh sample, g.
        wet_g: f64,
        /// Dish and sample while drying, in order, g.
        dried_g: Vec<f64>,
    },
    /// What a hand felt.
    Squeeze {
        /// Which feel.
        feel: Feel,
    },
    /// Packed in a bucket, and filled up with water if the air was to be found.
    Bucket {
        /// What the bucket holds, litres.
        litres: f64,
        /// Full, with the bucket, kg.
        full_kg: f64,
        /// The bucket alone, kg.
        empty_kg: f64,
        /// Water that went in until it stood at the brim, litres.
        water_l: Option<f64>,
    },
    /// A laboratory's sheet.
    Lab {
        /// What its percents are of.
        basis: LabBasis,
        /// Water of the sample, % of fresh mass, if it is told; needed of one as received.
        moisture_pct: Option<f64>,
        /// One or several samples of the lot.
        samples: Vec<LabSample>,
    },
    /// Beans sown in it, and beside it in clean soil.
    Bean {
        /// Sown in the suspect stuff.
        sown: u32,
        /// Of those, came up.
        up: u32,
        /// Of those, deformed.
        deformed: u32,
        /// Sown in clean soil.
        control_sown: u32,
        /// Of those, came up.
        control_up: u32,
        /// Of those, deformed.
        control_deformed: u32,
        /// The day they were judged, as 2026-03-24; none while they grow.
        judged_on: Option<String>,
    },
}

/// One sample of a laboratory's sheet.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LabSample {
    /// Total carbon, %.
    pub c_pct: f64,
    /// Total nitrogen, %.
    pub n_pct: f64,
}

/// What follows from a test.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TestAnswer {
    /// `zymarch-test/1`.
    pub format: &'static str,
    /// Which test.
    pub kind: TestKind,
    /// Whether it goes on: a sample still losing weight, beans still growing.
    pub goes_on: bool,
    /// Water, % of fresh mass.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub moisture_pct: Option<f64>,
    /// Of a squeeze: the band it stands for, %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub moisture_band_pct: Option<[f64; 2]>,
    /// Of drying: whether it still loses weight.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub steadiness: Option<Steadiness>,
    /// Of a sheet: nitrogen, % of dry matter.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub n_pct: Option<f64>,
    /// Of a sheet: the range of that, %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub n_band_pct: Option<[f64; 2]>,
    /// Of a sheet: carbon to nitrogen, by mass.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub c_n: Option<f64>,
    /// Of a sheet: the range of that.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub c_n_band: Option<[f64; 2]>,
    /// Loose, or of the bucket test packed, kg/L.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub density_kg_l: Option<f64>,
    /// Air, % of the volume.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub free_air_space_pct: Option<f64>,
    /// Whether the air was found by water, not from the density.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub air_by_water: Option<bool>,
    /// Volume in the built heap, share of the loose volume.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub settle: Option<f64>,
    /// Of beans: what they say.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub verdict: Option<BeanVerdict>,
    /// Of beans: came up, % of the control's.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub against_control_pct: Option<f64>,
    /// Of beans: days they have grown.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub days: Option<i64>,
    /// The figures of the lot that it sets.
    pub gives: Vec<RecipeFigure>,
    /// How it was reckoned.
    pub working: Vec<Line>,
}

impl TestAnswer {
    const fn blank(kind: TestKind) -> Self {
        Self {
            format: FORMAT,
            kind,
            goes_on: false,
            moisture_pct: None,
            moisture_band_pct: None,
            steadiness: None,
            n_pct: None,
            n_band_pct: None,
            c_n: None,
            c_n_band: None,
            density_kg_l: None,
            free_air_space_pct: None,
            air_by_water: None,
            settle: None,
            verdict: None,
            against_control_pct: None,
            days: None,
            gives: Vec::new(),
            working: Vec::new(),
        }
    }
}

impl Readings {
    /// Which test it is.
    #[must_use]
    pub const fn kind(&self) -> TestKind {
        match self {
            Self::Weigh { .. } => TestKind::Weigh,
            Self::Drying { .. } => TestKind::Drying,
            Self::Squeeze { .. } => TestKind::Squeeze,
            Self::Bucket { .. } => TestKind::Bucket,
            Self::Bean { .. } => TestKind::Bean,
            Self::Lab { .. } => TestKind::Lab,
        }
    }

    /// What follows from it. `lot` gives the figures a bucket test leans on;
    /// `days` is how long beans have grown.
    ///
    /// # Errors
    /// A [`Fault`] of the reading that cannot be.
    ///
    /// # Example
    /// ```
    /// use zymarch_formats::field_test::Readings;
    /// let squeeze = Readings::Squeeze { feel: zymarch_core::stock::field_test::Feel::Holds };
    /// assert_eq!(squeeze.answer(None, 0)?.moisture_pct, Some(55.0));
    /// # Ok::<(), zymarch_core::base::fault::Fault>(())
    /// ```
    pub fn answer(&self, lot: Option<&Figures>, days: i64) -> Result<TestAnswer, Fault> {
        let blank = TestAnswer::blank(self.kind());
        match self {
            &Self::Weigh { litres, full_kg, empty_kg } => weigh(Weigh { litres, full_kg, empty_kg }, blank),
            Self::Drying { dish_g, wet_g, dried_g } => {
                drying(&Drying { dish_g: *dish_g, wet_g: *wet_g, dried_g: dried_g.clone() }, blank)
            }
            Self::Squeeze { feel } => Ok(squeeze(*feel, blank)),
            Self::Lab { basis, moisture_pct, samples } => {
                let sample = |one: &LabSample| rule::LabSample { c_pct: one.c_pct, n_pct: one.n_pct };
                let samples = samples.iter().map(sample).collect();
                lab(&Lab { basis: *basis, moisture_pct: *moisture_pct, samples }, blank)
            }
            &Self::Bucket { litres, full_kg, empty_kg, water_l } => {
                bucket(Bucket { litres, full_kg, empty_kg, water_l }, lot, blank)
            }
            &Self::Bean { sown, up, deformed, control_sown, control_up, control_deformed, ref judged_on } => {
                bean(
                    Bean { sown, up, deformed, control_sown, control_up, control_deformed },
                    judged_on.is_some(),
                    days,
                    blank,
                )
            }
        }
    }

    /// The figures of a lot that it sets, dated, ready for a recipe; none if
    /// it cannot be reckoned.
    #[must_use]
    pub fn gives(&self, lot: Option<&Figures>, days: i64, on: &str) -> Vec<RecipeTest> {
        let Ok(answer) = self.answer(lot, days) else { return Vec::new() };
        let value = |figure| match figure {
            RecipeFigure::MoisturePct => answer.moisture_pct,
            RecipeFigure::NPct => answer.n_pct,
            RecipeFigure::CN => answer.c_n,
            RecipeFigure::DensityKgL => answer.density_kg_l,
            RecipeFigure::Settle => answer.settle,
            RecipeFigure::Herbicide => Some(1.0),
        };
        answer
            .gives
            .iter()
            .filter_map(|&figure| {
                let value = value(figure)?;
                Some(RecipeTest { figure, value, test: answer.kind, on: on.to_owned() })
            })
            .collect()
    }
}

fn input(symbol: &'static str, value: f64, unit: &'static str) -> Input {
    Input { symbol, value, unit, origin: None }
}

fn line(
    symbol: &'static str,
    formula: &'static str,
    inputs: Vec<Input>,
    result: f64,
    unit: &'static str,
) -> Line {
    Line { item: None, symbol, formula, inputs, result, unit }
}

fn weigh(test: Weigh, blank: TestAnswer) -> Result<TestAnswer, Fault> {
    let density = test.density_kg_l()?;
    let inputs = vec![
        input("full", test.full_kg, "kg"),
        input("empty", test.empty_kg, "kg"),
        input("V", test.litres, "L"),
    ];
    Ok(TestAnswer {
        density_kg_l: Some(density),
        gives: vec![TestedFigure::Density.into()],
        working: vec![line("ρ", "({full} − {empty}) ÷ {V}", inputs, density, "kg/L")],
        ..blank
    })
}

fn drying(test: &Drying, blank: TestAnswer) -> Result<TestAnswer, Fault> {
    let found = test.result()?;
    let goes_on = found.steadiness == Steadiness::Falling;
    let dry = test.dried_g.last().copied().unwrap_or(test.wet_g);
    let inputs = vec![input("wet", test.wet_g, "g"), input("dry", dry, "g"), input("dish", test.dish_g, "g")];
    let percent = found.moisture.percent();
    Ok(TestAnswer {
        goes_on,
        moisture_pct: Some(percent),
        steadiness: Some(found.steadiness),
        gives: if goes_on { Vec::new() } else { vec![TestedFigure::Moisture.into()] },
        working: vec![line("m", "({wet} − {dry}) ÷ ({wet} − {dish}) × 100", inputs, percent, "%")],
        ..blank
    })
}

fn lab(test: &Lab, blank: TestAnswer) -> Result<TestAnswer, Fault> {
    let found = test.result()?;
    let count = test.samples.len() as f64;
    let mean = |of: fn(&rule::LabSample) -> f64| test.samples.iter().map(of).sum::<f64>() / count;
    let (c_pct, n_pct) = (mean(|sample| sample.c_pct), mean(|sample| sample.n_pct));
    let mut working = vec![line(
        "C:N",
        "{C} ÷ {N}",
        vec![input("C", c_pct, "%"), input("N", n_pct, "%")],
        found.c_n.typical,
        "",
    )];
    if let (LabBasis::Received, Some(moisture)) = (test.basis, found.moisture) {
        let inputs = vec![input("N", n_pct, "%"), input("m", moisture.get(), "")];
        working.push(line("n", "{N} ÷ (1 − {m})", inputs, found.nitrogen.typical * 100.0, "%"));
    }
    let mut gives = vec![TestedFigure::Nitrogen.into(), TestedFigure::CN.into()];
    gives.extend(found.moisture.map(|_| RecipeFigure::MoisturePct));
    Ok(TestAnswer {
        moisture_pct: found.moisture.map(Fraction::percent),
        n_pct: Some(found.nitrogen.typical * 100.0),
        n_band_pct: Some([found.nitrogen.low * 100.0, found.nitrogen.high * 100.0]),
        c_n: Some(found.c_n.typical),
        c_n_band: Some([found.c_n.low, found.c_n.high]),
        gives,
        working,
        ..blank
    })
}

fn squeeze(feel: Feel, blank: TestAnswer) -> TestAnswer {
    let (low, high) = feel.band();
    TestAnswer {
        moisture_pct: Some(feel.moisture().percent()),
        moisture_band_pct: Some([low * 100.0, high * 100.0]),
        gives: vec![TestedFigure::Moisture.into()],
        ..blank
    }
}

fn bucket(test: Bucket, lot: Option<&Figures>, blank: TestAnswer) -> Result<TestAnswer, Fault> {
    let found = test.result()?;
    let packed = found.density_kg_l;
    let inputs = vec![
        input("full", test.full_kg, "kg"),
        input("empty", test.empty_kg, "kg"),
        input("V", test.litres, "L"),
    ];
    let mut working = vec![line("ρ", "({full} − {empty}) ÷ {V}", inputs, packed, "kg/L")];
    let by_density = lot.map(|lot| air_from_density(packed, lot.moisture.value, lot.ash.value));
    let air = found.free_air_space.or(by_density);
    if let (Some(water), Some(air)) = (test.water_l, found.free_air_space) {
        let inputs = vec![input("W", water, "L"), input("V", test.litres, "L")];
        working.push(line("F", "{W} ÷ {V} × 100", inputs, air * 100.0, "%"));
    } else if let (Some(lot), Some(air)) = (lot, by_density) {
        let inputs = vec![
            input("ρ", packed, "kg/L"),
            input("m", lot.moisture.value.get(), ""),
            input("ash", lot.ash.value.get(), ""),
        ];
        let formula = "100 × (1 − {ρ} × ({m} + (1 − {m}) × ((1 − {ash}) ÷ 1.6 + {ash} ÷ 2.65)))";
        working.push(line("F", formula, inputs, air * 100.0, "%"));
    }
    let settle = lot.map(|lot| found.settle(lot.density_kg_l.value));
    if let (Some(lot), Some(settle)) = (lot, settle) {
        let inputs = vec![input("loose", lot.density_kg_l.value, "kg/L"), input("ρ", packed, "kg/L")];
        working.push(line("s", "{loose} ÷ {ρ}", inputs, settle, ""));
    }
    Ok(TestAnswer {
        density_kg_l: Some(packed),
        free_air_space_pct: air.map(|air| air * 100.0),
        air_by_water: Some(found.free_air_space.is_some()),
        settle,
        gives: settle.map(|_| TestedFigure::Settle.into()).into_iter().collect(),
        working,
        ..blank
    })
}

fn bean(test: Bean, is_judged: bool, days: i64, blank: TestAnswer) -> Result<TestAnswer, Fault> {
    let found = test.result(days)?;
    let signs = is_judged && found.verdict == BeanVerdict::Signs;
    let share = |symbol, part: u32, whole: u32| {
        (whole > 0).then(|| {
            let inputs = vec![input("up", f64::from(part), ""), input("sown", f64::from(whole), "")];
            line(symbol, "{up} ÷ {sown} × 100", inputs, f64::from(part) / f64::from(whole) * 100.0, "%")
        })
    };
    Ok(TestAnswer {
        goes_on: !is_judged || found.verdict == BeanVerdict::TooSoon,
        verdict: is_judged.then_some(found.verdict),
        against_control_pct: found.against_control.filter(|_| is_judged).map(|share| share * 100.0),
        days: Some(days),
        gives: signs.then(|| TestedFigure::Herbicide.into()).into_iter().collect(),
        working: [share("test", test.up, test.sown), share("control", test.control_up, test.control_sown)]
            .into_iter()
            .flatten()
            .filter(|_| is_judged)
            .collect(),
        ..blank
    })
}

#[cfg(test)]
mod tests;
