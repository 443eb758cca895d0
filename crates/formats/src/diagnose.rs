//! `zymarch-diagnose/1`: a heap as it was built and logged, and what is wrong with it.

mod known;

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::base::words::closed_list;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::tend::diagnose::{
    Act, ActKind, CauseCode, Check, Clue, Diagnosis, Found, Suspect, diagnose,
};
use zymarch_core::tend::entry::Tended;
use zymarch_core::tend::reading::Faulty;

use crate::field::Document;
use crate::heat::{HeatGeometry, HeatWeather};
use crate::recipe::{Recipe, RecipeItem};

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-diagnose/1";

/// A heap as it was built and logged.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DiagnoseRequest {
    /// `zymarch-diagnose/1`.
    #[schema(example = "zymarch-diagnose/1")]
    pub format: String,
    /// What it was built of, as a `zymarch-recipe/1`.
    pub recipe: Recipe,
    /// The method, as `bay-turned`.
    pub method: String,
    /// When it was built, RFC 3339.
    #[schema(format = DateTime)]
    pub built_at: String,
    /// The time, RFC 3339.
    #[schema(format = DateTime)]
    pub now: String,
    /// How it stands, as in `zymarch-heat/1`; the method's usual heap of that much if left out.
    #[serde(default)]
    pub geometry: Option<HeatGeometry>,
    /// Its weather, as in `zymarch-heat/1`; a mild day of 18 °C if left out.
    #[serde(default)]
    pub weather: Option<HeatWeather>,
    /// What was read, seen and done, in any order.
    #[serde(default)]
    pub log: Vec<DiagnoseEntry>,
}

/// Something that was read, seen or done.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
pub struct DiagnoseEntry {
    /// When, RFC 3339.
    #[schema(format = DateTime)]
    pub at: String,
    /// The person's words.
    #[serde(default)]
    pub note: Option<String>,
    /// What: the words of the log.
    #[serde(flatten)]
    pub what: Tended<RecipeItem>,
}

impl Document for DiagnoseRequest {
    const FORMAT: &'static str = FORMAT;
}

/// What is wrong with a heap, if anything.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DiagnoseAnswer {
    /// `zymarch-diagnose/1`.
    pub format: &'static str,
    /// Whether no cause weighs enough to act on.
    pub nothing_wrong: bool,
    /// Causes that may hold, the one to act on first before the others.
    pub causes: Vec<CauseTold>,
    /// Entries that were used for nothing, in order.
    pub left_out: Vec<LogLeftOut>,
}

/// A cause that may hold.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CauseTold {
    /// Which.
    pub code: CauseCode,
    /// How much speaks for it, 0 to 1.
    pub weight: f64,
    /// Whether nothing is wrong where it holds.
    pub harmless: bool,
    /// What speaks for it, the strongest first.
    #[serde(rename = "for")]
    pub speaks_for: Vec<ClueTold>,
    /// What speaks against it.
    pub against: Vec<ClueTold>,
    /// What would decide.
    pub check: Check,
    /// What mends it.
    pub remedy: Vec<ActTold>,
}

/// Something felt, smelled, seen, read or reckoned.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClueTold {
    /// Which.
    pub code: Clue,
    /// Its figure, if it has one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<f64>,
    /// When it was found, RFC 3339, of what was felt, seen or read.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
}

/// Something to do.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ActTold {
    /// What.
    pub act: ActKind,
    /// Water, or loose room of what is added, litres.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub litres: Option<f64>,
    /// Fresh mass of what is added, kg.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub kg: Option<f64>,
    /// Of which material.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// How deep, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub depth_cm: Option<f64>,
    /// Until when, RFC 3339.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub until: Option<String>,
}

closed_list! {
    /// Why an entry was used for nothing.
    LogLeft {
        /// Under −40 or over 95 °C.
        Absurd = "absurd",
        /// The very same figure for a day.
        Stuck = "stuck",
        /// It jumped from the reading before.
        Jump = "jump",
        /// Its clock was wrong.
        Clock = "clock",
        /// It lies before the heap was built.
        BeforeBuilt = "before-built",
        /// It lies after now.
        InFuture = "in-future",
    }
}

