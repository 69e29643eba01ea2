"""Printed values from outside, and ours beside each.

(source, clause or table, given, printed, ours, how near).

Everything here is quoted from memory unless it says otherwise; `second` says by what other way each
table was got again: from its equation, from another table, from statics. A value that differs is
neither left out nor tuned: it says why, and by how much.
"""

import tomllib
from collections.abc import Callable, Iterator
from itertools import product
from pathlib import Path
from typing import NamedTuple

from trade import data
from trade.fixings import european, pins, sheet_steel, wood
from trade.load.lifting import recommended_kg
from trade.load.shelf import torsion_form_mm3
from trade.measure import LB_PER_IN_N_PER_MM, LBF_N, PSI_MPA
from trade.mechanics import beam, steel

IN = 25.4


class Value(NamedTuple):
    """One printed value: what it was given for, as printed, ours in the same unit."""

    given: str
    printed: float
    ours: float


class Table(NamedTuple):
    """Printed values of one table, each held to `within`.

    Absolute, or a share of it where `share` is set; `why` they differ.
    """

    source: str
    clause: str
    second: str
    values: tuple[Value, ...]
    within: float
    share: bool = False
    why: str = "rounding"


with Path(__file__).with_name("withdrawal.toml").open("rb") as _file:
    _WITHDRAWAL = tomllib.load(_file)
_G: list[float] = _WITHDRAWAL["gravity"]
_LAGS: dict[str, list[float]] = _WITHDRAWAL["lags"]
_SCREWS: dict[str, list[float]] = _WITHDRAWAL["screws"]


def _rows(
    printed: dict[str, list[float]], ours: Callable[[str, float], float], unit: str
) -> tuple[Value, ...]:
    return tuple(
        Value(f"{key}, G {g:g}, {unit}", value, ours(key, g))
        for key, row in printed.items()
        for g, value in zip(_G, row, strict=True)
    )


def _per_inch(key: str, g: float) -> float:
    return wood.withdrawal_n_per_mm(data.screws()[key], g) / LB_PER_IN_N_PER_MM


def _spans(count: int) -> beam.Beam:
    """Equal spans of length 1 000 under an even load of 1 N/mm, E I of 1e9."""
    return beam.solve(
        1000.0 * count,
        tuple(1000.0 * n for n in range(count + 1)),
        1e9,
        [beam.Load(1000.0 * count, 0.0, 1000.0 * count)],
    )


def _continuous() -> Iterator[Value]:
    printed = {
        2: ((0.375, 1.25, 0.375), (0.0703,), (-0.125,)),
        3: ((0.4, 1.1, 1.1, 0.4), (0.08, 0.025), (-0.1, -0.1)),
        4: ((0.393, 1.143, 0.929, 1.143, 0.393), (0.0772, 0.0364), (-0.1071, -0.0714)),
        5: (
            (0.395, 1.132, 0.974, 0.974, 1.132, 0.395),
            (0.0779, 0.0331, 0.0461),
            (-0.1053, -0.0789),
        ),
    }
    for count, (reactions, spans, supports) in printed.items():
        solved = _spans(count)
        for n, value in enumerate(reactions):
            yield Value(
                f"{count} spans, reaction {n + 1}, w l",
                value,
                float(solved.reactions_n[n, 0]) / 1000,
            )
        for n, value in enumerate(spans):
            inside = (solved.places_mm >= 1000.0 * n) & (solved.places_mm <= 1000.0 * (n + 1))
            yield Value(
                f"{count} spans, in span {n + 1}, w l²",
                value,
                float(solved.moments_nmm[inside, 0].max()) / 1e6,
            )
        for n, value in enumerate(supports, start=1):
            at = abs(solved.places_mm - 1000.0 * n) < 1e-6
            yield Value(
                f"{count} spans, over support {n + 1}, w l²",
                value,
                float(solved.moments_nmm[at, 0].min()) / 1e6,
            )
    for count, value in ((1, 0.01302), (2, 0.0054), (3, 0.0069), (4, 0.0065)):
        yield Value(
            f"{count} spans, greatest sag, w l⁴ / E I",
            value,
            float(_spans(count).sags_mm.max()) / 1e3,
        )


