//! A simulated rod from the terminal: it plays the heat model of a document, with noise and faults on request,
//! and sends what it reads as a real one does; or prints it, to be sent by something else.

use std::io::Write as _;
use std::path::Path;
use std::time::Duration;

use clap::Args;
use jiff::{Span, Timestamp};
use zymarch_core::base::fault::{Fault, FaultCode};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::tend::simulated::{Rod, RodFault};
use zymarch_farm::tend;
use zymarch_farm::tend::simulated::{named, rod_says};
use zymarch_formats::heat::HeatRequest;
use zymarch_formats::senml::{MEDIA_TYPE, Record};

use super::{Failure, files};
use crate::words;

/// How a rod is played.
#[derive(Debug, Args)]
pub(super) struct Played {
    /// When the heap was built, RFC 3339; so many days ago as the document has if left out
    #[arg(long, value_name = "TIME")]
    built_at: Option<Timestamp>,
    /// Minutes from one reading to the next
    #[arg(long, default_value_t = 30, value_parser = clap::value_parser!(u32).range(5..=1440))]
    every: u32,
    /// Which of all rods that could be
    #[arg(long, default_value_t = 1)]
    seed: u64,
    /// What is wrong with it: stuck, dropped, spike, battery, clock
    #[arg(long, value_parser = fault)]
    fault: Option<RodFault>,
    /// From which day on that is wrong
    #[arg(long, default_value_t = 0.0)]
    fault_from_day: f64,
    /// Hours of the heap that pass in a second; all at once if left out
    #[arg(long)]
    speed: Option<f64>,
    /// Where to send it, as http://127.0.0.1:8420; it is printed if left out
    #[arg(long, value_name = "ADDRESS", requires = "token")]
    to: Option<String>,
    /// What the probe is known by there
    #[arg(long)]
    token: Option<String>,
}

fn fault(word: &str) -> Result<RodFault, String> {
    RodFault::parse(word).ok_or_else(|| {
        let fault = Fault::new(FaultCode::UnknownWord).with("got", word).with("known", RodFault::known());
        words::of_fault(&fault)
    })
}

/// Readings in a pack.
const IN_A_PACK: u64 = 200;

pub(super) fn play(file: &Path, played: &Played) -> Result<(), Failure> {
    let (document, hours) = files::reckoned(file, |book: &Catalogue, asked: &HeatRequest| {
        Ok((asked.clone(), tend::hours(book, asked)?))
    })?;
    let days = i64::from(document.days);
    let built = played.built_at.unwrap_or_else(|| Timestamp::now() - Span::new().hours(24 * days));
    let fault = played.fault.map(|fault| (fault, played.fault_from_day * 24.0));
    let rod = Rod { every_min: played.every, seed: played.seed, fault };
    let last = u64::from(document.days) * 24 * 60 / u64::from(played.every);
    let per_pack = played.speed.map_or(IN_A_PACK, |_| 1);
    let mut from = 0;
    while from <= last {
        let to = (from + per_pack - 1).min(last);
        let mut pack: Vec<Record> =
            (from..=to).flat_map(|number| rod_says(&hours, &rod, number, built.as_millisecond())).collect();
        named(&mut pack, "rod");
        if !pack.is_empty() {
            send(&pack, played)?;
        }
        if let Some(speed) = played.speed.filter(|speed| *speed > 0.0) {
            let hours = (to - from + 1) as f64 * f64::from(played.every) / 60.0;
            std::thread::sleep(Duration::from_secs_f64((hours / speed).min(86_400.0)));
        }
        from = to + 1;
    }
    Ok(())
}

fn send(pack: &[Record], played: &Played) -> Result<(), Failure> {
    let text = serde_json::to_string(pack).map_err(|error| Failure::other(&error))?;
    let (Some(to), Some(token)) = (&played.to, &played.token) else {
        return writeln!(std::io::stdout(), "{text}").map_err(|error| Failure::other(&error));
    };
    let sent = ureq::post(format!("{}/api/readings", to.trim_end_matches('/')))
        .header("authorization", format!("Bearer {token}"))
        .header("content-type", MEDIA_TYPE)
        .send(text);
    sent.map(drop).map_err(|error| {
        let fault = Fault::of("--to", FaultCode::NotSent).with("why", error.to_string());
        fault.into()
    })
}
