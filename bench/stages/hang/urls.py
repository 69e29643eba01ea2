"""Addresses of the stage, below those of a wall."""

from django.urls import path

from bench.stages.hang import views

app_name = "hang"
urlpatterns = [
    path("pieces/<slug:key>/hang/", views.at_wall, name="at-wall"),
    path("pieces/<slug:key>/hang/told/", views.told, name="report"),
]
