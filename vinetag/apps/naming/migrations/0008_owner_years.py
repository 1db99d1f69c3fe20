"""Briefs say for how many years a name is meant to be kept, and what all of them may cost."""

from django.db import migrations

ADDED = {"years": 5, "budget_whole": None}


def complete(apps, schema_editor):
    rows = apps.get_model("naming", "Project").objects.only("brief")
    for row in rows.iterator(200):
        owner = row.brief.get("owner", {})
        row.brief["owner"] = {**ADDED, **owner}
        # As it was changed then, not now: no field that follows a change is touched.
        rows.filter(pk=row.pk).update(brief=row.brief)


class Migration(migrations.Migration):
    dependencies = [("naming", "0007_worlds")]
    operations = [migrations.RunPython(complete, migrations.RunPython.noop, elidable=True)]
