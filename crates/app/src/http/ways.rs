//! How the farm is reached, by what names it is known there, and what a request tells of its way.

use std::net::IpAddr;
use std::sync::{Arc, RwLock};

use axum::http::HeaderMap;
use axum::http::request::Parts;

use super::asking::Came;
use crate::network::certificate::Authority;

/// The names of a machine to itself.
pub(crate) const LOCAL_NAMES: [&str; 3] = ["127.0.0.1", "localhost", "[::1]"];

/// In which a proxy tells whom it asks for; what it added itself stands last.
const FORWARDED_FOR: &str = "x-forwarded-for";

/// How a farm is reached.
#[derive(Debug, Clone)]
pub enum Ways {
    /// From this machine alone.
    Machine {
        /// The address it listens on, which is a name of its own.
        at: IpAddr,
    },
    /// From this machine, and sealed from the local network.
    Network {
        /// The names that it has there; they change as the network does.
        names: Arc<RwLock<Vec<String>>>,
        /// The port.
        port: u16,
        /// What a phone comes to trust; none where a certificate was given.
        authority: Option<Arc<Authority>>,
    },
    /// Through a proxy that stands before it, under a public name.
    Proxy {
        /// The origin that browsers see, as `https://compost.example`.
        origin: String,
    },
}

/// What is known of where a request came from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Visit {
    /// From where; none from the machine itself.
    pub(crate) from: Option<IpAddr>,
    /// Whether nobody on the way could read it.
    pub(crate) is_sealed: bool,
}

impl Ways {
    /// Where a request came from. Through a proxy nobody is taken for the machine itself, whatever a header
    /// says or lacks.
    pub(crate) fn came(&self, parts: &Parts) -> Visit {
        let came = parts.extensions.get::<Came>().copied();
        let from = came.map(|came| came.from.to_canonical());
        match self {
            Self::Machine { .. } => Visit { from: None, is_sealed: false },
            Self::Network { .. } => Visit {
                from: from.filter(|from| !from.is_loopback()),
                is_sealed: came.is_some_and(|came| came.is_sealed),
            },
            Self::Proxy { origin } => {
                let unknown = IpAddr::V4(std::net::Ipv4Addr::UNSPECIFIED);
                let from = forwarded(&parts.headers).or(from).unwrap_or(unknown);
                Visit { from: Some(from), is_sealed: origin.starts_with("https:") }
            }
        }
    }

    /// Whether a host, as a request names it, is this one.
    pub(crate) fn is_own(&self, host: &str) -> bool {
        let is_local = || LOCAL_NAMES.into_iter().any(|name| is_named(host, name));
        match self {
            Self::Machine { at } => is_local() || is_named(host, &as_name(*at)),
            Self::Network { names, .. } => {
                let names = names.read().map(|names| names.clone()).unwrap_or_default();
                is_local() || names.iter().any(|name| is_named(host, name))
            }
            Self::Proxy { origin } => {
                origin.split_once("://").is_some_and(|(_, own)| own.eq_ignore_ascii_case(host))
            }
        }
    }

    /// The origin at which another device reaches the farm best: on the network by its first name there,
    /// otherwise as whoever asks reached it.
    pub(crate) fn best_origin(&self, host: &str) -> String {
        match self {
            Self::Network { names, port, .. } => {
                let first = names.read().ok().and_then(|names| names.first().cloned());
                first.map_or_else(|| self.origin(host, false), |name| format!("https://{name}:{port}"))
            }
            _ => self.origin(host, false),
        }
    }

    /// Whether anybody but the machine itself reaches it.
    pub(crate) const fn is_for_others(&self) -> bool {
        !matches!(self, Self::Machine { .. })
    }

    /// Whether a browser should never again come unsealed. Where a phone first has to learn to trust our own
    /// authority it must be able to.
    pub(crate) fn is_only_sealed(&self) -> bool {
        match self {
            Self::Machine { .. } | Self::Network { .. } => false,
            Self::Proxy { origin } => origin.starts_with("https:"),
        }
    }

    /// Our own authority, where a phone has to come to trust it.
    pub(crate) fn authority(&self) -> Option<&Authority> {
        match self {
            Self::Network { authority, .. } => authority.as_deref(),
            _ => None,
        }
    }

    /// Where a phone learns to trust this farm, if it has to.
    pub(crate) fn door(&self) -> Option<String> {
        self.authority().map(|_| self.best_origin("").replacen("https:", "http:", 1))
    }

