"""What one anchor holds where it sits.

By its class, by the concrete around it, or by the sheet of a steel stud.
"""

from typing import NamedTuple

from trade import data
from trade.check import Message, Quantity, Step
from trade.data import Anchor
from trade.fixings import in_concrete, sheet_steel
from trade.fixings.substrate import CORE_SHARE, Substrate
from trade.measure import PSI_MPA
from trade.plan.model import Wall
from trade.wall.backing import ASK_LINING

_FYB_MPA = (
    80_000 * PSI_MPA
)  # bending yield of the screw in an anchor, as a #10 wood screw (NDS 2018 Table I1)
_BEST_LINING = "gypsum_15_9"  # what an unknown lining is taken as: what fails there fails anyway


class AnchorCapacity(NamedTuple):
    """What one anchor may be asked for, N.

    `lasting`: share of it for what stays for good. `problem`: why it holds nothing here.
    """

    anchor: Anchor | None
    substrate: Substrate
    pull_n: float
    shear_n: float
    lasting: float
    problem: str
    unknown: tuple[str, ...]
    pull_steps: tuple[Step, ...] = ()
    shear_steps: tuple[Step, ...] = ()

    @property
    def stiffness_n_per_mm(self) -> float:
        """How hard it resists being pulled: its allowable pull over its give."""
        return self.pull_n / self.anchor.give_mm if self.anchor else 0.0

    def cautions(self) -> list[Message]:
        """What to mind when it goes in."""
        if self.anchor is None or self.problem:
            return [Message("{why}", {"why": self.problem})]
        if self.anchor.kind == "steel_screw":
            return [
                Message(
                    "Drive slowly until it bites the steel, then stop: once stripped it holds "
                    "nothing."
                )
            ]
        if self.substrate.hollow:
            return [Message("Between studs: nothing but the lining holds here. Snug, not crushed.")]
        found = [
            Message("Drill square, without hammer in hollow units, and clear the hole of dust.")
        ]
        if self.substrate.base in ("block_hollow", "brick_hollow", "aerated_2", "aerated_4"):
            said = (
                "A joint or a broken cell holds less: if the bit falls through or it crumbles, "
                "stop and move the hole."
            )
            found.append(Message(said))
        return found


def anchor_of(wall: Wall, key: str) -> Anchor:
    """An anchor by key: one of the wall's own packets, else a row of the table."""
    packet = next((packet for packet in wall.packets if packet.key == key), None)
    return packet.anchor if packet else data.anchors()[key]


def suits(anchor: Anchor, base: str) -> bool:
    """Whether anything is known of what an anchor holds in a base."""
    return base in anchor.holds_n


def base_name(base: str) -> str:
    """What a base is called."""
    return data.structures()[base].name if base in data.structures() else data.linings()[base].short


def lining_base(wall: Wall, anchor: Anchor | None) -> str:
    """Key of the layer that an anchor sits in between studs.

    Of those it is known to hold in, the best; else the innermost.
    """
    if wall.layers is None:
        return _BEST_LINING
    kinds = [layer.kind for layer in wall.layers]
    if anchor is not None and (known := [kind for kind in kinds if suits(anchor, kind)]):
        return max(known, key=lambda kind: anchor.holds_n[kind].pull)
    return kinds[-1] if kinds else ""


def anchor_capacity(wall: Wall, key: str | None, substrate: Substrate) -> AnchorCapacity:
    """What an anchor holds at a site.

    Args:
        wall: it sits in.
        key: of the anchor; None when nobody has chosen one.
        substrate: where exactly.
    """
    unknown = (ASK_LINING,) if wall.layers is None else ()
    if not substrate.base:
        return AnchorCapacity(
            None,
            substrate,
            0.0,
            0.0,
            1.0,
            "Between bare studs there is nothing to hold an anchor.",
            unknown,
        )
    name = base_name(substrate.base)
    if key is None:
        why = (
            f"There is no wood in {name}: a screw alone does not hold. Choose what holds it, "
            f"such as {_nearest(substrate.base)}."
        )
        return AnchorCapacity(None, substrate, 0.0, 0.0, 1.0, why, unknown)
    anchor = anchor_of(wall, key)
    if not suits(anchor, substrate.base):
        if not any(suits(each, substrate.base) for each in data.anchors().values()):
            ask = (
                f"what {anchor.name} holds in {name}: its packet may state it, else ask for a "
                "test pull."
            )
            return AnchorCapacity(anchor, substrate, 0.0, 0.0, 1.0, "", (*unknown, ask))
        return AnchorCapacity(
            anchor,
            substrate,
            0.0,
            0.0,
            1.0,
            f"{_capital(anchor.name)} does not hold in {name}; {_nearest(substrate.base)} does.",
            unknown,
        )
    stated = anchor.holds_n[substrate.base]
    if substrate.base == "concrete" and not stated.pull:
        judge = in_concrete.european if wall.design_code == "european" else in_concrete.american
        pull, shear = judge(anchor, substrate)
    elif anchor.kind == "steel_screw":
        pull, shear = _in_sheet(anchor, data.structures()[substrate.base].steel_mm or 0.0)
    else:
        pull, shear = _by_class(anchor, substrate, name)
    if substrate.gap_mm > 0 and not substrate.hollow:
        shear = _across(anchor, substrate.gap_mm, shear)
    return AnchorCapacity(
        anchor,
        substrate,
        pull[-1].result.value,
        shear[-1].result.value,
        anchor.lasting if substrate.hollow else 1.0,
        "",
        unknown,
        tuple(pull),
        tuple(shear),
    )


