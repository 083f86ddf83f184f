"""Own words belong to the app `accounts` now; their table stays."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("solving", "0001_own_words"), ("accounts", "0001_own_words")]
    operations = [migrations.SeparateDatabaseAndState(state_operations=[migrations.DeleteModel(name="OwnWords")])]
