"""One's own account: another password, and closing it with everything saved first."""

from datetime import datetime
from typing import Any

from django import forms
from django.conf import settings
from django.contrib.auth import get_user_model, logout, update_session_auth_hash
from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.forms import PasswordChangeForm, SetPasswordForm
from django.contrib.auth.tokens import default_token_generator
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse, QueryDict
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils import timezone
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_decode, urlsafe_base64_encode
from django.utils.translation import gettext as _
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_http_methods

from bench.forms import mark_invalid
from bench.models import Job, Photo, Revision, Trail
from bench.people import PASSWORD_HELP
from bench.photos import folder
from bench.words import lazy

SAVED = "everything saved"  # in the session: when


class PasswordForm(PasswordChangeForm):
    """The password now, and another."""

    error_messages = PasswordChangeForm.error_messages | {
        "password_incorrect": lazy("That is not your current password. Check capitals.")
    }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        """In plain words."""
        super().__init__(*args, **kwargs)
        _worded(self)
        self.fields["old_password"].label = _("Your password now")


class FreshForm(SetPasswordForm):  # type: ignore[type-arg]
    """Another password, for whoever holds the link."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        """In plain words."""
        super().__init__(*args, **kwargs)
        _worded(self)


class CloseForm(forms.Form):
    """The password, so that nobody else closes it."""

    password = forms.CharField(label=lazy("Your password"), widget=forms.PasswordInput, strip=False)

    def __init__(self, request: HttpRequest, posted: QueryDict | None = None) -> None:
        """Of whoever asks."""
        super().__init__(posted, label_suffix="")
        self._request = request

    def clean(self) -> dict[str, Any]:
        """Refuse a wrong password, and what is not saved as it is now."""
        got = super().clean() or {}
        user: Any = self._request.user
        if "password" in got and not user.check_password(got["password"]):
            self.add_error("password", _("That is not your password. Check capitals."))
        elif not self.errors and (missing := _unsaved(self._request)):
            self.add_error(None, missing)
        return got


def _worded(form: forms.BaseForm) -> None:
    form.label_suffix = ""
    fresh, again = form.fields["new_password1"], form.fields["new_password2"]
    fresh.label, fresh.help_text = _("New password"), PASSWORD_HELP
    again.label, again.help_text = _("The same again"), ""


def _unsaved(request: HttpRequest) -> str:
    """Return what is not in a file that was fetched in this visit, in a sentence.

    Nothing where all is.
    """
    said, mine = request.session.get(SAVED), {"wall__job__owner": request.user.pk}
    if said is None:
        return (
            _("Save everything to a file first.")
            if Job.objects.filter(owner=request.user.pk).exists()
            else ""
        )
    later = {"created__gt": datetime.fromisoformat(said)}
    changed = (
        Revision.objects.filter(**mine, **later).exists()
        or Photo.objects.filter(**mine, **later).exists()
    )
    return _("Something has changed since you saved everything: save it again.") if changed else ""


def note_saved(request: HttpRequest) -> None:
    """Everything was just fetched as a file."""
    if request.method == "GET":
        request.session[SAVED] = timezone.now().isoformat()


@never_cache
@require_http_methods(["GET", "HEAD", "POST"])
def account(request: HttpRequest) -> HttpResponse:
    """Another password; or the end of the account."""
    if settings.PEOPLE == "one":
        raise Http404(_("There are no accounts here."))
    what = request.POST.get("what", "")
    another = PasswordForm(request.user, request.POST if what == "password" else None)
    close = CloseForm(request, request.POST if what == "close" else None)
    said = ""
    if what == "password" and another.is_valid():
        update_session_auth_hash(request, another.save())
        Trail.note(request, _("changed the password"))
        another = PasswordForm(request.user)
        said = _("Your password is changed. You are signed out everywhere else.")
    if what == "close" and close.is_valid():
        _close(request)
        return redirect("people:sign-in")
    for form in (another, close):
        mark_invalid(form)
    status = 422 if another.errors or close.errors else 200
    return render(
        request,
        "bench/people/account.html",
        {"another": another, "close": close, "said": said},
        status=status,
    )


def _close(request: HttpRequest) -> None:
    """Let go of everything of somebody's, the bin included."""
    user: Any = request.user
    with transaction.atomic():
        files = list(Photo.objects.filter(wall__job__owner=user.pk).values_list("file", flat=True))
        Trail.note(request, _("closed the account"))
        Job.objects.filter(owner=user.pk).delete()
        get_user_model().objects.filter(pk=user.pk).delete()
    for name in files:
        (folder() / name).unlink(missing_ok=True)
    logout(request)


def fresh_path(user: Any) -> str:
    """Return the one-time address at which somebody sets a new password; it expires."""
    return reverse(
        "people:new-password",
        args=[
            urlsafe_base64_encode(force_bytes(user.pk)),
            default_token_generator.make_token(user),
        ],
    )


@login_not_required
@never_cache
@require_http_methods(["GET", "HEAD", "POST"])
def new_password(request: HttpRequest, uid: str, token: str) -> HttpResponse:
    """Show a new password, for whoever was given the link."""
    user = _of(uid)
    if (
        settings.PEOPLE == "one"
        or user is None
        or not default_token_generator.check_token(user, token)
    ):
        words = _(
            "This link has been used, or it has expired. Ask whoever runs this Gancho for a "
            "new one."
        )
        return render(
            request,
            "bench/error.html",
            {"title": _("This link no longer works"), "words": words},
            status=404,
        )
    form = FreshForm(user, request.POST if request.method == "POST" else None)
    if request.method == "POST" and form.is_valid():
        form.save()
        Trail.note(request, _("made a new password by a link"), name=user.get_username())
        return redirect("people:sign-in")
    mark_invalid(form)
    context = {"form": form, "name": user.get_username()}
    answer = render(
        request, "bench/people/new_password.html", context, status=422 if form.errors else 200
    )
    answer["Referrer-Policy"] = "no-referrer"  # the address is the key
    return answer


def _of(uid: str) -> Any:
    try:
        pk = int(urlsafe_base64_decode(uid))
    except (ValueError, OverflowError):
        return None
    return get_user_model().objects.filter(pk=pk).first() if pk < 2**62 else None
