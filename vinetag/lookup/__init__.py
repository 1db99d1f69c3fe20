"""Asking the outside world: DNS, RDAP, WHOIS and a seller, politely, and honest about what was not
found out.
"""

from vinetag.lookup.answers import Answer
from vinetag.lookup.bootstrap import Bootstrap, read_bootstrap
from vinetag.lookup.engine import Engine
from vinetag.lookup.engine_factory import open_engine
from vinetag.lookup.env import SettingsError
from vinetag.lookup.limiter import HostLimits
from vinetag.lookup.retry import RetryPolicy
from vinetag.lookup.settings import LIVE_BOOTSTRAP, LookupSettings

__all__ = [
    "LIVE_BOOTSTRAP", "Answer", "Bootstrap", "Engine", "HostLimits", "LookupSettings",
    "RetryPolicy", "SettingsError", "open_engine", "read_bootstrap",
]  # fmt: skip
