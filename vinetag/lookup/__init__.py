"""Asking the outside world: RDAP over HTTP, politely, and honest about what was not found out."""

from vinetag.lookup.answers import Answer, Status, Trouble
from vinetag.lookup.bootstrap import Bootstrap, read_bootstrap
from vinetag.lookup.client import DEFAULT_BOOTSTRAP, RdapClient, open_client
from vinetag.lookup.limits import HostLimits
from vinetag.lookup.sweep import sweep

__all__ = [
    "DEFAULT_BOOTSTRAP",
    "Answer",
    "Bootstrap",
    "HostLimits",
    "RdapClient",
    "Status",
    "Trouble",
    "open_client",
    "read_bootstrap",
    "sweep",
]
