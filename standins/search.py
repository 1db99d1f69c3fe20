"""A simulated search service that speaks OpenSearch 1.1 with results as Atom.

Under /search/description.xml its description, under /search its results: of names that are
registered and have a site, that site first; of others, pages that speak of their words.
"""

from __future__ import annotations

import hashlib
from collections.abc import Awaitable, Callable, Mapping
from typing import Final
from xml.sax.saxutils import escape, quoteattr

from aiohttp import web

from standins.world import World

__all__ = ["add_search"]

SUBJECTS: Final = (
    ("handmade paper and letterpress cards", "stationery, prints and writing things by post"),
    ("tools for gardens", "seeds, spades and advice for small gardens"),
    ("software for offices", "invoices, bookkeeping and reports for small companies"),
    ("travel in the hills", "walks, huts and tours for those on foot"),
    ("lessons and courses", "teachers near you, and lessons by video"),
    ("food delivered", "boxes of vegetables, bread and coffee each week"),
    ("music and concerts", "instruments, tuning, lessons and small concerts"),
    ("stars and telescopes", "what is to be seen in the night sky this month"),
    ("clothes and wool", "knitwear and workwear made to last"),
    ("houses and repairs", "builders, roofers and painters of the region"),
)
TAKEN_FOR: Final = 4.2
PLACES: Final = ("journal", "forum", "atlas", "gazette", "almanac", "notebook", "ledger", "wiki")

Troubled = Callable[[web.Request, str], Awaitable[web.StreamResponse | None]]


def add_search(
    app: web.Application, world: World, fault_of: Troubled, registered: Callable[[str], bool]
) -> None:
    """Its addresses."""

    async def description(request: web.Request) -> web.StreamResponse:
        if (fault := await fault_of(request, "description")) is not None:
            return fault
        address = f"{request.url.origin()}/search?q={{searchTerms}}&n={{count?}}&p={{startPage?}}"
        text = (
            '<?xml version="1.0" encoding="UTF-8"?>\n'
            '<OpenSearchDescription xmlns="http://a9.com/-/spec/opensearch/1.1/">'
            "<ShortName>Lodestone</ShortName><Description>Searches made-up pages</Description>"
            f'<Url type="application/atom+xml" template={quoteattr(address)}/>'
            "</OpenSearchDescription>"
        )
        return web.Response(text=text, content_type="application/opensearchdescription+xml")

    async def results(request: web.Request) -> web.StreamResponse:
        if (fault := await fault_of(request, "results")) is not None:
            return fault
        words = " ".join(request.query.get("q", "").lower().split())[:200]
        count = request.query.get("n", "10")
        most = min(50, int(count)) if count.isdecimal() else 10
        text = _feed(words, most, world, registered)
        return web.Response(text=text, content_type="application/atom+xml")

    app.router.add_get("/search/description.xml", description)
    app.router.add_get("/search", results)


def _feed(words: str, most: int, world: World, registered: Callable[[str], bool]) -> str:
    closed = "".join(c for c in words if c.isalnum())
    found, whole = [], _count(words, closed, world)
    one = " " not in words
    if one and registered(closed) and _chance("site", closed) < 0.55:
        title, about = SUBJECTS[int(_chance("subject", closed) * len(SUBJECTS))]
        found.append((f"{closed.title()}: {title}", about, f"https://www.{closed}.example/"))
    for place in range(max(0, min(most, whole, 10) - len(found))):
        title, about = SUBJECTS[int(_chance(f"{place}", words) * len(SUBJECTS))]
        where = PLACES[int(_chance(f"place {place}", words) * len(PLACES))]
        found.append((f"On {words} and {title}", about, f"https://{where}{place}.example/{closed}"))
    entries = "".join(
        f"<entry><title>{escape(title)}</title><summary>{escape(about)}</summary>"
        f"<link href={quoteattr(link)}/></entry>"
        for title, about, link in found
    )
    meant = _meant(closed, world.common) if one else ""
    query = f'<os:Query role="correction" searchTerms={quoteattr(meant)}/>' if meant else ""
    return (
        '<?xml version="1.0" encoding="UTF-8"?>\n<feed xmlns="http://www.w3.org/2005/Atom" '
        f'xmlns:os="http://a9.com/-/spec/opensearch/1.1/"><title>{escape(words)}</title>'
        f"<os:totalResults>{whole}</os:totalResults>{query}{entries}</feed>"
    )


def _count(words: str, closed: str, world: World) -> int:
    """How many pages speak of it: many of common words, few of what nobody wrote before."""
    parts = words.split()
    if len(parts) == 1 and closed not in world.common:
        return int(60 * _chance("count", closed) ** 3)
    common = sum(world.common.get(part, 1.0) for part in parts) / max(1, len(parts))
    return int(10 ** (common - 0.2 * len(parts)) * (0.5 + _chance("count", words)))


def _meant(closed: str, common: Mapping[str, float]) -> str:
    """The commonest word a letter away, of what is none itself."""
    if len(closed) < 5 or common.get(closed, 0.0) > 2:
        return ""
    letters = "abcdefghijklmnopqrstuvwxyz"
    near = {closed[:i] + closed[i + 1 :] for i in range(len(closed))}
    near |= {closed[:i] + c + closed[i + 1 :] for i in range(len(closed)) for c in letters}
    near |= {closed[:i] + c + closed[i:] for i in range(len(closed) + 1) for c in letters}
    best = max(near, key=lambda word: (common.get(word, 0.0), word))
    return best if common.get(best, 0.0) >= TAKEN_FOR else ""


def _chance(kind: str, key: str) -> float:
    digest = hashlib.blake2b(f"search/{kind}/{key}".encode(), digest_size=7).digest()
    return int.from_bytes(digest, "big") / 2**56
