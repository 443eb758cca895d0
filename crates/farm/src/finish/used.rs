//! Compost that goes somewhere: how much, where, for what, and what is to be kept to there.

use jiff::Timestamp;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::finish::apply::{self, Use};
use zymarch_core::finish::lab::LabFigure;
use zymarch_core::finish::restrict::{Crop, Restriction, Shown, restrictions};
use zymarch_store::compost::{self, Compost, Went};
use zymarch_store::ground::{self, Ground};
use zymarch_store::id::{CompostId, EntryId, GroundId};
use zymarch_store::log::{About, Applied, Body};
use zymarch_store::rule;

use super::holds::{FigureTold, Lookup};
use crate::tend::strip::day_of;
use crate::transaction::{Writing, at_text};
use crate::words;
use crate::{Transaction, Who};

/// Compost that goes somewhere.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UseRequest {
    /// Its id, if whoever writes it gives one; sent twice it goes once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// Where, if that is a place that is written down.
    #[serde(default)]
    pub ground: Option<GroundId>,
    /// For what.
    #[serde(rename = "use")]
    pub used: Use,
    /// When, if not just now, RFC 3339.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = DateTime)]
    pub at: Option<Timestamp>,
    /// The person's words.
    #[serde(default)]
    pub note: Option<String>,
}

/// Something to be kept to.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KeptTo {
    /// What.
    pub what: Restriction,
    /// Days from the use on.
    pub days: Option<u16>,
    /// The day it ends.
    pub until: Option<String>,
}

/// Compost that went somewhere.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct UseTold {
    /// Its entry.
    pub id: EntryId,
    /// When, RFC 3339.
    pub at: String,
    /// Which compost.
    pub compost: CompostId,
    /// What that is called.
    pub compost_name: String,
    /// Where.
    pub ground: Option<GroundId>,
    /// What that is called.
    pub ground_name: Option<String>,
    /// For what.
    #[serde(rename = "use")]
    pub used: Use,
    /// How much, litres.
    pub litres: f64,
    /// The same, kg.
    pub kg: f64,
    /// Nitrogen in it, kg, as far as it is known.
    pub n_kg: Option<f64>,
    /// Whether the heap was shown hot, as far as was recorded.
    pub shown_hot: bool,
    /// What is to be kept to.
    pub restrictions: Vec<KeptTo>,
    /// The person's words.
    pub note: Option<String>,
}

fn figure(all: &[FigureTold], figure: LabFigure) -> Option<f64> {
    all.iter().find(|one| one.figure == figure).map(|one| one.value)
}

/// Compost as a use takes it.
fn as_compost(of: &Compost, holds: &[FigureTold]) -> apply::Compost {
    let share = |wanted| figure(holds, wanted).map(|percent| percent / 100.0);
    apply::Compost {
        density_kg_l: of.density_kg_l,
        moisture: share(LabFigure::Moisture).unwrap_or(of.moisture),
        nitrogen: share(LabFigure::Nitrogen),
        phosphorus: share(LabFigure::Phosphorus),
        potassium: share(LabFigure::Potassium),
        litres: Some(of.litres),
        ec_ds_m: figure(holds, LabFigure::Salts),
    }
}

/// Compost that went somewhere, as it is told.
pub(super) fn told(lookup: &Lookup<'_, '_>, went: Went) -> Result<UseTold, Faults> {
    let (tx, held) = (lookup.tx, lookup.of(went.compost)?);
    let place = went.applied.ground.map(|id| ground::ever(tx.conn, id)).transpose()?;
    let there = as_compost(&held.of, &held.holds);
    let n_kg = there.nitrogen.map(|share| went.applied.kg * (1.0 - there.moisture) * share);
    let shown = held.shown;
    let wait_days = rule::of(tx.conn, held.of.site)?.local.wait_days();
    let on = day_of(tx, went.at_ms);
    let restrictions = match &place {
        Some(place) => kept_to(place, &went.applied.used, (shown, on), wait_days),
        None => Vec::new(),
    };
    Ok(UseTold {
        id: went.id,
        at: at_text(went.at_ms),
        compost: held.of.id,
        compost_name: held.of.name.clone(),
        ground: went.applied.ground,
        ground_name: place.map(|place| place.fields.name),
        used: went.applied.used,
        litres: went.applied.litres,
        kg: went.applied.kg,
        n_kg,
        shown_hot: shown.hot,
        restrictions,
        note: went.applied.note,
    })
}

/// What is to be kept to at a place, from a day on.
fn kept_to(place: &Ground, of: &Use, (shown, on): (Shown, Date), wait_days: [u16; 2]) -> Vec<KeptTo> {
    let harvest = place.fields.harvest_on.as_deref().and_then(|day| day.parse::<Date>().ok());
    let days = harvest.and_then(|day| on.until(day).ok()).map(|span| i64::from(span.get_days()));
    let crop = Crop {
        kind: place.fields.kind,
        touches_soil: place.fields.touches_soil,
        is_eaten_raw: place.fields.is_eaten_raw,
        // A harvest before it went there is that of the last crop.
        harvest_in_days: days.filter(|days| *days >= 0),
    };
    let kept = restrictions(crop, of, shown, wait_days).into_iter();
    kept.map(|one| KeptTo {
        what: one.what,
        days: one.days,
        until: one.days.map(|days| on.saturating_add(jiff::Span::new().days(i64::from(days))).to_string()),
    })
    .collect()
}

/// Writes down that compost went somewhere.
///
/// # Errors
/// Every field that cannot be; more than there is; a place of another site; an id that is taken.
pub fn note(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, request): (CompostId, UseRequest),
) -> Result<EntryId, Faults> {
    let of = compost::get(tx.conn, id)?;
    // Sent again it stands, though its place is gone or little is left by now.
    let is_same = |known: &Body| matches!(known, Body::Applied(one) if one.used == request.used && one.ground == request.ground);
    if let Some(sent) = tx.was_sent(request.entry, About::Compost(id), is_same)? {
        return Ok(sent);
    }
    let mut found = request.used.faults(&At::ROOT.key("use"));
    if let Some(place) = request.ground
        && !ground::get(tx.conn, place).is_ok_and(|place| place.site == of.site)
    {
        found.push(Fault::of("ground", FaultCode::NoSuchGround));
    }
    let at_ms = request.at.map(Timestamp::as_millisecond);
    if at_ms.is_some_and(|at| at > tx.now.as_millisecond()) {
        found.push(Fault::of("at", FaultCode::InFuture));
    }
    if at_ms.is_some_and(|at| at < of.harvested_ms) {
        let begun = at_text(of.harvested_ms);
        found.push(Fault::of("at", FaultCode::BeforeBegun).with("begun", begun));
    }
    let note = words::label("note", request.note.as_deref()).map_err(|fault| found.push(fault));
    let (Ok(note), true) = (note, found.is_empty()) else { return Err(Faults(found)) };
    let there = as_compost(&of, &[]);
    let needs = apply::applied(&there, &request.used, apply::N_LIMIT_KG_HA);
    if needs.enough == Some(false) {
        let at = At::ROOT.key("use");
        return Err(at.fault(FaultCode::NotEnough).with("left", of.litres.round()).into());
    }
    let (litres, kg) = (needs.need_l.min(of.litres), needs.need_kg);
    let body = Body::Applied(Applied { ground: request.ground, used: request.used, litres, kg, note });
    let writing =
        Writing { id: request.entry, at: request.at, ..Writing::now(of.site, About::Compost(id), body) };
    let (entry, _) = tx.write(who, writing)?;
    Ok(entry)
}
