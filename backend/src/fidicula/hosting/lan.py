"""Serving other devices of the workshop: this machine's address, a certificate of its own, and the code that pairs."""

from __future__ import annotations

import ipaddress
import secrets
import socket
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

LASTS = timedelta(days=365)
RENEWED_BEFORE = timedelta(days=30)
_NOWHERE = ("192.0.2.1", 9)
"""Kept for examples: asking the way there sends nothing, and tells which address this machine would go out by."""


class LanError(Exception):
    """Other devices cannot be served. The message is one sentence for the user."""


@dataclass(frozen=True)
class Certificate:
    """key, chain : the files.  fingerprint : as browsers show it, to be compared before it is trusted."""

    key: Path
    chain: Path
    fingerprint: str


def own_address() -> str:
    """This machine's address on the local network. Raises LanError where it is on none."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(_NOWHERE)
            address = str(probe.getsockname()[0])
        except OSError as error:
            raise LanError("This machine is on no network: say its address with --address.") from error
    return address


def check_address(address: str) -> str:
    """An address that was typed. Raises LanError for none, and for one that the whole world could reach."""
    try:
        found = ipaddress.ip_address(address)
    except ValueError as error:
        raise LanError(f"“{address}” is no address, such as 192.168.1.20.") from error
    if not found.is_private:
        raise LanError(f"{address} can be reached from the whole world: Fidicula serves the workshop's own network.")
    return address


def certificate(folder: Path, address: str, *, now: datetime | None = None) -> Certificate:
    """The shop's own certificate for an address; made again for another one, or shortly before it ends.

    folder : where it is kept, readable for nobody else.  now : None for the clock's.
    """
    now = now or datetime.now(UTC)
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    key_file, chain_file = folder / "key.pem", folder / "certificate.pem"
    if key_file.exists():
        # Loosened since, by a copy or by hand: it is nobody else's to read.
        folder.chmod(0o700)
        key_file.chmod(0o600)
    found = _kept(chain_file, address, now) if key_file.exists() else None
    if found is None:
        found = _make(key_file, chain_file, address, now)
    return Certificate(key_file, chain_file, found.fingerprint(hashes.SHA256()).hex(":").upper())


def pairing_code() -> str:
    """What is typed once at a device: eight digits, new with every start."""
    return f"{secrets.randbelow(10**8):08d}"


def _kept(file: Path, address: str, now: datetime) -> x509.Certificate | None:
    try:
        found = x509.load_pem_x509_certificate(file.read_bytes())
        names = found.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
        if found.extensions.get_extension_for_class(x509.BasicConstraints).value.ca:
            # Of the first manner: it could vouch for other places too, and so is not used any more.
            return None
    except (OSError, ValueError, x509.ExtensionNotFound):
        return None
    serves = ipaddress.ip_address(address) in names.get_values_for_type(x509.IPAddress)
    return found if serves and found.not_valid_after_utc - now > RENEWED_BEFORE else None


_SIGNS_ALONE = x509.KeyUsage(
    digital_signature=True,
    content_commitment=False,
    key_encipherment=False,
    data_encipherment=False,
    key_agreement=False,
    key_cert_sign=False,
    crl_sign=False,
    encipher_only=False,
    decipher_only=False,
)
"""It stands for this one address, and vouches for no other."""


def _make(key_file: Path, chain_file: Path, address: str, now: datetime) -> x509.Certificate:
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Fidicula of this workshop")])
    made = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(hours=1))
        .not_valid_after(now + LASTS)
        .add_extension(x509.SubjectAlternativeName([x509.IPAddress(ipaddress.ip_address(address))]), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_SIGNS_ALONE, critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .sign(key, hashes.SHA256())
    )
    secret = key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )
    _write_secret(key_file, secret)
    chain_file.write_bytes(made.public_bytes(serialization.Encoding.PEM))
    return made


def _write_secret(file: Path, content: bytes) -> None:
    file.unlink(missing_ok=True)
    file.touch(mode=0o600)
    file.write_bytes(content)
