"""Web server under clients that send without reading, and that offer more than they may."""

from __future__ import annotations

import http.client
import socket
import threading
from contextlib import closing
from unittest.mock import patch

from django.test import Client, SimpleTestCase, TestCase
from waitress.adjustments import Adjustments

from stator.server import limits
from stator.server.limits import MOST_BODY, MOST_UNKNOWN, MOST_UPLOAD, Channel, Parser, guarded, most_body, unread
from tests.factories import person

LARGE = b"x" * 201_000
REQUEST = b"GET /large/ HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n"


def application(environ, start_response):
    body = LARGE if environ["PATH_INFO"] == "/large/" else b"alive"
    start_response("200 OK", [("Content-Length", str(len(body)))])
    return [body]


class Unread(SimpleTestCase):
    """A server of its own, and connections whose clients read nothing."""

    def setUp(self):
        self.server = guarded(application, "127.0.0.1:0", threads=4)
        self.port = self.server.socket.getsockname()[1]
        thread = threading.Thread(target=self.server.run, daemon=True)
        thread.start()
        self.addCleanup(thread.join)
        self.addCleanup(self.stop)

    def stop(self):
        """End the server's loop, in its own thread."""

        def close():
            for channel in list(self.server.active_channels.values()):
                channel.handle_close()
            self.server.close()

        self.server.trigger.pull_trigger(close)
        self.server.task_dispatcher.shutdown()

    def greedy(self, requests: bytes):
        line = socket.socket()
        self.addCleanup(line.close)
        line.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 4096)
        line.connect(("127.0.0.1", self.port))
        line.sendall(requests)
        return line

    def ask(self):
        with closing(http.client.HTTPConnection("127.0.0.1", self.port, timeout=30)) as line:
            line.request("GET", "/alive/")
            return line.getresponse().read()

    def test_forty_connections_that_read_nothing_leave_the_server_free(self):
        for _ in range(40):
            self.greedy(REQUEST * 103)
        while self.server.task_dispatcher.queue:  # until every request that is answered at all has been answered
            self.assertEqual(self.ask(), b"alive")
        self.assertEqual([self.ask() for _ in range(5)], [b"alive"] * 5)

    def test_who_does_not_wait_for_an_answer_gets_one_and_is_closed(self):
        line = self.greedy(REQUEST * 3)
        data = b""
        line.settimeout(30)
        while part := line.recv(65536):
            data += part
        self.assertEqual(data.count(b"HTTP/1.1 200 OK"), 1)
        self.assertEqual(data.count(LARGE), 1)
        self.assertIn(b"Connection: close", data)

    def test_requests_one_after_the_other_share_a_connection(self):
        with closing(http.client.HTTPConnection("127.0.0.1", self.port, timeout=30)) as line:
            for _ in range(3):
                line.request("GET", "/large/")
                self.assertEqual(line.getresponse().read(), LARGE)
                self.assertIsNotNone(line.sock)


class Bounds(SimpleTestCase):
    """Tests of closing connections."""

    def channel(self, **values):
        found = Channel.__new__(Channel)
        defaults = {"requests": [], "request": None, "begun": 1.0, "last_activity": 1000.0, "total_outbufs_len": 0, "moved_at": 0.0}
        for name, value in {**defaults, "addr": ("10.0.0.1", 1), **values}.items():
            setattr(found, name, value)
        return found

    def test_an_answer_of_which_nothing_is_read_for_half_a_minute_is_given_up(self):
        channel = self.channel(total_outbufs_len=10, moved_at=1000.0, requests=["being answered"])
        self.assertEqual([channel.late(1029), channel.late(1031)], [False, True])

    def test_a_body_may_take_twenty_minutes_however_much_it_brings(self):
        arriving = type("Arriving", (), {"headers_finished": True, "body_bytes_received": 300_000_000})()
        channel = self.channel(request=arriving, begun=1000.0)
        self.assertEqual([channel.late(2199), channel.late(2201)], [False, True])

    def test_unread_bytes_of_one_address_and_of_all_are_bounded(self):
        def lines(count, size, host):
            return [self.channel(total_outbufs_len=size, moved_at=1000.0 + number, addr=(host, number)) for number in range(count)]

        one = lines(5, 100_000_000, "10.0.0.1")
        self.assertEqual(unread(one, proxied=False), one[:1])
        self.assertEqual(unread(one, proxied=True), [])
        everyone = [line for number in range(4) for line in lines(4, 100_000_000, f"10.0.0.{number}")]
        self.assertEqual(len(unread(everyone, proxied=False)), 4)
        self.assertEqual(len(unread(lines(1, 500_000_000, "10.0.0.1"), proxied=True)), 1)


