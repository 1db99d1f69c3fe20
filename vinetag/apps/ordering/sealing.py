"""Personal data at rest: encrypted and signed (Fernet: AES-128-CBC with HMAC-SHA256) with keys from
the settings. The first key seals, every one of them opens, so that keys can be changed.
"""

from __future__ import annotations

import base64
import hashlib
import json
from functools import lru_cache
from typing import Any

from cryptography.fernet import Fernet, InvalidToken, MultiFernet
from django.conf import settings

__all__ = ["SealError", "opened", "sealed"]


class SealError(Exception):
    """What is stored cannot be opened with the keys of the settings, or is someone else's."""


@lru_cache(4)
def _keys(words: tuple[str, ...]) -> MultiFernet:
    digests = (hashlib.sha256(b"contacts:" + word.encode()).digest() for word in words)
    return MultiFernet([Fernet(base64.urlsafe_b64encode(digest)) for digest in digests])


def sealed(owner_id: int, document: object) -> bytes:
    """A document nobody can read without the key, bound to its owner."""
    text = json.dumps([owner_id, document], ensure_ascii=False).encode()
    return _keys(tuple(settings.CONTACT_KEYS)).encrypt(text)


def opened(owner_id: int, seal: bytes | memoryview) -> Any:
    """The document. Raises SealError."""
    try:
        text = _keys(tuple(settings.CONTACT_KEYS)).decrypt(bytes(seal))
        owner, document = json.loads(text)
    except (InvalidToken, ValueError, TypeError) as error:
        raise SealError("It cannot be opened with the keys there are.") from error
    if owner != owner_id:
        raise SealError("It is someone else's.")
    return document
