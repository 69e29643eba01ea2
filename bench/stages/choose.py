"""Choose: what shall hang here, the ways to hang it, and the job's policy that they follow."""

from typing import Any

from django import forms
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_POST, require_safe
from msgspec.structs import replace

from bench.changes import apply, change, refused
from bench.desk import Desk, desk_or_404
from bench.drawing import small
from bench.drawing import spots as spots_drawing
from bench.forms import BenchForm, MeasureField, number_in
from bench.long_work import long_running
from bench.models import Wall
from trade import data
from trade.assess import judge_piece
from trade.choose import candidates, placement
from trade.choose.arrange import arrange
from trade.choose.capacity_map import best as best_spots
from trade.choose.capacity_map import map_capacity, nearest_height, settled
from trade.choose.criteria import NAMES
from trade.choose.cures import most
from trade.choose.options import Option, RejectedOption, as_it_hangs, find_options
from trade.choose.order import deeper, heavier, order, order_deeper
from trade.choose.policy_effects import answer_of
from trade.choose.policy_effects import effects as policy_effects
from trade.choose.request import HangRequest, amount_of, wish_for, wish_of
from trade.choose.stud_layouts import StudLayout
from trade.errors import MeasureError, PlanError
from trade.measure import Units
from trade.memo import memoized
from trade.mounts import KINDS
from trade.plan.model import Plan, Policy

_SIDE_BY_SIDE = 4
_MOST_AT_ONCE = 6
_MOST_TIMES = 8.0
_MOST_PERCENT, _FALLS = 400.0, 6
_GROUPS = (("stand", "Stands on it"), ("hang", "Hangs from it"))
found_options = memoized(limit=32)(find_options)
found_spots = memoized(limit=8)(map_capacity)


class HangForm(BenchForm):
    """What shall hang: a thing out of the lists, how much of it, and how large it may be."""

    def __init__(self, units: Units, posted: Any = None) -> None:
        """Things out of both lists; a bare number typed is read in these units."""
        super().__init__(posted, prefix="hang")
        self.units = units
        wants = [(key, row.name) for key, row in data.wants().items()]
        groups = [("A piece of its own", wants)]
        for goes, title in _GROUPS:
            rows = sorted(
                (row.name, key) for key, row in data.contents().items() if row.goes == goes
            )
            groups.append((title, [(key, name) for name, key in rows]))
        self.fields["what"] = forms.ChoiceField(
            choices=[("", "choose…"), *groups], label="What shall hang here?"
        )
        self.fields["amount"] = forms.CharField(
            label="How much of it",
            required=False,
            max_length=40,
            help_text="3 ft of books, 12 plates, 5 litres; of a shelf or a cabinet, the weight it "
            "must carry.",
        )
        self.fields["length"] = MeasureField(units, label="How long", required=False)
        self.fields["depth"] = MeasureField(units, label="How deep", required=False)
        self.fields["many"] = forms.IntegerField(
            label="How many like that", initial=1, min_value=1, max_value=_MOST_AT_ONCE
        )
        for name in ("length", "depth"):
            self.fields[name].widget.attrs["placeholder"] = "as it needs"
        self.fields["what"].error_messages["required"] = "Choose what shall hang."

    def clean(self) -> dict[str, Any]:
        """Read the amount as the thing wants it."""
        got = super().clean() or {}
        if got.get("what") and got.get("amount"):
            try:
                got["much"] = amount_of(got["what"], got["amount"], self.units)
            except (MeasureError, PlanError) as error:
                self.add_error("amount", str(error))
        return got

    def hang_request(self, plan: Plan, x_mm: float, top_mm: float) -> HangRequest:
        """The wish for it, with its middle and its top there.

        Raises:
            PlanError: an absurd weight or size.
        """
        got = self.cleaned_data
        return wish_for(
            plan, got["what"], got.get("much"), x_mm, top_mm, got.get("length"), got.get("depth")
        )


def hang(desk: Desk, request: HttpRequest) -> HttpResponse:
    """Put something up by what it is.

    The best way to hang it there, or, when none holds, the plainest with what is wrong.
    """
    form = HangForm(desk.units, request.POST)
    desk.hang_form = form
    if not form.is_valid():
        return desk.fragment(422)
    try:
        hang_request = form.hang_request(
            desk.plan, number_in(request, "x_mm"), number_in(request, "top_mm")
        )
        plan, key, words = hung(desk.plan, hang_request, form.cleaned_data["many"])
    except PlanError as error:
        form.refuse(error)
        return desk.fragment(422)
    desk.key, desk.look, desk.hang_form = key, "ways", None
    return apply(desk, lambda _: plan, f"Hang {hang_request.name}", words)


