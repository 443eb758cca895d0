//! Heaps and ways of one's own in a real SQLite file: acts come back in their
//! order, the last can be undone, and nothing is half written.

use tempfile::TempDir;
use zymarch_core::heap::Shape;
use zymarch_core::layers::Role;
use zymarch_core::method::own::Changes;
use zymarch_core::method::{self as ways, Method};
use zymarch_core::quantity::{Band, Fraction};
use zymarch_core::stock::Own;
use zymarch_store::heap::{self, Act, Heap, NewHeap, Step};
use zymarch_store::held::Held;
use zymarch_store::id::{HeapId, LotId, SiteId};
use zymarch_store::item::Item;
use zymarch_store::lot::{self, NewLot};
use zymarch_store::lot_event::{self, Change, EventKind, Taker};
use zymarch_store::site::{self, NewSite};
use zymarch_store::{Connection, Store, StoreError, method};

const NOW: &str = "2026-03-22T09:00:00Z";
const LATER: &str = "2026-03-22T09:40:00Z";

struct Farm {
    store: Store,
    site: SiteId,
    folder: TempDir,
}

async fn farm() -> Farm {
    let folder = TempDir::new().expect("a folder");
    let store = Store::open(&folder.path().join("farm.sqlite")).await.expect("opens");
    let site = store.write(|conn| site::insert(conn, &NewSite::named("Velluma Terraces"), NOW)).await;
    Farm { site: site.expect("writes").id, store, folder }
}

impl Farm {
    async fn write<T: Send + 'static>(
        &self,
        act: impl FnOnce(&Connection) -> Result<T, StoreError> + Send + 'static,
    ) -> Result<T, StoreError> {
        self.store.write(move |conn| act(conn)).await
    }

    async fn begun(&self) -> Heap {
        let site = self.site;
        self.write(move |conn| heap::insert(conn, site, &new(), &plan(), NOW)).await.expect("begins")
    }
}

fn item(material: &str, kg: f64) -> Item {
    Item {
        lot: None,
        material: material.into(),
        label: None,
        held: Held::Kilograms(kg),
        measure_litres: None,
        own: Own { moisture: Fraction::new(0.2).ok(), ..Own::default() },
        tests: Vec::new(),
    }
}

fn new() -> NewHeap {
    NewHeap {
        batch: None,
        name: "Terrace heap".into(),
        shape: Shape::Tower { diameter_cm: 180.0, height_cm: 150.0, columns: 3 },
        method: Some("static-tower".into()),
        items: vec![item("barley-straw", 40.0), item("sheep-manure", 80.0)],
    }
}

fn step(cycle: u32, portions: &[(u32, f64)]) -> Step {
    Step { role: Role::Mix, cycle: Some(cycle), portions: portions.to_vec(), water_l: 7.5, beside_l: 0.0 }
}

/// Twigs, then two loads of both.
fn plan() -> Vec<Step> {
    let twigs =
        Step { role: Role::Foundation, cycle: None, portions: Vec::new(), water_l: 0.0, beside_l: 120.0 };
    vec![twigs, step(1, &[(0, 20.0), (1, 40.0)]), step(2, &[(0, 20.0), (1, 40.0)])]
}

fn laid(at: u32, step: Step) -> Act {
    Act { is_laid: true, from_step: at, steps: vec![step], made_at: LATER.into() }
}

#[tokio::test]
async fn a_heap_is_read_back_as_it_was_begun_even_by_another_program() {
    let farm = farm().await;
    let heap = farm.begun().await;
    assert_eq!((heap.fields.clone(), heap.version, heap.taken_at.clone()), (new(), 1, None));
    assert_eq!(heap.acts, [Act { is_laid: false, from_step: 0, steps: plan(), made_at: NOW.into() }]);
    let Farm { store, site, folder } = farm;
    drop(store);
    let again = Store::open(&folder.path().join("farm.sqlite")).await.expect("opens again");
    assert_eq!(again.read(move |conn| heap::of_site(conn, site)).await.expect("reads"), [heap]);
}

