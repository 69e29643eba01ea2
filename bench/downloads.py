"""Files that are made for a wall, on their way out."""

from django.http import HttpResponse
from django.utils.http import content_disposition_header
from django.utils.text import slugify

TYPES = {
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "csv": "text/csv; charset=utf-8",
    "ods": "application/vnd.oasis.opendocument.spreadsheet",
    "zip": "application/zip",
    "ics": "text/calendar; charset=utf-8",
}


def sent(content: bytes, name: str, what: str, fetched: bool = False) -> HttpResponse:
    """Send a file by its name: what it is of, then what it is. `fetched`.

    To be saved, not looked at.
    """
    answer = HttpResponse(content, TYPES[what.rpartition(".")[2]])
    answer["Content-Disposition"] = (
        content_disposition_header(fetched, f"{slugify(name) or 'wall'}-{what}") or "inline"
    )
    return answer
