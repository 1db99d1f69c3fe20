"""A file from outside as plain text on disk: unpacked, bounded, in UTF-8."""

from __future__ import annotations

import codecs
import zlib
from collections.abc import Iterator
from pathlib import Path
from typing import BinaryIO, Final

from vinetag.core.errors import CoreError, Problem

__all__ = ["FeedError", "unpack"]

CHUNK: Final = 1 << 20
GZIP: Final = b"\x1f\x8b"
# zlib's way to say: a gzip header stands in front.
WITH_HEADER: Final = 16 + zlib.MAX_WBITS
MARKS: Final = {
    codecs.BOM_UTF16_LE: "utf-16-le",
    codecs.BOM_UTF16_BE: "utf-16-be",
    codecs.BOM_UTF8: "utf-8",
}


class FeedError(CoreError):
    """A file cannot be used at all; what there was before stays in force."""


def unpack(source: BinaryIO, target: Path, most_bytes: int) -> int:
    """Write `source` (plain or gzip, UTF-8, or UTF-16 with its mark) to `target` as UTF-8 and say
    how many bytes that are. Raises FeedError for one that is cut off, broken, or, unpacked, larger
    than `most_bytes`.
    """
    first = source.read(CHUNK)
    pieces = _pieces(first, source)
    if first.startswith(GZIP):
        pieces = _inflated(pieces)
    written, decoder = 0, None
    with target.open("wb") as out:
        for piece in pieces:
            if decoder is None:
                mark = next((m for m in MARKS if piece.startswith(m)), b"")
                decoder = codecs.getincrementaldecoder(MARKS.get(mark, "utf-8"))("replace")
                piece = piece[len(mark) :]
            written += out.write(decoder.decode(piece).replace("\x00", "").encode())
            if written > most_bytes:
                raise FeedError(Problem("file", "feed_large", {"limit": most_bytes // 1_000_000}))
    return written


def _pieces(first: bytes, source: BinaryIO) -> Iterator[bytes]:
    piece = first
    while piece:
        yield piece
        piece = source.read(CHUNK)


def _inflated(pieces: Iterator[bytes]) -> Iterator[bytes]:
    """The plain text of one or more gzip members (RFC 1952), in pieces of bounded size."""
    inflater = zlib.decompressobj(WITH_HEADER)
    began = False
    try:
        for piece in pieces:
            while piece:
                began = True
                yield inflater.decompress(piece, 4 * CHUNK)
                piece = inflater.unconsumed_tail
                if inflater.eof:
                    piece, began = inflater.unused_data, False
                    inflater = zlib.decompressobj(WITH_HEADER)
                    if not piece.startswith(GZIP):
                        piece = b""
    except zlib.error as error:
        raise FeedError(Problem("file", "feed_broken", {"detail": str(error)[:80]})) from error
    if began:
        raise FeedError(Problem("file", "feed_broken", {"detail": "the gzip stream is cut off"}))
