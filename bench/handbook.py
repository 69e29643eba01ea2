"""The handbook inside the application.

Every kind of mounting, how it carries its load, what gives way first, what goes wrong.
"""

from typing import Any, NamedTuple

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _
from django.views.decorators.http import require_safe

from bench.drawing import section
from bench.drawing.joints import corner
from bench.long_work import long_running
from bench.words import memoized_in_language, say
from trade import data
from trade.assess import assess_piece
from trade.check import Message
from trade.choose.order import Failing, order
from trade.choose.samples import sample, sample_wall
from trade.mounts import ALL, Mount
from trade.mounts.without import without
from trade.plan.model import Plan


class Page(NamedTuple):
    """One kind.

    Its mounting, how it carries, its drawing, the first to give way, and what people get wrong.
    """

    mount: Mount[Any]
    how: tuple[str, ...]
    drawing: SafeString
    first: tuple[Failing, ...]
    wrong: tuple[Message, ...]


@memoized_in_language(4)
def pages() -> tuple[Page, ...]:
    """Every kind, worked out once on an ordinary wall with 6 kg on it."""
    return tuple(_page(mount) for mount in ALL)


def _page(mount: Mount[Any]) -> Page:
    piece, wall = sample(mount.kind), sample_wall()
    plan = Plan(name="Wall", units="metric", wall=wall, pieces=(piece,))
    verdict = assess_piece(piece, wall)
    support = section.seat_in_question(piece, plan, verdict)
    drawing = section.draw(piece, plan, verdict, support) if support else SafeString("")
    how = tuple(" ".join(part.split()) for part in say(mount.how).split("\n\n"))
    return Page(mount, how, drawing, order(piece, plan, 3), tuple(mount.cautions(piece, wall)))


@long_running
@require_safe
def kinds(request: HttpRequest) -> HttpResponse:
    """Every kind on one page."""
    return render(request, "bench/kinds.html", {"pages": pages(), "units": "metric"})


@require_safe
def rules(request: HttpRequest) -> HttpResponse:
    """Show what each check is and where it comes from, and every number that is ours."""
    shown = {
        "rules": data.rules().items(),
        "numbers": [
            (heading, data.house_rules(about).items()) for about, heading in data.HOUSE.items()
        ],
        "pushes": data.pushes().values(),
    }
    return render(request, "bench/rules.html", shown)


@require_safe
def workshop(request: HttpRequest) -> HttpResponse:
    """Show the joints between boards, and how people do without a tool."""
    every = data.tools()
    judged = {
        "screws": _("Its strength is judged: screws in end grain."),
        "bearing": _("Its strength is judged: the end of the board pressed in its groove."),
        "": _("Its strength is taken for granted: no source that we know says what it carries."),
    }
    joints = [
        (row, corner(key, row), judged[row.judged], [every[tool].name for tool in row.tools])
        for key, row in data.joints().items()
    ]
    tools = [(row, say(without(row, "metric"))) for row in every.values() if not row.usual]
    context = {"joints": joints, "tools": tools, "preparing": data.preparing().values()}
    context["tricks"] = data.tricks().values()
    return render(request, "bench/workshop.html", context)


@require_safe
def glossary(request: HttpRequest) -> HttpResponse:
    """Show every word of the trade and what it means here."""
    return render(request, "bench/glossary.html", {"terms": data.glossary().items()})


@require_safe
def term(request: HttpRequest, key: str) -> HttpResponse:
    """Explain one word, as a note on the page that it stands on."""
    if key not in data.glossary():
        raise Http404
    return render(request, "bench/_term.html", {"key": key, "term": data.glossary()[key]})
