"""Everything answers, and answers sense.

Kinds × bases × stages, with every file and every command of the shell.

Every kind meets every base at the stage of the fixings. Units take turns: every kind and every
base meets both. So do the other stages, their further looks, commands, files and what takes long:
they meet every kind, and every base in both units. What takes longest (sums, labels, where it could
hang, effects of the policy) meets every base in both units, and a third of the kinds.
"""

import contextlib
import io
import json
import logging
import re
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from html import unescape
from itertools import product
from pathlib import Path
from typing import Any, get_args

from django.core.signals import got_request_exception
from django.test import RequestFactory, SimpleTestCase, TestCase
from django.test.client import ClientHandler
from django.urls import resolve, reverse
from msgspec.structs import replace

from bench import demo
from bench.models import Job, Wall
from bench.stages.all import STAGES
from bench.workbench.context import Tab
from tests.plans import plan, wall
from tests.trade.test_every_kind import put_up
from tests.turns import EVERYTHING, in_turn
from trade.__main__ import BAD_FILE, main
from trade.measure import Units
from trade.mounts import KINDS, mount_of
from trade.plan import plan_file
from trade.plan.model import AnyPiece, Packet, Plan, Thing
from trade.plan.shop import Finish, OnHand, OwnPart, Shop

BASES: dict[str, dict[str, Any]] = {
    "timber": {},
    "steel": {"structure": "steel_20", "timber": None},
    "brick": {"structure": "brick_solid", "layers": (), "timber": None},
}
UNITS: tuple[Units, ...] = get_args(Units)
HTMX = {"HTTP_HX_REQUEST": "true", "HTTP_HX_TARGET": "bench"}
SAYS_WHY = "Choose an anchor|[Bb]rackets or a cleat|Find out first|does not hold in"
QUICK = ("assess", "marks", "survey", "explain", "cut", "buy", "days", "steps", "cures")
_ONE = (Tab("", "", ""),)
_BIG = (".pdf", ".zip")
_OF_A_VIEW = 6  # addresses of one view that the demo's pages lead to, in a run by turns
FRAGMENTS = ("fix:what-if", "fix:cures", "hang:at-wall")
FILES = ("cut:shopping", "cut:days-ics", "record:care-ics", "plan-file", "survey:readings-out")
SLOW = (
    *FILES,
    "wall.pdf",
    "wall.dxf",
    "wall.svg",
    "template.svg",
    "template.pdf",
    "template.dxf",
    "across.svg",
    "back.svg",
    "up.dxf",
    "sticks.pdf",
    "cut:shopping-ods",
    "fix:ways",
)
SLOWER = (
    "sums",
    "fix:where",
    "fix:along",
    "cut:shop-pdf",
    "cut:saw-pdf",
    "cut:labels-pdf",
    "record:piece-labels",
    "record:owner-pdf",
    "$ways",
    "effects",
)
MANY = (
    "parts|cuts|holes|screws|boards|sheets|pieces|studs|minutes|hours|days|packs|coats|rows|things|"
    "people|supports|steps|lb in"
)
NONSENSE = {
    "a figure that nobody can mean": (
        r"\b\d{6,}(?:\.\d+)? ?(?:mm|kg|lb|N|ft)\b|"
        r"\b\d{1,3}(?: \d{3})+ (?:ft|kg)\b|\b1 ?000 ?000 mm"
    ),
    "one of many": rf"(?<![\d.,/:–]\s)(?<![\d.,/:–])\b1 (?:{MANY})\b",
    "money for nothing": r"[€$]0(?![.\d])",
    "hours to the second": r"\b\d+\.\d{2,} (?:hours|minutes|days|h)\b",
    "a slip of the machine": (
        r"\bnan\b|\binf\b|\{[a-z_]+\}|Traceback|object at 0x|"
        r"\bFalse\b|\bTrue\b|\bNone\b(?! can|:)"
    ),
}


def words_of(body: str) -> str:
    """What a person reads of an answer: no drawing, no mark-up."""
    body = re.sub(r"<(svg|script|style)\b.*?</\1>", " ", body, flags=re.S)
    return re.sub(r"\s+", " ", unescape(re.sub(r"<[^>]+>", " ", body)))