impl From<Faulty> for LogLeft {
    fn from(why: Faulty) -> Self {
        match why {
            Faulty::Absurd => Self::Absurd,
            Faulty::Stuck => Self::Stuck,
            Faulty::Jump => Self::Jump,
            Faulty::Clock => Self::Clock,
        }
    }
}

/// An entry that was used for nothing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LogLeftOut {
    /// When, RFC 3339.
    pub at: String,
    /// Why.
    pub reason: LogLeft,
}

impl DiagnoseRequest {
    /// What is wrong with it.
    ///
    /// # Errors
    /// Every field that is wrong, or a heap that cannot be reckoned.
    ///
    /// # Example
    /// A day old and cool: too soon to say anything.
    /// ```
    /// use zymarch_core::tend::diagnose::CauseCode;
    /// use zymarch_formats::{diagnose::DiagnoseRequest, field::document};
    /// let asked: DiagnoseRequest = document(r#"{"format":"zymarch-diagnose/1","method":"bay-turned",
    ///   "built_at":"2026-03-01T08:00Z","now":"2026-03-02T09:00Z",
    ///   "recipe":{"format":"zymarch-recipe/1","water_l":150,
    ///     "items":[{"material":"wheat-straw","kg":120},{"material":"sheep-manure","kg":280}]},
    ///   "log":[{"at":"2026-03-02T08:00Z","kind":"stick","feel":"cool"}]}"#)?;
    /// let told = asked.answered(&zymarch_core::catalogue::Catalogue::book())?;
    /// assert!(told.nothing_wrong);
    /// assert_eq!(told.causes[0].code, CauseCode::TooSoon);
    /// # Ok::<(), zymarch_core::base::fault::Faults>(())
    /// ```
    pub fn answered(&self, catalogue: &Catalogue) -> Result<DiagnoseAnswer, Faults> {
        let known = known::Known::of(self, catalogue)?;
        Ok(DiagnoseAnswer {
            left_out: known.left_out,
            ..DiagnoseAnswer::new(&diagnose(&known.case), known.built_ms)
        })
    }
}

/// A figure as it is told: three digits after the point.
fn rounded(value: f64) -> f64 {
    (value * 1000.0).round() / 1000.0
}

impl DiagnoseAnswer {
    /// What is wrong with a heap that was built at a time [ms], on the wire.
    #[must_use]
    pub fn new(found: &Diagnosis, built_ms: i64) -> Self {
        Self {
            format: FORMAT,
            nothing_wrong: found.is_nothing_wrong,
            causes: found.suspects.iter().map(|of| cause(of, built_ms)).collect(),
            left_out: Vec::new(),
        }
    }
}

fn at_text(built_ms: i64, at_h: f64) -> Option<String> {
    Timestamp::from_millisecond(built_ms + (at_h * 3.6e6).round() as i64).ok().map(|at| at.to_string())
}

fn cause(of: &Suspect, built_ms: i64) -> CauseTold {
    let clue = |found: &Found| ClueTold {
        code: found.clue,
        value: found.value.map(rounded),
        at: found.at_h.and_then(|at| at_text(built_ms, at)),
    };
    let act = |act: &Act| ActTold {
        act: act.kind,
        litres: act.litres.map(rounded),
        kg: act.kg.map(rounded),
        material: act.material.clone(),
        depth_cm: act.depth_cm,
        until: act.until_h.and_then(|until| at_text(built_ms, until)),
    };
    CauseTold {
        code: of.code,
        weight: rounded(of.weight),
        harmless: of.code.row().is_harmless,
        speaks_for: of.speaks_for.iter().map(clue).collect(),
        against: of.speaks_against.iter().map(clue).collect(),
        check: of.check,
        remedy: of.remedy.iter().map(act).collect(),
    }
}

#[cfg(test)]
mod tests;
