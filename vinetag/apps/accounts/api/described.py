"""A document's JSON Schema as serializer fields, so that the API's description says what the
document's model says, and nothing is written down twice.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, ClassVar, Final

from rest_framework import serializers

__all__ = ["DescribedSerializer"]

Schema = Mapping[str, Any]
Field = serializers.Field[Any, Any, Any, Any]
PLAIN: Final[Mapping[str, type[Field]]] = {
    "string": serializers.CharField,
    "integer": serializers.IntegerField,
    "number": serializers.FloatField,
    "boolean": serializers.BooleanField,
}


class DescribedSerializer(serializers.Serializer[Any]):
    """The fields of a flat document (texts, numbers, choices, yes or no, lists and mappings of
    these, each perhaps null) and those declared. Without `defaults`, fields may be left out.
    """

    described: ClassVar[Schema] = {"properties": {}}
    defaults: ClassVar[bool] = True

    def get_fields(self) -> dict[str, Field]:
        """By name, the document's first."""
        fields = {}
        for name, described in self.described["properties"].items():
            told: dict[str, Any] = {"required": False}
            if self.defaults and "default" in described:
                told = {"default": described["default"]}
            if words := described.get("description"):
                told["help_text"] = words
            fields[name] = _field(described, told)
        return {**fields, **super().get_fields()}


def _field(described: Schema, told: dict[str, Any]) -> Field:
    if "anyOf" in described:
        inner = next(one for one in described["anyOf"] if one.get("type") != "null")
        return _field(inner, {**told, "allow_null": True})
    if "enum" in described:
        return serializers.ChoiceField(choices=described["enum"], **told)
    kind = described["type"]
    if kind == "array":
        return serializers.ListField(
            child=_field(described["items"], {}), max_length=described.get("maxItems"), **told
        )
    if kind == "object":
        return serializers.DictField(child=_field(described["additionalProperties"], {}), **told)
    bounds = {
        "min_value": described.get("minimum"),
        "max_value": described.get("maximum"),
        "max_length": described.get("maxLength"),
    }
    return PLAIN[kind](**{k: v for k, v in bounds.items() if v is not None}, **told)
