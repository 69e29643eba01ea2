"""Plans packed: the same JSON without its spaces, in zlib's format, a tenth as large."""

import zlib
from typing import Any

import msgspec
from django.db import migrations, models
from django.db.backends.base.schema import BaseDatabaseSchemaEditor
from django.db.migrations.state import StateApps

_AT_ONCE = 200


def pack(apps: StateApps, _: BaseDatabaseSchemaEditor) -> None:
    """Each as it was, packed."""
    model: Any = apps.get_model("bench", "Revision")
    _each(model, "packed", lambda revision: zlib.compress(msgspec.json.format(revision.plan.encode(), indent=-1)))


def unpack(apps: StateApps, _: BaseDatabaseSchemaEditor) -> None:
    """Each as a file has it."""
    model: Any = apps.get_model("bench", "Revision")
    _each(model, "plan", lambda revision: msgspec.json.format(zlib.decompress(revision.packed), indent=2).decode() + "\n")


def _each(model: Any, field: str, made: Any) -> None:
    keys = list(model.objects.values_list("pk", flat=True))
    for start in range(0, len(keys), _AT_ONCE):
        some = list(model.objects.filter(pk__in=keys[start : start + _AT_ONCE]))
        for revision in some:
            setattr(revision, field, made(revision))
        model.objects.bulk_update(some, [field])


class Migration(migrations.Migration):
    """Add, fill, drop."""

    dependencies = [("bench", "0009_told_made")]
    operations = [
        migrations.AddField("revision", "packed", models.BinaryField(default=b""), preserve_default=False),
        migrations.AlterField("revision", "plan", models.TextField(default="")),
        migrations.RunPython(pack, unpack),
        migrations.RemoveField("revision", "plan"),
    ]
