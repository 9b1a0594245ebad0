"""The sign-in page and its limits on wrong attempts.

A name is blocked for a while for one address. An address that tries many names waits longer each time, but a browser that has signed in
before does not.
"""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from axes.models import AccessAttempt
from django.conf import settings
from django.contrib.auth.views import LoginView
from django.core import signing
from django.db.models import Max, Sum
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone

from stator.shop.forms import SignInForm
from stator.shop.models import Person

KNOWN, SALT = "known-here", "stator.shop.sign_in"
KNOWN_AGE_S = 365 * 24 * 3600
FREE, LONGEST_S = 12, 120  # wrong tries of one address, over all names, before it waits; and how long at most
WITHIN = timedelta(minutes=30)


def wait_s(address: str) -> float:
    """Seconds that an address still has to wait after its wrong tries of late, over all names."""
    now = timezone.now()
    tries = AccessAttempt.objects.filter(ip_address=address, attempt_time__gt=now - WITHIN)
    found = tries.aggregate(count=Sum("failures_since_start"), last=Max("attempt_time"))
    over = (found["count"] or 0) - FREE
    if over < 0 or found["last"] is None:
        return 0.0
    wait = min(LONGEST_S, 2.0 ** min(over + 1, 10))
    return max(0.0, wait - float((now - found["last"]).total_seconds()))


def is_known_device(request: HttpRequest) -> bool:
    """Return True if somebody who may still sign in has signed in from this browser before."""
    try:
        person = signing.loads(request.COOKIES.get(KNOWN, ""), salt=SALT, max_age=KNOWN_AGE_S)
    except signing.BadSignature:
        return False
    return isinstance(person, int) and Person.objects.filter(pk=person, is_active=True).exists()


def locked_out(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
    """Shut for one name from one address."""
    minutes = round(settings.AXES_COOLOFF_TIME * 60)
    response = render(request, "shop/locked_out.html", {"minutes": minutes}, status=429)
    response["Retry-After"] = str(minutes * 60)
    return response


class SignIn(LoginView):
    template_name = "shop/sign_in.html"
    form_class = SignInForm
    redirect_authenticated_user = True

    def post(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        wait = (
            0.0 if is_known_device(request) or not getattr(settings, "AXES_ENABLED", True) else wait_s(request.META.get("REMOTE_ADDR", ""))
        )
        if wait > 0:
            response = render(request, "shop/locked_out.html", {"seconds": round(wait) + 1}, status=429)
            response["Retry-After"] = str(round(wait) + 1)
            return response
        return super().post(request, *args, **kwargs)

    def form_valid(self, form: Any) -> HttpResponse:
        response = super().form_valid(form)
        mark = signing.dumps(form.get_user().pk, salt=SALT)
        secure = settings.SESSION_COOKIE_SECURE
        response.set_cookie(KNOWN, mark, max_age=KNOWN_AGE_S, httponly=True, samesite="Lax", secure=secure)
        return response
