"""Rules and transactions of sharing: the owner's links, and what guests may do under one."""

from __future__ import annotations

import secrets
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, NotFoundError, RefusedError
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import brief_of, grader_for
from vinetag.apps.sharing.models import Comment, Guest, Hearing, Recall, Share, Vote
from vinetag.apps.shortlists.models import Entry
from vinetag.apps.shortlists.services import entries
from vinetag.core.candidates import Candidate
from vinetag.core.checking import buyable
from vinetag.core.errors import Problem
from vinetag.core.trials import recalled, words_typed, wrote_right

__all__ = [
    "MOST_SHOWN_BRIEFLY",
    "Outcome",
    "Results",
    "best_extensions",
    "comment",
    "delete_comment",
    "hear",
    "join",
    "kept_of",
    "open_share",
    "outcomes",
    "own_share",
    "recall",
    "revoke",
    "share_names",
    "vote",
]

MOST_NAMES = 60
MOST_SHARES = 50
LONGEST = timedelta(days=365)
MOST_GUESTS = 1_000
MOST_COMMENTS = 100
MOST_COMMENT = 500
MOST_SHOWN_BRIEFLY = 8


@dataclass(slots=True)
class Outcome:
    """What people made of one name. `heard` wrote what they heard, `right` of them rightly;
    `spelling` is the computed measure, 0 to 100, None when it could not be given; `shown` saw it
    briefly, `remembered` of them knew it later; `wrong` are misspellings with how often.
    """

    label: str
    spelling: float | None
    liked: int = 0
    disliked: int = 0
    neutral: int = 0
    heard: int = 0
    right: int = 0
    shown: int = 0
    remembered: int = 0
    wrong: dict[str, int] = field(default_factory=dict)
    comments: list[Comment] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Results:
    """What came of a link: how many people opened it, and of each name in the link's order."""

    people: int
    outcomes: Sequence[Outcome]


def share_names(
    *,
    project: Project,
    title: str,
    labels: Sequence[str],
    ends_at: datetime,
    vetted: bool = False,
) -> Share:
    """Make a link for some kept names, with what vetting found of them where `vetted` says so.
    Raises RefusedError or ConflictError.
    """
    kept = set(entries(project).values_list("label", flat=True))
    labels = list(dict.fromkeys(labels))
    name = " ".join(title.split())
    problems = []
    if not name:
        problems.append(Problem("title", "blank"))
    elif len(name) > 80:
        problems.append(Problem("title", "too_long", {"limit": 80, "length": len(name)}))
    if not labels:
        problems.append(Problem("labels", "too_few", {"limit": 1}))
    elif len(labels) > MOST_NAMES:
        problems.append(Problem("labels", "too_many", {"limit": MOST_NAMES, "count": len(labels)}))
    for i, label in enumerate(labels):
        if label not in kept:
            problems.append(Problem(f"labels.{i}", "not_kept", {"value": label}))
    now = timezone.now()
    if not now < ends_at <= now + LONGEST:
        problems.append(Problem("ends_at", "share_end"))
    if problems:
        raise RefusedError(problems)
    if project.shares.count() >= MOST_SHARES:
        raise ConflictError("too_many_shares", f"At most {MOST_SHARES} links for each project.")
    token = secrets.token_urlsafe(32)
    return Share.objects.create(
        project=project, token=token, title=name, names=labels, ends_at=ends_at, vetted=vetted
    )


def own_share(project: Project, share_id: int) -> Share:
    """One of the project's links. Raises NotFoundError."""
    share = project.shares.filter(pk=share_id).first()
    if share is None:
        raise NotFoundError
    return share


def revoke(share: Share, *, again: bool) -> None:
    """Close a link at once, or with `again` open it again."""
    share.revoked_at = None if again else timezone.now()
    share.save(update_fields=["revoked_at"])


def open_share(token: str) -> Share:
    """The link of a token. Raises NotFoundError, or ConflictError ("share_closed") when it has
    ended or was revoked.
    """
    share = Share.objects.select_related("project").filter(token=token).first()
    if share is None or share.project.removed_at is not None:
        raise NotFoundError
    if share.revoked_at is not None:
        raise ConflictError("share_closed", "This link was closed by whoever made it.")
    if share.ends_at <= timezone.now():
        raise ConflictError("share_closed", "This link has ended. Ask for another one.")
    return share


def kept_of(share: Share) -> Mapping[str, Entry]:
    """The shared names that are still kept, by label."""
    return {e.label: e for e in entries(share.project).filter(label__in=share.names)}


