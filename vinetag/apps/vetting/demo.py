"""A register of marks nobody owns, so that the demo has something to look into."""

from __future__ import annotations

import io
import random
from collections.abc import Iterator
from typing import Final

from vinetag.apps.vetting.models import MarkRow
from vinetag.apps.vetting.registers import bring_marks
from vinetag.core.lexicon import load_lexicon

__all__ = ["load_marks"]

COUNT: Final = 6_000
OFFICE: Final = "Saltley Register of Marks"
SEED: Final = 16
SURNAMES: Final = (
    "Abbotsgrove Birchwell Coldharrow Dunmarrow Eastlode Fallowmere Garlock Hexley Ironbrook "
    "Juddwater Kestleby Larkmoor Mossend Netherby Oxcombe Pellbrook Quarrender Ravensoak"
).split()
FIRMS: Final = ("Holdings", "Trading", "Studio", "Partners", "Works", "& Daughters", "Supply")
ENDINGS: Final = "o a ix ora ly ium eno ista able en is ova".split()
TRADES: Final = "paper shop studio works press tools foods supply gardens house music".split()
# Marks beside the demo's own names, so that its vetting has something to say.
BESIDE: Final = (
    ("Inkpoast", "16 35", "registered"), ("Press Room", "41 43", "registered"),
    ("Quiet Skies", "9 41", "pending"), ("Paperposy", "16", "expired"),
    ("Harrow Piano Works", "15 37", "registered"), ("Post & Quill", "16", "registered"),
)  # fmt: skip


def load_marks() -> bool:
    """Once; whether anything was done."""
    if MarkRow.objects.exists():
        return False
    bring_marks(io.BytesIO("\n".join(_lines()).encode()), OFFICE)
    return True


def _lines() -> Iterator[str]:
    rng = random.Random(SEED)  # noqa: S311 - made up
    known = load_lexicon().words
    words = sorted(w for w, one in known.items() if w.isalpha() and len(w) > 3 and 3 < one.zipf < 5)
    yield "number,word,owner,classes,status,filed,registered"
    for number, (word, classes, status) in enumerate(_marks(rng, words), 1):
        owner = f"{rng.choice(SURNAMES)} {rng.choice(FIRMS)}"
        year = rng.randint(2009, 2025)
        day = f"{year}-{rng.randint(1, 12):02}-{rng.randint(1, 28):02}"
        registered = f"{year + 1}{day[4:]}" if status in ("registered", "expired") else ""
        yield f"S{number:06},{word},{owner},{classes},{status},{day},{registered}"


def _marks(rng: random.Random, words: list[str]) -> Iterator[tuple[str, str, str]]:
    yield from BESIDE
    for _ in range(COUNT - len(BESIDE)):
        one, two, kind = rng.choice(words), rng.choice(words), rng.random()
        if kind < 0.2:
            word = one.title()
        elif kind < 0.6:
            word = f"{one} {two}".title()
        elif kind < 0.8:
            word = (one[: rng.randint(3, 6)] + rng.choice(ENDINGS)).title()
        else:
            word = f"{one} {rng.choice(TRADES)}".title()
        classes = sorted(rng.sample(range(1, 46), rng.choice((1, 1, 2, 3))))
        status = rng.choices(("registered", "pending", "expired", "cancelled"), (70, 10, 12, 8))[0]
        yield word, " ".join(map(str, classes)), status
