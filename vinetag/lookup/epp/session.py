"""A session with a seller's gateway by the client library epptools."""

from __future__ import annotations

import re
import uuid
from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from decimal import Decimal, InvalidOperation
from typing import Any, Final

from epptools import Client, CommandException, Config, EppException, Frame
from epptools.response import Response
from epptools.transport import Transport

from vinetag.core.ordering import Person
from vinetag.lookup.epp.gateway import Checked, Done, FeeAction, GatewayTrouble, Notice, Seen, Wish
from vinetag.lookup.epp.settings import GatewaySettings
from vinetag.lookup.epp.transport import CertificateProblemError, TlsTransport, UnreachableError

__all__ = ["MOST_CHECKED", "EppGateway"]

MOST_CHECKED: Final = 50
LONGEST: Final = 200
# Codes after which it is not known what the seller did (RFC 5730: it failed inside).
UNCERTAIN: Final = frozenset({2400, 2500, 2501, 2502})
CREATED, GONE, EXISTS, NOT_OURS = 1000, 2303, 2302, 2201
AMOUNT: Final = re.compile(r"-?\d{1,10}(\.\d{1,3})?")


class _Client(Client):
    """The library's, with transaction identifiers of ours."""

    trid = ""

    def frame(self) -> Frame:
        """A new command."""
        return Frame.command(self.trid or uuid.uuid4().hex)


