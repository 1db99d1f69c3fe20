"""What people type by mistake, with what is known of it."""

from __future__ import annotations

from typing import Any

import pytest
from rest_framework.test import APIClient

from vinetag.apps.availability.models import Lookup
from vinetag.apps.naming.models import Project


def ask(api: APIClient, project: Project, name: str) -> Any:
    return api.get(f"/api/projects/{project.pk}/names/{name}/mistypes").json()


def known(project: Project, label: str, status: str, extension: str = "com") -> None:
    Lookup.objects.create(project=project, label=label, extension=extension, status=status)


def test_who_mistypes_lands_with_whom(api: APIClient, project: Project) -> None:
    before = ask(api, project, "inkpost")
    assert before["extension"] == "com"
    first, second, *_ = (o["label"] for o in before["mistypes"] if o["extension"] == "com")
    assert before["shares"]["taken"] == 0
    assert before["shares"]["unknown"] == pytest.approx(before["shares"]["whole"])
    known(project, first, "taken")
    known(project, second, "open")
    known(project, first, "open", "net")
    after = ask(api, project, "inkpost")
    told = {one["label"]: one for one in after["mistypes"] if one["extension"] == "com"}
    assert told[first]["cell"]["status"] == "taken"
    assert after["shares"]["taken"] == pytest.approx(told[first]["share"], abs=1e-5)
    assert after["shares"]["free"] == pytest.approx(told[second]["share"], abs=1e-5)
    assert after["shares"]["whole"] == pytest.approx(before["shares"]["whole"])
    # What could not be found out is not known, and nobody's.
    known(project, "inkpst", "unsure")
    assert ask(api, project, "inkpost")["shares"]["taken"] == after["shares"]["taken"]


def test_a_full_name_is_looked_at_under_its_own_extension(api: APIClient, project: Project) -> None:
    assert ask(api, project, "inkpost.net")["extension"] == "net"
    assert "inkpostnet" in {one["label"] for one in ask(api, project, "inkpost.net")["mistypes"]}
    reply = api.get(f"/api/projects/{project.pk}/names/-x/mistypes")
    assert reply.status_code == 400


def test_other_extensions_are_typed_too(api: APIClient, project: Project) -> None:
    told = {one["full_name"]: one for one in ask(api, project, "inkpost.studio")["mistypes"]}
    assert told["inkpost.com"]["kind"] == "extension"
    known(project, "inkpost", "offered")
    shares = ask(api, project, "inkpost.studio")["shares"]
    assert shares["parked"] == pytest.approx(told["inkpost.com"]["share"], abs=1e-5)
