"""The simulated platforms and search service speak as they say."""

from __future__ import annotations

import pytest

from standins.platforms import PLATFORMS
from tests.conftest import Registry, asked
from vinetag.core.vet import shipped_platforms


def status_of(registry: Registry, path: str) -> int:
    return asked(f"{registry.origin}{path}")[0]


def test_every_platform_that_ships_is_there(registry: Registry) -> None:
    assert {one.code for one in shipped_platforms()} == set(PLATFORMS)
    for one in shipped_platforms():
        assert status_of(registry, one.address.format(handle="vlorkinquelt")) in (200, 404)
    assert status_of(registry, "/platforms/nowhere/x") == 404


@pytest.mark.parametrize(("path", "status"), [("/search", 200), ("/search?q=%3Cscript%3E", 200)])
def test_odd_questions_are_answered(registry: Registry, path: str, status: int) -> None:
    assert status_of(registry, path) == status
