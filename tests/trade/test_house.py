"""The house itself: tables have sources, the trade stays pure, the printed rules are the tables."""

import re
import subprocess
import sys
from functools import partial
from pathlib import Path

import msgspec
from django.test import SimpleTestCase

from trade import data, wording
from trade.assess import assess_piece
from trade.choose import everyday
from trade.cli.kinds import kinds_chapter
from trade.cli.pages import glossary_chapter, rules_chapter
from trade.mounts import ALL
from trade.plan import plan_file

# the form of a piece reads fields by the names that its kind gives
GENERIC = "bench/stages/fix/forms.py"
ROOT = Path(__file__).resolve().parents[2]


class Map(SimpleTestCase):
    def test_every_file_that_the_maps_name_is_there(self) -> None:
        """In `README.md` and `docs/architecture.md`.

        A name without a folder lies in one that its row names before.
        """
        for page in ("README.md", "docs/architecture.md"):
            for row in (ROOT / page).read_text().split("\n"):
                folders = [ROOT, ROOT / "trade", ROOT / "bench"]
                for code in re.findall(r"`([^`]+)`", row):
                    name = code.partition(": ")[0]
                    if not re.fullmatch(r"(?!/)[\w./-]+(?:/|\.(?:py|toml|js|html|md|svg))", name):
                        continue
                    there = [folder / name for folder in folders if (folder / name).exists()]
                    self.assertTrue(there, f"{page}: {name}")
                    named = [found if found.is_dir() else found.parent for found in there]
                    folders = list(dict.fromkeys([*folders, *named]))

    def test_every_link_leads_somewhere(self) -> None:
        for page in [ROOT / "README.md", *(ROOT / "docs").rglob("*.md")]:
            for target in re.findall(r"\]\((?!https?:)([^)#]+)", page.read_text()):
                self.assertTrue((page.parent / target).exists(), f"{page.name}: {target}")


class Tables(SimpleTestCase):
    def test_every_row_says_where_it_comes_from(self) -> None:
        house = {about: partial(data.house_rules, about) for about in data.HOUSE}
        for name, table in {**{each.__name__: each for each in data.TABLES}, **house}.items():
            rows = table()
            self.assertTrue(rows)
            for key, row in rows.items():
                with self.subTest(table=name, row=key):
                    self.assertGreater(len(row.source.strip()), 5)

    def test_a_number_of_ours_is_found_from_either_side(self) -> None:
        """By its name in the code and in its table, once; none is left in the code alone."""
        code = "".join(path.read_text() for path in (ROOT / "trade").rglob("*.py"))
        keys = [key for about in data.HOUSE for key in data.house_rules(about)]
        self.assertEqual(len(keys), len(set(keys)))
        for key in keys:
            self.assertIn(f'"{key}"', code)
        self.assertNotRegex(code, r"= [\d.]+ +#.*(?i:house rule|common practice)")

    def test_a_row_without_a_source_is_refused(self) -> None:
        with self.assertRaisesRegex(msgspec.ValidationError, "source"):
            msgspec.convert({"value": 1.0, "meaning": "nothing"}, data.House)

    def test_an_unknown_row_names_those_there_are(self) -> None:
        with self.assertRaisesRegex(data.UnknownRowError, "oak_red"):
            data.row(data.boards(), "glue", "board")

    def test_brackets_have_their_holes_on_their_legs(self) -> None:
        for key, row in data.brackets().items():
            with self.subTest(bracket=key):
                self.assertEqual(list(row.holes_mm), sorted(row.holes_mm))
                self.assertLess(max(row.holes_mm), row.leg_mm)


class Purity(SimpleTestCase):
    def test_the_trade_runs_without_the_web(self) -> None:
        code = (
            "import sys, trade.__main__, trade.choose.cures; print([m for m in sys.modules if "
            "m.split('.')[0] in ('django', 'bench', 'jinja2', 'matplotlib', 'scipy')])"
        )
        run = subprocess.run(
            [sys.executable, "-c", code], capture_output=True, text=True, check=True, cwd=ROOT
        )
        self.assertEqual(run.stdout.strip(), "[]")


