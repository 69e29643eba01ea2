"""Restore a backup over what is there now: nothing, a sound database or a damaged one."""

import os
import shutil
import tempfile
import zipfile
from pathlib import Path
from typing import NamedTuple

from django.conf import settings
from django.db.migrations.loader import MigrationLoader

from bench import backup
from bench.backup import BadBackupError
from bench.photos import folder
from bench.serving import alone


class Restored(NamedTuple):
    """What became of what was there before.

    A backup of it, or its broken files set aside; neither where there was nothing.
    """

    before: Path | None
    aside: Path | None


def restore(file: Path) -> Restored:
    """Put everything back.

    Raises:
        BadBackupError: it is not good, or newer than this program, or there is no room; nothing was
          changed.
        ServedError: a server runs; nothing was changed.
    """
    copier, before, aside = backup.copier(), None, None
    with alone(), backup.said(), tempfile.TemporaryDirectory(dir=settings.DATA_DIR) as work:
        copy = backup.unpacked(file, Path(work))
        _known(copier.migrations(copy))
        photos = _photos(file, Path(work))
        state = copier.state()
        if state == "sound":
            before = backup.make("before-restore")
        elif state == "broken":
            aside = copier.set_aside(backup.place() / f"broken-{backup.stamp()}")
        copier.put_back(copy)
        for photo in photos:
            os.replace(photo, folder() / photo.name)
    return Restored(before, aside)


def _known(migrations: set[tuple[str, str]]) -> None:
    """Refuse a database that a newer program has written."""
    ours = set(MigrationLoader(None, ignore_no_migrations=True).disk_migrations)
    apps = {app for app, _ in ours}
    newer = sorted(name for app, name in migrations - ours if app in apps)
    if newer:
        raise BadBackupError(
            f"A newer Gancho made it: this one does not know “{newer[-1]}”. Update Gancho first."
        )


def _photos(file: Path, work: Path) -> list[Path]:
    """Return the photos of a backup, taken out beside where they go."""
    found = []
    (work / "photos").mkdir()
    with zipfile.ZipFile(file) as packed:
        for name in packed.namelist():
            if name.startswith("photos/") and (short := Path(name).name):
                out = work / "photos" / short
                with packed.open(name) as photo, out.open("wb") as written:
                    shutil.copyfileobj(photo, written)
                found.append(out)
    return found
