"""Backups.

The database's own copy of itself while it is in use, and the photos, in one file that is opened and
checked.
"""

import os
import shutil
import sqlite3
import subprocess
import tempfile
import threading
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Literal, Protocol

from django.conf import settings
from django.db import DatabaseError, OperationalError, connection, connections
from django.utils.module_loading import import_string

from bench import bin, serving
from bench.photos import folder
from bench.room import is_full

_DAYS, _WEEKS = 7, 8  # how many are kept: the last of each of so many days, and of so many weeks
_WRITTEN = "%Y%m%d-%H%M%S"


class BadBackupError(Exception):
    """A backup that can't be trusted; the sentence says why."""


State = Literal["nothing", "sound", "broken"]


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

    def migrations(self, copy: Path) -> set[tuple[str, str]]:
        """Return what a copy's tables were made by: app and name of each migration."""

    def state(self) -> State:
        """Return what is there now."""

    def set_aside(self, to: Path) -> Path:
        """Keep what is broken, as files in a new folder."""

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

    def migrations(self, copy: Path) -> set[tuple[str, str]]:
        """Out of its own table."""
        with closing(sqlite3.connect(f"file:{copy}?mode=ro", uri=True)) as opened:
            return set(opened.execute("SELECT app, name FROM django_migrations"))

    def state(self) -> State:
        """By its file: none or an empty one is nothing; what does not pass the check is broken."""
        connections.close_all()
        if not self._file.exists() or not self._file.stat().st_size:
            return "nothing"
        try:
            with closing(sqlite3.connect(f"file:{self._file}?mode=ro", uri=True)) as opened:
                if not opened.execute("SELECT count(*) FROM sqlite_master").fetchone()[0]:
                    return "nothing"
            self.check(self._file)
        except (sqlite3.Error, BadBackupError):
            return "broken"
        return "sound"

    def set_aside(self, to: Path) -> Path:
        """Copy the file and its journal, which may hold changes that the file lacks."""
        connections.close_all()
        to.mkdir(parents=True)
        for path in (self._file, *self._journal):
            if path.exists():
                shutil.copy2(path, to / path.name)
        return to

    def put_back(self, copy: Path) -> None:
        """In place of the file, whose journal goes with it."""
        connections.close_all()
        for path in self._journal:
            path.unlink(missing_ok=True)
        os.replace(copy, self._file)

    @property
    def _file(self) -> Path:
        return Path(str(connection.settings_dict["NAME"]))

    @property
    def _journal(self) -> list[Path]:
        return [self._file.with_name(self._file.name + beside) for beside in ("-wal", "-shm")]


class Server:
    """A database server, by the programs that come with it.

    What they must know is never written on a command line.
    """

    suffix = "dump"

    def copy(self, to: Path) -> None:
        """By its dump."""
        self._run("pg_dump", "--format=custom", f"--file={to}")

    def check(self, copy: Path) -> None:
        """By listing what is in it."""
        if "TABLE DATA public bench_wall" not in self._run("pg_restore", "--list", str(copy)):
            raise BadBackupError("The dump in it holds no walls.")

    def migrations(self, copy: Path) -> set[tuple[str, str]]:
        """Out of its own table, as the dump has it."""
        said = self._run(
            "pg_restore", "--data-only", "--table=django_migrations", "--file=-", str(copy)
        )
        rows = (line.split("\t") for line in said.splitlines() if line.count("\t") == 3)
        return {(row[1], row[2]) for row in rows}

    def state(self) -> State:
        """By its tables: a server that answers is sound, and its database empty or not."""
        try:
            return "sound" if "bench_wall" in connection.introspection.table_names() else "nothing"
        except OperationalError as error:
            raise BadBackupError(f"The database can't be reached ({error}).") from error

    def set_aside(self, to: Path) -> Path:
        """Never asked: a server that is broken is its own administrator's."""
        raise BadBackupError("The database server is damaged: its administrator must repair it.")

    def put_back(self, copy: Path) -> None:
        """All of it, or nothing."""
        name = str(connection.settings_dict["NAME"])
        connections.close_all()
        how = ("--clean", "--if-exists", "--no-owner", "--single-transaction")
        self._run("pg_restore", *how, f"--dbname={name}", str(copy))

    def _run(self, *words: str) -> str:
        told = {
            "HOST": "PGHOST",
            "PORT": "PGPORT",
            "USER": "PGUSER",
            "PASSWORD": "PGPASSWORD",
            "NAME": "PGDATABASE",
        }
        env = os.environ | {
            name: str(connection.settings_dict[key])
            for key, name in told.items()
            if connection.settings_dict[key]
        }
        try:
            return subprocess.run(words, check=True, capture_output=True, text=True, env=env).stdout
        except (OSError, subprocess.CalledProcessError) as error:
            said = getattr(error, "stderr", "") or str(error)
            raise BadBackupError(f"{words[0]}: {said.strip()[-300:]}") from error


