"""What a gateway answers, as the client library has it, as values: whatever it lacks, or says in a
way that cannot be, is left out.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from datetime import UTC, datetime
from decimal import Decimal, InvalidOperation
from typing import Any, Final

from epptools.response import Response

from vinetag.core.zone import Signer
from vinetag.lookup.epp.gateway import (
    Checked,
    Done,
    GatewayTrouble,
    MoveState,
    Moving,
    Notice,
    Seen,
)

__all__ = [
    "agreed_fee", "by_role", "checked_of", "credit_of", "cut", "done_of", "moving_of", "notice_of",
    "seen_of", "told_of", "trouble_of",
]  # fmt: skip

LONGEST: Final = 200
# Codes after which it is not known what the seller did (RFC 5730: it failed inside).
UNCERTAIN: Final = frozenset({2400, 2500, 2501, 2502})
CREATED: Final = 1000
AMOUNT: Final = re.compile(r"-?\d{1,10}(\.\d{1,3})?")


def trouble_of(text: str) -> GatewayTrouble:
    if "timed out" in text:
        return "timeout"
    closed = ("closed", "reset", "connection", "pipe", "EOF")
    return "unreachable" if any(word in text.lower() for word in closed) else "nonsense"


def cut(error: object) -> str:
    return str(error)[:LONGEST]


def done_of(got: Response) -> Done:
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
        charged=fee_of(charged.get("fee")),
        created=moment_of(got.created_date()),
        expires=moment_of(got.expiry_date()),
    )


def checked_of(names: Sequence[str], got: Response, action: str) -> list[Checked] | None:
    if got.code() != CREATED:
        return None
    free, fees = got.availability(), got.fees()
    currency = str(fees.get("_currency") or "")[:3]
    found = []
    for name in names:
        known: Any = fees.get(name) or {}
        commands = known.get("commands") or {} if known.get("avail") else {}
        fee = fee_of((commands.get(action) or {}).get("fee"))
        later = fee_of((commands.get("renew") or {}).get("fee")) if action == "create" else None
        reason = (got.unavailable_reason(name) or "")[:LONGEST]
        if name not in free:
            reason = reason or "it was not answered"
        premium = known.get("class") == "premium"
        found.append(Checked(name, free.get(name, False), reason, fee, currency, premium, later))
    return found


def credit_of(got: Response) -> Decimal | None:
    told = got.balance()
    return None if told is None else amount_of(told.get("availableCredit") or told.get("balance"))


def seen_of(got: Response) -> Seen | None:
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
        keys=tuple(map(_signer, got.ds_records()[:20])),
        created=moment_of(got.created_date()),
        expires=moment_of(got.expiry_date()),
    )


def told_of(key: Signer) -> dict[str, Any]:
    """A key as the library wants it."""
    return {
        "key_tag": key.tag, "alg": key.algorithm, "digest_type": key.kind, "digest": key.digest,
    }  # fmt: skip


def _signer(told: dict[str, Any]) -> Signer:
    digest = str(told["digest"] or "").upper()[:200]
    return Signer(int(told["keyTag"]), int(told["alg"]), int(told["digestType"]), digest)


def moving_of(got: Response) -> Moving | None:
    told = got.transfer()
    if got.code() != CREATED or not told:
        return None
    states: dict[str, MoveState] = {
        "pending": "pending", "clientApproved": "approved", "serverApproved": "approved",
        "clientRejected": "refused", "clientCancelled": "refused", "serverCancelled": "refused",
    }  # fmt: skip
    state = states.get(told["status"] or "")
    if state is None:
        return None
    return Moving(state, moment_of(told["requested_at"]), moment_of(told["act_by"]), code=CREATED)


def notice_of(got: Response) -> Notice | None:
    number = got.message_id()
    if got.code() != 1301 or not number:
        return None
    about = got.pending_action_data() or {}
    granted = about.get("success")
    moving = got.transfer() is not None
    named = got.value("name") if moving else about.get("object")
    return Notice(
        number[:64],
        (got.queue_message() or "")[:LONGEST],
        str(named or "")[:253].lower(),
        granted if isinstance(granted, bool) else None,
        str(about.get("clTRID") or "")[:64],
        moving,
    )


def by_role(contacts: Sequence[tuple[str, str]]) -> Any:
    return dict(contacts) or None


def agreed_fee(amount: Decimal, currency: str) -> dict[str, str]:
    return {"amount": f"{amount:.2f}", "currency": currency}


def amount_of(text: str | None) -> Decimal | None:
    """An amount of money, None for what is none."""
    if not text or not AMOUNT.fullmatch(text.strip()):
        return None
    try:
        return Decimal(text.strip())
    except InvalidOperation:
        return None


def fee_of(text: str | None) -> Decimal | None:
    """What somebody asks, or took: nobody pays us."""
    found = amount_of(text)
    return None if found is None or found < 0 else found


def moment_of(text: str | None) -> datetime | None:
    """A time (RFC 5731: with its zone), None for what is none."""
    if not text:
        return None
    try:
        found = datetime.fromisoformat(text.strip().replace("Z", "+00:00"))
    except ValueError:
        return None
    return found if found.tzinfo else found.replace(tzinfo=UTC)
