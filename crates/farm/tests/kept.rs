//! Stock and lists that are kept between questions are never others than would be reckoned anew.

use std::sync::Arc;

use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_core::tend::entry::{SqueezeFeel, Tended};
use zymarch_core::tend::school::SchoolId;
use zymarch_farm::build::act::{self, HeapAct, LayRequest};
use zymarch_farm::build::begin;
use zymarch_farm::build::heap::{self, HeapListed};
use zymarch_farm::clock::Clock;
use zymarch_farm::command::{Change, Remove, Restore};
use zymarch_farm::plan::batch::{self, BatchListed};
use zymarch_farm::stock::field_test::{self, FieldTestFields};
use zymarch_farm::stock::lot::{self, LotFields};
use zymarch_farm::stock::measure::{self, MeasureFields, VolumeWay};
use zymarch_farm::stock::on_hand::{self, Stock};
use zymarch_farm::stock::site::{self, SiteFields};
use zymarch_farm::tend::entry::{self, TendRequest};
use zymarch_farm::tend::rules::{self, LocalFields, RulesRequest};
use zymarch_farm::tend::today::{self, TodayAnswer, TodayLine};
use zymarch_farm::{Farm, Transaction, Who, load};
use zymarch_formats::field_test::Readings;
use zymarch_store::Store;
use zymarch_store::id::{LotId, SiteId};

struct Place {
    store: Store,
    farm: Farm,
    site: SiteId,
    folder: Arc<tempfile::TempDir>,
}

impl Place {
    async fn new() -> Self {
        let folder = tempfile::TempDir::new().expect("a folder");
        let store = Store::open(&folder.path().join("farm.sqlite")).await.expect("opens");
        let farm = Farm::new(store.clone(), Clock::Real);
        let demo = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/");
        let package =
            zymarch_formats::farm::read(|name| std::fs::read(format!("{demo}{name}"))).expect("sound");
        farm.act(|tx| load::first(tx, &Who::local(""), package)).await.expect("loads");
        let site = farm.ask(site::list).await.expect("reads")[0].id;
        Self { store, farm, site, folder: Arc::new(folder) }
    }

    async fn stock(&self) -> Arc<Stock> {
        let site = self.site;
        self.farm.ask(move |tx| on_hand::stock(tx, site)).await.expect("reads")
    }

    /// What a farm says that has kept nothing.
    async fn anew(&self) -> Arc<Stock> {
        let site = self.site;
        let other = Farm::new(self.store.clone(), Clock::Real);
        other.ask(move |tx| on_hand::stock(tx, site)).await.expect("reads")
    }

    async fn does<T: Send + 'static>(
        &self,
        act: impl FnOnce(&mut Transaction<'_>, &Who) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, Faults> {
        self.farm.act(move |tx| act(tx, &Who::local(""))).await
    }

    async fn lists(&self) -> (Arc<Vec<BatchListed>>, Arc<Vec<HeapListed>>) {
        let site = self.site;
        self.farm.ask(move |tx| Ok((batch::list(tx, site)?, heap::list(tx, site)?))).await.expect("reads")
    }

    async fn is_as_anew(&self, after: &str) {
        assert_eq!(self.stock().await.lots, self.anew().await.lots, "after {after}");
        let other = Self { farm: Farm::new(self.store.clone(), Clock::Real), ..self.alike() };
        assert_eq!(self.lists().await, other.lists().await, "after {after}");
    }

    /// What is to be prepared there.
    async fn to_prepare(&self) -> Vec<TodayLine> {
        let site = self.site;
        let told = self.farm.ask(move |tx| today::today(tx, site)).await.expect("reads");
        told.lines.iter().filter(|line| line.prepare.is_some()).cloned().collect()
    }

    async fn prepares_as_anew(&self, after: &str) -> Vec<TodayLine> {
        let lines = self.to_prepare().await;
        let other = Self { farm: Farm::new(self.store.clone(), Clock::Real), ..self.alike() };
        assert_eq!(lines, other.to_prepare().await, "after {after}");
        lines
    }

    /// The same place, by whoever looks at it.
    fn alike(&self) -> Self {
        Self {
            store: self.store.clone(),
            farm: self.farm.clone(),
            site: self.site,
            folder: Arc::clone(&self.folder),
        }
    }
}

fn of(stock: &Stock, material: &str) -> (LotId, i64, LotFields) {
    let lot = stock.lots.iter().find(|lot| lot.fields.material == material).expect("is in stock");
    (lot.id, lot.version, lot.fields.clone())
}

