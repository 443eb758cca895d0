//! Harvest: compost is taken out of a heap, all of it or some, screened or not; rejects become a lot for the next
//! heap.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity::{self, Fraction};
use zymarch_core::finish::harvest::{
    LOOSENED, MESH_MM, MESHES_MM, OwnYield, REJECTS, USUAL_REJECTS, own_yield, rejects_own,
};
use zymarch_core::tend::ready::Stage;
use zymarch_store::compost::{self, Compost};
use zymarch_store::heap::{self, Heap, HeapRow};
use zymarch_store::held::Held;
use zymarch_store::id::{CompostId, HeapId, LotId, MeasureId, SiteId};
use zymarch_store::log::{self, About, Body, Harvested, Rejects, Set, Stored};
use zymarch_store::lot::{self, LotFields};

use crate::stock::Known;
use crate::tend::{course, judge, series};
use crate::transaction::Writing;
use crate::words::{self, Unit};
use crate::{Transaction, Who};

/// So much of something, as a person says it.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Amount {
    /// How much, in `unit`.
    pub amount: f64,
    /// How it is said.
    pub unit: Unit,
    /// The measure it is counted in, if the unit is `measure`.
    #[serde(default)]
    pub measure_id: Option<MeasureId>,
}

/// Compost that is taken out of a heap.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HarvestRequest {
    /// Its id, if whoever writes it gives one; sent twice it is taken out once.
    #[serde(default)]
    pub id: Option<CompostId>,
    /// When, if not just now, RFC 3339.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = DateTime)]
    pub at: Option<Timestamp>,
    /// What it is called; after its heap if not said.
    #[serde(default)]
    pub name: Option<String>,
    /// How much compost, without the rejects.
    pub compost: Amount,
    /// What the screen held back.
    #[serde(default)]
    pub rejects: Option<Amount>,
    /// What that is called as stock; after its heap if not said.
    #[serde(default)]
    pub rejects_label: Option<String>,
    /// Through which mesh, mm; none if it was not screened.
    #[serde(default)]
    pub mesh_mm: Option<f64>,
    /// Water, % of fresh mass; as the heap is expected to be if not said.
    #[serde(default)]
    pub moisture_pct: Option<f64>,
    /// What a litre of it weighs, kg/L; as the heap is expected to be if not said.
    #[serde(default)]
    pub density_kg_l: Option<f64>,
    /// Whether that was all of the heap.
    pub is_last: bool,
}

/// What a heap should give.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HarvestOutlook {
    /// Compost and rejects that all of it should give, loose, litres: likeliest, lowest, highest; null if nothing
    /// can be said.
    pub expected_l: Option<[f64; 3]>,
    /// What the site got of what was expected of its heaps, once one was emptied.
    pub own: Option<OwnTold>,
    /// What was taken out so far, with rejects, litres.
    pub taken_l: f64,
    /// Water, % of fresh mass.
    pub moisture_pct: f64,
    /// Weight of a litre, kg/L.
    pub density_kg_l: f64,
    /// Meshes that are usual, mm.
    pub meshes_mm: [f64; 3],
    /// Rejects that are usual, % of what is screened.
    pub usual_rejects_pct: [f64; 2],
}

/// What a site got of what was expected.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct OwnTold {
    /// Of all heaps together, %.
    pub share_pct: f64,
    /// The least and the most of any of them, %.
    pub range_pct: [f64; 2],
    /// Heaps it rests on.
    pub heaps: usize,
}

impl From<OwnYield> for OwnTold {
    fn from(of: OwnYield) -> Self {
        Self { share_pct: 100.0 * of.share, range_pct: of.range.map(|of| 100.0 * of), heaps: of.heaps }
    }
}

