"""Devices where people are signed in, found through their sessions and signed out by deleting these."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from django.contrib.auth import SESSION_KEY
from django.contrib.auth.signals import user_logged_in
from django.contrib.sessions.models import Session
from django.http import HttpRequest
from django.utils import timezone
from django.utils.dateparse import parse_datetime
from django.utils.translation import gettext as _

from stator.shop.audit_log import audit
from stator.shop.models import Person


@dataclass(frozen=True)
class SignedIn:
    """One browser of one person."""

    key: str
    device: str
    address: str
    since: datetime | None


def note(sender: object, request: HttpRequest, user: Person, **kwargs: object) -> None:
    """Write into a fresh session which browser it is, for the owner's list."""
    request.session["device"] = request.headers.get("User-Agent", "")[:200]
    request.session["address"] = request.META.get("REMOTE_ADDR", "")
    request.session["since"] = timezone.now().isoformat(timespec="seconds")
    audit(user, "signed in from", request.session["address"])


def listen() -> None:
    user_logged_in.connect(note, dispatch_uid="note-the-session")


def of_everyone() -> dict[int, list[SignedIn]]:
    """Sessions that hold, by person."""
    found: dict[int, list[SignedIn]] = {}
    for session in Session.objects.filter(expire_date__gt=timezone.now()):
        said = session.get_decoded()
        pk = str(said.get(SESSION_KEY, ""))
        if pk.isdecimal():
            since = parse_datetime(str(said.get("since", "")))
            one = SignedIn(session.session_key, _browser(str(said.get("device", ""))), str(said.get("address", "")), since)
            found.setdefault(int(pk), []).append(one)
    return found


def end(person: Person, but: str = "") -> int:
    """Sign a person out everywhere, but in one session. How many."""
    mine = [each.key for each in of_everyone().get(person.pk, []) if each.key != but]
    return Session.objects.filter(session_key__in=mine).delete()[0]


def _browser(agent: str) -> str:
    """A device in two words: what it runs, and which browser."""
    systems = (
        ("Android", "Android"),
        ("iPhone", "iPhone"),
        ("iPad", "iPad"),
        ("Windows", "Windows"),
        ("Mac OS", "Mac"),
        ("Linux", "Linux"),
    )
    browsers = (("Edg", "Edge"), ("Firefox", "Firefox"), ("Chrome", "Chrome"), ("Safari", "Safari"))
    system = next((name for mark, name in systems if mark in agent), _("unknown device"))
    browser = next((name for mark, name in browsers if mark in agent), "")
    return f"{system}{f', {browser}' if browser else ''}"