#[tokio::test]
async fn it_is_the_same_one_until_something_of_it_changes() {
    let place = Place::new().await;
    let first = place.stock().await;
    assert!(Arc::ptr_eq(&first, &place.stock().await), "nothing was reckoned twice");
    let (id, version, fields) = of(&first, "barley-straw");
    let to = LotFields { amount: fields.amount + 1.0, ..fields };
    place.does(move |tx, who| lot::change(tx, who, Change { id, version, to })).await.expect("changes");
    assert!(!Arc::ptr_eq(&first, &place.stock().await));
    place.is_as_anew("an amount").await;
}

#[tokio::test]
async fn all_that_it_leans_on_is_noticed() {
    let place = Place::new().await;
    let stock = place.stock().await;
    let (straw, ..) = of(&stock, "barley-straw");
    place.does(move |tx, who| lot::remove(tx, who, Remove(straw))).await.expect("goes");
    place.is_as_anew("a lot that went").await;
    place.does(move |tx, who| lot::restore(tx, who, Restore(straw))).await.expect("comes back");
    place.is_as_anew("a lot that came back").await;
    let today = place.farm.ask(|tx| Ok(tx.today().to_string())).await.expect("reads");
    let readings = Readings::Weigh { litres: 60.0, full_kg: 9.0, empty_kg: 0.4 };
    let fields = FieldTestFields { made_on: today, readings };
    place.does(move |tx, who| field_test::add(tx, who, (straw, None, fields))).await.expect("is noted");
    place.is_as_anew("a test").await;
    let site = place.site;
    let measures = place.farm.ask(move |tx| measure::list(tx, site)).await.expect("reads");
    let cloth = measures.into_iter().find(|one| one.fields.name == "carrying cloth").expect("is there");
    let to = MeasureFields { way: VolumeWay::Litres { litres: 75.0 }, ..cloth.fields.clone() };
    let change = Change { id: cloth.id, version: cloth.version, to };
    place.does(move |tx, who| measure::change(tx, who, change)).await.expect("changes");
    place.is_as_anew("a measure").await;
    let here = place.farm.ask(site::list).await.expect("reads").remove(0);
    let to = SiteFields { name: here.fields.name.clone(), altitude_m: None, climate: None };
    let change = Change { id: here.id, version: here.version, to };
    place.does(move |tx, who| site::change(tx, who, change)).await.expect("changes");
    place.is_as_anew("a climate").await;
}

#[tokio::test]
async fn what_came_to_nothing_leaves_nothing() {
    let place = Place::new().await;
    let stock = place.stock().await;
    let (straw, version, fields) = of(&stock, "barley-straw");
    let site = place.site;
    // Something is changed, looked at, and then refused.
    let refused = place
        .does(move |tx, who| {
            let to = LotFields { amount: 1.0, ..fields };
            lot::change(tx, who, Change { id: straw, version, to })?;
            assert!(
                on_hand::stock(tx, site)?.lots.iter().any(|lot| lot.id == straw && lot.fields.amount == 1.0)
            );
            Err::<(), _>(Faults::one("", FaultCode::Stale))
        })
        .await;
    assert!(refused.is_err());
    place.is_as_anew("what was refused").await;
    // The next change has the stamp that the refused one would have had.
    let (hens, version, fields) = of(&stock, "layer-hen-manure");
    let to = LotFields { amount: fields.amount + 1.0, ..fields };
    place.does(move |tx, who| lot::change(tx, who, Change { id: hens, version, to })).await.expect("changes");
    place.is_as_anew("a change after it").await;
}

#[tokio::test]
async fn lists_of_batches_and_heaps_are_the_same_ones_until_one_of_theirs_changes() {
    let place = Place::new().await;
    let (batches, heaps) = place.lists().await;
    let again = place.lists().await;
    assert!(Arc::ptr_eq(&batches, &again.0) && Arc::ptr_eq(&heaps, &again.1), "nothing was reckoned twice");
    let first = batches[0].batch.clone();
    let of = first.id;
    let to = batch::BatchFields { water_l: first.fields.water_l + 1.0, ..first.fields };
    let change = Change { id: of, version: first.version, to };
    place.does(move |tx, who| batch::change(tx, who, change)).await.expect("changes");
    place.is_as_anew("a batch that was changed").await;
    assert!(Arc::ptr_eq(&heaps, &place.lists().await.1), "heaps do not lean on it");
    let heap = place.does(move |tx, who| begin(tx, who, (of, None))).await.expect("begins");
    place.is_as_anew("a heap that was begun").await;
    let step = place.farm.ask(move |tx| heap::get(tx, heap)).await.expect("reads").build.steps[0].clone();
    let lay = LayRequest {
        entry: None,
        after: None,
        mine: Vec::new(),
        at: None,
        step: 0,
        portions: step.portions,
        water_l: step.water_l,
        new_items: Vec::new(),
    };
    place.does(move |tx, who| act::lay(tx, who, (heap, lay))).await.expect("lays");
    place.is_as_anew("a layer").await;
    place.does(move |tx, who| act::end(tx, who, (heap, HeapAct::default()))).await.expect("ends");
    place.is_as_anew("the end, with its height").await;
    place.does(move |tx, who| batch::remove(tx, who, Remove(of))).await.expect("goes");
    place.is_as_anew("a batch that went").await;
}

