//! What seals the way: a certificate that was given, or one of our own made at once.
//!
//! Our own is two: an authority, made once and kept beside the data file, which a phone comes
//! to trust; and what it vouches for, made anew at every start and whenever the names of the
//! machine change. The authority may vouch for names of networks near by and for nothing else
//! (name constraints, RFC 5280 4.2.1.10), so that trusting it risks no other site.

use std::io::{Error, ErrorKind};
use std::net::IpAddr;
use std::path::{Path, PathBuf};
use std::sync::{Arc, RwLock};

use jiff::{SignedDuration, Timestamp, tz::TimeZone};
use rcgen::{
    BasicConstraints, CertificateParams, CidrSubnet, DnType, ExtendedKeyUsagePurpose, GeneralSubtree, IsCa,
    Issuer, KeyPair, KeyUsagePurpose, NameConstraints, SanType,
};
use tokio_rustls::TlsAcceptor;
use tokio_rustls::rustls::crypto::ring;
use tokio_rustls::rustls::pki_types::pem::PemObject;
use tokio_rustls::rustls::pki_types::{CertificateDer, PrivateKeyDer};
use tokio_rustls::rustls::server::{ClientHello, ResolvesServerCert};
use tokio_rustls::rustls::sign::CertifiedKey;
use tokio_rustls::rustls::{self, ServerConfig};

/// How long the authority is trusted [days], and what it vouches for [days]: made anew long before.
const AUTHORITY_DAYS: i64 = 3650;
const VOUCHED_DAYS: i64 = 90;

/// The networks that the authority may vouch for.
const NEAR: [(&str, u8); 7] = [
    ("10.0.0.0", 8),
    ("172.16.0.0", 12),
    ("192.168.0.0", 16),
    ("169.254.0.0", 16),
    ("100.64.0.0", 10),
    ("127.0.0.0", 8),
    ("fc00::", 7),
];

/// What seals the way now; it may be another one later.
#[derive(Debug)]
struct Current(RwLock<Arc<CertifiedKey>>);

impl ResolvesServerCert for Current {
    fn resolve(&self, _: ClientHello<'_>) -> Option<Arc<CertifiedKey>> {
        self.0.read().ok().map(|key| Arc::clone(&key))
    }
}

/// What seals the way.
#[derive(Clone)]
pub(crate) struct Seal {
    /// Takes what comes.
    pub(crate) acceptor: TlsAcceptor,
    /// Our own authority, for a phone to trust; none where a certificate was given.
    pub(crate) authority: Option<Arc<Authority>>,
    current: Arc<Current>,
}

impl std::fmt::Debug for Seal {
    fn fmt(&self, to: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        to.write_str("Seal")
    }
}

impl Seal {
    /// With a certificate and its key, as PEM files.
    pub(crate) fn given(certificate: &Path, key: &Path) -> Result<Self, Error> {
        let chain: Vec<CertificateDer<'static>> = CertificateDer::pem_file_iter(certificate)
            .and_then(Iterator::collect)
            .map_err(|error| unusable(certificate, &error))?;
        let private = PrivateKeyDer::from_pem_file(key).map_err(|error| unusable(key, &error))?;
        let certified = certified(chain, private).map_err(|error| unusable(key, &error))?;
        Self::with(certified, None)
    }

    /// With an authority of our own, kept in a folder beside the data file, for these names.
    pub(crate) fn own(folder: &Path, names: &[String]) -> Result<Self, Error> {
        let authority = Authority::open(folder)?;
        let certified = authority.vouches(names)?;
        Self::with(certified, Some(Arc::new(authority)))
    }

    fn with(certified: CertifiedKey, authority: Option<Arc<Authority>>) -> Result<Self, Error> {
        let current = Arc::new(Current(RwLock::new(Arc::new(certified))));
        let mut config = ServerConfig::builder_with_provider(Arc::new(ring::default_provider()))
            .with_safe_default_protocol_versions()
            .map_err(Error::other)?
            .with_no_client_auth()
            .with_cert_resolver(Arc::<Current>::clone(&current));
        config.alpn_protocols = vec![b"http/1.1".to_vec()];
        Ok(Self { acceptor: TlsAcceptor::from(Arc::new(config)), authority, current })
    }

