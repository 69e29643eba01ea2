"""Addresses of the stage, below those of a wall."""

from django.urls import path

from bench.stages.survey import room, views

app_name = "survey"
urlpatterns = [
    path("room/save/", room.save, name="room-save"),
    path("room/add/", room.add, name="room-add"),
    path("room/remove/", room.remove, name="room-remove"),
    path("wall/save/", views.save, name="save"),
    path("wall/take/", views.take, name="take"),
    path("wall/by-hand/", views.by_hand, name="by-hand"),
    path("wall/place/", views.place, name="place"),
    path("wall/sweep/", views.sweep, name="sweep"),
    path("wall/measure/", views.measure, name="measure"),
    path("wall/readings.csv", views.readings_out, name="readings-out"),
    path("wall/readings/", views.readings_in, name="readings-in"),
    path("things/<int:index>/move/", views.move, name="move"),
    path("things/<int:index>/remove/", views.remove, name="remove"),
]
