"""What docs/deploy.md says, done.

The shipped server behind a real proxy that ends https, by the page's own configuration.
"""

import configparser
import gzip
import http.cookiejar
import os
import re
import shutil
import socket
import ssl
import subprocess
import sys
import tempfile
import urllib.error
import urllib.parse
import urllib.request
from pathlib import Path
from typing import Any, ClassVar
from unittest import skipUnless

import brotli
from django.conf import settings
from django.test import SimpleTestCase, tag

from tests import loaded

NGINX = shutil.which("nginx", path="/usr/sbin:/usr/bin:/usr/local/bin")
OPENSSL = shutil.which("openssl")
PAGE = (settings.BASE_DIR / "docs/deploy.md").read_text()
NAME = "gancho.example"


def block(language: str) -> str:
    """The page's configuration in some language."""
    [found] = re.findall(rf"```{language}\n(.*?)```", PAGE, re.DOTALL)
    return str(found)


def free_port() -> int:
    with socket.create_server(("127.0.0.1", 0)) as taken:
        return int(taken.getsockname()[1])


class NoRedirect(urllib.request.HTTPRedirectHandler):
    def redirect_request(self, *asked: Any) -> None:
        return None


@skipUnless(
    NGINX and OPENSSL,
    "the proxy is tried where nginx and openssl are installed (Debian: nginx-light, openssl)",
)
class BehindAProxy(SimpleTestCase):
    env: ClassVar[dict[str, str]]
    wall: ClassVar[dict[str, str]] = {
        "name": "Hall",
        "width": "3 m",
        "height": "2.4 m",
        "lining": "gypsum_12_7",
        "structure": "timber",
        "studs": "400",
        "units": "metric",
        "job": "Flat",
        "timber": "unknown",
        "stud_width": "38",
        "stud_depth": "89",
        "give": "2",
    }

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.port, cls.front = free_port(), free_port()
        kept = {
            key: value
            for key, value in os.environ.items()
            if not key.startswith(("GANCHO_", "DATABASE_URL"))
        }
        cls.env = kept | {
            "GANCHO_DATA": str(cls.root / "data"),
            "GANCHO_PEOPLE": "many",
            "GANCHO_HTTPS": "1",
            "GANCHO_HOSTS": NAME,
        }
        serve = [
            sys.executable,
            "manage.py",
            "serve",
            "--port",
            str(cls.port),
            "--backup-hours",
            "0",
        ]
        cls.server = subprocess.Popen(
            serve,
            cwd=settings.BASE_DIR,
            env=cls.env,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
        )
        cls.addClassCleanup(cls.stop, cls.server)
        assert cls.server.stdout is not None
        assert "Gancho is at" in cls.server.stdout.readline()
        cls.proxy()

    @classmethod
    def stop(cls, process: subprocess.Popen[str]) -> None:
        process.terminate()
        process.communicate(timeout=60)

    @classmethod
    def proxy(cls) -> None:
        """The page's own server, with a certificate made on the spot."""
        made = [
            "openssl",
            "req",
            "-x509",
            "-newkey",
            "rsa:2048",
            "-nodes",
            "-days",
            "2",
            "-subj",
            f"/CN={NAME}",
        ]
        named = [
            "-addext",
            f"subjectAltName=DNS:{NAME}",
            "-keyout",
            "key.pem",
            "-out",
            "certificate.pem",
        ]
        subprocess.run([*made, *named], cwd=cls.root, check=True, capture_output=True)
        server = (
            block("nginx")
            .replace("/etc/gancho/", f"{cls.root}/")
            .replace("listen 443", f"listen 127.0.0.1:{cls.front}")
        )
        server = server.replace("127.0.0.1:8000", f"127.0.0.1:{cls.port}")
        folders = "".join(
            f"{what}_temp_path {cls.root}/{what};"
            for what in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
        )
        conf = (
            f"pid {cls.root}/nginx.pid; error_log {cls.root}/error.log; events {{}} http {{ "
            f"access_log off; {folders} {server} }}"
        )
        (cls.root / "nginx.conf").write_text(conf)
        nginx = [str(NGINX), "-p", str(cls.root), "-c", str(cls.root / "nginx.conf")]
        subprocess.run(nginx, check=True, capture_output=True)  # it comes back when it listens
        cls.addClassCleanup(subprocess.run, [*nginx, "-s", "stop"], check=True, capture_output=True)

    def setUp(self) -> None:
        trusting = ssl.create_default_context(cafile=str(self.root / "certificate.pem"))
        self.cookies = http.cookiejar.CookieJar()
        handlers = (
            urllib.request.HTTPSHandler(context=trusting),
            urllib.request.HTTPCookieProcessor(self.cookies),
            NoRedirect(),
        )
        self.opener = urllib.request.build_opener(*handlers)
        lookup = socket.getaddrinfo

        def looked_up(host: Any, port: Any, *more: Any, **named: Any) -> Any:
            return (
                lookup("127.0.0.1", self.front, *more, **named)
                if host == NAME
                else lookup(host, port, *more, **named)
            )

        socket.getaddrinfo = looked_up
        self.addCleanup(setattr, socket, "getaddrinfo", lookup)

    def asked(
        self, path: str, said: dict[str, str] | None = None, **headers: str
    ) -> tuple[int, Any, str]:
        body = urllib.parse.urlencode(said).encode() if said is not None else None
        asking = urllib.request.Request(
            f"https://{NAME}{path}", body, {"Referer": f"https://{NAME}{path}", **headers}
        )
        if said is not None:
            asking.add_header("Origin", f"https://{NAME}")
        try:
            answer = self.opener.open(asking, timeout=60)
        except urllib.error.HTTPError as error:
            answer = error
        with answer:
            return answer.status, answer.headers, answer.read().decode()

    def token(self, page: str) -> str:
        [found] = set(re.findall(r'name="csrfmiddlewaretoken" value="(\w+)"', page))
        return str(found)

    def test_an_account_a_sign_in_and_a_change(self) -> None:
        status, headers, page = self.asked("/people/new/")
        self.assertEqual((status, headers["Strict-Transport-Security"]), (200, "max-age=31536000"))
        said = {
            "username": "mona",
            "password1": "lath plaster nail 9",
            "password2": "lath plaster nail 9",
        }
        status, headers, _ = self.asked(
            "/people/new/", said | {"csrfmiddlewaretoken": self.token(page)}
        )
        self.assertEqual((status, headers["Location"]), (302, "/"))
        self.assertTrue(self.cookies and all(cookie.secure for cookie in self.cookies))
        self.cookies.clear()
        _, _, page = self.asked("/people/sign-in/")
        said = {
            "username": "mona",
            "password": "lath plaster nail 9",
            "csrfmiddlewaretoken": self.token(page),
        }
        self.assertEqual(self.asked("/people/sign-in/", said)[0], 302)
        _, _, page = self.asked("/walls/new/")
        status, headers, page = self.asked(
            "/walls/new/", self.wall | {"csrfmiddlewaretoken": self.token(page)}
        )
        self.assertEqual(status, 302, page[:2000])
        self.first_load(headers["Location"])

    def first_load(self, path: str) -> None:
        """The bench with all that it takes.

        Packed, under 160 kB, and what does not change kept for good.
        """
        whole, page = self.packed(path)
        linked = set(re.findall(r'(?:href|src)="(/static/[^"]+)"', page))
        self.assertGreater(len(linked), 5)
        while linked:
            url = linked.pop()
            size, text = self.packed(url, kept=True)
            whole += size
            if url.endswith(".css"):
                linked |= {
                    urllib.parse.urljoin(url, found)
                    for found in re.findall(r"url\(\"?([^\")#:]+\.woff2)\"?\)", text)
                }
            if url.endswith(".js"):
                linked |= {
                    urllib.parse.urljoin(url, found)
                    for found in re.findall(r'^import .* from "(\./[^"]+)"', text, re.MULTILINE)
                }
        self.assertLess(whole, 160_000, "bytes of a first load")

    def packed(self, path: str, kept: bool = False) -> tuple[int, str]:
        asking = urllib.request.Request(
            f"https://{NAME}{path}", headers={"Accept-Encoding": "br, gzip"}
        )
        try:
            answer = self.opener.open(asking, timeout=60)
        except urllib.error.HTTPError as error:
            self.fail(f"{error.status} {path}")
        with answer:
            raw = answer.read()
            if kept:
                self.assertIn("immutable", answer.headers["Cache-Control"], path)
            unpack = {"gzip": gzip.decompress, "br": brotli.decompress}.get(
                answer.headers["Content-Encoding"]
            )
            if unpack is None:
                self.assertTrue(
                    path.endswith((".woff2", ".js", ".svg")), path
                )  # small, or packed already
            return len(raw), (unpack(raw) if unpack else raw).decode(errors="replace")

    def test_what_nobody_in_front_says_is_not_believed(self) -> None:
        """Straight to the server, by plain http, with a header that says otherwise.

        Sent to https.
        """
        asking = urllib.request.Request(
            f"http://127.0.0.1:{self.port}/people/sign-in/", headers={"Host": NAME}
        )
        with self.assertRaises(urllib.error.HTTPError) as sent:
            self.opener.open(asking, timeout=60)
        self.assertEqual(
            (sent.exception.status, sent.exception.headers["Location"]),
            (301, f"https://{NAME}/people/sign-in/"),
        )
        sent.exception.close()

    def test_a_wrong_name_says_so(self) -> None:
        status, _, page = self.asked("/", Host="elsewhere.example")
        self.assertEqual(status, 400)
        self.assertIn("can add the name to GANCHO_HOSTS", page)


