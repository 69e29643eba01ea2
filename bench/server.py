"""The server that ships with the application.

Gunicorn, with processes for quick requests and a pool for long ones.
"""

import os
import socket
from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.db import connections
from gunicorn.app.base import BaseApplication

from bench.backup import Keeper
from bench.long_work import MAX_WAITING, TIMEOUT_S, LongWorkRouter, run_in_pool

_THREADS = 2 * MAX_WAITING
_POOL_NICENESS = 10  # long work yields the processor to quick requests


class Server(BaseApplication):  # type: ignore[misc]
    """Gunicorn, configured for this application."""

    def __init__(
        self,
        listener: socket.socket,
        processes: int,
        backup_hours: float,
        on_ready: Callable[[], None],
    ) -> None:
        """Configure the server.

        Args:
            listener: socket, bound to the address to serve.
            processes: number of processes for quick requests; the pool has half as many.
            backup_hours: time between two backups; 0 for none.
            on_ready: called when the server is listening.
        """
        self._listener, self._processes, self._hours, self._on_ready = (
            listener,
            processes,
            backup_hours,
            on_ready,
        )
        super().__init__()

    def load_config(self) -> None:
        """Set Gunicorn's options."""
        options: dict[str, Any] = {
            "bind": f"fd://{os.dup(self._listener.fileno())}",
            "workers": self._processes,
            "worker_class": "gthread",
            "threads": _THREADS,
            "preload_app": True,
            "graceful_timeout": 10,
            "timeout": 0,
            "keepalive": 30,
            "loglevel": "warning",
            "forwarded_allow_ips": settings.PROXY if settings.HTTPS else "",
            "secure_scheme_headers": {"X-FORWARDED-PROTO": "https"},
            "control_socket_disable": True,
            # Gunicorn finds what a killed server left behind by this name; two servers on one
            # machine have different ports.
            "proc_name": f"gancho-{self._listener.getsockname()[1]}",
            "dirty_apps": ["bench.long_work:PoolApplication"],
            "dirty_workers": max(self._processes // 2, 1),
            "dirty_timeout": TIMEOUT_S,
            "dirty_worker_init": self._start_pool_process,
            "when_ready": lambda arbiter: self._on_ready(),
        }
        for name, value in options.items():
            self.cfg.set(name, value)

    def load(self) -> Callable[..., Any]:
        """Load the application once, before the processes are forked.

        Database connections must not be shared.
        """
        from gancho.wsgi import application

        connections.close_all()
        return ClientAddress(LongWorkRouter(application, run_in_pool))

    def _start_pool_process(self, worker: Any) -> None:
        os.nice(_POOL_NICENESS)
        if self._hours > 0:
            Keeper(self._hours).start()


class ClientAddress:
    """WSGI middleware that takes the client's address from our own proxy, and from nobody else."""

    def __init__(self, application: Callable[..., Any]) -> None:
        """Wrap an application."""
        self._application = application

    def __call__(self, environ: dict[str, Any], start_response: Callable[..., Any]) -> Any:
        """Set the client's address and pass the request on."""
        forwarded = environ.pop("HTTP_X_FORWARDED_FOR", "")
        if settings.HTTPS and forwarded and environ.get("REMOTE_ADDR") == settings.PROXY:
            environ["REMOTE_ADDR"] = forwarded.rpartition(",")[2].strip()
        return self._application(environ, start_response)
