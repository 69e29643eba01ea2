"""Addresses of the stage, below those of a wall."""

from django.urls import path

from bench.stages.fix import growing, layout, options, own, packet, policy, views

app_name = "fix"
urlpatterns = [
    path("policy/save/", policy.save_policy, name="save-policy"),
    path("policy/share/", policy.share_policy, name="share-policy"),
    path("policy/<slug:question>/", policy.effects, name="policy-effects"),
    path("pieces/<slug:key>/ways/", options.ways, name="ways"),
    path("pieces/<slug:key>/where/", options.where, name="where"),
    path("pieces/<slug:key>/settle/", options.settle, name="settle"),
    path("pieces/<slug:key>/what-if/", options.what_if, name="what-if"),
    path("pieces/<slug:key>/more/", growing.more, name="more"),
    path("pieces/<slug:key>/compare/", growing.compare, name="compare"),
    path("pieces/<slug:key>/grow/", growing.grow, name="grow"),
    path("pieces/<slug:key>/adopt/", options.adopt, name="adopt"),
    path("pieces/<slug:key>/rows/", layout.rows, name="rows"),
    path("pieces/<slug:key>/lay/", layout.lay, name="lay"),
    path("pieces/<slug:key>/own/", own.use, name="own"),
    path("pieces/<slug:key>/packet/", packet.add, name="add-packet"),
    path("put-up/", views.put_up, name="put-up"),
    path("pieces/<slug:key>/fix/", views.save, name="save"),
    path("pieces/<slug:key>/move/", views.move, name="move"),
    path("pieces/<slug:key>/support/", views.support, name="support"),
    path("pieces/<slug:key>/remove/", views.remove, name="remove"),
    path("pieces/<slug:key>/cures/", views.cures, name="cures"),
    path("pieces/<slug:key>/cure/", views.cure, name="cure"),
    path("pieces/<slug:key>/along/", views.along, name="along"),
]
