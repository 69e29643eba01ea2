"""What must be true of every kind of mounting, on any wall.

Finite, monotone, the same in any units, the same in a mirror.
"""

import math
from typing import Any
from unittest import mock

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import GYPSUM, STUDS, wall
from trade import data, wording
from trade.assess import assess, assess_piece
from trade.check import PieceVerdict
from trade.choose import placement
from trade.choose.cures import cures
from trade.load import sharing
from trade.load.line import LineLoad
from trade.marking.marks import marks
from trade.mounts import ALL, KINDS, mount_of
from trade.plan import plan_file
from trade.plan.model import AnyPiece, Bench, CornerShelf, Layer, LedgerShelf, Plan, Thing, Wall

STRUCTURES = ("timber", "timber", "steel_20", "block_hollow", "concrete", "brick_solid")
LININGS = (
    GYPSUM,
    (),
    None,
    (*GYPSUM, Layer(kind="tile", thickness_mm=10.0)),
    (Layer(kind="plaster_lath", thickness_mm=22.0),),
)
walls = st.builds(
    lambda structure, layers, off, design_code: wall(
        structure=structure,
        layers=layers,
        studs=tuple(replace(stud, uncertainty_mm=off) for stud in STUDS),
        design_code=design_code,
    ),
    st.sampled_from(STRUCTURES),
    st.sampled_from(LININGS),
    st.sampled_from([0.0, 2.0, 9.0, None]),
    st.sampled_from(["american", "european"]),
)
things = st.lists(
    st.builds(
        Thing,
        name=st.just("Thing"),
        mass_kg=st.one_of(st.none(), st.floats(0, 60)),
        at_mm=st.one_of(st.none(), st.floats(0, 500)),
        out_mm=st.one_of(st.none(), st.floats(20, 90)),
    ),
    max_size=4,
).map(tuple)


def put_up(kind: str, on: Wall, **changes: Any) -> AnyPiece:
    piece: Any = placement.put_up(Plan(name="Wall", units="metric", wall=on), kind, 1600.0, 1500.0)
    if hasattr(piece, "body_kg"):
        changes.setdefault("body_kg", 18.0)
    return replace(piece, **changes)


@st.composite
def pieces(draw: st.DrawFn, on: Wall) -> AnyPiece:
    kind = draw(st.sampled_from(sorted(KINDS)))
    piece = put_up(kind, on, things=draw(things), use=draw(st.sampled_from(sorted(data.uses()))))
    shift = draw(st.sampled_from([0.0, 0.0, 6.0, 130.0]))
    anchor = draw(st.sampled_from([piece.anchor, None, "plug_8", "toggle_14"]))
    changed: Any = replace(piece, left_mm=piece.left_mm + shift, anchor=anchor)
    if hasattr(changed, "board") and draw(st.booleans()):
        changed = replace(changed, board=draw(st.sampled_from(sorted(data.woods()))))
    return changed


@st.composite
def hung(draw: st.DrawFn) -> tuple[AnyPiece, Wall]:
    on = draw(walls)
    return draw(pieces(on)), on


def mirrored(piece: AnyPiece, on: Wall) -> tuple[AnyPiece, Wall]:
    studs = tuple(
        replace(stud, centre_mm=on.width_mm - stud.centre_mm) for stud in reversed(on.studs)
    )
    swapped: Any = replace(
        piece,
        left_mm=on.width_mm - piece.left_mm - piece.length_mm,
        supports_mm=tuple(piece.length_mm - x for x in reversed(piece.supports_mm)),
        things=tuple(
            replace(t, at_mm=None if t.at_mm is None else piece.length_mm - t.at_mm)
            for t in piece.things
        ),
    )
    if isinstance(swapped, LedgerShelf):
        swapped = replace(swapped, left_side=swapped.right_side, right_side=swapped.left_side)
    if isinstance(swapped, CornerShelf):
        swapped = replace(swapped, corner="right" if swapped.corner == "left" else "left")
    return swapped, replace(on, studs=studs)


