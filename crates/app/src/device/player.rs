//! Simulated devices that are played: what is due by the farm's clock is sent as a real device sends it, by the
//! same door. They stop with the server, when they are cut off, and when their heap is gone.

use std::time::{Duration, Instant};

use zymarch_core::base::fault::Faults;
use zymarch_core::tend::simulated::Rod;
use zymarch_farm::people::hash;
use zymarch_farm::tend::simulated::{rod_sends, station_sends};
use zymarch_formats::field;
use zymarch_formats::senml::Record;
use zymarch_store::id::{HeapId, ProbeId, SiteId};

use crate::state::App;

/// A device that is played.
#[derive(Debug)]
pub(crate) struct Playing {
    /// Where it sends to.
    pub(crate) app: App,
    /// What it is known by.
    pub(crate) token: String,
    /// Hours that are played a second; all at once if not said.
    pub(crate) speed: Option<f64>,
}

/// How often it is looked whether something is due: while it catches up, and once it has.
const CATCHES_UP: Duration = Duration::from_millis(100);
const GOES_ON: Duration = Duration::from_secs(10);

impl Playing {
    /// Plays a rod in a heap.
    pub(crate) fn rod(self, id: HeapId, rod: Rod) {
        tokio::spawn(async move {
            let (mut next, since) = (0, Instant::now());
            loop {
                let until_h = self.played_h(since);
                let due = self.app.gate.playing(move |tx| rod_sends(tx, (id, &rod, next, until_h))).await;
                let Ok((pack, after)) = due else { return };
                if !self.send(pack).await {
                    return;
                }
                self.pause(after > next).await;
                next = after;
            }
        });
    }

    /// Plays a weather station at a site, from an hour since 1970 on.
    pub(crate) fn station(self, id: SiteId, probe: ProbeId, from: i64) {
        tokio::spawn(async move {
            let (mut next, since) = (from, Instant::now());
            loop {
                let until = from.saturating_add(self.played_h(since).min(1e12) as i64);
                let due = self.app.gate.playing(move |tx| station_sends(tx, (id, probe, next, until))).await;
                let Ok((pack, after)) = due else { return };
                if !self.send(pack).await {
                    return;
                }
                self.pause(after > next).await;
                next = after;
            }
        });
    }

    /// How many hours were played by now.
    fn played_h(&self, since: Instant) -> f64 {
        self.speed.map_or(f64::INFINITY, |speed| since.elapsed().as_secs_f64() * speed)
    }

    async fn pause(&self, is_under_way: bool) {
        match (self.speed, is_under_way) {
            (None, true) => {}
            (None, false) => tokio::time::sleep(GOES_ON).await,
            (Some(_), _) => tokio::time::sleep(CATCHES_UP).await,
        }
    }

    /// Sends a pack as a device does; whether it may send on.
    async fn send(&self, pack: Vec<Record>) -> bool {
        if pack.is_empty() {
            return true;
        }
        let sent = async {
            let text = serde_json::to_string(&pack).unwrap_or_default();
            let read: Vec<Record> = field::read(&text)?;
            self.app.gate.report(hash(&self.token), read).await
        };
        let sent: Result<_, Faults> = sent.await;
        sent.is_ok()
    }
}
