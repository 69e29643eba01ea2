"""Addresses of the stage, below those of a wall."""

from django.urls import path

from bench.stages.record import views

app_name = "record"
urlpatterns = [
    path("piece-labels.pdf", views.labels, name="piece-labels"),
    path("owner.pdf", views.owner, name="owner-pdf"),
    path("care.ics", views.care_ics, name="care-ics"),
    path("pieces/<slug:key>/built/", views.save, {"what": "built"}, name="save-built"),
    path("pieces/<slug:key>/proof/", views.save, {"what": "proof"}, name="save-proof"),
    path("pieces/<slug:key>/tried/", views.save, {"what": "trial"}, name="save-trial"),
    path("pieces/<slug:key>/looked/", views.save, {"what": "look"}, name="save-look"),
]
