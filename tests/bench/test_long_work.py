"""What is sent to the pool of processes, and what happens when the pool is gone."""

import io
from typing import Any
from unittest import mock

from django.core.handlers.wsgi import WSGIHandler
from django.db import connections
from django.test import RequestFactory
from gunicorn.dirty import DirtyConnectionError, DirtyTimeoutError

from bench import long_work
from bench.server import ClientAddress
from tests.bench.test_workbench import BenchCase


class Passed(BenchCase):
    def setUp(self) -> None:
        super().setUp()
        # the test's connection stays open from request to request
        self.enterContext(
            mock.patch.object(connections["default"], "close_if_unusable_or_obsolete")
        )
        self.passed: list[tuple[str, str, bytes]] = []
        self.fails: Exception | None = None
        self.others = long_work.PoolApplication()
        self.others._application = (
            WSGIHandler()
        )  # what `init` takes holds the lock of those who serve
        self.front = long_work.LongWorkRouter(WSGIHandler(), self.pass_on)

    def pass_on(self, environ: dict[str, Any], body: bytes) -> Any:
        self.passed.append((environ["REQUEST_METHOD"], environ["PATH_INFO"], body))
        if self.fails:
            raise self.fails
        return self.others.answer(
            {key: value for key, value in environ.items() if isinstance(value, str)}, body
        )

    def asked(self, path: str, **posted: str) -> tuple[str, dict[str, str], bytes]:
        factory, told = RequestFactory(), list[Any]()
        request = factory.post(path, posted) if posted else factory.get(path)
        answer = self.front(request.environ, lambda *said: told.extend(said[:2]))
        return told[0], dict(told[1]), b"".join(answer)

    def test_what_takes_long_goes_whole_and_comes_back_whole(self) -> None:
        for path in (
            self.url("sums"),
            self.url("fix:cures", "shelf"),
            self.url("fix:along", "shelf"),
            self.url("stage", "cut"),
        ):
            status, headers, body = self.asked(path)
            here = self.client.get(path)
            self.assertEqual(
                (status, headers["Content-Type"]), ("200 OK", here["Content-Type"]), path
            )
            self.assertTrue(body)
        self.assertEqual(len(self.passed), 4)
        self.assertTrue(self.asked(self.url("mark:whole-wall", "svg"))[2].startswith(b"<svg"))

    def test_what_a_finger_asks_stays(self) -> None:
        for path in (self.url("stage", "fix"), "/", "/nothing/here/"):
            self.asked(path)
        self.asked(
            self.url("fix:move", "shelf"), base="1", left_mm="710", top_mm="1500", stage="fix"
        )
        put_up = RequestFactory().generic(
            "POST", self.url("fix:put-up"), b"kind=rail&x_mm=9", "application/x-www-form-urlencoded"
        )
        list(self.front(put_up.environ, lambda *said: None))
        self.assertEqual(self.passed, [])

    def test_a_thing_to_hang_goes_for_ways_are_tried(self) -> None:
        body, path = b"kind=thing&hang=books", self.url("fix:put-up")
        list(self.front(RequestFactory().generic("POST", path, body).environ, lambda *said: None))
        self.assertEqual(self.passed, [("POST", path, body)])

    def test_a_change_at_the_saw_goes_with_what_was_said(self) -> None:
        path = self.url("undo")
        body = b"base=1&stage=cut"
        request = RequestFactory().generic("POST", path, body, "application/x-www-form-urlencoded")
        list(self.front(request.environ, lambda *said: None))
        self.assertEqual(self.passed, [("POST", path, body)])

    def test_what_is_sent_in_pieces_stays_and_is_read_where_it_arrived(self) -> None:
        request = RequestFactory().generic(
            "POST", self.url("fix:cure", "shelf"), b"", "application/x-www-form-urlencoded"
        )
        pieces = io.BytesIO(b"base=1&stage=cut")
        list(
            self.front(
                request.environ | {"HTTP_TRANSFER_ENCODING": "chunked", "wsgi.input": pieces},
                lambda *said: None,
            )
        )
        self.assertEqual(self.passed, [])

    def test_where_nobody_is_there_it_is_answered_here(self) -> None:
        self.fails = DirtyConnectionError("gone")
        self.assertEqual(self.asked(self.url("fix:cures", "shelf"))[0], "200 OK")

    def test_what_never_ends_and_what_is_too_much_is_said(self) -> None:
        self.fails = DirtyTimeoutError("long")
        status, _, body = self.asked(self.url("fix:cures", "shelf"))
        self.assertEqual(status, "503 Service Unavailable")
        self.assertIn(b"took too long", body)
        self.fails = None
        for _ in range(long_work.MAX_WAITING):
            self.front._waiting.acquire()
        status, _, body = self.asked(self.url("fix:cures", "shelf"))
        self.assertEqual(status, "503 Service Unavailable")
        self.assertIn(b"Try again in a minute", body)
        self.assertEqual(self.asked(self.url("stage", "fix"))[0], "200 OK")

    def test_a_length_that_is_none_is_none(self) -> None:
        for length, kept in (("", 0), ("-5", 0), ("1e3", 0), ("²", 0), ("7", 7)):
            self.assertEqual(
                long_work.content_length({"CONTENT_LENGTH": length, "wsgi.input": io.BytesIO()}),
                kept,
            )


class Visitors(BenchCase):
    def came(self, **environ: str) -> str:
        seen = list[str]()
        ClientAddress(lambda environ, _: seen.append(environ["REMOTE_ADDR"]))(environ, None)  # type: ignore[arg-type]
        return seen[0]

    def test_only_our_proxy_is_believed_and_only_its_own_word(self) -> None:
        said = {"REMOTE_ADDR": "127.0.0.1", "HTTP_X_FORWARDED_FOR": "10.9.9.9, 192.0.2.7"}
        self.assertEqual(self.came(**said), "127.0.0.1")  # nobody said that there is one
        with self.settings(HTTPS=True, PROXY="127.0.0.1"):
            self.assertEqual(self.came(**said), "192.0.2.7")
            self.assertEqual(self.came(**said | {"REMOTE_ADDR": "198.51.100.3"}), "198.51.100.3")