    /// Vouches for other names from now on, and for as long again; connections that are there stay.
    pub(crate) fn renew(&self, names: &[String]) -> Result<(), Error> {
        let Some(authority) = &self.authority else { return Ok(()) };
        let certified = Arc::new(authority.vouches(names)?);
        if let Ok(mut current) = self.current.0.write() {
            *current = certified;
        }
        Ok(())
    }
}

/// An authority of our own.
pub struct Authority {
    pem: String,
    issuer: Issuer<'static, KeyPair>,
}

impl std::fmt::Debug for Authority {
    fn fmt(&self, to: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        to.write_str("Authority")
    }
}

impl Authority {
    /// The one that is kept in a folder; made there if there is none.
    fn open(folder: &Path) -> Result<Self, Error> {
        let (certificate, key) = (folder.join("authority.pem"), folder.join("authority-key.pem"));
        if !key.exists() {
            make(folder, &certificate, &key)?;
        }
        let pem = std::fs::read_to_string(&certificate).map_err(|error| unusable(&certificate, &error))?;
        let text = std::fs::read_to_string(&key).map_err(|error| unusable(&key, &error))?;
        let pair = KeyPair::from_pem(&text).map_err(|error| unusable(&key, &error))?;
        let issuer = Issuer::from_ca_cert_pem(&pem, pair).map_err(|error| unusable(&certificate, &error))?;
        Ok(Self { pem, issuer })
    }

    /// As a phone takes it in: DER.
    pub(crate) fn der(&self) -> Vec<u8> {
        CertificateDer::from_pem_slice(self.pem.as_bytes()).map(|der| der.to_vec()).unwrap_or_default()
    }

    /// By what its owner can tell it from another: SHA-256, in pairs of letters.
    pub(crate) fn fingerprint(&self) -> String {
        let hash = ring_sha256(&self.der());
        hash.iter().map(|byte| format!("{byte:02X}")).collect::<Vec<_>>().join(":")
    }

    fn vouches(&self, names: &[String]) -> Result<CertifiedKey, Error> {
        let mut params = CertificateParams::default();
        (params.not_before, params.not_after) = valid(VOUCHED_DAYS);
        params.distinguished_name.push(DnType::CommonName, "Zymarch");
        params.use_authority_key_identifier_extension = true;
        params.key_usages = vec![KeyUsagePurpose::DigitalSignature];
        params.extended_key_usages = vec![ExtendedKeyUsagePurpose::ServerAuth];
        let mut all: Vec<SanType> = Vec::new();
        for name in names.iter().map(String::as_str).chain(["localhost", "127.0.0.1"]) {
            all.push(match name.trim_matches(['[', ']']).parse::<IpAddr>() {
                Ok(ip) => SanType::IpAddress(ip),
                Err(_) => SanType::DnsName(name.try_into().map_err(Error::other)?),
            });
        }
        params.subject_alt_names = all;
        let pair = KeyPair::generate().map_err(Error::other)?;
        let certificate = params.signed_by(&pair, &self.issuer).map_err(Error::other)?;
        let key = PrivateKeyDer::try_from(pair.serialize_der()).map_err(Error::other)?;
        certified(vec![certificate.der().clone()], key).map_err(Error::other)
    }
}

fn certified(
    chain: Vec<CertificateDer<'static>>,
    key: PrivateKeyDer<'static>,
) -> Result<CertifiedKey, rustls::Error> {
    CertifiedKey::from_der(chain, key, &ring::default_provider())
}

