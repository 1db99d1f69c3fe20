"""The simulated world: which names are registered, since when, until when, and by whom.

Nothing is stored: every fact follows from the seed and the name, so any name can be asked for and
the answer stays the same. Short and common words are taken, odd ones mostly free.
"""

from __future__ import annotations

import gzip
import hashlib
import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import lru_cache
from importlib.resources import files
from typing import Protocol, TypeVar

__all__ = ["EXTENSIONS", "Bought", "Offer", "Registration", "World", "leaving_since", "years_on"]

Item = TypeVar("Item")


def _extensions() -> dict[str, tuple[str, float, int]]:
    text = files("standins").joinpath("data/extensions.tsv").read_text("ascii")
    rows = (line.split("\t") for line in text.splitlines())
    return {name: (registry, float(sought), int(year)) for name, registry, sought, year in rows}


# extension -> (registry, how sought after it is against .com, what a year costs)
EXTENSIONS = _extensions()
REGISTRIES = tuple(dict.fromkeys(registry for registry, _, _ in EXTENSIONS.values()))
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
SERVING = ("lantern-dns", "harbourhost", "oxbow-net", "tidepool")
UNDELEGATED = frozenset({"client hold", "redemption period", "pending delete", "reserved"})
# Of those registered, how many are let go within a year of LAPSES, and how many are on hold.
LAPSING, ON_HOLD, FOR_SALE, HELD_BACK = 0.06, 0.02, 0.05, 0.004
LAPSES = datetime(2026, 9, 5, tzinfo=UTC)
GRACE, REDEMPTION, DELETE = timedelta(days=38), timedelta(days=30), timedelta(days=5)
FIRST_DAY = datetime(1996, 3, 1, tzinfo=UTC)
LAST_DAY = datetime(2026, 6, 1, tzinfo=UTC)
# Of what is free by then this share goes within so many days.
LATE, LATE_DAYS = 0.6, 1_000
# Where nearly everything anybody would think of has long been taken.
LARGE = {"com": 1.0, "net": 0.94, "org": 0.93}


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
    keys: tuple[tuple[str, ...], ...] = ()

    @property
    def signed(self) -> bool:
        """Whether the registry has a key of it (RFC 5910)."""
        return bool(self.keys)

    @property
    def released(self) -> datetime:
        """When a name on its way out becomes free."""
        return self.expires + GRACE + REDEMPTION + DELETE

    @property
    def delegated(self) -> bool:
        """Whether name servers know it: not while it is on hold or on its way out."""
        return not UNDELEGATED.intersection(self.status)


@dataclass(frozen=True, slots=True)
class Offer:
    """What a seller says: `kind` is usual, premium, resale, reserved or none; prices in euros."""

    kind: str
    first_year: float | None = None
    renewal: float | None = None
    asked: float | None = None


class Bought(Protocol):
    """Names somebody bought in the simulation."""

    def registration(self, name: str, now: datetime) -> Registration | None:
        """Of a full name as of `now`, None where nobody bought it."""

    def under(self, extension: str, now: datetime) -> Iterator[tuple[str, tuple[str, ...]]]:
        """Labels of an extension that name servers know by then, and whose servers."""