#[tokio::test]
async fn what_is_to_be_prepared_follows_its_batch_and_its_heap() {
    let place = Place::new().await;
    assert_eq!(place.to_prepare().await, place.to_prepare().await);
    let first = place.lists().await.0[0].batch.clone();
    let of = first.id;
    let lines_of = |lines: &[TodayLine]| {
        let ours = |line: &&TodayLine| line.prepare.as_ref().is_some_and(|it| it.batch == of);
        lines.iter().filter(ours).cloned().collect::<Vec<_>>()
    };
    let to = batch::BatchFields { build_on: None, ..first.fields.clone() };
    let change = Change { id: of, version: first.version, to };
    let first = place.does(move |tx, who| batch::change(tx, who, change)).await.expect("changes");
    assert!(lines_of(&place.prepares_as_anew("no day to build it").await).is_empty());
    let in_three_days = |tx: &Transaction<'_>| Ok(tx.today().saturating_add(jiff::Span::new().days(3)));
    let day = place.farm.ask(in_three_days).await.expect("reads");
    let to = batch::BatchFields { build_on: Some(day), ..first.fields };
    let change = Change { id: of, version: first.version, to };
    place.does(move |tx, who| batch::change(tx, who, change)).await.expect("changes");
    let lines = lines_of(&place.prepares_as_anew("a day to build it").await);
    let key = lines.iter().find_map(|line| line.prepare.as_ref().map(|it| it.key.clone())).expect("has some");
    let ticked = today::TickRequest { key: key.clone(), done: true };
    place.does(move |tx, who| today::tick(tx, who, (of, ticked))).await.expect("is ticked off");
    let lines = lines_of(&place.prepares_as_anew("a tick").await);
    let is_done = |line: &TodayLine| line.prepare.as_ref().is_some_and(|it| it.key == key && it.is_done);
    assert!(lines.iter().any(is_done));
    place.does(move |tx, who| begin(tx, who, (of, None))).await.expect("begins");
    assert!(lines_of(&place.prepares_as_anew("a heap that was begun").await).is_empty());
}

#[tokio::test]
async fn what_is_to_be_done_is_the_same_one_until_a_heap_or_a_batch_says_otherwise() {
    let place = Place::new().await;
    let site = place.site;
    let of_farm = async |farm: &Farm| farm.ask(move |tx| today::today(tx, site)).await;
    let anew = || Farm::new(place.store.clone(), Clock::Real);
    let mut seen = of_farm(&place.farm).await.expect("reads");
    assert!(Arc::ptr_eq(&seen, &of_farm(&place.farm).await.expect("reads")), "nothing was told twice");
    // What is expected moves with the moment; what to do must be what a farm says that has kept nothing.
    let mut has_changed = async |after: &str| {
        let (now, whole) =
            (of_farm(&place.farm).await.expect("reads"), of_farm(&anew()).await.expect("reads"));
        let lines = |of: &TodayAnswer| {
            let told = |line: &TodayLine| (line.id.clone(), line.on.clone(), line.name.clone());
            of.lines.iter().map(told).collect::<Vec<_>>()
        };
        assert_eq!(lines(&now), lines(&whole), "after {after}");
        let named = |of: &TodayAnswer| of.heaps.iter().map(|heap| (heap.id, heap.stage)).collect::<Vec<_>>();
        assert_eq!(named(&now), named(&whole), "after {after}");
        assert!(!Arc::ptr_eq(&seen, &now), "after {after}");
        seen = now;
    };
    let heap = of_farm(&place.farm).await.expect("reads").heaps[0].id;
    let what = Tended::Squeeze { feel: SqueezeFeel::Dusty, place: None };
    let squeezed = TendRequest { entry: None, at: None, what, note: None, photo: None, instead_of: None };
    place.does(move |tx, who| entry::tend(tx, who, (heap, squeezed))).await.expect("is written down");
    has_changed("a handful of dust").await;
    let version = place.farm.ask(move |tx| rules::get(tx, site)).await.expect("reads").version;
    let request =
        RulesRequest { version, follows: vec![SchoolId::ThreeDaysEach], local: LocalFields::default() };
    place.does(move |tx, who| rules::set(tx, who, (site, request))).await.expect("is kept");
    has_changed("another school").await;
    let batch = place.lists().await.0[0].batch.clone();
    let to = batch::BatchFields { name: "Another name".into(), ..batch.fields };
    let change = Change { id: batch.id, version: batch.version, to };
    place.does(move |tx, who| batch::change(tx, who, change)).await.expect("changes");
    has_changed("a batch by another name").await;
}
