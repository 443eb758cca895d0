//! The names that this machine has on the local network.

use std::net::{IpAddr, Ipv6Addr};

use crate::http::ways::as_name;

/// The names, the best one for a phone first: addresses of networks at home, then what the machine calls
/// itself. Only those of the family it listens to. More may be said on the command line.
pub(crate) fn names(more: &[String], bind: IpAddr) -> Vec<String> {
    let mut at: Vec<IpAddr> = if_addrs::get_if_addrs()
        .unwrap_or_default()
        .iter()
        .map(if_addrs::Interface::ip)
        .filter(|ip| is_near(*ip) && ip.is_ipv4() == bind.is_ipv4())
        .collect();
    at.sort_by_key(|ip| (rank(*ip), *ip));
    at.dedup();
    let own = hostname::get().ok().and_then(|name| name.into_string().ok()).unwrap_or_default();
    let own = own.to_lowercase();
    let mut names = more.to_vec();
    names.extend(at.into_iter().map(as_name));
    if is_a_name(&own) {
        // Phones that look for it by multicast find it under the second of these.
        names.extend([own.clone(), format!("{own}.local")]);
    }
    let mut seen = std::collections::HashSet::new();
    names.retain(|name| seen.insert(name.clone()));
    names
}

/// Whether an address is of a network near by: private (RFC 1918, RFC 4193), shared (RFC 6598), or one that
/// a machine took for itself (RFC 3927).
pub(crate) fn is_near(ip: IpAddr) -> bool {
    match ip.to_canonical() {
        IpAddr::V4(ip) => {
            let shared = ip.octets()[0] == 100 && (64..128).contains(&ip.octets()[1]);
            ip.is_private() || ip.is_link_local() || shared
        }
        IpAddr::V6(ip) => is_unique_local(ip),
    }
}

const fn is_unique_local(ip: Ipv6Addr) -> bool {
    ip.segments()[0] & 0xfe00 == 0xfc00
}

/// What most routers at home give comes first; what a machine took for itself last.
fn rank(ip: IpAddr) -> u8 {
    match ip {
        IpAddr::V4(ip) if ip.octets()[0] == 192 => 0,
        IpAddr::V4(ip) if ip.is_private() => 1,
        IpAddr::V4(ip) if ip.is_link_local() => 4,
        IpAddr::V4(_) => 2,
        IpAddr::V6(_) => 3,
    }
}

/// Letters, digits and dashes, with dots between.
pub(crate) fn is_a_name(name: &str) -> bool {
    let is_part = |part: &str| {
        !part.is_empty()
            && part.len() < 64
            && part.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-')
    };
    name.len() < 250 && name.split('.').all(is_part)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_addresses_near_by_are_told() {
        for near in ["192.168.1.20", "10.0.0.1", "172.16.4.4", "169.254.3.3", "100.64.0.1", "fd00::1"] {
            assert!(is_near(near.parse().expect("an address")), "{near}");
        }
        for far in ["203.0.113.9", "127.0.0.1", "172.32.0.1", "100.128.0.1", "2001:db8::1", "fe80::1", "::1"]
        {
            assert!(!is_near(far.parse().expect("an address")), "{far}");
        }
    }

    #[test]
    fn what_is_said_comes_first_and_nothing_twice() {
        let names =
            names(&["shed.local".into(), "shed.local".into()], IpAddr::V4(std::net::Ipv4Addr::UNSPECIFIED));
        assert_eq!(names[0], "shed.local");
        assert_eq!(names.iter().filter(|name| *name == "shed.local").count(), 1);
        assert!(
            is_a_name("shed-2.local") && !is_a_name("shed local") && !is_a_name("a..b") && !is_a_name("")
        );
    }
}
