"""Photos.

Checked, made smaller, made anew without what a camera tells besides; shown to whoever may see the
wall.
"""

import io
import re
import secrets
from pathlib import Path
from typing import NamedTuple

from django.conf import settings
from django.core.files.uploadedfile import UploadedFile
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST, require_safe

from bench.access import own_walls
from bench.models import Photo
from bench.words import worded
from bench.workbench.changes import after, refused
from bench.workbench.context import workbench

MOST_BYTES, MOST_PIXELS, MOST_PHOTOS = 15_000_000, 60_000_000, 200
_LONG_PX, _QUALITY = 1600, 82
_KINDS = ("JPEG", "PNG", "WEBP")
# ISO/IEC 10918-1 Table B.1: what a JPEG needs to be seen: its version, tables, frame, restarts,
# scan
_JFIF, _JFIF_LONG, _SCAN = 0xE0, 16, 0xDA
_SEGMENTS = (_JFIF, 0xDB, 0xC0, 0xC4, 0xDD, _SCAN)
_MARKER = re.compile(rb"\xff[^\x00\xd0-\xd7]")  # in a scan none but its end


class RefusedPhotoError(Exception):
    """It is no photo; the sentence says why."""


class Kept(NamedTuple):
    """A photo as it is kept.

    Upright, no longer than 1600 pixels, as JPEG, with nothing in it but the picture.
    """

    raw: bytes
    wide: int
    high: int


def made_anew(raw: bytes) -> Kept:
    """Return a photo as it will be kept.

    Raises:
        RefusedPhotoError: too large, or not a picture that a browser shows.
    """
    from PIL import Image, ImageOps

    if len(raw) > MOST_BYTES:
        raise RefusedPhotoError(
            worded("A photo may have up to {most} MB.", most=MOST_BYTES // 1000000)
        )
    try:
        with Image.open(io.BytesIO(raw), formats=_KINDS) as seen:
            if seen.width * seen.height > MOST_PIXELS:
                raise RefusedPhotoError(_("That picture has too many pixels."))
            seen.draft("RGB", (_LONG_PX, _LONG_PX))  # a large JPEG is taken out smaller at once
            picture = ImageOps.exif_transpose(seen).convert("RGB")
    except RefusedPhotoError:
        raise
    except Exception as error:  # whatever a broken file makes of a decoder
        raise RefusedPhotoError(_("That is not a photo (JPEG, PNG or WebP).")) from error
    picture.thumbnail((_LONG_PX, _LONG_PX))
    bare = Image.new("RGB", picture.size)
    bare.paste(picture)
    kept = io.BytesIO()
    bare.save(kept, "JPEG", quality=_QUALITY, optimize=True)
    return Kept(kept.getvalue(), *bare.size)


def pixels(raw: bytes) -> int:
    """How many pixels it would take to look at it, by what it says of itself.

    0 where it says nothing.
    """
    from PIL import Image

    try:
        with Image.open(io.BytesIO(raw), formats=_KINDS) as seen:
            return seen.width * seen.height
    except Exception:  # whatever a broken file makes of a decoder
        return 0


def bare(raw: bytes) -> Kept | None:
    """Return a photo that is already as it is kept; None when it has to be made anew first."""
    from PIL import Image

    if len(raw) > MOST_BYTES or not _nothing_besides(raw):
        return None
    try:
        with Image.open(io.BytesIO(raw), formats=("JPEG",)) as seen:
            if max(seen.size) > _LONG_PX or seen.mode != "RGB":
                return None
            seen.load()
            return Kept(raw, *seen.size)
    except Exception:  # whatever a broken file makes of a decoder
        return None


def _nothing_besides(raw: bytes) -> bool:
    """Whether a JPEG holds its image data only.

    No segments of a camera or a program, nothing after the end marker.
    """
    at = 2
    while raw[at : at + 1] == b"\xff" and raw[at + 1] in _SEGMENTS:
        long = int.from_bytes(raw[at + 2 : at + 4])
        if raw[at + 1] == _JFIF and long != _JFIF_LONG:
            return False
        at += 2 + long
        if raw[at - long - 1] == _SCAN:
            end = _MARKER.search(raw, at)
            return end is not None and end.group() == b"\xff\xd9" and end.end() == len(raw)
    return False


def folder() -> Path:
    """Where they lie."""
    made = Path(settings.PHOTOS_DIR)
    made.mkdir(parents=True, exist_ok=True)
    return made


def keep(wall: int, key: str, caption: str, photo: Kept) -> Photo:
    """Write a photo to disk and note it on its wall.

    When the disk is full, nothing of it is left.
    """
    name = f"{secrets.token_hex(16)}.jpg"
    try:
        (folder() / name).write_bytes(photo.raw)
    except OSError:
        (folder() / name).unlink(missing_ok=True)
        raise
    return Photo.objects.create(
        wall_id=wall, key=key, file=name, caption=caption[:200], wide=photo.wide, high=photo.high
    )


@require_POST
def add(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """One more photo of a piece."""
    bench = workbench(request, wall, "record", key)
    file, bench.tab = request.FILES.get("photo"), "look"
    if not isinstance(file, UploadedFile):
        return refused(bench, _("Choose a photo first."))
    if bench.wall.photos.count() >= MOST_PHOTOS:
        return refused(
            bench, worded("A wall has up to {most_photos} photos.", most_photos=MOST_PHOTOS)
        )
    try:
        photo = made_anew(file.read(MOST_BYTES + 1))
        keep(bench.wall.pk, bench.chosen.key, request.POST.get("caption", "").strip(), photo)
    except RefusedPhotoError as error:
        return refused(bench, str(error))
    return after(bench)


@require_POST
def drop(request: HttpRequest, wall: int, photo: int) -> HttpResponse:
    """Put a photo into the bin."""
    bench = workbench(request, wall, "record")
    found = get_object_or_404(bench.wall.photos.filter(deleted=None), pk=photo)
    bench.key, bench.tab = found.key or None, "look"
    Photo.objects.filter(pk=found.pk).update(deleted=timezone.now())
    return after(bench)


@require_safe
def show(request: HttpRequest, wall: int, photo: int) -> FileResponse:
    """Return the picture itself."""
    found = get_object_or_404(
        Photo.objects.filter(own_walls(request, "wall__")), pk=photo, wall=wall
    )
    picture = folder() / found.file
    if not picture.exists():
        raise Http404(_("This photo was deleted."))
    answer = FileResponse(picture.open("rb"), content_type="image/jpeg")
    answer["Content-Disposition"] = "inline"
    answer["Cache-Control"] = "private, max-age=3600"
    return answer
