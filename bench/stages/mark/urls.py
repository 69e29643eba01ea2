"""Addresses of the stage, below those of a wall."""

from django.urls import path

from bench.stages.mark import views

app_name = "mark"
urlpatterns = [
    path("wall.<slug:kind>", views.whole, name="whole-wall"),
    path("datum/", views.datum, name="datum"),
    path("pieces/<slug:key>/<slug:what>.<slug:kind>", views.drawn, name="drawn"),
]
