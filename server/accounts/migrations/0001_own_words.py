"""Own words move here from the app `solving`; the table stays where it is."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    initial = True
    dependencies = [migrations.swappable_dependency(settings.AUTH_USER_MODEL), ("solving", "0001_own_words")]
    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name="OwnWords",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("words", models.JSONField(default=dict)),
                        (
                            "owner",
                            models.OneToOneField(
                                on_delete=django.db.models.deletion.CASCADE, related_name="own_words", to=settings.AUTH_USER_MODEL
                            ),
                        ),
                    ],
                    options={"db_table": "solving_ownwords"},
                ),
            ],
        ),
    ]
