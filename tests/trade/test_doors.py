"""The doors of the trade: plan files, the command line, marks, drills, putting up and cures."""

import contextlib
import io
import json
import subprocess
import sys
import tempfile
from pathlib import Path

import jsonschema
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import STUDS, bracket_shelf, plan, rod_shelf, wall
from trade import data
from trade.__main__ import main
from trade.assess import assess_piece
from trade.choose import placement
from trade.choose.cures import cures
from trade.errors import PlanError
from trade.fixings import driving
from trade.marking.marks import piece_marks
from trade.plan import plan_file
from trade.plan.features import Feature, usual
from trade.plan.model import Datum, Plan, WallPlan
from trade.plan.place import with_wall
from trade.plan.readings import MagnetHit, Probe

BOTH = plan(bracket_shelf(), rod_shelf())


ROOT = Path(__file__).resolve().parents[2]


class PlanFiles(SimpleTestCase):
    def test_round_trip_and_schema(self) -> None:
        raw = plan_file.dump(BOTH)
        self.assertEqual(plan_file.load(raw), BOTH)
        jsonschema.validate(json.loads(raw), plan_file.schema())

    def test_a_file_of_version_1_is_one_wall(self) -> None:
        now = json.loads(plan_file.dump(BOTH))
        [one] = now.pop("walls")
        first = now | {name: one[name] for name in ("wall", "pieces", "datum", "built")}
        del first["corners"], first["opening"]
        raw = json.dumps(first | {"version": 1}).encode()
        self.assertEqual(plan_file.load(raw), BOTH)
        beyond = first | {"version": 1, "pieces": [first["pieces"][0] | {"length_mm": 9000}]}
        with self.assertRaises(PlanError) as caught:
            plan_file.load(json.dumps(beyond).encode())
        self.assertEqual(caught.exception.where, "pieces[0].length_mm")

    def test_packed_it_is_the_same_and_a_tenth_as_large(self) -> None:
        many = plan(*(bracket_shelf(key=f"s{n}", top_mm=300.0 + 40 * n) for n in range(40)))
        packed = plan_file.pack(many)
        self.assertEqual(plan_file.unpack(packed), many)
        self.assertLess(len(packed), len(plan_file.dump(many)) / 10)
        with self.assertRaisesRegex(PlanError, "not a packed plan"):
            plan_file.unpack(b"{}")

    def test_bad_files_say_what_and_where(self) -> None:
        good = json.loads(plan_file.dump(BOTH))
        [one] = good["walls"]

        def wall(**fields: object) -> bytes:
            return json.dumps(good | {"walls": [one | fields]}).encode()

        def changed(**piece: object) -> bytes:
            return wall(pieces=[one["pieces"][0] | piece])

        raw = plan_file.dump(BOTH)
        for bad, where, words in (
            (b"", "", "cut short"),
            (raw[:300], "", "cut short"),
            (b"\xff\xfe", "", "not a plan file"),
            (b"[1]", "", "found a list"),
            (b'{"a":' * 10_000 + b"1" + b"}" * 10_000, "", "nested deeper"),
            (json.dumps(good | {"version": 3}).encode(), "version", "another version"),
            (
                json.dumps({k: v for k, v in good.items() if k != "version"}).encode(),
                "",
                "another version",
            ),
            (json.dumps(good | {"format": "song"}).encode(), "format", "not a Gancho plan"),
            (json.dumps(good | {"colour": 1}).encode(), "", "colour"),
            (raw.replace(b"1000.0", b"NaN", 1), "", "not a plan file"),
            (raw.replace(b"1000.0", b"1e999", 1), "walls[0].pieces[0].length_mm", "range"),
            (changed(length_mm=9000), "walls[0].pieces[0].length_mm", "the wall only"),
            (changed(length_mm="long"), "walls[0].pieces[0].length_mm", "a number"),
            (changed(left_mm=-1), "walls[0].pieces[0].left_mm", "between"),
            (changed(length_mm=31_000), "walls[0].pieces[0].length_mm", "between"),
            (changed(board="glue"), "walls[0].pieces[0].board", "no board"),
            (changed(supports_mm=[900, 100]), "walls[0].pieces[0].supports_mm", "left to right"),
            (changed(supports_mm=[100, 2000]), "walls[0].pieces[0].supports_mm", "between"),
            (
                changed(things=[{"name": "x", "mass_kg": -1}]),
                "walls[0].pieces[0].things[0].mass_kg",
                "between 0",
            ),
            (
                wall(wall=one["wall"] | {"studs": [{"centre_mm": 9000}]}),
                "walls[0].wall.studs[0].centre_mm",
                "outside the wall",
            ),
            (json.dumps(good | {"walls": []}).encode(), "walls", "needs a wall"),
            (
                json.dumps(good | {"walls": [one, one | {"key": "b", "pieces": []}]}).encode(),
                "corners",
                "corner",
            ),
        ):
            with self.subTest(where=where, words=words), self.assertRaises(PlanError) as caught:
                plan_file.load(bad)
            self.assertEqual(caught.exception.where, where)
            self.assertIn(words, str(caught.exception))

    @given(cut=st.integers(0, 2000), byte=st.integers(0, 255))
    def test_a_damaged_file_is_a_plan_or_refused(self, cut: int, byte: int) -> None:
        raw = bytearray(plan_file.dump(BOTH))
        raw[cut % len(raw)] = byte
        for damaged in (bytes(raw), bytes(raw[: cut % len(raw)])):
            with contextlib.suppress(PlanError):
                self.assertIsInstance(plan_file.load(damaged), Plan)