/// Where nothing can be reckoned: what finished compost usually is.
const USUAL_MOISTURE: f64 = 0.45;
const USUAL_DENSITY_KG_L: f64 = 0.55;
/// Weights of a litre that are met [kg/L].
const DENSITY_KG_L: (f64, f64) = (0.1, 1.6);
/// The most that is taken out at once [L].
const MOST_L: f64 = 1e6;

/// What a heap should give.
///
/// # Errors
/// There is none.
pub fn outlook(tx: &Transaction<'_>, id: HeapId) -> Result<HarvestOutlook, Faults> {
    let heap = heap::get(tx.conn, id)?;
    let taken = compost::of_heap(tx.conn, id)?;
    let taken_l = taken.iter().map(all_of).fold(0.0, |sum, litres| sum + litres);
    let there = There::of(tx, &heap)?;
    Ok(HarvestOutlook {
        expected_l: there.left_l.map(|left| left.map(|litres| litres + taken_l)),
        own: own(tx, heap.row.site)?.map(OwnTold::from),
        taken_l,
        moisture_pct: 100.0 * there.moisture,
        density_kg_l: there.density_kg_l,
        meshes_mm: MESHES_MM,
        usual_rejects_pct: USUAL_REJECTS.map(|share| 100.0 * share),
    })
}

/// What is left of a heap, as it would be loose.
struct There {
    /// Likeliest, lowest, highest [L].
    left_l: Option<[f64; 3]>,
    moisture: f64,
    density_kg_l: f64,
}

impl There {
    fn of(tx: &Transaction<'_>, heap: &Heap) -> Result<Self, Faults> {
        let series = series::of(tx, heap)?;
        let course = course::of(tx, heap, &series).ok();
        let Some((now, whole)) = course.and_then(|course| course.now.zip(course.whole)) else {
            let (moisture, density_kg_l) = (USUAL_MOISTURE, USUAL_DENSITY_KG_L);
            return Ok(Self { left_l: None, moisture, density_kg_l });
        };
        let loose = |m3: f64| m3 * 1000.0 * LOOSENED;
        let of = now.volume_m3;
        let density = whole.wet_kg.value / loose(whole.volume_m3.value);
        Ok(Self {
            left_l: Some([of.value, of.low, of.high].map(loose)),
            moisture: whole.moisture.value,
            density_kg_l: density.clamp(DENSITY_KG_L.0, DENSITY_KG_L.1),
        })
    }
}

/// Compost and rejects of a harvest [L].
pub(super) fn all_of(of: &Compost) -> f64 {
    of.taken_l + of.rejects.map_or(0.0, |(_, litres)| litres)
}

/// What a site got of what was expected, from the heaps it emptied.
pub(super) fn own(tx: &Transaction<'_>, site: SiteId) -> Result<Option<OwnYield>, Faults> {
    let mut heaps = Vec::new();
    let all = compost::of_site(tx.conn, site)?;
    for last in all.iter().filter(|of| of.is_last) {
        let got = all.iter().filter(|of| of.heap == last.heap).map(all_of).sum();
        heaps.extend(last.expected_l.map(|expected| (got, expected)));
    }
    Ok(own_yield(&heaps))
}