def nonsense_in(words: str) -> list[str]:
    """Each thing that is said and can't be meant, with what stands around it."""
    found = [
        f"{name}: …{words[max(hit.start() - 40, 0) : hit.end() + 20]}…"
        for name, pattern in NONSENSE.items()
        for hit in re.finditer(pattern, words)
    ]
    more = re.finditer(
        r"(?<![\d./,–]\s)(?<![\d./,])\b(\d+) of (\d+)\b(?![\d./,\"'])(?! (?:mm|in|kg|lb|N)\b)",
        words,
    )
    return found + [f"more than all: {hit[0]}" for hit in more if int(hit[1]) > int(hit[2])]


class Answers(TestCase):
    """Asks, counts, and keeps what went wrong instead of stopping at the first."""

    sense = True  # what is said is read, too

    def setUp(self) -> None:
        self.handler, self.factory, self.errors = (
            ClientHandler(),
            RequestFactory(),
            list[str](),
        )  # the client would copy every context

        def note(**_: Any) -> None:
            self.errors.append(repr(sys.exc_info()[1]))

        got_request_exception.connect(note)
        self.addCleanup(got_request_exception.disconnect, note)
        self.addCleanup(logging.disable, logging.root.manager.disable)
        logging.disable(logging.ERROR)
        self.job, self.asked, self.wrong = Job.objects.create(name="Job"), 0, dict[str, str]()

    def begin(self, now: Plan) -> Wall:
        return Wall.begin(self.job, now, "Begin")

    def get(self, url: str, about: str, **headers: str) -> None:
        answer = self.handler(self.factory.get(url, **headers).environ)
        self.asked += 1
        body = b"".join(answer.streaming_content) if answer.streaming else answer.content
        if answer.status_code != 200:
            self.wrong[f"{about}: {answer.status_code} {self.errors[-1:]}"] = url
        elif "html" in answer["Content-Type"] or "csv" in answer["Content-Type"]:
            self.read(body.decode(), about, url)
        else:
            self.assertTrue(body, url)

    def read(self, text: str, about: str, where: str) -> None:
        lines = [words_of(text)] if "<" in text[:200] else text.splitlines()
        for each in (found for line in lines for found in nonsense_in(line)) if self.sense else ():
            self.wrong[f"{about}: {each}"] = where

    def run_command(self, path: Path, command: str, key: str, about: str) -> None:
        more = (
            [key]
            if command in ("steps", "cures")
            else ["--piece", key]
            if command == "ways"
            else []
        )
        for flags in ([], ["--json"]):
            out, err = io.StringIO(), io.StringIO()
            try:
                with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
                    status = main([command, str(path), *more, *flags])
            except Exception as error:  # a traceback would have reached the person
                self.wrong[f"{about} $ {command}: {error!r}"] = str(path)
                continue
            self.asked += 1
            if status == BAD_FILE:
                self.wrong[f"{about} $ {command}: {err.getvalue()}"] = str(path)
            elif flags:
                json.loads(out.getvalue())
            else:
                self.read(out.getvalue(), f"{about} $ {command}", str(path))

    def everything(self, row: Wall, piece: AnyPiece, about: str, turn: int) -> None:
        """The stage of the fixings, the others and all further looks by turns, every fragment."""
        for n, stage in enumerate(STAGES):
            for k, (look, _, _) in enumerate(stage.tabs or _ONE):
                if (k or stage.name != "fix") and not in_turn(turn, n + k):
                    continue
                self.get(
                    f"{reverse('stage', args=[row.pk, stage.name])}?look={look}&piece={piece.key}",
                    f"{about} {stage.name} {look}",
                )
        for n, name in enumerate(FRAGMENTS):
            if in_turn(turn, n):
                self.get(reverse(name, args=[row.pk, piece.key]), f"{about} {name}")

    def slow(self, row: Wall, piece: AnyPiece, name: str, about: str, path: Path) -> None:
        """One thing that takes long to make."""
        what, _, kind = name.partition(".")
        if name == "$ways":
            self.run_command(path, "ways", piece.key, about)
        elif name == "effects":
            self.get(reverse("fix:policy-effects", args=[row.pk, "stays"]), f"{about} {name}")
        elif name in ("fix:ways", "fix:where", "fix:along"):
            self.get(reverse(name, args=[row.pk, piece.key]), f"{about} {name}")
        elif what == "wall":
            self.get(reverse("mark:whole-wall", args=[row.pk, kind]), f"{about} {name}")
        elif what == "back" and not mount_of(piece).bores(piece, wall()):
            return  # nothing is bored from behind
        elif kind:
            self.get(reverse("mark:drawn", args=[row.pk, piece.key, what, kind]), f"{about} {name}")
        else:
            self.get(reverse(name, args=[row.pk]), f"{about} {name}")

    def settle(self, least: int) -> None:
        self.assertEqual([f"{said}  {where}" for said, where in self.wrong.items()][:40], [])
        self.assertGreaterEqual(self.asked, least)


