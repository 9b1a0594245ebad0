"""Set-up of a phone: the address to open, and the shop's own certificate, which a phone must trust."""

from __future__ import annotations

import ssl
from hashlib import sha256
from pathlib import Path

import segno
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.safestring import mark_safe
from django.views.decorators.http import require_GET

from stator.shop.models import Shop


def authority() -> bytes | None:
    """The certificate of the shop's own authority (DER); None where TLS ends elsewhere, or nowhere."""
    path = Path(settings.TLS_FOLDER) / "authority.pem"
    return ssl.PEM_cert_to_DER_cert(path.read_text()) if path.exists() else None


@require_GET
def phones(request: HttpRequest) -> HttpResponse:
    """Return how a phone gets here and comes to trust this machine."""
    address = Shop.current().address_of(request, "/")
    drawn = segno.make(address, error="m", micro=False).svg_inline(scale=5, border=2, omitsize=True, svgclass="qr", lineclass=None)
    own = authority() if request.is_secure() else None
    data = {"address": address, "code": mark_safe(drawn), "own": own, "secure": request.is_secure()}  # noqa: S308  drawn by segno
    return render(request, "shop/device_setup.html", {**data, "fingerprint": sha256(own).hexdigest().upper() if own else ""})


@require_GET
def certificate(request: HttpRequest) -> HttpResponse:
    """Return the certificate of the authority to anyone.

    It is public, and a phone needs it before it can sign in without a warning.
    """
    found = authority()
    if found is None:
        raise Http404
    response = HttpResponse(found, content_type="application/x-x509-ca-cert")
    response["Content-Disposition"] = 'attachment; filename="stator-shop.crt"'
    return response
