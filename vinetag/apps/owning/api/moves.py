"""Moving a name, as documents."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from rest_framework import serializers

from vinetag.apps.owning.moving import Move
from vinetag.core.owning import Trap

__all__ = [
    "CodeSerializer", "LeavingSerializer", "MoveSerializer", "MoveWishSerializer",
    "MovingSerializer", "move_document", "trap_documents",
]  # fmt: skip


class MovingSerializer(serializers.Serializer[Any]):
    to = serializers.CharField(
        max_length=40, default="", allow_blank=True, help_text="Code of a seller, blank for any"
    )
    code = serializers.CharField(
        max_length=200, default="", allow_blank=True, help_text="By which it can be moved"
    )


class MoveWishSerializer(MovingSerializer):
    sign = serializers.CharField(max_length=32, help_text="What was agreed to")


class TrapSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    bars = serializers.BooleanField(help_text="It cannot be moved so")
    message = serializers.CharField()


class MoveSellerSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    name = serializers.CharField()


class MoveSerializer(serializers.Serializer[Any]):
    to = serializers.CharField(allow_blank=True)
    sellers = MoveSellerSerializer(many=True)
    traps = TrapSerializer(many=True)
    at_home = serializers.BooleanField(help_text="Its code is known here")
    amount = serializers.CharField(allow_null=True, help_text="With tax, and a year")
    currency = serializers.CharField(allow_blank=True)
    why_not = serializers.CharField(allow_blank=True)
    sign = serializers.CharField()


class CodeSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    traps = TrapSerializer(many=True)


class LeavingSerializer(serializers.Serializer[Any]):
    allow = serializers.BooleanField()


def trap_documents(traps: Sequence[Trap]) -> list[dict[str, Any]]:
    """As TrapSerializer describes them."""
    return [{"code": one.code, "bars": one.bars, "message": one.text()} for one in traps]


def move_document(move: Move) -> dict[str, Any]:
    """As MoveSerializer describes it."""
    return {
        "to": move.to,
        "sellers": [{"code": code, "name": name} for code, name in move.sellers],
        "traps": trap_documents(move.traps),
        "at_home": move.at_home,
        "amount": None if move.amount is None else f"{move.amount:.2f}",
        "currency": move.currency,
        "why_not": move.why_not,
        "sign": move.sign,
    }