def planned(kind: str, base: str, units: Units) -> Plan:
    on = wall(**BASES[base])
    piece = put_up(kind, on, things=(Thing(name="Books", mass_kg=6.0),))
    return Plan(name="Wall", units=units, wall=on, pieces=(piece,))


def combinations() -> Iterator[tuple[int, str, str, Units]]:
    """Yield a number that is the same along a diagonal, a kind, a base and units."""
    for (k, kind), (b, base) in product(enumerate(sorted(KINDS)), enumerate(BASES)):
        yield k + b, kind, base, UNITS[(k + b) % 2]


def slow_of(n: int) -> list[str]:
    """What takes long, for combinations of the n-th diagonal."""
    return [name for k, name in enumerate(SLOW) if in_turn(n, k, 3)] + [
        name for k, name in enumerate(SLOWER) if in_turn(n, -2 - k % 6, 9)
    ]


class OnTimber(Answers):
    """One base at a time, so that they are asked side by side."""

    on = "timber"

    def test_every_kind_at_every_stage(self) -> None:
        for n, kind, base, units in combinations():
            if base != self.on:
                continue
            now = planned(kind, base, units)
            row, piece, about = self.begin(now), now.pieces[0], f"{kind} {base} {units}"
            self.everything(row, piece, about, n)
            with tempfile.TemporaryDirectory() as folder:
                path = Path(folder) / "plan.json"
                path.write_bytes(plan_file.dump(now))
                for k, command in enumerate(QUICK):
                    if in_turn(n, k):
                        self.run_command(path, command, piece.key, about)
                for name in slow_of(n):
                    self.slow(row, piece, name, about, path)
            self.get(
                reverse("stage", args=[row.pk, STAGES[n % len(STAGES)].name])
                + f"?piece={piece.key}",
                f"{about} fragment",
                **HTMX,
            )
        self.settle(280)


class OnSteel(OnTimber):
    on = "steel"


class OnBrick(OnTimber):
    on = "brick"


