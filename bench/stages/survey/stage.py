"""The survey as a stage of the workbench."""

from django.utils.translation import gettext as _

from bench.stages.survey.forms import WallForm
from bench.workbench.context import Note, Stage, WorkbenchContext


class SurveyContext:
    """The wall, to be filled in."""

    def __init__(self, bench: WorkbenchContext) -> None:
        """Make filled from the plan, or as it was posted."""
        self.form = bench.posted(WallForm) or WallForm(
            bench.units, bench.plan.wall, bench.plan.name
        )


def _note(bench: WorkbenchContext) -> Note:
    wall = bench.plan.wall
    if wall.layers is None or (wall.build != "mass" and not wall.uprights):
        return Note("waiting", _("ask more"))
    count = len(wall.uprights)
    return Note(
        "done", "masonry" if wall.build == "mass" else f"{count} stud{'' if count == 1 else 's'}"
    )


STAGE = Stage(
    "survey", note=_note, context=SurveyContext, whole_wall=True, put_up="survey/_put_up.html"
)
