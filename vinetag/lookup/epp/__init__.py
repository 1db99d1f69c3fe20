"""Sellers' gateways: registering, renewing and asking by EPP (RFC 5730 to 5734)."""

from vinetag.lookup.epp.gateway import (
    Checked,
    Done,
    FeeAction,
    Gateway,
    GatewayTrouble,
    Moving,
    Notice,
    Seen,
    Wish,
)
from vinetag.lookup.epp.session import EppGateway
from vinetag.lookup.epp.settings import (
    GatewaySettings,
    gateways_from_env,
    simulated_gateways,
)

__all__ = [
    "Checked", "Done", "EppGateway", "FeeAction", "Gateway", "GatewaySettings", "GatewayTrouble",
    "Moving", "Notice", "Seen", "Wish", "gateways_from_env", "simulated_gateways",
]  # fmt: skip
