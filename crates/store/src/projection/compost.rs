//! Compost as it stands: how much is left, where it went, what laboratories found.

use rusqlite::{Connection, named_params};

use super::Standing;
use crate::error::StoreError;
use crate::id::CompostId;
use crate::log::{About, Body};

const PUT: &str = "
    INSERT INTO compost (id, site_id, heap_id, name, harvested_ms, taken_l, litres, density_kg_l, moisture, mesh_mm,
                         rejects_lot, rejects_l, expected_l, is_last, was_ready, version)
    VALUES (:id, :site, :heap, :name, :harvested, :taken, :litres, :density, :moisture, :mesh, :rejects_lot,
            :rejects_l, :expected, :is_last, :was_ready, :version)";

const PUT_APPLIED: &str = "
    INSERT INTO applied (id, site_id, compost_id, ground_id, at_ms, litres, body)
    VALUES (:id, :site, :compost, :ground, :at, :litres, :body)";

pub(super) fn refresh(conn: &Connection, id: CompostId, standing: &Standing) -> Result<(), StoreError> {
    conn.prepare_cached("DELETE FROM compost WHERE id = ?1")?.execute([id])?;
    conn.prepare_cached("DELETE FROM applied WHERE compost_id = ?1")?.execute([id])?;
    let stored = standing.entries.iter().find_map(|entry| match &entry.body {
        Body::Stored(of) => Some((entry, of)),
        _ => None,
    });
    let Some((first, of)) = stored else {
        return lab_results(
            conn,
            About::Compost(id),
            &Standing { entries: Vec::new(), count: 0, head: None },
        );
    };
    let mut litres = of.litres;
    for entry in &standing.entries {
        match &entry.body {
            Body::Counted(set) => litres = set.held.amount(),
            Body::Spoiled(gone) | Body::Used(gone) => litres += gone.litres,
            Body::Applied(went) => {
                litres -= went.litres;
                conn.prepare_cached(PUT_APPLIED)?.execute(named_params! {
                    ":id": entry.id, ":site": entry.site, ":compost": id, ":ground": went.ground,
                    ":at": entry.at_ms, ":litres": went.litres, ":body": entry.body.to_json()?,
                })?;
            }
            _ => {}
        }
    }
    let rejects = of.rejects.as_ref();
    conn.prepare_cached(PUT)?.execute(named_params! {
        ":id": id, ":site": first.site, ":heap": of.heap, ":name": of.name, ":harvested": first.at_ms,
        ":taken": of.litres, ":litres": litres.max(0.0), ":density": of.density_kg_l, ":moisture": of.moisture,
        ":mesh": of.mesh_mm, ":rejects_lot": rejects.map(|of| of.lot), ":rejects_l": rejects.map(|of| of.litres),
        ":expected": of.expected_l, ":is_last": of.is_last, ":was_ready": of.was_ready,
        ":version": i64::try_from(standing.count).unwrap_or(i64::MAX),
    })?;
    lab_results(conn, About::Compost(id), standing)
}

const PUT_RESULT: &str = "
    INSERT INTO lab_result (id, site_id, subject, subject_id, made_on, body)
    VALUES (:id, :site, :subject, :subject_id, :made_on, :body)";

/// What laboratories found in something.
pub(super) fn lab_results(conn: &Connection, about: About, standing: &Standing) -> Result<(), StoreError> {
    let (subject, id) = about.columns();
    conn.prepare_cached("DELETE FROM lab_result WHERE subject = ?1 AND subject_id = ?2")?
        .execute([subject, id.as_str()])?;
    for entry in &standing.entries {
        let Body::LabResult(of) = &entry.body else { continue };
        conn.prepare_cached(PUT_RESULT)?.execute(named_params! {
            ":id": entry.id, ":site": entry.site, ":subject": subject, ":subject_id": id, ":made_on": of.made_on,
            ":body": entry.body.to_json()?,
        })?;
    }
    Ok(())
}
