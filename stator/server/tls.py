"""The shop's own certificates: an authority that each phone must trust once, and a server's certificate signed by it.

The authority is restricted to this machine's names and private networks, so that a stolen key is useless elsewhere. The server's
certificate is valid for a year and renewed a month before it expires, or when the machine has another address.
"""

from __future__ import annotations

import ipaddress
import ssl
from collections.abc import Sequence
from datetime import datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_FOR, SERVER_FOR, ANEW_BEFORE = timedelta(days=3650), timedelta(days=365), timedelta(days=30)
SKEW = timedelta(hours=24)  # how far a phone's clock may be behind
SHOP_NAMES = ("localhost", "local", "lan", "internal", "home.arpa")
SHOP_NETWORKS = ("127.0.0.0/8", "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "::1/128", "fc00::/7", "fe80::/10")


class OwnCertificate:
    """The files in the folder, and what a server needs of them."""

    def __init__(self, folder: Path, names: Sequence[str]) -> None:
        self.folder = folder
        self.names = tuple(dict.fromkeys(name for name in names if name and "*" not in name))
        self.authority, self.server = folder / "authority.pem", folder / "server.pem"

    def bring_up_to_date(self, now: datetime) -> bool:
        """Make what is missing, ends soon or names other addresses; whether anything was made."""
        self.folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        made = not (self.authority.exists() and self._vouches(now))
        if made:
            self._make_authority(now)
        if made or not self._serves(now):
            self._make_server(now)
            return True
        return False

    def context(self) -> ssl.SSLContext:
        """Return the context of a server; `load` reads a renewed certificate."""
        context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
        context.minimum_version = ssl.TLSVersion.TLSv1_2
        self.load(context)
        return context

    def load(self, context: ssl.SSLContext) -> None:
        context.load_cert_chain(self.server, self.folder / "server.key")

    def for_phones(self) -> bytes:
        """The authority's certificate as phones take it (DER)."""
        return _read(self.authority).public_bytes(serialization.Encoding.DER)

    def fingerprint(self) -> str:
        """SHA-256 of the authority's certificate, as phones show it."""
        return _read(self.authority).fingerprint(hashes.SHA256()).hex(":").upper()

    def _vouches(self, now: datetime) -> bool:
        found = _read(self.authority)
        within = found.extensions.get_extension_for_class(x509.NameConstraints).value.permitted_subtrees or []
        names = [each.value for each in within if isinstance(each, x509.DNSName)]
        networks = [each.value for each in within if isinstance(each, x509.IPAddress)]
        return now < found.not_valid_after_utc - SERVER_FOR and all(_is_within(name, names, networks) for name in self.names)

    def _serves(self, now: datetime) -> bool:
        if not self.server.exists():
            return False
        found = _read(self.server)
        said = found.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
        return now < found.not_valid_after_utc - ANEW_BEFORE and set(said) == {_general(name) for name in self.names}

    def _make_authority(self, now: datetime) -> None:
        key = ec.generate_private_key(ec.SECP256R1())
        name = _called(f"Stator of this shop, {now:%Y-%m-%d}")
        own = [name for name in self.names if not _is_within(name, SHOP_NAMES, SHOP_NETWORKS)]
        within = [_subtree(each) for each in (*SHOP_NAMES, *SHOP_NETWORKS, *own)]
        usage = x509.KeyUsage(
            key_cert_sign=True,
            crl_sign=True,
            digital_signature=False,
            content_commitment=False,
            key_encipherment=False,
            data_encipherment=False,
            key_agreement=False,
            encipher_only=False,
            decipher_only=False,
        )
        made = (
            _builder(name, name, key, now, AUTHORITY_FOR)
            .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
            .add_extension(usage, critical=True)
            .add_extension(x509.NameConstraints(within, None), critical=True)
            .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
            .sign(key, hashes.SHA256())
        )
        _write(self.folder / "authority.key", _plain(key))
        _write(self.authority, made.public_bytes(serialization.Encoding.PEM))

    def _make_server(self, now: datetime) -> None:
        above = _read(self.authority)
        above_key = serialization.load_pem_private_key((self.folder / "authority.key").read_bytes(), password=None)
        assert isinstance(above_key, ec.EllipticCurvePrivateKey)
        key = ec.generate_private_key(ec.SECP256R1())
        made = (
            _builder(_called("Stator"), above.subject, key, now, SERVER_FOR)
            .add_extension(x509.SubjectAlternativeName([_general(name) for name in self.names]), critical=False)
            .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
            .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
            .add_extension(x509.AuthorityKeyIdentifier.from_issuer_public_key(above_key.public_key()), critical=False)
            .sign(above_key, hashes.SHA256())
        )
        _write(self.folder / "server.key", _plain(key))
        _write(self.server, made.public_bytes(serialization.Encoding.PEM))


def _builder(
    subject: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePrivateKey, now: datetime, lasts: timedelta
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - SKEW)
        .not_valid_after(now + lasts)
    )


def _called(name: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, name)])


def _address(name: str) -> ipaddress.IPv4Address | ipaddress.IPv6Address | None:
    try:
        return ipaddress.ip_address(name.strip("[]"))
    except ValueError:
        return None


def _general(name: str) -> x509.GeneralName:
    """A name or an address as a certificate has it."""
    address = _address(name)
    return x509.IPAddress(address) if address else x509.DNSName(name)


def _subtree(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_network(name.strip("[]")))
    except ValueError:
        return x509.DNSName(name)


def _is_within(name: str, names: Sequence[str], networks: Sequence[object]) -> bool:
    address = _address(name)
    if address is None:
        return any(name == each or name.endswith(f".{each}") for each in names)
    return any(address in ipaddress.ip_network(str(each)) for each in networks)


def _read(path: Path) -> x509.Certificate:
    return x509.load_pem_x509_certificate(path.read_bytes())


def _plain(key: ec.EllipticCurvePrivateKey) -> bytes:
    return key.private_bytes(serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption())


def _write(path: Path, content: bytes) -> None:
    """Write a file under a temporary name, readable by its owner only, then rename it."""
    beside = path.with_suffix(".new")
    beside.unlink(missing_ok=True)
    beside.touch(mode=0o600)
    beside.write_bytes(content)
    beside.replace(path)