class Printed(SimpleTestCase):
    def test_the_schema_in_docs_is_the_one_in_use(self) -> None:
        self.assertEqual(
            msgspec.json.decode((ROOT / "docs/plan.schema.json").read_bytes()), plan_file.schema()
        )

    def test_the_handbook_chapter_is_the_tables(self) -> None:
        self.assertEqual((ROOT / "docs/handbook/rules.md").read_text(), rules_chapter() + "\n")
        self.assertEqual(
            (ROOT / "docs/handbook/glossary.md").read_text(), glossary_chapter() + "\n"
        )
        self.assertEqual((ROOT / "docs/handbook/kinds.md").read_text(), kinds_chapter() + "\n")


class Handbook(SimpleTestCase):
    SAYS = (
        "*holds* to {close_from:.2f}",
        "C_D is {duration_years} for what stays for good",
        "and {duration_minutes} for a push",
        "contents by ψ₂ = {steady_share}",
        "overhangs between {shortest_overhang_mm:g} mm",
        "that reach {embedment_mm:g} mm into a stud",
        "half at {half_holes:g} holes, {half_cost:g} of money, {half_minutes:g} minutes",
        "{half_tools:g} unusual tools, {place_half_mm:g} mm away",
        "within {hook_catch} of the spacing",
        "shrink by {stack_grade}",
        "a hand over the tallest thing takes {hand_room_mm:g} mm",
        "worth keeping from {keep_long_mm:g} mm of a board on",
        "by its place, to {made_mm:g} mm",
        "within {spoiled_mm:g} mm of a spoiled hole",
        "stays on for {proof_minutes:g} minutes",
        "the front edge may go down {proof_most_mm:g} mm",
        "A look after {care_first_days:g} days",
    )

    def test_it_says_the_numbers_of_the_tables(self) -> None:
        numbers = {
            key: row.value for about in data.HOUSE for key, row in data.house_rules(about).items()
        }
        said = " ".join((ROOT / "docs/handbook/assumptions.md").read_text().split())
        for words in self.SAYS:
            self.assertIn(words.format(**numbers), said)
        for key, words in (
            ("crushed_over_bearing", {2.0: "at twice what it may be pressed with"}),
            ("mor_share", {0.125: "Bending to an eighth of the mean modulus of rupture"}),
            ("packet_safety", {4.0: "A packet's ultimate load is divided by four"}),
            ("hollow_bearing_share", {0.5: "a face with nothing behind it bears half"}),
            ("matters_times", {4.0: "what matters most counts four times"}),
            ("proof_left_share", {0.2: "a fifth of the movement"}),
            ("overhang_share", {1 / 3: "a third of the length"}),
        ):
            self.assertIn(words[numbers[key]], said)


class Everyday(SimpleTestCase):
    def test_fifteen_everyday_set_ups_hold_what_people_trust_them_with_and_the_handbook_says_so(
        self,
    ) -> None:
        found = everyday.setups()
        self.assertEqual(len(found), 15)
        for setup in found:
            with self.subTest(setup=setup.row.name):
                verdict = assess_piece(setup.piece, setup.wall)
                self.assertIn(
                    verdict.outcome,
                    ("holds", "holds_but", "close"),
                    wording.headline(verdict, "metric"),
                )
                # neither much less than people see hold, nor so much that nobody would believe it
                self.assertGreater(setup.carries_kg, 0.9 * setup.row.trusted_kg)
                self.assertLess(setup.carries_kg, 6.0 * setup.row.trusted_kg)
        self.assertEqual(
            (ROOT / "docs/handbook/everyday.md").read_text(), everyday.chapter() + "\n"
        )


class KindsOwnTheirAnswers(SimpleTestCase):
    def test_nobody_else_asks_what_class_or_which_fields_a_piece_has(self) -> None:
        """A piece is asked through its kind, so that a new kind is one module."""
        pieces = "|".join(kind.make.__name__ for kind in ALL) + "|Shelf|Piece"
        asked = re.compile(
            rf"isinstance\([^()]*\b(?:{pieces})\b|(?:hasattr|getattr)\(\s*(?:self\._)?piece\b"
        )
        found = [
            f"{path.relative_to(ROOT)}:{number}"
            for folder in ("trade", "bench")
            for path in sorted((ROOT / folder).rglob("*.py"))
            if not path.is_relative_to(ROOT / "trade/mounts")
            for number, line in enumerate(path.read_text().splitlines(), start=1)
            if asked.search(line) and path != ROOT / GENERIC
        ]
        self.assertEqual(found, [])
