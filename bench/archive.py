"""A job as one open file: a zip of JSON and photos.

What goes out comes in again the same, undo and all.
"""

import io
import re
import zipfile
import zlib
from datetime import datetime
from typing import Any, Literal, NamedTuple

import msgspec
from django.contrib.auth.models import User
from django.db import transaction

from bench import photos
from bench.models import Job, Photo, Revision, Wall
from bench.models import log as lines
from bench.models.offcuts import alone
from bench.models.walls import MOST_REVISIONS
from bench.words import worded
from trade.assess import assess
from trade.check import Verdict
from trade.errors import PlanError
from trade.plan import plan_file
from trade.plan.model import Plan

MOST_BYTES, MOST_FILES, MOST_OPEN = 100_000_000, 3_000, 400_000_000
# of pictures that are not as they are kept here; a job file has none, and looking at them takes
# time
MOST_ANEW_PX = 120_000_000
MOST_NUMBER = 2**31 - 1
_FIRST_YEAR, _LAST_YEAR = 1990, 2200
_NAME = re.compile(
    r"job\.json|walls/\d{1,4}/(?:plan|history)\.json|photos/\d{1,5}\.jpg|jobs/\d{1,5}\.zip"
)
_EPOCH = (1980, 1, 1, 0, 0, 0)  # the same file for the same job, whenever it is written


class RefusedFileError(Exception):
    """It is no job file; the sentence says why."""


class _Step(msgspec.Struct, frozen=True, kw_only=True):
    number: int
    label: str
    created: datetime
    plan: msgspec.Raw  # of any version of the plan format

    def read(self) -> Plan:
        """Return its plan, without numbers of anybody's rack.

        Raises:
            PlanError: nobody can read it, or it refuses itself.
        """
        return alone(plan_file.load(bytes(self.plan)))


class _Photo(msgspec.Struct, frozen=True, kw_only=True):
    file: str
    key: str
    caption: str
    created: datetime


class _Wall(msgspec.Struct, frozen=True, kw_only=True):
    units: Literal["imperial", "metric"]
    at: int
    created: datetime
    photos: tuple[_Photo, ...] = ()


class _Job(msgspec.Struct, frozen=True, kw_only=True):
    format: Literal["gancho-job"] = "gancho-job"
    version: Literal[1] = 1
    name: str
    created: datetime
    walls: tuple[_Wall, ...] = ()


# made with the module, not by the first who reads, for the same reason as those of plans
_ABOUT, _HISTORY = msgspec.json.Decoder(_Job), msgspec.json.Decoder(list[_Step])


def written(job: Job) -> bytes:
    """Return a job as a file."""
    made, walls, n = io.BytesIO(), [], 0
    with zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as file:
        for number, wall in enumerate(job.walls.filter(deleted=None), start=1):
            shown = []
            for photo in wall.photos.filter(deleted=None):
                if not (picture := photos.folder() / photo.file).exists():
                    continue  # somebody took it out of the folder
                n += 1
                _put(file, f"photos/{n}.jpg", picture.read_bytes())
                shown.append(
                    _Photo(
                        file=f"photos/{n}.jpg",
                        key=photo.key,
                        caption=photo.caption,
                        created=photo.created,
                    )
                )
            steps = [
                _Step(
                    number=r.number,
                    label=r.label,
                    created=r.created,
                    plan=msgspec.Raw(plan_file.dump(alone(plan_file.unpack(bytes(r.packed))))),
                )
                for r in wall.revisions.all()
            ]
            _put(file, f"walls/{number}/history.json", msgspec.json.encode(steps))
            now = next(step.plan for step in steps if step.number == wall.current_revision)
            _put(file, f"walls/{number}/plan.json", bytes(now))
            walls.append(
                _Wall(
                    units=wall.display_units,
                    at=wall.current_revision,
                    created=wall.created,
                    photos=tuple(shown),
                )
            )
        about = _Job(name=job.name, created=job.created, walls=tuple(walls))
        _put(file, "job.json", msgspec.json.format(msgspec.json.encode(about), indent=2))
    return made.getvalue()