def _lateral_lb(
    nominal_in: float,
    root_in: float,
    fyb_psi: float,
    side_in: float,
    deep_in: float,
    across: bool = False,
) -> float:
    """Our single-shear design value with no gap, both members of G = 0.50, lb."""
    fastener = wood.Dowel(root_in * IN, nominal_in * IN, fyb_psi * PSI_MPA)
    side = wood.wood_side(side_in * IN, 0.50, nominal_in * IN, across)
    return (
        wood.lateral(
            fastener, side, 0.0, wood.bearing_strength_mpa(0.50, nominal_in * IN), deep_in * IN
        ).value_n
        / LBF_N
    )


def _bearing() -> Iterator[Value]:
    for g, value in (
        (0.67, 7500),
        (0.55, 6150),
        (0.50, 5600),
        (0.43, 4800),
        (0.42, 4700),
        (0.36, 4050),
    ):
        yield Value(
            f"along the grain, G {g:g}, psi",
            value,
            wood.bearing_strength_mpa(g, 0.5 * IN) / PSI_MPA,
        )
    across = {
        0.50: (4450, 4000, 3650, 3400, 3150, 2800, 2600, 2400, 2250),
        0.42: (3450, 3100, 2850, 2600, 2450, 2200, 2000, 1850, 1750),
    }
    sizes = (0.25, 0.3125, 0.375, 0.4375, 0.5, 0.625, 0.75, 0.875, 1.0)
    for g, row in across.items():
        for inches, value in zip(sizes, row, strict=True):
            yield Value(
                f"across, {inches:g} in, G {g:g}, psi",
                value,
                wood.bearing_strength_mpa(g, inches * IN, True) / PSI_MPA,
            )
    for g, value in (
        (0.55, 5550),
        (0.50, 4650),
        (0.49, 4450),
        (0.46, 4000),
        (0.43, 3500),
        (0.42, 3350),
        (0.36, 2550),
    ):
        yield Value(
            f"under 1/4 in, G {g:g}, psi", value, wood.bearing_strength_mpa(g, 0.19 * IN) / PSI_MPA
        )


def _boards() -> Iterator[Value]:
    """Modulus of elasticity (GPa), of rupture (MPa) and shear (MPa) at 12 %."""
    printed = {
        "pine_white": (8.5, 59, 6.2),
        "pine_ponderosa": (8.9, 65, 7.8),
        "douglas_fir": (13.4, 85, 7.8),
        "poplar": (10.9, 70, 8.2),
        "oak_red": (12.5, 99, 12.3),
        "oak_white": (12.3, 105, 13.8),
        "maple": (12.6, 109, 16.1),
        "walnut": (11.6, 101, 9.4),
    }
    for key, (e, mor, shear) in printed.items():
        row = data.boards()[key]
        yield Value(f"{key}, E, GPa", e, row.e_mpa / 1000)
        yield Value(f"{key}, MOR, MPa", mor, row.mor_mpa)
        yield Value(f"{key}, shear, MPa", shear, row.shear_mpa)


def _across() -> Iterator[Value]:
    """Proportional limit across the grain, MPa: ours times the three that it was divided by."""
    printed = {
        "pine_white": 3.0,
        "pine_ponderosa": 4.0,
        "douglas_fir": 5.5,
        "poplar": 3.4,
        "oak_red": 7.0,
        "oak_white": 7.4,
        "maple": 10.1,
        "walnut": 7.0,
    }
    for key, value in printed.items():
        yield Value(f"{key}, MPa", value, data.boards()[key].bearing_mpa * 3)


def _screws() -> Iterator[Value]:
    for key, thick, root in (
        ("wood_8", 0.164, 0.131),
        ("wood_10", 0.190, 0.152),
        ("wood_12", 0.216, 0.171),
        ("wood_14", 0.242, 0.196),
        ("lag_1_4", 0.250, 0.173),
        ("lag_5_16", 0.3125, 0.227),
        ("lag_3_8", 0.375, 0.265),
    ):
        yield Value(f"{key}, thickness, in", thick, data.screws()[key].diameter_mm / IN)
        yield Value(f"{key}, root, in", root, data.screws()[key].root_mm / IN)


def _anchors() -> Iterator[Value]:
    for size, in_board, in_steel in (
        ("18", (20, 40), (70, 100)),
        ("316", (30, 50), (80, 125)),
        ("14", (40, 60), (155, 175)),
    ):
        for kind, base, (pull, shear) in (
            ("toggle", "gypsum_12_7", in_board),
            ("sleeve", "gypsum_12_7", in_board),
            ("toggle", "steel_25", in_steel),
        ):
            held = data.anchors()[f"{kind}_{size}"].holds_n[base]
            yield Value(f"{kind} {size}, {base}, pull, lb", pull, held.pull / LBF_N)
            yield Value(f"{kind} {size}, {base}, shear, lb", shear, held.shear / LBF_N)


