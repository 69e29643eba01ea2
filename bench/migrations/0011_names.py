"""Names that say what is there: log entries, reports from the wall, the current revision."""

from django.db import migrations


class Migration(migrations.Migration):
    """Renames only."""

    dependencies = [("bench", "0010_packed")]
    operations = [
        migrations.RenameModel("Line", "LogEntry"),
        migrations.RenameField("LogEntry", "word", "outcome"),
        migrations.RenameModel("Told", "Report"),
        migrations.RenameField("Wall", "at", "current_revision"),
    ]