def everything(jobs: Any) -> bytes:
    """Many jobs as one file: each as its own inside."""
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w", zipfile.ZIP_STORED) as file:
        for n, job in enumerate(jobs, start=1):
            _put(file, f"jobs/{n}.zip", written(job))
    return made.getvalue()


def _put(file: zipfile.ZipFile, name: str, content: bytes) -> None:
    file.writestr(zipfile.ZipInfo(name, _EPOCH), content, file.compression)


class _Ready(NamedTuple):
    """A wall from a job file, ready to save.

    Its history, also packed, the current plan with its verdict, and its photos.
    """

    about: _Wall
    steps: list[_Step]
    packed: list[bytes]
    now: Plan
    verdict: Verdict
    shown: tuple[tuple[_Photo, photos.Kept], ...]


class Brought(NamedTuple):
    """A job from a file, decoded and checked."""

    about: _Job
    walls: tuple[_Ready, ...]


def looked_at(raw: bytes) -> list[Brought]:
    """Decode and check a file of one job or many, and judge its plans.

    This can take long and does not use the database.

    Raises:
        RefusedFileError: it is none, or too large, or holds what no such file holds.
    """
    files = _opened(raw, [MOST_OPEN])
    inner = sorted((name for name in files if name.startswith("jobs/")), key=_number)
    room, looked = MOST_OPEN // max(len(inner), 1), [MOST_ANEW_PX]
    return [_looked_at(_opened(files[name], [room]), looked) for name in inner] or [
        _looked_at(files, looked)
    ]


def keep(jobs: list[Brought], owner: User | None) -> list[Job]:
    """Save decoded jobs, all or none."""
    kept: list[str] = []
    try:
        with transaction.atomic():
            return [_job(job, owner, kept) for job in jobs]
    except Exception:
        for name in kept:  # the database has let go of them; nobody would ever find them again
            (photos.folder() / name).unlink(missing_ok=True)
        raise


def _number(name: str) -> int:
    return int(re.findall(r"\d+", name)[0])