class World:
    """All registrations at any moment, from a seed."""

    def __init__(self, seed: int = 8) -> None:
        self._seed = seed
        text = files("standins").joinpath("data/words.tsv").read_text("ascii")
        rows = (line.split("\t") for line in text.splitlines())
        self._zipf = {word: int(zipf) / 10 for word, zipf in rows}
        packed = files("standins").joinpath("data/taken.tsv.gz").read_bytes()
        lines = (line.split("\t") for line in gzip.decompress(packed).decode("ascii").splitlines())
        self._wanted = {label: int(common) for label, common in lines}
        self._likelihood = lru_cache(100_000)(self._uncached_likelihood)
        # What was bought in the simulation stands before what follows from the seed.
        self.bought: Bought | None = None

    @property
    def common(self) -> Mapping[str, float]:
        """Words people use, by their Zipf values."""
        return self._zipf

    def registration(self, label: str, extension: str, now: datetime) -> Registration | None:
        """The registration of a name as of `now`, or None while it is free."""
        name = f"{label}.{extension}"
        if self.bought and (owned := self.bought.registration(name, now)):
            return owned
        created = self._created(label, extension)
        if created is None or created > now:
            return None
        lapse = self._lapse(name)
        if lapse and now >= lapse + GRACE + REDEMPTION + DELETE:
            return None
        term = (1, 1, 1, 1, 2, 3, 5)[int(7 * self._chance("term", name))]
        years = term
        while years_on(created, years) <= now:
            years += term
        changed, expires = years_on(created, years - term), years_on(created, years)

        def pick(kind: str, items: Sequence[Item]) -> Item:
            return items[int(len(items) * self._chance(kind, name))]

        last = pick("last", HOLDERS_LAST)
        status: tuple[str, ...] = pick(
            "status",
            (("client transfer prohibited",), ("active",), ("client transfer prohibited",)),
        )
        if self._chance("hold", name) < ON_HOLD:
            status = ("client hold",)
        if lapse and now >= lapse:
            changed, expires, status = _leaving(lapse, now)
        server = self._host(name)
        return Registration(
            name=name,
            created=created,
            changed=changed,
            expires=expires,
            status=status,
            holder=f"{pick('first', HOLDERS_FIRST)} {last}",
            organisation=f"{last} {pick('company', COMPANIES)}",
            country=pick("country", ("IE", "GB", "US", "NZ", "CA", "FR", "NL", "DE")),
            registrar=pick("registrar", REGISTRARS),
            nameservers=(f"ns1.{server}.example", f"ns2.{server}.example"),
        )

    def delegated_for(
        self, label: str, extension: str
    ) -> tuple[datetime, datetime | None, str] | None:
        """From when until when name servers know a name, and whose they are; None for one that is
        never registered, or on hold.
        """
        name = f"{label}.{extension}"
        created = self._created(label, extension)
        if created is None or self._chance("hold", name) < ON_HOLD:
            return None
        lapse = self._lapse(name)
        return created, lapse and lapse + GRACE, self._host(name)

    def _created(self, label: str, extension: str) -> datetime | None:
        """When it was registered, or will be: of what was free on LAST_DAY some goes within the
        next years, the sooner the more it is sought after.
        """
        if not self._is_taken(label, extension):
            sought = EXTENSIONS[extension][1] * self._likelihood(label)
            late = self._chance("late", f"{label}.{extension}")
            if len(label) < 3 or late >= LATE * sought:
                return None
            return LAST_DAY + timedelta(days=LATE_DAYS * late / (LATE * sought))
        span = (LAST_DAY - FIRST_DAY).total_seconds()
        sought = EXTENSIONS[extension][1] * self._likelihood(label)
        age = self._chance("age", f"{label}.{extension}") ** (0.6 + sought)
        return FIRST_DAY + timedelta(seconds=int(span * (1 - age)))

    def _host(self, name: str) -> str:
        return SERVING[int(len(SERVING) * self._chance("host", name))]

    def leaving(self, label: str, extension: str, now: datetime) -> Registration | None:
        """The registration of a name that was let go and is not free yet, None for all others."""
        lapse = self._lapse(f"{label}.{extension}")
        if lapse is None or not lapse <= now < lapse + GRACE + REDEMPTION + DELETE:
            return None
        return self.registration(label, extension, now)

    def asked(self, label: str, extension: str, now: datetime) -> float | None:
        """What the holder of a name asks for it, in euros, None where it is not for sale. The more
        a label is sought after, the more.
        """
        name = f"{label}.{extension}"
        if self._chance("for sale", name) >= FOR_SALE:
            return None
        held = self.registration(label, extension, now)
        if held is None or not held.delegated:
            return None
        sought = self._likelihood(label) * EXTENSIONS[extension][1]
        return round(10 ** (1.9 + 1.4 * self._chance("asked", name) + 1.2 * sought), -1) + 0.0

    def is_reserved(self, label: str, extension: str) -> bool:
        """Whether the registry holds the name back."""
        name = f"{label}.{extension}"
        short = len(label) < 3 and extension not in ("com", "net", "org")
        if self._is_taken(label, extension):
            return False
        return short or self._chance("reserved", name) < HELD_BACK

    def offer(self, label: str, extension: str, now: datetime) -> Offer:
        """What a seller would take for the name at `now`."""
        year = EXTENSIONS[extension][2]
        name = f"{label}.{extension}"
        held = self.registration(label, extension, now)
        if held:
            asked = self.asked(label, extension, now)
            return Offer("none") if asked is None else Offer("resale", year, year, asked)
        if self.is_reserved(label, extension):
            return Offer("reserved")
        wanted = self._likelihood(label)
        if extension != "com" and self._chance("premium", name) < 0.3 * wanted * wanted:
            price = round(year * (3 + 60 * self._chance("premium price", name)))
            return Offer("premium", float(price), float(price))
        return Offer("usual", round(year * 0.8, 2), float(year))

    def _lapse(self, name: str) -> datetime | None:
        """When the holder lets the name go, if within a year of LAPSES."""
        if self._chance("lapse", name) >= LAPSING:
            return None
        return LAPSES + timedelta(days=int(365 * self._chance("lapse day", name)))

    def _is_taken(self, label: str, extension: str) -> bool:
        """Sought-after labels go first in .com; who holds that often holds the next one too."""
        likely = self._likelihood(label)
        in_com = self._chance("com", label) < likely
        if extension == "com":
            return in_com
        sought = EXTENSIONS[extension][1]
        if label in self._wanted and extension in LARGE:
            return self._chance("other", f"{label}.{extension}") < likely * LARGE[extension]
        share = sought * (1.5 if in_com else 0.45)
        return self._chance("other", f"{label}.{extension}") < min(0.995, likely * share)

    def _uncached_likelihood(self, label: str) -> float:
        """How likely the label is registered in .com, 0 to 1."""
        letters = label.replace("-", "")
        length = len(letters)
        if label in self._wanted:
            # The commoner and the shorter, the surer.
            base = 0.93 + 0.006 * self._wanted[label] + 0.002 * max(0, 12 - length)
        elif length <= 3:
            base = 0.995
        elif length == 4:
            base = 0.96
        else:
            base = self._of_words(letters)
        if "-" in label:
            base *= 0.3
        if not letters.isalpha() and any(c.isdigit() for c in letters):
            base *= 0.4
        return min(0.997, max(0.002, base))

    def _of_words(self, letters: str) -> float:
        """How likely a longer label is registered, by the words that stand in it."""
        words, strange = self._split(letters)
        length = len(letters)
        if strange:
            return 0.78 * math.exp(-0.42 * (length - 5)) + (0.10 if strange < length / 2 else 0.0)
        if len(words) == 1:
            return 0.99 if self._zipf[words[0]] >= 3 else 0.93
        common = sum(self._zipf[w] for w in words) / len(words)
        base = 0.52 + 0.13 * (common - 4.4) - 0.022 * (length - 9)
        return base if len(words) == 2 else base * 0.42 ** (len(words) - 2)

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


def _leaving(lapse: datetime, now: datetime) -> tuple[datetime, datetime, tuple[str, ...]]:
    """When it was last changed, when it expired, and its status, for a name let go at `lapse`."""
    if now < lapse + GRACE:
        return lapse, lapse, ("auto renew period",)
    if now < lapse + GRACE + REDEMPTION:
        return lapse + GRACE, lapse, ("redemption period",)
    return lapse + GRACE + REDEMPTION, lapse, ("pending delete",)


def leaving_since(
    lapse: datetime, now: datetime, *, let_go: bool = False
) -> tuple[datetime, tuple[str, ...]] | None:
    """When a name not renewed at `lapse` was last changed and its status, None once it is free. One
    that was `let_go` is redeemable at once.
    """
    if let_go:
        lapse -= GRACE
    if now >= lapse + GRACE + REDEMPTION + DELETE:
        return None
    changed, _, status = _leaving(lapse, now)
    return changed, status


def years_on(moment: datetime, years: int) -> datetime:
    """The same day `years` later; 29 February becomes 28."""
    try:
        return moment.replace(year=moment.year + years)
    except ValueError:
        return moment.replace(year=moment.year + years, day=28)
