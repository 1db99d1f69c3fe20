"""Where to ask and how politely: one value, read from the environment in one place for the web, the
workers, the command line and the start command.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from vinetag.core.extensions import Catalogue
from vinetag.lookup.env import SettingsError
from vinetag.lookup.epp.settings import GatewaySettings, gateways_from_env
from vinetag.lookup.limiter import HostLimits
from vinetag.lookup.retry import RetryPolicy
from vinetag.lookup.whois import WhoisService

__all__ = [
    "CATALOGUE", "DEFAULT_BOOTSTRAP", "GATEWAY", "LIVE_BOOTSTRAP", "WHOIS", "LookupSettings",
    "simulated",
]  # fmt: skip

LIVE_BOOTSTRAP = "https://data.iana.org/rdap/dns.json"
DNS_LIMITS = HostLimits(at_once=50, failures=25)
TIMEOUT, DNS_TIMEOUT, WHOIS_TIMEOUT = 6.0, 2.0, 8.0
# Before the host of a WHOIS server where limits are counted: it may speak RDAP, too.
WHOIS = "whois:"
# Before the seller whose gateway is asked whether names can be had; fifty at once are one question.
GATEWAY = "epp:"
GATEWAY_LIMITS = HostLimits(at_once=100)
# For `whois`: the servers of the catalogue themselves are asked.
CATALOGUE = "catalogue"


def simulated(registry_port: int, dns_port: int, whois_port: int) -> dict[str, str]:
    """The variables with which the simulated world on these ports of loopback is asked."""
    return {
        "VINETAG_RDAP_BOOTSTRAP": f"http://127.0.0.1:{registry_port}/dns.json",
        "VINETAG_DNS": f"127.0.0.1:{dns_port}",
        "VINETAG_WHOIS": f"127.0.0.1:{whois_port}",
        "VINETAG_SELLER": f"http://127.0.0.1:{registry_port}/seller/",
        "VINETAG_SELLERS": f"http://127.0.0.1:{registry_port}/sellers.json",
        "VINETAG_PLATFORMS": f"http://127.0.0.1:{registry_port}/",
        "VINETAG_SEARCH": f"http://127.0.0.1:{registry_port}/search/description.xml",
        "VINETAG_PHRASES": f"http://127.0.0.1:{registry_port}/demand/",
        "VINETAG_MARKETS": f"http://127.0.0.1:{registry_port}/markets.json",
        "VINETAG_ZONES": f"http://127.0.0.1:{registry_port}/zones.json",
    }


SIMULATED = simulated(8701, 8702, 8703)
DEFAULT_BOOTSTRAP = SIMULATED["VINETAG_RDAP_BOOTSTRAP"]
LIVE = {
    "VINETAG_RDAP_BOOTSTRAP": LIVE_BOOTSTRAP,
    "VINETAG_DNS": "system",
    "VINETAG_WHOIS": CATALOGUE,
    "VINETAG_SELLER": "",
    "VINETAG_SELLERS": "",
    "VINETAG_PLATFORMS": "",
    "VINETAG_SEARCH": "",
    "VINETAG_PHRASES": "",
    "VINETAG_MARKETS": "",
    "VINETAG_ZONES": "",
    "VINETAG_RDAP_AT_ONCE": "2",
    "VINETAG_RDAP_PER_SECOND": "1",
    "VINETAG_WHOIS_AT_ONCE": "1",
    "VINETAG_WHOIS_PER_SECOND": "0.5",
}


@dataclass(frozen=True, slots=True)
class LookupSettings:
    """Where to ask, and how politely.

    `live`: the real world is asked, not the simulated one; `dns`: "" for no DNS, "system" for the
    system's resolver, else an address and a port ("127.0.0.1:8702"); `whois`: "" for no WHOIS,
    CATALOGUE for the `whois_services` by extension themselves, else an address and a port that
    answers for all of them; `seller`: whom quotes are asked of, and `sellers`: the address of a
    document of sellers with their lists, "" for none; `platforms`: where platforms stand whose
    addresses in the catalogue are paths, "" where such are not asked; `search`: the address of the
    OpenSearch description of a search service, `phrases` that of a service of demand (with a slash
    at its end), `markets` and `zones` those of documents of
    markets with their lists and of zone files, "" for none; `gateway`: that of a seller with whom
    we have an account, None where none is asked in checks; `redis`: where limits are shared, ""
    for limits of this process alone; `by_host`: limits of particular hosts; `bases`: addresses of
    RDAP by extension, where the bootstrap has none; timeouts in seconds.
    """

    bootstrap: str = DEFAULT_BOOTSTRAP
    live: bool = False
    dns: str = ""
    whois: str = ""
    seller: str = ""
    sellers: str = ""
    platforms: str = ""
    search: str = ""
    phrases: str = ""
    markets: str = ""
    zones: str = ""
    gateway: GatewaySettings | None = None
    redis: str = ""
    limits: HostLimits = field(default_factory=HostLimits)
    dns_limits: HostLimits = DNS_LIMITS
    whois_limits: HostLimits = field(default_factory=HostLimits)
    by_host: Mapping[str, HostLimits] = field(default_factory=dict)
    bases: Mapping[str, str] = field(default_factory=dict)
    whois_services: Mapping[str, WhoisService] = field(default_factory=dict)
    retry: RetryPolicy = field(default_factory=RetryPolicy)
    timeout: float = TIMEOUT
    dns_timeout: float = DNS_TIMEOUT
    whois_timeout: float = WHOIS_TIMEOUT

    @classmethod
    def from_env(cls, env: Mapping[str, str]) -> LookupSettings:
        """By the variables VINETAG_LOOKUP ("simulated" or "live"), VINETAG_RDAP_BOOTSTRAP,
        VINETAG_DNS, VINETAG_WHOIS, VINETAG_SELLER, VINETAG_SELLERS, VINETAG_PLATFORMS,
        VINETAG_SEARCH, VINETAG_PHRASES, VINETAG_MARKETS and VINETAG_ZONES; VINETAG_CHECK_GATEWAY,
        the code of one of the sellers of VINETAG_GATEWAYS; VINETAG_RDAP_ and VINETAG_WHOIS_ with
        AT_ONCE and PER_SECOND a host, VINETAG_RDAP_LIMITS for particular hosts
        ("rdap.registry.example=5,other.example=0.5"); and VINETAG_RDAP_, VINETAG_DNS_ and
        VINETAG_WHOIS_ with TIMEOUT. Raises SettingsError that says which is wrong.
        """
        mode = env.get("VINETAG_LOOKUP") or "simulated"
        if mode not in ("simulated", "live"):
            raise SettingsError(f"VINETAG_LOOKUP should be one of simulated, live, not {mode!r}.")
        usual = LIVE if mode == "live" else SIMULATED
        given = {**usual, **env}
        at_once = int(_number(given, "VINETAG_RDAP_AT_ONCE", 20))
        whois_at_once = int(_number(given, "VINETAG_WHOIS_AT_ONCE", 10))
        return cls(
            bootstrap=given["VINETAG_RDAP_BOOTSTRAP"],
            live=mode == "live",
            dns=given["VINETAG_DNS"],
            whois=given["VINETAG_WHOIS"],
            seller=given["VINETAG_SELLER"],
            sellers=given["VINETAG_SELLERS"],
            platforms=given["VINETAG_PLATFORMS"],
            search=given["VINETAG_SEARCH"],
            phrases=given["VINETAG_PHRASES"],
            markets=given["VINETAG_MARKETS"],
            zones=given["VINETAG_ZONES"],
            gateway=_gateway(given),
            limits=HostLimits(at_once, _number(given, "VINETAG_RDAP_PER_SECOND", 0)),
            whois_limits=HostLimits(whois_at_once, _number(given, "VINETAG_WHOIS_PER_SECOND", 0)),
            by_host={
                host: HostLimits(at_once, rate)
                for host, rate in _rates(given, "VINETAG_RDAP_LIMITS").items()
            },
            timeout=_number(given, "VINETAG_RDAP_TIMEOUT", TIMEOUT),
            dns_timeout=_number(given, "VINETAG_DNS_TIMEOUT", DNS_TIMEOUT),
            whois_timeout=_number(given, "VINETAG_WHOIS_TIMEOUT", WHOIS_TIMEOUT),
        )

    def with_catalogue(self, catalogue: Catalogue) -> LookupSettings:
        """With the registries the catalogue names. The simulated bootstrap lists all that speak
        RDAP there, so that addresses of the catalogue, which are real ones, are for `live` alone.
        """
        bases = {e.extension: e.rdap for e in catalogue if e.rdap} if self.live else {}
        services = {
            e.extension: WhoisService(e.whois, e.whois_query, e.whois_absent)
            for e in catalogue
            if e.whois
        }
        return replace(self, bases=bases, whois_services=services)

    def limits_of(self, host: str) -> HostLimits:
        """The limits of a host."""
        if host.startswith(WHOIS):
            return self.by_host.get(host.removeprefix(WHOIS), self.whois_limits)
        if host.startswith(GATEWAY):
            return self.by_host.get(host, GATEWAY_LIMITS)
        return self.by_host.get(host, self.limits)


def _gateway(env: Mapping[str, str]) -> GatewaySettings | None:
    seller = env.get("VINETAG_CHECK_GATEWAY", "")
    if not seller:
        return None
    known = gateways_from_env(env)
    if seller not in known:
        raise SettingsError(f"VINETAG_CHECK_GATEWAY: {seller!r} is none of VINETAG_GATEWAYS.")
    # A check waits for it: no longer than for a registry.
    answering = min(known[seller].answering, _number(env, "VINETAG_RDAP_TIMEOUT", TIMEOUT))
    return replace(known[seller], answering=answering)


def _number(env: Mapping[str, str], name: str, usual: float) -> float:
    value = env.get(name)
    try:
        return float(value) if value else usual
    except ValueError as error:
        raise SettingsError(f"{name} should be a number, not {value!r}.") from error


def _rates(env: Mapping[str, str], name: str) -> dict[str, float]:
    found = {}
    for item in filter(None, env.get(name, "").split(",")):
        host, _, rate = item.partition("=")
        try:
            found[host.strip()] = float(rate)
        except ValueError as error:
            raise SettingsError(f"{name}: {item!r} should be host=number.") from error
    return found