def _capital(words: str) -> str:
    return words[:1].upper() + words[1:]


def usual(base: str) -> str | None:
    """The middle size of what is usual in a base.

    Plugs in masonry, screws in sheet steel, else anything known to hold there.
    """
    fitting = [key for key, row in data.anchors().items() if suits(row, base)]
    first = [key for key in fitting if data.anchors()[key].kind in ("plug", "steel_screw")]
    return next(iter((first or fitting)[1:2] or fitting), None)


def _nearest(base: str) -> str:
    key = usual(base)
    return data.anchors()[key].name if key else "what a test pull has proved"


def _by_class(anchor: Anchor, substrate: Substrate, name: str) -> tuple[list[Step], list[Step]]:
    stated = anchor.holds_n[substrate.base]
    share = crowding(anchor, substrate)
    crowd = Step("k", "share of its patch, with screws so near", Quantity(share, "ratio"))
    return (
        [
            Step(
                "T_0",
                f"what {anchor.name} may be pulled with in {name}",
                Quantity(stated.pull, "force"),
            ),
            crowd,
            Step("T_a", "k T_0", Quantity(stated.pull * share, "force")),
        ],
        [
            Step(
                "V_0", f"what {anchor.name} may carry along {name}", Quantity(stated.shear, "force")
            ),
            crowd,
            Step("V_a", "k V_0", Quantity(stated.shear * share, "force")),
        ],
    )


def crowding(anchor: Anchor, substrate: Substrate) -> float:
    """Anchors side by side, whatever support they belong to, share one patch (house rule).

    Half each when they touch.
    """
    share = 1.0
    for apart in (*substrate.apart_mm, *substrate.beside_mm):
        share *= min(0.5 + 0.5 * apart / anchor.spacing_mm, 1.0)
    return share


def _in_sheet(anchor: Anchor, sheet_mm: float) -> tuple[list[Step], list[Step]]:
    d, omega = anchor.screw_mm, sheet_steel.OMEGA
    pull, tilt, bear = (
        f(sheet_mm, d)
        for f in (sheet_steel.pull_out_n, sheet_steel.tilting_n, sheet_steel.bearing_n)
    )
    given = [
        Step("t", "sheet of the stud", Quantity(sheet_mm, "fine")),
        Step("d", "screw", Quantity(d, "fine")),
        Step("F_u", "strength of the sheet", Quantity(sheet_steel.SHEET_FU_MPA, "stress")),
    ]
    return (
        [
            *given,
            Step("P_not", "0.85 t d F_u", Quantity(pull, "force")),
            Step("T_a", "P_not / 3.0", Quantity(pull / omega, "force")),
        ],
        [
            *given,
            Step("P_tilt", "4.2 √(t³ d) F_u", Quantity(tilt, "force")),
            Step("P_bear", "2.7 t d F_u", Quantity(bear, "force")),
            Step("V_a", "the lesser / 3.0", Quantity(min(tilt, bear) / omega, "force")),
        ],
    )


def _across(anchor: Anchor, gap_mm: float, shear: list[Step]) -> list[Step]:
    """Across soft layers the screw bends before it shears.

    2 M_p over the lever (EN 1992-4 7.2.2.3.2's lever arm), over three.
    """
    d = anchor.screw_mm * CORE_SHARE
    plastic, lever = _FYB_MPA * d**3 / 6, gap_mm + anchor.screw_mm / 2
    bent = 2 * plastic / lever / sheet_steel.OMEGA
    return [
        *shear,
        Step("M_p", "F_yb d³ / 6 of the screw's core", Quantity(plastic, "moment")),
        Step("l", "soft layers plus half a diameter", Quantity(lever, "fine")),
        Step("V_b", "2 M_p / l / 3.0, bending across them", Quantity(bent, "force")),
        Step("V_a'", "the lesser", Quantity(min(bent, shear[-1].result.value), "force")),
    ]
