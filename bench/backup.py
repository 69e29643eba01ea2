"""Backups: the database's own copy of itself while it is in use, and the photos, in one file that is opened and checked."""

import os
import shutil
import sqlite3
import subprocess
import tempfile
import threading
import zipfile
import zlib
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Protocol

from django.conf import settings
from django.db import connection, connections
from django.utils.module_loading import import_string

from bench import bin
from bench.photos import folder

_DAYS, _WEEKS = 7, 8  # how many are kept: the last of each of so many days, and of so many weeks
_WRITTEN = "%Y%m%d-%H%M%S"


class BadBackupError(Exception):
    """A backup that can't be trusted; the sentence says why."""


class Copier(Protocol):
    """How a database copies itself and comes back."""

    suffix: str

    def copy(self, to: Path) -> None:
        """Write a copy of it, while it is in use."""

    def check(self, copy: Path) -> None:
        """See that a copy is sound.

        Raises:
            BadBackupError: it is not.
        """

    def put_back(self, copy: Path) -> None:
        """Make the database what a copy says; nobody may use it meanwhile."""


class OneFile:
    """A database in one file."""

    suffix = "sqlite3"

    def copy(self, to: Path) -> None:
        """By its online backup; then the copy needs no journal beside it."""
        connection.ensure_connection()
        with closing(sqlite3.connect(to)) as copied:
            connection.connection.backup(copied)
            copied.execute("PRAGMA journal_mode=DELETE")

    def check(self, copy: Path) -> None:
        """By its own check, and by what must be in it."""
        try:
            with closing(sqlite3.connect(f"file:{copy}?mode=ro", uri=True)) as opened:
                if opened.execute("PRAGMA integrity_check").fetchone() != ("ok",):
                    raise BadBackupError("The database in it is damaged.")
                opened.execute("SELECT count(*) FROM bench_wall").fetchone()
                opened.execute("SELECT count(*) FROM django_migrations").fetchone()
        except sqlite3.Error as error:
            raise BadBackupError(f"The database in it can't be opened ({error}).") from error

    def put_back(self, copy: Path) -> None:
        """In place of the file, whose journal goes with it."""
        name = Path(str(connection.settings_dict["NAME"]))
        connections.close_all()
        for beside in ("-wal", "-shm"):
            name.with_name(name.name + beside).unlink(missing_ok=True)
        os.replace(copy, name)


class Server:
    """A database server, by the programs that come with it: what they must know is never written on a command line."""

    suffix = "dump"

    def copy(self, to: Path) -> None:
        """By its dump."""
        self._run("pg_dump", "--format=custom", f"--file={to}")

    def check(self, copy: Path) -> None:
        """By listing what is in it."""
        if "TABLE DATA public bench_wall" not in self._run("pg_restore", "--list", str(copy)):
            raise BadBackupError("The dump in it holds no walls.")

    def put_back(self, copy: Path) -> None:
        """All of it, or nothing."""
        name = str(connection.settings_dict["NAME"])
        connections.close_all()
        how = ("--clean", "--if-exists", "--no-owner", "--single-transaction")
        self._run("pg_restore", *how, f"--dbname={name}", str(copy))

    def _run(self, *words: str) -> str:
        told = {"HOST": "PGHOST", "PORT": "PGPORT", "USER": "PGUSER", "PASSWORD": "PGPASSWORD", "NAME": "PGDATABASE"}
        env = os.environ | {
            name: str(connection.settings_dict[key]) for key, name in told.items() if connection.settings_dict[key]
        }
        try:
            return subprocess.run(words, check=True, capture_output=True, text=True, env=env).stdout
        except (OSError, subprocess.CalledProcessError) as error:
            said = getattr(error, "stderr", "") or str(error)
            raise BadBackupError(f"{words[0]}: {said.strip()[-300:]}") from error


def _copier() -> Copier:
    made: Copier = import_string(settings.COPIED_BY)()
    return made


