"""Addresses: all of them belong to the bench."""

from django.urls import include, path

urlpatterns = [path("", include("bench.urls"))]
handler400 = "bench.views.bad_request"
handler404 = "bench.views.not_found"
handler500 = "bench.views.broken"