def _lifting() -> Iterator[Value]:
    """Multipliers at the origin else: H 25, V 75, D 25 cm, good handles."""
    whole = recommended_kg(250.0, 750.0, 250.0, 1.0)
    for h, value in (
        (25, 1.0),
        (28, 0.89),
        (30, 0.83),
        (32, 0.78),
        (40, 0.63),
        (44, 0.57),
        (50, 0.50),
        (60, 0.42),
        (63, 0.40),
    ):
        yield Value(
            f"horizontal, {h} cm", value, recommended_kg(h * 10.0, 750.0, 250.0, 1.0) / whole
        )
    for v, value in (
        (0, 0.78),
        (30, 0.87),
        (50, 0.93),
        (70, 0.99),
        (100, 0.93),
        (120, 0.87),
        (150, 0.78),
        (175, 0.70),
    ):
        yield Value(f"vertical, {v} cm", value, recommended_kg(250.0, v * 10.0, 250.0, 1.0) / whole)
    for d, value in ((25, 1.0), (40, 0.93), (55, 0.90), (100, 0.87), (145, 0.85), (175, 0.85)):
        yield Value(f"distance, {d} cm", value, recommended_kg(250.0, 750.0, d * 10.0, 1.0) / whole)


def _torsion() -> Iterator[Value]:
    for ratio, value in (
        (2.0, 0.246),
        (2.5, 0.258),
        (3.0, 0.267),
        (4.0, 0.282),
        (6.0, 0.299),
        (10.0, 0.312),
        (20.0, 0.323),
    ):
        yield Value(
            f"long / short {ratio:g}: T / (τ long short²)",
            value,
            torsion_form_mm3(ratio, 1.0) / ratio,
        )


def _eurocode() -> Iterator[Value]:
    for key, mean, fractile in (("c16", 370, 310), ("c24", 420, 350)):
        density = data.framing()[key].density_kg_m3
        yield Value(f"{key}, mean density, kg/m³", mean, density)
        yield Value(f"{key}, characteristic density, kg/m³", fractile, european.rho_k(density))
    for apart, k in ((4, 0.5), (7, 0.7), (10, 0.85), (14, 1.0)):
        yield Value(
            f"Table 8.1, a = {apart} d, of 3: n^k",
            3.0**k,
            3 * european.sheared_in_line(3, apart * 5.0, 5.0),
        )
    for apart, n, value in ((5, 2, 1.47), (5, 3, 2.12), (7, 3, 2.30), (10, 4, 3.26)):
        yield Value(
            f"(8.34), a = {apart} d, of {n}: n_ef",
            value,
            n * european.sheared_in_line(n, apart * 10.0, 10.0),
        )
    for n, value in ((2, 1.866), (3, 2.688), (4, 3.482), (6, 5.016)):
        yield Value(f"(8.41), of {n}: n^0.9", value, n * european.pulled_together(n))
    for d, value in ((4.0, 18.9), (6.0, 16.8)):
        yield Value(f"(8.15), d {d:g}, ρ_k 350, N/mm²", value, european.embedment_k(d, 350.0))
    for d, along, across in ((8.0, 26.4, 18.0), (12.0, 25.3, 16.5), (16.0, 24.1, 15.2)):
        yield Value(
            f"(8.32), d {d:g}, ρ_k 350, along, N/mm²", along, european.embedment_k(d, 350.0)
        )
        yield Value(
            f"(8.31, 8.33), d {d:g}, across, N/mm²", across, european.embedment_k(d, 350.0, True)
        )
    yield Value("(8.39), d 6, l_ef 60, ρ_k 350, N/mm²", 15.3, european.fax_mpa(6.0, 60.0, 350.0))
    yield Value("(8.40b), head 12, ρ_k 350, N", 1440.0, european.head_k(12.0, 350.0))


