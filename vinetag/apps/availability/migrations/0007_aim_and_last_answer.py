from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("availability", "0006_whois_and_wider_codes")]

    operations = [
        migrations.RemoveConstraint("finding", "one_finding_a_full_name"),
        migrations.RenameModel("Finding", "LastAnswer"),
        *(
            migrations.RenameField(model, "purpose", "aim")
            for model in ("check", "lastanswer", "lookup")
        ),
        migrations.AddConstraint(
            "lastanswer",
            models.UniqueConstraint(
                fields=["label", "extension"], name="one_answer_a_full_name"
            ),
        ),
    ]