class CommandLine(SimpleTestCase):
    def run_on(self, raw: bytes, *flags: str, command: str = "assess") -> tuple[int, str, str]:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "plan.json"
            path.write_bytes(raw)
            out, err = io.StringIO(), io.StringIO()
            with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
                code = main([command, str(path), *flags])
        return code, out.getvalue(), err.getvalue()

    def test_all_walls_of_a_place_are_told_or_the_one_that_is_named(self) -> None:
        there = with_wall(BOTH, "right", WallPlan(name="Side", wall=wall()), 90.0)
        both = there.with_piece(bracket_shelf(key="far", name="Far shelf"))
        raw = plan_file.dump(both)
        _, said, _ = self.run_on(raw, command="marks")
        for words in ("Shelf", "Ledge", "Side\n", "Far shelf"):
            self.assertIn(words, said)
        code, said, _ = self.run_on(raw, "--wall", "wall-2", "--json")
        self.assertEqual([each["key"] for each in json.loads(said)["pieces"]], ["far"])
        self.assertEqual(code, 0)
        _, said, _ = self.run_on(raw, "--piece", "far", command="explain")
        self.assertIn("Far shelf", said)
        code, _, wrong = self.run_on(raw, "--wall", "north")
        self.assertEqual(code, 3)
        self.assertIn("no wall “north”; there are: wall, wall-2", wrong)

    def test_a_command_imports_what_it_uses(self) -> None:
        """In a process of its own: a verdict needs no judgement and no saw, a schema no sums."""
        for words, never in (
            (["assess", "-"], ("trade.choose", "trade.cutting", "trade.job", "scipy")),
            (["schema"], ("numpy",)),
        ):
            code = (
                f"import sys; from trade.__main__ import main; main({words}); "
                "print(*sys.modules, file=sys.stderr)"
            )
            run = subprocess.run(
                [sys.executable, "-c", code],
                cwd=ROOT,
                input=plan_file.dump(BOTH),
                capture_output=True,
                check=True,
            )
            loaded = run.stderr.decode().split()
            self.assertIn("trade.plan.plan_file", loaded)
            self.assertEqual([each for each in loaded if each.startswith(never)], [])

    def test_exit_status_says_the_verdict(self) -> None:
        unknown = plan(bracket_shelf(), layers=None)
        failing, low = plan(bracket_shelf(left_mm=850.0)), plan(bracket_shelf(top_mm=200.0))
        for raw, code in (
            (plan_file.dump(BOTH), 0),
            (plan_file.dump(failing), 1),
            (plan_file.dump(low), 4),
            (plan_file.dump(unknown), 2),
            (b"{", 3),
        ):
            self.assertEqual(self.run_on(raw)[0], code)

    def test_a_missing_or_bad_file_is_one_sentence(self) -> None:
        code, out, err = self.run_on(plan_file.dump(BOTH)[:200])
        self.assertEqual((code, out, len(err.splitlines())), (3, "", 1))
        with contextlib.redirect_stderr(io.StringIO()) as err2:
            self.assertEqual(main(["assess", "/nowhere/plan.json"]), 3)
        self.assertIn("can't be read", err2.getvalue())

    def test_json_and_text_say_the_same(self) -> None:
        told = json.loads(self.run_on(plan_file.dump(BOTH), "--json")[1])
        text = self.run_on(plan_file.dump(BOTH), "--units", "imperial")[1]
        self.assertEqual(told["word"], "holds")
        for piece in told["pieces"]:
            for one in piece["checks"]:
                self.assertIn(one["name"], text)
                self.assertAlmostEqual(
                    one["utilisation"], one["demand"]["value"] / one["capacity"]["value"]
                )

    def test_survey(self) -> None:
        readings = (
            *(MagnetHit(at_mm=400.0 + off) for off in (-3, 4)),
            Probe(at_mm=401.0, met="wood"),
            Probe(at_mm=402.0, met="air"),
        )
        read = plan_file.dump(plan(readings=readings))
        code, said, _ = self.run_on(read, command="survey")
        self.assertEqual(code, 0)
        for words in (
            "stud at 40",
            "magnet (2); a nail met wood; but a nail met air",
            "contradiction at 402 mm: 401 mm wood against 402 mm air",
            "next: push",
        ):
            self.assertIn(words, said)
        told = json.loads(self.run_on(read, "--json", command="survey")[1])
        self.assertEqual(told["contradictions"][0]["against"], [3])
        self.assertIn(
            "solid brick",
            self.run_on(plan_file.dump(plan(structure="brick_solid")), command="survey")[1],
        )

    def test_marks(self) -> None:
        out = io.StringIO()
        with tempfile.NamedTemporaryFile(suffix=".json") as file, contextlib.redirect_stdout(out):
            file.write(plan_file.dump(BOTH))
            file.flush()
            self.assertEqual(main(["marks", file.name]), 0)
        self.assertIn("800 mm across, 1455 mm up; 2.5 mm bit, 72 mm deep", out.getvalue())

    def test_marks_obey_the_datum_and_marks_and_steps_open_with_what_wont_hold(self) -> None:
        right = replace(plan(bracket_shelf()), datum=Datum(across="right", line_mm=1000.0))
        said = self.run_on(plan_file.dump(right), command="marks")[1]
        self.assertTrue(
            said.startswith(
                "From the right corner, and from a level line 1000 mm above the floor.\nShelf\n   "
                " 1 "
            ),
            said,
        )
        self.assertIn("2400 mm across, 455 mm up; 2.5 mm bit", said)
        off = plan_file.dump(plan(bracket_shelf(left_mm=850.0)))
        self.assertRegex(
            self.run_on(off, command="marks")[1],
            r"Shelf\nWon't hold: .* misses the stud .* Don't drill yet\.\n",
        )
        self.assertRegex(
            self.run_on(off, "shelf", command="steps")[1],
            r"^Won't hold: .* Don't drill yet\.\n1\. Have it all",
        )


