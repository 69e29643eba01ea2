"""The server that is shipped: some processes that answer quickly, others for long work, one that watches over them."""

import os
import socket
from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.db import connections
from gunicorn.app.base import BaseApplication

from bench.aside import SECONDS, WAITING, Aside, to_the_others
from bench.backup import Keeper

THREADS = 2 * WAITING
_NICE = 10  # long work makes way for quick answers where both want the same processor


class Server(BaseApplication):  # type: ignore[misc]
    """Gunicorn with what this application needs of it."""

    def __init__(self, door: socket.socket, processes: int, backup_hours: float, begun: Callable[[], None]) -> None:
        """Serve.

        Args:
            door: bound to where it listens.
            processes: how many answer quickly; half as many do long work.
            backup_hours: from one backup to the next; 0 for none.
            begun: called when it listens.
        """
        self._door, self._processes, self._hours, self._begun = door, processes, backup_hours, begun
        super().__init__()

    def load_config(self) -> None:
        """Say how."""
        door = os.dup(self._door.fileno())
        proxy = settings.PROXY if settings.HTTPS else ""
        said: dict[str, Any] = {
            "bind": f"fd://{door}", "workers": self._processes, "worker_class": "gthread", "threads": THREADS,
            "preload_app": True, "graceful_timeout": 10, "timeout": 0, "keepalive": 30, "loglevel": "warning",
            "forwarded_allow_ips": proxy, "secure_scheme_headers": {"X-FORWARDED-PROTO": "https"},
            "control_socket_disable": True,
            # of its own, so that two on one machine let each other be; the same again, to clear up after one that was killed
            "proc_name": f"gancho-{self._door.getsockname()[1]}",
            "dirty_apps": ["bench.aside:Others"], "dirty_workers": max(self._processes // 2, 1), "dirty_timeout": SECONDS,
            "dirty_worker_init": self._aside, "when_ready": lambda arbiter: self._begun(),
        }  # fmt: skip
        for name, value in said.items():
            self.cfg.set(name, value)

    def load(self) -> Callable[..., Any]:
        """The application, loaded once before it is forked: what it has read is shared, its connections are not."""
        from gancho.wsgi import application

        connections.close_all()
        return Visitor(Aside(application, to_the_others))

    def _aside(self, worker: Any) -> None:
        os.nice(_NICE)
        if self._hours > 0:
            Keeper(self._hours).start()


class Visitor:
    """A WSGI application before the real one: behind a proxy of ours, who comes is who the proxy says."""

    def __init__(self, application: Callable[..., Any]) -> None:
        """Before an application."""
        self._application = application

    def __call__(self, environ: dict[str, Any], start_response: Callable[..., Any]) -> Any:
        """Pass the request on, with its visitor's address."""
        said = environ.pop("HTTP_X_FORWARDED_FOR", "")
        if settings.HTTPS and said and environ.get("REMOTE_ADDR") == settings.PROXY:
            environ["REMOTE_ADDR"] = said.rpartition(",")[2].strip()
        return self._application(environ, start_response)