def _opened(raw: bytes, room: list[int]) -> dict[str, bytes]:
    """Return the files of a zip, within the limits for such a file and the room on the disk."""
    if len(raw) > MOST_BYTES:
        raise RefusedFileError(
            worded("A job file may have up to {most_bytes} MB.", most_bytes=MOST_BYTES // 1000000)
        )
    found: dict[str, bytes] = {}
    try:
        with zipfile.ZipFile(io.BytesIO(raw)) as file:
            if len(file.infolist()) > MOST_FILES:
                raise RefusedFileError("There are more files in it than a job has.")
            for info in file.infolist():
                if not _NAME.fullmatch(info.filename) or info.filename in found:
                    raise RefusedFileError(
                        worded(
                            "“{filename}” is no part of a job file.", filename=info.filename[:60]
                        )
                    )
                if info.flag_bits & 1:
                    raise RefusedFileError("This file is locked with a password.")
                with file.open(info) as part:
                    content = part.read(room[0] + 1)
                room[0] -= len(content)
                if room[0] < 0:
                    raise RefusedFileError("Unpacked, this file is larger than any job.")
                found[info.filename] = content
    except RefusedFileError:
        raise
    # what zipfile makes of a broken file; NotImplementedError: packed in a way that it does not
    # know
    except (
        zipfile.BadZipFile,
        zlib.error,
        EOFError,
        NotImplementedError,
        OSError,
        ValueError,
        RuntimeError,
    ) as error:
        raise RefusedFileError("This is not a job file, or it is incomplete.") from error
    return found


def _looked_at(files: dict[str, bytes], room_px: list[int]) -> Brought:
    """Decode and check all of a job.

    `room_px`: how many pixels of pictures may still be made anew, counted down.
    """
    about: _Job = _decoded(files, "job.json", _ABOUT)
    _dated(about.created)
    walls = []
    for number, wall in enumerate(about.walls, start=1):
        steps: list[_Step] = _decoded(files, f"walls/{number}/history.json", _HISTORY)
        numbers = [step.number for step in steps]
        if (
            wall.at not in numbers
            or numbers != list(range(numbers[0], numbers[0] + len(numbers)))
            or numbers[0] < 1
        ):
            raise RefusedFileError("A wall's history in this file is inconsistent.")
        if len(steps) > MOST_REVISIONS + 1 or numbers[-1] > MOST_NUMBER:
            raise RefusedFileError(
                worded(
                    "A wall's history in it is longer than any here: {most_revisions} changes are "
                    "kept.",
                    most_revisions=MOST_REVISIONS,
                )
            )
        _dated(
            wall.created,
            *(step.created for step in steps),
            *(photo.created for photo in wall.photos),
        )
        if len(wall.photos) > photos.MOST_PHOTOS:
            raise RefusedFileError(
                worded(
                    "A wall in it has more than {MOST_PHOTOS} photos.",
                    MOST_PHOTOS=photos.MOST_PHOTOS,
                )
            )
        plans = [_read(step, f"walls/{number}/history.json") for step in steps]
        now = plans[numbers.index(wall.at)]
        shown = tuple((photo, _photo(photo, files, room_px)) for photo in wall.photos)
        walls.append(
            _Ready(
                wall,
                steps,
                [plan_file.pack(plan) for plan in plans],
                now,
                assess(now),
                shown,
            )
        )
    return Brought(about, tuple(walls))


def _dated(*times: datetime) -> None:
    if not all(_FIRST_YEAR <= time.year <= _LAST_YEAR for time in times):
        raise RefusedFileError("A date in this file is impossible.")


def _photo(about: _Photo, files: dict[str, bytes], room_px: list[int]) -> photos.Kept:
    """Return a photo as it will be kept.

    As it is in the file, when that is how photos are kept here.
    """
    raw = files.get(about.file)
    if raw is None:
        raise RefusedFileError(worded("“{file}” is missing in it.", file=about.file[:60]))
    if (kept := photos.bare(raw)) is not None:
        return kept
    room_px[0] -= photos.pixels(raw)
    if room_px[0] < 0:
        raise RefusedFileError("This file holds more large pictures than any job file.")
    try:
        return photos.made_anew(raw)
    except photos.RefusedPhotoError as error:
        raise RefusedFileError(f"“{about.file[:60]}”: {error}") from None


def _job(brought: Brought, owner: User | None, kept: list[str]) -> Job:
    about = brought.about
    job = Job.objects.create(name=about.name[:80] or "Brought in", owner=owner)
    Job.objects.filter(pk=job.pk).update(created=about.created)
    for ready in brought.walls:
        _wall(job, ready, kept)
    return job


def _decoded(files: dict[str, bytes], name: str, decoder: Any) -> Any:
    try:
        return decoder.decode(files[name])
    except KeyError:
        raise RefusedFileError(worded("“{name}” is missing in it.", name=name)) from None
    except RecursionError:
        raise RefusedFileError(
            worded("“{name}” in it is nested deeper than any plan.", name=name)
        ) from None
    except (msgspec.DecodeError, UnicodeDecodeError, PlanError) as error:
        raise RefusedFileError(
            worded("“{name}” in it can't be read: {error}", name=name, error=str(error)[:200])
        ) from None


def _read(step: _Step, name: str) -> Plan:
    try:
        return step.read()
    except PlanError as error:
        raise RefusedFileError(
            worded("“{name}” in it can't be read: {error}", name=name, error=str(error)[:200])
        ) from None


def _wall(job: Job, ready: _Ready, names: list[str]) -> None:
    about, steps, now = ready.about, ready.steps, ready.now
    wall = Wall.objects.create(
        job=job, name=now.name, units=about.units, current_revision=about.at, last=steps[-1].number
    )
    Wall.objects.filter(pk=wall.pk).update(created=about.created)
    kept = [
        Revision(wall=wall, number=step.number, label=step.label[:120], packed=packed)
        for step, packed in zip(steps, ready.packed, strict=True)
    ]
    Revision.objects.bulk_create(kept)
    for revision, step in zip(kept, steps, strict=True):
        revision.created = step.created
    Revision.objects.bulk_update(kept, ["created"], batch_size=500)
    lines.sync(wall.pk, now, job.name, ready.verdict)
    for photo, made_anew in ready.shown:
        made = photos.keep(wall.pk, photo.key[:40], photo.caption, made_anew)
        names.append(made.file)
        Photo.objects.filter(pk=made.pk).update(created=photo.created)
