"""More load, overhang, fewer or smaller screws, vaguer studs never improve a verdict."""

from itertools import pairwise
from unittest import mock

from django.test import SimpleTestCase
from hypothesis import example, given
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.plans import STUDS, bracket_shelf, rod_shelf, wall
from trade import data
from trade.assess import assess_piece
from trade.check import RANK
from trade.choose.samples import sample, sample_wall
from trade.load import sharing
from trade.load.line import LineLoad
from trade.mounts import KINDS
from trade.plan.model import AnyPiece, Thing, Wall

LOAD_CODES = (
    "board.",
    "sag.",
    "screw.w",
    "screw.s",
    "screw.c",
    "lining.",
    "bracket.bending",
    "rod.b",
    "shelf.droop",
)

things = st.lists(
    st.builds(
        Thing,
        name=st.just("Thing"),
        mass_kg=st.floats(0, 60),
        at_mm=st.one_of(st.none(), st.floats(0, 1000)),
        out_mm=st.one_of(st.none(), st.floats(20, 250)),
    ),
    min_size=1,
    max_size=4,
).map(tuple)
supports = st.lists(st.integers(0, 50), min_size=2, max_size=4, unique=True).map(
    lambda xs: tuple(20.0 * x for x in sorted(xs))
)


@st.composite
def shelves(draw: st.DrawFn) -> AnyPiece:
    common = {
        "things": draw(things),
        "supports_mm": draw(supports),
        "use": draw(st.sampled_from(sorted(data.uses()))),
        "board": draw(st.sampled_from(sorted(data.woods()))),
        "screw_length_mm": draw(st.sampled_from([44.45, 63.5, 76.2])),
    }
    if draw(st.booleans()):
        return bracket_shelf(**common, bracket=draw(st.sampled_from(sorted(data.brackets()))))
    return rod_shelf(
        **common, plate=draw(st.sampled_from(sorted(data.plates()))), let_in=draw(st.booleans())
    )


WIDE = wall(
    studs=tuple(replace(stud, width_mm=200.0) for stud in STUDS)
)  # most supports find wood, so that sums are compared


def used(piece: AnyPiece, on: Wall) -> dict[str, float]:
    """Every sum with one way of sharing.

    Else one may fall as another rises, where strength or twist runs short.
    """
    alike = mock.patch.object(sharing, "_promising", return_value=[])
    turned = mock.patch.object(LineLoad, "_together", return_value=1.0)
    with alike, turned:
        found = {c.code: c.utilisation for c in assess_piece(piece, on).checks}
    return found


class Monotone(SimpleTestCase):
    def never_better(
        self,
        piece: AnyPiece,
        worse: AnyPiece,
        on: Wall,
        worse_on: Wall | None = None,
        codes: tuple[str, ...] = (),
    ) -> None:
        worse_on = worse_on or on
        before, after = used(piece, on), used(worse, worse_on)
        for code in before.keys() & after.keys():
            if code.startswith(codes or LOAD_CODES):
                self.assertGreaterEqual(after[code], before[code] * (1 - 1e-4) - 1e-9, code)
        self.assertGreaterEqual(
            RANK[assess_piece(worse, worse_on).outcome], RANK[assess_piece(piece, on).outcome]
        )

    @given(piece=shelves(), which=st.integers(0, 3), factor=st.floats(1, 5))
    def test_a_heavier_thing(self, piece: AnyPiece, which: int, factor: float) -> None:
        n = which % len(piece.things)
        heavier = replace(piece.things[n], mass_kg=(piece.things[n].mass_kg or 0.0) * factor)
        worse = replace(piece, things=(*piece.things[:n], heavier, *piece.things[n + 1 :]))
        self.never_better(piece, worse, WIDE)

    @given(
        piece=shelves(),
        extra=st.builds(
            Thing, name=st.just("More"), mass_kg=st.floats(0, 60), at_mm=st.floats(0, 1000)
        ),
    )
    def test_one_more_thing(self, piece: AnyPiece, extra: Thing) -> None:
        self.never_better(piece, replace(piece, things=(*piece.things, extra)), WIDE)

    @given(piece=shelves(), out=st.floats(20, 250), further=st.floats(1, 2))
    def test_things_further_out(self, piece: AnyPiece, out: float, further: float) -> None:
        near = replace(piece, things=tuple(replace(t, out_mm=out) for t in piece.things))
        far = replace(
            piece, things=tuple(replace(t, out_mm=min(out * further, 250.0)) for t in piece.things)
        )
        codes = ("screw.w", "screw.c", "lining.", "bracket.bending", "rod.bending")
        self.never_better(near, far, WIDE, codes=codes)

    @example(kind="rail", loads=(Thing(name="Coats", mass_kg=11.96),))
    @given(kind=st.sampled_from(sorted(KINDS)), loads=things)
    def test_a_harder_use_of_any_kind(self, kind: str, loads: tuple[Thing, ...]) -> None:
        piece = sample(kind)
        loads = tuple(
            replace(
                thing,
                at_mm=None if thing.at_mm is None else thing.at_mm % piece.length_mm,
                out_mm=None,
            )
            for thing in loads
        )
        uses = ("display", "everyday", "hard")
        found = [used(replace(piece, things=loads, use=use), sample_wall()) for use in uses]
        for milder, harder in pairwise(found):
            for code in milder.keys() & harder.keys():
                self.assertGreaterEqual(harder[code], milder[code] * (1 - 1e-4) - 1e-9, code)

    @given(piece=shelves(), shorter=st.sampled_from([31.75, 38.1, 44.45]))
    def test_shorter_screws(self, piece: AnyPiece, shorter: float) -> None:
        worse = replace(piece, screw_length_mm=min(shorter, piece.screw_length_mm))
        self.never_better(piece, worse, WIDE, codes=("screw.w", "screw.s", "screw.c"))

    @given(piece=shelves(), off=st.floats(0, 20), more=st.floats(0, 20), shift=st.floats(-15, 15))
    def test_a_less_certain_stud(
        self, piece: AnyPiece, off: float, more: float, shift: float
    ) -> None:
        on, worse_on = (
            wall(studs=tuple(replace(s, uncertainty_mm=u) for s in STUDS))
            for u in (off, off + more)
        )
        piece = replace(piece, left_mm=700.0 + shift)
        self.never_better(piece, piece, on, worse_on, codes=("screw.", "lining."))

    def test_fewer_screws_in_a_bracket(self) -> None:
        """Fewer of the same holes: the row with a hole taken out is never better."""
        for key, row in data.brackets().items():
            piece = bracket_shelf(bracket=key)
            whole = used(piece, wall())
            for gone in range(len(row.holes_mm)):
                holes = row.holes_mm[:gone] + row.holes_mm[gone + 1 :]
                with mock.patch.object(
                    data,
                    "brackets",
                    lambda key=key, row=row, holes=holes: {key: replace(row, holes_mm=holes)},
                ):
                    fewer = used(piece, wall())
                for code in (
                    "screw.withdrawal",
                    "screw.shear",
                    "screw.combined",
                    "lining.crushing",
                ):
                    with self.subTest(bracket=key, gone=gone, code=code):
                        self.assertGreaterEqual(fewer[code], whole[code] * (1 - 1e-9))
