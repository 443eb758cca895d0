//! What a batch or a heap takes from stock, and gives back when it is undone.
//!
//! Only differences are written down: a heap that took its straw and is put right by
//! half a barrow moves half a barrow.

use std::collections::BTreeMap;

use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_store::held::Held;
use zymarch_store::id::{LotId, SiteId};
use zymarch_store::item::Item;
use zymarch_store::log::{self, About, Body, Moved, Taken, Taker};
use zymarch_store::lot;

use super::Known;
use crate::said::of_item;
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// Changes smaller than this are no changes.
const SOME: f64 = 1e-9;

/// How much of a lot somebody has, in its own unit, in litres and by weight.
#[derive(Debug, Clone, Copy, Default)]
struct Share {
    amount: f64,
    litres: f64,
    kg: f64,
}

impl Share {
    fn plus(self, other: Self, times: f64) -> Self {
        Self {
            amount: self.amount + other.amount * times,
            litres: self.litres + other.litres * times,
            kg: self.kg + other.kg * times,
        }
    }
}

/// A lot that somebody has something of.
struct Account {
    lot: lot::Lot,
    has: Share,
    is_to_have: Share,
}

/// Brings what a batch or heap has from stock to what `items` say it is to have.
/// None of them gives all of it back, even to lots removed since.
///
/// # Errors
/// Every item whose lot holds too little, unless what is there will do.
pub(crate) fn settle(
    tx: &mut Transaction<'_>,
    who: &Who,
    (taker, site): (Taker, SiteId),
    items: &[Item],
    what_is_there: bool,
) -> Result<(), Faults> {
    let accounts = accounts(tx, (taker, site), items, what_is_there)?;
    for (id, account) in accounts {
        let by = account.has.plus(account.is_to_have, -1.0);
        if by.amount.abs() < SOME {
            continue;
        }
        let held = account.lot.held.with_amount(by.amount);
        let moved = Moved { held, litres: by.litres, kg: by.kg, on: None, note: None };
        let body = Body::Taken(Taken { by: taker, moved });
        tx.write(who, Writing::now(site, About::Lot(id), body))?;
    }
    Ok(())
}

fn accounts(
    tx: &Transaction<'_>,
    (taker, site): (Taker, SiteId),
    items: &[Item],
    what_is_there: bool,
) -> Result<BTreeMap<LotId, Account>, Faults> {
    let known = Known::of(tx, site)?;
    let mut accounts: BTreeMap<LotId, Account> = BTreeMap::new();
    for (id, Taken { moved, .. }) in log::taken_by(tx.conn, taker)? {
        let account = match accounts.entry(id) {
            std::collections::btree_map::Entry::Occupied(entry) => entry.into_mut(),
            std::collections::btree_map::Entry::Vacant(entry) => {
                let lot = lot::ever(tx.conn, id)?;
                entry.insert(Account { lot, has: Share::default(), is_to_have: Share::default() })
            }
        };
        let own = account.lot.held;
        let amount = if own.unit() == moved.held.unit() {
            moved.held.amount()
        } else {
            in_unit_of(own, moved.litres, moved.kg, &known)
        };
        let took = Share { amount, litres: moved.litres, kg: moved.kg };
        account.has = account.has.plus(took, -1.0);
    }
    let (mut short, list) = (Vec::new(), At::ROOT.key("items"));
    for (place, part) in items.iter().enumerate() {
        // A lot that was removed since has nothing to take from.
        let Some(stocked) = part.lot.and_then(|id| lot::get(tx.conn, id).ok()) else { continue };
        let item = of_item(part, |noted| noted.item(tx.catalogue()))?;
        let (litres, kg) = (item.volume_l(), item.wet_mass_kg);
        let wanted = if part.held.unit() == stocked.held.unit() {
            part.held.amount()
        } else {
            in_unit_of(stocked.held, litres, kg, &known)
        };
        let account = accounts.entry(stocked.id).or_insert_with(|| Account {
            lot: stocked,
            has: Share::default(),
            is_to_have: Share::default(),
        });
        let left = account.lot.held.amount() + account.has.amount - account.is_to_have.amount;
        if wanted > left + 1e-6 && !what_is_there {
            let at = list.index(place);
            short.push(at.key("amount").fault(FaultCode::NotEnough).with("left", left.max(0.0)));
            continue;
        }
        let amount = wanted.min(left).max(0.0);
        let share = if wanted > 0.0 { amount / wanted } else { 0.0 };
        account.is_to_have =
            account.is_to_have.plus(Share { amount, litres: litres * share, kg: kg * share }, 1.0);
    }
    Faults::or(short, || accounts)
}

/// So much in the unit that a lot is counted in.
fn in_unit_of(held: Held, litres: f64, kg: f64, known: &Known<'_>) -> f64 {
    match held {
        Held::Kilograms { .. } => kg,
        Held::Litres { .. } => litres,
        Held::Measures { .. } => litres / known.litres_each(held).unwrap_or(1.0),
    }
}

/// That there is nothing taken that could be given back.
pub(crate) fn nothing_taken() -> Fault {
    Fault::new(FaultCode::NotFound).with("kind", "taken")
}
