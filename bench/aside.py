"""Long work, done aside: by processes of their own beside those that answer a finger, which wait for nobody.

A view that may take long says so (`long`). On the server a request for it is passed on whole, and answered by the same
application in another process. Where those processes are out of reach it is answered where it arrived: later, but no less.
"""

import io
import re
import sys
from collections.abc import Callable, Iterable
from threading import BoundedSemaphore
from typing import Any, TypeVar

from django.core.handlers.wsgi import WSGIRequest
from django.urls import Resolver404, resolve
from gunicorn.dirty import DirtyApp, DirtyError, DirtyTimeoutError, get_dirty_client

_View = TypeVar("_View", bound=Callable[..., Any])
_Environ = dict[str, Any]
_Answer = tuple[str, list[tuple[str, str]], bytes]

SECONDS = 120  # nothing that a person waits for may take longer
WAITING = 12  # so many threads of a process may wait for long work; the rest is for quick answers
_MOST_BYTES = 6_000_000
# Whatever is changed while the saw's plan is on the screen, that plan is made anew.
_SAWING = re.compile(rb"(?:^|&)stage=cut(?:&|$)")


def long(view: _View) -> _View:
    """Mark a view whose work may take long."""
    view.takes_long = True  # type: ignore[attr-defined]
    return view


class Aside:
    """A WSGI application before the real one: what may take long it passes on, the rest it lets through."""

    def __init__(self, application: Callable[..., Iterable[bytes]], pass_on: Callable[[_Environ, bytes], _Answer]) -> None:
        """Before an application, with what passes a request on and waits for its answer."""
        self._application, self._pass_on = application, pass_on
        self._waiting = BoundedSemaphore(WAITING)

    def __call__(self, environ: _Environ, start_response: Callable[..., Any]) -> Iterable[bytes]:
        """Answer a request here, or have it answered aside."""
        size = _size(environ)
        if size > _MOST_BYTES or environ.get("HTTP_TRANSFER_ENCODING"):  # what is sent in pieces has no size yet
            return self._application(environ, start_response)
        body = environ["wsgi.input"].read(size) if size else b""
        environ["wsgi.input"] = io.BytesIO(body)
        if not _takes_long(environ, body):
            return self._application(environ, start_response)
        if not self._waiting.acquire(blocking=False):
            return _refused(environ, start_response, "busy")
        try:
            status, headers, answer = self._pass_on(environ, body)
        except DirtyTimeoutError:
            return _refused(environ, start_response, "endless")
        except DirtyError:  # nobody is there: better late than never
            return self._application(environ, start_response)
        finally:
            self._waiting.release()
        start_response(status, headers)
        return [answer]


def _size(environ: _Environ) -> int:
    said = environ.get("CONTENT_LENGTH") or "0"
    return int(said) if said.isascii() and said.isdigit() else 0


def _takes_long(environ: _Environ, body: bytes) -> bool:
    try:
        view = resolve(environ.get("PATH_INFO", "/")).func
    except (Resolver404, UnicodeError):
        return False
    return getattr(view, "takes_long", False) or (environ["REQUEST_METHOD"] == "POST" and bool(_SAWING.search(body)))


def _refused(environ: _Environ, start_response: Callable[..., Any], why: str) -> Iterable[bytes]:
    from bench.views import too_much

    answer = too_much(WSGIRequest(environ), why)
    start_response(f"{answer.status_code} {answer.reason_phrase}", list(answer.items()))
    return [answer.content]


def to_the_others(environ: _Environ, body: bytes) -> _Answer:
    """Pass a request on to the processes for long work.

    Raises:
        DirtyError: they can't be reached, or took too long.
    """
    said = {key: value for key, value in environ.items() if isinstance(value, str)}
    client = get_dirty_client(timeout=SECONDS + 5.0)
    status, headers, answer = client.execute("bench.aside:Others", "answer", said, body)
    return status, [(name, value) for name, value in headers], answer


class Others(DirtyApp):  # type: ignore[misc]
    """The application in a process for long work."""

    def init(self) -> None:
        """Take the application that this process was forked with."""
        from gancho.wsgi import application

        self._application = application

    def answer(self, said: dict[str, str], body: bytes) -> list[Any]:
        """Answer a request: status line, headers, body."""
        told: list[Any] = []

        def start_response(status: str, headers: list[tuple[str, str]], *_: Any) -> Any:
            told[:] = [status, [list(header) for header in headers]]

        environ: _Environ = {
            **said, "wsgi.version": (1, 0), "wsgi.input": io.BytesIO(body), "wsgi.errors": sys.stderr,
            "wsgi.multithread": False, "wsgi.multiprocess": True, "wsgi.run_once": False,
        }  # fmt: skip
        answer = self._application(environ, start_response)
        try:
            return [*told, b"".join(answer)]
        finally:
            if hasattr(answer, "close"):
                answer.close()
