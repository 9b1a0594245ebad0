"""Signature of exported job files: an Ed25519 key of the shop, created on first use and stored in the data folder."""

from __future__ import annotations

import base64
import binascii
import hashlib
import json
import os
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from django.conf import settings

SIGNATURE = "signature"  # key of a document; everything else in the document is signed
ALGORITHM = "ed25519"


def _private_key() -> Any:
    """Return the key of this shop. Raises OSError or ValueError if its file cannot be read."""
    from cryptography.hazmat.primitives import serialization  # loaded with the first file: a server that exports nothing saves the memory
    from cryptography.hazmat.primitives.asymmetric.ed25519 import Ed25519PrivateKey

    path = Path(settings.SIGNING_KEY)
    if not path.exists():
        _create(path, Ed25519PrivateKey.generate())
    key = serialization.load_pem_private_key(path.read_bytes(), password=None)
    if not isinstance(key, Ed25519PrivateKey):
        raise ValueError(f"{path} is not an Ed25519 key.")
    return key


def _create(path: Path, key: Any) -> None:
    """Write a new key that only its owner can read.

    If two processes start at the same time, the first one wins.
    """
    from cryptography.hazmat.primitives import serialization

    pem = key.private_bytes(serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption())
    fresh = path.with_name(f".{path.name}.{os.getpid()}")
    with os.fdopen(os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as file:
        file.write(pem)
        file.flush()
        os.fsync(file.fileno())
    try:
        os.link(fresh, path)
    except FileExistsError:
        pass
    finally:
        fresh.unlink()


def _public_bytes() -> bytes:
    return bytes(_private_key().public_key().public_bytes_raw())


def fingerprint_of(public_key: bytes) -> str:
    """Return the first 128 bits of the SHA-256 of a public key, in groups that can be compared by eye."""
    text = hashlib.sha256(public_key).hexdigest()[:32].upper()
    return " ".join(text[at : at + 4] for at in range(0, 32, 4))


def own_fingerprint() -> str:
    """Return the fingerprint of this shop's key."""
    return fingerprint_of(_public_bytes())


def _signed_bytes(document: Mapping[str, Any]) -> bytes:
    plain = {name: value for name, value in document.items() if name != SIGNATURE}
    return json.dumps(plain, sort_keys=True, ensure_ascii=False, separators=(",", ":")).encode()


def signed(document: Mapping[str, Any]) -> dict[str, Any]:
    """Return a document with the signature of this shop."""
    key = _private_key()
    value = key.sign(_signed_bytes(document))
    public = key.public_key().public_bytes_raw()
    texts = {"public_key": base64.b64encode(public).decode(), "value": base64.b64encode(value).decode()}
    return {**document, SIGNATURE: {"algorithm": ALGORITHM, **texts}}


def signer_of(document: Mapping[str, Any]) -> bytes | None:
    """Return the public key that signed a document as it is, or None if it has no valid signature."""
    from cryptography.exceptions import InvalidSignature
    from cryptography.hazmat.primitives.asymmetric.ed25519 import Ed25519PublicKey

    signature = document.get(SIGNATURE)
    if not isinstance(signature, dict) or signature.get("algorithm") != ALGORITHM:
        return None
    try:
        public, value = (base64.b64decode(str(signature.get(name, "")), validate=True) for name in ("public_key", "value"))
        Ed25519PublicKey.from_public_bytes(public).verify(value, _signed_bytes(document))
    except (binascii.Error, ValueError, InvalidSignature):
        return None
    return public


def is_own(public_key: bytes) -> bool:
    """Return True if a public key is the one of this shop."""
    return public_key == _public_bytes()
