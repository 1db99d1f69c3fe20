"""A document's JSON Schema as serializer fields, so that the API's description says what the
document's model says, and nothing is written down twice.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, ClassVar, Final, Literal, NamedTuple

from rest_framework import serializers

__all__ = ["DescribedSerializer"]

Schema = Mapping[str, Any]
Mode = Literal["defaults", "optional", "whole"]
Field = serializers.Field[Any, Any, Any, Any]
PLAIN: Final[Mapping[str, type[Field]]] = {
    "string": serializers.CharField,
    "integer": serializers.IntegerField,
    "number": serializers.FloatField,
    "boolean": serializers.BooleanField,
}


class DescribedSerializer(serializers.Serializer[Any]):
    """The fields of a document (texts, numbers, choices, yes or no, lists and mappings of these,
    each perhaps null, and parts that are documents) and those declared. With the mode "defaults"
    what is left out takes its default, with "optional" it may be left out, and with "whole" all of
    it is there, and a choice is any text: the document's own reader says what is wrong with it.
    """

    described: ClassVar[Schema] = {"properties": {}}
    mode: ClassVar[Mode] = "defaults"

    def get_fields(self) -> dict[str, Field]:
        """By name, the document's first."""
        describing = _Describing(self.described.get("$defs", {}), self.mode)
        fields = {
            name: describing.field(described, describing.options(described))
            for name, described in self.described["properties"].items()
        }
        return {**fields, **super().get_fields()}


class _Describing(NamedTuple):
    parts: Mapping[str, Schema]
    mode: Mode

    def options(self, described: Schema) -> dict[str, Any]:
        """What is said of a field of the document itself."""
        options: dict[str, Any] = {}
        if self.mode == "defaults" and "default" in described:
            options["default"] = described["default"]
        elif self.mode != "whole":
            options["required"] = False
        if words := described.get("description"):
            options["help_text"] = words
        return options

    def field(self, described: Schema, options: dict[str, Any]) -> Field:
        """The field for a value as it is described."""
        if several := described.get("anyOf"):
            if {"type": "null"} in several:
                options = {**options, "allow_null": True}
            kinds = [one for one in several if one != {"type": "null"}]
            return self.field(next((k for k in kinds if "$ref" in k), kinds[0]), options)
        if "$ref" in described:
            return self.part(described["$ref"].rpartition("/")[2])(**options)
        if "enum" in described and self.mode != "whole":
            return serializers.ChoiceField(choices=described["enum"], **options)
        kind = described["type"]
        if kind == "array":
            child = self.field(described["items"], {})
            most = None if self.mode == "whole" else described.get("maxItems")
            if isinstance(child, serializers.BaseSerializer):
                return type(child)(many=True, **options)
            return serializers.ListField(child=child, max_length=most, **options)
        if kind == "object":
            child = self.field(described["additionalProperties"], {})
            return serializers.DictField(child=child, **options)
        bounds = {
            "min_value": described.get("minimum"),
            "max_value": described.get("maximum"),
            "max_length": described.get("maxLength"),
        }
        given = {k: v for k, v in bounds.items() if v is not None}
        if kind == "string" and self.mode == "whole":
            given = {"allow_blank": True}
        return PLAIN[kind](**given, **options)

    def part(self, name: str) -> type[DescribedSerializer]:
        """The serializer of a part that is a document, the same each time."""
        key = (name, self.mode)
        if key not in _PARTS:
            body = {
                "described": {**self.parts[name], "$defs": self.parts},
                "mode": self.mode,
                "__doc__": self.parts[name].get("description"),
            }
            _PARTS[key] = type(f"{name}Serializer", (DescribedSerializer,), body)
        return _PARTS[key]


_PARTS: dict[tuple[str, Mode], type[DescribedSerializer]] = {}
