"""What one anchor holds where it sits.

By its class, by the concrete around it, or by the sheet of a steel stud.
"""

from typing import NamedTuple

from trade import data
from trade.calculation import Calculation, Equation
from trade.check import Message
from trade.data import Anchor
from trade.fixings import in_concrete, sheet_steel
from trade.fixings.substrate import CORE_SHARE, Substrate
from trade.language import compose
from trade.measure import PSI_MPA
from trade.memo import memoized
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
    pull_equations: tuple[Equation, ...] = ()
    shear_equations: tuple[Equation, ...] = ()

    @property
    def worth(self) -> tuple[object, ...]:
        """What a load on it is set against, however that came about."""
        return self.anchor, self.pull_n, self.shear_n, self.lasting

    @property
    def stiffness_n_per_mm(self) -> float:
        """How hard it resists being pulled: its allowable pull over its give."""
        return self.pull_n / self.anchor.give_mm if self.anchor else 0.0

    def cautions(self) -> list[Message]:
        """Return what to mind when it goes in."""
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
    """Return an anchor by key: one of the wall's own packets, else a row of the table."""
    packet = next((packet for packet in wall.packets if packet.key == key), None)
    return packet.anchor if packet else data.anchors()[key]


def suits(anchor: Anchor, base: str) -> bool:
    """Whether anything is known of what an anchor holds in a base."""
    return base in anchor.holds_n


def base_name(base: str) -> str:
    """Return what a base is called."""
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


@memoized(limit=1_000)
def anchor_capacity(wall: Wall, key: str | None, substrate: Substrate) -> AnchorCapacity:
    """Return what an anchor holds at a site.

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
        why = compose(
            "{name!c} has no wood: a screw alone does not hold. Choose an anchor, such as "
            "{nearest}.",
            name=name,
            nearest=_nearest(substrate.base),
        )
        return AnchorCapacity(None, substrate, 0.0, 0.0, 1.0, why, unknown)
    anchor = anchor_of(wall, key)
    if not suits(anchor, substrate.base):
        if not any(suits(each, substrate.base) for each in data.anchors().values()):
            ask = compose(
                "what {anchor} holds in {name}: its packet may state it, else ask for a test pull.",
                anchor=anchor.name,
                name=name,
            )
            return AnchorCapacity(anchor, substrate, 0.0, 0.0, 1.0, "", (*unknown, ask))
        return AnchorCapacity(
            anchor,
            substrate,
            0.0,
            0.0,
            1.0,
            compose(
                "{anchor!c} does not hold in {name}; {nearest} does.",
                anchor=anchor.name,
                name=name,
                nearest=_nearest(substrate.base),
            ),
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
        _write_across(shear, anchor, substrate.gap_mm)
    return AnchorCapacity(
        anchor,
        substrate,
        pull.quantity("T_a").value,
        shear.equations[-1].result.value,
        anchor.lasting if substrate.hollow else 1.0,
        "",
        unknown,
        tuple(pull.equations),
        tuple(shear.equations),
    )


def usual(base: str) -> str | None:
    """Return the middle size of what is usual in a base.

    Plugs in masonry, screws in sheet steel, else anything known to hold there.
    """
    fitting = [key for key, row in data.anchors().items() if suits(row, base)]
    first = [key for key in fitting if data.anchors()[key].kind in ("plug", "steel_screw")]
    return next(iter((first or fitting)[1:2] or fitting), None)


def _nearest(base: str) -> str:
    key = usual(base)
    return data.anchors()[key].name if key else "what a test pull has proved"


def _by_class(anchor: Anchor, substrate: Substrate, name: str) -> tuple[Calculation, Calculation]:
    stated, share = anchor.holds_n[substrate.base], crowding(anchor, substrate)
    pull, shear = Calculation(), Calculation()
    pull.given(
        "T_0",
        stated.pull,
        "force",
        compose("what {anchor} may be pulled with in {name}", anchor=anchor.name, name=name),
    )
    shear.given(
        "V_0",
        stated.shear,
        "force",
        compose("what {anchor} may carry along {name}", anchor=anchor.name, name=name),
    )
    for sums in (pull, shear):
        sums.given("k", share, "ratio", "share of its patch, with screws so near")
    pull.then("T_a", "k T_0", "force")
    shear.then("V_a", "k V_0", "force")
    return pull, shear


def crowding(anchor: Anchor, substrate: Substrate) -> float:
    """Anchors side by side, whatever support they belong to, share one patch (house rule).

    Half each when they touch.
    """
    share = 1.0
    for apart in (*substrate.apart_mm, *substrate.beside_mm):
        share *= min(0.5 + 0.5 * apart / anchor.spacing_mm, 1.0)
    return share


def _in_sheet(anchor: Anchor, sheet_mm: float) -> tuple[Calculation, Calculation]:
    pull, shear = Calculation(), Calculation()
    for sums in (pull, shear):
        sums.given("t", sheet_mm, "fine", "sheet of the stud")
        sums.given("d", anchor.screw_mm, "fine", "screw")
        sums.given("F_u", sheet_steel.SHEET_FU_MPA, "stress", "strength of the sheet")
        sums.given("Ω", sheet_steel.OMEGA, "ratio", "safety factor")
    pull.then("P_not", sheet_steel.PULL_OUT.text, "force", "the thread pulls out")
    pull.then("T_a", "P_not / Ω", "force")
    shear.then("P_tilt", sheet_steel.TILTING.text, "force", "it tilts")
    shear.then("P_bear", sheet_steel.BEARING.text, "force", "the hole bears")
    shear.then("V_a", "min(P_tilt, P_bear) / Ω", "force")
    return pull, shear


def _write_across(shear: Calculation, anchor: Anchor, gap_mm: float) -> None:
    """Write how a screw bends across soft layers before it shears.

    2 M_p over the lever (EN 1992-4 7.2.2.3.2's lever arm), over three.
    """
    shear.given("g", gap_mm, "fine", "gap: lining that bears nothing")
    shear.given("d_s", anchor.screw_mm, "fine", "diameter of the screw")
    shear.then("d_c", f"{CORE_SHARE} d_s", "fine", "its core")
    shear.given("F_yb", _FYB_MPA, "stress", "bending yield of the screw")
    shear.then("M_p", "F_yb d_c³ / 6", "moment", "at which it yields")
    shear.then("l", "g + d_s / 2", "fine", "soft layers and half a diameter")
    shear.given("Ω_b", sheet_steel.OMEGA, "ratio", "safety factor")
    shear.then("V_b", "2 M_p / l Ω_b", "force", "bending across them")
    shear.then("V_ab", "min(V_a, V_b)", "force", "the less")
