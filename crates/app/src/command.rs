//! What can be called from a terminal.
//!
//! Exit 0 with the answer on standard output; exit 2 with a plain reason on
//! standard error when the input is at fault, exit 1 when something else is.

mod files;
mod lean;
mod people;
mod probe;
mod reach;
mod serve;
mod signals;

use std::path::PathBuf;
use std::process::ExitCode;

use clap::{Args, Parser, Subcommand};
use zymarch_core::base::fault::{Fault, FaultClass, Faults};
use zymarch_core::mix::confidence::KeptDraws;
use zymarch_farm::clock::Clock;
use zymarch_farm::{finish, mix, plan, tend};

use self::reach::Reach;
use crate::words;

/// Formulates compost batches from what a smallholding has on hand.
#[derive(Debug, Parser)]
#[command(name = "zymarch", version, about)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Sum a recipe: C:N, moisture, volume, air, water to add
    Mix {
        /// A zymarch-recipe/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Show how every figure of a recipe comes about
    Working {
        /// A zymarch-recipe/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Show how sure the sums of a recipe are, since book figures are ranges
    Confidence {
        /// A zymarch-recipe/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Find what to add to a mix to bring it to the middle
    Correct {
        /// A zymarch-correct/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Read stock said in a sentence, as "4 barrows of straw and a bucket of scraps"
    Read {
        /// A zymarch-say/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Find what a rule of thumb really gives
    Thumb {
        /// A zymarch-thumb/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Reckon the heat that a heap of this make should have
    Heat {
        /// A zymarch-heat/1 file, or `-` for standard input
        file: PathBuf,
        /// Tell each hour, and not each day alone
        #[arg(long)]
        hourly: bool,
    },
    /// Tell what the heat that was recorded of a heap shows
    Hygiene {
        /// A zymarch-hygiene/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Find what is wrong with a heap as it was built and logged
    Diagnose {
        /// A zymarch-diagnose/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Reckon how much compost a use needs, and how far what there is goes
    Apply {
        /// A zymarch-apply/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Play a simulated rod in a heap: it sends what the heat model expects, with noise
    Probe {
        /// A zymarch-heat/1 file, or `-` for standard input
        file: PathBuf,
        #[command(flatten)]
        played: probe::Played,
    },
    /// Find the best mix that a stock allows
    Formulate {
        /// A zymarch-formulate/1 file, or `-` for standard input
        file: PathBuf,
    },
    /// Serve the farm kept in a data file to a browser on this machine
    Serve {
        /// The data file; made if it is missing
        #[arg(long, value_name = "FILE", default_value = "zymarch.sqlite")]
        data: PathBuf,
        #[command(flatten)]
        at: At,
    },
    /// Serve the made-up demo farm, from a data file of its own
    Demo {
        /// The data file of the demo
        #[arg(long, value_name = "FILE", default_value = "zymarch-demo.sqlite")]
        data: PathBuf,
        /// Keep what an earlier demo wrote instead of starting fresh
        #[arg(long)]
        keep: bool,
        #[command(flatten)]
        at: At,
    },
    /// Add a farm from a data package (a folder with datapackage.json)
    Import {
        /// The folder
        folder: PathBuf,
        /// The data file; made if it is missing
        #[arg(long, value_name = "FILE", default_value = "zymarch.sqlite")]
        data: PathBuf,
    },
    /// Copy a data file, also while it is served
    Backup {
        /// The data file
        data: PathBuf,
        /// The copy; there must be nothing yet
        to: PathBuf,
    },
    /// Make anew from the log all that stands in a data file, and compare
    Check {
        /// The data file; it is only read
        data: PathBuf,
    },
    /// See and change who is let in, on the machine itself; also while it is served
    People {
        /// The data file
        #[arg(long, value_name = "FILE", default_value = "zymarch.sqlite", global = true)]
        data: PathBuf,
        #[command(subcommand)]
        does: people::Does,
    },
    /// Print the description of the HTTP API
    Openapi,
    /// Print the JSON Schema of an open format
    Schema {
        /// Name and version, as zymarch-recipe/1
        format: String,
    },
}

#[derive(Debug, Args)]
struct At {
    /// Port on 127.0.0.1; 0 takes a free one
    #[arg(long, default_value_t = 8420)]
    port: u16,
    /// Address to listen on; only this machine's own are allowed, but with --lan or --behind-proxy
    #[arg(long)]
    bind: Option<std::net::IpAddr>,
    /// Let in phones of the local network, sealed, once there is an owner
    #[arg(long, conflicts_with = "behind_proxy")]
    lan: bool,
    /// A name that this machine has there, beside those it finds itself; may be given several times
    #[arg(long, value_name = "NAME", requires = "lan")]
    name: Vec<String>,
    /// A certificate to seal with, as a PEM file; one of its own is made if none is given
    #[arg(long, value_name = "FILE", requires_all = ["lan", "tls_key"])]
    tls_cert: Option<PathBuf>,
    /// The key of that certificate, as a PEM file
    #[arg(long, value_name = "FILE", requires = "tls_cert")]
    tls_key: Option<PathBuf>,
    /// The public address of a proxy that stands before it, as https://compost.example
    #[arg(long, value_name = "ADDRESS")]
    behind_proxy: Option<String>,
    /// Fix the clock, as 2026-03-14T08:00
    #[arg(long, value_name = "TIME", value_parser = time)]
    now: Option<Clock>,
}

impl At {
    fn reach(&self) -> Result<Reach, Failure> {
        Ok(Reach::of(self)?)
    }

    fn clock(&self) -> Clock {
        self.now.unwrap_or(Clock::Real)
    }
}

/// Why a command failed.
#[derive(Debug)]
pub(crate) enum Failure {
    /// The input is at fault: exit 2.
    Input(String),
    /// Something else is: exit 1.
    Other(String),
}

impl Failure {
    fn other(error: &dyn std::fmt::Display) -> Self {
        Self::Other(error.to_string())
    }
}

impl From<Fault> for Failure {
    fn from(fault: Fault) -> Self {
        Faults::from(fault).into()
    }
}

impl From<Faults> for Failure {
    fn from(faults: Faults) -> Self {
        let is_broken =
            faults.0.iter().any(|fault| matches!(fault.code.class(), FaultClass::Broken | FaultClass::Busy));
        let said = words::all(&faults);
        if is_broken { Self::Other(said) } else { Self::Input(said) }
    }
}

fn time(text: &str) -> Result<Clock, String> {
    text.parse::<Clock>().map_err(|fault| words::of_fault(&fault))
}

/// Reads the command line and does what it says.
#[must_use]
pub fn run() -> ExitCode {
    let command = Cli::parse().command;
    if matches!(command, Command::Serve { .. } | Command::Demo { .. }) {
        lean::begin();
    }
    let done = match command {
        Command::Mix { file } => files::answer(&file, mix::sum),
        Command::Working { file } => files::answer(&file, mix::working),
        Command::Confidence { file } => files::answer(&file, mix::confidence),
        Command::Correct { file } => files::answer(&file, mix::correct),
        Command::Read { file } => files::answer(&file, mix::say),
        Command::Thumb { file } => files::answer(&file, mix::thumb),
        Command::Heat { file, hourly } => files::answer(&file, |book, asked| tend::heat(book, asked, hourly)),
        Command::Hygiene { file } => files::answer(&file, tend::hygiene),
        Command::Diagnose { file } => files::answer(&file, tend::diagnose),
        Command::Apply { file } => files::answer(&file, finish::apply),
        Command::Probe { file, played } => probe::play(&file, &played),
        Command::Formulate { file } => {
            files::answer(&file, |book, asked| plan::formulate(book, &KeptDraws::default(), asked))
        }
        Command::Serve { data, at } => at.reach().and_then(|reach| serve::serve(&data, reach, at.clock())),
        Command::Demo { data, keep, at } => {
            at.reach().and_then(|reach| serve::demo(&data, keep, reach, at.clock()))
        }
        Command::People { data, does } => people::run(&data, does),
        Command::Import { folder, data } => serve::import(&folder, &data, Clock::Real),
        Command::Backup { data, to } => serve::backup(&data, &to),
        Command::Check { data } => serve::check(&data),
        Command::Openapi => files::openapi(),
        Command::Schema { format } => files::schema(&format),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(Failure::Input(reason)) => complain(&reason, 2),
        Err(Failure::Other(reason)) => complain(&reason, 1),
    }
}

fn complain(reason: &str, code: u8) -> ExitCode {
    eprintln!("{reason}");
    ExitCode::from(code)
}
