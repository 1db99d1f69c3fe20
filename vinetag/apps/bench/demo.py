"""The demo workspace: three projects, the first with a few names kept."""

from __future__ import annotations

from typing import Final

from django.db import transaction

from vinetag.apps.accounts.models import User
from vinetag.apps.accounts.services import demo_user
from vinetag.apps.bench.demo_briefs import DEMO
from vinetag.apps.naming.models import Project
from vinetag.apps.naming.services import create_project
from vinetag.apps.ordering.contacts import save_contact
from vinetag.apps.owning.keeping import add_typed
from vinetag.apps.phrases.demo import load_figures
from vinetag.apps.shortlists.services import keep, note
from vinetag.apps.watching.models import Telling
from vinetag.apps.watching.watches import Wish, start_watch

__all__ = ["load_demo"]

# Registered in the simulated world: what else there is to know of them is read from there.
OWNED: Final = "paperlane.com postbox.net nightgarden.com pianohouse.com inkwell.net"
HOLDER: Final = {
    "name": "Edda Birchwell", "street": "4 Quay Lane", "city": "Port Ferris", "region": "Cork",
    "country": "IE", "phone": "+353 87 123 4567", "email": "edda@inkpost.example",
}  # fmt: skip
WITH_PHRASES: Final = "Harrowmere piano"
WATCHED_FOR: Final = "The favourite, until it is bought"


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
            for told in (owner.private_feeds, owner.letters):
                told.all().delete()
            Telling.objects.filter(owner=owner).delete()
            for bought in (owner.owned_names, owner.orders, owner.contact_sets, owner.contacts):
                bought.all().delete()
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
        if item["kept"]:
            best = item["kept"][0][0]
            under = item["brief"]["extensions"]
            start_watch(project, Wish("label", names=[best], extensions=under, reason=WATCHED_FOR))
        if item["name"] == WITH_PHRASES:
            load_figures(project, owner)
        made.append(project.pk)
    with transaction.atomic():
        # Whoever else fills it waits here, and finds it full.
        User.objects.select_for_update().get(pk=owner.pk)
        if projects.filter(removed_at=None).exists():
            projects.filter(pk__in=made).delete()
            return False
        projects.filter(pk__in=made).update(removed_at=None)
        save_contact(owner, HOLDER)
        add_typed(owner, OWNED)
    return True