/// Makes an authority: the key for its owner's eyes only, and written whole or not at all.
fn make(folder: &Path, certificate: &Path, key: &Path) -> Result<(), Error> {
    let mut params = CertificateParams::default();
    (params.not_before, params.not_after) = valid(AUTHORITY_DAYS);
    params.is_ca = IsCa::Ca(BasicConstraints::Constrained(0));
    params.key_usages = vec![KeyUsagePurpose::KeyCertSign, KeyUsagePurpose::CrlSign];
    let own = hostname::get().ok().and_then(|name| name.into_string().ok()).unwrap_or_default();
    params.distinguished_name.push(DnType::CommonName, format!("Zymarch {own}").trim_end());
    let near = |&(at, bits): &(&str, u8)| {
        at.parse().map(|at: IpAddr| GeneralSubtree::IpAddress(CidrSubnet::from_addr_prefix(at, bits)))
    };
    let mut permitted: Vec<GeneralSubtree> =
        NEAR.iter().map(near).collect::<Result<_, _>>().map_err(Error::other)?;
    let names =
        ["localhost".to_owned(), "local".into(), "lan".into(), "home.arpa".into(), own.to_lowercase()];
    permitted.extend(names.into_iter().filter(|name| !name.is_empty()).map(GeneralSubtree::DnsName));
    params.name_constraints =
        Some(NameConstraints { permitted_subtrees: permitted, excluded_subtrees: Vec::new() });
    let pair = KeyPair::generate().map_err(Error::other)?;
    let made = params.self_signed(&pair).map_err(Error::other)?;
    private_folder(folder)?;
    private_file(certificate, &made.pem())?;
    private_file(key, &pair.serialize_pem())
}

#[cfg(unix)]
fn private_folder(folder: &Path) -> Result<(), Error> {
    use std::os::unix::fs::DirBuilderExt;
    std::fs::DirBuilder::new().recursive(true).mode(0o700).create(folder)
}

#[cfg(not(unix))]
fn private_folder(folder: &Path) -> Result<(), Error> {
    std::fs::create_dir_all(folder)
}

fn private_file(path: &Path, text: &str) -> Result<(), Error> {
    use std::io::Write;
    let under_way: PathBuf = path.with_extension("part");
    let mut open = std::fs::OpenOptions::new();
    open.write(true).create(true).truncate(true);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut open, 0o600);
    let mut file = open.open(&under_way)?;
    file.write_all(text.as_bytes())?;
    file.sync_all()?;
    std::fs::rename(&under_way, path)
}

/// From yesterday, since clocks differ, for so many days.
fn valid(days: i64) -> (time::OffsetDateTime, time::OffsetDateTime) {
    let day = |from_now: i64| {
        let at = Timestamp::now() + SignedDuration::from_hours(24 * from_now);
        let day = at.to_zoned(TimeZone::UTC).date();
        rcgen::date_time_ymd(day.year().into(), day.month().unsigned_abs(), day.day().unsigned_abs())
    };
    (day(-1), day(days))
}

fn ring_sha256(of: &[u8]) -> [u8; 32] {
    use sha2::Digest;
    sha2::Sha256::digest(of).into()
}

fn unusable(path: &Path, error: &dyn std::fmt::Display) -> Error {
    Error::new(ErrorKind::InvalidInput, format!("{}: {error}", path.display()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_authority_is_made_once_and_vouches_for_names_near_by() {
        let folder = tempfile::tempdir().expect("a folder");
        let at = folder.path().join("farm.tls");
        let names = ["192.168.1.20".to_owned(), "[fd00::2]".into(), "shed.local".into()];
        let seal = Seal::own(&at, &names).expect("is made");
        let authority = seal.authority.clone().expect("is our own");
        let again = Authority::open(&at).expect("is there");
        assert_eq!(authority.fingerprint(), again.fingerprint(), "made once");
        assert_eq!(authority.fingerprint().len(), 32 * 3 - 1);
        seal.renew(&["192.168.1.21".to_owned()]).expect("vouches for another");
        #[cfg(unix)]
        {
            use std::os::unix::fs::PermissionsExt;
            let mode = |path: &Path| path.metadata().expect("is there").permissions().mode() & 0o777;
            assert_eq!((mode(&at), mode(&at.join("authority-key.pem"))), (0o700, 0o600));
        }
    }

    #[test]
    fn a_file_that_is_no_certificate_is_named() {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("no.pem");
        std::fs::write(&path, "nothing").expect("writes");
        let error = Seal::given(&path, &path).expect_err("is none");
        assert!(error.to_string().contains("no.pem"), "{error}");
    }
}