class EppGateway:
    """As vinetag.lookup.epp.gateway.Gateway says. Used by one thread at a time."""

    def __init__(self, settings: GatewaySettings, transport: Transport | None = None) -> None:
        self.settings = settings
        config = Config(
            host=settings.host, clid=settings.login, password=settings.password, port=settings.port
        )
        self._client = _Client(config, transport or TlsTransport(settings))
        self._client.throw_on_failure(False)

    def open(self) -> Done:
        """Connect and sign in."""
        done = self._do("", lambda: self._client.connect())
        if done.trouble:
            return replace(done, certain=True)
        done = self._do("", lambda: self._client.login())
        if done.code != CREATED:
            self.close()
            trouble: GatewayTrouble = done.trouble or "login"
            return replace(done, trouble=trouble, certain=True)
        return done

    def close(self) -> None:
        """Sign out, and hang up."""
        if self._client.is_connected() and self._client.is_logged_in():
            self._do("", lambda: self._client.logout())
        self._client.disconnect()

    def check(
        self, names: Sequence[str], years: int, action: FeeAction = "create"
    ) -> list[Checked] | Done:
        """Which can be registered for so many years, and what that, or another action, costs."""
        answer, done = self._ask(
            "",
            lambda: self._client.domain.check(list(names), fee={action: years}),
            lambda got: _checked(names, got, action),
        )
        return done if answer is None else answer

    def credit(self) -> tuple[Decimal, Done]:
        """What is left in our account there."""
        answer, done = self._ask("", self._client.balance, _credit)
        if answer is None:
            return Decimal(0), done if done.trouble else replace(done, trouble="nonsense")
        return answer, done

    def make_contact(self, number: str, person: Person, *, withheld: bool) -> Done:
        """Let the seller know somebody."""
        plain = person.plain()
        hidden: Any = {
            "flag": 0, "name": ["int"], "org": ["int"], "addr": ["int"], "voice": 1, "email": 1,
        }  # fmt: skip
        done = self._do(
            "",
            lambda: self._client.contact.create(
                number, name=plain.name, org=plain.organisation or None,
                street=[line for line in (plain.street, plain.street2) if line], city=plain.city,
                sp=plain.region or None, pc=plain.postcode or None, cc=plain.country,
                voice=plain.epp_phone, email=plain.email, auth_info=uuid.uuid4().hex[:16],
                disclose=hidden if withheld else None,
            ),
        )  # fmt: skip
        return replace(done, code=CREATED, said="") if done.code == EXISTS else done

    def make_host(self, name: str) -> Done:
        """Let the seller know a name server."""
        done = self._do("", lambda: self._client.host.create(name))
        return replace(done, code=CREATED, said="") if done.code == EXISTS else done

    def register(self, wish: Wish) -> Done:
        """Register a name."""
        return self._do(
            wish.trid,
            lambda: self._client.domain.create(
                wish.name, years=wish.years, registrant=wish.registrant,
                contacts=_by_role(wish.contacts), nameservers=list(wish.servers) or None,
                auth_info=wish.auth, fee=_fee(wish.fee, wish.currency),
            ),
        )  # fmt: skip

    def info(self, name: str) -> Seen:
        """What the seller knows of a name."""
        answer, done = self._ask("", lambda: self._client.domain.info(name), _seen)
        if done.code == GONE:
            return Seen("nobody", code=done.code)
        if done.code == NOT_OURS:
            return Seen("others", code=done.code)
        if answer is None or not done.good:
            return Seen("unknown", done.trouble or "refused", done.code)
        found: Seen = answer
        return found

    def renew(
        self, name: str, expires: datetime, years: int, trid: str, fee: Decimal, currency: str
    ) -> Done:
        """Renew a name that runs out then, for so much at most."""
        day = expires.astimezone(UTC).date().isoformat()
        agreed = _fee(fee, currency)
        return self._do(trid, lambda: self._client.domain.renew(name, day, years, fee=agreed))

    def restore(self, name: str, trid: str, fee: Decimal, currency: str) -> Done:
        """Get a name back out of its redemption period."""
        return self._do(
            trid, lambda: self._client.domain.restore(name, fee=_fee(fee, currency))
        )  # fmt: skip

    def let_go(self, name: str, trid: str) -> Done:
        """Delete a name."""
        return self._do(trid, lambda: self._client.domain.delete(name))

    def change(
        self, name: str, trid: str, *, add: Sequence[str] = (), remove: Sequence[str] = (),
        lock: bool | None = None,
    ) -> Done:  # fmt: skip
        """Other name servers, or its lock against being moved."""
        status = ["clientTransferProhibited"]
        added: dict[str, Any] = {"ns": list(add)} if add else {}
        removed: dict[str, Any] = {"ns": list(remove)} if remove else {}
        if lock is not None:
            (added if lock else removed)["statuses"] = status
        return self._do(
            trid,
            lambda: self._client.domain.update(name, add=added or None, remove=removed or None),
        )

    def notice(self) -> Notice | Done | None:
        """The message that has waited longest."""
        answer, done = self._ask("", self._client.poll.request, _notice)
        if done.code == 1300:
            return None
        return done if answer is None else answer

    def dismiss(self, number: str) -> Done:
        """Let a message go."""
        return self._do("", lambda: self._client.poll.ack(number))

    def _do(self, trid: str, send: Callable[[], Response]) -> Done:
        return self._ask(trid, send, lambda _got: None)[1]

    def _ask(
        self, trid: str, send: Callable[[], Response], read: Callable[[Response], Any]
    ) -> tuple[Any, Done]:
        """Send something and read the answer: the one place where whatever may go wrong becomes a
        value.
        """
        self._client.trid = trid
        if not self._client.is_connected() and self._client.greeting is not None:
            return None, Done(trouble="not_sent", said="the connection was closed")
        try:
            got = send()
            return read(got), _done(got)
        except CertificateProblemError as error:
            return None, Done(trouble="certificate", said=_cut(error))
        except UnreachableError as error:
            return None, Done(trouble="unreachable", said=_cut(error))
        except CommandException as error:
            return None, Done(code=error.epp_code, said=_cut("; ".join(error.reasons())))
        except EppException as error:
            return None, Done(trouble=_trouble(str(error)), said=_cut(error), certain=False)
        except (OSError, ValueError, ArithmeticError, LookupError, TypeError) as error:
            # The library reads what it gets with few questions: what it stumbles over is nonsense.
            self._client.disconnect()
            return None, Done(trouble="nonsense", said=_cut(error), certain=False)


