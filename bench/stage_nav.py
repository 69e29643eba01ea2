"""The story stick.

The stages of a wall's work, how each stands, and what the panel of each can show.
"""

from typing import TYPE_CHECKING

from trade import wording
from trade.cutting.parts import count_parts
from trade.measure import many

if TYPE_CHECKING:
    from bench.desk import Desk

HELPERS = ("mark", "hang")  # stages that a helper may look at
STAGES = ("survey", "load", "fix", "mark", "cut", "hang", "record")
LOOKS: dict[str, tuple[tuple[str, str, str], ...]] = {
    "fix": (
        ("", "Checks", "Every check, worst first"),
        ("ways", "Ways", "Other ways to hang it, compared"),
        ("where", "Where", "Where else it could hang, and what it would carry there"),
        ("if", "What if", "What gives way first when more is put on it"),
        ("policy", "Job", "How this job is done: what is trusted, what matters"),
    ),
    "cut": (
        ("", "Saw", "Every board and sheet with its cuts"),
        ("parts", "Parts", "What is done to each part, and what is measured first"),
        ("stock", "Stock", "What is at hand, what is left over, what else to cut"),
        ("buy", "Buy", "What to buy, and what it costs"),
        ("days", "Days", "The finish, and when it can hang and be loaded"),
    ),
    "record": (
        ("", "As built", "What really went in, and whether that holds"),
        ("proof", "Proof", "A load that proves it, and what was read"),
        ("look", "Looked at", "How it held, and when to look again"),
    ),
}  # what the panel of a stage shows, its first look named by nothing


def stage_nav(desk: "Desk") -> list[dict[str, str]]:
    """The story stick: every stage that is built, and how it stands."""
    plan, verdict = desk.plan, desk.verdict
    unsure = plan.wall.layers is None or (plan.wall.build != "mass" and not plan.wall.uprights)
    found = (
        "masonry"
        if plan.wall.build == "mass"
        else f"{len(plan.wall.uprights)} stud{'' if len(plan.wall.uprights) == 1 else 's'}"
    )
    unloaded = sum(
        not piece.things or any(t.mass_kg is None for t in piece.things) for piece in plan.pieces
    )
    words = [piece.outcome for piece in verdict.pieces]
    counts = [
        (words.count(word), wording.WORDS[word].lower())
        for word in ("doesnt_fit", "wont_hold", "close", "cannot_tell")
    ]
    trouble = ", ".join(f"{n} {word}" for n, word in counts if n)
    fails = "trouble" if any(n for n, _ in counts[:3]) else "waiting"
    ready = desk.piece_verdict is not None and not desk.piece_verdict.fails
    sawn = count_parts(plan)
    states = {
        "survey": ("waiting", "ask more") if unsure else ("done", found),
        "load": ("waiting", "nothing yet")
        if not words
        else ("waiting", f"{unloaded} to weigh")
        if unloaded
        else ("done", "done"),
        "fix": ("waiting", "nothing yet")
        if not words
        else (fails, trouble)
        if trouble
        else ("done", "all hold"),
        "mark": ("done", many(desk.wall_holes, "hole"))
        if ready
        else ("waiting", "not yet" if words else "nothing yet"),
        "cut": ("done" if ready else "waiting", many(sawn, "part") if sawn else "none")
        if words
        else ("waiting", "nothing yet"),
    }
    done = {each.piece for each in plan.as_built.done if each.step == "close"}
    begun = {each.piece for each in plan.as_built.done} | {
        hole.piece for hole in plan.as_built.drilled
    }
    hung = sum(piece.key in done for piece in plan.pieces)
    states["hang"] = (
        ("done", "all hang")
        if words and hung == len(words)
        else (
            "waiting",
            f"{hung} of {len(words)} hang"
            if hung or begun
            else "not yet"
            if words
            else "nothing yet",
        )
    )
    recorded = sum(plan.as_built.as_hung(piece.key) is not None for piece in plan.pieces)
    loose = {look.piece: look.held for look in plan.as_built.looks}
    moved = sum(loose.get(piece.key) in ("loose", "off") for piece in plan.pieces)
    states["record"] = (
        ("trouble", f"{moved} loose")
        if moved
        else ("done", "all recorded")
        if words and recorded == len(words)
        else (
            "waiting",
            f"{recorded} of {len(words)}" if recorded else "not yet" if words else "nothing yet",
        )
    )
    return [
        {
            "stage": stage,
            "name": stage.capitalize(),
            "state": states[stage][0],
            "note": states[stage][1],
            "key": str(n),
        }
        for n, stage in enumerate(STAGES, start=1)
        if stage in HELPERS or not desk.helping
    ]
