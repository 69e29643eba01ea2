"""Photos: checked, made smaller, made anew without what a camera tells besides; shown to whoever may see the wall."""

import io
import secrets
from pathlib import Path

from django.conf import settings
from django.core.files.uploadedfile import UploadedFile
from django.http import FileResponse, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from bench.access import own_walls
from bench.changes import after, refused
from bench.desk import desk_or_404
from bench.models import Photo

MOST_BYTES, MOST_PIXELS, MOST_PHOTOS = 15_000_000, 60_000_000, 200
_LONG_PX, _QUALITY = 1600, 82
_KINDS = ("JPEG", "PNG", "WEBP")


class RefusedPhotoError(Exception):
    """It is no photo; the sentence says why."""


def made_anew(raw: bytes) -> tuple[bytes, int, int]:
    """A photo as it is kept: upright, no longer than 1600 pixels, as JPEG, with nothing in it but the picture.

    Raises:
        RefusedPhotoError: too large, or not a picture that a browser shows.
    """
    from PIL import Image, ImageOps

    if len(raw) > MOST_BYTES:
        raise RefusedPhotoError(f"A photo may have up to {MOST_BYTES // 1_000_000} MB.")
    try:
        with Image.open(io.BytesIO(raw), formats=_KINDS) as seen:
            if seen.width * seen.height > MOST_PIXELS:
                raise RefusedPhotoError("That picture has too many pixels.")
            picture = ImageOps.exif_transpose(seen).convert("RGB")
    except RefusedPhotoError:
        raise
    except Exception as error:  # whatever a broken file makes of a decoder
        raise RefusedPhotoError("That is no photo (JPEG, PNG or WebP).") from error
    picture.thumbnail((_LONG_PX, _LONG_PX))
    bare = Image.new("RGB", picture.size)
    bare.paste(picture)
    kept = io.BytesIO()
    bare.save(kept, "JPEG", quality=_QUALITY, optimize=True)
    return kept.getvalue(), *bare.size


def bare(raw: bytes) -> tuple[int, int] | None:
    """The size of a photo that is already as it is kept; None when it has to be made anew first."""
    from PIL import Image

    try:
        with Image.open(io.BytesIO(raw), formats=("JPEG",)) as seen:
            seen.load()
            extra = set(seen.info) - {"jfif", "jfif_version", "jfif_unit", "jfif_density", "progressive", "progression"}
            small = max(seen.size) <= _LONG_PX and len(raw) <= MOST_BYTES
            return seen.size if small and seen.mode == "RGB" and not extra and not len(seen.getexif()) else None
    except Exception:  # whatever a broken file makes of a decoder
        return None


def folder() -> Path:
    """Where they lie."""
    made = Path(settings.PHOTOS_DIR)
    made.mkdir(parents=True, exist_ok=True)
    return made


def keep(wall: int, key: str, caption: str, raw: bytes) -> Photo:
    """Keep a photo.

    Raises:
        RefusedPhotoError: it is none.
    """
    size = bare(raw)
    made, wide, high = (raw, *size) if size is not None else made_anew(raw)
    name = f"{secrets.token_hex(16)}.jpg"
    (folder() / name).write_bytes(made)
    return Photo.objects.create(wall_id=wall, key=key, file=name, caption=caption[:200], wide=wide, high=high)


@require_POST
def add(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """One more photo of a piece."""
    desk = desk_or_404(request, wall, "record", key)
    file, desk.look = request.FILES.get("photo"), "look"
    if not isinstance(file, UploadedFile):
        return refused(desk, "Choose a photo first.")
    if desk.wall.photos.count() >= MOST_PHOTOS:
        return refused(desk, f"A wall has up to {MOST_PHOTOS} photos.")
    try:
        keep(desk.wall.pk, desk.chosen.key, request.POST.get("caption", "").strip(), file.read(MOST_BYTES + 1))
    except RefusedPhotoError as error:
        return refused(desk, str(error))
    return after(desk)


@require_POST
def drop(request: HttpRequest, wall: int, photo: int) -> HttpResponse:
    """Put a photo into the bin."""
    desk = desk_or_404(request, wall, "record")
    found = get_object_or_404(desk.wall.photos.filter(deleted=None), pk=photo)
    desk.key, desk.look = found.key or None, "look"
    Photo.objects.filter(pk=found.pk).update(deleted=timezone.now())
    return after(desk)


@require_GET
def show(request: HttpRequest, wall: int, photo: int) -> FileResponse:
    """The picture itself."""
    found = get_object_or_404(Photo.objects.filter(own_walls(request, "wall__")), pk=photo, wall=wall)
    answer = FileResponse((folder() / found.file).open("rb"), content_type="image/jpeg")
    answer["Content-Disposition"] = "inline"
    answer["Cache-Control"] = "private, max-age=3600"
    return answer
