"""A server that can be killed again and again: loaded once, forked for each life.

Not a test; `test_killed` runs it.

Every line on its standard input begins a life; it answers with the number of the process that
serves, and its port.
"""

import os
import re
import socket
import sys

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "gancho.settings")


def main() -> None:
    """Serve, life after life."""
    import django

    django.setup()
    from django.db import connections
    from django.test import Client

    from bench.server import Server

    # What is loaded once need not be loaded in every life.
    client, here = Client(headers={"host": "127.0.0.1"}), "/walls/1/"
    base = re.findall(r'data-base="(\d+)"', client.get(f"{here}fix/").text)[0]
    client.post(f"{here}pieces/shelf/move/", {"base": base, "left_mm": 650, "top_mm": 1500})
    connections.close_all()
    for _ in sys.stdin:
        listening = socket.socket()
        listening.bind(("127.0.0.1", 0))
        listening.listen(64)
        child = os.fork()
        if not child:
            os.setpgid(0, 0)  # who kills it kills all that it has forked
            Server(listening, processes=2, backup_hours=0, on_ready=lambda: None).run()
            os._exit(0)
        print(child, listening.getsockname()[1], flush=True)
        listening.close()  # so that what waits at its door falls with it
        os.waitpid(child, 0)


if __name__ == "__main__":
    main()
