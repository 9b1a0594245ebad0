"""Pages are sent compressed; pictures, PDFs and archives are compressed already."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.middleware.gzip import GZipMiddleware

TEXT = ("text/", "application/json", "application/manifest+json", "image/svg+xml")


class CompressedTextMiddleware(GZipMiddleware):
    """Compress text, with random bytes of random length, so that its size does not reveal a secret."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        is_text = str(response.get("Content-Type", "")).startswith(TEXT)
        if not isinstance(response, HttpResponse) or not is_text:
            return response
        return super().process_response(request, response)
