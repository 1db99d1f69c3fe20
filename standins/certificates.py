"""Certificates of the simulated gateways, made where they run: an authority of their own, what it
signed for the loopback addresses, and one that has run out.
"""

from __future__ import annotations

import ipaddress
from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Final

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import NameOID

__all__ = ["AUTHORITY", "make_certificates"]

AUTHORITY: Final = "authority.pem"
LASTS: Final = timedelta(days=3_650)


def make_certificates(folder: Path, addresses: Sequence[str]) -> None:
    """Write authority.pem, gateway.pem and expired.pem (each of the last two with its key) into the
    folder, unless they are there already.
    """
    if (folder / AUTHORITY).exists():
        return
    folder.mkdir(parents=True, exist_ok=True)
    now = datetime.now(UTC)
    root = ec.generate_private_key(ec.SECP256R1())
    name = _name("Simulated gateways")
    kinds = x509.BasicConstraints(ca=True, path_length=0)
    about = x509.SubjectKeyIdentifier.from_public_key(root.public_key())
    authority = (
        _builder(name, name, root, now - timedelta(days=40), now + LASTS)
        .add_extension(kinds, critical=True)
        .add_extension(about, critical=False)
        .add_extension(_usage(signs=True), critical=True)
        .sign(root, hashes.SHA256())
    )
    for file, until in (("gateway.pem", now + LASTS), ("expired.pem", now - timedelta(days=2))):
        key = ec.generate_private_key(ec.SECP256R1())
        found = [x509.IPAddress(ipaddress.ip_address(address)) for address in addresses]
        issuer = x509.AuthorityKeyIdentifier.from_issuer_public_key(root.public_key())
        leaf = (
            _builder(_name("gateway"), name, key, now - timedelta(days=30), until)
            .add_extension(x509.SubjectAlternativeName(found), critical=False)
            .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
            .add_extension(issuer, critical=False)
            .sign(root, hashes.SHA256())
        )
        private = key.private_bytes(
            serialization.Encoding.PEM,
            serialization.PrivateFormat.PKCS8,
            serialization.NoEncryption(),
        )
        path = folder / file
        path.touch(mode=0o600)
        path.write_bytes(private + _pem(leaf))
    (folder / AUTHORITY).write_bytes(_pem(authority))


def _name(text: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, text)])


def _pem(certificate: x509.Certificate) -> bytes:
    return certificate.public_bytes(serialization.Encoding.PEM)


def _builder(
    subject: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePrivateKey, since: datetime,
    until: datetime,
) -> x509.CertificateBuilder:  # fmt: skip
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(since)
        .not_valid_after(until)
    )


def _usage(*, signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=True, key_cert_sign=signs, crl_sign=signs, content_commitment=False,
        key_encipherment=False, data_encipherment=False, key_agreement=False, encipher_only=False,
        decipher_only=False,
    )  # fmt: skip
