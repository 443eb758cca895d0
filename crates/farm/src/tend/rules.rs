//! What a site follows where practitioners differ, and what its place asks for.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::finish::apply::N_LIMIT_KG_HA;
use zymarch_core::tend::hygiene::{CRITERIA, CriterionId, LocalRule, WAIT_DAYS};
use zymarch_core::tend::school::{self, Question, SchoolId, Schools};
use zymarch_store::id::SiteId;
use zymarch_store::{rule, site};

use crate::{Transaction, Who};

/// What a site follows, and what there is to choose from.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SiteRules {
    /// Counts changes; 0 of one that never chose.
    pub version: i64,
    /// The answers that it follows, one to each question.
    pub follows: Vec<SchoolId>,
    /// Every answer.
    pub schools: Vec<SchoolRow>,
    /// What its place asks for.
    pub local: LocalFields,
    /// Days to wait where nothing is asked for, on soil and elsewhere.
    pub usual_wait_days: [u16; 2],
    /// A reading is hot from here on where nothing is asked for, °C.
    pub usual_least_c: f64,
    /// Nitrogen in a year where nothing is asked for, kg/ha.
    pub usual_n_limit_kg_ha: f64,
    /// The criteria that its place may hold a method to that is held to none by itself.
    pub criteria: Vec<CriterionId>,
}

/// An answer to a question.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SchoolRow {
    /// To which.
    pub question: Question,
    /// Which.
    pub id: SchoolId,
    /// Whether it is followed where nothing was chosen.
    pub is_usual: bool,
}

/// What a place asks for beyond the criteria of heat; they can be tightened and not loosened.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LocalFields {
    /// A reading at least so hot is hot, °C; 55 at least.
    pub least_c: Option<f64>,
    /// A run at least so long, hours.
    pub hours: Option<f64>,
    /// At least so many turns.
    pub turns: Option<u32>,
    /// Days to wait from spreading what was not shown hot to harvest, on soil and elsewhere.
    pub wait_days: Option<[u16; 2]>,
    /// What methods are held to that are held to nothing by themselves.
    pub criterion: Option<CriterionId>,
    /// Nitrogen that may go on ground in a year at most, kg/ha.
    pub n_limit_kg_ha: Option<f64>,
}

/// What a site is to follow.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RulesRequest {
    /// The version that was read.
    pub version: i64,
    /// Answers, at most one to each question; the usual one to the rest.
    pub follows: Vec<SchoolId>,
    /// What its place asks for.
    #[serde(default)]
    pub local: LocalFields,
}

/// What a site follows.
///
/// # Errors
/// There is no such site.
pub fn get(tx: &Transaction<'_>, id: SiteId) -> Result<SiteRules, Faults> {
    site::get(tx.conn, id)?;
    Ok(told(&rule::of(tx.conn, id)?))
}

fn told(kept: &rule::SiteRule) -> SiteRules {
    let schools = Schools::chosen(&kept.schools);
    let LocalRule { least_c, hours, turns, wait_days, criterion, n_limit_kg_ha } = kept.local;
    let turns = turns.map(|turns| turns as u32);
    SiteRules {
        version: kept.version,
        follows: Question::ALL.iter().map(|question| schools.of(*question).id).collect(),
        schools: school::all()
            .iter()
            .map(|row| SchoolRow { question: row.question, id: row.id, is_usual: row.is_usual })
            .collect(),
        local: LocalFields { least_c, hours, turns, wait_days, criterion, n_limit_kg_ha },
        usual_wait_days: WAIT_DAYS,
        usual_least_c: CRITERIA[0].least_c,
        usual_n_limit_kg_ha: N_LIMIT_KG_HA,
        criteria: CriterionId::ALL.iter().copied().filter(|id| *id != CriterionId::Weeds).collect(),
    }
}

/// Writes down what a site follows.
///
/// # Errors
/// Fields that are wrong, two answers to one question, or it was changed since.
pub fn set(
    tx: &mut Transaction<'_>,
    _who: &Who,
    (id, request): (SiteId, RulesRequest),
) -> Result<SiteRules, Faults> {
    site::get(tx.conn, id)?;
    let local = local(&request.local)?;
    let list = At::ROOT.key("follows");
    for (place, answer) in request.follows.iter().enumerate() {
        let is_second =
            request.follows[..place].iter().any(|other| other.row().question == answer.row().question);
        if is_second {
            return Err(list.index(place).fault(FaultCode::Twice).with("field", answer.as_str()).into());
        }
    }
    let chosen: Vec<SchoolId> = request.follows.into_iter().filter(|id| !id.row().is_usual).collect();
    let new = rule::SiteRule { schools: chosen, local, version: request.version };
    Ok(told(&rule::set(tx.conn, id, &new)?))
}

fn local(of: &LocalFields) -> Result<LocalRule, Faults> {
    let at = At::ROOT.key("local");
    let mut found: Vec<Fault> = Vec::new();
    let mut within = |field: &'static str, value: Option<f64>, (low, high): (f64, f64)| {
        if let Some(Err(fault)) = value.map(|value| quantity::within(value, low, high)) {
            found.push(at.key(field).put(fault));
        }
    };
    within("least_c", of.least_c, (CRITERIA[0].least_c, 75.0));
    within("hours", of.hours, (1.0, 2400.0));
    within("turns", of.turns.map(f64::from), (1.0, 50.0));
    for days in of.wait_days.iter().flatten() {
        within("wait_days", Some(f64::from(*days)), (0.0, 730.0));
    }
    within("n_limit_kg_ha", of.n_limit_kg_ha, (1.0, 2000.0));
    Faults::or(found, || LocalRule {
        least_c: of.least_c,
        hours: of.hours,
        turns: of.turns.map(|turns| turns as usize),
        wait_days: of.wait_days,
        criterion: of.criterion,
        n_limit_kg_ha: of.n_limit_kg_ha,
    })
}
