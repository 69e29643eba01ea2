"""What the trade says on paper and in a shell: verdicts, surveys, marks, kinds, single fixings, full sums."""

import msgspec

from trade import data, say
from trade.check import LIMITS, Check, PieceVerdict, Quantity, Verdict, worst
from trade.choose.order import order
from trade.choose.samples import sample, sample_wall
from trade.fixings import wood
from trade.fixings.driving import reach
from trade.fixings.held import Held
from trade.load.shelf import ShelfLoad
from trade.mark.marks import Mark
from trade.mark.reading import read, say_across, say_datum, say_up
from trade.measure import Units, say_bit, say_gap, say_length, say_weight
from trade.mounts import ALL
from trade.notes import word_of
from trade.plan import AnyPiece, Plan
from trade.wall.survey import Survey


def as_json_text(what: object) -> str:
    """Anything as indented JSON."""
    return msgspec.json.format(msgspec.json.encode(what), indent=2).decode()


def as_json(verdict: Verdict) -> dict[str, object]:
    """A verdict with its words and utilisations, ready to be written."""

    def of_check(check: Check) -> dict[str, object]:
        return {"word": check.word, "utilisation": check.utilisation, **msgspec.structs.asdict(check)}

    def of_piece(piece: PieceVerdict) -> dict[str, object]:
        return {
            "key": piece.key, "name": piece.name, "word": piece.word, "but": piece.but, "used": piece.used,
            "limits": {limit: worst(check.word for check in piece.of(limit)) for limit in LIMITS}, "find_out": piece.unknown,
            "assumptions": piece.assumptions, "checks": [of_check(check) for check in piece.checks],
        }  # fmt: skip

    return {"word": verdict.word, "pieces": [of_piece(piece) for piece in verdict.pieces]}


def as_text(verdict: Verdict, units: Units) -> str:
    """A verdict to read: a headline per piece, then its checks, worst first."""
    lines = [f"{say.WORDS[verdict.word]}." if verdict.pieces else "Nothing hangs on this wall yet."]
    for piece in verdict.pieces:
        lines += ["", f"{piece.name}: {say.outcome(piece)}. {say.headline(piece, units)}"]
        lines += [f"  {each.name}: {each.said}" for each in say.standings(piece)]
        for check in piece.checks:
            used = say.utilisation(check.utilisation)
            said = f"{': '.join(filter(None, (check.name, say.check_line(check, units))))} ({check.part}; {check.case})"
            lines.append(f"  {used:>5}  {say.WORDS[check.word]:<11}  {said}")
        lines += [f"  Find out: {ask}" for ask in piece.unknown]
        lines += [f"  Assumed: {assumption.text}" for assumption in piece.assumptions]
    return "\n".join(lines)


def survey_as_json(known: Survey) -> dict[str, object]:
    """What readings amount to, with the words of each stud's confidence, ready to be written."""
    found = known.inference
    return {
        "masonry": known.masonry, "lining_mm": known.lining_mm, "ask_mm": found.ask_mm,
        "studs": [{**stud._asdict(), "confidence": stud.confidence} for stud in found.studs],
        "others": [other._asdict() for other in found.others], "grid": found.grid._asdict() if found.grid else None,
        "rejected": [{"reading": i, "why": why} for i, why in found.rejected],
        "contradictions": [each._asdict() for each in known.contradictions],
    }  # fmt: skip


def survey_as_text(known: Survey, plan: Plan, units: Units) -> str:
    """What readings amount to, to read."""
    found, readings = known.inference, plan.wall.readings

    def jotted(these: tuple[int, ...]) -> str:
        return ", ".join(word_of(readings[i], units) for i in these)

    lines = [known.masonry] if known.masonry else []
    for stud in found.studs:
        kind = "doubled stud" if stud.kind == "double" else "stud"
        place = f"{say_length(stud.centre_mm, units)} ± {say_gap(stud.reach_mm, units)}"
        lines.append(f"{stud.confidence:<9} {kind} at {place}, {say.chance(stud.probability)}: {'; '.join(stud.reasons)}")
    lines += [f"rather a {other.kind} at {say_length(other.centre_mm, units)}" for other in found.others]
    lines += [
        f"contradiction at {say_length(c.at_mm, units)}: {jotted(c.for_it)} against {jotted(c.against)}"
        for c in known.contradictions
    ]
    lines += [f"not counted: {jotted((i,))}, for {why}" for i, why in found.rejected]
    lines += [say.phrase(doubt, units) for doubt in known.doubts]
    if found.ask_mm is not None:
        lines.append(f"next: push a thin nail in at {say_length(found.ask_mm, units)}")
    return "\n".join(lines) or "The readings make no stud likely."


