//! Temperatures by the thousand: a file of a hundred thousand taken in, its picture asked for, and readings that
//! a probe sends against the same rows put in by bare SQL.

use std::fmt::Write as _;
use std::time::{Duration, Instant};

use jiff::{Span, Timestamp};
use zymarch_core::base::fault::Faults;
use zymarch_farm::build::built::{BuiltRequest, built};
use zymarch_farm::tend::import::{self, LoggerRequest};
use zymarch_farm::{Transaction, Who};
use zymarch_store::id::BatchId;

use super::served::{Question, Served};

/// Rows of the logger's file, five minutes apart.
const ROWS: i64 = 100_000;
/// Packs that a probe sends, of three readings each.
const SENT: usize = 400;

/// A heap with a year of readings; how long taking its file in took.
pub fn long_heap(tx: &mut Transaction<'_>, who: &Who, batch: BatchId) -> Result<Duration, Faults> {
    let now = Timestamp::now();
    let at = now - Span::new().hours(24 * 360);
    let heap = built(tx, who, (batch, None, BuiltRequest { at }))?;
    let mut text = "time,core\n".to_owned();
    for row in 0..ROWS {
        let day = row as f64 / 288.0;
        let core = 14.0 + 50.0 * (-day / 40.0).exp() + 2.0 * (day * 3.0).sin() + (row % 7) as f64 / 10.0;
        writeln!(text, "{},{core:.1}", now - Span::new().minutes(5 * (ROWS - row))).expect("fits");
    }
    let begun = Instant::now();
    let file = LoggerRequest { entry: None, name: "long.csv".into(), text, columns: None, zone: None };
    import::import(tx, who, (heap, file))?;
    Ok(begun.elapsed())
}

/// The trace of that heap: asked for the first time after a start, and again.
pub fn trace(full: &Served, heap: &str) {
    let path = format!("/api/heaps/{heap}/trace?columns=400");
    let first = Instant::now();
    full.ask("GET", &path, "", "");
    println!(
        "trace of 100,000 readings, first asked: {:.0} ms (held to 300 with the page)",
        first.elapsed().as_secs_f64() * 1000.0
    );
    let mut again = full.under_load(&Question::list("the same", path), 1);
    again.sort();
    println!("the same, asked again: {:.1} ms", again[again.len() / 2].as_secs_f64() * 1000.0);
}

/// What a probe sends, against the same rows put into a file of their own, a transaction a pack.
pub fn ingest(demo: &Served) {
    let heap = demo.first(&format!("/api/sites/{}/heaps", demo.site()));
    let json = "content-type: application/json\r\n";
    let made = demo.ask("POST", &format!("/api/heaps/{heap}/probes"), json, r#"{"name":"Bench rod"}"#);
    let made = String::from_utf8_lossy(&made).into_owned();
    let Some(token) = made.split("\"token\":\"").nth(1).and_then(|rest| rest.split('"').next()) else {
        println!("no probe could be made: {made}");
        return;
    };
    let begun = Timestamp::now().as_second() - SENT as i64 * 60;
    let pack = |nth: usize| {
        let at = begun + nth as i64 * 60;
        format!(
            r#"[{{"bt":{at},"bu":"Cel","n":"core","v":57.2}},{{"n":"half-way","v":44.1}},{{"n":"edge","v":31.5}}]"#
        )
    };
    let agent = ureq::Agent::new_with_defaults();
    let url = format!("{}/api/readings", demo.url());
    let since = Instant::now();
    for nth in 0..SENT {
        let sent = agent.post(&url).header("authorization", format!("Bearer {token}"));
        let answer = sent.header("content-type", "application/senml+json").send(pack(nth));
        answer.and_then(|mut answer| answer.body_mut().read_to_string()).expect("is taken");
    }
    let served = since.elapsed().as_secs_f64() / SENT as f64;
    let bare = bare(begun).expect("a file can be written") / SENT as f64;
    println!(
        "three readings of a probe over HTTP: {:.2} ms; by bare SQL in a transaction of their own: {:.2} ms; ratio {:.1}",
        served * 1000.0,
        bare * 1000.0,
        served / bare
    );
}

/// The same rows by nothing but SQL, on the same kind of journal; seconds.
fn bare(begun: i64) -> rusqlite::Result<f64> {
    let folder = tempfile::TempDir::new().expect("a folder");
    let mut conn = rusqlite::Connection::open(folder.path().join("bare.sqlite"))?;
    conn.pragma_update(None, "journal_mode", "WAL")?;
    conn.pragma_update(None, "synchronous", "FULL")?;
    conn.execute_batch(
        "CREATE TABLE reading (pack INTEGER, at_ms INTEGER, place TEXT, depth_cm REAL, temp_c REAL,
                               recorded_ms INTEGER, PRIMARY KEY (pack, at_ms, place, depth_cm)) WITHOUT ROWID",
    )?;
    let since = Instant::now();
    for nth in 0..SENT as i64 {
        let at = (begun + nth * 60) * 1000;
        let transaction = conn.transaction()?;
        {
            let mut insert =
                transaction.prepare_cached("INSERT INTO reading VALUES (1, ?1, ?2, -1, ?3, ?4)")?;
            for (place, temp) in [("core", 57.2), ("half-way", 44.1), ("edge", 31.5)] {
                insert.execute((at, place, temp, at))?;
            }
        }
        transaction.commit()?;
    }
    Ok(since.elapsed().as_secs_f64())
}