def _steel() -> Iterator[Value]:
    for fy, shape, value in ((250.0, "rectangle", 1.5 / 1.67), (250.0, "round", 1.6 / 1.67)):
        yield Value(
            f"{shape}: M_n / 1.67 over F_y S", value, steel.solid_bending_mpa(fy, shape) / fy
        )  # type: ignore[arg-type]
    share = sheet_steel.SHEET_FU_MPA / (45_000 * PSI_MPA)  # printed for F_u of 45 ksi
    for mils, number8, number10 in (
        (0.0188, 39, 45),
        (0.0283, 59, 69),
        (0.0346, 72, 84),
        (0.0451, 94, 109),
    ):
        for inches, value in ((0.164, number8), (0.190, number10)):
            pull = sheet_steel.pull_out_n(mils * IN, inches * IN) / sheet_steel.OMEGA / LBF_N
            yield Value(
                f"pull-out, {mils:g} in sheet, {inches:g} in screw, lb", value * share, pull
            )


def _pins() -> Iterator[Value]:
    """Pin yield and bearing by their own equations solved by hand.

    P = q (√(e² + 2 M_p/q) − e); 2a² + 4ea − 2eL − L² = 0.
    """
    for q, length, e, plastic, bearing, bent in (
        (300.0, 60.0, 100.0, 60e3, 2050.0, 594.1),
        (400.0, 80.0, 60.0, 200e3, 6163.0, 3129.0),
    ):
        ours = pins.carries(q, length, e, plastic)
        yield Value(f"q {q:g}, L {length:g}, e {e:g}: bearing, N", bearing, ours[0])
        yield Value(f"q {q:g}, e {e:g}, M_p {plastic:g}: yield, N", bent, ours[1])


def _laterals() -> Iterator[Value]:
    for number, inches, root, fyb, value in (
        (6, 0.138, 0.113, 100_000, 59),
        (7, 0.151, 0.122, 90_000, 65),
        (8, 0.164, 0.131, 90_000, 73),
        (9, 0.177, 0.142, 90_000, 83),
        (10, 0.190, 0.152, 80_000, 90),
        (12, 0.216, 0.171, 80_000, 110),
        (14, 0.242, 0.196, 70_000, 120),
    ):
        yield Value(
            f"#{number} screw, 1/2 in side, G 0.50, lb",
            value,
            _lateral_lb(inches, root, fyb, 0.5, 10 * inches),
        )


def _nail_laterals() -> Iterator[Value]:
    for (inches, fyb), (side, row) in product(
        ((0.131, 100_000), (0.148, 90_000), (0.162, 90_000)),
        ((0.75, (90, 105, 121)), (1.5, (97, 118, 141))),
    ):
        value = row[(0.131, 0.148, 0.162).index(inches)]
        yield Value(
            f"{inches:g} in nail, {side:g} in side, G 0.50, lb",
            value,
            _lateral_lb(inches, inches, fyb, side, 10 * inches),
        )


def _bolts() -> Iterator[Value]:
    for inches, along, across in (
        (0.5, 480, 300),
        (0.625, 600, 360),
        (0.75, 720, 420),
        (0.875, 850, 470),
        (1.0, 970, 530),
    ):
        yield Value(
            f"{inches:g} in bolt, 1 1/2 in in 1 1/2 in, along, lb",
            along,
            _lateral_lb(inches, inches, 45_000, 1.5, 1.5),
        )
        yield Value(
            f"{inches:g} in bolt, side across, lb",
            across,
            _lateral_lb(inches, inches, 45_000, 1.5, 1.5, across=True),
        )


def _timbers() -> Iterator[Value]:
    for key, g, psi in (
        ("spruce_pine_fir", 0.42, 425),
        ("spruce_pine_fir_south", 0.36, 335),
        ("hem_fir", 0.43, 405),
        ("douglas_fir_larch", 0.50, 625),
        ("southern_pine", 0.55, 565),
    ):
        yield Value(f"{key}, G", g, data.framing()[key].g)
        yield Value(f"{key}, across the grain, psi", psi, data.framing()[key].bearing_mpa / PSI_MPA)


def _nails() -> Iterator[Value]:
    for inches, g, value in (
        (0.131, 0.55, 41),
        (0.131, 0.50, 32),
        (0.131, 0.43, 22),
        (0.131, 0.42, 21),
        (0.148, 0.50, 36),
        (0.148, 0.42, 23),
        (0.162, 0.50, 40),
        (0.162, 0.42, 26),
        (0.192, 0.50, 47),
        (0.192, 0.42, 30),
    ):
        yield Value(
            f"{inches:g} in nail, G {g:g}, lb/in",
            value,
            wood.nail_withdrawal_n_per_mm(inches * IN, g) / LB_PER_IN_N_PER_MM,
        )


