//! `zymarch-hygiene/1`: the heat that was recorded of a heap, and what it shows.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Faults};
use zymarch_core::tend::hygiene::{
    Criterion, CriterionId, Ended, Evidence, HeatStatus, LeftOut, Reading, Record, Run, Still, evidence,
};

use crate::field::{self, Document, time};

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-hygiene/1";

/// Readings, turns and additions at most.
const MOST_LISTED: usize = 20_000;

/// What was recorded of a heap, and what it is held to.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HygieneRequest {
    /// `zymarch-hygiene/1`.
    #[schema(example = "zymarch-hygiene/1")]
    pub format: String,
    /// What it is held to.
    pub criterion: CriterionId,
    /// The time, RFC 3339: it tells not yet from not shown.
    #[schema(format = DateTime)]
    pub now: String,
    /// Readings of the core, in any order.
    #[serde(default)]
    pub readings: Vec<HygieneReading>,
    /// When it was turned, RFC 3339.
    #[serde(default)]
    pub turns: Vec<String>,
    /// When anything fresh was put in, RFC 3339: nothing before the last of them counts.
    #[serde(default)]
    pub additions: Vec<String>,
}

/// A reading of the core.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HygieneReading {
    /// When, RFC 3339.
    #[schema(format = DateTime)]
    pub at: String,
    /// How hot, °C; null of a stick or a hand.
    #[serde(default)]
    pub core_c: Option<f64>,
    /// Whether it was marked as faulty.
    #[serde(default)]
    pub faulty: bool,
}

/// What the record shows. It says what was recorded, and nothing of whether anything is safe.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HygieneAnswer {
    /// `zymarch-hygiene/1`.
    pub format: &'static str,
    /// What it was held to.
    pub criterion: CriterionId,
    /// Whether it was shown.
    pub status: HeatStatus,
    /// When it first was, RFC 3339; null if it was not.
    pub shown_at: Option<String>,
    /// Runs of hot readings, in order.
    pub runs: Vec<HygieneRun>,
    /// Turns that count under the criterion.
    pub turns_counted: usize,
    /// What is still wanted, if the run under way goes on; zero once shown.
    pub still: HygieneStill,
    /// Readings that were left out, in order.
    pub left_out: Vec<HygieneLeftOut>,
}

/// A run of hot readings.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HygieneRun {
    /// Its first hot reading, RFC 3339.
    pub from: String,
    /// Its last.
    pub to: String,
    /// From the one to the other, hours.
    pub hours: f64,
    /// How many there are.
    pub readings: usize,
    /// The coldest, °C.
    pub coldest_c: f64,
    /// What ended it; null if nothing did yet.
    pub ended: Option<Ended>,
}

/// What is still wanted.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct HygieneStill {
    /// Heat, hours.
    pub hours: f64,
    /// Turns.
    pub turns: usize,
}

/// A reading that was left out.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HygieneLeftOut {
    /// When, RFC 3339.
    pub at: String,
    /// Why.
    pub reason: LeftOut,
}

impl Document for HygieneRequest {
    const FORMAT: &'static str = FORMAT;
}

impl HygieneRequest {
    /// What the record shows.
    ///
    /// # Errors
    /// Every field that is wrong.
    pub fn answered(&self) -> Result<HygieneAnswer, Faults> {
        let (mut found, root) = (Vec::new(), At::ROOT);
        field::is_format(&self.format, FORMAT, &mut found);
        let now_ms = time(&self.now, &root.key("now"), &mut found);
        let at = root.key("readings");
        found.extend(at.holds(self.readings.len(), MOST_LISTED).err());
        let mut readings = Vec::with_capacity(self.readings.len().min(MOST_LISTED));
        for (place, reading) in self.readings.iter().take(MOST_LISTED).enumerate() {
            let at_ms = time(&reading.at, &at.index(place).key("at"), &mut found);
            readings.push(Reading { at_ms, core_c: reading.core_c, is_faulty: reading.faulty });
        }
        let mut times = |name, given: &[String]| {
            let at = root.key(name);
            found.extend(at.holds(given.len(), MOST_LISTED).err());
            let each = given.iter().take(MOST_LISTED).enumerate();
            each.map(|(place, text)| time(text, &at.index(place), &mut found)).collect::<Vec<i64>>()
        };
        let (turns, additions) = (times("turns", &self.turns), times("additions", &self.additions));
        Faults::or(found, || {
            let record = Record { readings: &readings, turns: &turns, additions: &additions, now_ms };
            HygieneAnswer::new(&evidence(&record, self.criterion.row()), self.criterion.row())
        })
    }
}

