//! Probes: who may write readings of one heap, or the air of one site, and nothing else.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_store::id::{HeapId, ProbeId, SiteId};
use zymarch_store::log::About;
use zymarch_store::probe::{self, Probe};
use zymarch_store::{heap, site};

use crate::people::{Secret, hash};
use crate::transaction::at_text;
use crate::{Transaction, Who, words};

/// A probe.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct ProbeTold {
    /// Its id.
    pub id: ProbeId,
    /// What people call it.
    pub name: String,
    /// Whether it is a stand-in, whose data are made up.
    pub is_simulated: bool,
    /// When it was written down, RFC 3339.
    pub made_at: String,
    /// When it sent something last, RFC 3339.
    pub seen_at: Option<String>,
    /// Whether it was cut off.
    pub is_ended: bool,
}

/// A new probe, with what it is to send to be known.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct ProbeMade {
    /// What it is.
    #[serde(flatten)]
    pub probe: ProbeTold,
    /// What it sends as `Authorization: Bearer …`; it is told this once.
    pub token: String,
}

/// A probe to be.
#[derive(Debug, Clone, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ProbeFields {
    /// What people call it; no other of the same heap is called so.
    pub name: String,
}

impl From<&Probe> for ProbeTold {
    fn from(of: &Probe) -> Self {
        Self {
            id: of.id,
            name: of.name.clone(),
            is_simulated: of.is_simulated,
            made_at: at_text(of.made_ms),
            seen_at: of.seen_ms.map(at_text),
            is_ended: of.ended_ms.is_some(),
        }
    }
}

/// What a probe stands in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StandsIn {
    /// A heap.
    Heap(HeapId),
    /// The air of a site.
    Site(SiteId),
}

impl StandsIn {
    pub(super) const fn about(self) -> About {
        match self {
            Self::Heap(id) => About::Heap(id),
            Self::Site(id) => About::Site(id),
        }
    }

    pub(super) fn site(self, tx: &Transaction<'_>) -> Result<SiteId, Faults> {
        Ok(match self {
            Self::Heap(id) => heap::row(tx.conn, id)?.site,
            Self::Site(id) => site::get(tx.conn, id)?.id,
        })
    }
}

/// The probes of a heap or a site, oldest first.
///
/// # Errors
/// The records cannot be read.
pub fn list(tx: &Transaction<'_>, of: StandsIn) -> Result<Vec<ProbeTold>, Faults> {
    of.site(tx)?;
    Ok(probe::of(tx.conn, of.about())?.iter().map(ProbeTold::from).collect())
}

/// Writes a probe down, and makes what it is known by.
///
/// # Errors
/// Its name is none, or another's.
pub fn add(
    tx: &mut Transaction<'_>,
    _who: &Who,
    (of, fields): (StandsIn, ProbeFields),
) -> Result<ProbeMade, Faults> {
    let (probe, token) = made(tx, of, &fields.name, false)?;
    Ok(ProbeMade { probe: (&probe).into(), token })
}

/// A probe and its token.
pub(super) fn made(
    tx: &Transaction<'_>,
    of: StandsIn,
    name: &str,
    is_simulated: bool,
) -> Result<(Probe, String), Faults> {
    let site = of.site(tx)?;
    let name = words::name("name", name)?;
    let others = probe::of(tx.conn, of.about())?;
    if others.iter().any(|other| other.name == name && other.ended_ms.is_none()) {
        return Err(Fault::of("name", FaultCode::NameTaken).with("name", name.as_str()).into());
    }
    let token = Secret::for_a_device()?;
    let probe = Probe {
        id: ProbeId::fresh(),
        site,
        about: of.about(),
        name,
        is_simulated,
        made_ms: tx.now.as_millisecond(),
        seen_ms: None,
        ended_ms: None,
    };
    probe::insert(tx.conn, &hash(token.letters()), &probe)?;
    Ok((probe, token.letters().to_owned()))
}

/// Cuts a probe off: it can send nothing more. What it sent stays.
///
/// # Errors
/// There is none of that id there.
pub fn end(tx: &mut Transaction<'_>, _who: &Who, (of, id): (StandsIn, ProbeId)) -> Result<(), Faults> {
    let there = there(tx, of, id)?;
    Ok(probe::end(tx.conn, there.id, tx.now.as_millisecond())?)
}

pub(super) fn there(tx: &Transaction<'_>, of: StandsIn, id: ProbeId) -> Result<Probe, Faults> {
    let none = || Fault::new(FaultCode::NotFound).with("kind", "probe");
    Ok(Some(probe::get(tx.conn, id)?).filter(|probe| probe.about == of.about()).ok_or_else(none)?)
}
