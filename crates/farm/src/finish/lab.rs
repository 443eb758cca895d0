//! Results of laboratories and kits, for compost and for the soil of a place.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::finish::lab::{LabFigure, LabFound};
use zymarch_core::stock::field_test::LabBasis;
use zymarch_store::id::{CompostId, EntryId, GroundId, SiteId};
use zymarch_store::log::{self, About, Body, Found};
use zymarch_store::{compost, ground};

use crate::transaction::Writing;
use crate::words;
use crate::{Transaction, Who};

/// A figure of a result.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LabValue {
    /// Which.
    pub figure: LabFigure,
    /// Its value, in the unit that its name tells.
    pub value: f64,
}

/// A result to be written down.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LabRequest {
    /// Its id, if whoever writes it gives one; sent twice it is written once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// The day of the sample, as 2026-03-14.
    pub made_on: String,
    /// Who found it.
    #[serde(default)]
    pub by: Option<String>,
    /// Of what its shares are told.
    pub basis: LabBasis,
    /// Its figures, each once.
    pub figures: Vec<LabValue>,
}

/// A result.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LabTold {
    /// Its entry.
    pub id: EntryId,
    /// The day of the sample.
    pub made_on: String,
    /// Who found it.
    pub by: Option<String>,
    /// Of what its shares were told.
    pub basis: LabBasis,
    /// Its figures as they were typed in.
    pub typed: Vec<LabValue>,
    /// The same on one footing: shares are of dry matter.
    pub dry: Vec<LabValue>,
}

impl LabTold {
    pub(super) fn new((id, of): (EntryId, Found)) -> Self {
        let value = |&(figure, value): &(LabFigure, f64)| LabValue { figure, value };
        let dry =
            |&(figure, _): &(LabFigure, f64)| of.result.dry(figure).map(|value| LabValue { figure, value });
        Self {
            id,
            typed: of.result.figures.iter().map(value).collect(),
            dry: of.result.figures.iter().filter_map(dry).collect(),
            basis: of.result.basis,
            made_on: of.made_on,
            by: of.by,
        }
    }
}

/// What a result is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Sample {
    /// Of compost.
    Compost(CompostId),
    /// Of the soil of a place.
    Soil(GroundId),
}

impl Sample {
    fn about(self) -> About {
        match self {
            Self::Compost(id) => About::Compost(id),
            Self::Soil(id) => About::Ground(id),
        }
    }

    fn site(self, tx: &Transaction<'_>) -> Result<SiteId, Faults> {
        Ok(match self {
            Self::Compost(id) => compost::get(tx.conn, id)?.site,
            Self::Soil(id) => ground::get(tx.conn, id)?.site,
        })
    }
}

/// Writes a result down.
///
/// # Errors
/// Every field that cannot be; an id that is taken.
pub fn note(
    tx: &mut Transaction<'_>,
    who: &Who,
    (of, request): (Sample, LabRequest),
) -> Result<EntryId, Faults> {
    let site = of.site(tx)?;
    let figures = request.figures.iter().map(|of| (of.figure, of.value)).collect();
    let result = LabFound { basis: request.basis, figures };
    let mut found = result.faults(&At::ROOT);
    let made_on = words::day("made_on", &request.made_on, tx.today).map_err(|fault| found.push(fault));
    let by = words::label("by", request.by.as_deref()).map_err(|fault| found.push(fault));
    let (Ok(made_on), Ok(by), true) = (made_on, by, found.is_empty()) else { return Err(Faults(found)) };
    let body = Body::LabResult(Found { made_on, by, result });
    if let Some(sent) = tx.was_sent(request.entry, of.about(), |known| *known == body)? {
        return Ok(sent);
    }
    let (id, _) = tx.write(who, Writing { id: request.entry, ..Writing::now(site, of.about(), body) })?;
    Ok(id)
}

/// Takes an entry of compost or of a place back: a result, a use, what spoiled, a count.
///
/// # Errors
/// There is none that stands, or it cannot be taken back by itself.
pub fn take_back(tx: &mut Transaction<'_>, who: &Who, (of, id): (Sample, EntryId)) -> Result<(), Faults> {
    of.site(tx)?;
    let entries = log::those_that_stand(log::of(tx.conn, of.about())?);
    let none = || Fault::new(FaultCode::NotFound).with("kind", "entry");
    let entry = entries.iter().find(|entry| entry.id == id).ok_or_else(none)?;
    if matches!(entry.body, Body::Stored(_) | Body::Undone) {
        return Err(Fault::new(FaultCode::NotUndoable).into());
    }
    tx.write(who, Writing::undone(entry))?;
    Ok(())
}
