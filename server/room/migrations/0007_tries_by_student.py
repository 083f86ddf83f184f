"""Wrong tries are counted by what was tried and where; those of the last minutes are dropped."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("room", "0006_versions_and_attempts")]

    operations = [
        migrations.DeleteModel(name="WrongTries"),
        migrations.CreateModel(
            name="WrongTries",
            fields=[
                ("what", models.CharField(max_length=80, primary_key=True, serialize=False)),
                ("since", models.DateTimeField()),
                ("count", models.PositiveIntegerField(default=0)),
            ],
        ),
    ]
