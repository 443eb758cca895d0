//! A farm in memory, brought up to date, to write entries into.
#![allow(dead_code)]

use zymarch_store::held::Held;
use zymarch_store::id::{EntryId, HeapId, LotId, MeasureId, SiteId};
use zymarch_store::log::{About, Body, Entry, Moved, Set};
use zymarch_store::lot::{self, LotFields};
use zymarch_store::measure::{self, NewMeasure};
use zymarch_store::site::{self, NewSite};
use zymarch_store::{Connection, up_to_date};

pub const NOW: &str = "2026-03-14T08:00:00Z";
/// The same, in milliseconds since 1970.
pub const NOW_MS: i64 = 1_773_475_200_000;

pub struct Farm {
    pub conn: Connection,
    pub site: SiteId,
    pub barrow: MeasureId,
}

pub fn farm() -> Farm {
    let mut conn = Connection::open_in_memory().expect("opens");
    up_to_date(&mut conn).expect("migrates");
    let (site, barrow) = (SiteId::fresh(), MeasureId::fresh());
    site::insert(&conn, site, &NewSite::named("Velluma Terraces"), NOW).expect("writes");
    let new = NewMeasure::of_litres("barrow", "barrows", 70.0, "barrow");
    measure::insert(&conn, barrow, site, &new, NOW).expect("writes");
    Farm { conn, site, barrow }
}

impl Farm {
    pub fn entry(&self, about: About, body: Body) -> Entry {
        Entry {
            id: EntryId::fresh(),
            site: self.site,
            about,
            at_ms: NOW_MS,
            recorded_ms: NOW_MS,
            person: "local".into(),
            device: "test".into(),
            body,
            takes_back: None,
        }
    }

    pub fn undo(&self, entry: &Entry) -> Entry {
        let undone = self.entry(entry.about, Body::Undone);
        Entry { takes_back: Some(entry.id), at_ms: entry.at_ms, ..undone }
    }

    /// A lot of straw, so many barrows.
    pub fn straw(&self, amount: f64) -> LotId {
        let id = LotId::fresh();
        let fields =
            LotFields { material: "barley-straw".into(), label: None, own: Default::default(), price: None };
        lot::insert(&self.conn, id, self.site, &fields, NOW).expect("writes");
        let came = self.entry(About::Lot(id), Body::Came(self.set(amount)));
        zymarch_store::append(&self.conn, &came).expect("appends");
        id
    }

    pub fn set(&self, amount: f64) -> Set {
        Set {
            held: Held::Measures { amount, measure: self.barrow },
            litres_each: Some(70.0),
            gathered_on: None,
        }
    }

    pub fn moved(&self, amount: f64) -> Moved {
        Moved {
            held: Held::Measures { amount, measure: self.barrow },
            litres: amount * 70.0,
            kg: amount * 3.5,
            on: None,
            note: None,
        }
    }

    pub fn amount(&self, lot: LotId) -> f64 {
        lot::get(&self.conn, lot).expect("is there").held.amount()
    }
}

/// A heap's key that never is a lot's.
pub fn heap() -> HeapId {
    HeapId::fresh()
}