class Turns(SimpleTestCase):
    def test_what_takes_long_meets_every_base_in_both_units_and_nearly_all_every_kind(self) -> None:
        met = {
            (name, each)
            for n, kind, base, units in combinations()
            for name in slow_of(n)
            for each in (kind, (base, units))
        }
        for name in (*SLOW, *SLOWER):
            kinds = {each for said, each in met if said == name and each in KINDS}
            self.assertGreaterEqual(len(kinds), len(KINDS) // (1 if name in SLOW else 3), name)
            bases = {each for said, each in met if said == name and each not in KINDS}
            self.assertEqual(len(bases), len(BASES) * len(UNITS), name)


class Crawl(Answers):
    def test_addresses_of_the_demo_that_a_page_leads_to(self) -> None:
        """A few of each view, and so of what they lead to; every one in a whole run."""
        demo.load()
        waiting, seen, met = ["/"], {"/"}, Counter[str]()
        while waiting:
            url = waiting.pop()
            answer = self.handler(self.factory.get(url).environ)
            self.asked += 1
            if answer.status_code not in (200, 302):
                self.wrong[f"{answer.status_code}"] = url
                continue
            if "html" not in answer.get("Content-Type", ""):
                continue
            body = answer.content.decode()
            self.read(body, "the demo", url)
            for found in map(unescape, re.findall(r'(?:href|hx-get|data-href)="(/[^"#]*)', body)):
                # at the wall a page has all steps, one is shown; of the pieces of a wall one is met
                # at every stage, each at that of the fixings
                page = found.partition("?step=" if "/fix/" in found else "?")[0]
                if page in seen or found.startswith("/static/") or found.endswith(_BIG):
                    continue
                seen.add(page)
                at = resolve(found.partition("?")[0])
                view = f"{at.view_name} {at.kwargs.get('stage', '')}"
                met[view] += 1
                if met[view] <= _OF_A_VIEW or EVERYTHING:
                    waiting.append(found)
        self.settle(110)


HOSTILE = (
    "{0} {name} {",
    "Zwei\nZeilen",
    "<b>&amp;\"'",
    "棚とقفص",
    "=1+1;DROP",
    "%s %(x)s \\u0000"[:13],
)


class Hostile(Answers):
    sense = False  # a name may be nonsense

    def test_names_of_any_script_with_braces_and_newlines(self) -> None:
        half = len(HOSTILE) // 2
        for n, (name, other) in enumerate(zip(HOSTILE[:half], HOSTILE[half:], strict=True)):
            on = wall(**BASES["brick" if n % 2 else "timber"])
            packet = Packet(
                key="own",
                name=name,
                base="brick_solid",
                pull_n=300,
                shear_n=400,
                states="allowable",
                found=name,
            )
            on = replace(on, packets=(packet,))
            kind = ("dowel_shelf", "cleat_cabinet", "rail")[n]
            piece = put_up(
                kind, on, anchor="own", things=(Thing(name=name, mass_kg=4.0, at_mm=100.0),)
            )
            piece = replace(piece, name=other)
            shop = Shop(
                own=(
                    OwnPart(
                        name=name, board="plywood", length_mm=300, width_mm=200, thickness_mm=18
                    ),
                ),
                on_hand=(
                    OnHand(
                        name=other,
                        board="plywood",
                        kind="sheet",
                        length_mm=900,
                        width_mm=900,
                        thickness_mm=18,
                    ),
                ),
                finish=Finish(top="paint"),
            )
            now = Plan(name=other, units="metric", wall=on, pieces=(piece,), shop=shop)
            row = Wall.begin(Job.objects.create(name=name[:40]), now, name[:40])
            self.everything(row, piece, f"{kind} named {other!r}", n)
            with tempfile.TemporaryDirectory() as folder:
                path = Path(folder) / "plan.json"
                path.write_bytes(plan_file.dump(now))
                for command in QUICK:
                    self.run_command(path, command, piece.key, f"named {name!r}")
                for paper in slow_of(n):
                    self.slow(row, piece, paper, f"named {name!r}", path)
        for url in ("jobs", "log:entries", "log:charts", "bin:contents", "people:trail"):
            self.get(reverse(url), url)
        self.settle(80)

    def test_walls_without_studs_without_pieces_and_with_forty(self) -> None:
        shelves = tuple(
            put_up(
                "bracket_shelf",
                wall(),
                key=f"s{n}",
                left_mm=100.0 + 780.0 * (n % 4),
                top_mm=220.0 * (n // 4 + 1),
                length_mm=700.0,
                supports_mm=(100.0, 600.0),
            )
            for n in range(40)
        )
        for name, now in (
            ("bare", plan().without_piece("shelf")),
            ("at least 50 mm", plan(put_up("bracket_shelf", wall(studs=())), studs=())),
            (
                "nothing known",
                plan(
                    put_up("rod_shelf", wall(studs=())),
                    studs=(),
                    layers=None,
                    structure=None,
                    timber=None,
                ),
            ),
            ("forty", plan(*shelves)),
        ):
            row = self.begin(now)
            for stage in STAGES:
                for look, _, _ in stage.tabs or _ONE:
                    self.get(
                        f"{reverse('stage', args=[row.pk, stage.name])}?look={look}",
                        f"{name} {stage.name} {look}",
                    )
            for each in (
                *FILES,
                *(["sums"] if name != "forty" or EVERYTHING else []),
                "cut:shop-pdf",
                "cut:saw-pdf",
                "cut:labels-pdf",
                "record:piece-labels",
                "record:owner-pdf",
            ):
                self.get(reverse(each, args=[row.pk]), f"{name} {each}")
            self.get(reverse("mark:whole-wall", args=[row.pk, "pdf"]), name)
            with tempfile.TemporaryDirectory() as folder:
                path = Path(folder) / "plan.json"
                path.write_bytes(plan_file.dump(now))
                for command in QUICK[:7]:
                    self.run_command(path, command, "", name)
        self.settle(80)

    def test_every_kind_on_every_base_that_it_does_not_suit_says_why(self) -> None:
        """A sentence, never silence.

        On what a kind can't hang it says what is missing or what would hold.
        """
        for kind, structure in product(
            KINDS, ("steel_25", "concrete", "aerated_2", "brick_hollow", None)
        ):
            on = wall(structure=structure, timber=None)
            piece = put_up(kind, on, anchor=None, things=(Thing(name="Books", mass_kg=6.0),))
            now = plan(piece, structure=structure, timber=None)
            with tempfile.TemporaryDirectory() as folder:
                path = Path(folder) / "plan.json"
                path.write_bytes(plan_file.dump(now))
                out = io.StringIO()
                with self.subTest(kind=kind, structure=structure), contextlib.redirect_stdout(out):
                    self.assertIn(main(["assess", str(path)]), (1, 2))
                    self.assertRegex(
                        out.getvalue(),
                        SAYS_WHY,
                    )
