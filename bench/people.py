"""People: accounts, a job shared with a helper or shown by a link, and the trail of it."""

from typing import Any, ClassVar

from django import forms
from django.conf import settings
from django.contrib.auth import get_user_model, login, logout
from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.forms import AuthenticationForm, BaseUserCreationForm
from django.contrib.auth.views import LoginView
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils import timezone
from django.utils.decorators import method_decorator
from django.utils.translation import gettext as _
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_http_methods, require_POST, require_safe

from bench.access import job_or_404, jobs
from bench.address import only_here, public
from bench.drawing import elevation
from bench.forms import mark_invalid
from bench.models import Revision, Share, Trail, Wall
from bench.words import lazy, worded
from trade.assess import assess
from trade.plan.place import faced

_SHOWN_LINES, _MOST_DAYS = 200, 90
_WRONG = 30
_WRONG_MINUTES = 15
_NEW = 10
_NEW_MINUTES = 60
_REFUSED = "sign-in refused"
_MADE = "made an account"
_NO_NAME = "asked for a name that is not available"
_NOT_AVAILABLE = lazy("This name is not available. Choose another one.")
PASSWORD_HELP = lazy("At least ten characters. A few words that don't belong together work well.")


def _labels(form: forms.BaseForm) -> forms.BaseForm:
    form.label_suffix = ""
    return form


class SignInForm(AuthenticationForm):
    """A name and a password."""

    error_messages = {
        "invalid_login": lazy("That name and password do not match. Check capitals."),
        "inactive": lazy("That account is closed."),
    }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        """In plain words."""
        super().__init__(*args, **kwargs)
        self.label_suffix = ""
        self.fields["username"].label = _("Your name here")