    /// The origin of this farm's own pages, for a request that names this host.
    pub(crate) fn origin(&self, host: &str, is_sealed: bool) -> String {
        match self {
            Self::Proxy { origin } => origin.clone(),
            _ => format!("{}://{host}", if is_sealed { "https" } else { "http" }),
        }
    }
}

/// An address as a host is named.
pub(crate) fn as_name(at: IpAddr) -> String {
    match at {
        IpAddr::V4(at) => at.to_string(),
        IpAddr::V6(at) => format!("[{at}]"),
    }
}

/// Whether a host is of that name, with a port or without.
fn is_named(host: &str, name: &str) -> bool {
    let Some((start, rest)) = host.split_at_checked(name.len()) else { return false };
    let is_port = |rest: &str| {
        rest.strip_prefix(':')
            .is_some_and(|port| !port.is_empty() && port.bytes().all(|byte| byte.is_ascii_digit()))
    };
    start.eq_ignore_ascii_case(name) && (rest.is_empty() || is_port(rest))
}

/// Whom a proxy says that it asks for: what it added itself, which is last.
fn forwarded(headers: &HeaderMap) -> Option<IpAddr> {
    let last = headers.get_all(FORWARDED_FOR).iter().next_back()?.to_str().ok()?;
    last.rsplit(',').next()?.trim().parse().ok()
}

#[cfg(test)]
mod tests {
    use super::*;
    use axum::http::Request;

    #[test]
    fn only_the_names_of_this_machine_are_its_own() {
        let here = Ways::Machine { at: IpAddr::V4(std::net::Ipv4Addr::LOCALHOST) };
        for own in ["127.0.0.1", "127.0.0.1:8420", "localhost:80", "LocalHost:80", "[::1]:8420"] {
            assert!(here.is_own(own), "{own}");
        }
        for foreign in [
            "",
            "farm.example",
            "127.0.0.1.farm.example",
            "localhost:",
            "localhost:80x",
            "127.0.0.1@farm.example",
            "10.0.0.1",
            "127.0.0.2",
        ] {
            assert!(!here.is_own(foreign), "{foreign}");
        }
        let other = Ways::Machine { at: "127.0.0.2".parse().expect("an address") };
        assert!(other.is_own("127.0.0.2:8420"), "the address it listens on is its name");
        let names = Arc::new(RwLock::new(vec!["10.0.0.1".to_owned(), "shed.local".to_owned()]));
        let network = Ways::Network { names, port: 8420, authority: None };
        assert!(network.is_own("10.0.0.1:8420") && network.is_own("shed.local:8420"));
        assert!(network.is_own("localhost:8420") && !network.is_own("10.0.0.2:8420"));
        let proxy = Ways::Proxy { origin: "https://compost.example".into() };
        assert!(proxy.is_own("compost.example") && !proxy.is_own("127.0.0.1:8420"));
    }

    fn asked(ways: &Ways, from: &str, forwarded: &[&str]) -> Visit {
        let mut request = Request::builder();
        for value in forwarded {
            request = request.header(FORWARDED_FOR, *value);
        }
        let (mut parts, ()) = request.body(()).expect("a request").into_parts();
        parts.extensions.insert(Came { from: from.parse().expect("an address"), is_sealed: false });
        ways.came(&parts)
    }

    #[test]
    fn through_a_proxy_nobody_is_the_machine_itself() {
        let address = |text: &str| Some(text.parse::<IpAddr>().expect("an address"));
        let proxy = Ways::Proxy { origin: "https://compost.example".into() };
        assert_eq!(asked(&proxy, "127.0.0.1", &[]).from, address("127.0.0.1"));
        assert_eq!(asked(&proxy, "127.0.0.1", &["nonsense"]).from, address("127.0.0.1"));
        // What came along is not believed; what the proxy added is.
        let both = ["127.0.0.1, 203.0.113.9"];
        assert_eq!(asked(&proxy, "127.0.0.1", &both).from, address("203.0.113.9"));
        assert!(asked(&proxy, "127.0.0.1", &[]).is_sealed);
        // Without a proxy nobody's word is taken.
        let network = Ways::Network { names: Arc::default(), port: 8420, authority: None };
        assert_eq!(asked(&network, "192.168.1.7", &["127.0.0.1"]).from, address("192.168.1.7"));
        assert_eq!(asked(&network, "::ffff:192.168.1.7", &[]).from, address("192.168.1.7"));
        assert_eq!(asked(&network, "127.0.0.1", &[]).from, None);
    }
}
