"""What an app adds is there once it is on the list."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any

import pytest
from rest_framework.test import APIClient

from tests.apps.sample.joined import brought
from vinetag.apps.accounts.joining import joined
from vinetag.apps.bench import document
from vinetag.apps.naming.models import Project
from vinetag.core.errors import Problem, add_words


@pytest.fixture
def _with_a_sample(settings: Any) -> Iterator[None]:
    settings.JOINED_APPS = [*settings.JOINED_APPS, "tests.apps.sample"]
    joined.cache_clear()
    document._document.cache_clear()
    yield
    joined.cache_clear()
    document._document.cache_clear()
    brought.clear()


@pytest.mark.usefixtures("_with_a_sample")
def test_an_app_on_the_list_is_in_the_file_the_overview_and_the_page(
    api: APIClient, project: Project
) -> None:
    [one] = api.get("/api/overview").json()
    assert one["raindrops"] == 7
    assert one["kept"] == 0
    assert api.get(f"/api/projects/{project.pk}/names/inkpost").json()["umbrella"] == (
        "inkpost of Pressroom"
    )
    file = json.loads(api.get(f"/api/projects/{project.pk}/file").content)
    assert file["weather"] == 5

    def bring(content: dict[str, Any]) -> Any:
        sent = json.dumps(content).encode()
        return api.post("/api/projects/file", sent, content_type="application/json").json()

    made = bring({**file, "weather": 3})
    assert brought == [(made["project"]["id"], 3, True)]
    refused = bring({**file, "weather": 30, "duels": 1})
    assert {p["path"]: p["code"] for p in refused["problems"]} == {
        "weather": "out_of_range", "duels": "not_list",
    }  # fmt: skip


def test_every_app_has_words_for_what_it_calls_wrong() -> None:
    [sample] = [one for one in (*joined(), _sample()) if "drizzle" in one.words]
    add_words(sample.words)
    assert Problem("", "drizzle", {"value": "ink"}).text() == "It drizzles on ink."
    for one in joined():
        for code in one.words:
            assert Problem("", code, dict.fromkeys(_arguments(one.words[code]), 1)).text()


def _sample() -> Any:
    from tests.apps.sample.joined import JOINED

    return JOINED


def _arguments(words: str) -> list[str]:
    return [piece.split("}")[0].split(":")[0] for piece in words.split("{")[1:]]
