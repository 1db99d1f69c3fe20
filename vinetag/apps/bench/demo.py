"""The demo workspace: three projects, the first with a few names kept."""

from __future__ import annotations

from django.db import transaction

from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.services import demo_user
from vinetag.apps.bench.demo_briefs import DEMO
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.shortlists.services import keep, note

__all__ = ["load_demo"]


def load_demo(*, reset: bool = False) -> bool:
    """Fill the demo workspace once; `reset` puts it back as it was. True when anything was done.

    The projects are made out of sight, without a transaction, and shown all at once; when another
    process was quicker, its stay.
    """
    owner = demo_user()
    projects = Project.objects.filter(owner=owner)
    if reset:
        with transaction.atomic():
            projects.delete()
            owner.preferences = {}
            owner.save(update_fields=["preferences"])
    elif projects.filter(removed_at=None).exists():
        return False
    made = []
    for item in DEMO:
        project = create_project(
            owner=owner, name=item["name"], brief=item["brief"], hidden=True, whole=True
        )
        for name, text in item["kept"]:
            keep(project=project, labels=[name])
            note(project=project, label=name.partition(".")[0], text=text)
        made.append(project.pk)
    with transaction.atomic():
        # Whoever else fills it waits here, and finds it full.
        User.objects.select_for_update().get(pk=owner.pk)
        if projects.filter(removed_at=None).exists():
            projects.filter(pk__in=made).delete()
            return False
        projects.filter(pk__in=made).update(removed_at=None)
    return True
