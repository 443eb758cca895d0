//! What a heap is held to: by its method, its size and the local rule.
//!
//! Which methods can show heat at all is a row of `data/held-to.csv`; those that are not there are held to
//! nothing, whatever their readings, unless a site's local rule names a criterion. A local rule may tighten and
//! never loosen: of two figures the stricter counts.

use std::sync::LazyLock;

use super::{Criterion, CriterionId, Need};
use crate::plan::method::Method;

/// A heap smaller than this may be held to [`CriterionId::SmallTurned`] beside the stronger one [m³].
pub const SMALL_UNDER_M3: f64 = 3.0;

/// Days to wait from spreading what was not shown hot to harvest, where the eaten part touches soil or its
/// splash, and elsewhere.
///
/// # Source
/// 7 CFR 205.203(c)(1).
pub const WAIT_DAYS: [u16; 2] = [120, 90];

/// What a place asks for beyond the criteria.
#[derive(Debug, Clone, Copy, PartialEq, Default, serde::Serialize, serde::Deserialize)]
#[serde(default)]
pub struct LocalRule {
    /// A reading at least so hot is hot [°C].
    pub least_c: Option<f64>,
    /// A run at least so long [h].
    pub hours: Option<f64>,
    /// At least so many turns, where turns count.
    pub turns: Option<usize>,
    /// Days to wait where it was not shown, on soil and elsewhere.
    pub wait_days: Option<[u16; 2]>,
    /// What methods are held to that are held to nothing by themselves.
    pub criterion: Option<CriterionId>,
    /// Nitrogen that may go on ground in a year at most [kg/ha].
    pub n_limit_kg_ha: Option<f64>,
}

impl LocalRule {
    /// Days to wait where it was not shown.
    #[must_use]
    pub fn wait_days(&self) -> [u16; 2] {
        self.wait_days.unwrap_or(WAIT_DAYS)
    }

    /// Whether it asks for anything.
    #[must_use]
    pub fn is_none(&self) -> bool {
        *self == Self::default()
    }
}

impl Criterion {
    /// The same, as strict as a local rule asks, and no less than it is.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::tend::hygiene::{CriterionId, LocalRule, Need};
    /// let local = LocalRule { least_c: Some(60.0), hours: Some(10.0), turns: Some(3), ..LocalRule::default() };
    /// let turned = CriterionId::Turned.row().tightened(&local);
    /// assert_eq!((turned.least_c, turned.need), (60.0, Need::Run { hours: 360.0, turns: 5 }));
    /// ```
    #[must_use]
    pub fn tightened(&self, local: &LocalRule) -> Self {
        let longer = |hours: f64| local.hours.map_or(hours, |least| least.max(hours));
        let more =
            |turns: usize| if turns == 0 { 0 } else { local.turns.map_or(turns, |least| least.max(turns)) };
        let need = match self.need {
            Need::Run { hours, turns } => Need::Run { hours: longer(hours), turns: more(turns) },
            Need::RunAfterEach { turns, hours } => {
                Need::RunAfterEach { turns: more(turns), hours: longer(hours) }
            }
            Need::RunAndTurns { hours, turns } => {
                Need::RunAndTurns { hours: longer(hours), turns: more(turns) }
            }
        };
        let least_c = local.least_c.map_or(self.least_c, |least| least.max(self.least_c));
        Self { least_c, need, ..*self }
    }
}

/// What a heap of a method and so much room is held to, the strongest first; nothing of methods that cannot
/// show heat, unless the local rule names one.
///
/// # Example
/// ```
/// use zymarch_core::plan::method::find;
/// use zymarch_core::tend::hygiene::{CriterionId, LocalRule, held_to};
/// let none = LocalRule::default();
/// let of = |id, m3| held_to(find(id).expect("listed"), m3, &none);
/// assert_eq!(of("bay-turned", 1.4), [CriterionId::Turned, CriterionId::SmallTurned]);
/// assert_eq!(of("straw-manure", 9.0), [CriterionId::Turned]);
/// assert!(of("static-tower", 1.4).is_empty());
/// ```
#[must_use]
pub fn held_to(method: &Method, built_m3: f64, local: &LocalRule) -> Vec<CriterionId> {
    let word = method.base.as_deref().unwrap_or(&method.id);
    let by_method = ROWS.iter().find(|(id, _)| id == word).map(|(_, criterion)| *criterion);
    match by_method.or(local.criterion) {
        Some(CriterionId::Turned) if built_m3 < SMALL_UNDER_M3 => {
            vec![CriterionId::Turned, CriterionId::SmallTurned]
        }
        Some(criterion) => vec![criterion],
        None => Vec::new(),
    }
}

static ROWS: LazyLock<Vec<(String, CriterionId)>> = LazyLock::new(|| {
    read(include_str!("../../../data/held-to.csv"))
        .expect("the shipped table is read by a test of this module")
});

fn read(text: &str) -> Result<Vec<(String, CriterionId)>, String> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    reader
        .records()
        .map(|record| {
            let record = record.map_err(|error| error.to_string())?;
            let criterion = CriterionId::parse(&record[1]).ok_or_else(|| format!("{record:?}"))?;
            Ok((record[0].to_owned(), criterion))
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::method::{self, Turned};

    #[test]
    fn every_row_is_of_a_method_and_no_method_that_is_never_turned_is_held_to_turns() {
        let rows = read(include_str!("../../../data/held-to.csv")).unwrap_or_else(|bad| panic!("{bad}"));
        for (id, criterion) in rows {
            let method = method::find(&id).unwrap_or_else(|| panic!("{id}"));
            assert!(method.turned != Turned::Never || criterion == CriterionId::Closed, "{id}");
        }
    }

    #[test]
    fn a_copy_is_held_to_what_its_base_is_and_a_local_rule_names_one_for_the_rest() {
        let bays = method::find("bay-turned").expect("listed");
        let own = Method { id: "ours".into(), base: Some("bay-turned".into()), ..bays.clone() };
        let none = LocalRule::default();
        assert_eq!(held_to(&own, 5.0, &none), [CriterionId::Turned]);
        let tower = method::find("static-tower").expect("listed");
        let local = LocalRule { criterion: Some(CriterionId::Closed), ..none };
        assert_eq!(held_to(tower, 2.0, &local), [CriterionId::Closed]);
        assert_eq!(held_to(&own, 5.0, &local), [CriterionId::Turned], "not in place of its own");
    }
}
