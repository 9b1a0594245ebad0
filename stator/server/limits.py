"""Web server: waitress, with limits on what a slow, greedy or hostile client can occupy.

waitress reads and writes every connection in one thread beside the threads that answer, so a slow client costs a connection and never a
thread. It has no limit on time, on requests that a client sends without reading the answers, or on one address. This module adds:

- a time in which a request must have arrived, and in which a client must read some of an answer;
- one request at a time per connection: the connection closes after the answer if the client sent more without waiting (RFC 9112 allows it);
- bounds on the bytes that are being uploaded and on the bytes of answers that nobody reads, per address and in total;
- sizes by who asks and for what: only a session that exists may send a large body.

A server with asynchronous answers would need no such limits on threads, but it would answer one request of Django after the other or hold
each answer in memory; and waitress already carries the shop's TLS connections here.
"""

from __future__ import annotations

import copy
import logging
import shutil
import ssl
import tempfile
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterable
from functools import partial
from http.cookies import CookieError, SimpleCookie
from typing import Any

from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.server import create_server
from waitress.utilities import Error, RequestEntityTooLarge

HEADER_S, IDLE_S, STALLED_S = 10.0, 60.0, 30.0  # for a request's first line and headers; without a byte; an answer of which nothing is read
BODY_S, LEAST_BYTES_S, BODY_MOST_S = 20.0, 20_000.0, 1_200.0  # for a body: so long, longer the more it brings, at most
MOST_HEADER, MOST_BODY, MOST_UPLOAD, MOST_UNKNOWN = 32_768, 3_000_000, 320_000_000, 100_000  # bytes
CONNECTIONS, OF_ONE_ADDRESS = 1_000, 128
UPLOADING_OF_ONE_ADDRESS, UPLOADING = 640_000_000, 1_280_000_000  # bytes of large bodies on their way: declared, not yet answered
UNSENT_OF_ONE_ADDRESS, UNSENT = 400_000_000, 1_200_000_000  # bytes of answers that were not read yet
FREE = 200_000_000  # bytes of the disk that uploads leave free
THREADS = 16
TLS_RECORD = 16_384  # bytes
UPLOADS = ("/jobs/read/", "/photos/", "/underlay/", "/log-file/", "/tray/")  # in addresses that take files
TOO_LARGE = (
    "That is more than Stator takes here: 25 MB a picture, 12 pictures at once, 150 MB a job, 1 MB an engine card. Nothing was kept."
)
UNKNOWN = "Sign in first: nothing so large is taken from someone who has not."
BUSY = "Too many large files are being sent. Nothing was saved. Wait until one of them has arrived, then send this one again."
DISK_FULL = "The disk of the server is nearly full. Nothing was saved. Free some space on it, then send the file again."
LOG = logging.getLogger(__name__)


class _Page:
    """An error page of waitress in the words of the app."""

    code: int
    reason: str
    body: str

    def to_response(self, ident: str | None = None) -> tuple[str, list[tuple[str, str]], bytes]:
        title = self.reason.capitalize()
        page = f"<!doctype html><html lang=en><meta charset=utf-8><title>{title} · Stator</title><h1>{title}</h1><p>{self.body}</p>"
        return f"{self.code} {self.reason}", [("Content-Type", "text/html; charset=utf-8")], page.encode()


class TooLarge(_Page, RequestEntityTooLarge):  # type: ignore[misc]
    """413 for a body that is larger than anything this address takes."""


class NoRoom(_Page, Error):  # type: ignore[misc]
    """503 for an upload that has to wait, or that the disk has no room for."""

    code, reason = 503, "Service Unavailable"


class Parser(HTTPRequestParser):  # type: ignore[misc]
    """A request whose size is judged by its headers, before its body is read."""

    adj: Any
    error: Any

    def __init__(self, adj: Any, refuses: Callable[[int], str] = lambda size: "") -> None:
        """`refuses` returns the reason why a large body of so many bytes cannot be taken now; empty if it can."""
        super().__init__(adj)
        self.refuses = refuses

    @property
    def declared(self) -> int:
        """Bytes of the body by its headers; as many as are allowed if it comes in chunks of unknown number."""
        return int(self.adj.max_request_body_size) if self.chunked else int(self.content_length)

    def parse_header(self, header_plus: bytes) -> None:
        super().parse_header(header_plus)
        self.adj = copy.copy(self.adj)
        small = not self.chunked and self.content_length <= MOST_UNKNOWN
        self.adj.max_request_body_size = MOST_UNKNOWN if small else most_body(self.path, self.headers.get("COOKIE", ""))
        if MOST_UNKNOWN < self.declared <= self.adj.max_request_body_size and (reason := self.refuses(self.declared)):
            self.error, self.completed = NoRoom(reason), True

    def received(self, data: bytes) -> int:
        consumed: int = super().received(data)
        if isinstance(self.error, RequestEntityTooLarge) and not isinstance(self.error, TooLarge):
            known = self.adj.max_request_body_size > MOST_UNKNOWN
            self.error = TooLarge(TOO_LARGE if known else UNKNOWN)
        return consumed