def marks_as_text(plan: Plan, made: dict[str, tuple[Mark, ...]], verdict: Verdict, units: Units) -> str:
    """Where to drill, piece by piece, from the plan's datum; what must not be drilled yet says so first."""
    lines = [say_datum(plan.datum, units)]
    for piece in plan.pieces:
        lines += [piece.name, *stop(verdict.piece(piece.key), units)]
        lines += [f"  {mark.number:>3}  {_mark_line(mark, piece, plan, units)}" for mark in made[piece.key]]
    return "\n".join(lines)


def stop(verdict: PieceVerdict, units: Units) -> list[str]:
    """Why a piece must not be drilled for yet, as a line to begin with; none where it holds."""
    if not verdict.fails:
        return []
    return [f"{say.outcome(verdict)}: {say.headline(verdict, units)} Don't drill yet."]


def _mark_line(mark: Mark, piece: AnyPiece, plan: Plan, units: Units) -> str:
    """One hole in words."""
    at = read(plan.datum, piece, plan.wall, mark.x_mm, mark.y_mm)
    up = say_up(at, plan.datum, units)
    place = f"{say_across(at, plan.datum, units)} across, {up}{' up' if plan.datum.line_mm is None else ''}"
    if mark.where == "shelf":
        place = f"{say_length(mark.x_mm, units)} from its left end, {say_length(mark.y_mm, units)} above its underside"
    bit = f"{say_bit(mark.bit_mm, units) if mark.bit_mm else 'no'} bit, {say_length(mark.depth_mm, units)} deep"
    if mark.where == "shelf":
        return f"in its own back, {mark.part}: {place}; {bit}"
    return f"{mark.part}: {place}; {bit}; {mark.fixing}"


def rules_chapter() -> str:
    """The handbook's chapter on the rules, from the tables: every check, then every number of ours."""
    lines = [
        "# The rules",
        "",
        "Printed by `python -m trade rules` from the tables; do not edit by hand.",
        "",
        "## Checks",
        "",
    ]
    for code, rule in data.rules().items():
        limit = f"{rule.limit}: “{rule.but}”" if rule.but else rule.limit
        lines += [f"### {rule.name}", "", f"`{code}`, {limit}. {rule.rule}", "", f"Source: {rule.source}.", ""]
    lines += [
        "## Whose push",
        "",
        "| class | share of the use's push | at least | why | source |",
        "| --- | --- | --- | --- | --- |",
    ]
    lines += [
        f"| {row.name} | {row.share:g} | {f'{row.least_n:g} N' if row.least_n else ''} | {row.reason} | {row.source} |"
        for row in data.pushes().values()
    ]
    lines += ["", "| use | factor on contents | push | source |", "| --- | --- | --- | --- |"]
    lines += [f"| {row.name} | {row.factor:g} | {row.push_n:g} N | {row.source} |" for row in data.uses().values()]
    lines += [""]
    lines += ["## Numbers of the house", "", "| number | value | meaning | source |", "| --- | --- | --- | --- |"]
    lines += [f"| `{key}` | {row.value:g} | {row.meaning} | {row.source} |" for key, row in data.house_rules().items()]
    return "\n".join(lines)


def kinds() -> list[dict[str, object]]:
    """Every kind of mounting: its key, name, what holds it, and its own inputs."""
    return [
        {
            "kind": mount.kind, "name": mount.name, "held_at": mount.support_noun,
            "inputs": [{"field": ask.field, "label": ask.label, "how": ask.how} for ask in mount.asks],
        }
        for mount in ALL
    ]  # fmt: skip


def kinds_as_text() -> str:
    """Every kind of mounting, a line each."""
    return "\n".join(f"{mount.kind:<14} {mount.name}" for mount in ALL)


def kinds_chapter() -> str:
    """The handbook's chapter on the kinds: how each carries, what gives way first, what people get wrong."""
    lines = [
        "# Ways to hang it",
        "",
        "Printed by `python -m trade kinds --chapter`; do not edit by hand. The application shows the",
    ]
    lines += [
        "same at `/kinds/`, with drawings. Worked out on gypsum board over spruce studs 400 mm apart, with 6 kg on each.",
        "",
    ]
    for mount in ALL:
        piece, wall = sample(mount.kind), sample_wall()
        lines += [f"## {mount.name}", "", f"`{mount.kind}`. " + mount.how, "", "First to give way:", ""]
        first = order(piece, wall)[:3]
        lines += [f"{n}. {each.name}, at {each.factor:.1f} times the load" for n, each in enumerate(first, start=1)]
        lines += ["", "What people get wrong:", ""]
        lines += [f"- {say.phrase(phrase, 'metric')}" for phrase in mount.cautions(piece, wall)]
        lines.append("")
    return "\n".join(lines).rstrip()