def make(why: str = "") -> Path:
    """Make a backup, open it to see that it is good, and let go of the oldest.

    Raises:
        BadBackupError: it is not good; nothing is kept of it.
    """
    place, copier = Path(settings.BACKUP_DIR), _copier()
    place.mkdir(parents=True, exist_ok=True)
    name = place / f"gancho-{datetime.now(UTC).strftime(_WRITTEN)}{f'-{why}' if why else ''}.zip"
    with tempfile.TemporaryDirectory(dir=place) as work:
        copy, packed = Path(work) / f"database.{copier.suffix}", Path(work) / "backup.zip"
        copier.copy(copy)
        with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as file:
            file.write(copy, copy.name)
            for photo in sorted(folder().glob("*.jpg")):
                file.write(photo, f"photos/{photo.name}", zipfile.ZIP_STORED)
        verify(packed)
        os.replace(packed, name)
    prune()
    return name


def verify(backup: Path) -> None:
    """Open a backup and see that everything in it is sound.

    Raises:
        BadBackupError: it is not.
    """
    with tempfile.TemporaryDirectory() as work:
        _unpacked(backup, Path(work))


def _unpacked(backup: Path, work: Path) -> Path:
    """The database of a backup, taken out and checked."""
    copier = _copier()
    name = f"database.{copier.suffix}"
    try:
        with zipfile.ZipFile(backup) as file:
            if (bad := file.testzip()) is not None:
                raise BadBackupError(f"“{bad}” in it is damaged.")
            copy = work / name
            with file.open(name) as packed, copy.open("wb") as out:
                shutil.copyfileobj(packed, out)
    except KeyError:
        raise BadBackupError(f"There is no {name} in it.") from None
    except (OSError, zipfile.BadZipFile, zlib.error, EOFError) as error:
        raise BadBackupError(f"It can't be opened ({error}).") from error
    copier.check(copy)
    return copy


def restore(backup: Path) -> Path:
    """Put everything back as a backup has it; what was there before is backed up first.

    Raises:
        BadBackupError: it is not good; nothing was changed.
    """
    place = Path(settings.BACKUP_DIR)
    place.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=place) as work:
        copy = _unpacked(backup, Path(work))
        before = make("before-restore")
        _copier().put_back(copy)
        with zipfile.ZipFile(backup) as file:
            for name in file.namelist():
                if name.startswith("photos/"):
                    (folder() / Path(name).name).write_bytes(file.read(name))
    return before


def kept() -> list[tuple[datetime, Path]]:
    """Every backup, the latest first."""
    found = []
    for path in Path(settings.BACKUP_DIR).glob("gancho-*.zip"):
        stamp = "-".join(path.stem.split("-")[1:3])
        try:
            found.append((datetime.strptime(stamp, _WRITTEN).replace(tzinfo=UTC), path))
        except ValueError:
            continue
    return sorted(found, reverse=True)


def prune() -> None:
    """Keep the last of each of the latest days, and of each of the latest weeks; those made before a restore stay, uncounted."""
    days: dict[object, Path] = {}
    weeks: dict[object, Path] = {}
    usual = [(when, path) for when, path in kept() if not path.stem.endswith("before-restore")]
    for when, path in usual:
        days.setdefault(when.date(), path)
        weeks.setdefault(when.isocalendar()[:2], path)
    stay = {*list(days.values())[:_DAYS], *list(weeks.values())[:_WEEKS]}
    for _, path in usual:
        if path not in stay:
            path.unlink(missing_ok=True)


def due(hours: float) -> bool:
    """Whether the latest backup is older than that."""
    found = kept()
    return not found or datetime.now(UTC) - found[0][0] > timedelta(hours=hours)


class Keeper(threading.Thread):
    """Beside the server: a backup whenever one is due, and the bin emptied."""

    def __init__(self, hours: float) -> None:
        """Every so many hours."""
        super().__init__(daemon=True, name="keeper")
        self._hours, self._over = hours, threading.Event()

    def run(self) -> None:
        """Until it is over; what goes wrong is said, and tried again later."""
        while not self._over.wait(60.0):
            if due(self._hours):
                try:
                    bin.empty()
                    make()
                except Exception as error:  # a backup that fails must not end the next ones
                    print(f"The backup failed: {error}", flush=True)
                finally:
                    connections.close_all()

    def stop(self) -> None:
        """Let it end."""
        self._over.set()