class Marks(SimpleTestCase):
    def test_brackets_holes_are_where_the_bracket_has_them(self) -> None:
        """Braced bracket.

        25, 60, 240, 275 below the underside at 1 480; #10 x 76.2 through 4 mm of steel: 72.2 deep.
        """
        made = piece_marks(bracket_shelf(), wall(), "metric")
        self.assertEqual(
            [(m.x_mm, m.y_mm) for m in made[:4]],
            [(800.0, 1480.0 - down) for down in (25, 60, 240, 275)],
        )
        self.assertAlmostEqual(made[0].depth_mm, 72.2)
        self.assertEqual((made[0].bit_mm, made[0].stud_mm), (2.5, 800.0))
        self.assertTrue(any("cables" in caution.template for caution in made[0].cautions))

    def test_rods_are_bored_a_little_deeper_than_they_are_long_and_stay_inside(self) -> None:
        bores = [m for m in piece_marks(rod_shelf(), wall(), "metric") if m.where == "shelf"]
        self.assertEqual(
            [(m.x_mm, m.y_mm, m.bit_mm) for m in bores], [(100.0, 47.5, 16.0), (900.0, 47.5, 16.0)]
        )
        self.assertEqual(
            {m.depth_mm for m in bores}, {190.0 - 12.7 + 3.0}
        )  # the lining takes its part of a plate that is let in
        over = [
            m.depth_mm
            for m in piece_marks(rod_shelf(let_in=False), wall(), "metric")
            if m.where == "shelf"
        ]
        self.assertEqual(over, [193.0, 193.0])

    def test_a_plate_let_in_is_drilled_from_the_stud_and_one_that_is_not_is_let_into_the_shelf(
        self,
    ) -> None:
        inside, over = (
            piece_marks(rod_shelf(let_in=flag), wall(), "metric") for flag in (True, False)
        )
        self.assertIn("out of the lining first", inside[0].cautions[0].template)
        self.assertAlmostEqual(inside[0].depth_mm, over[0].depth_mm)
        self.assertEqual(
            ([m.cautions for m in inside][-1], [m.cautions for m in over][-1][0].template[:13]),
            ((), "Let the plate"),
        )

    def test_no_stud_no_drilling(self) -> None:
        made = piece_marks(bracket_shelf(left_mm=850.0), wall(), "metric")
        self.assertIn("Do not drill", made[0].cautions[0].template)
        self.assertIsNone(made[0].stud_mm)

    def test_pilot_holes_stay_within_the_standard(self) -> None:
        """NDS 12.1.5.3 (wood screws.

        At most 70 % of the root up to G 0.6, 90 % above) and 12.1.4.2 (lags).
        """
        for units in ("imperial", "metric"):
            for row in data.screws().values():
                for g, wood_share, lag_low, lag_high in (
                    (0.42, 0.7, 0.40, 0.70),
                    (0.55, 0.7, 0.60, 0.75),
                    (0.67, 0.9, 0.65, 0.85),
                ):
                    bit = driving.pilot_mm(row, g, units)  # type: ignore[arg-type]
                    share = bit / (row.diameter_mm if row.kind != "wood" else row.root_mm)
                    with self.subTest(screw=row.name_imperial, g=g, units=units):
                        if row.kind != "wood":
                            self.assertTrue(lag_low <= share <= lag_high + 0.01, share)
                        else:
                            self.assertTrue(wood_share - 0.16 < share <= wood_share + 0.03, share)

    def test_the_next_length_up_that_reaches(self) -> None:
        """#10 through 4 + 12.7 mm wants 38 mm and its tip of 9.7.

        64.4 mm, so 76.2; never out of a 38 mm stud.
        """
        row = data.screws()["wood_10"]
        self.assertAlmostEqual(driving.suggest_length_mm(row, 16.7, 38.0, 105.0), 76.2)
        self.assertLess(driving.suggest_length_mm(row, 16.7, 38.0, 54.7), 54.7)