@method_decorator(login_not_required, name="dispatch")
class SignIn(LoginView):
    """Sign in.

    Five wrong passwords for one name, or thirty from one address, lock it for fifteen minutes.
    """

    template_name = "bench/people/sign_in.html"
    authentication_form = SignInForm
    redirect_authenticated_user = True

    def post(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        """Look at it, unless too many came from there."""
        if Trail.tried(request, _REFUSED, _WRONG_MINUTES) >= _WRONG:
            return too_many_attempts(request)
        return super().post(request, *args, **kwargs)

    def form_valid(self, form: AuthenticationForm) -> HttpResponse:
        """Let them in."""
        answer = super().form_valid(form)
        Trail.note(self.request, _("signed in"))
        return answer

    def form_invalid(self, form: AuthenticationForm) -> HttpResponse:
        """Say so beside the field."""
        Trail.note(self.request, _REFUSED, name=str(form.data.get("username", "")))
        mark_invalid(form)
        return render(
            self.request, self.template_name, self.get_context_data(form=form), status=422
        )

    def get_context_data(self, **more: Any) -> dict[str, Any]:
        """With whether strangers may make an account."""
        return super().get_context_data(sign_up=settings.SIGN_UP, **more)


def locked_out(request: HttpRequest, credentials: Any, *args: Any, **kwargs: Any) -> HttpResponse:
    """Too many wrong passwords for a name."""
    words = _("Too many wrong passwords for that name. Wait a quarter of an hour, then try again.")
    return render(
        request, "bench/error.html", {"title": _("Wait a while"), "words": words}, status=429
    )


def too_many_attempts(request: HttpRequest) -> HttpResponse:
    """Render the page for an address with too many attempts."""
    words = _("Too many attempts from your address. Wait an hour, then try again.")
    return render(
        request, "bench/error.html", {"title": _("Wait a while"), "words": words}, status=429
    )


@require_POST
def sign_out(request: HttpRequest) -> HttpResponse:
    """Out."""
    Trail.note(request, _("signed out"))
    logout(request)
    return redirect("people:sign-in")


class SignUpForm(BaseUserCreationForm):  # type: ignore[type-arg]
    """A new account."""

    class Meta(BaseUserCreationForm.Meta):
        model = get_user_model()
        fields = ("username",)
        # the message must not say that somebody has an account of that name
        error_messages: ClassVar[dict[str, dict[str, str]]] = {
            "username": {"unique": _NOT_AVAILABLE}
        }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        """In plain words."""
        super().__init__(*args, **kwargs)
        name, password, again = (self.fields[key] for key in ("username", "password1", "password2"))
        name.label, name.help_text = (
            _("Your name here"),
            _("Letters and digits. Others find you by it to make you a helper."),
        )
        password.label, password.help_text = _("Password"), PASSWORD_HELP
        again.label, again.help_text = _("The same again"), ""


@login_not_required
@require_http_methods(["GET", "HEAD", "POST"])
def sign_up(request: HttpRequest) -> HttpResponse:
    """Make oneself an account, where strangers may; the first account always."""
    if settings.PEOPLE == "one" or not (settings.SIGN_UP or not get_user_model().objects.exists()):
        raise Http404(_("Accounts cannot be made here."))
    if (
        request.method == "POST"
        and sum(Trail.tried(request, what, _NEW_MINUTES) for what in (_MADE, _NO_NAME)) >= _NEW
    ):
        return too_many_attempts(request)
    form = SignUpForm(request.POST if request.method == "POST" else None)
    if request.method == "POST" and form.is_valid():
        user = form.save()
        login(request, user, "django.contrib.auth.backends.ModelBackend")
        Trail.note(request, _MADE)
        return redirect("jobs")
    if form.has_error("username", "unique"):
        Trail.note(request, _NO_NAME)
    mark_invalid(form)
    return render(
        request,
        "bench/people/sign_up.html",
        {"form": _labels(form)},
        status=422 if form.errors else 200,
    )


class HelperForm(forms.Form):
    """Who may help."""

    helper = forms.CharField(label=lazy("Their name here"), max_length=150)

    def clean_helper(self) -> Any:
        """Return the person of that name."""
        found = (
            get_user_model().objects.filter(username=self.cleaned_data["helper"].strip()).first()
        )
        if found is None:
            raise forms.ValidationError(
                _("Nobody with that name has an account here. They must make one first.")
            )
        return found


class LinkForm(forms.Form):
    """How long a link is good for."""

    days = forms.IntegerField(
        label=lazy("Valid for days"), min_value=1, max_value=_MOST_DAYS, initial=14
    )


@require_http_methods(["GET", "HEAD", "POST"])
def share(request: HttpRequest, job: int) -> HttpResponse:
    """With whom a job is shared; one more helper, one more link."""
    found = job_or_404(request, job)
    asked = request.POST.get("how") if request.method == "POST" else None
    helper = HelperForm(request.POST if asked == "helper" else None)
    link = LinkForm(request.POST if asked == "link" else None)
    address = ""
    if helper.is_bound and helper.is_valid():
        who = helper.cleaned_data["helper"]
        if who.pk == request.user.pk:
            helper.add_error("helper", _("That is you."))
        else:
            Share.objects.get_or_create(job=found, helper=who)
            Trail.note(
                request,
                worded("shared with {who}, to hang", who=who.get_username()),
                found,
            )
            return redirect("people:share", found.pk)
    if link.is_bound and link.is_valid():
        days = link.cleaned_data["days"]
        _share, token = Share.link(found, days)
        Trail.note(request, worded("made a link, good for {days} days", days=days), found)
        address = public(request, reverse("people:shown", args=[token]))
    for form in (helper, link):
        mark_invalid(_labels(form))
    wrong = (helper.is_bound and helper.errors) or (link.is_bound and link.errors)
    shares = found.shares.select_related("helper")
    context = {
        "job": found,
        "helper": helper,
        "link": link,
        "address": address,
        "only_here": only_here(address),
        "shares": shares,
        "now": timezone.now(),
        "walls": found.walls.filter(deleted=None),
        "many": settings.PEOPLE == "many",
    }
    return render(request, "bench/people/share.html", context, status=422 if wrong else 200)


@require_POST
def end_share(request: HttpRequest, job: int, share: int) -> HttpResponse:
    """Share it no longer."""
    found = job_or_404(request, job)
    ended = get_object_or_404(found.shares, pk=share)
    Trail.note(
        request,
        _("ended a link")
        if ended.helper is None
        else worded("ended sharing with {name}", name=ended.helper.get_username()),
        found,
    )
    ended.delete()
    return redirect("people:share", found.pk)


@login_not_required
@require_safe
@cache_control(private=True, no_store=True)
def shown(request: HttpRequest, token: str) -> HttpResponse:
    """Show a job for whoever has the link: its walls, what hangs there, how it is judged.

    Nothing can be changed.
    """
    found = Share.opened_by(token)
    if found is None:
        words = _("This link has expired. Ask for a new one.")
        return render(
            request, "bench/error.html", {"title": _("Not here"), "words": words}, status=404
        )
    Trail.note(request, _("opened the link"), found.job)
    walls = []
    for wall in Wall.objects.with_plans().filter(job=found.job, deleted=None):
        for plan in faced(wall.plan()):
            verdict = assess(plan)
            walls.append(
                {
                    "wall": wall,
                    "plan": plan,
                    "verdict": verdict,
                    "sheet": elevation.draw(plan, verdict, None, "list", ()),
                }
            )
    answer = render(
        request,
        "bench/people/shown.html",
        {"job": found.job, "walls": walls, "expires": found.expires},
    )
    answer["Referrer-Policy"] = "no-referrer"
    return answer


@require_safe
def trail(request: HttpRequest) -> HttpResponse:
    """Show what was done to one's own account, jobs and walls, the latest first."""
    own = jobs(request).values("pk")
    events = [
        *Trail.objects.filter(job__in=own)[:_SHOWN_LINES],
        *Trail.objects.filter(who=request.user.pk)[:_SHOWN_LINES],
    ]
    changes = (
        Revision.objects.filter(wall__job__in=own)
        .select_related("wall", "by")
        .order_by("-created")[:_SHOWN_LINES]
    )
    lines = {(each.at, each.name, each.what, str(each.job or "")) for each in events}
    lines |= {
        (r.created, r.by.get_username() if r.by else "", r.label, r.wall.name) for r in changes
    }
    return render(
        request, "bench/people/trail.html", {"lines": sorted(lines, reverse=True)[:_SHOWN_LINES]}
    )