@tag("processes")
class Knobs(SimpleTestCase):
    def test_an_unknown_value_ends_the_start_with_a_sentence(self) -> None:
        for name, value in (
            ("GANCHO_HTTPS", "yes"),
            ("GANCHO_PEOPLE", "some"),
            ("GANCHO_SIGN_UP", "1"),
            ("GANCHO_HSTS", "on"),
        ):
            with self.subTest(name=name), tempfile.TemporaryDirectory() as data:
                env = os.environ | {"GANCHO_DATA": data, name: value}
                told = loaded.run(["manage.py", "check"], env)
                self.assertNotEqual(told.returncode, 0)
                self.assertRegex(told.stderr, rf"^{name} is “{value}”; it can be ")


class Unit(SimpleTestCase):
    def test_what_the_unit_starts_can_be_started(self) -> None:
        unit = configparser.ConfigParser(interpolation=None)
        unit.optionxform = str  # type: ignore[assignment,method-assign]
        unit.read_string(block("ini"))
        service = unit["Service"]
        knobs = dict(knob.split("=", 1) for knob in service["Environment"].split())
        python, *words = service["ExecStart"].split()
        self.assertEqual(python, f"{service['WorkingDirectory']}/.venv/bin/python")
        self.assertEqual(knobs["GANCHO_DATA"], service["ReadWritePaths"])
        with tempfile.TemporaryDirectory() as data:
            told = loaded.run([*words, "--check"], os.environ | knobs | {"GANCHO_DATA": data})
        self.assertEqual((told.returncode, told.stdout), (0, "Gancho is set up.\n"), told.stderr)