class PuttingUp(SimpleTestCase):
    def test_lands_on_two_studs_and_asks_what_it_carries(self) -> None:
        for kind in ("bracket_shelf", "rod_shelf"):
            piece = placement.put_up(plan(bracket_shelf()), kind, 1650.0, 1000.0)
            verdict = assess_piece(piece, wall())
            self.assertEqual(verdict.outcome, "cannot_tell")
            centres = {stud.centre_mm for stud in STUDS}
            self.assertTrue(all(piece.left_mm + x in centres for x in piece.supports_mm))

    def test_anywhere_on_any_wall(self) -> None:
        narrow = Plan(name="Narrow", units="metric", wall=wall(width_mm=400.0, studs=()))
        for x in (0.0, 200.0, 5000.0):
            piece = placement.put_up(narrow, "bracket_shelf", x, 9999.0)
            self.assertEqual(narrow.with_piece(piece).piece(piece.key), piece)

    def test_one_more_support_goes_to_a_free_stud(self) -> None:
        more = placement.add_support(bracket_shelf(), wall())
        self.assertEqual(more.supports_mm, (100.0, 500.0, 900.0))


class Cures(SimpleTestCase):
    def test_a_piece_that_holds_needs_none(self) -> None:
        self.assertEqual(cures(BOTH, "shelf"), ())

    def test_what_is_in_the_way_is_cured_by_the_shortest_way_out(self) -> None:
        """The shelf spans 1 480 to 1 500 and its brackets hang 300 below.

        A window ends at 1 250.
        """
        window = Feature(
            kind="window", left_mm=600.0, right_mm=1500.0, bottom_mm=500.0, top_mm=1250.0
        )
        [cure] = [cure for cure in cures(plan(features=(window,)), "shelf") if cure.code == "clear"]
        self.assertEqual(
            (cure.outcome, cure.piece.left_mm, cure.piece.top_mm), ("holds", 700.0, 1570.0)
        )
        outlet = usual("outlet", 800.0, 1350.0, (3200.0, 2400.0))
        [cure] = [cure for cure in cures(plan(features=(outlet,)), "shelf") if cure.code == "clear"]
        self.assertEqual(cure.outcome, "holds")

    def test_a_missed_stud_is_cured_by_setting_supports_on_studs(self) -> None:
        found = cures(plan(bracket_shelf(left_mm=760.0)), "shelf")
        self.assertEqual((found[0].code, found[0].outcome), ("seat", "holds"))
        self.assertTrue(
            all(
                found[0].piece.left_mm + x in {s.centre_mm for s in STUDS}
                for x in found[0].piece.supports_mm
            )
        )


