"""The catalogue of platforms: where a profile stands, what a handle may be there, and how the
platform tells that there is none. A CSV file described by its heading.
"""

from __future__ import annotations

import csv
import io
import ipaddress
import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Final, Literal, get_args
from urllib.parse import urlsplit

from vinetag.core.cells import Cells, read_table
from vinetag.core.errors import CatalogueError, Problem, add_words
from vinetag.core.spreadsheet import safe_cell

__all__ = [
    "ABSENCES", "PLATFORM_COLUMNS", "Absence", "Platform", "read_platforms", "shipped_platforms",
    "write_platforms",
]  # fmt: skip

Absence = Literal["status", "text", "none"]
ABSENCES: Final[tuple[Absence, ...]] = get_args(Absence)
PLATFORM_COLUMNS: Final = (
    "code", "name", "address", "letters_min", "letters_max", "characters", "first", "absence",
    "absent",
)  # fmt: skip
PLACE: Final = "{handle}"
CHARACTERS: Final = frozenset("abcdefghijklmnopqrstuvwxyz0123456789_.-")
LETTERS: Final = "abcdefghijklmnopqrstuvwxyz0123456789"
MOST_PLATFORMS: Final = 200
LONGEST_ADDRESS: Final = 300
CODE: Final = re.compile(r"[a-z0-9][a-z0-9-]{0,29}")
LOCAL: Final = ("localhost", ".localhost", ".local", ".internal", ".lan", ".home.arpa")

add_words(
    {
        "platform_place": "The address needs {{handle}} once, where the handle stands.",
        "platform_private": "“{value}” is no address of the public internet.",
        "platform_code": "A code has up to 30 letters a to z, digits and hyphens.",
        "platform_characters": "“{value}” cannot be part of a handle here.",
        "platform_absent": "Say which text the page has when nobody has the handle.",
    }
)


@dataclass(frozen=True, slots=True)
class Platform:
    """`address` has {handle} once; one that begins with "/" stands at the address of platforms in
    the settings. `characters` a handle may have; `letter_first`: it begins with one. Absence is
    told by the status code, by a text of the page (`absent`), or not at all.
    """

    code: str
    name: str
    address: str
    letters_min: int = 1
    letters_max: int = 30
    characters: str = LETTERS
    letter_first: bool = False
    absence: Absence = "status"
    absent: str = ""

    def barred(self, handle: str) -> str:
        """Why it cannot be a handle here, as words; "" where it can."""
        if len(handle) < self.letters_min:
            return f"it has fewer than {self.letters_min} characters"
        if len(handle) > self.letters_max:
            return f"it has more than {self.letters_max} characters"
        for character in handle:
            if character not in self.characters:
                return f"“{character}” is not allowed"
        return (
            "it must begin with a letter"
            if self.letter_first and handle[0] in "0123456789_.-"
            else ""
        )


@cache
def shipped_platforms() -> tuple[Platform, ...]:
    """Those that ship with the application."""
    text = files("vinetag.core.vet").joinpath("data/platforms.csv").read_text("utf-8")
    return tuple(read_platforms(text, shipped=True))


def read_platforms(text: str, *, shipped: bool = False) -> list[Platform]:
    """A catalogue. Raises CatalogueError with every problem at its line; addresses of it are of the
    public internet, unless it is the one that ships.
    """
    table = read_table(text, PLATFORM_COLUMNS, ("code", "name", "address"), MOST_PLATFORMS)
    found: dict[str, Platform] = {}
    for cells in table.lines:
        platform = _platform(cells, shipped=shipped)
        if platform.code in found:
            cells.problem("code", "repeated", {"value": platform.code})
        found[platform.code] = platform
    if table.problems:
        raise CatalogueError(*table.problems)
    return list(found.values())


def write_platforms(platforms: Iterable[Platform]) -> str:
    """The catalogue as a file `read_platforms` reads."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(PLATFORM_COLUMNS)
    for one in platforms:
        row: Sequence[str | int] = (
            one.code, one.name, one.address, one.letters_min, one.letters_max, one.characters,
            "letter" if one.letter_first else "any", one.absence, one.absent,
        )  # fmt: skip
        writer.writerow([safe_cell(cell) if isinstance(cell, str) else cell for cell in row])
    return out.getvalue()


def platform_problems(platform: Platform, *, shipped: bool = False) -> Mapping[str, Problem]:
    """What is wrong with a platform, by field."""
    found: dict[str, Problem] = {}

    def tell(field: str, code: str, **args: object) -> None:
        found.setdefault(field, Problem(field, code, args))

    if not CODE.fullmatch(platform.code):
        tell("code", "platform_code")
    if not platform.name.strip():
        tell("name", "blank")
    if platform.address.count(PLACE) != 1 or re.search(
        r"[{}]", platform.address.replace(PLACE, "")
    ):
        tell("address", "platform_place")
    elif not (shipped and platform.address.startswith("/")):
        _address(platform.address, tell)
    if platform.letters_min > platform.letters_max:
        tell("letters_min", "min_over_max", low=platform.letters_min, high=platform.letters_max)
    for character in platform.characters:
        if character not in CHARACTERS:
            tell("characters", "platform_characters", value=character)
    if platform.absence == "text" and not platform.absent.strip():
        tell("absent", "platform_absent")
    return found


def _address(address: str, tell: Callable[..., None]) -> None:
    try:
        parts = urlsplit(address.replace(PLACE, "x"))
        host, _ = parts.hostname or "", parts.port
    except ValueError:
        tell("address", "not_address", value=address[:60])
        return
    named = PLACE in address.split("/")[2] if address.count("/") > 2 else True
    if parts.scheme not in ("http", "https") or not host or parts.username or named or (
        len(address) > LONGEST_ADDRESS
    ):  # fmt: skip
        tell("address", "not_address", value=address[:60])
        return
    try:
        private = not ipaddress.ip_address(host).is_global
    except ValueError:
        private = "." not in host or host == LOCAL[0] or host.endswith(LOCAL[1:])
        # An address may be written as one number, or in parts that are not decimal.
        private = private or host.rsplit(".", 1)[-1][:1].isdigit()
    if private:
        tell("address", "platform_private", value=host[:60])


def _platform(cells: Cells, *, shipped: bool) -> Platform:
    low, high = cells.whole("letters_min", 1, 100), cells.whole("letters_max", 1, 100)
    platform = Platform(
        cells.text("code").lower(), cells.text("name")[:60], cells.text("address"),
        low or 1, high or 30, cells.text("characters").lower() or LETTERS,
        cells.choice("first", ("any", "letter"), "any") == "letter",
        cells.choice("absence", ABSENCES, "status"),  # type: ignore[arg-type] # one of them
        cells.text("absent")[:200],
    )  # fmt: skip
    for field, problem in platform_problems(platform, shipped=shipped).items():
        cells.problem(field, problem.code, problem.args)
    return platform
