"""Writes the JSON and Table Schemas in docs/ from the models that read the documents: python -m
scripts.build_schemas.
"""

from __future__ import annotations

import json
import os
from pathlib import Path
from typing import Any

import django

DOCS = Path(__file__).resolve().parents[1] / "docs"


def schemas() -> dict[str, dict[str, Any]]:
    """By file name."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "vinetag.config.settings.test")
    django.setup()
    from vinetag.apps.accounts.preferences import preferences_schema
    from vinetag.apps.bench.document import project_schema
    from vinetag.core.brief import brief_schema
    from vinetag.core.cost.coupon_files import coupons_schema
    from vinetag.core.cost.price_files import price_list_schema
    from vinetag.core.cost.seller_documents import sellers_schema
    from vinetag.core.market import feed_schema, hunt_schema
    from vinetag.core.market.markets import markets_schema, zones_schema
    from vinetag.core.market.short_names import short_schema
    from vinetag.core.owning import schema_of_names
    from vinetag.core.sheet import question_schema
    from vinetag.core.vet.marks import marks_schema

    return {
        "brief.schema.json": brief_schema(),
        "coupons.table.json": coupons_schema(),
        "hunt.schema.json": hunt_schema(),
        "market-list.table.json": feed_schema(),
        "markets.schema.json": markets_schema(),
        "marks.table.json": marks_schema(),
        "price-list.table.json": price_list_schema(),
        "owned.table.json": schema_of_names(),
        "preferences.schema.json": preferences_schema(),
        "project.schema.json": project_schema(),
        "question.schema.json": question_schema(),
        "sellers.schema.json": sellers_schema(),
        "short-names.schema.json": short_schema(),
        "zones.schema.json": zones_schema(),
    }


def written(schema: dict[str, Any]) -> str:
    """As it stands in its file."""
    return json.dumps(schema, indent=2, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    for name, schema in schemas().items():
        (DOCS / name).write_text(written(schema), "utf-8")
        print(f"docs/{name}")
