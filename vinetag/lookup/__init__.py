"""Asking the outside world: DNS, RDAP and a seller, politely, and honest about what was not found
out.
"""

from vinetag.lookup.answers import Answer
from vinetag.lookup.bootstrap import Bootstrap, read_bootstrap
from vinetag.lookup.engine import Engine
from vinetag.lookup.gates import HostLimits
from vinetag.lookup.opening import (
    DEFAULT_BOOTSTRAP,
    DEFAULT_DNS,
    DEFAULT_SELLER,
    LIVE_BOOTSTRAP,
    LookupSettings,
    open_engine,
)
from vinetag.lookup.retry import RetryPolicy

__all__ = [
    "DEFAULT_BOOTSTRAP", "DEFAULT_DNS", "DEFAULT_SELLER", "LIVE_BOOTSTRAP", "Answer", "Bootstrap",
    "Engine", "HostLimits", "LookupSettings", "RetryPolicy", "open_engine", "read_bootstrap",
]  # fmt: skip
