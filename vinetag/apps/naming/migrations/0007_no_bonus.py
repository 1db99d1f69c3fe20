from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("naming", "0006_versions")]
    operations = [migrations.RemoveField(model_name="candidate", name="bonus")]
