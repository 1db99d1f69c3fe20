"""Tables of demand, brought as the interface brings them."""

from __future__ import annotations

from typing import Any

from rest_framework.test import APIClient

from vinetag.apps.naming.models import Project

HEADING = "Keyword,Avg. monthly searches,Competition,Price per click,Currency"
FILE = f"""{HEADING}
piano tuning,"1,200",0.40,1.20,EUR
tuning piano,"1,200",0.40,1.20,EUR
piano tuners,800,0.50,1.50,EUR
piano tuner,900,0.55,1.40,EUR
piano repair,300,0.30,0.90,EUR
piano lessons,5000,0.80,2.00,EUR
piano lessons for beginners,700,0.60,,
upright piano,0,,,
piano stool,,,,
"""


def at(project: Project, *rest: str) -> str:
    return "/".join([f"/api/projects/{project.pk}/phrases", *rest])


def bring(
    api: APIClient,
    project: Project,
    text: str | bytes = FILE,
    source: str = "Almanac",
    **about: str,
) -> Any:
    query = "&".join(f"{name}={value}" for name, value in {"source": source, **about}.items())
    content = text.encode() if isinstance(text, str) else text
    where = f"{at(project, 'figures')}?{query}"
    return api.post(where, content, content_type="application/octet-stream")


def lines_of(api: APIClient, project: Project, **asked: object) -> dict[str, Any]:
    page = api.get(at(project), asked).json()
    return {line["phrase"]: line for line in page["lines"]}
