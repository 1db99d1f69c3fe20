"""How fast names like one go: from what this installation has seen of all names it follows, by its
own answers and by zone files.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from datetime import datetime
from typing import Final, NamedTuple

from django.core.cache import cache
from django.db.models import OuterRef, Subquery
from django.db.models.functions import Length

from vinetag.apps.availability.models import Lookup
from vinetag.apps.market.snapshots import followed_in_zones
from vinetag.apps.naming.models import Candidate, Project
from vinetag.core.names import unicode_label

__all__ = ["GoingLike", "going_like"]

# Letters that are alike, and grades: from each to before the next.
LENGTHS: Final = (1, 4, 6, 8, 11, 15, 64)
GRADES: Final = (0, 40, 60, 75, 101)
MOST: Final = 50_000
# So many take a while to go through: they stand for some minutes.
MANY: Final = 2_000
STAND: Final = 600
DAY: Final = 86_400


class GoingLike(NamedTuple):
    """Of `names` like it that were open, the share taken within `days`, from 0 to 1, with its
    range; which names: under its `extension` ("" for all), with so many letters, and, where they
    are not None, with so many `words` and a grade from and below.
    """

    days: int
    share: float
    low: float
    high: float
    names: int
    extension: str
    letters_from: int
    letters_to: int
    words: int | None
    grade_from: int | None
    grade_to: int | None


class Followed(NamedTuple):
    """A full name that was open: for how many days it was followed, and whether it was taken then;
    its words and its grade where it was made here.
    """

    extension: str
    words: int | None
    grade: float | None
    days: float
    taken: bool


class Like(NamedTuple):
    """Which names are taken to be alike."""

    extension: str
    words: int | None
    grade_from: int | None
    grade_to: int | None

    def among(self, followed: Iterable[Followed]) -> Iterator[Followed]:
        for one in followed:
            if self.extension and one.extension != self.extension:
                continue
            if self.words is not None and one.words != self.words:
                continue
            if self.grade_from is not None and self.grade_to is not None:
                grade = one.grade
                if grade is None or not self.grade_from <= grade < self.grade_to:
                    continue
            yield one


def going_like(project: Project, label: str, extension: str) -> list[GoingLike]:
    """After 7, 30 and 90 days, as far as names were followed; of names with about as many letters
    under the same extension, with as many words and about the grade, and of less and less like it
    where too few of those were followed. Nothing where too few of any were.
    """
    # Only who asks needs what it is worked out with.
    from vinetag.core.market.going import Seen, going

    letters = len(unicode_label(label).replace("-", ""))
    place = next(n for n in range(len(LENGTHS)) if letters < LENGTHS[n + 1])
    low, high = LENGTHS[place], LENGTHS[place + 1] - 1
    followed = _followed(low, high)
    for like in _likes(project, label, extension):
        found = going([Seen(one.days, one.taken) for one in like.among(followed)])
        if found:
            return [
                GoingLike(g.days, g.share, g.low, g.high, g.names, like.extension, low, high,
                          like.words, like.grade_from, like.grade_to)
                for g in found
            ]  # fmt: skip
    return []


def _likes(project: Project, label: str, extension: str) -> Iterator[Like]:
    """From the most alike to the least."""
    made = project.candidates.filter(label=label).values_list("words", "grade").first()
    if made is not None and made[0]:
        words, grade = made
        place = max(n for n, least in enumerate(GRADES[:-1]) if grade >= least)
        yield Like(extension, words, GRADES[place], GRADES[place + 1])
        yield Like(extension, words, None, None)
    yield Like(extension, None, None, None)
    yield Like("", None, None, None)


def _followed(low: int, high: int) -> Sequence[Followed]:
    """All names of so many letters that were open once, a full name once, whichever project asked:
    the one that followed it longest.
    """
    kept = cache.get(f"going:{low}:{high}")
    if kept is not None:
        return [Followed(*row) for row in kept]
    made = Candidate.objects.filter(project=OuterRef("project"), label=OuterRef("label"))
    rows = (
        Lookup.objects.filter(open_since__isnull=False, imported=False)
        .annotate(letters=Length("label"))
        .filter(letters__gte=low, letters__lte=high)
        .annotate(
            words=Subquery(made.values("words")[:1]), grade=Subquery(made.values("grade")[:1])
        )
    )
    spells: dict[tuple[str, str], Spell] = {}
    fields = ("label", "extension", "open_since", "open_until", "asked_at", "words", "grade")
    for label, extension, since, until, asked, words, grade in rows.values_list(*fields)[:MOST]:
        spell = Spell(since, until or asked or since, until is not None, words or None, grade)
        before = spells.get((label, extension))
        if before is None or spell.lasted > before.lasted:
            spells[label, extension] = spell
    found = [
        Followed(extension, spell.words, spell.grade, spell.lasted, spell.taken)
        for (_, extension), spell in _longer_by_zones(spells).items()
    ]
    if len(found) > MANY:
        cache.set(f"going:{low}:{high}", found, STAND)
    return found


class Spell(NamedTuple):
    """From when to when a name was followed, and whether it was taken at the end."""

    since: datetime
    until: datetime
    taken: bool
    words: int | None
    grade: float | None

    @property
    def lasted(self) -> float:
        """Days."""
        return (self.until - self.since).total_seconds() / DAY


def _longer_by_zones(spells: dict[tuple[str, str], Spell]) -> dict[tuple[str, str], Spell]:
    """Zone files of later days follow names that nobody asked about since."""
    asked: dict[str, dict[str, datetime]] = {}
    for (label, extension), spell in spells.items():
        if not spell.taken:
            asked.setdefault(extension, {})[label] = spell.until
    for extension, labels in asked.items():
        for label, (at, taken) in followed_in_zones(extension, labels).items():
            spell = spells[label, extension]
            spells[label, extension] = spell._replace(until=max(at, spell.until), taken=taken)
    return spells
