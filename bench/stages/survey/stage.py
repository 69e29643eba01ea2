"""The survey as a stage of the workbench."""

from django.utils.translation import gettext as _

from bench.stages.survey.forms import WallForm
from bench.stages.survey.room import ROOM, RoomContext, sheet
from bench.words import lazy
from bench.workbench.context import Note, Stage, Tab, WorkbenchContext
from trade.language import counted


class SurveyContext:
    """The wall, to be filled in."""

    def __init__(self, bench: WorkbenchContext) -> None:
        """Make filled from the plan, or as it was posted."""
        self._bench = bench
        self.form = bench.posted(WallForm) or WallForm(
            bench.units, bench.plan.wall, bench.plan.faced_name
        )

    @property
    def room(self) -> RoomContext:
        """All walls of the place."""
        return RoomContext(self._bench)


def _note(bench: WorkbenchContext) -> Note:
    wall = bench.plan.wall
    if wall.layers is None or (wall.build != "mass" and not wall.uprights):
        return Note("waiting", _("ask more"))
    if wall.build == "mass":
        return Note("done", _("masonry"))
    return Note("done", counted(len(wall.uprights), "{n} stud", "{n} studs"))


STAGE = Stage(
    "survey",
    lazy("Survey"),
    note=_note,
    context=SurveyContext,
    whole_wall=True,
    tabs=(
        Tab("", lazy("This wall"), lazy("What is known of this wall")),
        Tab(ROOM, lazy("All walls"), lazy("The walls of this place, and where they meet")),
    ),
    sheet=sheet,
    over=lambda bench: "survey/_swipe.html" if bench.tab == ROOM else "",
    below=lambda bench: "survey/_below.html" if bench.tab == ROOM else "bench/_section.html",
    put_up="survey/_put_up.html",
)
