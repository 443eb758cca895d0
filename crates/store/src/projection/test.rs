//! The tests on lots, as they were read last.

use rusqlite::{Connection, named_params};

use super::Standing;
use crate::error::StoreError;
use crate::id::TestId;
use crate::log::Body;

const PUT: &str = "
    INSERT INTO field_test (id, site_id, lot_id, kind, made_on, readings, version)
    VALUES (:id, :site, :lot, :kind, :made_on, :readings, :version)";

pub(super) fn refresh(conn: &Connection, id: TestId, standing: &Standing) -> Result<(), StoreError> {
    conn.prepare_cached("DELETE FROM field_test WHERE id = ?1")?.execute([id])?;
    if standing.is_removed() {
        return Ok(());
    }
    let last = standing.entries.iter().rev().find_map(|entry| match &entry.body {
        Body::Tested(of) => Some((entry.site, of)),
        _ => None,
    });
    if let Some((site, of)) = last {
        let version = i64::try_from(standing.count).unwrap_or(i64::MAX);
        conn.prepare_cached(PUT)?.execute(named_params! {
            ":id": id, ":site": site, ":lot": of.lot, ":kind": of.kind.as_str(), ":made_on": of.made_on,
            ":readings": of.readings.to_string(), ":version": version,
        })?;
    }
    Ok(())
}
