//! Tests on lots, and what follows from them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::stock::Figures;
use zymarch_formats::field_test::{Readings, TestAnswer};
use zymarch_store::field_test;
use zymarch_store::id::{LotId, SiteId, TestId};
use zymarch_store::log::{self, About, Body, Tested};
use zymarch_store::{StoreError, lot};

use super::{Known, tested};
use crate::command::{Change, Remove, Restore};
use crate::transaction::Writing;
use crate::words::{self, Under};
use crate::{Transaction, Who};

/// A test on a lot, and what follows from it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FieldTest {
    /// Its id.
    pub id: TestId,
    /// The lot it was made on.
    pub lot_id: LotId,
    /// Counts changes.
    pub version: i64,
    /// What it says.
    #[serde(flatten)]
    pub fields: FieldTestFields,
    /// What follows; none if it cannot be reckoned any more.
    pub answer: Option<TestAnswer>,
}

/// What a test is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FieldTestFields {
    /// The day it was made, as 2026-03-14; of a bean test, the day it was sown.
    pub made_on: String,
    /// What was read.
    pub readings: Readings,
}

impl FieldTestFields {
    fn checked(&self, lot: LotId, figures: &Figures, tx: &Transaction<'_>) -> Result<Tested, Faults> {
        let made_on = words::day("made_on", &self.made_on, tx.today)?;
        if let Readings::Bean { judged_on: Some(judged), .. } = &self.readings
            && words::day("judged_on", judged, tx.today).under("readings")? < made_on
        {
            return Err(At::ROOT.key("readings").key("judged_on").fault(FaultCode::BeforeSown).into());
        }
        let days = tested::bean_days(&self.readings, &made_on, tx.today);
        self.readings.answer(Some(figures), days).under("readings")?;
        let readings = serde_json::to_value(&self.readings)
            .map_err(|error| Fault::of("readings", FaultCode::Broken).with("why", error.to_string()))?;
        Ok(Tested { lot, kind: self.readings.kind(), made_on, readings })
    }
}

/// A lot's site and its figures, for a test that leans on them.
fn lot_of(tx: &Transaction<'_>, id: LotId) -> Result<(SiteId, Figures), Faults> {
    let lot = lot::get(tx.conn, id)?;
    Ok((lot.site, Known::of(tx, lot.site)?.item(&lot)?.figures))
}

fn shown(tx: &Transaction<'_>, test: field_test::FieldTest, figures: &Figures) -> Option<FieldTest> {
    let readings = tested::readings(&test)?;
    let days = tested::bean_days(&readings, &test.made_on, tx.today);
    Some(FieldTest {
        id: test.id,
        lot_id: test.lot,
        version: test.version,
        answer: readings.answer(Some(figures), days).ok(),
        fields: FieldTestFields { made_on: test.made_on, readings },
    })
}

fn read(tx: &Transaction<'_>, id: TestId) -> Result<FieldTest, Faults> {
    let test = field_test::get(tx.conn, id)?;
    let (_, figures) = lot_of(tx, test.lot)?;
    shown(tx, test, &figures).ok_or_else(|| Faults::one("readings", FaultCode::Unreadable))
}

/// The tests of a lot, newest first.
///
/// # Errors
/// There is no such lot.
pub fn list(tx: &Transaction<'_>, lot: LotId) -> Result<Vec<FieldTest>, Faults> {
    let (_, figures) = lot_of(tx, lot)?;
    let tests = field_test::of_lot(tx.conn, lot)?;
    Ok(tests.into_iter().filter_map(|test| shown(tx, test, &figures)).collect())
}

/// What a test would give, before it is written down.
///
/// # Errors
/// What was read cannot be.
pub fn reckon(tx: &Transaction<'_>, lot: LotId, fields: &FieldTestFields) -> Result<TestAnswer, Faults> {
    let (_, figures) = lot_of(tx, lot)?;
    fields.checked(lot, &figures, tx)?;
    let days = tested::bean_days(&fields.readings, &fields.made_on, tx.today);
    fields.readings.answer(Some(&figures), days).under("readings")
}

/// A new test on a lot.
///
/// # Errors
/// What was read cannot be; there is no such lot.
pub fn add(
    tx: &mut Transaction<'_>,
    who: &Who,
    (lot, id, fields): (LotId, Option<TestId>, FieldTestFields),
) -> Result<FieldTest, Faults> {
    let id = id.unwrap_or_else(TestId::fresh);
    if log::of(tx.conn, About::Test(id))?.is_empty() {
        let (site, figures) = lot_of(tx, lot)?;
        let body = Body::Tested(fields.checked(lot, &figures, tx)?);
        tx.write(who, Writing::now(site, About::Test(id), body))?;
    }
    read(tx, id)
}

/// Changes a test: a further weighing, a count of beans.
///
/// # Errors
/// What was read cannot be; another kind; that it was changed elsewhere since.
pub fn change(
    tx: &mut Transaction<'_>,
    who: &Who,
    Change { id, version, to }: Change<TestId, FieldTestFields>,
) -> Result<FieldTest, Faults> {
    let before = field_test::get(tx.conn, id)?;
    if before.kind != to.readings.kind() {
        let fault = At::ROOT.key("readings").key("kind").fault(FaultCode::KindStays);
        return Err(fault.with("kind", before.kind.as_str()).into());
    }
    if before.version != version {
        return Err(StoreError::Stale { kind: "test", current: before.version, given: version }.into());
    }
    let (site, figures) = lot_of(tx, before.lot)?;
    let body = Body::Tested(to.checked(before.lot, &figures, tx)?);
    tx.write(who, Writing::now(site, About::Test(id), body))?;
    read(tx, id)
}

/// Removes a test, and its figures with it; it can be brought back.
///
/// # Errors
/// There is none.
pub fn remove(tx: &mut Transaction<'_>, who: &Who, Remove(id): Remove<TestId>) -> Result<(), Faults> {
    let site = field_test::get(tx.conn, id)?.site;
    tx.write(who, Writing::now(site, About::Test(id), Body::Removed))?;
    Ok(())
}

/// Brings a removed test back.
///
/// # Errors
/// There was never one.
pub fn restore(
    tx: &mut Transaction<'_>,
    who: &Who,
    Restore(id): Restore<TestId>,
) -> Result<FieldTest, Faults> {
    if let Some(removed) = log::removal(tx.conn, About::Test(id), "test")? {
        tx.write(who, Writing::undone(&removed))?;
    }
    read(tx, id)
}
