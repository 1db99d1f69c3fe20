"""The demo workspace: three projects, the first with a few names kept."""

from __future__ import annotations

from django.db import transaction

from vinetag.apps.accounts.services import demo_user
from vinetag.apps.bench.demo_briefs import DEMO
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project, list_more
from vinetag.apps.shortlists.services import keep, note

__all__ = ["load_demo"]


def load_demo(*, reset: bool = False) -> bool:
    """Fill the demo workspace once; `reset` puts it back as it was. True when anything was done."""
    owner = demo_user()
    projects = Project.objects.filter(owner=owner)
    with transaction.atomic():
        if reset:
            projects.delete()
            owner.preferences = {}
            owner.save(update_fields=["preferences"])
        elif projects.exists():
            return False
        for item in DEMO:
            project = create_project(owner=owner, name=item["name"], brief=item["brief"])
            list_more(project)
            for label, text in item["kept"]:
                keep(project=project, labels=[label])
                note(project=project, label=label, text=text)
    return True
