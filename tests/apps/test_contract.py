"""The whole API against its own document: whatever is sent, it answers as it says it does."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
import schemathesis
from django.conf import settings as django_settings
from django.core.signals import request_finished, request_started
from django.core.wsgi import get_wsgi_application
from django.db import close_old_connections
from django.test import Client
from hypothesis import HealthCheck, Phase, settings
from schemathesis.checks import (
    content_type_conformance,
    not_a_server_error,
    response_schema_conformance,
    status_code_conformance,
)

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.tasks import run_check
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.shortlists.services import keep
from vinetag.lookup import LookupSettings

from .conftest import BRIEF

EXAMPLES = 8
CHECKS = [
    not_a_server_error, status_code_conformance, content_type_conformance,
    response_schema_conformance,
]  # fmt: skip
schema = schemathesis.openapi.from_path("docs/openapi.json")
django = get_wsgi_application()
# Who asks, as the headers of a browser that is signed in.
signed_in: dict[str, str] = {}


def application(environ: dict[str, Any], start_response: Any) -> Any:
    return django({**environ, **signed_in}, start_response)


schema.app = application
# Where everything that is made up is there, so that more than "not found" is answered.
there: dict[str, Any] = {}


@schemathesis.hook
def map_path_parameters(_context: Any, given: dict[str, Any]) -> dict[str, Any]:
    for name, value in (given or {}).items():
        if name in there and len(repr(value)) % 3:
            given[name] = there[name]
    return given


@pytest.fixture
def session(person: User, monkeypatch: pytest.MonkeyPatch, settings: Any) -> Iterator[None]:
    """A signed-in person with a project, and nobody else to wait for."""
    nobody = "http://127.0.0.1:9/dns.json"
    settings.LOOKUP = LookupSettings(nobody, dns="127.0.0.1:9", redis=settings.REDIS_URL)
    monkeypatch.setattr(run_check, "delay", lambda _check: None)
    project = create_project(owner=person, name="Pressroom", brief=BRIEF)
    keep(project=project, labels=["inkpost"])
    there.update(project_id=project.pk, label="inkpost", extension="com")
    client = Client()
    client.force_login(person)
    token = "x" * 32
    key = client.cookies[django_settings.SESSION_COOKIE_NAME].value
    # What a server does between requests would end this test's transaction.
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    cookie = f"sessionid={key}; csrftoken={token}"
    signed_in.update(HTTP_COOKIE=cookie, HTTP_X_CSRFTOKEN=token, HTTP_HOST="127.0.0.1")
    yield
    for signal in (request_started, request_finished):
        signal.connect(close_old_connections)


@schema.parametrize()
@settings(
    max_examples=EXAMPLES, deadline=None, derandomize=True, database=None,
    phases=[Phase.generate],
    suppress_health_check=list(HealthCheck),
)  # fmt: skip
def test_every_operation_answers_as_documented(case: Any, session: None) -> None:
    response = case.call()
    case.validate_response(response, checks=CHECKS)
    assert Project.objects.count() < 500
