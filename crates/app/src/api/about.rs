//! What this is and what time it has.

use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::limits::{Limits, limits as all_limits};
use zymarch_farm::people::{self, Me};
use zymarch_farm::stock::lot::Lot;
use zymarch_farm::stock::material::{self, Named};
use zymarch_farm::stock::measure::{self, Measure};
use zymarch_farm::stock::on_hand::stock;
use zymarch_farm::stock::site::{self, Site};

use crate::http::asking::Asking;
use crate::http::body::Question;
use crate::http::problem::Refusals;
use crate::state::{Answer, App};

/// What this is.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct About {
    /// Version of the program.
    version: &'static str,
    /// The time it reckons with, RFC 3339.
    now: String,
    /// The day it reckons with, as 2026-03-14.
    today: String,
    /// Whether its clock stands still, as in a demonstration.
    stands_still: bool,
    /// Whether the farm is the made-up one.
    demo: bool,
}

impl About {
    fn of(app: &App) -> Self {
        let (now, today) = app.gate.now();
        Self {
            version: env!("CARGO_PKG_VERSION"),
            now: now.to_string(),
            today: today.to_string(),
            stands_still: app.gate.stands_still(),
            demo: app.demo,
        }
    }
}

/// Which site a page opens.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(super) struct Opened {
    /// The site that was open last; another is taken if it is no longer there.
    #[serde(default)]
    site: Option<String>,
}

/// What every page leans on: one answer in place of six, so that a page with a poor connection
/// waits once.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Start {
    /// What this is and what time it has.
    about: About,
    /// Who asks, and what they may.
    me: Me,
    /// What may be written where.
    limits: Limits,
    /// The sites.
    sites: Vec<Site>,
    /// What the materials are called.
    names: Vec<Named>,
    /// The site that is open, with what is on it; none if there is none.
    open: Option<Open>,
}

/// A site with its containers and its stock.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Open {
    /// Which.
    site: Site,
    /// Its containers.
    measures: Vec<Measure>,
    /// Its stock.
    lots: Vec<Lot>,
}

/// What this is and what time it has
#[utoipa::path(get, operation_id = "about_about", tag = "about", path = "/api/about", responses((status = 200, body = About), Refusals))]
pub(super) async fn about(asking: Asking) -> Answer<About> {
    let about = About::of(&asking.app);
    asking.ask(Deed::Look.anywhere(), |_, _| Ok(about)).await
}

/// What may be written where, for forms
#[utoipa::path(get, operation_id = "about_limits", tag = "about", path = "/api/limits", responses((status = 200, body = Limits), Refusals))]
pub(super) async fn limits(asking: Asking) -> Answer<Limits> {
    asking.ask(Deed::Look.anywhere(), |_, _| Ok(all_limits())).await
}

/// What every page leans on, in one answer
#[utoipa::path(get, operation_id = "about_start", tag = "about", path = "/api/start", params(Opened), responses((status = 200, body = Start), Refusals))]
pub(super) async fn start(asking: Asking, Question(opened): Question<Opened>) -> Answer<Start> {
    let about = About::of(&asking.app);
    asking
        .ask(Deed::Look.anywhere(), move |tx, who| {
            let sites = site::seen_by(tx, who)?;
            let asked = opened.site.and_then(|id| sites.iter().find(|one| one.id.to_string() == id).cloned());
            let open = match asked.or_else(|| sites.last().cloned()) {
                Some(site) => {
                    let (measures, lots) = (measure::list(tx, site.id)?, stock(tx, site.id)?.lots.clone());
                    Some(Open { site, measures, lots })
                }
                None => None,
            };
            Ok(Start {
                about,
                me: people::me(tx, who)?,
                limits: all_limits(),
                sites,
                names: material::names(tx)?,
                open,
            })
        })
        .await
}