class Uploads(TestCase):
    """A large body is taken only from a session that exists, while there is room for it."""

    def setUp(self):
        client = Client()
        client.force_login(person())
        self.cookie = f"sessionid={client.cookies['sessionid'].value}"

    def parsed(self, size, cookie="", path="/jobs/read/", refuses=lambda size: "", chunked=False):
        parser = Parser(Adjustments(max_request_body_size=320_000_000, max_request_header_size=32_768), refuses)
        length = "Transfer-Encoding: chunked" if chunked else f"Content-Length: {size}"
        parser.received(f"POST {path} HTTP/1.1\r\nHost: x\r\n{length}\r\nCookie: {cookie}\r\n\r\n".encode())
        return parser

    def test_a_made_up_session_is_no_session(self):
        for cookie in ("", "sessionid=abc", "sessionid=" + "a" * 32, "csrftoken=x", "sessionid"):
            with self.subTest(cookie):
                refused = self.parsed(MOST_UNKNOWN + 1, cookie)
                self.assertEqual((refused.completed, refused.error.code), (True, 413))
                self.assertIn(b"Sign in first", refused.error.to_response()[2])
                self.assertEqual(most_body("/jobs/read/", cookie), MOST_UNKNOWN)

    def test_a_session_that_ended_is_no_session(self):
        self.client.cookies.load(self.cookie)
        self.client.post("/sign-out/")
        self.assertEqual(self.parsed(100_000_000, self.cookie).error.code, 413)

    def test_who_is_signed_in_sends_files_where_files_are_taken(self):
        self.assertEqual((most_body("/jobs/read/", self.cookie), most_body("/shop/", self.cookie)), (MOST_UPLOAD, MOST_BODY))
        self.assertIsNone(self.parsed(100_000_000, self.cookie).error)
        self.assertIn(b"25 MB a picture", self.parsed(400_000_000, self.cookie).error.to_response()[2])
        self.assertEqual(self.parsed(4_000_000, self.cookie, "/jobs/0412/true/keep/").error.code, 413)

    def test_a_body_in_chunks_counts_as_the_largest(self):
        self.assertEqual(self.parsed(0, chunked=True).declared, MOST_UNKNOWN)
        self.assertEqual(self.parsed(0, self.cookie, chunked=True).declared, MOST_UPLOAD)

    def test_uploads_wait_where_too_many_are_on_their_way_and_where_the_disk_is_full(self):
        busy = self.parsed(100_000_000, self.cookie, refuses=lambda size: limits.BUSY)
        self.assertEqual((busy.completed, busy.error.code), (True, 503))
        self.assertIn(b"Too many large files are being sent.", busy.error.to_response()[2])
        self.assertIsNone(self.parsed(2_000, self.cookie, refuses=lambda size: limits.BUSY).error)
        self.assertEqual(self.parsed(100_000_000, "sessionid=abc", refuses=lambda size: limits.BUSY).error.code, 413)

    def test_bodies_of_one_address_and_of_all_are_counted(self):
        def line(host, size):
            channel = Channel.__new__(Channel)
            arriving = type("Arriving", (), {"headers_finished": True, "declared": size})()
            channel.requests, channel.request, channel.addr, channel.server = [], arriving, (host, 1), server
            return channel

        server = type("Server", (), {"proxied": False, "active_channels": {}})()
        server.active_channels = dict(enumerate([line("10.0.0.1", 320_000_000), line("10.0.0.1", 320_000_000)]))
        self.assertEqual(line("10.0.0.1", 0)._refuses(200_000), limits.BUSY)
        self.assertEqual(line("10.0.0.2", 0)._refuses(200_000), "")
        server.active_channels = {number: line(f"10.0.0.{number}", 320_000_000) for number in range(4)}
        self.assertEqual(line("10.0.0.9", 0)._refuses(200_000), limits.BUSY)
        server.active_channels = {}
        usage = type("Usage", (), {"free": 100_000_000})()
        with patch("stator.server.limits.shutil.disk_usage", return_value=usage):
            self.assertEqual(line("10.0.0.1", 0)._refuses(200_000), limits.DISK_FULL)
