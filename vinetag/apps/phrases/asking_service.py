"""Figures and companions asked of the service of demand in the settings."""

from __future__ import annotations

import asyncio
from collections.abc import Callable, Coroutine, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any

from django.conf import settings

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.about import About, parse_about
from vinetag.apps.phrases.bringing import take_figures
from vinetag.core.demand import Market, parse_phrase
from vinetag.core.errors import Problem, add_words
from vinetag.lookup.demand import DemandAnswer, fetch_companions, fetch_figures

__all__ = ["MOST_ASKED_FOR", "Answered", "ask_companions", "ask_figures", "is_there"]

MOST_ASKED_FOR = 500

add_words({"demand_asked_many": "At most {limit} phrases can be asked about at once."})


@dataclass(frozen=True, slots=True)
class Answered:
    """What a service gave: how many figures, of how many nothing was known; `why` where it did not
    answer all, `passed` what made no sense.
    """

    taken: int
    unknown: int
    passed: int
    source: str
    why: str


def is_there() -> bool:
    """Whether there is a service to be asked."""
    return bool(settings.LOOKUP.phrases)


def ask_figures(project: Project, phrases: Sequence[str], country: str, language: str) -> Answered:
    """Ask for figures of phrases and keep them. Raises RefusedError."""
    if len(phrases) > MOST_ASKED_FOR:
        raise RefusedError([Problem("phrases", "demand_asked_many", {"limit": MOST_ASKED_FOR})])
    wanted = [parsed for phrase in phrases if (parsed := parse_phrase(phrase))]
    if not wanted:
        raise RefusedError([Problem("phrases", "blank")])
    return _asked(project, country, language, partial(fetch_figures, settings.LOOKUP, wanted))


def ask_companions(project: Project, phrase: str, country: str, language: str) -> Answered:
    """Ask which phrases go with one, and keep them with their figures. Raises RefusedError."""
    known = parse_phrase(phrase)
    if not known:
        raise RefusedError([Problem("phrases", "blank")])
    ask = partial(fetch_companions, settings.LOOKUP, known)
    return _asked(project, country, language, ask)


def _asked(
    project: Project,
    country: str,
    language: str,
    ask: Callable[[Market], Coroutine[Any, Any, DemandAnswer]],
) -> Answered:
    """Ask, and keep what was answered. Raises RefusedError where no
    such country or language can be asked about.
    """
    told = parse_about(About("service", country, language))
    market = Market(told.country, told.language)
    return _kept(project, market, asyncio.run(ask(market)))


def _kept(project: Project, market: Market, answer: DemandAnswer) -> Answered:
    figures = {row.phrase: row for one in answer.answers for row in one.figures}
    source = answer.answers[0].source if answer.answers else ""
    if figures:
        about = About(source, market.country, market.language)
        take_figures(project, about, list(figures.values()), answer.answers[0].last_month)
    unknown = sum(row.low is None for row in figures.values())
    passed = sum(one.passed for one in answer.answers)
    return Answered(len(figures), unknown, passed, source, answer.why)
