"""Worlds a person keeps for their next projects."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from django.db import IntegrityError, transaction
from django.db.models import QuerySet

from vinetag.apps.accounts.errors import NotFoundError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.naming.models import KeptWorld
from vinetag.core.brief import Brief, parse_brief
from vinetag.core.errors import BriefError, Problem

__all__ = ["forget_world", "keep_world", "kept_worlds"]

MOST_WORLDS = 60
MAX_TITLE = 60


def kept_worlds(owner: User) -> QuerySet[KeptWorld]:
    """The person's own worlds, by title."""
    return KeptWorld.objects.filter(owner=owner).order_by("title")


def keep_world(*, owner: User, title: str, entries: object) -> KeptWorld:
    """Keep entries by facet under a title; one of the same title is replaced. Raises RefusedError
    with every problem.
    """
    text = " ".join(title.split())
    problems = []
    if not text:
        problems.append(Problem("title", "blank"))
    elif len(text) > MAX_TITLE:
        problems.append(Problem("title", "too_long", {"limit": MAX_TITLE, "length": len(text)}))
    try:
        read = parse_brief({"world": {"own": entries}})
    except BriefError as error:
        problems += [
            Problem(p.path.replace("world.own", "entries", 1), p.code, p.args)
            for p in error.problems
        ]
        raise RefusedError(problems) from error
    if not read.world.own:
        problems.append(Problem("entries", "blank"))
    known = kept_worlds(owner)
    if known.count() >= MOST_WORLDS and not known.filter(title=text).exists():
        problems.append(
            Problem("title", "too_many", {"limit": MOST_WORLDS, "count": MOST_WORLDS + 1})
        )
    if problems:
        raise RefusedError(problems)
    held = _document(read)
    try:
        with transaction.atomic():
            kept, _ = KeptWorld.objects.update_or_create(
                owner=owner, title=text, defaults={"entries": held}
            )
    except IntegrityError:  # kept in another window at the same moment
        kept = KeptWorld.objects.get(owner=owner, title=text)
    return kept


def _document(brief: Brief) -> Mapping[str, Sequence[str]]:
    return {facet: list(entries) for facet, entries in brief.world.own}


def forget_world(*, owner: User, world_id: int) -> None:
    """Delete it; projects keep the words they took from it. Raises NotFoundError."""
    deleted, _ = KeptWorld.objects.filter(owner=owner, pk=world_id).delete()
    if not deleted:
        raise NotFoundError
