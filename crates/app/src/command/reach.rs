//! How a farm is to be reached, as it is said on the command line.

use std::io::Write;
use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::path::{Path, PathBuf};
use std::sync::{Arc, RwLock};
use std::time::Duration;

use zymarch_core::base::fault::{Fault, FaultCode, Faults};

use super::{At, Failure};
use crate::http::qr::Qr;
use crate::http::ways::Ways;
use crate::network::addresses::{is_a_name, names};
use crate::network::certificate::Seal;
use crate::words;

/// How a farm is to be reached.
pub(super) struct Reach {
    /// Where it listens.
    pub(super) at: SocketAddr,
    how: How,
}

enum How {
    Machine,
    Network { names: Vec<String>, given: Option<(PathBuf, PathBuf)> },
    Proxy { origin: String },
}

/// How often it is looked whether the names of the machine changed.
const LOOKS: Duration = Duration::from_secs(60);

/// After so many looks what seals the way is made anew, whatever the names: a month.
const MOST_LOOKS: u32 = 30 * 24 * 60;

impl Reach {
    pub(super) fn of(at: &At) -> Result<Self, Fault> {
        let how = match (&at.behind_proxy, at.lan) {
            (Some(address), _) => How::Proxy { origin: origin(address)? },
            (None, true) => {
                if let Some(other) = at.name.iter().find(|name| !is_a_name(name)) {
                    return Err(Fault::of("--name", FaultCode::NotAHostName).with("got", other.as_str()));
                }
                How::Network { names: at.name.clone(), given: at.tls_cert.clone().zip(at.tls_key.clone()) }
            }
            (None, false) => How::Machine,
        };
        let all = IpAddr::V4(Ipv4Addr::UNSPECIFIED);
        let usual = if matches!(how, How::Network { .. }) { all } else { IpAddr::V4(Ipv4Addr::LOCALHOST) };
        let bind = at.bind.unwrap_or(usual);
        if matches!(how, How::Machine) && !bind.is_loopback() {
            return Err(Fault::of("--bind", FaultCode::NotLoopback).with("got", bind.to_string()));
        }
        Ok(Self { at: SocketAddr::new(bind, at.port), how })
    }

    /// Whether there must be an owner before anybody is answered: through a proxy everybody comes from elsewhere.
    pub(super) const fn needs_an_owner(&self) -> bool {
        matches!(self.how, How::Proxy { .. })
    }

    /// How it is known at the address where it listens now, and what seals the way.
    pub(super) fn ways(&self, at: SocketAddr, data: &Path) -> Result<(Ways, Option<Seal>), Failure> {
        match &self.how {
            How::Machine => Ok((Ways::Machine { at: at.ip() }, None)),
            How::Proxy { origin } => Ok((Ways::Proxy { origin: origin.clone() }, None)),
            How::Network { names: more, given } => {
                let names = names(more, at.ip());
                let seal = match given {
                    Some((certificate, key)) => Seal::given(certificate, key),
                    None => Seal::own(&data.with_extension("tls"), &names),
                };
                let unsealed = |error: std::io::Error| {
                    let fault = Fault::of("--lan", FaultCode::CannotSeal).with("why", error.to_string());
                    Failure::from(Faults::from(fault))
                };
                let seal = seal.map_err(unsealed)?;
                let authority = seal.authority.clone();
                let names = Arc::new(RwLock::new(names));
                Ok((Ways::Network { names, port: at.port(), authority }, Some(seal)))
            }
        }
    }

    /// Follows the names of the machine as they change, and makes anew in time what seals the way.
    pub(super) async fn follow(self, ways: Ways, seal: Option<Seal>) {
        let (How::Network { names: more, .. }, Ways::Network { names: known, .. }, Some(seal)) =
            (&self.how, ways, seal)
        else {
            return;
        };
        let mut looks = 0;
        loop {
            tokio::time::sleep(LOOKS).await;
            looks += 1;
            let now = names(more, self.at.ip());
            let is_same = known.read().is_ok_and(|known| *known == now);
            if is_same && looks < MOST_LOOKS {
                continue;
            }
            looks = 0;
            if let Err(error) = seal.renew(&now) {
                tracing::warn!(%error, "what seals the way could not be made anew");
                continue;
            }
            if let Ok(mut known) = known.write() {
                *known = now;
            }
        }
    }
}

/// Says a line on the terminal; a farm is served whether anybody listens or not.
pub(super) fn say(line: &str) {
    let _ = writeln!(std::io::stdout(), "{line}");
}

/// What is told on the terminal of how others reach it.
pub(super) fn told(ways: &Ways, here: &str, is_anybody: bool) {
    match ways {
        Ways::Machine { .. } => {}
        Ways::Proxy { origin } => say(&words::said("behindProxy", &[("address", origin)])),
        Ways::Network { .. } => {
            let there = ways.best_origin(here);
            say(&words::said("onNetwork", &[("address", &there)]));
            if !is_anybody {
                let people = format!("{here}/people");
                say(&words::said("ownerFirst", &[("address", &people)]));
            }
            let first = ways.door();
            if let Some(door) = &first {
                say(&words::said("trustAt", &[("address", door)]));
            }
            if let Some(authority) = ways.authority() {
                say(&words::said("certificateMark", &[("mark", &authority.fingerprint())]));
            }
            say(&Qr::of(first.as_ref().unwrap_or(&there)).in_a_terminal());
        }
    }
}

/// An origin (RFC 6454): `https://compost.example`, without a path.
fn origin(address: &str) -> Result<String, Fault> {
    let wrong = || Fault::of("--behind-proxy", FaultCode::NotAnOrigin).with("got", address);
    let plain = address.trim_end_matches('/');
    let (scheme, host) = plain.split_once("://").ok_or_else(wrong)?;
    let (name, port) = host.split_once(':').map_or((host, None), |(name, port)| (name, Some(port)));
    let is_port = port.is_none_or(|port| port.parse::<u16>().is_ok());
    if !matches!(scheme, "http" | "https") || !is_a_name(name) || !is_port {
        return Err(wrong());
    }
    Ok(plain.to_ascii_lowercase())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_origin_is_a_scheme_and_a_host() {
        assert_eq!(origin("https://Compost.example/").ok().as_deref(), Some("https://compost.example"));
        assert!(origin("http://compost.example:8080").is_ok());
        for wrong in ["compost.example", "https://compost.example/farm", "ftp://a.example", "https://a:b", ""]
        {
            assert_eq!(origin(wrong).map_err(|fault| fault.code), Err(FaultCode::NotAnOrigin), "{wrong}");
        }
    }
}
