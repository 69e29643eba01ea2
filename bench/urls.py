"""Addresses of the application; each stage has its own, below those of a wall."""

from django.urls import include, path, register_converter
from django.views.generic import TemplateView

from bench import account, bin, handbook, jobs, log, people, photos, practice
from bench.stages.hang.views import worker
from bench.wall_address import WallConverter
from bench.workbench import amounts, views

register_converter(WallConverter, "wall")
_PEOPLE = (
    [
        path("people/sign-in/", people.SignIn.as_view(), name="sign-in"),
        path("people/sign-out/", people.sign_out, name="sign-out"),
        path("people/new/", people.sign_up, name="sign-up"),
        path("people/trail/", people.trail, name="trail"),
        path("people/me/", account.account, name="account"),
        path(
            "people/new-password/<str:uid>/<str:token>/", account.new_password, name="new-password"
        ),
        path("jobs/<int:job>/share/", people.share, name="share"),
        path("jobs/<int:job>/share/<int:share>/end/", people.end_share, name="end-share"),
        path("shown/<str:token>/", people.shown, name="shown"),
    ],
    "people",
)
_BIN = (
    [
        path("jobs/<int:job>/delete/", bin.delete_job, name="delete-job"),
        path("walls/<wall:wall>/delete/", bin.delete_wall, name="delete-wall"),
        path("bin/", bin.contents, name="contents"),
        path("bin/<slug:what>/<int:pk>/restore/", bin.restore, name="restore"),
    ],
    "bin",
)
_LOG = (
    [
        path("log/", log.log, name="entries"),
        path("log/charts/", log.charts, name="charts"),
        path("walls/<wall:wall>/pieces/<slug:key>/copy/", log.targets, name="copy-to"),
        path("walls/<wall:wall>/pieces/<slug:key>/copy/now/", log.copy, name="copy"),
    ],
    "log",
)
_PHOTOS = (
    [
        path("walls/<wall:wall>/pieces/<slug:key>/photos/", photos.add, name="add"),
        path("walls/<wall:wall>/photos/<int:photo>.jpg", photos.show, name="show"),
        path("walls/<wall:wall>/photos/<int:photo>/drop/", photos.drop, name="drop"),
    ],
    "photos",
)
_PRACTICE = (
    [
        path("practice/", practice.lobby, name="lobby"),
        path("practice/begin/", practice.begin, name="begin"),
        path("practice/<int:run>/", practice.play, name="wall"),
        path("practice/<int:run>/read/", practice.read, name="read"),
        path("practice/<int:run>/mark/", practice.mark, name="mark"),
        path("practice/<int:run>/uncover/", practice.uncover, name="uncover"),
    ],
    "practice",
)
_STAGES = ("survey", "load", "fix", "mark", "cut", "hang", "record")

urlpatterns = [
    path("", jobs.jobs, name="jobs"),
    path("jobs/<int:job>/job.zip", jobs.job_file, name="job-file"),
    path("jobs/<int:job>/all-walls/", include("bench.stages.cut.whole_job")),
    path("everything.zip", jobs.everything, name="everything"),
    path("kinds/", handbook.kinds, name="kinds"),
    path("rules/", handbook.rules, name="rules"),
    path("workshop/", handbook.workshop, name="workshop"),
    path("glossary/", handbook.glossary, name="glossary"),
    path("glossary/<slug:key>/", handbook.term, name="term"),
    path("amounts/<str:units>/<slug:field>/", amounts.unit, name="amount-unit"),
    path("stopped/", TemplateView.as_view(template_name="bench/_stopped.html"), name="stopped"),
    path("import/", jobs.import_plan, name="import"),
    *(path("", include(group)) for group in (_PEOPLE, _BIN, _LOG, _PHOTOS, _PRACTICE)),
    path("hang-worker.js", worker, name="hang-worker"),
    path("walls/new/", jobs.new_wall, name="new-wall"),
    path("walls/new/preview/", jobs.preview, name="preview"),
    path("walls/<wall:wall>/", views.wall, name="wall"),
    path("walls/<wall:wall>/plan.json", views.export_plan, name="plan-file"),
    path("walls/<wall:wall>/sums.pdf", views.sums, name="sums"),
    path("walls/<wall:wall>/undo/", views.undo, name="undo"),
    path("walls/<wall:wall>/redo/", views.redo, name="redo"),
    path("walls/<wall:wall>/units/", views.units, name="units"),
    *(path("walls/<wall:wall>/", include(f"bench.stages.{stage}.urls")) for stage in _STAGES),
    path("walls/<wall:wall>/<slug:stage>/", views.stage, name="stage"),
]