#[tokio::test]
async fn acts_come_back_in_order_and_the_last_is_undone() {
    let farm = farm().await;
    let mut heap = farm.begun().await;
    let id = heap.id;
    let acts = [
        laid(0, plan()[0].clone()),
        laid(1, step(1, &[(0, 25.0), (2, 3.0)])),
        Act {
            is_laid: false,
            from_step: 2,
            steps: vec![step(2, &[(1, 30.0)]), step(3, &[(0, 1.0)])],
            made_at: LATER.into(),
        },
        Act { is_laid: false, from_step: 2, steps: Vec::new(), made_at: LATER.into() },
    ];
    for (place, act) in acts.clone().into_iter().enumerate() {
        let new_items = if place == 1 { vec![item("tree-leaves-dry", 0.0)] } else { Vec::new() };
        let version = heap.version;
        heap =
            farm.write(move |conn| heap::add_act(conn, id, version, &act, &new_items)).await.expect("acts");
    }
    assert_eq!(heap.acts[1..], acts);
    assert_eq!(heap.fields.items[2], item("tree-leaves-dry", 0.0));
    assert_eq!(heap.version, 5);
    for left in (0..4).rev() {
        let version = heap.version;
        heap = farm.write(move |conn| heap::undo(conn, id, version, LATER)).await.expect("undoes");
        assert_eq!(heap.acts.len(), left + 1);
    }
    let version = heap.version;
    let more = farm.write(move |conn| heap::undo(conn, id, version, LATER)).await;
    assert!(matches!(more, Err(StoreError::NotFound { .. })), "the plan it was begun by stays");
    let now = farm.store.read(move |conn| heap::get(conn, id)).await.expect("is there");
    assert_eq!(now.version, version, "what was refused was not half done");
}

#[tokio::test]
async fn an_act_on_what_has_changed_is_refused_whole() {
    let farm = farm().await;
    let heap = farm.begun().await;
    let id = heap.id;
    let act = || laid(0, plan()[0].clone());
    let ok = act();
    farm.write(move |conn| heap::add_act(conn, id, 1, &ok, &[])).await.expect("the first");
    let stale = act();
    let refused = farm.write(move |conn| heap::add_act(conn, id, 1, &stale, &[item("wood-ash", 1.0)])).await;
    assert!(matches!(refused, Err(StoreError::Stale { current: 2, given: 1, .. })), "{refused:?}");
    // A lot that is not there: the act, its items and the version go back together.
    let dangling = Item { lot: Some(LotId(99)), ..item("wood-ash", 1.0) };
    let act = act();
    let refused = farm.write(move |conn| heap::add_act(conn, id, 2, &act, &[dangling])).await;
    assert!(matches!(refused, Err(StoreError::DanglingReference)), "{refused:?}");
    let now = farm.store.read(move |conn| heap::get(conn, id)).await.expect("is there");
    assert_eq!((now.version, now.acts.len(), now.fields.items.len()), (2, 2, 2));
    let unknown = farm.write(|conn| heap::undo(conn, HeapId(7), 1, NOW)).await;
    assert!(matches!(unknown, Err(StoreError::NotFound { .. })));
}

#[tokio::test]
async fn a_heap_put_away_is_gone_until_it_is_brought_back() {
    let farm = farm().await;
    let (id, site) = (farm.begun().await.id, farm.site);
    farm.write(move |conn| heap::remove(conn, id, NOW)).await.expect("puts away");
    assert!(farm.store.read(move |conn| heap::get(conn, id)).await.is_err());
    assert!(farm.store.read(move |conn| heap::of_site(conn, site)).await.expect("reads").is_empty());
    assert!(farm.write(move |conn| heap::remove(conn, id, NOW)).await.is_err(), "once");
    for _ in 0..2 {
        let back = farm.write(move |conn| heap::restore(conn, id)).await.expect("brings back");
        assert_eq!(back.acts.len(), 1);
    }
}

