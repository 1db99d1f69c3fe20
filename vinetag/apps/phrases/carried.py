"""Which phrases names carry, and how much those are looked for."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.asking import Known, known_of
from vinetag.apps.phrases.models import PhraseBook
from vinetag.apps.phrases.shelf import Shelf, shelf_of
from vinetag.core.demand import words_of
from vinetag.core.lexicon import load_lexicon

__all__ = ["Carried", "carried_by", "edition_of", "looked_for_with"]

SHORTEST: Final = 4
# So long that hardly any name has it by chance.
SURELY: Final = 8
MOST_WITH: Final = 12


@dataclass(frozen=True, slots=True)
class Carried:
    """The phrase a name carries, and the searches a month of all that is gathered under its head;
    None where they are not known.
    """

    phrase: str
    head: str
    demand: int | None
    figure: Known


def edition_of(project: Project) -> int:
    """Another whenever phrases or their figures are others; 0 where there are none."""
    found = PhraseBook.objects.filter(project=project).values_list("edition", flat=True).first()
    return found or 0


def carried_by(project: Project, labels: Iterable[str]) -> Mapping[str, Carried]:
    """By label, the phrase it is, begins or ends with that is looked for most; labels that carry
    none are left out.
    """
    if not edition_of(project):
        return {}
    shelf = shelf_of(project)
    closed = _closed(shelf)
    if not closed:
        return {}
    view = shelf.usual
    demand, found = shelf.demand(view), shelf.views.get(view)
    words = load_lexicon().words
    carried = {}
    for label in labels:
        at = _carried(label, closed, words)
        if at < 0:
            continue
        head = int(shelf.gathered.heads[at])
        whole = demand[head]
        carried[label] = Carried(
            shelf.phrases[at], shelf.phrases[head],
            None if np.isnan(whole) else int(whole), known_of(found, head),
        )  # fmt: skip
    return carried


def _closed(shelf: Shelf) -> Mapping[str, int]:
    """By phrase closed up, its place; of several the one whose head is looked for most."""
    if "closed" not in shelf.remembered:
        demand = np.nan_to_num(shelf.demand(shelf.usual), nan=-1)
        order = np.argsort(demand[shelf.gathered.heads], kind="stable").tolist()
        found: dict[str, int] = {}
        for at in order:
            text = shelf.phrases[at]
            plain = text.replace(" ", "") if text.isascii() else ""
            if not plain.isalnum():
                plain = "".join(words_of(text))
            if len(plain) >= SHORTEST:
                found[plain] = at
        shelf.remembered["closed"] = found
    closed: Mapping[str, int] = shelf.remembered["closed"]
    return closed


def _carried(label: str, closed: Mapping[str, int], words: Mapping[str, object]) -> int:
    """The place of the phrase carried, the longest; -1 for none."""
    plain = label.replace("-", "")
    if plain in closed:
        return closed[plain]
    cuts = set()
    if "-" in label:
        at = 0
        for part in label.split("-")[:-1]:
            at += len(part)
            cuts.add(at)
    for size in range(len(plain) - 1, SHORTEST - 1, -1):
        for part, rest, cut in (
            (plain[:size], plain[size:], size),
            (plain[-size:], plain[:-size], len(plain) - size),
        ):
            if part in closed and (size >= SURELY or rest in words or cut in cuts):
                return closed[part]
    return -1


def looked_for_with(project: Project, label: str) -> Sequence[tuple[str, Known, int | None]]:
    """What people look for with the words of a name: the phrases that have all words of the one it
    carries: that one, then the most looked for.
    """
    carried = carried_by(project, [label]).get(label)
    if carried is None:
        return []
    shelf = shelf_of(project)
    view = shelf.usual
    demand, found = shelf.demand(view), shelf.views.get(view)
    having = _heads_by_word(shelf)
    first, *others = [having.get(word, set()) for word in words_of(carried.head)] or [set()]
    places = list(first.intersection(*others))
    own = shelf.place[carried.head]
    places.sort(key=lambda at: (at != own, -np.nan_to_num(demand[at], nan=-1), at))
    return [
        (
            shelf.phrases[at], known_of(found, at),
            None if np.isnan(demand[at]) else int(demand[at]),
        )
        for at in places[:MOST_WITH]
    ]  # fmt: skip


def _heads_by_word(shelf: Shelf) -> Mapping[str, set[int]]:
    """By word, the places of the heads that have it."""
    if "by word" not in shelf.remembered:
        found: dict[str, set[int]] = {}
        for at in shelf.heads.tolist():
            for word in words_of(shelf.phrases[at]):
                found.setdefault(word, set()).add(at)
        shelf.remembered["by word"] = found
    by_word: Mapping[str, set[int]] = shelf.remembered["by word"]
    return by_word