def tables() -> tuple[Table, ...]:
    """Every table of printed values."""
    nds = "NDS 2018"
    return (
        Table(
            nds,
            "Table 12.2A, lag withdrawal",
            "1800 G^1.5 D^0.75",
            _rows(_LAGS, _per_inch, "lb/in"),
            1.0,
        ),
        Table(
            nds,
            "Table 12.2B, wood screw withdrawal",
            "2850 G² D",
            _rows(_SCREWS, _per_inch, "lb/in"),
            1.1,
        ),
        Table(nds, "Table 12.2C, nail withdrawal", "1380 G^2.5 D", tuple(_nails()), 1.0),
        Table(
            nds,
            "Table 12.3.3, dowel bearing",
            "11 200 G, 6 100 G^1.45 / √D, 16 600 G^1.84",
            tuple(_bearing()),
            40.0,
            why="printed to 50 psi",
        ),
        Table(
            nds,
            "Table 12L, wood screw lateral",
            "equations of 12.3 at the root",
            tuple(_laterals()),
            0.01,
            True,
        ),
        Table(
            nds,
            "Table 12N, nail lateral",
            "equations of 12.3",
            tuple(_nail_laterals()),
            0.006,
            True,
        ),
        Table(
            nds,
            "Table 12A, bolts",
            "equations of 12.3",
            tuple(_bolts()),
            0.015,
            True,
            "printed to 10 lb, from F_e to 50 psi",
        ),
        Table(nds, "Tables L2 and L3, sizes", "ASME B18.6.1 and B18.2.1", tuple(_screws()), 0.001),
        Table(nds, "Table 12.3.3A; Supplement 4A and 4B", "two tables", tuple(_timbers()), 1.0),
        Table(
            "EN 1995-1-1, EN 338",
            "section 8; Table 1",
            "its equations by hand",
            tuple(_eurocode()),
            0.02,
            True,
            "ours takes one share for both fractiles",
        ),
        Table(
            "Wood Handbook FPL-GTR-282",
            "Table 5-3a, E, MOR, shear",
            "held to Table 5-11a's relations",
            tuple(_boards()),
            0.001,
            True,
        ),
        Table(
            "Wood Handbook FPL-GTR-282",
            "Table 5-3a, across the grain",
            "Table 5-11a",
            tuple(_across()),
            0.08,
            True,
            "ours are rounded to 0.1 MPa",
        ),
        Table(
            "beam tables (AISC Manual 3-22c, 3-23)",
            "equal spans",
            "three-moment equation",
            tuple(_continuous()),
            0.0006,
        ),
        Table(
            "Roark's Formulas",
            "torsion of rectangles",
            "series of de Saint-Venant",
            tuple(_torsion()),
            0.08,
            True,
            "ours is a straight line, to the safe side up to six",
        ),
        Table(
            "Gypsum Construction Handbook",
            "fixture attachment",
            "none: from memory alone",
            tuple(_anchors()),
            0.01,
            True,
        ),
        Table("NIOSH 94-110", "multipliers", "its equations", tuple(_lifting()), 0.006),
        Table(
            "AISC 360 F11; tables of cold-formed framing",
            "solid bars; screw pull-out",
            "AISI S100 J4.4: 0.85 t d F_u / 3.0",
            tuple(_steel()),
            0.015,
            True,
        ),
        Table(
            "statics of a pin in wood",
            "rigid-plastic",
            "solved by hand",
            tuple(_pins()),
            0.01,
            True,
        ),
    )


def tally() -> str:
    """The handbook's chapter on outside values: how many, from where, how near."""
    every = tables()
    lines = [
        "# Outside values",
        "",
        "Printed by `python -m tests.reference`; do not edit by hand. Printed values beside which "
        "ours is worked out, and how far apart",
        "the two may be. All are from memory; each table was got a second way. What is held "
        "against a frame library, against theory or",
        "against published formulas stands beside its test in `tests/reference/` and is not "
        "counted here.",
        "",
        "| source | table | values | within | second way | where they differ |",
        "| --- | --- | --- | --- | --- | --- |",
    ]
    for table in every:
        within = f"{table.within * 100:g} %" if table.share else f"{table.within:g}"
        lines.append(
            f"| {table.source} | {table.clause} | {len(table.values)} | {within} | {table.second} "
            f"| {table.why} |"
        )
    return "\n".join([*lines, "", f"In all {sum(len(table.values) for table in every)}."])