#[tokio::test]
async fn what_a_heap_took_is_told_apart_from_what_others_took() {
    let farm = farm().await;
    let heap = farm.begun().await;
    let (id, site) = (heap.id, farm.site);
    let straw = NewLot {
        material: "barley-straw".into(),
        label: None,
        held: Held::Kilograms(100.0),
        own: Own::default(),
        gathered_on: None,
        price: None,
    };
    let events = farm
        .write(move |conn| {
            let lot = lot::insert(conn, site, &straw, NOW)?.id;
            let take =
                |taker, delta| Change { kind: EventKind::Batch, delta, litres: 0.0, taker, note: None };
            lot_event::change(conn, lot, &take(Some(Taker::Heap(id)), -30.0), NOW)?;
            lot_event::change(conn, lot, &take(None, -5.0), NOW)?;
            lot_event::of_taker(conn, Taker::Heap(id))
        })
        .await
        .expect("writes");
    assert_eq!(events.iter().map(|event| event.delta).collect::<Vec<_>>(), [-30.0]);
    assert_eq!(events[0].taker, Some(Taker::Heap(id)));
    let taken = farm.write(move |conn| heap::set_taken(conn, id, 1, Some(NOW))).await.expect("notes");
    assert_eq!(taken.taken_at.as_deref(), Some(NOW));
    let stale = farm.write(move |conn| heap::set_taken(conn, id, 1, None)).await;
    assert!(matches!(stale, Err(StoreError::Stale { .. })));
}

fn own_way(base: &str, id: &str, name: &str) -> Method {
    let base = ways::find(base).expect("listed");
    let mut changes = Changes::of(base);
    changes.c_n = Band::new(22.5, 37.25).expect("in order");
    changes.applied(base, id, name).expect("can be")
}

#[tokio::test]
async fn every_way_copied_is_read_back_as_it_was_written() {
    let farm = farm().await;
    for base in ways::all() {
        let way = own_way(&base.id, &format!("my-{}", base.id), &format!("My {}", base.id));
        let written = way.clone();
        let read = farm.write(move |conn| method::insert(conn, &written, NOW)).await.expect("writes");
        assert_eq!((read.method, read.version), (way, 1));
    }
    let all = farm.store.read(|conn| method::all(conn)).await.expect("reads");
    assert_eq!(all.len(), ways::all().len());
}

#[tokio::test]
async fn a_way_is_changed_at_its_version_removed_and_brought_back() {
    let farm = farm().await;
    let insert = |id: &'static str, name: &'static str| {
        farm.write(move |conn| method::insert(conn, &own_way("slow-bin", id, name), NOW))
    };
    insert("corner-bin", "Corner bin").await.expect("writes");
    let again = insert("corner-bin-2", "Corner bin").await;
    assert!(matches!(again, Err(StoreError::NameTaken { kind: "way", .. })), "{again:?}");
    let renamed = own_way("slow-bin", "corner-bin", "Bin by the door");
    let update = |version| {
        let renamed = renamed.clone();
        farm.write(move |conn| method::update(conn, version, &renamed, LATER))
    };
    assert_eq!(update(1).await.expect("changes").version, 2);
    assert!(matches!(update(1).await, Err(StoreError::Stale { current: 2, given: 1, .. })));

    farm.write(|conn| method::remove(conn, "corner-bin", NOW)).await.expect("removes");
    assert!(farm.store.read(|conn| method::get(conn, "corner-bin")).await.is_err());
    assert!(matches!(update(3).await, Err(StoreError::NotFound { .. })));
    let ever = farm.store.read(|conn| method::ever(conn)).await.expect("reads");
    assert_eq!(ever.len(), 1, "batches may still name it");
    insert("other-bin", "Bin by the door").await.expect("its name is free");
    let taken = farm.write(|conn| method::restore(conn, "corner-bin")).await;
    assert!(matches!(taken, Err(StoreError::NameTaken { .. })), "{taken:?}");
    farm.write(|conn| method::remove(conn, "other-bin", NOW)).await.expect("removes");
    assert_eq!(farm.write(|conn| method::restore(conn, "corner-bin")).await.expect("back").method, renamed);
}
