"""The simulated world: which names are registered, since when, until when, and by whom.

Nothing is stored: every fact follows from the seed and the name, so any name can be asked for and
the answer stays the same. Short and common words are taken, odd ones mostly free.
"""

from __future__ import annotations

import hashlib
import math
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import lru_cache
from importlib.resources import files

__all__ = ["EXTENSIONS", "Registration", "World"]

# extension -> (registry, how sought after it is against .com)
EXTENSIONS: dict[str, tuple[str, float]] = {
    "com": ("alderway", 1.0),
    "net": ("alderway", 0.46),
    "org": ("commonhall", 0.42),
    "info": ("commonhall", 0.24),
    "ie": ("emeraldnic", 0.20),
    "uk": ("tamarnic", 0.34),
    "co.uk": ("tamarnic", 0.44),
    "nz": ("kauri", 0.12),
    "co.nz": ("kauri", 0.16),
    "ca": ("boreal", 0.26),
    "fr": ("lys", 0.22),
    "nl": ("polder", 0.24),
    "app": ("brightloft", 0.22),
    "dev": ("brightloft", 0.18),
    "page": ("brightloft", 0.08),
    "shop": ("lanternhouse", 0.16),
    "studio": ("lanternhouse", 0.13),
    "club": ("lanternhouse", 0.14),
    "press": ("lanternhouse", 0.07),
    "blog": ("lanternhouse", 0.12),
    "art": ("lanternhouse", 0.13),
    "audio": ("lanternhouse", 0.05),
    "space": ("lanternhouse", 0.10),
    "xyz": ("lanternhouse", 0.20),
}
HOLDERS_FIRST = (
    "Alma Bram Clio Dorrit Edda Fenn Greta Hollis Ines Joss Kerra Lorne Mabli Nico Orla Perrin "
    "Quill Rhona Sorrel Tamsin Ulric Verity Wilmot Xanthe Yorick Zella"
).split()
HOLDERS_LAST = (
    "Abbotsgrove Birchwell Coldharrow Dunmarrow Eastlode Fallowmere Garlock Hexley Ironbrook "
    "Juddwater Kestleby Larkmoor Mossend Netherby Oxcombe Pellbrook Quarrender Ravensoak Saltley"
).split()
COMPANIES = "Holdings,Trading,Studio,Partners,Works,Media,& Daughters,Supply,Group,Press".split(",")
REGISTRARS = ("Gullwing Names", "Port Ferris Registrar", "Slate & Sons", "Nine Oaks Domains")
FIRST_DAY = datetime(1996, 3, 1, tzinfo=UTC)
LAST_DAY = datetime(2026, 6, 1, tzinfo=UTC)


@dataclass(frozen=True, slots=True)
class Registration:
    """One registered name. Times are aware, in UTC; `changed` is the last renewal."""

    name: str
    created: datetime
    changed: datetime
    expires: datetime
    status: tuple[str, ...]
    holder: str
    organisation: str
    country: str
    registrar: str
    nameservers: tuple[str, ...]


class World:
    """All registrations at any moment, from a seed."""

    def __init__(self, seed: int = 7) -> None:
        self._seed = seed
        text = files("standins").joinpath("data/words.tsv").read_text("ascii")
        rows = (line.split("\t") for line in text.splitlines())
        self._zipf = {word: int(zipf) / 10 for word, zipf in rows}
        self._likelihood = lru_cache(100_000)(self._uncached_likelihood)

    def registration(self, label: str, extension: str, now: datetime) -> Registration | None:
        """The registration of a name as of `now`, or None while it is free."""
        if not self._is_taken(label, extension):
            return None
        name = f"{label}.{extension}"
        span = (LAST_DAY - FIRST_DAY).total_seconds()
        sought = EXTENSIONS[extension][1] * self._likelihood(label)
        age = self._chance("age", name) ** (0.6 + sought)
        created = FIRST_DAY + timedelta(seconds=int(span * (1 - age)))
        if created > now:
            return None
        term = (1, 1, 1, 1, 2, 3, 5)[int(7 * self._chance("term", name))]
        years = term
        while _years_on(created, years) <= now:
            years += term
        pick = lambda kind, items: items[int(len(items) * self._chance(kind, name))]  # noqa: E731
        last = pick("last", HOLDERS_LAST)
        server = pick("host", ("lantern-dns", "harbourhost", "oxbow-net", "tidepool"))
        return Registration(
            name=name,
            created=created,
            changed=_years_on(created, years - term),
            expires=_years_on(created, years),
            status=pick(
                "status",
                (("client transfer prohibited",), ("active",), ("client transfer prohibited",)),
            ),
            holder=f"{pick('first', HOLDERS_FIRST)} {last}",
            organisation=f"{last} {pick('company', COMPANIES)}",
            country=pick("country", ("IE", "GB", "US", "NZ", "CA", "FR", "NL", "DE")),
            registrar=pick("registrar", REGISTRARS),
            nameservers=(f"ns1.{server}.example", f"ns2.{server}.example"),
        )

    def _is_taken(self, label: str, extension: str) -> bool:
        """Sought-after labels go first in .com; who holds that often holds the next one too."""
        likely = self._likelihood(label)
        in_com = self._chance("com", label) < likely
        if extension == "com":
            return in_com
        sought = EXTENSIONS[extension][1]
        share = sought * (1.5 if in_com else 0.45)
        return self._chance("other", f"{label}.{extension}") < min(0.995, likely * share)

    def _uncached_likelihood(self, label: str) -> float:
        """How likely the label is registered in .com, 0 to 1."""
        letters = label.replace("-", "")
        words, strange = self._split(letters)
        length = len(letters)
        if length <= 3:
            base = 0.995
        elif length == 4:
            base = 0.96
        elif strange:
            base = 0.78 * math.exp(-0.42 * (length - 5)) + (0.10 if strange < length / 2 else 0.0)
        elif len(words) == 1:
            base = 0.99 if self._zipf[words[0]] >= 3 else 0.93
        else:
            common = sum(self._zipf[w] for w in words) / len(words)
            base = 0.52 + 0.13 * (common - 4.4) - 0.022 * (length - 9)
            base *= 1.0 if len(words) == 2 else 0.42 ** (len(words) - 2)
        if "-" in label:
            base *= 0.3
        if any(c.isdigit() for c in label):
            base *= 0.4
        return min(0.997, max(0.002, base))

    def _split(self, letters: str) -> tuple[list[str], int]:
        """The words of a label with the fewest letters left over, then the fewest words; and the
        number of those letters.
        """
        best: list[tuple[int, float, tuple[str, ...]]] = [(0, 0.0, ())]
        for end in range(1, len(letters) + 1):
            strange, cost, words = best[end - 1]
            found = (strange + 1, cost, words)
            for start in range(max(0, end - 16), end - 1):
                word = letters[start:end]
                if word in self._zipf:
                    strange, cost, words = best[start]
                    price = 12 - self._zipf[word] + (6 if len(word) < 3 else 0)
                    found = min(found, (strange, cost + price, (*words, word)))
            best.append(found)
        strange, _, kept = best[-1]
        return list(kept), strange

    def _chance(self, kind: str, key: str) -> float:
        digest = hashlib.blake2b(f"{self._seed}/{kind}/{key}".encode(), digest_size=7).digest()
        return int.from_bytes(digest, "big") / 2**56


def _years_on(moment: datetime, years: int) -> datetime:
    """The same day `years` later; 29 February becomes 28."""
    try:
        return moment.replace(year=moment.year + years)
    except ValueError:
        return moment.replace(year=moment.year + years, day=28)
