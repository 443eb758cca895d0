//! What a batch or a heap takes from stock, and gives back when it is undone.

use zymarch_formats::field::{FieldError, Refusal};
use zymarch_store::Connection;
use zymarch_store::held::{self, Held};
use zymarch_store::id::LotId;
use zymarch_store::item::Item;
use zymarch_store::lot;
use zymarch_store::lot_event::{self, Change, EventKind, Taker};

use super::lot::Beside;
use super::part::said_of;
use crate::http::problem::ApiError;
use crate::state::App;

/// Takes the amounts of items from their lots.
///
/// # Errors
/// A refusal that names every item whose lot holds too little, unless what is
/// there will do.
pub(super) fn take(
    conn: &Connection,
    taker: Taker,
    items: &[Item],
    what_is_there: bool,
    state: &App,
) -> Result<(), ApiError> {
    let (catalogue, now) = (state.catalogue(), state.clock.now());
    let mut short = Vec::new();
    for (place, part) in items.iter().enumerate() {
        // A lot that was removed since has nothing to take from.
        let Some(stocked) = part.lot.and_then(|id| lot::get(conn, id).ok()) else { continue };
        let site = lot::site_of(conn, stocked.id)?;
        let beside = Beside::read(conn, site, &catalogue, state.clock.today())?;
        let item = said_of(part, |said| said.resolve(&catalogue, ""))?;
        let litres = item.volume_l();
        let wanted = if part.held.is_alike(stocked.fields.held) {
            part.held.amount()
        } else {
            match stocked.fields.held {
                Held::Kilograms(_) => item.wet_mass_kg,
                Held::Litres(_) => litres,
                held @ Held::Measures { .. } => litres / beside.litres_each(held).unwrap_or(1.0),
            }
        };
        let left = stocked.fields.held.amount();
        if wanted > left + 1e-6 && !what_is_there {
            short.push(FieldError::new(
                format!("items[{place}].amount"),
                format!("asks for more than the {left} left"),
            ));
            continue;
        }
        let taken = wanted.min(left);
        let change = Change {
            kind: EventKind::Batch,
            delta: -taken,
            litres: if wanted > 0.0 { -litres * taken / wanted } else { 0.0 },
            taker: Some(taker),
            note: None,
        };
        lot_event::change(conn, stocked.id, &change, &now)?;
    }
    if short.is_empty() { Ok(()) } else { Err(Refusal { errors: short }.into()) }
}

/// Gives back what a batch or heap still has from each lot, even to one removed since.
pub(super) fn give_back(conn: &Connection, taker: Taker, state: &App) -> Result<(), ApiError> {
    let (catalogue, now) = (state.catalogue(), state.clock.now());
    let events = lot_event::of_taker(conn, taker)?;
    let mut lots: Vec<LotId> = events.iter().map(|event| event.lot).collect();
    lots.sort_unstable();
    lots.dedup();
    for lot_id in lots {
        let of_lot = || events.iter().filter(move |event| event.lot == lot_id);
        let litres: f64 = of_lot().map(|event| event.litres).sum();
        let held = held::of_lot(conn, lot_id)?;
        let delta: f64 = if of_lot().all(|event| event.left.is_alike(held)) {
            of_lot().map(|event| event.delta).sum()
        } else {
            let beside = Beside::read(conn, lot::site_of(conn, lot_id)?, &catalogue, state.clock.today())?;
            match held {
                Held::Litres(_) => litres,
                Held::Measures { .. } => litres / beside.litres_each(held).unwrap_or(1.0),
                Held::Kilograms(_) => {
                    let density = lot::get(conn, lot_id)
                        .ok()
                        .and_then(|lot| beside.item(&lot).ok())
                        .map_or(1.0, |item| item.figures.density_kg_l.value);
                    litres * density
                }
            }
        };
        if delta.abs() < 1e-9 {
            continue;
        }
        let change = Change {
            kind: EventKind::GiveBack,
            delta: -delta,
            litres: -litres,
            taker: Some(taker),
            note: None,
        };
        lot_event::change(conn, lot_id, &change, &now)?;
    }
    Ok(())
}
