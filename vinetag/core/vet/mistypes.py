"""What people type who mean a name: heard and written wrong, slips of the fingers, letters that
look alike, words in another form or order, each by how many would.

How often a finger slips is measured: Dhakal, Feit, Kristensson and Oulasvirta, Observations on
typing from 136 million keystrokes (CHI 2018), find 1.17 wrong letters of a hundred left in what
people type. How often people read a name wrong, or have it in another form in mind, nobody has
measured: those shares are judgements, and few.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal, NamedTuple, get_args

from vinetag.core.grade import Reading, misspellings
from vinetag.core.names import FullName, is_ldh_label, parse_label
from vinetag.core.vet.disguises import disguises

__all__ = ["MISTYPE_KINDS", "Land", "Mistype", "Shares", "elsewhere", "mistypes"]

MistypeKind = Literal[
    "heard", "slip", "look", "form", "hyphen", "order", "aloud", "extension", "disguise"
]
MISTYPE_KINDS: Final[tuple[MistypeKind, ...]] = get_args(MistypeKind)

# Of those who mean a name, so many have it from hearing; all others have read it.
HEARD: Final = 0.35
SLIP: Final = 0.0117
# Of slips: another key, a letter left out, one too many, two turned. After the same study, in which
# the first are most.
OTHER_KEY, LEFT_OUT, TWICE, TURNED = 0.42, 0.28, 0.18, 0.12
LOOKS: Final = 0.004
# Few take a letter for a digit in a word.
DIGITS: Final = 0.1
FORM: Final = 0.012
HYPHENATED: Final = 0.008
OTHER_ORDER: Final = 0.006
ALOUD: Final = 0.002
# What fewer than these would type is not told.
LEAST: Final = 0.00005
MOST_DISGUISES: Final = 8
NONE: Final[Mapping[str, float]] = {}

ROWS: Final = ("1234567890", "qwertyuiop", "asdfghjkl", "zxcvbnm")
# Read one for the other in common faces; within a to z and the digits.
ALIKE: Final[Mapping[str, tuple[str, ...]]] = {
    "rn": ("m",), "m": ("rn",), "cl": ("d",), "d": ("cl",), "vv": ("w",), "w": ("vv",),
    "l": ("i", "1"), "i": ("l", "1"), "o": ("0",), "0": ("o",), "1": ("l", "i"), "nn": ("m",),
    "ij": ("y",), "cj": ("g",),
}  # fmt: skip


def _neighbours() -> dict[str, str]:
    """By key, those beside it on a keyboard, in its row and the rows above and below."""
    found: dict[str, str] = {}
    for r, row in enumerate(ROWS):
        for c, key in enumerate(row):
            beside = [row[c - 1] if c else "", row[c + 1] if c + 1 < len(row) else ""]
            # Rows stand half a key to the right of those above.
            above = ROWS[r - 1][c : c + 2] if r else ""
            below = ROWS[r + 1][max(0, c - 1) : c + 1] if r + 1 < len(ROWS) else ""
            found[key] = "".join([*beside, above, below])
    return found


NEIGHBOURS: Final = _neighbours()


@dataclass(frozen=True, slots=True)
class Mistype:
    """What `share` of those who mean a name type instead, 0 to 1, and the likeliest reason;
    `extension` is the one typed with it.
    """

    label: str
    kind: MistypeKind
    share: float
    extension: str = "com"

    @property
    def full_name(self) -> FullName:
        """What is typed."""
        return FullName(self.label, self.extension)


class Shares(NamedTuple):
    """Of those who mean a name: the share that types something else, and of that what lands with
    somebody who uses it, on a name that is for sale, with nobody, and where nobody knows.
    """

    whole: float
    taken: float
    parked: float
    free: float
    unknown: float


def mistypes(
    reading: Reading, extension: str = "com", most: int = 60, others: Mapping[str, float] = NONE
) -> list[Mistype]:
    """The likeliest, most typed first, at most `most`, and behind them a few that look the same in
    other letters. Each is a full name that can be registered, once, with the shares of all ways to
    it; nothing for names in other letters than a to z. `others` are extensions the name is typed
    with instead, by the share who would.
    """
    if reading.foreign:
        return []
    label = reading.label
    # Of a name with accents the same without them is what is typed most.
    meant = parse_label(reading.accented or label)
    shares: dict[str, dict[MistypeKind, float]] = {}
    for kind, text, share in (
        *(("heard", text, share * HEARD) for text, share in misspellings(reading, 40)),
        *_slips(label),
        *_looks(label),
        *_words(reading, extension),
    ):
        if text != meant and is_ldh_label(text):
            kinds = shares.setdefault(text, {})
            kinds[kind] = kinds.get(kind, 0.0) + share
    found = [
        Mistype(
            text, max(kinds, key=lambda k: (kinds[k], k)), min(1.0, sum(kinds.values())), extension
        )
        for text, kinds in shares.items()
    ]
    found += [Mistype(meant, "extension", share, other) for other, share in others.items()]
    ranked = sorted(found, key=lambda one: (-one.share, one.label, one.extension))
    kept = [one for one in ranked[:most] if one.share >= LEAST]
    dressed = [] if reading.accented else disguises(label)[:MOST_DISGUISES]
    return kept + [Mistype(text, "disguise", LEAST, extension) for text in dressed]


Land = Literal["taken", "parked", "free"]


def elsewhere(found: Sequence[Mistype], held: Mapping[FullName, Land]) -> Shares:
    """What becomes of those who mistype; `held` says of a full name who is there, nothing where
    that is not known.
    """
    sums: dict[Land | None, float] = {"taken": 0.0, "parked": 0.0, "free": 0.0, None: 0.0}
    for one in found:
        sums[held.get(one.full_name)] += one.share
    whole = sum(sums.values())
    # More than all cannot be: shares of unlikely ways are judgements.
    scale = min(1.0, 1 / whole) if whole else 1.0
    return Shares(whole * scale, *(scale * sums[key] for key in sums))


Found = tuple[MistypeKind, str, float]


def _slips(label: str) -> Iterator[Found]:
    for at, letter in enumerate(label):
        before, after = label[:at], label[at + 1 :]
        keys = NEIGHBOURS.get(letter, "")
        for key in keys:
            yield "slip", before + key + after, SLIP * OTHER_KEY / len(keys)
        yield "slip", before + after, SLIP * LEFT_OUT
        yield "slip", before + letter + letter + after, SLIP * TWICE
        if after and after[0] != letter:
            yield "slip", before + after[0] + letter + after[1:], SLIP * TURNED


def _looks(label: str) -> Iterator[Found]:
    for letters, others in ALIKE.items():
        at = label.find(letters)
        while at >= 0:
            for other in others:
                text = label[:at] + other + label[at + len(letters) :]
                share = LOOKS * (DIGITS if other.isdigit() else 1)
                yield "look", text, share * (1 - HEARD) / len(others)
            at = label.find(letters, at + 1)


def _words(reading: Reading, extension: str) -> Iterator[Found]:
    """In another form, with or without a hyphen, in another order, with the extension said."""
    label = reading.label
    words = [word for _, word in reading.words if word]
    if label.endswith("s") and not label.endswith("ss"):
        yield "form", label[:-1], FORM
    elif label.isalpha():
        yield "form", f"{label}s", FORM
    if "-" in label:
        yield "hyphen", label.replace("-", ""), HYPHENATED * 2
    elif len(words) > 1 and "".join(words) == label:
        for at in range(1, len(words)):
            text = f"{''.join(words[:at])}-{''.join(words[at:])}"
            yield "hyphen", text, HYPHENATED / (len(words) - 1)
    if len(words) == 2 and "".join(words) == label:
        yield "order", words[1] + words[0], OTHER_ORDER
    yield "aloud", label + extension.replace(".", ""), ALOUD