/// Takes compost out of a heap.
///
/// # Errors
/// Every field that cannot be; the heap is not built, or was emptied before; an id that is taken.
pub fn harvest(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, request): (HeapId, HarvestRequest),
) -> Result<CompostId, Faults> {
    let row = heap::row(tx.conn, id)?;
    if let Some(known) = request.id
        && let Some(entry) = log::of(tx.conn, About::Compost(known))?.first()
    {
        let is_same = matches!(&entry.body, Body::Stored(of) if of.heap == id);
        return if is_same { Ok(known) } else { Err(Faults::one("id", FaultCode::EntryTaken)) };
    }
    if row.built_ms.is_none() {
        return Err(Fault::new(FaultCode::NotBuilt).into());
    }
    if row.emptied_ms.is_some() {
        return Err(Faults::one("heap", FaultCode::Emptied));
    }
    let heap = heap::get(tx.conn, id)?;
    let there = There::of(tx, &heap)?;
    let taken: f64 = compost::of_heap(tx.conn, id)?.iter().map(all_of).sum();
    let sound = request.checked(tx, &row, &there)?;
    let was_ready = judge::of(tx, &row).is_ok_and(|judged| judged.readiness.stage == Stage::Ready);
    let then = Who { done_at: request.at.or(who.done_at), ..who.clone() };
    let compost = request.id.unwrap_or_else(CompostId::fresh);
    let rejects = sound.rejects_l.map(|litres| Rejects { lot: LotId::fresh(), litres });
    if let Some(rejects) = &rejects {
        lot_of_rejects(tx, &then, &row, (rejects, &sound))?;
    }
    let harvested = Harvested { compost, litres: sound.litres, is_last: request.is_last };
    tx.write(&then, Writing::now(row.site, About::Heap(id), Body::Harvested(harvested)))?;
    let stored = Stored {
        heap: id,
        name: sound.name,
        litres: sound.litres,
        density_kg_l: sound.density_kg_l,
        moisture: sound.moisture.get(),
        mesh_mm: request.mesh_mm,
        rejects,
        expected_l: there.left_l.map(|left| left[0] + taken).filter(|expected| *expected > 0.0),
        is_last: request.is_last,
        was_ready,
    };
    tx.write(&then, Writing::now(row.site, About::Compost(compost), Body::Stored(stored)))?;
    Ok(compost)
}

/// A harvest, checked.
struct Sound {
    name: String,
    litres: f64,
    rejects_l: Option<f64>,
    rejects_label: String,
    moisture: Fraction,
    density_kg_l: f64,
}

impl HarvestRequest {
    fn checked(&self, tx: &Transaction<'_>, row: &HeapRow, there: &There) -> Result<Sound, Faults> {
        let mut found = Vec::new();
        let mut within = |field: &'static str, value: f64, (low, high): (f64, f64)| {
            found
                .extend(quantity::within(value, low, high).err().map(|fault| At::ROOT.key(field).put(fault)));
            value
        };
        let moisture = self.moisture_pct.map(|of| within("moisture_pct", of, (0.0, 95.0)) / 100.0);
        let moisture = moisture.unwrap_or(there.moisture).clamp(0.0, 0.95);
        let density = self.density_kg_l.map(|of| within("density_kg_l", of, DENSITY_KG_L));
        let density_kg_l = density.unwrap_or(there.density_kg_l);
        if let Some(mesh) = self.mesh_mm {
            within("mesh_mm", mesh, (MESH_MM[0], MESH_MM[1]));
        }
        let known = Known::of(tx, row.site)?;
        let litres = self.compost.litres(&known, &At::ROOT.key("compost"), density_kg_l, &mut found);
        let rejects = self.rejects.filter(|of| of.amount != 0.0);
        let rejects_l =
            rejects.map(|of| of.litres(&known, &At::ROOT.key("rejects"), density_kg_l, &mut found));
        if rejects.is_some() && self.mesh_mm.is_none() {
            found.push(Fault::of("mesh_mm", FaultCode::SizeMissing));
        }
        let at_ms = self.at.map(Timestamp::as_millisecond);
        if at_ms.is_some_and(|at| at > tx.now.as_millisecond()) {
            found.push(Fault::of("at", FaultCode::InFuture));
        }
        if at_ms.zip(row.built_ms).is_some_and(|(at, built)| at < built) {
            let begun = crate::transaction::at_text(row.begun_ms);
            found.push(Fault::of("at", FaultCode::BeforeBegun).with("begun", begun));
        }
        let mut called = |field: &'static str, name: Option<&String>| {
            let label = words::label(field, name.map(String::as_str)).map_err(|fault| found.push(fault));
            label.ok().flatten().unwrap_or_else(|| row.name.chars().take(words::LONGEST_NAME).collect())
        };
        let name = called("name", self.name.as_ref());
        let rejects_label = called("rejects_label", self.rejects_label.as_ref());
        let moisture = Fraction::new(moisture)?;
        Faults::or(found, || Sound { name, litres, rejects_l, rejects_label, moisture, density_kg_l })
    }
}

