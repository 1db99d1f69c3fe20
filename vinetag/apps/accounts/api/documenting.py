"""Errors any operation may answer with, written into the OpenAPI document in one place."""

from __future__ import annotations

from typing import Any, Final

__all__ = ["document_errors"]

EVERYWHERE: Final = {
    "400": "What was sent makes no sense, or this host name is not answered for",
    "403": "Nobody is signed in, or the request lacks its token",
    "429": "Too many tries, or too much at once; Retry-After says when to come back",
    "503": "Too many are at work, or the database is away; Retry-After says when to come back",
}
WITH_PLACE: Final = {"404": "There is no such thing, or it is someone else's"}
WITH_BODY: Final = {"413": "The body is too large", "415": "The body is no JSON"}
METHODS: Final = frozenset({"get", "post", "put", "patch", "delete"})


def document_errors(result: dict[str, Any], **_more: Any) -> dict[str, Any]:
    """Add the errors to every operation that does not describe them itself."""
    content = {"application/json": {"schema": {"$ref": "#/components/schemas/Error"}}}
    for path, operations in result["paths"].items():
        for method, operation in operations.items():
            if method not in METHODS:
                continue
            known = dict(EVERYWHERE)
            if "{" in path:
                known |= WITH_PLACE
            if method in ("post", "put", "patch"):
                known |= WITH_BODY
            responses = operation["responses"]
            for status, what in known.items():
                responses.setdefault(status, {"content": content, "description": what})
            operation["responses"] = dict(sorted(responses.items()))
    return result
