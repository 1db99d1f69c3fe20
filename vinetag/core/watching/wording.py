"""What happened, as a sentence: in the application, in letters and in feeds."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime, tzinfo
from decimal import Decimal, InvalidOperation
from typing import Any, Final

from vinetag.core.checking import STATUS_KINDS
from vinetag.core.concepts import OFFER_KINDS, HappeningName

__all__ = ["moment_in_words", "sentence"]

MOST_NAMED: Final = 5
_MONTHS: Final = (
    "January February March April May June July August September October November December"
).split()
_BECAME: Final[Mapping[str, str]] = {
    "open": "{name} is open: it can be registered.",
    "premium": "{name} can be registered, at a price of its own.",
    "dropping": "{name} is on its way out.",
    "offered": "{name} is offered.",
    "reserved": "{name} is held back by the registry.",
}


def moment_in_words(at: datetime, zone: tzinfo) -> str:
    """A moment in a person's zone: "3 December 2026, 14:00 GMT"."""
    here = at.astimezone(zone)
    return f"{here.day} {_MONTHS[here.month - 1]} {here.year}, {here:%H:%M} {here.tzname()}"


def sentence(what: HappeningName | str, args: Mapping[str, Any], zone: tzinfo) -> str:
    """What happened, as a sentence, with moments in a zone. `args` are those it was kept with:
    `name`, `before` and `after` as in Change; of a search `title`, `count` and `names`; of a seller
    `seller` and `action`. Of a kind that is not known it says that something changed.
    """
    tell = _TELL.get(what)
    if tell is None:
        return f"Something changed of {args.get('name') or args.get('title', '')}."
    return tell(args, zone)


def _when(text: str, zone: tzinfo) -> str:
    try:
        return moment_in_words(datetime.fromisoformat(text), zone)
    except ValueError:
        return text


def _status(args: Mapping[str, Any], zone: tzinfo) -> str:
    name, before, after = args["name"], args["before"], args["after"]
    if after == "taken":
        return {
            "dropping": f"{name} is not let go any more: it is registered.",
            "offered": f"{name} is not offered any more; it is registered.",
        }.get(before, f"{name} was taken.")
    text = _BECAME.get(after, "{name} is {word} now.").format(name=name, word=_word(after))
    more = args.get("more", "")
    if more:
        text = f"{text} {more[0].upper()}{more[1:]}."
    if after == "dropping" and args.get("range"):
        text = f"{text} {_between(args['range'], zone)}"
    return f"{text} It was {_word(before)}."


def _word(status: str) -> str:
    kind = STATUS_KINDS.get(status)
    return kind.word if kind else status


def _between(span: str, zone: tzinfo) -> str:
    first, _, last = span.partition("/")
    return f"It may become open between {_when(first, zone)} and {_when(last, zone)}."


def _kind(args: Mapping[str, Any], _zone: tzinfo) -> str:
    def word(name: str) -> str:
        return OFFER_KINDS[name].word if name in OFFER_KINDS else name  # type: ignore[index]

    return f"{args['name']}: {word(args['after'])} now, it was {word(args['before'])}."


def _money(text: str) -> str:
    """An amount as a change has it ("1200.00 EUR"), with separators."""
    amount, _, currency = text.partition(" ")
    try:
        return f"{Decimal(amount):,.2f} {currency}".strip()
    except InvalidOperation:
        return text


def _price(args: Mapping[str, Any], _zone: tzinfo) -> str:
    after, before = _money(args["after"]), _money(args["before"])
    return f"{args['name']} is offered for {after} now; it was {before}."


def _terms(args: Mapping[str, Any], _zone: tzinfo) -> str:
    after, before = _money(args["after"]), _money(args["before"])
    return f"The first year of {args['name']} costs {after} now; it was {before}."


def _extended(args: Mapping[str, Any], zone: tzinfo) -> str:
    return (
        f"The auction of {args['name']} ends on {_when(args['after'], zone)}; that was "
        f"{_when(args['before'], zone)}."
    )