def screw_capacity(screw_key: str, length_mm: float, stud: str, gap_mm: float) -> dict[str, object]:
    """What one screw under 3 mm of steel holds in a stud, N: pulled, and along the wall, for years and for minutes.

    Args:
        screw_key: a row of the screws table.
        length_mm: its length.
        stud: a row of the framing table.
        gap_mm: lining that bears nothing.

    Raises:
        UnknownRowError: no such row.
    """
    screw, timber = data.row(data.screws(), screw_key, "screw"), data.row(data.framing(), stud, "stud timber")
    side = wood.steel_side(3.0)
    where = reach(screw, length_mm, side.thickness_mm + gap_mm)
    pull = wood.withdrawal_n_per_mm(screw, timber.g) * where.thread_mm
    bearing = wood.bearing_length_mm(where.penetration_mm, screw.diameter_mm, screw.tip_mm)
    fe = wood.bearing_strength_mpa(timber.g, screw.diameter_mm)
    found = wood.lateral(wood.dowel(screw), side, gap_mm, fe, bearing) if bearing > 0 else None
    shear, years, minutes = found.value_n if found else 0.0, data.house("duration_years"), data.house("duration_minutes")
    return {
        "fixing": screw.name_metric, "in": timber.name, "thread_mm": where.thread_mm, "penetration_mm": where.penetration_mm,
        "pull_years_n": pull * years, "pull_minutes_n": pull * minutes, "shear_years_n": shear * years,
        "shear_minutes_n": shear * minutes, "mode": found.mode if found else None,
        "source": "NDS 2018 12.2; AWC TR12-2018 with the lining as a gap; C_D 0.9 and 1.6",
    }  # fmt: skip


def anchor_capacity(held: Held) -> dict[str, object]:
    """What one anchor holds, N, for years and for minutes; `problem`: why it holds nothing."""
    name = held.anchor.name if held.anchor else ""
    return {
        "fixing": name, "in": held.site.base, "problem": held.problem, "find_out": held.unknown,
        "pull_years_n": held.pull_n * held.lasting, "pull_minutes_n": held.pull_n, "shear_years_n": held.shear_n * held.lasting,
        "shear_minutes_n": held.shear_n, "source": held.anchor.source if held.anchor else "",
    }  # fmt: skip


def capacity_as_text(found: dict[str, object], units: Units) -> str:
    """A single fixing's capacity, to read; a force as the weight that it holds."""
    if found.get("problem"):
        return str(found["problem"])
    lines = [f"{found['fixing']} in {found['in']}"]
    for key, what in (("pull", "pulled out"), ("shear", "along the wall")):
        years, minutes = (say_weight(float(str(found[f"{key}_{when}_n"])) / 9.80665, units) for when in ("years", "minutes"))
        lines.append(f"  {what}: {years} for years, {minutes} for minutes")
    lines += [f"  Find out: {ask}" for ask in found.get("find_out", ())]  # type: ignore[attr-defined]
    return "\n".join([*lines, f"  Source: {found['source']}"])


def sag_of(load: ShelfLoad) -> dict[str, float]:
    """How far a shelf's board sags on the first day and over the years, mm, with the limit for its span."""
    now, later = load.sag(0.0), load.sag(1.0, data.house("steady_share"))
    return {
        "first_day_mm": now.sag_mm, "years_mm": later.sag_mm, "span_mm": later.span_mm,
        "limit_mm": later.span_mm / data.house("sag_limit"), "eye_mm": later.span_mm / data.house("sag_eye_limit"),
    }  # fmt: skip


def sag_as_text(found: dict[str, float], units: Units) -> str:
    """A shelf's sag, to read."""
    said = {key: say.quantity(Quantity(value, "fine"), units) for key, value in found.items()}
    return (
        f"first day {said['first_day_mm']}, over the years {said['years_mm']}; "
        f"limit {said['limit_mm']} for a span of {say_length(found['span_mm'], units)}; the eye sees {said['eye_mm']}"
    )


def explain(verdict: PieceVerdict, units: Units, code: str | None = None) -> str:
    """Every check of a piece, or one, as a hand calculation: symbols, numbers, units, rule and source."""
    lines = [f"{verdict.name}: {say.outcome(verdict)}. {say.headline(verdict, units)}"]
    lines += [f"Assumed: {each.text}" for each in verdict.assumptions]
    lines += [f"Not known: {ask}" for ask in verdict.unknown]
    for check in verdict.checks:
        if code in (None, check.code):
            lines += ["", f"{check.name} ({check.code}), {check.part}, {check.case}: {say.WORDS[check.word]}"]
            lines += [f"  {step.symbol:<14} {say.quantity(step.result, units):<14} {step.formula}" for step in check.steps]
            line = say.check_line(check, units)
            lines.append(f"  {line}: {say.utilisation(check.utilisation)}" if line else f"  {say.phrase(check.sentence, units)}")
            lines += [f"  {check.rule}", f"  Source: {check.source}."]
    return "\n".join(lines)