def signed_in(cookies: str) -> bool:
    """Return True if a Cookie header names a session of somebody who is signed in.

    It is looked up, since anyone can make up a name.
    """
    from django.conf import settings
    from django.contrib.auth import SESSION_KEY
    from django.contrib.sessions.backends.db import SessionStore
    from django.db import DatabaseError

    try:
        morsel = SimpleCookie(cookies).get(settings.SESSION_COOKIE_NAME)
        return bool(morsel and SessionStore(morsel.value).get(SESSION_KEY))
    except (CookieError, DatabaseError):
        return False


def most_body(path: str, cookies: str) -> int:
    """Return the largest body, in bytes, that is read for an address: small without sign-in, large for uploads.

    >>> most_body("/sign-in/", "")
    100000
    """
    if not signed_in(cookies):
        return MOST_UNKNOWN
    return MOST_UPLOAD if any(part in path for part in UPLOADS) else MOST_BODY


class Channel(HTTPChannel):  # type: ignore[misc]
    """A connection with limits."""

    begun = 0.0  # when the request that is arriving began
    moved_at = 0.0  # when the client last read some of an answer
    pipelined = False  # whether the client sent a request before it had the answer to the one before

    def __init__(self, server: Any, sock: Any, address: Any, adj: Any, map: Any = None) -> None:
        super().__init__(server, sock, address, adj, map=map)
        self.parser_class = partial(Parser, refuses=self._refuses)

    def _refuses(self, size: int) -> str:
        """Return why a large body cannot be taken now."""
        if shutil.disk_usage(tempfile.gettempdir()).free - size < FREE:
            return DISK_FULL
        others = [each for each in self.server.active_channels.values() if each is not self]
        of_address = self.server.proxied or sum(each.uploading for each in others if each.host == self.host)
        return BUSY if of_address + size > UPLOADING_OF_ONE_ADDRESS or sum(each.uploading for each in others) + size > UPLOADING else ""

    @property
    def host(self) -> str:
        """Address of the client without its port; of the proxy if there is one."""
        return str(self.addr[0]) if self.addr else ""

    @property
    def uploading(self) -> int:
        """Bytes of a large body that is arriving or being answered."""
        bodies = [each.declared for each in (self.request, *self.requests[:1]) if each is not None and each.headers_finished]
        return sum(size for size in bodies if size > MOST_UNKNOWN)

    def received(self, data: bytes) -> bool:
        if self.request is None:
            self.begun = time.time()
        taken = bool(super().received(data))
        with self.requests_lock:
            if len(self.requests) > 1:
                self.pipelined = True
                for request in self.requests[1:]:
                    request.close()
                del self.requests[1:]
        return taken

    def service(self) -> None:
        """Answer one request, and close the connection then if the client did not wait for the answer."""
        if self.pipelined:
            self.requests[0].headers["CONNECTION"] = "close"
        super().service()
        if self.pipelined:
            with self.requests_lock:
                self.close_when_flushed = True
            self.server.pull_trigger()

    def readable(self) -> bool:
        return not self.pipelined and bool(super().readable())

    def write_soon(self, data: Any) -> int:
        if not self.total_outbufs_len:
            self.moved_at = time.time()
        return int(super().write_soon(data))

    def _flush_some(self, do_close: bool = True) -> bool:
        moved = bool(super()._flush_some(do_close=do_close))
        if moved:
            self.moved_at = time.time()
        return moved

    def late(self, now: float) -> bool:
        """Return True if a request arrives too slowly, nothing has arrived at all, or nothing of a response is read."""
        if self.total_outbufs_len and now - self.moved_at > STALLED_S:
            return True
        arriving = self.request
        if self.requests:
            return False
        if arriving is None:
            return now - float(self.last_activity) > (HEADER_S if not self.begun else IDLE_S)
        if not arriving.headers_finished:
            return now - self.begun > HEADER_S
        return now - self.begun > min(BODY_MOST_S, BODY_S + float(arriving.body_bytes_received) / LEAST_BYTES_S)


def unread(channels: Iterable[Channel], *, proxied: bool) -> list[Channel]:
    """Return the connections to close so that unread response bytes stay within their limits, the longest unread first."""
    waiting = sorted((each for each in channels if each.total_outbufs_len), key=lambda each: each.moved_at)
    total, by_host = sum(each.total_outbufs_len for each in waiting), Counter[str]()
    for each in waiting:
        by_host[each.host] += each.total_outbufs_len
    found = []
    for each in waiting:
        own = each.total_outbufs_len if proxied else by_host[each.host]
        if total > UNSENT or own > UNSENT_OF_ONE_ADDRESS:
            found.append(each)
            total -= each.total_outbufs_len
            by_host[each.host] -= each.total_outbufs_len
    return found


class TlsChannel(Channel):
    """A connection whose bytes are TLS.

    One lock, since a thread that answers may send while the main one reads.
    """

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
    server.channel_class, server.tls, server.proxied = (TlsChannel if tls else Channel), tls, proxied

    def maintenance(now: float) -> None:
        plain(now)
        channels = list(server.active_channels.values())
        for channel in {*(each for each in channels if each.late(now)), *unread(channels, proxied=proxied)}:
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