/// A time as it is sent.
fn told(ms: i64) -> String {
    Timestamp::from_millisecond(ms).map(|at| at.to_string()).unwrap_or_default()
}

impl HygieneAnswer {
    /// What a record shows, on the wire.
    #[must_use]
    pub fn new(found: &Evidence, criterion: &Criterion) -> Self {
        let Evidence { status, shown_ms, runs, turns_counted, still: Still { hours, turns }, left_out } =
            found;
        let run = |run: &Run| HygieneRun {
            from: told(run.from_ms),
            to: told(run.to_ms),
            hours: run.hours(),
            readings: run.hot_ms.len(),
            coldest_c: run.coldest_c,
            ended: run.ended,
        };
        let left = |(at, reason): &(i64, LeftOut)| HygieneLeftOut { at: told(*at), reason: *reason };
        Self {
            format: FORMAT,
            criterion: criterion.id,
            status: *status,
            shown_at: shown_ms.map(told),
            runs: runs.iter().map(run).collect(),
            turns_counted: *turns_counted,
            still: HygieneStill { hours: *hours, turns: *turns },
            left_out: left_out.iter().map(left).collect(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn asked(text: &str) -> Result<HygieneAnswer, Faults> {
        field::document::<HygieneRequest>(text)?.answered()
    }

    #[test]
    fn a_drum_read_daily_for_three_days() {
        let got = asked(
            r#"{"format":"zymarch-hygiene/1","criterion":"closed","now":"2026-04-20T08:00Z","readings":[
                {"at":"2026-04-04T08:00Z","core_c":55},{"at":"2026-04-01T08:00Z","core_c":57.5},
                {"at":"2026-04-02T10:00:00+02:00","core_c":61},{"at":"2026-04-03T08:00Z","core_c":58},
                {"at":"2026-04-01T20:00Z","core_c":0.0,"faulty":true}]}"#,
        )
        .expect("sound");
        assert_eq!((got.status, got.shown_at.as_deref()), (HeatStatus::Shown, Some("2026-04-04T08:00:00Z")));
        assert_eq!((got.runs.len(), got.runs[0].hours, got.runs[0].readings), (1, 72.0, 4));
        assert_eq!(got.runs[0].coldest_c, 55.0);
        assert_eq!(
            got.left_out,
            [HygieneLeftOut { at: "2026-04-01T20:00:00Z".into(), reason: LeftOut::Faulty }]
        );
    }

    #[test]
    fn every_wrong_field_is_named() {
        let faults = asked(
            r#"{"format":"zymarch-hygiene/1","criterion":"closed","now":"soon","readings":[{"at":"2026-13-01T00:00Z","core_c":60}],"turns":["x"],"additions":["2026-04-01T08:00Z",""]}"#,
        )
        .expect_err("all wrong");
        let paths: Vec<_> = faults.0.iter().map(|fault| fault.path.to_string()).collect();
        assert_eq!(paths, ["now", "readings[0].at", "turns[0]", "additions[1]"]);
        let unknown =
            asked(r#"{"format":"zymarch-hygiene/1","criterion":"boiled","now":"2026-04-20T08:00Z"}"#);
        assert_eq!(unknown.expect_err("unknown").0[0].path.to_string(), "criterion");
    }
}
