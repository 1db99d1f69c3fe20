"""Simulated platforms with profiles under addresses of their own, all of them made up.

Under /platforms/<platform>/..., a profile is there or not; how a platform tells differs: by the
status code, by a text of a page that always comes, or not at all.
"""

from __future__ import annotations

import hashlib
from collections.abc import Awaitable, Callable
from typing import Final

from aiohttp import web

__all__ = ["PLATFORMS", "add_platforms"]

# How many of a hundred names that are registered somewhere, and of others, have a profile.
PLATFORMS: Final[dict[str, tuple[int, int]]] = {
    "larkwire": (86, 22), "pigeonhole": (88, 26), "reelmoor": (78, 18), "hearthside": (70, 14),
    "loomly": (34, 4), "quarry": (52, 8), "fieldnotes": (44, 6), "murmur": (58, 11),
    "tallowcast": (26, 2), "brightbox": (30, 3), "stallroad": (24, 2), "wanderlist": (40, 5),
    "songmill": (46, 7), "plainpage": (38, 4), "ninekeys": (36, 6), "corkboard": (48, 7),
    "tidewall": (28, 3), "gatherly": (22, 2), "inkwell": (30, 3), "copperline": (64, 9),
    "snugroom": (50, 8), "moorland": (20, 1), "postern": (54, 10), "kilnyard": (18, 1),
}  # fmt: skip
ABSENT: Final = {
    "murmur": "There is nobody here by that name",
    "brightbox": "This box is empty",
    "ninekeys": "No such player",
}
SILENT: Final = frozenset({"copperline", "postern"})
PAGE: Final = "<!doctype html><title>{title}</title><h1>{title}</h1><p>{text}</p>"

Troubled = Callable[[web.Request, str], Awaitable[web.StreamResponse | None]]


def add_platforms(
    app: web.Application, fault_of: Troubled, registered: Callable[[str], bool]
) -> None:
    """Their addresses; `fault_of` is what is wrong with a platform now, `registered` whether a
    label is registered anywhere.
    """

    def taken(platform: str, handle: str) -> bool:
        plain = "".join(c for c in handle.lower() if c.isalnum())
        digest = hashlib.blake2b(f"{platform}/{plain}".encode(), digest_size=4).digest()
        chance = int.from_bytes(digest, "big") % 100
        sought, other = PLATFORMS[platform]
        return bool(plain) and chance < (sought if registered(plain) else other)

    async def profile(request: web.Request) -> web.StreamResponse:
        platform = request.match_info["platform"]
        if platform not in PLATFORMS:
            raise web.HTTPNotFound
        if (fault := await fault_of(request, platform)) is not None:
            return fault
        handle = request.match_info["rest"].rsplit("/", 1)[-1].lstrip("@")
        there = taken(platform, handle)
        if platform in SILENT or (platform in ABSENT and not there):
            text = ABSENT.get(platform, "Sign in to see who is here.")
            return _page(platform, text, 200)
        if not there:
            return _page(platform, "Nothing stands here.", 404)
        return _page(platform, f"{handle} has been here for years.", 200)

    app.router.add_get("/platforms/{platform}/{rest:.+}", profile)


def _page(platform: str, text: str, status: int) -> web.Response:
    body = PAGE.format(title=platform.title(), text=text)
    return web.Response(text=body, status=status, content_type="text/html")
