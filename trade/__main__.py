"""The trade from a shell: `python -m trade assess plan.json`."""

import argparse
import functools
import sys
from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from trade import data, planfile, telling
from trade.assess import assess
from trade.check import Word, worst
from trade.choose import everyday, told
from trade.choose.cures import cures
from trade.choose.ways import ways
from trade.choose.wish import amount_of, wish_for, wish_of
from trade.cut.plan import cut_plan
from trade.cut.shopping import shopping
from trade.errors import TradeError
from trade.fixings.held import held
from trade.fixings.site import Site
from trade.job import told as job_told
from trade.job.days import schedule
from trade.job.steps import steps
from trade.load.shelf import ShelfLoad
from trade.mark.marks import piece_marks
from trade.measure import Units, read_length, read_weight
from trade.plan import BracketShelf, Plan, Thing, Wall
from trade.wall.survey import survey

EXIT: dict[Word, int] = {"holds": 0, "holds_but": 0, "close": 0, "wont_hold": 1, "cannot_tell": 2, "doesnt_fit": 4}
BAD_FILE = 3
_FAR_MM = 1e6


def main(argv: list[str] | None = None) -> int:
    """Run one command. Its exit status: 0 holds, 1 won't hold, 2 can't tell, 3 bad file or bad words, 4 doesn't fit."""
    asked = _parser().parse_args(argv)
    try:
        return int(_COMMANDS[asked.command](asked))
    except OSError as error:
        print(f"{asked.plan}: can't be read ({error.strerror}).", file=sys.stderr)
        return BAD_FILE
    except TradeError as error:
        where, plan = getattr(error, "where", ""), getattr(asked, "plan", "")
        print(f"{plan + ': ' if plan else ''}{where + ': ' if where else ''}{error}", file=sys.stderr)
        return BAD_FILE


@functools.cache
def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m trade", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)

    def command(name: str, what: str, units: str | None = None) -> argparse.ArgumentParser:
        made = commands.add_parser(name, help=what)
        made.add_argument("--json", action="store_true", help="print the whole result as JSON")
        made.add_argument("--units", choices=("imperial", "metric"), default=units, help="print and read in these units")
        return made

    for name, what in (
        ("assess", "judge a plan"), ("marks", "say where to drill"), ("survey", "say what its readings amount to"),
        ("explain", "show every sum of a plan's pieces"), ("cut", "say what to saw out of what"), ("buy", "say what to buy"),
        ("days", "say when it can hang and when it may be loaded"),
    ):  # fmt: skip
        made = command(name, what)
        made.add_argument("plan", help="a plan file (JSON), or - for standard input")
        if name == "explain":
            made.add_argument("--piece", help="only this piece, by its key")
            made.add_argument("--check", help="only this check, by its code")
        if name == "days":
            made.add_argument("--now", type=datetime.fromisoformat, help="from when on, 2031-04-05T18:00; now when left out")
    hang = command("ways", "find ways to hang something on a plan's wall")
    hang.add_argument("plan", help="a plan file (JSON), or - for standard input")
    thing = hang.add_mutually_exclusive_group(required=True)
    thing.add_argument("--piece", help="what hangs there already, by its key")
    thing.add_argument("--hang", help="a row of the lists of contents and wants")
    hang.add_argument("--amount", help="so many; so long; so many litres; or, of a want, the weight that it must carry")
    hang.add_argument(
        "--at", default="", help="where its middle goes, from the left corner; the middle of the wall when left out"
    )
    hang.add_argument("--height", default="1500 mm", help="where its top goes")
    hang = command("steps", "say the steps of hanging a piece, in order")
    hang.add_argument("plan", help="a plan file (JSON), or - for standard input")
    hang.add_argument("piece", help="its key")
    cure = command("cures", "find what would cure a piece of a plan")
    cure.add_argument("plan", help="a plan file (JSON), or - for standard input")
    cure.add_argument("piece", help="its key")
    command("kinds", "list the kinds of mounting").add_argument(
        "--chapter", action="store_true", help="print the handbook's chapter on them"
    )
    one = command("capacity", "say what one screw or anchor holds", "metric")
    which = one.add_mutually_exclusive_group(required=True)
    which.add_argument("--screw", choices=sorted(data.screws()))
    which.add_argument("--anchor", choices=sorted(data.anchors()))
    one.add_argument("--length", default="76 mm", help="of the screw")
    one.add_argument("--lining", default="0", help="how thick what bears nothing is")
    one.add_argument("--into", help="a stud timber for a screw; a structure or a lining for an anchor")
    sag = command("sag", "say how far a board sags", "metric")
    sag.add_argument("--board", choices=sorted(data.boards()), required=True)
    for name in ("length", "depth", "thickness", "load"):
        sag.add_argument(f"--{name}", required=True)
    sag.add_argument("--supports", default="", help="places from the left end, with commas; both ends when left out")
    commands.add_parser("schema", help="print the JSON Schema of the plan format")
    commands.add_parser("rules", help="print the handbook's chapter on the rules")
    commands.add_parser("everyday", help="print the handbook's chapter on fifteen everyday set-ups")
    return parser


def _plan(asked: argparse.Namespace) -> tuple[Plan, Units]:
    raw = sys.stdin.buffer.read() if asked.plan == "-" else Path(asked.plan).read_bytes()
    plan = planfile.load(raw)
    return plan, asked.units or plan.units


def _say(asked: argparse.Namespace, as_json: object, as_text: str) -> None:
    print(telling.as_json_text(as_json) if asked.json else as_text)