def _trouble(text: str) -> GatewayTrouble:
    if "timed out" in text:
        return "timeout"
    closed = ("closed", "reset", "connection", "pipe", "EOF")
    return "unreachable" if any(word in text.lower() for word in closed) else "nonsense"


def _cut(error: object) -> str:
    return str(error)[:LONGEST]


def _done(got: Response) -> Done:
    if got.is_greeting():
        return Done(code=CREATED)
    code = got.code()
    if not 1000 <= code < 3000:
        return Done(trouble="nonsense", certain=False)
    reasons = "; ".join(reason for reason in got.error_reasons() if reason)
    charged = got.charged_fee() or {}
    return Done(
        code=code,
        said=reasons[:LONGEST] if code >= 2000 else "",
        certain=code not in UNCERTAIN,
        pending=code == 1001,
        charged=_fee_of(charged.get("fee")),
        created=_when(got.created_date()),
        expires=_when(got.expiry_date()),
    )


def _checked(names: Sequence[str], got: Response, action: str) -> list[Checked] | None:
    if got.code() != CREATED:
        return None
    free, fees = got.availability(), got.fees()
    currency = str(fees.get("_currency") or "")[:3]
    found = []
    for name in names:
        known: Any = fees.get(name) or {}
        command = (known.get("commands") or {}).get(action) or {}
        fee = _fee_of(command.get("fee")) if known.get("avail") else None
        reason = (got.unavailable_reason(name) or "")[:LONGEST]
        if name not in free:
            reason = reason or "it was not answered"
        premium = known.get("class") == "premium"
        found.append(Checked(name, free.get(name, False), reason, fee, currency, premium))
    return found


def _credit(got: Response) -> Decimal | None:
    told = got.balance()
    return None if told is None else _amount(told.get("availableCredit") or told.get("balance"))


def _seen(got: Response) -> Seen | None:
    if got.code() != CREATED:
        return None
    return Seen(
        "ours" if got.auth_info() else "others",
        code=got.code(),
        auth=got.auth_info() or "",
        statuses=tuple(status[:40] for status in got.statuses()[:20]),
        grace=tuple(status[:40] for status in got.rgp_status()[:10]),
        servers=tuple(server[:253].lower() for server in got.nameservers()[:13]),
        registrant=(got.registrant() or "")[:64],
        signed=bool(got.ds_records()),
        created=_when(got.created_date()),
        expires=_when(got.expiry_date()),
    )


def _notice(got: Response) -> Notice | None:
    number = got.message_id()
    if got.code() != 1301 or not number:
        return None
    about = got.pending_action_data() or {}
    granted = about.get("success")
    return Notice(
        number[:64],
        (got.queue_message() or "")[:LONGEST],
        str(about.get("object") or "")[:253].lower(),
        granted if isinstance(granted, bool) else None,
        str(about.get("clTRID") or "")[:64],
    )


def _by_role(contacts: Sequence[tuple[str, str]]) -> Any:
    return dict(contacts) or None


def _fee(amount: Decimal, currency: str) -> dict[str, str]:
    return {"amount": f"{amount:.2f}", "currency": currency}


def _amount(text: str | None) -> Decimal | None:
    """An amount of money, None for what is none."""
    if not text or not AMOUNT.fullmatch(text.strip()):
        return None
    try:
        return Decimal(text.strip())
    except InvalidOperation:
        return None


def _fee_of(text: str | None) -> Decimal | None:
    """What somebody asks, or took: nobody pays us."""
    found = _amount(text)
    return None if found is None or found < 0 else found


def _when(text: str | None) -> datetime | None:
    """A time (RFC 5731: with its zone), None for what is none."""
    if not text:
        return None
    try:
        found = datetime.fromisoformat(text.strip().replace("Z", "+00:00"))
    except ValueError:
        return None
    return found if found.tzinfo else found.replace(tzinfo=UTC)
