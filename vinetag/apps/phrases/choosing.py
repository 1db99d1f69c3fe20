"""Phrases chosen: to become names, or keywords of the brief; put out of sight, or set apart."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from django.db import transaction

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import brief_of, change_project
from vinetag.apps.phrases.bringing import bump
from vinetag.apps.phrases.models import PhraseChoice
from vinetag.apps.phrases.shelf import shelf_of
from vinetag.core.brief import Brief, brief_document
from vinetag.core.brief.model import Keyword
from vinetag.core.demand import words_of
from vinetag.core.errors import Problem, add_words

__all__ = ["MOST_CHOSEN", "Taken", "as_head", "as_keywords", "choose", "set_apart", "set_aside"]

MOST_CHOSEN: Final = 500
MOST_KEYWORDS: Final = 40
MOST_DECIDED: Final = 20_000
MOST_WORDS: Final = 5
HEAVIEST: Final = 5
TRIES: Final = 3

add_words(
    {
        "choices_many": "At most {limit} phrases can be chosen; these would be {count}.",
        "phrase_foreign": "“{value}” is no phrase of this project.",
        "keyword_phrase": "“{value}” cannot be a keyword: those have one to {limit} words in the "
        "letters a to z.",
        "keywords_full": "A brief has at most {limit} keywords: “{value}” was left out.",
    }
)


@dataclass(frozen=True, slots=True)
class Taken:
    """What became of phrases that were to be keywords: those in the brief now, and why others are
    not.
    """

    project: Project
    taken: Sequence[str]
    problems: Sequence[Problem]


def choose(project: Project, phrases: Sequence[str], *, on: bool) -> int:
    """Choose phrases, or take them off; how many are chosen now. Raises RefusedError."""
    place = shelf_of(project).place if on else {}
    with transaction.atomic():
        Project.objects.select_for_update().get(pk=project.pk)
        there = set(project.phrase_choices.values_list("phrase", flat=True))
        if not on:
            project.phrase_choices.filter(phrase__in=phrases).delete()
            return len(there.difference(phrases))
        foreign = [phrase for phrase in phrases if phrase not in place]
        if foreign:
            problem = Problem("phrases", "phrase_foreign", {"value": foreign[0][:40]})
            raise RefusedError([problem])
        new = [phrase for phrase in dict.fromkeys(phrases) if phrase not in there]
        count = len(there) + len(new)
        if count > MOST_CHOSEN:
            args = {"limit": MOST_CHOSEN, "count": count}
            raise RefusedError([Problem("phrases", "choices_many", args)])
        PhraseChoice.objects.bulk_create([PhraseChoice(project=project, phrase=p) for p in new])
        return count


def set_apart(project: Project, phrases: Sequence[str], *, on: bool) -> None:
    """Gather phrases under none, or under what they belong to again."""
    _decide(project, "apart", phrases, on=on)


def set_aside(project: Project, phrases: Sequence[str], *, on: bool) -> None:
    """Put phrases out of sight, or back."""
    _decide(project, "dropped", phrases, on=on)


def _decide(project: Project, what: str, phrases: Sequence[str], *, on: bool) -> None:
    with transaction.atomic():
        book = bump(project)
        now = dict.fromkeys(getattr(book, what))
        for phrase in phrases:
            if on:
                now[phrase] = None
            else:
                now.pop(phrase, None)
        if len(now) > MOST_DECIDED:
            args = {"limit": MOST_DECIDED, "count": len(now)}
            raise RefusedError([Problem("phrases", "too_many", args)])
        setattr(book, what, list(now))
        book.save(update_fields=[what])


def as_keywords(project: Project, phrases: Sequence[str], view: str, *, weigh: bool) -> Taken:
    """Make phrases keywords of the brief, weighed by demand where `weigh`, from 1 for the least to
    5 for the most, by orders of magnitude. Keywords there already only get their weight. Raises
    RefusedError where none can be one.
    """
    demand = _demand_of(project, phrases, view)
    weights = _weights(demand) if weigh else {}
    problems: list[Problem] = []
    taken: list[str] = []

    def change(brief: Brief) -> Brief:
        keywords = {keyword.words: keyword for keyword in brief.keywords}
        problems.clear()
        taken.clear()
        for phrase in phrases:
            words = tuple(words_of(phrase))
            known = keywords.get(words)
            if not _can_be_keyword(words):
                problems.append(_no_keyword(phrase))
            elif known is None and len(keywords) >= MOST_KEYWORDS:
                args = {"value": phrase[:40], "limit": MOST_KEYWORDS}
                problems.append(Problem("phrases", "keywords_full", args))
            else:
                keyword = known or Keyword(words)
                keywords[words] = replace(keyword, weight=weights.get(phrase, keyword.weight))
                taken.append(phrase)
        if not taken:
            raise RefusedError(problems)
        return replace(brief, keywords=tuple(keywords.values()))

    return Taken(_changed(project, change), taken, problems)


def as_head(project: Project, phrase: str) -> Taken:
    """Make a phrase the head: the first and heaviest keyword of a descriptive brief, so that names
    begin with it as it is. Raises RefusedError where it cannot be one.
    """
    words = tuple(words_of(phrase))
    if not _can_be_keyword(words):
        raise RefusedError([_no_keyword(phrase)])

    def change(brief: Brief) -> Brief:
        others = [keyword for keyword in brief.keywords if keyword.words != words]
        known = next((k for k in brief.keywords if k.words == words), Keyword(words))
        first, limits = replace(known, weight=HEAVIEST), brief.limits
        letters = min(63, max(limits.letters_max, len(first.joined)))
        return replace(
            brief,
            keywords=(first, *others[: MOST_KEYWORDS - 1]),
            purpose="descriptive",
            limits=replace(limits, letters_max=letters, words=max(limits.words, len(words))),
        )

    return Taken(_changed(project, change), [phrase], [])


def _changed(project: Project, change: Callable[[Brief], Brief]) -> Project:
    """With another brief; one changed elsewhere meanwhile is changed as it is by then. Raises
    ConflictError where somebody is always quicker.
    """
    for left in reversed(range(TRIES)):
        document = brief_document(change(brief_of(project)))
        seen = {"version": project.version}
        try:
            return change_project(project=project, name=None, brief=document, seen=seen)
        except ConflictError as error:
            if not left:
                raise ConflictError(error.code, error.message) from None
            project.refresh_from_db()
    raise AssertionError("the last try returns or raises")


def _no_keyword(phrase: str) -> Problem:
    return Problem("phrases", "keyword_phrase", {"value": phrase[:40], "limit": MOST_WORDS})


def _can_be_keyword(words: Sequence[str]) -> bool:
    return 0 < len(words) <= MOST_WORDS and all(w.isascii() and w.isalpha() for w in words)


def _demand_of(project: Project, phrases: Sequence[str], view: str) -> dict[str, float]:
    shelf = shelf_of(project)
    known = shelf.demand(view if view in shelf.views else shelf.usual)
    places = {phrase: shelf.place.get(phrase, -1) for phrase in phrases}
    foreign = [phrase for phrase, at in places.items() if at < 0]
    if foreign:
        raise NotFoundError
    return {phrase: float(known[at]) for phrase, at in places.items()}


def _weights(demand: dict[str, float]) -> dict[str, int]:
    """From 1 to 5 by the logarithm of demand; what is not known keeps the weight it has."""
    known = {p: math.log10(1 + d) for p, d in demand.items() if not math.isnan(d)}
    if not known:
        return {}
    low, high = min(known.values()), max(known.values())
    if high - low < 0.3:
        return dict.fromkeys(known, 3)
    return {p: 1 + round(4 * (value - low) / (high - low)) for p, value in known.items()}
