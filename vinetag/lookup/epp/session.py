"""A session with a seller's gateway by the client library epptools."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from decimal import Decimal
from typing import Any, Final

from epptools import Client, CommandException, Config, EppException, Frame
from epptools.response import Response
from epptools.transport import Transport

from vinetag.core.ordering import Person
from vinetag.core.zone import Signer
from vinetag.lookup.epp.gateway import (
    Checked,
    Done,
    FeeAction,
    GatewayTrouble,
    Moving,
    Notice,
    Seen,
    Wish,
)
from vinetag.lookup.epp.reading import (
    agreed_fee,
    by_role,
    checked_of,
    credit_of,
    cut,
    done_of,
    moving_of,
    notice_of,
    seen_of,
    told_of,
    trouble_of,
)
from vinetag.lookup.epp.settings import GatewaySettings
from vinetag.lookup.epp.transport import CertificateProblemError, TlsTransport, UnreachableError

__all__ = ["MOST_CHECKED", "EppGateway"]

MOST_CHECKED: Final = 50
TOKENS: Final = "urn:ietf:params:xml:ns:allocationToken-1.0"
NO_EXTENSION: Final = 2103
CREATED, GONE, EXISTS, NOT_OURS, NOT_MOVING = 1000, 2303, 2302, 2201, 2301


class _Client(Client):
    """The library's, with transaction identifiers of ours."""

    trid = ""
    token = ""

    def frame(self) -> Frame:
        """A new command."""
        return Frame.command(self.trid or uuid.uuid4().hex)

    def request(self, frame: Frame | str) -> Response:
        """With the token somebody shows, which the library does not know (RFC 8495)."""
        if self.token and isinstance(frame, Frame):
            frame.ns(frame.extension(), TOKENS, "allocationToken:allocationToken", self.token)
        return super().request(frame)

    @property
    def takes_tokens(self) -> bool:
        """Whether the server says that it knows them."""
        return self.greeting is not None and TOKENS in self.greeting.service_ext_uris()


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
        self, names: Sequence[str], years: int, action: FeeAction = "create", token: str = ""
    ) -> list[Checked] | Done:
        """Which can be registered for so many years, and what that, or another action, costs, with
        a coupon if there is one.
        """
        if token and not self._client.takes_tokens:
            return Done(code=NO_EXTENSION)
        wanted: dict[str, Any] = {str(action): years} | ({"renew": 1} if action == "create" else {})
        answer, done = self._ask(
            "",
            lambda: self._client.domain.check(list(names), fee=wanted),
            lambda got: checked_of(names, got, action),
            token,
        )
        return done if answer is None else answer

    def credit(self) -> tuple[Decimal, Done]:
        """What is left in our account there."""
        answer, done = self._ask("", self._client.balance, credit_of)
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
        if wish.token and not self._client.takes_tokens:
            return Done(code=NO_EXTENSION)
        return self._do(
            wish.trid,
            lambda: self._client.domain.create(
                wish.name, years=wish.years, registrant=wish.registrant,
                contacts=by_role(wish.contacts), nameservers=list(wish.servers) or None,
                auth_info=wish.auth, fee=agreed_fee(wish.fee, wish.currency),
            ),
            wish.token,
        )  # fmt: skip

    def info(self, name: str) -> Seen:
        """What the seller knows of a name."""
        answer, done = self._ask("", lambda: self._client.domain.info(name), seen_of)
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
        agreed = agreed_fee(fee, currency)
        return self._do(trid, lambda: self._client.domain.renew(name, day, years, fee=agreed))

    def restore(self, name: str, trid: str, fee: Decimal, currency: str) -> Done:
        """Get a name back out of its redemption period."""
        return self._do(
            trid, lambda: self._client.domain.restore(name, fee=agreed_fee(fee, currency))
        )  # fmt: skip

    def let_go(self, name: str, trid: str) -> Done:
        """Delete a name."""
        return self._do(trid, lambda: self._client.domain.delete(name))

    def move(
        self, name: str, code: str, years: int, trid: str, fee: Decimal, currency: str
    ) -> Done:
        """Ask for a name of another seller by its code, for so much at most."""
        agreed = agreed_fee(fee, currency)
        return self._do(
            trid,
            lambda: self._client.domain.transfer("request", name, code, years, fee=agreed),
        )

    def moving(self, name: str) -> Moving:
        """How that stands, for either side."""
        answer, done = self._ask("", lambda: self._client.domain.transfer("query", name), moving_of)
        if done.code in (GONE, NOT_OURS, NOT_MOVING):
            return Moving("none", code=done.code)
        if answer is None or not done.good:
            return Moving("unknown", trouble=done.trouble or "refused", code=done.code)
        found: Moving = answer
        return found

    def decide(self, name: str, *, allow: bool) -> Done:
        """Let a name go to who asks for it, or refuse it."""
        word = "approve" if allow else "reject"
        return self._do("", lambda: self._client.domain.transfer(word, name))

    def change(
        self, name: str, trid: str, *, add: Sequence[str] = (), remove: Sequence[str] = (),
        lock: bool | None = None, registrant: str = "", auth: str = "",
        sign: Sequence[Signer] = (), unsign: Sequence[Signer] = (),
    ) -> Done:  # fmt: skip
        """Other name servers, its lock against being moved, whom it is for, its code, or the keys
        that sign it, some more or fewer.
        """
        status = ["clientTransferProhibited"]
        added: dict[str, Any] = {"ns": list(add)} if add else {}
        removed: dict[str, Any] = {"ns": list(remove)} if remove else {}
        if lock is not None:
            (added if lock else removed)["statuses"] = status
        changed: dict[str, Any] = {"registrant": registrant} if registrant else {}
        changed |= {"auth_info": auth} if auth else {}
        parts = {"add": sign, "remove": unsign}
        keys: dict[str, Any] = {
            part: {"ds_data": [told_of(one) for one in some]}
            for part, some in parts.items()
            if some
        }
        return self._do(
            trid,
            lambda: self._client.domain.update(
                name,
                add=added or None,
                remove=removed or None,
                change=changed or None,
                sec_dns=keys or None,
            ),
        )

    def notice(self) -> Notice | Done | None:
        """The message that has waited longest."""
        answer, done = self._ask("", self._client.poll.request, notice_of)
        if done.code == 1300:
            return None
        return done if answer is None else answer

    def dismiss(self, number: str) -> Done:
        """Let a message go."""
        return self._do("", lambda: self._client.poll.ack(number))

    def _do(self, trid: str, send: Callable[[], Response], token: str = "") -> Done:
        return self._ask(trid, send, lambda _got: None, token)[1]

    def _ask(
        self, trid: str, send: Callable[[], Response], read: Callable[[Response], Any],
        token: str = "",
    ) -> tuple[Any, Done]:  # fmt: skip
        """Send something and read the answer: the one place where whatever may go wrong becomes a
        value.
        """
        self._client.trid, self._client.token = trid, token
        if not self._client.is_connected() and self._client.greeting is not None:
            return None, Done(trouble="not_sent", said="the connection was closed")
        try:
            got = send()
            return read(got), done_of(got)
        except CertificateProblemError as error:
            return None, Done(trouble="certificate", said=cut(error))
        except UnreachableError as error:
            return None, Done(trouble="unreachable", said=cut(error))
        except CommandException as error:
            return None, Done(code=error.epp_code, said=cut("; ".join(error.reasons())))
        except EppException as error:
            return None, Done(trouble=trouble_of(str(error)), said=cut(error), certain=False)
        except (OSError, ValueError, ArithmeticError, LookupError, TypeError) as error:
            # The library reads what it gets with few questions: what it stumbles over is nonsense.
            self._client.disconnect()
            return None, Done(trouble="nonsense", said=cut(error), certain=False)
