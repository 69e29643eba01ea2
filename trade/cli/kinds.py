"""`kinds`: the kinds of mounting, and the handbook's chapter on them."""

import argparse

from trade import wording
from trade.choose.order import order
from trade.choose.samples import sample, sample_wall
from trade.cli import common
from trade.mounts import ALL
from trade.plan.model import Plan


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    common.add_output_options(parser)
    parser.add_argument(
        "--chapter", action="store_true", help="print the handbook's chapter on them"
    )


def kinds(asked: argparse.Namespace) -> int:
    """List the kinds of mounting."""
    common.print_result(
        asked, kinds_as_json(), kinds_chapter() if asked.chapter else kinds_as_text()
    )
    return 0


def kinds_as_json() -> list[dict[str, object]]:
    """Every kind of mounting: its key, name, what holds it, and its own inputs."""
    return [
        {
            "kind": mount.kind,
            "name": mount.name,
            "held_at": mount.support_noun,
            "inputs": [
                {"field": ask.field, "label": ask.label, "how": ask.how} for ask in mount.asks
            ],
        }
        for mount in ALL
    ]


def kinds_as_text() -> str:
    """Every kind of mounting, a line each."""
    return "\n".join(f"{mount.kind:<14} {mount.name}" for mount in ALL)


def kinds_chapter() -> str:
    """Return the handbook's chapter on the kinds.

    How each carries, what gives way first, what people get wrong.
    """
    lines = [
        "# Ways to hang it",
        "",
        "Printed by `python -m trade kinds --chapter`; do not edit by hand. The application shows "
        "the",
    ]
    lines += [
        "same at `/kinds/`, with drawings. Worked out on gypsum board over spruce studs 400 mm "
        "apart, with 6 kg on each.",
        "",
    ]
    for mount in ALL:
        piece, wall = sample(mount.kind), sample_wall()
        lines += [
            f"## {mount.name}",
            "",
            f"`{mount.kind}`. " + mount.how,
            "",
            "First to give way:",
            "",
        ]
        first = order(piece, Plan(name="Wall", units="metric", wall=wall), 3)
        lines += [
            f"{n}. {each.name}, at {each.factor:.1f} times the load"
            for n, each in enumerate(first, start=1)
        ]
        lines += ["", "What people get wrong:", ""]
        lines += [f"- {wording.phrase(phrase, 'metric')}" for phrase in mount.cautions(piece, wall)]
        lines.append("")
    return "\n".join(lines).rstrip()
