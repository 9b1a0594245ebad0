"""The web server's door: waitress, with limits on what a slow, greedy or hostile client can hold.

waitress reads every connection beside the threads that answer, so a slow client costs a connection, never a thread. What it lacks is added
here: a time in which a request must have arrived, a share of the connections for one address, and sizes by who asks and for what.
"""

from __future__ import annotations

import copy
import ssl
import threading
import time
from collections import Counter
from http.cookies import CookieError, SimpleCookie
from typing import Any

from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.server import create_server
from waitress.utilities import RequestEntityTooLarge

HEADER_S, IDLE_S = 10.0, 60.0  # for a request's first line and headers; without a word
BODY_S, LEAST_BYTES_S = 20.0, 20_000.0  # for a body: so long, and longer the more it brings
MOST_HEADER, MOST_BODY, MOST_UPLOAD, MOST_UNKNOWN = 32_768, 3_000_000, 320_000_000, 100_000  # bytes
CONNECTIONS, OF_ONE_ADDRESS = 1_000, 128
THREADS = 16
TLS_RECORD = 16_384  # bytes
UPLOADS = ("/jobs/read/", "/photos/", "/underlay/", "/log-file/", "/tray/")  # in addresses that take files
TOO_LARGE = (
    "That is more than Stator takes here: 25 MB a picture, 12 pictures at once, 150 MB a job, 1 MB an engine card. Nothing was kept."
)
UNKNOWN = "Sign in first: nothing so large is taken from someone who has not."


class Parser(HTTPRequestParser):  # type: ignore[misc]
    """A request whose size is judged by its headers, before its body is read."""

    adj: Any
    error: Any

    def parse_header(self, header_plus: bytes) -> None:
        super().parse_header(header_plus)
        self.adj = copy.copy(self.adj)
        self.adj.max_request_body_size = most_body(self.path, self.headers.get("COOKIE", ""))

    def received(self, data: bytes) -> int:
        consumed: int = super().received(data)
        if isinstance(self.error, RequestEntityTooLarge) and not isinstance(self.error, TooLarge):
            known = self.adj.max_request_body_size > MOST_UNKNOWN
            self.error = TooLarge(TOO_LARGE if known else UNKNOWN)
        return consumed


class TooLarge(RequestEntityTooLarge):  # type: ignore[misc]
    """413 in the words of the app."""

    def to_response(self, ident: str | None = None) -> tuple[str, list[tuple[str, str]], bytes]:
        page = f"<!doctype html><html lang=en><meta charset=utf-8><title>Too large · Stator</title><h1>Too large</h1><p>{self.body}</p>"
        return f"{self.code} {self.reason}", [("Content-Type", "text/html; charset=utf-8")], page.encode()


def most_body(path: str, cookies: str) -> int:
    """The largest body, bytes, that is read for an address: small for whoever shows no session, large where files are taken.

    >>> most_body("/sign-in/", ""), most_body("/jobs/0412/true/keep/", "sessionid=x"), most_body("/jobs/0412/photos/", "sessionid=x")
    (100000, 3000000, 320000000)
    """
    try:
        known = "sessionid" in SimpleCookie(cookies)
    except CookieError:
        known = False
    if not known:
        return MOST_UNKNOWN
    return MOST_UPLOAD if any(part in path for part in UPLOADS) else MOST_BODY


class Channel(HTTPChannel):  # type: ignore[misc]
    """A connection that must get on with it."""

    parser_class = Parser
    begun = 0.0  # when the request that is arriving began

    def received(self, data: bytes) -> bool:
        if self.request is None:
            self.begun = time.time()
        return bool(super().received(data))

    def late(self, now: float) -> bool:
        """Whether the request that is arriving has taken too long, or nothing has come at all."""
        arriving = self.request
        if self.requests:
            return False
        if arriving is None:
            return now - float(self.last_activity) > (HEADER_S if not self.begun else IDLE_S)
        if not arriving.headers_finished:
            return now - self.begun > HEADER_S
        return now - self.begun > BODY_S + float(arriving.body_bytes_received) / LEAST_BYTES_S


class TlsChannel(Channel):
    """A connection whose bytes are TLS. One lock, since a thread that answers may send while the main one reads."""

    def __init__(self, server: Any, sock: Any, address: Any, adj: Any, map: Any = None) -> None:
        self.turn = threading.Lock()
        secured = server.tls.wrap_socket(sock, server_side=True, do_handshake_on_connect=False)
        super().__init__(server, secured, address, adj, map=map)

    def handle_read(self) -> None:
        while self.connected:
            try:
                with self.turn:
                    data = self.socket.recv(TLS_RECORD)
                    more = self.socket.pending()
            except (ssl.SSLWantReadError, ssl.SSLWantWriteError):
                return
            except OSError:  # no TLS, a certificate that is not trusted, a connection cut off
                data, more = b"", 0
            if not data:
                self.handle_close()
                return
            self.last_activity = time.time()
            self.received(data)
            if not more:  # of what is decrypted already no poll tells
                return

    def send(self, data: bytes, do_close: bool = True) -> int:
        try:
            with self.turn:
                return int(self.socket.send(data))
        except (ssl.SSLWantReadError, ssl.SSLWantWriteError):
            return 0
        except OSError:
            if do_close:
                self.handle_close()
            return 0


def guarded(application: Any, listen: str, *, threads: int = THREADS, behind_proxy: bool = False, tls: ssl.SSLContext | None = None) -> Any:
    """A server that is ready to run: `guarded(...).run()`."""
    proxy: dict[str, Any] = {"url_scheme": "https"} if tls else {}
    if behind_proxy:
        proxy = {"trusted_proxy": "127.0.0.1", "trusted_proxy_headers": {"x-forwarded-proto", "x-forwarded-for"}, "trusted_proxy_count": 1}
    server = create_server(
        application,
        listen=listen,
        threads=threads,
        ident="Stator",
        connection_limit=CONNECTIONS,
        channel_timeout=int(IDLE_S),
        cleanup_interval=2,
        max_request_header_size=MOST_HEADER,
        max_request_body_size=MOST_UPLOAD,
        inbuf_overflow=1_000_000,
        clear_untrusted_proxy_headers=True,
        asyncore_use_poll=True,
        **proxy,
    )
    for one in getattr(server, "map", {}).values() if not hasattr(server, "channel_class") else [server]:
        if hasattr(one, "channel_class"):
            _guard(one, proxied=behind_proxy, tls=tls)
    return server


def _guard(server: Any, *, proxied: bool, tls: ssl.SSLContext | None) -> None:
    plain = server.maintenance
    accept = server.handle_accept
    server.channel_class, server.tls = (TlsChannel if tls else Channel), tls

    def maintenance(now: float) -> None:
        plain(now)
        for channel in list(server.active_channels.values()):
            if channel.late(now):
                channel.will_close = True

    def handle_accept() -> None:
        accept()
        if proxied:  # all come from the proxy, which has limits of its own
            return
        everyone = [channel for channel in server.active_channels.values() if channel.addr and not channel.will_close]
        crowded = {address for address, count in Counter(each.addr[0] for each in everyone).items() if count > OF_ONE_ADDRESS}
        for address in crowded:  # the one that has waited longest without getting anywhere makes room
            idle = [each for each in everyone if each.addr[0] == address and not each.requests]
            if idle:
                min(idle, key=lambda each: float(each.creation_time)).will_close = True

    server.maintenance, server.handle_accept = maintenance, handle_accept
