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
from vinetag.lookup import LIVE_BOOTSTRAP, HostLimits, LookupSettings
from vinetag.lookup.settings import CATALOGUE


def test_live_use_is_off_by_default_and_polite_when_on(monkeypatch: pytest.MonkeyPatch) -> None:
    for name in [name for name in os.environ if name.startswith("VINETAG_")]:
        monkeypatch.delenv(name)
    monkeypatch.setenv("VINETAG_SECRET_KEY", "only-for-tests")

    def settings_with(**env: str) -> LookupSettings:
        """The settings as a process with this environment reads them."""
        with monkeypatch.context() as only:
            for name, value in env.items():
                only.setenv(name, value)
            found: LookupSettings = runpy.run_path(base.__file__)["LOOKUP"]
        return found

    assert not settings_with().live
    live = settings_with(VINETAG_LOOKUP="live", VINETAG_RDAP_LIMITS="rdap.registry.example=5")
    assert (live.live, live.bootstrap, live.dns, live.seller) == (
        True,
        LIVE_BOOTSTRAP,
        "system",
        "",
    )
    assert live.whois == CATALOGUE
    assert live.limits == HostLimits(2, 1.0)
    assert live.limits_of("whois:whois.registry.example") == HostLimits(1, 0.5)
    assert live.by_host == {"rdap.registry.example": HostLimits(2, 5.0)}
    with pytest.raises(ImproperlyConfigured, match="one of simulated, live"):
        settings_with(VINETAG_LOOKUP="yes")
    with pytest.raises(ImproperlyConfigured, match="should be host=number"):
        settings_with(VINETAG_RDAP_LIMITS="fast")


def test_registries_of_the_catalogue_are_asked_in_live_use_only(settings: Any) -> None:
    assert lookup_settings().bases == {}
    env = {"VINETAG_LOOKUP": "live", "VINETAG_RDAP_LIMITS": "slow.example=0.5"}
    settings.LOOKUP = LookupSettings.from_env(env)
    assert lookup_settings().bases["com"].startswith("https://")
    assert lookup_settings().whois_services["de"].server == "whois.denic.de"
    assert lookup_settings().limits_of("slow.example").per_second == 0.5
    assert lookup_settings().limits_of("other.example").per_second == 1.0


@pytest.mark.parametrize("mode", ["live", "simulated"])
def test_the_same_code_answers_in_both_ways(registry: Registry, mode: str) -> None:
    env = {
        **os.environ,
        "VINETAG_LOOKUP": mode,
        **registry.environment,
        "VINETAG_SELLER": "",
    }
    command = [sys.executable, "-m", "vinetag.cli", "check", "--quiet", "--format", "json"]
    names = "letter.com\nqwzxvkjhqp.com\nletter.de\nqwzxvkjhqp.de\n"
    done = subprocess.run(command, env=env, input=names, capture_output=True, text=True)
    answers = json.loads(done.stdout)
    assert done.returncode == 0, done.stderr
    found = {a["name"]: a["status"] for a in answers}
    assert list(map(found.get, names.split())) == ["taken", "open"] * 2