def _assess(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    verdict = assess(plan)
    _say(asked, telling.as_json(verdict), telling.as_text(verdict, units))
    return EXIT[verdict.word]


def _marks(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    made = {piece.key: piece_marks(piece, plan.wall, units, plan.policy.lead_holes, plan.built) for piece in plan.pieces}
    _say(asked, made, telling.marks_as_text(plan, made, assess(plan), units))
    return 0


def _survey(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    known = survey(plan.wall, plan.supports_mm)
    _say(asked, telling.survey_as_json(known), telling.survey_as_text(known, plan, units))
    return 0


def _explain(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    verdict = assess(plan)
    if asked.piece is not None:
        plan.piece(asked.piece)  # refuses one that is not there
    pieces = [each for each in verdict.pieces if asked.piece in (None, each.key)]
    chosen = [telling.as_json(type(verdict)(pieces=(each,))) for each in pieces]
    _say(asked, chosen, "\n\n".join(telling.explain(each, units, asked.check) for each in pieces))
    return EXIT[worst(each.word for each in pieces)]


def _cut(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    found = cut_plan(plan)
    _say(asked, job_told.cut_as_json(found), job_told.cut_as_text(found, units))
    return 0


def _buy(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    found = shopping(plan, cut_plan(plan), units)
    _say(asked, job_told.buy_as_json(found), job_told.buy_as_text(found))
    return 0


def _days(asked: argparse.Namespace) -> int:
    plan, _ = _plan(asked)
    found = schedule(plan, cut_plan(plan), asked.now or datetime.now())
    _say(asked, job_told.days_as_json(found), job_told.days_as_text(found))
    return 0


def _steps(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    found = steps(plan, asked.piece, units)
    verdict = assess(plan).piece(asked.piece)
    _say(asked, [step._asdict() for step in found], job_told.steps_as_text(found, units, telling.stop(verdict, units)))
    return EXIT[verdict.word]


def _ways(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    if asked.piece is not None:
        wish = wish_of(plan.piece(asked.piece))
    else:
        middle = read_length(asked.at, units) if asked.at else plan.wall.width_mm / 2
        amount = None if asked.amount is None else amount_of(asked.hang, asked.amount, units)
        wish = wish_for(plan, asked.hang, amount, middle, read_length(asked.height, units))
    found = ways(plan, wish)
    _say(asked, told.ways_as_json(found), told.ways_as_text(found, units))
    return EXIT[found.found[0].word if found.found else "wont_hold"]


def _cures(asked: argparse.Namespace) -> int:
    plan, units = _plan(asked)
    found = cures(plan, asked.piece)
    _say(asked, found, told.cures_as_text(found, units))
    return EXIT[assess(plan).piece(asked.piece).word]


def _kinds(asked: argparse.Namespace) -> int:
    _say(asked, telling.kinds(), telling.kinds_chapter() if asked.chapter else telling.kinds_as_text())
    return 0


def _capacity(asked: argparse.Namespace) -> int:
    units: Units = asked.units
    gap = read_length(asked.lining, units)
    if asked.screw:
        length = read_length(asked.length, units)
        found = telling.screw_capacity(asked.screw, length, asked.into or "spruce_pine_fir", gap)
    else:
        base = asked.into or "gypsum_12_7"
        data.row({**data.structures(), **data.linings()}, base, "wall or lining")
        hollow = base in data.linings()
        bare = Wall(width_mm=1000, height_mm=1000, layers=(), structure=None if hollow else base)
        found = telling.anchor_capacity(held(bare, asked.anchor, Site(base, hollow, gap, (_FAR_MM, _FAR_MM), _FAR_MM)))
    _say(asked, found, telling.capacity_as_text(found, units))
    return EXIT["wont_hold" if found.get("problem") else "holds"]


def _sag(asked: argparse.Namespace) -> int:
    units: Units = asked.units
    length, depth, thick = (read_length(getattr(asked, name), units) for name in ("length", "depth", "thickness"))
    places = tuple(read_length(part, units) for part in asked.supports.split(",") if part.strip()) or (0.0, length)
    shelf = BracketShelf(
        key="board", name="Board", left_mm=0, top_mm=1000, length_mm=length, depth_mm=depth, thickness_mm=thick,
        board=asked.board,
        use="display", supports_mm=places, bracket="braced", screw="wood_10", screw_length_mm=63.5,
        things=(Thing(name="Load", mass_kg=read_weight(asked.load, units)),),
    )  # fmt: skip
    if len(places) < 2:
        raise TradeError("A board needs two supports or more.")
    found = telling.sag_of(ShelfLoad(shelf, 0.0, 0.0))
    _say(asked, found, telling.sag_as_text(found, units))
    return EXIT["holds" if found["years_mm"] <= found["limit_mm"] else "holds_but"]


def _schema(_: argparse.Namespace) -> int:
    print(telling.as_json_text(planfile.schema()))
    return 0


def _everyday(_: argparse.Namespace) -> int:
    print(everyday.chapter())
    return 0


def _rules(_: argparse.Namespace) -> int:
    print(telling.rules_chapter())
    return 0


_COMMANDS: dict[str, Callable[[argparse.Namespace], int]] = {
    "assess": _assess, "marks": _marks, "survey": _survey, "explain": _explain, "ways": _ways, "cures": _cures,
    "cut": _cut, "buy": _buy, "days": _days, "steps": _steps, "kinds": _kinds, "capacity": _capacity,
    "sag": _sag, "schema": _schema, "rules": _rules, "everyday": _everyday,
}  # fmt: skip

if __name__ == "__main__":
    try:
        status = main()
        sys.stdout.flush()
    except BrokenPipeError:  # the reader had enough, as with `| head`
        sys.stdout = None  # nothing left to flush to
        status = 0
    sys.exit(status)
