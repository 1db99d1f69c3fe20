"""Live use: other defaults, the same code, shown against the stand-ins."""

import json
import os
import runpy
import subprocess
import sys
from typing import Any

import pytest
from django.core.exceptions import ImproperlyConfigured

from tests.conftest import Registry
from vinetag.apps.availability.lookups import lookup_settings
from vinetag.config.settings import base
from vinetag.lookup import LIVE_BOOTSTRAP

SHOWN = (
    "LIVE RDAP_BOOTSTRAP_URL DNS_SERVER SELLER_URL RDAP_AT_ONCE_A_HOST RDAP_PER_SECOND_A_HOST "
    "RDAP_PER_SECOND_BY_HOST"
).split()


def test_live_use_is_off_by_default_and_polite_when_on(monkeypatch: pytest.MonkeyPatch) -> None:
    for name in [name for name in os.environ if name.startswith("VINETAG_")]:
        monkeypatch.delenv(name)
    monkeypatch.setenv("VINETAG_SECRET_KEY", "only-for-tests")

    def settings_with(**env: str) -> list[Any]:
        """The settings as a process with this environment reads them."""
        with monkeypatch.context() as only:
            for name, value in env.items():
                only.setenv(name, value)
            found = runpy.run_path(base.__file__)
        return [found[name] for name in SHOWN]

    assert settings_with()[0] is False
    live = settings_with(VINETAG_LOOKUP="live", VINETAG_RDAP_LIMITS="rdap.registry.example=5")
    polite = {"rdap.registry.example": 5.0}
    assert live == [True, LIVE_BOOTSTRAP, "system", "", 2, 1.0, polite]
    with pytest.raises(ImproperlyConfigured, match="one of simulated, live"):
        settings_with(VINETAG_LOOKUP="yes")
    with pytest.raises(ImproperlyConfigured, match="should be host=number"):
        settings_with(VINETAG_RDAP_LIMITS="fast")


def test_registries_of_the_catalogue_are_asked_in_live_use_only(settings: Any) -> None:
    assert lookup_settings().bases == {}
    settings.LIVE = True
    assert lookup_settings().bases["com"].startswith("https://")
    settings.RDAP_PER_SECOND_BY_HOST = {"slow.example": 0.5}
    limits = lookup_settings()
    assert limits.limits_of("slow.example").per_second == 0.5
    assert limits.limits_of("other.example").per_second == settings.RDAP_PER_SECOND_A_HOST


@pytest.mark.parametrize("mode", ["live", "simulated"])
def test_the_same_code_answers_in_both_ways(registry: Registry, mode: str) -> None:
    env = {
        **os.environ,
        "VINETAG_LOOKUP": mode,
        "VINETAG_RDAP_BOOTSTRAP": registry.bootstrap,
        "VINETAG_DNS": registry.dns,
    }
    command = [sys.executable, "-m", "vinetag.cli", "check", "--quiet", "--format", "json"]
    names = "letter.com\nqwzxvkjhqp.com\n"
    done = subprocess.run(command, env=env, input=names, capture_output=True, text=True)
    answers = json.loads(done.stdout)
    assert done.returncode == 0, done.stderr
    assert [a["status"] for a in answers] == ["taken", "open"]