class Shell(SimpleTestCase):
    def run_it(self, *words: str) -> tuple[int, str]:
        out = io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(out):
            status = main(list(words))
        return status, out.getvalue()

    def test_one_fixing_in_one_wall(self) -> None:
        """#10 in spruce-pine-fir, 76 mm less 3 of steel and 12.7 of lining.

        41.0 mm of thread at 16.85 N/mm: 691 N, × 0.9: 63 kg.
        """
        status, said = self.run_it(
            "capacity", "--screw", "wood_10", "--length", "76 mm", "--lining", "12.7"
        )
        self.assertEqual((status, "63 kg for years" in said), (0, True), said)
        status, said = self.run_it(
            "capacity", "--anchor", "toggle_14", "--into", "gypsum_12_7", "--json"
        )
        self.assertEqual((status, json.loads(said)["pull_years_n"]), (0, 89.0))
        status, said = self.run_it("capacity", "--anchor", "toggle_14", "--into", "concrete")
        self.assertEqual((status, "does not hold in concrete" in said), (1, True))

    def test_a_board_s_sag(self) -> None:
        """White pine 900 × 250 × 19: own 1.67 kg and 20 kg spread.

        5 W l³/(384 E I) = 5·212·900³/(384·8 500·142 896) = 1.66 mm.
        """
        words = (
            "sag",
            "--board",
            "pine_white",
            "--length",
            "900",
            "--depth",
            "250",
            "--thickness",
            "19",
            "--load",
            "20 kg",
            "--json",
        )
        status, said = self.run_it(*words)
        self.assertAlmostEqual(json.loads(said)["first_day_mm"], 1.66, delta=0.01)
        self.assertEqual(status, 0)

    def test_kinds_and_full_sums(self) -> None:
        self.assertEqual(len(json.loads(self.run_it("kinds", "--json")[1])), 19)
        example = str(ROOT / "docs/example.plan.json")
        status, said = self.run_it(
            "explain", example, "--piece", "towels", "--check", "screw.withdrawal"
        )
        self.assertEqual(status, 0)
        for words in ("2850 G² (D/in) lb/in", "C_D", "Source: NDS 2018", "M d_1 / S_d"):
            self.assertIn(words, said)

    def test_the_saw_the_shop_and_the_days(self) -> None:
        """The same as the bench.

        The example's two boards, a beam that is glued up, screws in packs, a helper on Saturday.
        """
        example = str(ROOT / "docs/example.plan.json")
        status, said = self.run_it("cut", example)
        self.assertEqual(status, 0)
        for words in (
            "1x12, 6 ft, red oak\n  1a 44",
            "Bore 2 holes, 5/8",
            "Glue 2a1, 2a2,",
        ):
            self.assertIn(words, said)
        cut = json.loads(self.run_it("cut", example, "--json")[1])
        self.assertEqual(
            [[part["label"] for part in board["parts"]] for board in cut["boards"]],
            [["1a"], ["3a"], ["2a1", "2a2"], ["2a3", "2a4"], ["2a5"]],
        )
        self.assertIn("pack of 10, #12 wood screw", self.run_it("buy", example)[1])
        lines = json.loads(self.run_it("buy", example, "--json")[1])["lines"]
        self.assertTrue(all(line["pack"] * line["packs"] >= line["needed"] for line in lines))
        said = self.run_it("days", example, "--now", "2031-04-07T08:00")[1]
        self.assertRegex(said, r"Mon 07 Apr 18:00 .*Buy[^$]*Sat 12 Apr 09:00 .*Hang")
        self.assertEqual(json.loads(self.run_it("days", example, "--json")[1])["refusal"], "")
        status, said = self.run_it("steps", example, "towels")
        self.assertRegex(
            said,
            r"5\. Drill the left bracket, hole 1 of 4\n"
            r"   Across 16\"; Up 64 1/4\"; Bit 3/32\"; Tape at 2 13/16\"",
        )
        self.assertEqual(len(json.loads(self.run_it("steps", example, "towels", "--json")[1])), 22)

    def test_bad_words_are_refused_with_a_sentence(self) -> None:
        for words, said in (
            (
                ("capacity", "--anchor", "plug_8", "--into", "cheese"),
                "“cheese” is no wall or lining",
            ),
            (
                (
                    "sag",
                    "--board",
                    "mdf",
                    "--length",
                    "x",
                    "--depth",
                    "1",
                    "--thickness",
                    "1",
                    "--load",
                    "1",
                ),
                "Couldn't read “x”",
            ),
            (
                ("explain", str(ROOT / "docs/example.plan.json"), "--piece", "nothing"),
                "nothing called “nothing”",
            ),
            (
                (
                    "sag",
                    "--board",
                    "mdf",
                    "--length",
                    "900",
                    "--depth",
                    "200",
                    "--thickness",
                    "19",
                    "--load",
                    "1",
                    "--supports",
                    "100",
                ),
                "two supports",
            ),
        ):
            status, out = self.run_it(*words)
            self.assertEqual((status, said in out), (3, True), out)
