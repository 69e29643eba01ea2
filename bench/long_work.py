"""Long-running requests, answered by a pool of processes so that they never delay a quick one.

A view whose work can take long is marked `long_running`. `LongWorkRouter` sends such a request,
whole, to the server's pool, where the same application answers it. If the pool cannot be reached,
the request is answered where it arrived.
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

TIMEOUT_S = 120  # house rule: nobody waits longer for one answer
# house rule: threads of one process that may wait for the pool; the others stay free for quick
# requests
MAX_WAITING = 12
_MAX_BODY_BYTES = 6_000_000
# Any change made on the cut stage computes the cut list again; hanging a thing, unlike a mounting,
# tries out ways to hang it.
_LONG_FORM = re.compile(rb"(?:^|&)(?:stage=cut|kind=thing)(?:&|$)")


def long_running(view: _View) -> _View:
    """Mark a view whose work can take long."""
    view.is_long_running = True  # type: ignore[attr-defined]
    return view


class LongWorkRouter:
    """WSGI middleware that sends long-running requests to the pool and passes on all others."""

    def __init__(
        self,
        application: Callable[..., Iterable[bytes]],
        run_in_pool: Callable[[_Environ, bytes], _Answer],
    ) -> None:
        """Wrap an application.

        `run_in_pool` sends one request to the pool and waits for the answer.
        """
        self._application, self._run_in_pool = application, run_in_pool
        self._waiting = BoundedSemaphore(MAX_WAITING)

    def __call__(self, environ: _Environ, start_response: Callable[..., Any]) -> Iterable[bytes]:
        """Answer a request here or in the pool."""
        size = content_length(environ)
        if size > _MAX_BODY_BYTES or environ.get(
            "HTTP_TRANSFER_ENCODING"
        ):  # a chunked body has no known size
            return self._application(environ, start_response)
        body = environ["wsgi.input"].read(size) if size else b""
        environ["wsgi.input"] = io.BytesIO(body)
        if not _is_long_running(environ, body):
            return self._application(environ, start_response)
        if not self._waiting.acquire(blocking=False):
            return _unavailable(environ, start_response, "busy")
        try:
            status, headers, answer = self._run_in_pool(environ, body)
        except DirtyTimeoutError:
            return _unavailable(environ, start_response, "timeout")
        except DirtyError:  # the pool is down: slow is better than nothing
            return self._application(environ, start_response)
        finally:
            self._waiting.release()
        start_response(status, headers)
        return [answer]


def content_length(environ: _Environ) -> int:
    """Return the size of the request's body in bytes.

    0 if the header is missing or not a number.
    """
    text = environ.get("CONTENT_LENGTH") or "0"
    return int(text) if text.isascii() and text.isdigit() else 0


def _is_long_running(environ: _Environ, body: bytes) -> bool:
    try:
        view = resolve(environ.get("PATH_INFO", "/")).func
    except (Resolver404, UnicodeError):
        return False
    return getattr(view, "is_long_running", False) or (
        environ["REQUEST_METHOD"] == "POST" and bool(_LONG_FORM.search(body))
    )


def _unavailable(
    environ: _Environ, start_response: Callable[..., Any], reason: str
) -> Iterable[bytes]:
    from bench.errors import unavailable

    answer = unavailable(WSGIRequest(environ), reason)
    start_response(f"{answer.status_code} {answer.reason_phrase}", list(answer.items()))
    return [answer.content]


def run_in_pool(environ: _Environ, body: bytes) -> _Answer:
    """Send a request to the pool and return its status line, headers and body.

    Raises:
        DirtyError: the pool cannot be reached, or took longer than `TIMEOUT_S`.
    """
    texts = {key: value for key, value in environ.items() if isinstance(value, str)}
    client = get_dirty_client(timeout=TIMEOUT_S + 5.0)
    status, headers, answer = client.execute(
        "bench.long_work:PoolApplication", "answer", texts, body
    )
    return status, [(name, value) for name, value in headers], answer


class PoolApplication(DirtyApp):  # type: ignore[misc]
    """The application inside a process of the pool."""

    def init(self) -> None:
        """Load the application.

        The server has it loaded already and the process was forked from it.
        """
        from gancho.wsgi import application

        self._application = application

    def answer(self, texts: dict[str, str], body: bytes) -> list[Any]:
        """Answer one request; return its status line, headers and body.

        Args:
            texts: all entries of the WSGI environment that are text.
            body: of the request.
        """
        started: list[Any] = []

        def start_response(status: str, headers: list[tuple[str, str]], *_: Any) -> Any:
            started[:] = [status, [list(header) for header in headers]]

        environ: _Environ = {
            **texts,
            "wsgi.version": (1, 0),
            "wsgi.input": io.BytesIO(body),
            "wsgi.errors": sys.stderr,
            "wsgi.multithread": False,
            "wsgi.multiprocess": True,
            "wsgi.run_once": False,
        }
        answer = self._application(environ, start_response)
        try:
            return [*started, b"".join(answer)]
        finally:
            if hasattr(answer, "close"):
                answer.close()
