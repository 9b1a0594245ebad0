"""Serve the pages and listen to the gauges, in one process: `manage.py serve --listen 127.0.0.1:8000`."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from instruments.listener import LISTENER


class Command(BaseCommand):
    help = "Serve the pages with waitress and listen to every gauge that has a port."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--listen", default="127.0.0.1:8000", help="address and port of the pages")
        parser.add_argument("--threads", type=int, default=16)
        parser.add_argument("--behind-proxy", action="store_true", help="believe the scheme and address that a proxy on this machine says")

    def handle(self, *args: Any, **options: Any) -> None:
        from waitress import serve

        from stator.wsgi import application

        proxy: dict[str, Any] = {}
        if options["behind_proxy"]:
            proxy = {"trusted_proxy": "127.0.0.1", "trusted_proxy_headers": {"x-forwarded-proto", "x-forwarded-for"}}
        LISTENER.start()
        try:
            serve(application, listen=options["listen"], threads=options["threads"], channel_timeout=60, **proxy)
        finally:
            LISTENER.stop()