def hung(plan: Plan, hang_request: HangRequest, many: int) -> tuple[Plan, str, str]:
    """Return the plan with a wish hung on it, the key of its first piece, and where they went.

    The best way there; where none holds, the nearest place that does; and where none does either,
    the plainest way there, with what is wrong with it.
    """
    found = found_options(plan, hang_request)
    if many == 1 and found.found:
        return plan.with_piece(found.found[0].piece), hang_request.key, ""
    taken = {piece.key for piece in plan.pieces}
    keys = [
        hang_request.key,
        *(
            key
            for n in range(2, many + len(taken) + 2)
            if (key := f"{hang_request.key}-{n}") not in taken
        ),
    ]
    wishes = tuple(
        replace(
            hang_request,
            key=key,
            name=hang_request.name if n == 1 else f"{hang_request.name[:74]} ({n})",
        )
        for n, key in enumerate(keys[:many], start=1)
    )
    done = arrange(plan, wishes)
    if not done.placed:
        piece = plainest(plan, hang_request)
        return plan.with_piece(piece), piece.key, ""
    short = f" For {len(done.left_over)} there was no room." if done.left_over else ""
    if many == 1:
        return (
            done.plan,
            done.placed[0].key,
            "There it would not hold: it hangs at the nearest place where it does.",
        )
    return (
        done.plan,
        done.placed[0].key,
        f"{len(done.placed)} hang now, each as near as there was room.{short}",
    )