def sums(verdict: PieceVerdict) -> dict[str, float]:
    return {check.code: check.utilisation for check in verdict.checks}


def worst(piece: AnyPiece, on: Wall) -> dict[str, float]:
    """Every sum with one way of sharing.

    Else one may fall as another rises, where strength or twist runs short.
    """
    alike = mock.patch.object(sharing, "_promising", return_value=[])
    turned = mock.patch.object(LineLoad, "_together", return_value=1.0)
    with alike, turned:
        return sums(assess_piece(piece, on))


class EveryKind(SimpleTestCase):
    @settings(max_examples=150)
    @given(hung())
    def test_there_is_always_an_answer_in_finite_numbers_and_plain_words(
        self, found: tuple[AnyPiece, Wall]
    ) -> None:
        piece, on = found
        verdict = assess_piece(piece, on)
        self.assertTrue(verdict.checks)
        for check in verdict.checks:
            self.assertTrue(
                math.isfinite(check.utilisation) and check.utilisation >= 0,
                (check.code, check.utilisation),
            )
            for units in ("metric", "imperial"):
                said = wording.phrase(check.sentence, units)  # type: ignore[arg-type]
                self.assertRegex(said, r"^[“A-Z0-9].*[.?]$", check.code)
            for step in check.equations:
                self.assertTrue(math.isfinite(step.result.value), (check.code, step.symbol))
        mount, box = mount_of(piece), mount_of(piece).box(piece)
        self.assertLess(box.bottom_mm, box.top_mm)
        for support in mount.supports(piece, on):
            self.assertTrue(mount.side(piece, support))
        made = marks(Plan(name="Wall", units="metric", wall=on, pieces=(piece,)))
        self.assertTrue(all(mark.depth_mm >= 0 for mark in made))

    @settings(max_examples=100)
    @given(found=hung(), factor=st.floats(1, 4))
    def test_more_weight_is_never_better(self, found: tuple[AnyPiece, Wall], factor: float) -> None:
        piece, on = found
        weighed = replace(
            piece, things=tuple(replace(t, mass_kg=t.mass_kg or 1.0) for t in piece.things)
        )
        heavier = replace(
            weighed,
            things=tuple(replace(t, mass_kg=(t.mass_kg or 0.0) * factor) for t in weighed.things),
        )
        before, after = worst(weighed, on), worst(heavier, on)
        for code in before:
            if code != "shelf.wobble" and code != "cleat.lift":
                self.assertGreaterEqual(
                    after.get(code, math.inf), before[code] * (1 - 1e-4) - 1e-9, code
                )

    def never_better(
        self, before: dict[str, float], after: dict[str, float], codes: tuple[str, ...]
    ) -> None:
        for code in before:
            if code.startswith(codes):
                self.assertGreaterEqual(
                    after.get(code, math.inf), before[code] * (1 - 1e-4) - 1e-9, code
                )

    @settings(max_examples=80)
    @given(found=hung(), further=st.floats(1, 3))
    def test_things_further_out_are_never_better(
        self, found: tuple[AnyPiece, Wall], further: float
    ) -> None:
        piece, on = found
        if isinstance(piece, LedgerShelf | Bench | CornerShelf):
            return  # further out is nearer to what holds the front
        near, far = (
            replace(
                piece,
                things=tuple(
                    replace(t, mass_kg=t.mass_kg or 1.0, out_mm=(t.out_mm or 30.0) * f)
                    for t in piece.things
                ),
            )
            for f in (1.0, min(further, piece.depth_mm / 90.0) if piece.depth_mm > 90 else 1.0)
        )
        codes = (
            "screw.w",
            "screw.c",
            "anchor.p",
            "anchor.c",
            "pin.c",
            "lining.",
            "rail.",
            "cleat.b",
            "dowel.",
            "peg.",
            "panel.batten_",
        )
        self.never_better(worst(near, on), worst(far, on), codes)

    @settings(max_examples=60)
    @given(found=hung(), shorter=st.floats(0.4, 1))
    def test_shorter_screws_are_never_better(
        self, found: tuple[AnyPiece, Wall], shorter: float
    ) -> None:
        piece, on = found
        cut = replace(piece, screw_length_mm=max(piece.screw_length_mm * shorter, 10.0))
        before, after = worst(piece, on), worst(cut, on)
        gone = {code for code in before if code.startswith("screw.") and code not in after}
        self.assertTrue(not gone or after["screw.embedment"] > 1, gone)  # too short to hold at all
        kept = {code: used for code, used in before.items() if code in after}
        self.never_better(kept, after, ("screw.w", "screw.s", "screw.c", "screw.embedment"))

    @settings(max_examples=60)
    @given(hung())
    def test_the_same_in_a_mirror(self, found: tuple[AnyPiece, Wall]) -> None:
        piece, on = found
        here, there = assess_piece(piece, on), assess_piece(*mirrored(piece, on))
        self.assertEqual(here.outcome, there.outcome)
        ours, theirs = sums(here), sums(there)
        self.assertEqual(ours.keys(), theirs.keys())
        for code, used in ours.items():
            self.assertAlmostEqual(used, theirs[code], delta=1e-6 * max(used, 1.0), msg=code)

    @settings(max_examples=40)
    @given(hung())
    def test_the_same_in_any_units_and_after_a_file(self, found: tuple[AnyPiece, Wall]) -> None:
        piece, on = found
        metric = Plan(name="Wall", units="metric", wall=on, pieces=(piece,))
        imperial = plan_file.load(plan_file.dump(replace(metric, units="imperial")))
        self.assertEqual(
            [sums(v) for v in assess(metric).pieces], [sums(v) for v in assess(imperial).pieces]
        )

    def test_what_is_put_up_on_a_good_wall_fails_for_no_misfit(self) -> None:
        on = wall()
        for kind in KINDS:
            with self.subTest(kind=kind):
                light = (Thing(name="Something light", mass_kg=2.0),)
                verdict = assess_piece(put_up(kind, on, things=light), on)
                self.assertNotEqual(
                    verdict.outcome,
                    "wont_hold",
                    [c.code for c in verdict.checks if c.outcome == "wont_hold"],
                )

    def test_on_every_wall_it_makes_no_sense_on_it_says_why_and_what_would(self) -> None:
        for kind in KINDS:
            for structure in ("concrete", "steel_25"):
                with self.subTest(kind=kind, structure=structure):
                    on = wall(structure=structure)
                    verdict = assess_piece(
                        put_up(kind, on, anchor=None, things=(Thing(name="Light", mass_kg=1.0),)),
                        on,
                    )
                    self.assertEqual(verdict.outcome, "wont_hold")
                    self.assertRegex(
                        wording.headline(verdict, "metric"),
                        "Choose an anchor|[Bb]rackets or a cleat",
                    )

    def test_cures_deliver_what_they_promise(self) -> None:
        load = (Thing(name="Load", mass_kg=60.0),)
        for kind in KINDS:
            piece = put_up(kind, wall(), things=load)
            now = Plan(name="Wall", units="metric", wall=wall(), pieces=(piece,))
            for cure in cures(now, piece.key):
                with self.subTest(kind=kind, cure=cure.code):
                    self.assertEqual(assess(cure.on(now)).pieces[0].outcome, cure.outcome)

    def test_every_kind_has_its_words_its_shapes_and_its_inputs(self) -> None:
        for mount in ALL:
            with self.subTest(kind=mount.kind):
                piece = put_up(mount.kind, wall())
                for ask in mount.asks:
                    self.assertTrue(hasattr(piece, ask.field), ask.field)
                self.assertTrue(
                    any(shape.role in ("board", "face") for shape in mount.front(piece))
                )
                parts = mount.parts(piece, wall())
                self.assertTrue(parts)
                for part in parts:
                    self.assertTrue(
                        part.many >= 1 and all(mm > 0 for mm in part.sizes_mm or (1.0,)), part
                    )
                self.assertTrue(mount.name and mount.piece_noun and mount.support_noun)
