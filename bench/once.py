"""Making is idempotent.

A form that makes something carries a token, and counts once however often it is sent.
"""

import secrets
from collections.abc import Callable
from functools import wraps
from hashlib import sha256
from typing import Any

from django.db import transaction
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.utils.html import format_html
from django.utils.safestring import SafeString

from bench.access import owner
from bench.models import Sent

_FIELD = "once"
View = Callable[..., HttpResponse]


def once_field() -> SafeString:
    """Return the hidden field that a form of a `once` view carries."""
    return format_html(
        '<input type="hidden" name="{}" value="{}">', _FIELD, secrets.token_urlsafe(16)
    )


def once(view: View) -> View:
    """Let a form through once: sent again, it leads to what it made the first time.

    A form that was refused (any answer but a redirect) may be sent again, and so may one without a
    token.
    """

    @wraps(view)
    def guarded(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        said = request.POST.get(_FIELD, "")
        if request.method != "POST" or not said:
            return view(request, *args, **kwargs)
        person = owner(request)
        whose = f"{person.pk if person else ''} {request.path} {said}"
        with transaction.atomic():  # a second sending waits here until the first one is done
            sent, new = Sent.objects.get_or_create(token=sha256(whose.encode()).hexdigest())
            if not new:
                return HttpResponseRedirect(sent.address)
            answer = view(request, *args, **kwargs)
            if isinstance(answer, HttpResponseRedirect):
                sent.address = answer.url
                sent.save(update_fields=["address"])
            else:
                sent.delete()
        return answer

    return guarded
