"""The log's lines of walls that were there before it."""

from typing import Any

from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor
from django.db.migrations.state import StateApps


def write(apps: StateApps, _: BaseDatabaseSchemaEditor) -> None:
    """Each wall's pieces, by the plan that counts now."""
    from trade.plan import plan_file
    from trade.choose.entry import entries

    wall_model: Any = apps.get_model("bench", "Wall")
    line_model: Any = apps.get_model("bench", "Line")
    for wall in wall_model.objects.select_related("job"):
        revision = wall.revisions.filter(number=wall.at).first()
        plan = plan_file.load(revision.plan.encode()) if revision else None
        for entry in entries(plan, wall.job.name) if plan else ():
            line_model.objects.get_or_create(wall=wall, key=entry.key, defaults=_fields(entry))


def _fields(entry: Any) -> dict[str, Any]:
    """An entry's values by the names that the columns had then."""
    values = entry._asdict()
    return values | {"word": values.pop("outcome"), "words": entry.words[:2000]}


class Migration(migrations.Migration):
    """Data only."""

    dependencies = [("bench", "0006_log")]
    operations = [migrations.RunPython(write, migrations.RunPython.noop)]