@long_running
@require_safe
def ways(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """The ways to hang a piece; asked for after the page is there, because it tries many things."""
    desk = desk_or_404(request, wall, "fix", key)
    found = found_options(desk.plan, wish_of(desk.chosen))
    shown = [_shown(way, desk) for way in found.found]
    now = (
        None
        if any(each["now"] for each in shown)
        else _shown(as_it_hangs(desk.plan, desk.chosen), desk)
    )
    context: dict[str, Any] = {
        "desk": desk,
        "units": desk.units,
        "found": found,
        "shown": shown,
        "now": now,
    }
    context |= {"beside": shown[:_SIDE_BY_SIDE], "merits": _merits(found.found[:_SIDE_BY_SIDE])}
    context["refused"] = [_refusal(no) for no in found.refused]
    return _in_parts(request, "bench/fix/_ways.html", "bench/fix/_strip.html", context)


def _in_parts(
    request: HttpRequest, panel: str, other: str, context: dict[str, Any]
) -> HttpResponse:
    """The panel's words.

    The part that belongs beside the wall asks for itself once they are there.
    """
    if request.GET.get("part"):
        return render(request, other, context)
    answer = render(request, panel, context)
    answer["HX-Trigger"] = "worked-out"
    return answer


@long_running
@require_POST
def adopt(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Hang a piece another way."""
    desk = desk_or_404(request, wall, "fix", key)
    desk.look = "ways"
    code = request.POST.get("way", "")
    way = next(
        (
            way
            for way in found_options(desk.plan, wish_of(desk.chosen)).found
            if code_of(way) == code
        ),
        None,
    )
    if way is None:
        return refused(
            desk, "That way is no longer there: the wall has changed since it was offered."
        )
    return apply(
        desk,
        lambda plan: plan.with_piece(way.piece),
        f"{KINDS[way.kind].name} for {desk.chosen.name}",
    )


def code_of(way: Option) -> str:
    """What the button of a way sends."""
    return f"{way.kind}-{way.hold}"


def plainest(plan: Plan, hang_request: HangRequest) -> Any:
    """What is put up when no way holds.

    The first kind that serves it, where it was wished, so that it can be mended.
    """
    left = min(
        max(hang_request.x_mm - hang_request.length_mm / 2, 0.0),
        max(plan.wall.width_mm - hang_request.length_mm, 0.0),
    )
    length = min(hang_request.length_mm, plan.wall.width_mm)
    slot = StudLayout(left, length, placement.supports_on_studs(plan.wall, left, length))
    for kind, row in data.mounting_kinds().items():
        if hang_request.goes in row.serves and not row.ends:
            piece = candidates.base(hang_request, kind, slot, plan)
            if piece is not None:
                return replace(piece, anchor=placement.usual_anchor(plan.wall))
    raise PlanError("The wall is too small for it.", "length_mm")


def _shown(way: Option, desk: Desk) -> dict[str, Any]:
    """A way as its column shows it."""
    return {
        "code": code_of(way),
        "way": way,
        "mount": KINDS[way.kind],
        "drawing": small.side(way.piece, desk.plan),
        "now": way.piece == desk.chosen,
        "tools": ", ".join(data.tools()[tool].name for tool in way.effort.tools) or "usual tools",
        "off": ("leaves a patch", "unscrews", "lifts off")[way.effort.off],
        "seen": ("hidden", "edge shows", "shows")[way.effort.seen],
    }


def _merits(found: tuple[Option, ...]) -> list[tuple[str, list[float]]]:
    """Each merit with its mark for each way, side by side."""
    return [(words, [way.marks[name] for way in found]) for name, words in NAMES.items()]


def _refusal(no: RejectedOption) -> dict[str, Any]:
    return {"mount": KINDS[no.kind], "reason": no.reason}


@long_running
@require_safe
def where(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """The wall shaded by what a piece would carry there, and the best places.

    Asked for after the page is there.
    """
    desk = desk_or_404(request, wall, "fix", key)
    piece, plan = desk.chosen, desk.plan
    columns = found_spots(piece, plan)
    carried = sum(thing.mass_kg or 0.0 for thing in piece.things)
    here = min(columns, key=lambda column: abs(column.left_mm - piece.left_mm))
    context = {
        "desk": desk,
        "units": desk.units,
        "carried": carried,
        "here": here,
        "may": carried * most(piece, plan, _MOST_TIMES),
        "unlike": settled(piece, plan.wall) != piece,
        "places": [
            (each, each.left_mm + piece.length_mm / 2, nearest_height(each, piece.top_mm))
            for each in best_spots(columns)
        ],
        "drawing": spots_drawing.draw(piece, columns, carried or here.kg, plan),
    }
    return _in_parts(request, "bench/fix/_spots.html", "bench/fix/_shade.html", context)


@long_running
@require_POST
def settle(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """Hang a piece at another place along the wall, its supports on the studs there."""
    desk = desk_or_404(request, wall, "fix", key)
    desk.look = "where"
    piece, plan = desk.chosen, desk.plan
    try:
        room = max(plan.wall.width_mm - piece.length_mm, 0.0)
        moved = replace(
            piece,
            left_mm=min(max(number_in(request, "left_mm"), 0.0), room),
            top_mm=number_in(request, "top_mm"),
        )
        placed = settled(moved, plan.wall)
        plan.with_piece(placed)
    except PlanError as error:
        return refused(desk, str(error))
    return apply(desk, lambda now: now.with_piece(placed), f"Move {piece.name}")


@long_running
@require_safe
def what_if(request: HttpRequest, wall: int, key: str) -> HttpResponse:
    """What a piece would do under so much more load, or further out, and what gives way first."""
    desk = desk_or_404(request, wall, "fix", key)
    piece, plan = desk.chosen, desk.plan
    load, out = (
        min(max(percent_in(request, name), low), _MOST_PERCENT)
        for name, low in (("load", 0), ("out", 50))
    )
    trouble = ""
    try:
        tried = deeper(heavier(piece, load / 100), out / 100)
    except PlanError as error:
        tried, trouble = heavier(piece, load / 100), str(error)
    verdict = judge_piece(tried, plan.with_piece(tried))
    kg = sum(thing.mass_kg or 0.0 for thing in piece.things)
    falls = [
        (
            title,
            [(each, each.factor * size, each.factor * 100 <= at) for each in found[:_FALLS]],
            kind,
        )
        for title, found, size, at, kind in (
            ("As more is put on it", order(piece, plan.wall), kg, load, "mass"),
            (
                "As it reaches further out",
                order_deeper(piece, plan.wall),
                piece.depth_mm,
                out,
                "length",
            ),
        )
    ]
    context = {
        "desk": desk,
        "units": desk.units,
        "load": load,
        "out": out,
        "verdict": verdict,
        "kg": kg * load / 100,
        "depth": tried.depth_mm,
        "falls": falls,
        "trouble": trouble,
    }
    return render(request, "bench/fix/_falls.html", context)


def percent_in(request: HttpRequest, name: str) -> float:
    """A percentage that a slider sent; 100 when it did not arrive."""
    said = request.GET.get(name, "")
    return float(said) if said.isdecimal() and len(said) < 6 else 100.0


class PolicyForm(BenchForm):
    """The job's policy: one question after the other, and what is at hand."""

    hidden = forms.BooleanField(label="Nothing of what holds may show", required=False)
    comes_off = forms.BooleanField(
        label="It must come off, leaving no more than screw holes", required=False
    )
    most_holes = forms.IntegerField(
        label="Holes, at most", required=False, min_value=0, max_value=1000
    )
    budget = forms.IntegerField(
        label="Money, at most", required=False, min_value=0, max_value=100_000
    )

    def __init__(self, desk: Desk, posted: Any = None) -> None:
        """Fields from the plan's policy."""
        super().__init__(posted)
        self.desk, policy = desk, desk.plan.policy
        for key, row in data.policies().items():
            now = answer_of(desk.plan, key)
            choices = [(answer, short(said)) for answer, said in row.answers.items()]
            self.fields[key] = forms.ChoiceField(
                choices=choices, label=row.question, initial=now, help_text=row.answers[now]
            )
        for key, tool in data.tools().items():
            if not tool.usual:
                self.fields[f"lacks-{key}"] = forms.BooleanField(
                    label=tool.name, required=False, initial=key in policy.lacks
                )
        self.fields["shift"] = MeasureField(desk.units, policy.shift_mm, label="May be moved by")
        self.fields["grow"] = MeasureField(
            desk.units, policy.grow_mm, label="May be longer or shorter by"
        )
        for name in ("hidden", "comes_off", "most_holes", "budget"):
            self.fields[name].initial = getattr(policy, name)

    @property
    def questions(self) -> list[Any]:
        """What people disagree on."""
        return [self[key] for key in data.policies()]

    @property
    def rest(self) -> list[Any]:
        """What is at hand, and how far things may give way."""
        return [
            self[name] for name in ("hidden", "comes_off", "most_holes", "budget", "shift", "grow")
        ]

    @property
    def tools(self) -> list[Any]:
        """Tools that may not be at hand."""
        return [self[name] for name in self.fields if name.startswith("lacks-")]

    def clean(self) -> dict[str, Any]:
        """Build the policy; its refusals land beside their fields."""
        got = super().clean() or {}
        if self.errors:
            return got
        said = {
            key: got[key]
            for key in (*data.policies(), "hidden", "comes_off", "most_holes", "budget")
            if key != "school"
        }
        lacks = tuple(
            name.removeprefix("lacks-")
            for name in self.fields
            if name.startswith("lacks-") and got[name]
        )
        try:
            got["policy"] = Policy(**said, lacks=lacks, shift_mm=got["shift"], grow_mm=got["grow"])
        except PlanError as error:
            self.refuse(error)
        return got


def short(said: str) -> str:
    """What a school says, up to its first stop."""
    return said.split(":")[0].split(".")[0]


@require_POST
def save_policy(request: HttpRequest, wall: int) -> HttpResponse:
    """Keep the policy: of this wall, or of every wall of its job."""
    desk = desk_or_404(request, wall, "fix", request.POST.get("piece"))
    desk.look = "policy"
    form = PolicyForm(desk, request.POST)

    def changed(plan: Plan) -> Plan:
        wall_now = replace(plan.wall, design_code=form.cleaned_data["school"])
        return replace(plan, wall=wall_now, policy=form.cleaned_data["policy"])

    return change(desk, form, changed, "How this job is done")


@long_running
@require_safe
def effects(request: HttpRequest, wall: int, question: str) -> HttpResponse:
    """What the other schools in a question would change here, worked out."""
    desk = desk_or_404(request, wall, "fix", request.GET.get("piece"))
    if question not in data.policies():
        raise Http404("There is no such question.")
    key = desk.piece.key if desk.piece else None
    answers = data.policies()[question].answers
    found = [
        (answers[each.answer], each.changes) for each in policy_effects(desk.plan, question, key)
    ]
    return render(request, "bench/fix/_effects.html", {"effects": found, "units": desk.units})


@require_POST
def share_policy(request: HttpRequest, wall: int) -> HttpResponse:
    """The same policy for every other wall of the job; each of them can undo it."""
    desk = desk_or_404(request, wall, "fix", request.POST.get("piece"))
    desk.look = "policy"
    changed = 0
    for other in (
        Wall.objects.with_plans().filter(job=desk.wall.job, deleted=None).exclude(pk=desk.wall.pk)
    ):
        plan = other.plan()
        if plan.policy != desk.plan.policy:
            other.record(replace(plan, policy=desk.plan.policy), "How this job is done", other.seen)
            changed += 1
    desk.notice = (
        f"{changed} other wall{'' if changed == 1 else 's'} of this job now "
        f"follow{'s' if changed == 1 else ''} it too."
    )
    return desk.fragment()
