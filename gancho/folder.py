"""The data folder: made when the application starts, not when a module is imported."""

import os
import secrets
import sys
import tempfile
from contextlib import suppress
from pathlib import Path

BASE_DIR = Path(__file__).resolve().parent.parent
DATA_DIR = Path(os.environ.get("GANCHO_DATA", BASE_DIR / "data"))
STATIC_DIR = DATA_DIR / "static"


def prepare() -> None:
    """Make the data folder and let nobody else read what is written from here on.

    Ends the process with a sentence if the folder cannot be used.
    """
    os.umask(0o077)
    try:
        STATIC_DIR.mkdir(parents=True, exist_ok=True)
        with suppress(PermissionError):  # somebody else's, lent to us
            DATA_DIR.chmod(0o700)
    except OSError as error:
        sys.exit(f"The data folder {DATA_DIR} can't be used ({error.strerror}).")


def secret_key() -> str:
    """Return the key kept beside the data, made whole on the first start.

    Of two servers that start at once one makes it. Ends the process with a sentence if the key
    cannot be kept.
    """
    prepare()
    try:
        return _kept_key(DATA_DIR / "secret_key")
    except OSError as error:
        sys.exit(f"The key can't be kept in {DATA_DIR} ({error.strerror}).")


def _kept_key(kept: Path) -> str:
    if not kept.exists() or not kept.read_text():
        with tempfile.TemporaryDirectory(dir=kept.parent) as work:
            fresh = Path(work) / "secret_key"
            fresh.touch(mode=0o600)
            fresh.write_text(secrets.token_urlsafe(50))
            if kept.exists():
                os.replace(fresh, kept)  # it was never written: the disk was full
            else:
                with suppress(FileExistsError):
                    os.link(fresh, kept)
    return kept.read_text()
