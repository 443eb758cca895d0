//! The weather of a site, as it was written down there: its air and its rain.

use zymarch_core::base::fault::Faults;
use zymarch_core::tend::entry::{Spot, Tended};
use zymarch_core::tend::reading::faulty;
use zymarch_store::id::SiteId;
use zymarch_store::log::{self, About, Body, Entry};

use super::series::of_entries;
use crate::Transaction;

/// What was written down of a site's weather.
#[derive(Debug, Default)]
pub(super) struct Weather {
    /// The air: when [ms], how warm [°C]; in order.
    pub(super) air: Vec<(i64, f64)>,
    /// Rain: when it began [ms], and what was written.
    pub(super) rain: Vec<(i64, Tended<()>)>,
}

/// The weather of a site.
pub(super) fn of(tx: &Transaction<'_>, site: SiteId) -> Result<Weather, Faults> {
    let entries = log::those_that_stand(log::of(tx.conn, About::Site(site))?);
    let (mut readings, _) = of_entries(tx, About::Site(site), &entries)?;
    readings.sort_by_key(|reading| reading.at_ms);
    let faults = faulty(&readings, i64::MIN / 2);
    let good = readings.iter().zip(faults).filter(|(of, fault)| of.place == Spot::Air && fault.is_none());
    let air = good.map(|(of, _)| (of.at_ms, of.temp_c)).collect();
    Ok(Weather { air, rain: entries.iter().filter_map(rain).collect() })
}

fn rain(entry: &Entry) -> Option<(i64, Tended<()>)> {
    match &entry.body {
        Body::Tended(of) => match of.what {
            Tended::Rain { mm, hours } => Some((entry.at_ms, Tended::Rain { mm, hours })),
            _ => None,
        },
        _ => None,
    }
}
