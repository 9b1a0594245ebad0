"""Pages for people: add, switch off and on, sign out, and change one's own password."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.contrib.auth import update_session_auth_hash
from django.contrib.auth.forms import PasswordChangeForm
from django.http import HttpRequest, HttpResponse, HttpResponseBadRequest
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.utils.translation import ngettext
from django.views.decorators.http import require_http_methods, require_POST

from stator.shop import sessions
from stator.shop.forms import FirstPasswordForm, OwnSettingsForm, PersonForm
from stator.shop.models import Person
from stator.shop.views import owner_only
from stator.ui.units import Units
from stator.ui.url_values import local_address


@require_http_methods(["GET", "POST"])
def people(request: HttpRequest) -> HttpResponse:
    """Everyone who may sign in, where they are signed in now, and someone new."""
    owner_only(request)
    form = PersonForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        made = form.save(commit=False)
        made.must_change = True
        made.save()
        messages.success(
            request,
            _("{called} may sign in as {username}, and chooses a password of their own then.").format(
                called=made.called, username=made.username
            ),
        )
        return redirect("people")
    return render(request, "shop/people.html", {"form": form, "rows": _rows(), "wrong": None})


def _rows() -> list[dict[str, Any]]:
    where = sessions.of_everyone()
    everyone = Person.objects.filter(from_file="").order_by("-is_active", "username")
    return [{"person": person, "sessions": where.get(person.pk, []), "first": FirstPasswordForm(person)} for person in everyone]


@require_POST
def person(request: HttpRequest, pk: int) -> HttpResponse:
    """Change one person: switch off or on, sign out everywhere, or set a first password."""
    owner_only(request)
    who = get_object_or_404(Person, pk=pk, from_file="")
    act = request.POST.get("act", "")
    if act == "off":
        _off(request, who)
    elif act == "on":
        Person.objects.filter(pk=who.pk).update(is_active=True)
        messages.success(request, _("{called} may sign in again.").format(called=who.called))
    elif act == "out":
        count = sessions.end(who, but=request.session.session_key or "" if who == request.user else "")
        messages.success(
            request,
            ngettext("{called} was signed out in {count} place.", "{called} was signed out in {count} places.", count).format(
                called=who.called, count=count
            ),
        )
    elif act == "password":
        form = FirstPasswordForm(who, request.POST)
        if not form.is_valid():
            rows = [{**row, "first": form, "open": True} if row["person"] == who else row for row in _rows()]
            return render(request, "shop/people.html", {"form": PersonForm(), "rows": rows})
        form.save()
        Person.objects.filter(pk=who.pk).update(must_change=who != request.user)
        sessions.end(who)
        messages.success(
            request, _("{called} has a new first password, and chooses another at the next sign-in.").format(called=who.called)
        )
    return redirect("people")


def _off(request: HttpRequest, who: Person) -> None:
    """Switch a person off. The signed-in owner cannot be switched off, so one owner always remains."""
    if who == request.user:
        messages.error(request, _("You cannot switch off yourself; another owner can."))
    else:
        Person.objects.filter(pk=who.pk).update(is_active=False)
        count = sessions.end(who)
        messages.success(
            request,
            ngettext(
                "{called} cannot sign in any more, and was signed out in {count} place.",
                "{called} cannot sign in any more, and was signed out in {count} places.",
                count,
            ).format(called=who.called, count=count),
        )


@require_http_methods(["GET", "POST"])
def my_settings(request: HttpRequest) -> HttpResponse:
    """One's own settings: units and language."""
    form = OwnSettingsForm(request.POST or None, instance=request.user)
    if request.method == "POST" and form.is_valid():
        form.save()
        messages.success(request, _("Your settings are saved."))
        return redirect("me")
    return render(request, "shop/my_settings.html", {"form": form})


@require_POST
def welcomed(request: HttpRequest) -> HttpResponse:
    """The welcome was read and is not shown again."""
    Person.objects.filter(pk=request.user.pk or 0).update(welcomed=True)
    return redirect("bench")


@require_POST
def other_units(request: HttpRequest) -> HttpResponse:
    """Change to metric or inch units on the present page."""
    if request.POST.get("units") not in {each.value for each in Units}:
        return HttpResponseBadRequest(_("There are no such units."))
    Person.objects.filter(pk=request.user.pk or 0).update(units=request.POST["units"])
    return redirect(local_address(request.POST.get("next", ""), reverse("bench")))


@require_http_methods(["GET", "POST"])
def password(request: HttpRequest) -> HttpResponse:
    """One's own password. Every other session of the same person ends with the old one."""
    me: Person = request.user  # type: ignore[assignment]
    form = PasswordChangeForm(me, request.POST or None)
    if request.method == "POST" and form.is_valid():
        form.save()
        Person.objects.filter(pk=me.pk).update(must_change=False)
        update_session_auth_hash(request, me)
        count = sessions.end(me, but=request.session.session_key or "")
        messages.success(
            request,
            ngettext(
                "Your password is changed; {count} other session ended.",
                "Your password is changed; {count} other sessions ended.",
                count,
            ).format(count=count),
        )
        return redirect("bench")
    return render(request, "shop/password.html", {"form": form, "must": me.must_change})
