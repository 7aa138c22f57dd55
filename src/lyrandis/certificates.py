"""A certificate of one's own: an authority made once, and from it one for this machine's names.

    certificates/authority.pem, .key    for ten years; phones install the first, nobody the second
    certificates/own.pem, .key          for 398 days and for the names and addresses of this machine

The authority may vouch for addresses of home and club networks and for the names and addresses it
was made with, and for nothing else: who has its key cannot pass for any other place.
"""

from __future__ import annotations

import ipaddress
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from lyrandis.store import folder as places

AUTHORITY_DAYS = 3650
OWN_DAYS = 398  # browsers take none that lasts longer
RENEW_DAYS = 30  # before its end
_HOME = (
    "127.0.0.0/8", "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16",
    "100.64.0.0/10", "::1/128", "fc00::/7", "fe80::/10",
)  # fmt: skip
_Network = ipaddress.IPv4Network | ipaddress.IPv6Network
_NETWORKS: tuple[_Network, ...] = tuple(ipaddress.ip_network(network) for network in _HOME)


class NoAuthorityError(RuntimeError):
    """No authority was made in this folder."""


@dataclass(frozen=True)
class Place:
    """Where they lie."""

    authority: Path
    authority_key: Path
    own: Path
    own_key: Path


def of(folder: Path) -> Place:
    """The certificates of a data folder, made or not."""
    inside = folder / "certificates"
    return Place(
        *(inside / name for name in ("authority.pem", "authority.key", "own.pem", "own.key"))
    )


def _address(name: str) -> ipaddress.IPv4Address | ipaddress.IPv6Address | None:
    try:
        return ipaddress.ip_address(name.partition("%")[0])
    except ValueError:
        return None


def _names(hosts: Iterable[str]) -> list[x509.GeneralName]:
    found: dict[str, x509.GeneralName] = {}
    for host in sorted(set(hosts)):
        address = _address(host)
        found[host] = x509.DNSName(host) if address is None else x509.IPAddress(address)
    return list(found.values())


def make_authority(folder: Path, hosts: Collection[str], now: datetime) -> Path:
    """Make the authority, once; its certificate's file.

    Parameters
    ----------
    hosts : names and addresses that it may vouch for beside those of home networks
    """
    place = of(folder)
    if place.authority.exists():
        return place.authority
    named = {host for host in hosts if _address(host) is None} | {"localhost", "local"}
    own = {ipaddress.ip_network(address) for address in map(_address, hosts) if address}
    networks = [*_NETWORKS, *(n for n in own if not any(_within(n, home) for home in _NETWORKS))]
    may = [x509.DNSName(name) for name in sorted(named)] + [x509.IPAddress(n) for n in networks]
    key = ec.generate_private_key(ec.SECP256R1())
    called = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, f"Lyrandis of {now:%d %B %Y}")])
    made = (
        _begun(called, called, key.public_key(), now, AUTHORITY_DAYS)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs=True), critical=True)
        .add_extension(
            x509.NameConstraints(permitted_subtrees=may, excluded_subtrees=None), critical=True
        )
        .sign(key, hashes.SHA256())
    )
    _write(place.authority_key, _pem(key))
    _write(place.authority, made.public_bytes(serialization.Encoding.PEM))
    return place.authority


def ready(folder: Path, hosts: Iterable[str], now: datetime) -> tuple[Place, list[str]]:
    """A certificate for hosts, made anew where it is about to end or a host is new.

    Returns
    -------
    Where it lies, and the hosts that the authority may not vouch for: they are not in it.

    Raises
    ------
    NoAuthorityError : none was made here.
    """
    place = of(folder)
    if not place.authority.exists():
        raise NoAuthorityError("Make one first: lyrandis certificate")
    authority = x509.load_pem_x509_certificate(place.authority.read_bytes())
    wanted = [host for host in sorted(set(hosts)) if _may(authority, host)]
    if not _holds(place, _names(wanted), authority, now):
        key = serialization.load_pem_private_key(place.authority_key.read_bytes(), None)
        assert isinstance(key, ec.EllipticCurvePrivateKey)
        own = ec.generate_private_key(ec.SECP256R1())
        called = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Lyrandis")])
        made = (
            _begun(called, authority.subject, own.public_key(), now, OWN_DAYS)
            .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
            .add_extension(_usage(signs=False), critical=True)
            .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
            .add_extension(x509.SubjectAlternativeName(_names(wanted)), critical=False)
            .add_extension(
                x509.AuthorityKeyIdentifier.from_issuer_public_key(key.public_key()), critical=False
            )
            .sign(key, hashes.SHA256())
        )
        _write(place.own_key, _pem(own))
        _write(place.own, made.public_bytes(serialization.Encoding.PEM))
    return place, [host for host in sorted(set(hosts)) if host not in wanted]


def _begun(
    subject: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePublicKey, now: datetime, days: int
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key)
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(hours=1))  # clocks of phones differ
        .not_valid_after(now - timedelta(hours=1) + timedelta(days=days))
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key), critical=False)
    )


def _usage(signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs,
        key_cert_sign=signs,
        crl_sign=signs,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        encipher_only=False,
        decipher_only=False,
    )


def _within(one: _Network, other: _Network) -> bool:
    return one.version == other.version and one.subnet_of(other)  # type: ignore[arg-type]


def _may(authority: x509.Certificate, host: str) -> bool:
    """Whether an authority may vouch for a host."""
    limits = authority.extensions.get_extension_for_class(x509.NameConstraints).value
    names = limits.permitted_subtrees or ()
    address = _address(host)
    if address is not None:
        own = ipaddress.ip_network(address)
        networks = [name.value for name in names if isinstance(name, x509.IPAddress)]
        return any(isinstance(n, _Network) and _within(own, n) for n in networks)
    hosts = [name.value for name in names if isinstance(name, x509.DNSName)]
    return any(host == name or host.endswith(f".{name}") for name in hosts)


def _holds(
    place: Place, names: list[x509.GeneralName], authority: x509.Certificate, now: datetime
) -> bool:
    """Whether the certificate that is there serves still."""
    if not (place.own.exists() and place.own_key.exists()):
        return False
    try:
        own = x509.load_pem_x509_certificate(place.own.read_bytes())
        own.verify_directly_issued_by(authority)
        told = own.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    except Exception:  # damaged, or another authority's: another is made
        return False
    left = own.not_valid_after_utc - now
    return left > timedelta(days=RENEW_DAYS) and set(names) <= set(told)


def _pem(key: ec.EllipticCurvePrivateKey) -> bytes:
    return key.private_bytes(
        serialization.Encoding.PEM,
        serialization.PrivateFormat.PKCS8,
        serialization.NoEncryption(),
    )


def _write(file: Path, text: bytes) -> None:
    """Write a file whole or not at all, for its owner alone."""
    places.make(file.parent)
    growing = places.beside(file)
    places.touch(growing)
    growing.write_bytes(text)
    growing.replace(file)


def today() -> datetime:
    """The present time."""
    return datetime.now(UTC)
