"""Offline use: the service worker, the page for a time without connection, and the installation on a device."""

from __future__ import annotations

import json
from hashlib import sha256

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.templatetags.static import static
from django.utils.translation import gettext as _

FILES = (
    "django_htmx/htmx-2.min.js",
    "vendor/alpine-csp.min.js",
    "vendor/idiomorph-ext.min.js",
    *(
        f"ui/{name}"
        for name in (
            "app.css",
            "station_page.js",
            "forms.js",
            "gauges.js",
            "keyboard_navigation.js",
            "offline.js",
            "storage.js",
            "reading_bar.js",
            "icon.svg",
        )
    ),
    "ui/fonts/archivo.woff2",
    "ui/fonts/sometype-mono.woff2",
)


def worker(request: HttpRequest) -> HttpResponse:
    """Return the service worker.

    It is served at the root because of its scope, and changes when a static file changes.
    """
    files = [static(each) for each in FILES]
    build = sha256(" ".join(files).encode()).hexdigest()[:12]
    response = render(request, "ui/worker.js", {"files": json.dumps(files), "build": build}, content_type="text/javascript")
    response["Cache-Control"] = "no-cache"
    return response


def offline(request: HttpRequest) -> HttpResponse:
    """Return the page that is shown without connection. It contains nobody's data."""
    return render(request, "ui/offline.html")


def manifest(request: HttpRequest) -> JsonResponse:
    """Return how Stator is called and drawn where a device installs it."""
    values = {
        "name": "Stator",
        "short_name": "Stator",
        "description": _("The bench of a motorcycle and small-engine mechanic."),
        "start_url": "/",
        "scope": "/",
        "display": "standalone",
        "background_color": "#f3efe4",
        "theme_color": "#f3efe4",
        "icons": [{"src": static("ui/icon.svg"), "sizes": "any", "type": "image/svg+xml", "purpose": "any"}],
    }
    return JsonResponse(values, content_type="application/manifest+json")
