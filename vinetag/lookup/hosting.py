"""Name servers that answer for zones kept here: changed by signed dynamic updates (RFC 2136, 8945),
read by transfers (RFC 5936); which zones they answer for, a catalogue says (RFC 9432).

What is in force is read first, and what differs is changed in one update, on the condition that
nobody else changed it meanwhile: so it can be done again however it ended before.
"""

from __future__ import annotations

import base64
import binascii
import hashlib
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final, Literal

import dns.exception
import dns.message
import dns.name
import dns.query
import dns.rcode
import dns.rdataclass
import dns.rdatatype
import dns.tsig
import dns.update
import dns.xfr
import dns.zone

from vinetag.core.zone import Record
from vinetag.core.zone.records import name_in, rdata_of
from vinetag.lookup.env import SettingsError

__all__ = ["Hosting", "HostingSettings", "Published", "hosting_from_env", "simulated_hosting"]

HostingTrouble = Literal["", "unreachable", "refused", "changed", "nonsense"]
ALGORITHM: Final = "hmac-sha256"
TRIES: Final = 3
SIMULATED: Final = "trellis-host.example"
CLASS: Final = dns.rdataclass.IN


@dataclass(frozen=True, slots=True)
class HostingSettings:
    """`servers`: their names with their addresses, the first is the one that is changed; `port` of
    all of them; `key`: name and secret; `catalog`: the name of the catalogue; `forwarder`: address
    of whoever sends visitors on, "" for nobody, asked at `forwarder_port`.
    """

    servers: Sequence[tuple[str, str]]
    port: int = 53
    key: str = ""
    secret: str = field(default="", repr=False)
    catalog: str = ""
    forwarder: str = ""
    forwarder_port: int = 80
    seconds: float = 4.0

    @property
    def hosts(self) -> tuple[str, ...]:
        """The names of the servers."""
        return tuple(host for host, _ in self.servers)


@dataclass(frozen=True, slots=True)
class Published:
    """What became of putting a zone into force: the `serial` it has now, or the trouble."""

    serial: int = 0
    trouble: HostingTrouble = ""
    said: str = ""


def hosting_from_env(env: Mapping[str, str]) -> HostingSettings | None:
    """By VINETAG_HOSTING ("ns1.host.example=192.0.2.1, ns2.host.example=192.0.2.2"),
    VINETAG_HOSTING_KEY ("name:secret in base64"), VINETAG_HOSTING_CATALOG, VINETAG_FORWARDER
    ("192.0.2.3:80") and VINETAG_NAMESERVER_PORT; None without any. Raises SettingsError that says
    which is wrong, without the secret.
    """
    given = [item.strip() for item in env.get("VINETAG_HOSTING", "").split(",") if item.strip()]
    if not given:
        return None
    servers = []
    for item in given:
        host, _, address = item.partition("=")
        if not host or not address:
            raise SettingsError("VINETAG_HOSTING: each should be host=address.")
        servers.append((host.strip().lower(), address.strip()))
    key, _, secret = env.get("VINETAG_HOSTING_KEY", "").partition(":")
    try:
        if not key or not base64.b64decode(secret, validate=True):
            raise ValueError
    except (ValueError, binascii.Error) as error:
        raise SettingsError("VINETAG_HOSTING_KEY should be name:secret, in base64.") from error
    forwarder, _, at = env.get("VINETAG_FORWARDER", "").rpartition(":")
    try:
        port = int(env.get("VINETAG_NAMESERVER_PORT") or 53)
        forwarder_port = int(at) if forwarder else 80
    except ValueError as error:
        raise SettingsError(
            "VINETAG_NAMESERVER_PORT and VINETAG_FORWARDER end in ports."
        ) from error
    catalog = env.get("VINETAG_HOSTING_CATALOG", "")
    return HostingSettings(
        servers, port, key, secret, catalog, forwarder, forwarder_port
    )  # fmt: skip


def simulated_hosting(registry_port: int, dns_port: int, word: str) -> dict[str, str]:
    """The variables with which the simulated host of zones on these ports is asked."""
    secret = base64.b64encode(word.encode()).decode()
    return {
        "VINETAG_HOSTING": ",".join(f"ns{n}.{SIMULATED}=127.0.0.6{n}" for n in (1, 2)),
        "VINETAG_HOSTING_KEY": f"vine-tag:{secret}",
        "VINETAG_HOSTING_CATALOG": f"catalog.{SIMULATED}",
        "VINETAG_FORWARDER": f"127.0.0.64:{registry_port}",
        "VINETAG_NAMESERVER_PORT": str(dns_port),
    }


