"""Addresses of the workbench."""

from django.urls import path

from bench import handbook, practice, views
from bench.stages import fix, load, packet, survey

urlpatterns = [
    path("", views.jobs, name="jobs"),
    path("kinds/", handbook.kinds, name="kinds"),
    path("rules/", views.rules, name="rules"),
    path("import/", views.import_plan, name="import"),
    path("practice/", practice.lobby, name="practice"),
    path("practice/begin/", practice.begin, name="practice-begin"),
    path("practice/<int:run>/", practice.play, name="practice-wall"),
    path("practice/<int:run>/read/", practice.read, name="practice-read"),
    path("practice/<int:run>/mark/", practice.mark, name="practice-mark"),
    path("practice/<int:run>/uncover/", practice.uncover, name="practice-uncover"),
    path("walls/new/", views.new_wall, name="new-wall"),
    path("walls/new/preview/", views.preview, name="preview"),
    path("walls/<int:wall>/", views.wall, name="wall"),
    path("walls/<int:wall>/plan.json", views.plan_file, name="plan-file"),
    path("walls/<int:wall>/sums.pdf", views.sums, name="sums"),
    path("walls/<int:wall>/undo/", views.undo, name="undo"),
    path("walls/<int:wall>/redo/", views.redo, name="redo"),
    path("walls/<int:wall>/units/", views.units, name="units"),
    path("walls/<int:wall>/put-up/", fix.put_up, name="put-up"),
    path("walls/<int:wall>/wall/save/", survey.save, name="save-survey"),
    path("walls/<int:wall>/wall/take/", survey.take, name="take-studs"),
    path("walls/<int:wall>/wall/by-hand/", survey.by_hand, name="by-hand"),
    path("walls/<int:wall>/wall/place/", survey.place, name="place"),
    path("walls/<int:wall>/wall/sweep/", survey.sweep, name="sweep"),
    path("walls/<int:wall>/wall/measure/", survey.measure, name="measure"),
    path("walls/<int:wall>/wall/readings.csv", survey.readings_out, name="readings-out"),
    path("walls/<int:wall>/wall/readings/", survey.readings_in, name="readings-in"),
    path("walls/<int:wall>/things/<int:index>/move/", survey.move, name="move-thing"),
    path("walls/<int:wall>/things/<int:index>/remove/", survey.remove, name="remove-thing"),
    path("walls/<int:wall>/pieces/<slug:key>/load/", load.save, name="save-load"),
    path("walls/<int:wall>/pieces/<slug:key>/weigh/", load.weigh, name="weigh"),
    path("walls/<int:wall>/pieces/<slug:key>/fix/", fix.save, name="save-fix"),
    path("walls/<int:wall>/pieces/<slug:key>/move/", fix.move, name="move"),
    path("walls/<int:wall>/pieces/<slug:key>/support/", fix.support, name="support"),
    path("walls/<int:wall>/pieces/<slug:key>/remove/", fix.remove, name="remove"),
    path("walls/<int:wall>/pieces/<slug:key>/cures/", fix.cures, name="cures"),
    path("walls/<int:wall>/pieces/<slug:key>/packet/", packet.add, name="add-packet"),
    path("walls/<int:wall>/pieces/<slug:key>/along/", fix.along, name="along"),
    path("walls/<int:wall>/pieces/<slug:key>/cure/", fix.cure, name="cure"),
    path("walls/<int:wall>/<slug:stage>/", views.stage, name="stage"),
]
