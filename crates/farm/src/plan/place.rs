//! The place first: what a corner holds, and by when to build for a day on which compost is needed.

use jiff::ToSpan;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_core::plan::heap::{self, HeapSize};
use zymarch_core::plan::method::{self, Method};
use zymarch_core::plan::place as rule;
use zymarch_formats::layers::HeapShape;
use zymarch_store::method as store;

use crate::Transaction;

/// A corner of ground.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlaceRequest {
    /// One side, cm.
    length_cm: f64,
    /// The other, cm.
    width_cm: f64,
    /// The method it is for; a turned heap if it is left out.
    #[serde(default)]
    method: Option<String>,
    /// The day by which compost is needed.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = Date)]
    needed_by: Option<Date>,
}

/// What a corner holds.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlaceAnswer {
    /// Ways to lay it out.
    layouts: Vec<PlaceLayout>,
    /// Of each method, the latest day to build; the latest first. None if no day was asked for.
    methods: Vec<PlaceMethod>,
}

/// One way to lay it out.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlaceLayout {
    /// The heap.
    heap: HeapShape,
    /// How many are filled.
    heaps: u32,
    /// Where they stand, and the room to turn them.
    plots: Vec<PlacePlot>,
    /// What the filled ones hold together, settled, litres.
    volume_l: f64,
    /// Whether each is big enough to heat.
    size: HeapSize,
}

/// A piece of the ground, from its corner.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PlacePlot {
    /// Along, cm.
    x_cm: f64,
    /// Across, cm.
    y_cm: f64,
    /// How long, cm.
    length_cm: f64,
    /// How wide, cm.
    width_cm: f64,
    /// Whether it is kept free, to turn the heap into.
    is_free: bool,
}

/// A method, and by when to build.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlaceMethod {
    /// The method.
    id: String,
    /// Days until its compost is ready: if all goes fast, and as a rule.
    ready_days: [f64; 2],
    /// The latest day on which to build, as a rule.
    build_by: String,
    /// That day has passed; it is in time only if all goes fast, or not at all.
    is_late: bool,
    /// The same if all goes fast.
    at_the_latest: String,
    /// Even that has passed.
    is_too_late: bool,
}

/// What a corner holds, and by when to build.
///
/// # Errors
/// A side that is no ground, a method that is not known, a day too far away.
pub fn place(tx: &Transaction<'_>, request: &PlaceRequest) -> Result<PlaceAnswer, Faults> {
    let method = request
        .method
        .as_deref()
        .map(|id| {
            let known = tx.catalogue().method(id);
            known.ok_or_else(|| Faults::one("method", FaultCode::NoSuchMethod))
        })
        .transpose()?;
    let layouts = rule::layouts(request.length_cm, request.width_cm, method)?;
    let own = store::all(tx.conn)?;
    let methods = own.iter().map(|own| &own.method).chain(method::all());
    let mut by_day: Vec<PlaceMethod> = match request.needed_by {
        None => Vec::new(),
        Some(day) => methods
            .filter(|one| method.is_none_or(|chosen| chosen.id == one.id))
            .map(|one| of_method(one, day, tx.today))
            .collect(),
    };
    by_day.sort_by(|one, other| other.build_by.cmp(&one.build_by));
    let layout = |layout: &rule::Layout| {
        let each = layout.volume_l / f64::from(layout.heaps);
        let thinnest = layout.shape.least_side_cm().min(layout.shape.height_cm());
        PlaceLayout {
            heap: layout.shape.into(),
            heaps: layout.heaps,
            plots: layout.plots.iter().map(|plot| PlacePlot::from(*plot)).collect(),
            volume_l: layout.volume_l,
            size: heap::size(each, Some(thinnest), method),
        }
    };
    Ok(PlaceAnswer { layouts: layouts.iter().map(layout).collect(), methods: by_day })
}

fn of_method(method: &Method, needed_by: Date, today: Date) -> PlaceMethod {
    let (fast, usual) = rule::days_until_ready(method);
    let before = |days: f64| needed_by.saturating_sub((days.ceil() as i64).days());
    let (build_by, at_the_latest) = (before(usual), before(fast));
    PlaceMethod {
        id: method.id.clone(),
        ready_days: [fast, usual],
        build_by: build_by.to_string(),
        is_late: build_by < today,
        at_the_latest: at_the_latest.to_string(),
        is_too_late: at_the_latest < today,
    }
}

impl From<rule::Plot> for PlacePlot {
    fn from(rule::Plot { x_cm, y_cm, length_cm, width_cm, is_free }: rule::Plot) -> Self {
        Self { x_cm, y_cm, length_cm, width_cm, is_free }
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;

    #[test]
    fn the_latest_day_is_so_many_days_before_the_day_it_is_needed() {
        let bays = method::find("bay-turned").expect("listed");
        let (fast, usual) = rule::days_until_ready(bays);
        let got = of_method(bays, date(2026, 12, 31), date(2026, 3, 14));
        let back = |days: f64| date(2026, 12, 31).saturating_sub((days as i64).days()).to_string();
        assert_eq!((got.build_by, got.at_the_latest), (back(usual), back(fast)));
        assert!(!got.is_late);
        let soon = of_method(bays, date(2026, 3, 20), date(2026, 3, 14));
        assert!(soon.is_late && soon.is_too_late);
    }
}