class _RefusedError(Exception):
    """The servers answered, and did not do it."""

    def __init__(self, code: dns.rcode.Rcode) -> None:
        super().__init__(dns.rcode.to_text(code))
        self.code = code


class Hosting:
    """The servers of the settings. Raises nothing: every failure is a value."""

    def __init__(self, settings: HostingSettings) -> None:
        self._settings = settings
        key = dns.tsig.Key(settings.key, settings.secret, ALGORITHM)
        self._keys = {key.name: key}

    def publish(self, origin: str, records: Sequence[Record]) -> Published:
        """Have exactly these records answered for `origin` from now on."""
        return self._bounded(lambda: self._publish(origin, records))

    def withdraw(self, origin: str) -> Published:
        """Have nothing answered for `origin` any more."""
        return self._bounded(lambda: self._listed(origin, listed=False))

    def _bounded(self, work: Callable[[], Published]) -> Published:
        """The one place where whatever may go wrong becomes a value."""
        try:
            return work()
        except _RefusedError as error:
            return Published(trouble="refused", said=str(error)[:200])
        except (dns.exception.Timeout, OSError, EOFError) as error:
            return Published(trouble="unreachable", said=str(error)[:200])
        except (dns.exception.DNSException, ValueError, LookupError, AttributeError) as error:
            return Published(trouble="nonsense", said=str(error)[:200])

    def _publish(self, origin: str, records: Sequence[Record]) -> Published:
        for _ in range(TRIES):
            zone = self._read(origin)
            if zone is None:
                self._listed(origin, listed=True)
                zone = self._read(origin)
                if zone is None:
                    return Published(trouble="refused", said="the zone was not taken up")
            update = self._difference(origin, zone, records)
            start = zone.get_soa()
            if not update.update:
                return Published(start.serial)
            try:
                self._send(update)
            except _RefusedError as error:
                if error.code == dns.rcode.NXRRSET:
                    # Somebody else changed it since it was read.
                    continue
                raise
            after = self._read(origin)
            return Published(start.serial if after is None else after.get_soa().serial)
        return Published(trouble="changed")

    def _difference(
        self, origin: str, zone: dns.zone.Zone, records: Sequence[Record]
    ) -> dns.update.UpdateMessage:
        root = dns.name.from_text(origin)
        wanted = {
            (dns.name.from_text(name_in(origin, one.name)), one.ttl, rdata_of(one))
            for one in records
        }
        there = {
            (name.derelativize(root), ttl, rdata)
            for name, ttl, rdata in zone.iterate_rdatas()
            if rdata.rdtype != dns.rdatatype.SOA
            and not (rdata.rdtype == dns.rdatatype.NS and name.derelativize(root) == root)
        }
        update = dns.update.UpdateMessage(origin, rdclass=CLASS)
        update.present(root, zone.get_soa())
        for name, _, rdata in sorted(there - wanted, key=str):
            update.delete(name, rdata)
        for name, ttl, rdata in sorted(wanted - there, key=str):
            update.add(name, ttl, rdata)
        return update

    def _listed(self, origin: str, *, listed: bool) -> Published:
        """Whether the catalogue has the zone (RFC 9432, section 4.1)."""
        update = dns.update.UpdateMessage(self._settings.catalog, rdclass=CLASS)
        member = hashlib.sha256(origin.encode()).hexdigest()[:40] + ".zones"
        update.delete(member, "PTR")
        if listed:
            update.add(member, 0, "PTR", f"{origin}.")
        self._send(update)
        return Published()

    def _send(self, update: dns.update.UpdateMessage) -> None:
        update.use_tsig(self._keys)
        reply = dns.query.tcp(
            update, self._settings.servers[0][1], timeout=self._settings.seconds,
            port=self._settings.port,
        )  # fmt: skip
        if reply.rcode() != dns.rcode.NOERROR or not reply.had_tsig:
            # What is not signed is nobody's word, whatever it says.
            raise _RefusedError(reply.rcode())

    def _read(self, origin: str) -> dns.zone.Zone | None:
        """What is in force; None where they do not answer for it."""
        zone = dns.zone.Zone(origin, relativize=False)
        query, _ = dns.xfr.make_query(zone, keyring=self._keys)
        try:
            dns.query.inbound_xfr(
                self._settings.servers[0][1], zone, query, port=self._settings.port,
                timeout=self._settings.seconds, lifetime=self._settings.seconds,
            )  # fmt: skip
        except dns.xfr.TransferError as error:
            if error.rcode in (dns.rcode.NOTAUTH, dns.rcode.REFUSED):
                return None
            raise
        return zone
