//! Who is let in, seen and changed on the machine itself: the way back in for whoever lost theirs.

use std::path::Path;

use clap::Subcommand;
use zymarch_core::base::fault::{Fault, FaultCode};
use zymarch_core::people::Role;
use zymarch_farm::access::Caller;
use zymarch_farm::clock::Clock;
use zymarch_farm::command::Remove;
use zymarch_farm::people::{self, CodeMade, Person, PersonFields};
use zymarch_farm::stock::site;
use zymarch_farm::{Farm, Who};
use zymarch_store::id::SiteId;
use zymarch_store::{Found, Lock, Store, look};

use super::Failure;
use super::serve::{run as in_a_runtime, unopened};
use crate::words::said;

/// What the machine itself is called where it writes something down.
const PROGRAM: &str = "zymarch people";

#[derive(Debug, Subcommand)]
pub(crate) enum Does {
    /// List who there is, and their devices
    List,
    /// Write somebody down, and make a code that lets them in
    Add {
        /// What they are called
        name: String,
        /// owner, trainer, worker or guest
        #[arg(long, default_value = "owner", value_parser = role)]
        role: Role,
        /// A site that they are given, by its name; all if none is named
        #[arg(long, value_name = "NAME")]
        site: Vec<String>,
    },
    /// Make a code that lets somebody in again
    Code {
        /// What they are called
        name: String,
    },
    /// Cut off all devices of somebody
    CutOff {
        /// What they are called
        name: String,
    },
    /// Take somebody off the list
    Remove {
        /// What they are called
        name: String,
    },
    /// List what was noted of comings and goings, newest first
    Log,
}

fn role(word: &str) -> Result<Role, String> {
    Role::parse(word).ok_or_else(|| {
        let fault = Fault::new(FaultCode::UnknownWord).with("got", word).with("known", Role::known());
        crate::words::of_fault(&fault)
    })
}

pub(super) fn run(data: &Path, does: Does) -> Result<(), Failure> {
    in_a_runtime(async move {
        // While it is served the file is up to date, and is written to beside the server; otherwise nobody
        // else begins meanwhile.
        let found = look(data).map_err(|error| unopened(&error))?;
        let lock = match (Lock::take(data), found) {
            (Ok(lock), Found::Ours { .. }) => Some(lock),
            (Err(_), Found::Ours { pending: 0, .. }) => None,
            (Err(error), _) => return Err(unopened(&error)),
            (Ok(_), Found::Nothing) => {
                return Err(Fault::of("--data", FaultCode::FileUnread).with("why", "nothing there").into());
            }
        };
        let opened = match &lock {
            Some(_) => Store::open(data).await,
            None => Store::open_beside(data).await,
        };
        let store = opened.map_err(|error| unopened(&error))?;
        let farm = Farm::new(store.clone(), Clock::Real);
        let done = done(&farm, does).await;
        store.close().await;
        drop(lock);
        for line in done? {
            println!("{line}");
        }
        Ok(())
    })
}

async fn done(farm: &Farm, does: Does) -> Result<Vec<String>, Failure> {
    let (who, caller) = (Who::local(PROGRAM), Caller { device: PROGRAM.into(), ..Caller::default() });
    Ok(match does {
        Does::List => farm.ask(move |tx| people::list(tx, &who)).await?.iter().flat_map(listed).collect(),
        Does::Add { name, role, site } => {
            let made = farm.act(move |tx| {
                let all = site::list(tx)?;
                let named = |name: &String| {
                    let found = all.iter().find(|one| one.fields.name.to_lowercase() == name.to_lowercase());
                    found.map(|one| one.id).ok_or_else(|| Fault::of("--site", FaultCode::NoSuchSite))
                };
                let sites: Vec<SiteId> = if site.is_empty() {
                    all.iter().map(|one| one.id).collect()
                } else {
                    site.iter().map(named).collect::<Result<_, _>>()?
                };
                people::add(tx, &who, (&caller, PersonFields { name, role, sites }))
            });
            let made = made.await?;
            vec![told(&made.person.fields.name, &made.code)]
        }
        Does::Code { name } => {
            let asked = name.clone();
            let made = farm.act(move |tx| {
                let id = people::named(tx, &asked)?;
                people::make_code(tx, &who, &caller, id)
            });
            vec![told(&name, &made.await?)]
        }
        Does::CutOff { name } => {
            let asked = name.clone();
            let count = farm.act(move |tx| {
                let id = people::named(tx, &asked)?;
                people::cut_off_all(tx, &who, (&caller, id))
            });
            vec![said("cutOffAll", &[("name", &name), ("count", &count.await?.to_string())])]
        }
        Does::Remove { name } => {
            let asked = name.clone();
            let gone = farm.act(move |tx| {
                let id = people::named(tx, &asked)?;
                people::remove(tx, &who, (&caller, Remove(id)))
            });
            gone.await?;
            vec![said("personRemoved", &[("name", &name)])]
        }
        Does::Log => {
            let entry = |one: people::SecurityEntry| {
                let told = [one.at, one.kind.as_str().to_owned()];
                let who = [one.who, one.about].into_iter().flatten();
                let whence = [one.device, one.address].into_iter().filter(|text| !text.is_empty());
                told.into_iter().chain(who).chain(whence).collect::<Vec<_>>().join("  ")
            };
            farm.ask(people::log).await?.into_iter().map(entry).collect()
        }
    })
}

fn listed(person: &Person) -> Vec<String> {
    let mut lines = vec![format!("{}  {}", person.fields.name, person.fields.role.as_str())];
    lines.extend(person.devices.iter().map(|one| format!("  {}  {}", one.seen_at, one.device)));
    lines
}

fn told(name: &str, made: &CodeMade) -> String {
    said("codeMade", &[("name", name), ("code", &made.code), ("until", &made.until)])
}
