//! What asks nothing of the records.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::tend::heat::{self, Hour};
use zymarch_formats::diagnose::{DiagnoseAnswer, DiagnoseRequest};
use zymarch_formats::heat::{HeatAnswer, HeatRequest};
use zymarch_formats::hygiene::{HygieneAnswer, HygieneRequest};

/// The heat that a heap of this make should have; with every hour where they are asked for.
///
/// # Errors
/// Every field that is wrong, or a heap that cannot be reckoned.
pub fn heat(catalogue: &Catalogue, asked: &HeatRequest, with_hours: bool) -> Result<HeatAnswer, Faults> {
    let (mix, setting) = asked.asked(catalogue)?;
    let course = heat::run(&mix, &setting, asked.days)?;
    Ok(HeatAnswer::new(&course, with_hours))
}

/// Each hour of the same, for whoever plays it.
///
/// # Errors
/// As [`heat`].
pub fn hours(catalogue: &Catalogue, asked: &HeatRequest) -> Result<Vec<Hour>, Faults> {
    let (mix, setting) = asked.asked(catalogue)?;
    Ok(heat::run(&mix, &setting, asked.days)?.hours)
}

/// What the heat that was recorded of a heap shows.
///
/// # Errors
/// Every field that is wrong.
pub fn hygiene(_: &Catalogue, asked: &HygieneRequest) -> Result<HygieneAnswer, Faults> {
    asked.answered()
}

/// What is wrong with a heap, if anything.
///
/// # Errors
/// Every field that is wrong, or a heap that cannot be reckoned.
pub fn diagnose(catalogue: &Catalogue, asked: &DiagnoseRequest) -> Result<DiagnoseAnswer, Faults> {
    asked.answered(catalogue)
}
