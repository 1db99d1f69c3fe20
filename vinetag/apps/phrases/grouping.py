"""The groups of a project's phrases, and what one phrase of each would cover of the rest."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.asking import PhraseLine, lines_of, view_of
from vinetag.apps.phrases.shelf import Shelf, shelf_of
from vinetag.core.demand import Cover, covered, covers, head_of

__all__ = ["Candidate", "Group", "GroupedLine", "Groups", "groups_of"]

MOST_GROUPS: Final = 300
MOST_SHOWN: Final = 40
CANDIDATES: Final = 8


@dataclass(frozen=True, slots=True)
class GroupedLine:
    """A phrase of a group, and the shares of the group's demand and of all it would cover."""

    line: PhraseLine
    in_group: float
    of_all: float


@dataclass(frozen=True, slots=True)
class Group:
    """Phrases that belong together: the `head` covers most of them; `cover` says why. `lines` are
    those most looked for, `count` all; of `unknown` no figure is known.
    """

    head: str
    demand: int
    share: float
    count: int
    unknown: int
    cover: Cover
    lines: Sequence[GroupedLine]


@dataclass(frozen=True, slots=True)
class Candidate:
    """A phrase that could carry the whole, and why."""

    line: PhraseLine
    cover: Cover


@dataclass(frozen=True, slots=True)
class Groups:
    """The groups at a `cut`, the most looked for first, at most MOST_GROUPS of `count`; phrases
    that could carry all, the best first; `grouped` of `heads` are looked at, those most looked for.
    """

    cut: float
    usual_cut: float
    view: str
    demand: int
    grouped: int
    heads: int
    count: int
    groups: Sequence[Group]
    candidates: Sequence[Candidate]


def groups_of(project: Project, asked_view: str, cut: float | None) -> Groups:
    """The groups of the phrases most looked for."""
    shelf = shelf_of(project)
    view = view_of(shelf, asked_view)
    at = shelf.tree.cut if cut is None else cut
    key = "groups", view, round(at, 3)
    if key not in shelf.remembered:
        # Few of them: a slider is moved.
        for old in [k for k in shelf.remembered if k[0] == "groups"][:-5]:
            del shelf.remembered[old]
        shelf.remembered[key] = _grouped(shelf, view, at)
    found: Groups = shelf.remembered[key]
    return _marked(found, set(project.phrase_choices.values_list("phrase", flat=True)))


def _grouped(shelf: Shelf, view: str, cut: float) -> Groups:
    demand = shelf.demand(view)[list(shelf.grouped)] if shelf.grouped else np.zeros(0)
    wanted = np.nan_to_num(demand)
    whole = float(wanted.sum())
    numbers = shelf.tree.groups(cut)
    of_all = shelf.covers if view == shelf.usual else covers(shelf.space, wanted)
    members: dict[int, list[int]] = {}
    for place, number in enumerate(numbers.tolist()):
        members.setdefault(number, []).append(place)
    ordered = sorted(members.values(), key=lambda own: -float(wanted[own].sum()))
    groups = [
        _group(shelf, view, own, wanted, demand, of_all, whole) for own in ordered[:MOST_GROUPS]
    ]
    everything = list(range(len(shelf.grouped)))
    # Of phrases that cover as much, the one more people look for.
    best = sorted(everything, key=lambda p: (-round(float(of_all[p]), 3), -wanted[p]))
    candidates = [
        Candidate(
            lines_of(shelf, view, [shelf.grouped[place]], set())[0],
            covered(shelf.space, wanted, place, everything),
        )
        for place in best[:CANDIDATES]
    ]
    return Groups(
        round(cut, 3), shelf.tree.cut, view, int(whole), len(shelf.grouped), len(shelf.heads),
        len(ordered), groups, candidates,
    )  # fmt: skip


def _group(
    shelf: Shelf,
    view: str,
    own: list[int],
    wanted: np.ndarray[tuple[int], np.dtype[np.float64]],
    demand: np.ndarray[tuple[int], np.dtype[np.float64]],
    of_all: np.ndarray[tuple[int], np.dtype[np.float64]],
    whole: float,
) -> Group:
    shares = covers(shelf.space, wanted, own)
    if not wanted[own].any():
        # Nobody is known to look for any of them: each counts the same.
        shares = covers(shelf.space, np.ones(len(wanted)), own)
    head = head_of(shares, wanted, own)
    by_place = dict(zip(own, shares.tolist(), strict=True))
    shown = sorted(own, key=lambda place: (place != head, -wanted[place]))[:MOST_SHOWN]
    lines = lines_of(shelf, view, [shelf.grouped[place] for place in shown], set())
    total = float(wanted[own].sum())
    return Group(
        head=shelf.phrases[shelf.grouped[head]],
        demand=int(total),
        share=round(total / whole, 4) if whole else 0.0,
        count=len(own),
        unknown=int(np.isnan(demand[own]).sum()),
        cover=covered(shelf.space, wanted, head, own),
        lines=[
            GroupedLine(line, round(by_place[place], 4), round(float(of_all[place]), 4))
            for line, place in zip(lines, shown, strict=True)
        ],
    )


def _marked(groups: Groups, chosen: set[str]) -> Groups:
    """With what is chosen now."""

    def line(one: PhraseLine) -> PhraseLine:
        return replace(one, chosen=one.phrase in chosen)

    return replace(
        groups,
        groups=[
            replace(g, lines=[replace(one, line=line(one.line)) for one in g.lines])
            for g in groups.groups
        ],
        candidates=[replace(one, line=line(one.line)) for one in groups.candidates],
    )
