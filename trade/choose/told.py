"""What the judgement says in a shell: ways to hang something, cures."""

from typing import Any

from trade import data, say
from trade.choose.cures import Cure
from trade.choose.ways import Ways
from trade.measure import Units, many, say_length
from trade.mounts import KINDS


def ways_as_json(found: Ways) -> dict[str, Any]:
    """Ways with their pieces, ready to be put into a plan; and why not, in words."""
    return {
        "wish": found.wish, "tried": found.tried,
        "found": [{"kind": way.kind, "hold": way.hold, "word": way.word, "but": way.but, "used": way.used,
                   "effort": way.effort._asdict(), "demerit": way.demerit, "piece": way.piece} for way in found.found],
        "refused": [{"kind": no.kind, "reason": say.phrase(no.reason, "metric")} for no in found.refused],
    }  # fmt: skip


def ways_as_text(found: Ways, units: Units) -> str:
    """Ways to hang something, to read: the best first, then why not."""
    lines = [] if found.found else [f"No way to hang “{found.wish.name}” there."]
    for way in found.found:
        effort, piece = way.effort, way.piece
        lines.append(f"{say.outcome_used(way)}: {KINDS[way.kind].name}")
        lines.append(f"    {' '.join(say.phrase(reason, units) for reason in way.reasons)}")
        tools = ", ".join(data.tools()[tool].name for tool in effort.tools)
        where = f"{say_length(piece.left_mm, units)} from the left, {say_length(piece.length_mm, units)} long"
        taken = f"{many(effort.holes, 'hole')}, about {effort.cost:.0f} of money, {many(round(effort.minutes), 'minute')}"
        lines.append(f"    {where}; {taken}{', ' + tools if tools else ''}")
    lines += [f"Not: {KINDS[no.kind].name}. {say.phrase(no.reason, units)}" for no in found.refused]
    return "\n".join(lines)


def cures_as_text(found: tuple[Cure, ...], units: Units) -> str:
    """What would cure a piece, to read."""
    if not found:
        return "Nothing to cure, or no change that mends it."
    return "\n".join(f"{say.outcome_used(c)}: {say.phrase(c.label, units)}" for c in found)