def best_extensions(share: Share) -> Mapping[str, str]:
    """For each shared name the first of the owner's extensions under which it is open, or else not
    known to be gone; "" where it is gone under all.
    """
    extensions = share.project.brief["extensions"]
    rows = share.project.lookups.filter(label__in=share.names, extension__in=extensions)
    known = {(a, e): s for a, e, s in rows.values_list("label", "extension", "status")}

    def best(label: str) -> str:
        statuses = {e: known.get((label, e), "") for e in extensions}
        for wanted in (buyable(), ("", "unsure", "waiting")):
            for extension, status in statuses.items():
                if status in wanted:
                    return str(extension)
        return ""

    return {label: best(label) for label in share.names}


def join(*, share: Share, first_name: str) -> Guest:
    """A new guest. Raises ConflictError when too many came."""
    if share.guests.count() >= MOST_GUESTS:
        raise ConflictError("share_full", "Too many people have opened this link.")
    return Guest.objects.create(share=share, first_name=" ".join(first_name.split())[:40])


def _named(share: Share, label: str) -> None:
    if label not in share.names:
        raise RefusedError([Problem("label", "not_shared", {"value": label})])


def vote(*, guest: Guest, label: str, value: int) -> None:
    """Say what one thinks of a name; saying it again changes it. Raises RefusedError."""
    _named(guest.share, label)
    Vote.objects.update_or_create(guest=guest, label=label, defaults={"value": value})


def comment(*, guest: Guest, label: str, text: str) -> Comment:
    """Say something of a name. Raises RefusedError or ConflictError."""
    _named(guest.share, label)
    text = text.strip()
    if not text:
        raise RefusedError([Problem("text", "blank")])
    if len(text) > MOST_COMMENT:
        args = {"limit": MOST_COMMENT, "length": len(text)}
        raise RefusedError([Problem("text", "too_long", args)])
    if guest.comments.count() >= MOST_COMMENTS:
        raise ConflictError("too_many_comments", f"At most {MOST_COMMENTS} comments each.")
    return Comment.objects.create(guest=guest, label=label, text=text)


def delete_comment(*, guest: Guest, comment_id: int) -> None:
    """Take back one's own comment. Raises NotFoundError."""
    if not guest.comments.filter(pk=comment_id).delete()[0]:
        raise NotFoundError


def hear(*, guest: Guest, label: str, typed: str) -> Hearing:
    """Store what was written of a heard name; only the first try counts. Raises RefusedError."""
    _named(guest.share, label)
    typed = typed.strip()[:80]
    if not typed:
        raise RefusedError([Problem("typed", "blank")])
    hearing, _ = Hearing.objects.get_or_create(
        guest=guest, label=label, defaults={"typed": typed, "right": wrote_right(typed, label)}
    )
    return hearing


def recall(*, guest: Guest, shown: Sequence[str], typed: str) -> Recall:
    """Store which of the names shown briefly were remembered; only the first try counts. Raises
    RefusedError.
    """
    for label in shown:
        _named(guest.share, label)
    if not shown or len(shown) > MOST_SHOWN_BRIEFLY:
        raise RefusedError([Problem("shown", "too_few" if not shown else "too_many", {
            "limit": 1 if not shown else MOST_SHOWN_BRIEFLY, "count": len(shown),
        })])  # fmt: skip
    known = sorted(recalled(words_typed(typed), shown))
    with transaction.atomic():
        found, _ = Recall.objects.get_or_create(
            guest=guest, defaults={"shown": list(shown), "remembered": known}
        )
    return found


def outcomes(share: Share) -> Results:
    """What people made of the names; few queries, however many people there were."""
    grader = grader_for(brief_of(share.project))

    def spelling(label: str) -> float | None:
        return grader.grade(grader.read_any(Candidate(label, (), (), 0.0))).scores.get("spelling")

    found = {label: Outcome(label, spelling(label)) for label in share.names}
    of_share = {"guest__share": share}
    for label, value in Vote.objects.filter(**of_share).values_list("label", "value"):
        one = found[label]
        one.liked += value > 0
        one.disliked += value < 0
        one.neutral += value == 0
    for hearing in Hearing.objects.filter(**of_share):
        one = found[hearing.label]
        one.heard += 1
        one.right += hearing.right
        if not hearing.right:
            word = hearing.typed.lower()
            one.wrong[word] = one.wrong.get(word, 0) + 1
    for row in Recall.objects.filter(**of_share):
        for label in row.shown:
            found[label].shown += 1
            found[label].remembered += label in row.remembered
    for said in _comments(share):
        found[said.label].comments.append(said)
    return Results(share.guests.count(), list(found.values()))


def _comments(share: Share) -> QuerySet[Comment]:
    return Comment.objects.filter(guest__share=share).select_related("guest").order_by("id")
