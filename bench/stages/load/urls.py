"""Addresses of the stage, below those of a wall."""

from django.urls import path

from bench.stages.load import views

app_name = "load"
urlpatterns = [
    path("pieces/<slug:key>/load/", views.save, name="save"),
    path("pieces/<slug:key>/weigh/", views.weigh, name="weigh"),
]