impl Amount {
    /// The same in litres; what is wrong with it goes to the others.
    pub(super) fn litres(
        &self,
        known: &Known<'_>,
        at: &At<'_>,
        density_kg_l: f64,
        found: &mut Vec<Fault>,
    ) -> f64 {
        let held = match words::held(self.amount, self.unit, self.measure_id) {
            Ok(held) => held,
            Err(fault) => {
                found.push(at.put(fault));
                return 0.0;
            }
        };
        let litres_each = match held {
            Held::Litres { .. } => Some(1.0),
            Held::Kilograms { .. } => Some(1.0 / density_kg_l),
            Held::Measures { .. } => known.litres_each(held),
        };
        let Some(each) = litres_each else {
            found.push(at.key("measure_id").fault(FaultCode::NoSuchMeasure));
            return 0.0;
        };
        let litres = self.amount * each;
        if let Err(fault) = quantity::above(litres, 0.0, MOST_L) {
            found.push(at.key("amount").put(fault));
        }
        litres
    }
}

/// Rejects as a lot of stock, as moist as the compost they were screened out of.
fn lot_of_rejects(
    tx: &mut Transaction<'_>,
    who: &Who,
    row: &HeapRow,
    (rejects, sound): (&Rejects, &Sound),
) -> Result<(), Faults> {
    let fields = LotFields {
        material: REJECTS.to_owned(),
        label: Some(sound.rejects_label.clone()),
        own: rejects_own(sound.moisture),
        price: None,
    };
    lot::insert(tx.conn, rejects.lot, row.site, &fields, &tx.now_text())?;
    let held = Held::Litres { amount: rejects.litres };
    let came = Set { held, litres_each: None, gathered_on: Some(tx.today.to_string()) };
    tx.write(who, Writing::now(row.site, About::Lot(rejects.lot), Body::Came(came)))?;
    Ok(())
}

/// Takes a harvest back: the compost is gone, its rejects too, and the heap is as it was.
///
/// # Errors
/// There is none; some of it went somewhere since, or its rejects did.
pub fn take_back(tx: &mut Transaction<'_>, who: &Who, id: CompostId) -> Result<(), Faults> {
    let of = compost::get(tx.conn, id)?;
    // Whatever was done to it and stands; that something was taken back is nothing that was done.
    let done = |about: About| -> Result<Vec<log::Entry>, Faults> {
        let mut entries = log::those_that_stand(log::of(tx.conn, about)?);
        entries.retain(|entry| entry.body != Body::Undone);
        Ok(entries)
    };
    let entries = done(About::Compost(id))?;
    let is_used = entries.iter().any(|entry| !matches!(entry.body, Body::Stored(_)));
    let rejects = of.rejects.map(|(lot, _)| lot);
    let went_on = match rejects {
        Some(lot) => done(About::Lot(lot))?.iter().any(|entry| !matches!(entry.body, Body::Came(_))),
        None => false,
    };
    let heap = done(About::Heap(of.heap))?;
    if is_used || went_on {
        return Err(Fault::new(FaultCode::UsedSince).into());
    }
    for entry in &entries {
        tx.write(who, Writing::undone(entry))?;
    }
    let harvested = |entry: &&log::Entry| matches!(&entry.body, Body::Harvested(one) if one.compost == id);
    for entry in heap.iter().filter(harvested) {
        tx.write(who, Writing::undone(entry))?;
    }
    if let Some(lot) = rejects.filter(|lot| lot::get(tx.conn, *lot).is_ok()) {
        lot::remove(tx.conn, lot, &tx.now_text())?;
    }
    Ok(())
}