def _drops(args: Mapping[str, Any], zone: tzinfo) -> str:
    return f"{args['name']} is on its way out. {_between(args['after'], zone)}"


def _expires(args: Mapping[str, Any], zone: tzinfo) -> str:
    later = args["after"] > args["before"]
    how = "was renewed: it" if later else "runs out sooner: it"
    return (
        f"{args['name']} {how} is registered until {_when(args['after'], zone)}; that was "
        f"{_when(args['before'], zone)}."
    )


def _near(args: Mapping[str, Any], zone: tzinfo) -> str:
    when = _when(args["after"], zone)
    return {
        "ends": f"The auction of {args['name']} ends on {when}.",
        "drops": f"{args['name']} may become open from {when}.",
    }.get(args.get("of", ""), f"{args['name']} runs out on {when}.")


def _found(args: Mapping[str, Any], _zone: tzinfo) -> str:
    names: Sequence[str] = args.get("names", ())
    count = int(args.get("count", len(names)))
    listed = ", ".join(names[:MOST_NAMED])
    more = f" and {count - len(names[:MOST_NAMED]):,} more" if count > MOST_NAMED else ""
    number = "One name" if count == 1 else f"{count:,} names"
    return f"{number} new in “{args['title']}”: {listed}{more}."


def _listed(args: Mapping[str, Any], _zone: tzinfo) -> str:
    to = {"renew": "to renew", "register": "to register"}.get(args.get("action", ""), "")
    name, seller = args["name"], args["seller"]
    after, before = _money(args["after"]), _money(args["before"])
    if not after:
        return f"{name} is not listed by {seller} any more; it was {before} {to}."
    if not before:
        return f"{name} costs {after} {to} at {seller}."
    return f"{name} costs {after} {to} at {seller} now; it was {before}."


_OWNED: Final[Mapping[str, str]] = {
    "expires": "Your name {name} runs out on {when}.{by_itself}{cost}",
    "ran_out": "Your name {name} has run out. It can be renewed as before until {when} at the "
    "latest; its seller may be sooner.{cost}{back}",
    "grace_ends": "Your name {name} can be renewed as before until {when} at the latest, and then "
    "only be had back for a higher price.{cost}{back}",
    "redemption": "Your name {name} was not renewed. It can be had back, for a higher price, until "
    "{when} at the latest.{back}",
    "redemption_ends": "Your name {name} can be had back until {when} at the latest; after that it "
    "is lost.{back}",
    "renewed": "Your name {name} was renewed by itself until {when}.{cost}",
    "ceiling": "Your name {name} is renewed by itself once you agree to a ceiling for it, under My "
    "names. Until then you are asked.",
    "leaving": "Somebody asks to move your name {name} to another seller. If nobody answers it "
    "goes on {when}. Let it go or keep it, under My names.",
    "not_renewed": "Your name {name} could not be renewed by itself: {why}",
}


def _owned(args: Mapping[str, Any], zone: tzinfo) -> str:
    text = _OWNED.get(str(args.get("of", "")), "Something changed of your name {name}.")
    cost = _money(str(args["cost"])) if args.get("cost") else ""
    back = _money(str(args["back"])) if args.get("back") else ""
    itself = " It is renewed by itself." if args.get("renewal") == "itself" else ""
    return text.format(
        name=args["name"],
        when=_when(str(args.get("after", "")), zone),
        cost=f" A year costs {cost}." if cost else "",
        back=f" Having it back costs {back}, with a year." if back else "",
        by_itself=itself,
        why=args.get("why", ""),
    )


_TELL: Final = {
    "status": _status, "price": _price, "kind": _kind, "extended": _extended, "drops": _drops,
    "expires": _expires, "terms": _terms, "near": _near, "found": _found, "listed": _listed,
    "owned": _owned,
}  # fmt: skip