def copier() -> Copier:
    """How this database copies itself."""
    made: Copier = import_string(settings.COPIED_BY)()
    return made


def place() -> Path:
    """Where backups are kept."""
    found = Path(settings.BACKUP_DIR)
    found.mkdir(parents=True, exist_ok=True)
    return found


def stamp() -> str:
    """Return the time, as names of backups carry it."""
    return datetime.now(UTC).strftime(_WRITTEN)


@contextmanager
def said() -> Iterator[None]:
    """Yield what the disk refuses, in a sentence.

    Raises:
        BadBackupError: there is no room, or a file can't be read or written.
    """
    try:
        yield
    except (OSError, sqlite3.Error, DatabaseError) as error:
        full = is_full(error) or "disk is full" in str(error)
        raise BadBackupError(
            "There is no room left on the disk."
            if full
            else f"The disk could not be written ({error})."
        ) from error


def make(why: str = "") -> Path:
    """Make a backup, open it to see that it is good, and let go of the oldest.

    Raises:
        BadBackupError: it is not good, or there is no room; nothing is kept of it.
    """
    with said():
        return _made(why)


def _made(why: str) -> Path:
    how = copier()
    name = place() / f"gancho-{stamp()}{f'-{why}' if why else ''}.zip"
    with tempfile.TemporaryDirectory(dir=place()) as work:
        copy, packed = Path(work) / f"database.{how.suffix}", Path(work) / "backup.zip"
        how.copy(copy)
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
    with said(), tempfile.TemporaryDirectory(dir=place()) as work:
        unpacked(backup, Path(work))


def unpacked(backup: Path, work: Path) -> Path:
    """Return the database of a backup, taken out and checked.

    Raises:
        BadBackupError: it is not good.
    """
    how = copier()
    name = f"database.{how.suffix}"
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
    how.check(copy)
    return copy


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
    """Keep the last of each of the latest days, and of each of the latest weeks.

    Those made before a restore, and those whose name lies in the future, stay, uncounted.
    """
    days: dict[object, Path] = {}
    weeks: dict[object, Path] = {}
    now = datetime.now(UTC)
    usual = [
        (when, path)
        for when, path in kept()
        if not path.stem.endswith("before-restore") and when <= now
    ]
    for when, path in usual:
        days.setdefault(when.date(), path)
        weeks.setdefault(when.isocalendar()[:2], path)
    stay = {*list(days.values())[:_DAYS], *list(weeks.values())[:_WEEKS]}
    for _, path in usual:
        if path not in stay:
            path.unlink(missing_ok=True)


def due(hours: float) -> bool:
    """Whether the latest backup is older than that."""
    now = datetime.now(UTC)
    found = [when for when, _ in kept() if when <= now]
    return not found or now - found[0] > timedelta(hours=hours)


class Keeper(threading.Thread):
    """Beside the server: a backup whenever one is due, and the bin emptied."""

    def __init__(self, hours: float) -> None:
        """Every so many hours."""
        super().__init__(daemon=True, name="keeper")
        self._hours, self._over = hours, threading.Event()

    def run(self) -> None:
        """Until it is over; what goes wrong is said, and tried again later."""
        while not self._over.wait(60.0):
            with (
                suppress(serving.TakenError),
                serving.only_one("backup.lock"),
            ):  # of several processes one makes it
                if due(self._hours):
                    self._make()

    def _make(self) -> None:
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
