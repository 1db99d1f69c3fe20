"""Lists kept in memory are what the database says, whatever was done in between."""

import random
from collections.abc import Callable
from typing import Any

import pytest
from django.utils import timezone
from rest_framework.test import APIClient

from tests.apps.conftest import BRIEF
from vinetag.apps.accounts.models import User
from vinetag.apps.availability.answer_store import save_answers
from vinetag.apps.availability.models import Lookup
from vinetag.apps.bench import sheet_cache
from vinetag.apps.naming.marks import bring_back, dismiss, look
from vinetag.apps.naming.models import Look, Project
from vinetag.apps.naming.services import change_project, create_project, list_more
from vinetag.apps.shortlists.services import keep, unkeep
from vinetag.core.names import FullName
from vinetag.core.sheet import Question
from vinetag.lookup import Answer

QUESTIONS = (
    Question(),
    Question(mark="kept"),
    Question(mark="later"),
    Question(mark="fresh"),
    Question(mark="dismissed"),
    Question(open_in=("any",)),
    Question(status=("taken", "not asked"), sort=".com"),
    Question(sort="grade", reverse=True),
)


def told(project: Project) -> list[list[str]]:
    """What the list says now, as a request would see it."""
    fresh = Project.objects.get(pk=project.pk)
    with sheet_cache.listing(fresh) as names:
        return [names.labels(question) for question in QUESTIONS]


def as_after_a_start(project: Project) -> list[list[str]]:
    sheet_cache._cache.clear()
    return told(project)


def acts(project: Project, rng: random.Random) -> list[Callable[[], Any]]:
    """Something of everything a person or a check may do."""
    labels = list(project.candidates.order_by("rank").values_list("label", flat=True)[:40])

    def some() -> list[str]:
        return rng.sample(labels, 3)

    def answer() -> None:
        status = rng.choice(("open", "taken", "unsure"))
        names = [FullName(label, rng.choice(("com", "net"))) for label in some()]
        save_answers(project.pk, [Answer(n, status, timezone.now()) for n in names])

    def weigh() -> None:
        fresh = Project.objects.get(pk=project.pk)
        brief = {**fresh.brief, "weights": {"length": rng.randint(1, 9), "memory": 3}}
        change_project(project=fresh, name=None, brief=brief)

    verdict = rng.choice(list(Look.Verdict))
    return [
        lambda: keep(project=project, labels=some()),
        lambda: unkeep(project=project, labels=some()),
        lambda: dismiss(project=project, labels=some()),
        lambda: bring_back(project=project, labels=some()),
        lambda: bring_back(project=project, labels=None),
        lambda: look(project=project, labels=some(), verdict=verdict),
        answer,
        answer,
        weigh,
    ]


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_what_is_cached_follows_everything_that_is_done(project: Project, seed: int) -> None:
    rng = random.Random(seed)
    told(project)
    for _ in range(14):
        rng.choice(acts(project, rng))()
        following = told(project)
        assert following == as_after_a_start(project)


def test_another_brief_is_another_list(api: APIClient, project: Project) -> None:
    before = told(project)[0]
    api.patch(f"/api/projects/{project.pk}", {"brief": {**BRIEF, "avoid": [before[0]]}})
    after = told(project)[0]
    assert before[0] not in after
    assert after == as_after_a_start(project)[0]


def test_a_longer_list_is_seen_whole(person: User, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("vinetag.apps.naming.services.DEEPEST", 4_000)
    project = create_project(owner=person, name="Long", brief={"keywords": ["paper", "night"]})
    first = told(project)[0]
    list_more(Project.objects.get(pk=project.pk))
    longer = told(project)[0]
    assert longer[: len(first)] == first
    assert len(longer) == Project.objects.get(pk=project.pk).candidates.count() > len(first)


def test_projects_asked_longest_ago_make_room(
    person: User, project: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    sheet_cache._cache.clear()
    told(project)
    rows = project.candidates.count()
    monkeypatch.setattr(sheet_cache, "MOST_ROWS", rows + rows // 2)
    other = create_project(owner=person, name="Other", brief=BRIEF)
    told(other)
    told(other)
    assert not sheet_cache.is_cached(project)
    assert sheet_cache.is_cached(Project.objects.get(pk=other.pk))
    assert told(project) == as_after_a_start(project)


def test_someone_elses_answers_are_not_seen(project: Project, other: User) -> None:
    theirs = create_project(owner=other, name="Theirs", brief=BRIEF)
    label = told(project)[0][0]
    save_answers(theirs.pk, [Answer(FullName(label, "com"), "open", timezone.now())])
    assert told(project)[5] == []
    assert told(theirs)[5] == [label]
    assert Lookup.objects.filter(project=project).count() == 0


def test_views_are_kept_and_nonsense_is_told(api: APIClient, project: Project) -> None:
    address = f"/api/projects/{project.pk}/views"
    views = [{"name": " short  ones ", "search": "letters_max=6"}]
    kept = api.put(address, {"view": "sort=name", "views": views}).json()
    named = {"name": "short ones", "search": "letters_max=6"}
    assert kept == {"view": "sort=name", "views": [named], "place": ""}
    assert api.put(address, {"view": ""}).json()["views"] == kept["views"]
    for wrong, path in (
        ([{"name": "", "search": ""}], "views.0.name"),
        ([views[0], views[0]], "views.1.name"),
        ([{"name": f"v{i}", "search": ""} for i in range(31)], "views"),
        ([{"name": "long", "search": "x" * 2001}], "views.0.search"),
    ):
        refused = api.put(address, {"views": wrong})
        assert [p["path"] for p in refused.json()["problems"]] == [path]
    assert api.get(f"/api/projects/{project.pk}").json()["views"] == kept["views"]
