"""It has none."""

from __future__ import annotations

from django.urls import URLPattern

urlpatterns: list[URLPattern] = []
