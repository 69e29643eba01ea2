"""Addresses: all of them belong to the bench."""

from django.urls import include, path

urlpatterns = [path("", include("bench.urls"))]
handler400 = "bench.errors.bad_request"
handler404 = "bench.errors.not_found"
handler500 = "bench.errors.broken"
