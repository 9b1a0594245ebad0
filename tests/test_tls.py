"""Tests of the shop's own certificates (creation, trust, renewal) and of a TLS server."""

from __future__ import annotations

import ipaddress
import json
import socket
import ssl
import subprocess
import sys
import tempfile
import threading
import urllib.request
from datetime import timedelta
from hashlib import sha256
from pathlib import Path
from unittest.mock import patch

from django.test import SimpleTestCase, TestCase, override_settings
from django.utils import timezone

from stator.server import network_addresses
from stator.server.limits import guarded
from stator.server.tls import OwnCertificate
from stator.shop.models import Shop
from tests.factories import job, person

NAMES = ["localhost", "127.0.0.1", "192.168.7.20", "bench.local"]


class Certificates(SimpleTestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory())) / "tls"
        self.now = timezone.now()

    def own(self, names=NAMES):
        return OwnCertificate(self.folder, names)

    def test_it_is_made_once_kept_private_and_made_anew_a_month_before_it_ends(self):
        self.assertTrue(self.own().bring_up_to_date(self.now))
        self.assertEqual({each.stat().st_mode & 0o077 for each in self.folder.iterdir()}, {0})
        trusted = self.own().for_phones()
        self.assertFalse(self.own().bring_up_to_date(self.now + timedelta(days=300)))
        self.assertTrue(self.own().bring_up_to_date(self.now + timedelta(days=340)))
        self.assertEqual(self.own().for_phones(), trusted)  # no phone is asked again

    def test_another_address_of_the_shop_needs_no_new_trust_and_a_public_name_does(self):
        self.own().bring_up_to_date(self.now)
        trusted = self.own().for_phones()
        self.assertTrue(self.own([*NAMES, "10.1.2.3"]).bring_up_to_date(self.now))
        self.assertEqual(self.own().for_phones(), trusted)
        self.assertTrue(self.own([*NAMES, "bench.example"]).bring_up_to_date(self.now))
        self.assertNotEqual(self.own().for_phones(), trusted)


def application(environ, start_response):
    body = environ["wsgi.input"].read()
    values = {"scheme": environ["wsgi.url_scheme"], "from": environ["REMOTE_ADDR"], "digest": sha256(body).hexdigest()}
    start_response("200 OK", [("Content-Type", "application/json")])
    return [json.dumps(values | {"back": "x" * len(body)}).encode()]


class Without(SimpleTestCase):
    def test_a_server_without_tls_and_photos_keeps_the_memory_of_what_makes_and_reads_them(self):
        loads = "import sys, django; django.setup(); import stator.urls, stator.wsgi, stator.management.commands.serve"
        tells = "print(sorted({'cryptography', 'pi_heif', 'typst', 'scipy', 'numpy', 'stator.stations'} & set(sys.modules)))"
        found = subprocess.run([sys.executable, "-c", f"{loads}; {tells}"], capture_output=True, text=True, check=True)
        self.assertEqual(found.stdout.strip().splitlines()[-1], "['stator.stations']")


class Spoken(SimpleTestCase):
    def setUp(self):
        self.enterContext(patch("stator.server.limits.signed_in", return_value=True))  # this server has no sessions
        folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.own = OwnCertificate(folder, NAMES)
        self.own.bring_up_to_date(timezone.now())
        self.server = guarded(application, "127.0.0.1:0", tls=self.own.context())
        self.port = self.server.effective_port
        thread = threading.Thread(target=self.server.run, daemon=True)
        thread.start()
        self.addCleanup(thread.join, 10)
        self.addCleanup(self.server.close)
        self.trusting = ssl.create_default_context(cafile=self.own.authority)

    def asked(self, body, host="localhost"):
        request = urllib.request.Request(f"https://{host}:{self.port}/photos/", body, {"Cookie": "sessionid=x"})
        with urllib.request.urlopen(request, context=self.trusting, timeout=20) as answer:
            return json.load(answer)

    def test_a_large_body_goes_there_and_back_whole_by_name_and_by_address(self):
        body = bytes(range(256)) * 8000
        for host in ("localhost", "127.0.0.1"):
            said = self.asked(body, host)
            self.assertEqual((said["scheme"], said["from"]), ("https", "127.0.0.1"))
            self.assertEqual((said["digest"], len(said["back"])), (sha256(body).hexdigest(), len(body)))

    def test_twenty_at_once_and_one_that_speaks_no_tls_costs_the_others_nothing(self):
        with socket.create_connection(("127.0.0.1", self.port)) as plain:
            plain.sendall(b"GET / HTTP/1.1\r\n\r\n")
            found = []
            callers = [threading.Thread(target=lambda: found.append(self.asked(b"y" * 50_000)["digest"])) for _ in range(20)]
            for each in callers:
                each.start()
            for each in callers:
                each.join()
        self.assertEqual(found, [sha256(b"y" * 50_000).hexdigest()] * 20)

    def test_whoever_does_not_trust_the_shop_is_warned(self):
        with self.assertRaises(ssl.SSLCertVerificationError), socket.create_connection(("127.0.0.1", self.port)) as line:
            ssl.create_default_context().wrap_socket(line, server_hostname="localhost")


class Addresses(TestCase):
    def test_those_of_this_machine_come_private_first_and_the_first_is_drawn(self):
        found = network_addresses.of_this_machine()
        self.assertFalse(any(each.startswith("127.") for each in found))
        numbers = [ipaddress.ip_address(each).is_private for each in found if each[0].isdigit()]
        self.assertEqual(numbers, sorted(numbers, reverse=True))
        said = network_addresses.format_address("https", 8000, ["localhost", "127.0.0.1", "192.168.7.20", "bench.local"])
        self.assertIn("On a phone (https://192.168.7.20:8000/)", said)
        self.assertIn("this machine alone", network_addresses.format_address("http", 8000, ["localhost", "127.0.0.1"]))

    def test_links_and_labels_use_the_shops_address_then_the_servers_then_the_one_asked(self):
        self.client.force_login(person())
        job()
        self.assertContains(self.client.get("/shop/phones/"), "http://testserver/")
        with override_settings(ADDRESS="https://192.168.7.20:8000"):
            self.assertContains(self.client.get("/shop/phones/"), "https://192.168.7.20:8000/")
            Shop.current().save()
            Shop.objects.update(address="https://bench.example/")
            self.assertContains(self.client.get("/shop/phones/"), "https://bench.example/")
            given = self.client.post("/jobs/0412/sheet/link/", {"days": "30"})
            self.assertContains(given, "https://bench.example/owner/")

    def test_the_certificate_is_anyones_to_load_and_its_page_shows_its_fingerprint(self):
        with tempfile.TemporaryDirectory() as folder, override_settings(TLS_FOLDER=folder):
            self.assertEqual(self.client.get("/certificate/").status_code, 404)
            own = OwnCertificate(Path(folder), NAMES)
            own.bring_up_to_date(timezone.now())
            self.assertEqual(self.client.get("/certificate/").content, own.for_phones())
            self.client.force_login(person())
            page = self.client.get("/shop/phones/", secure=True)
            self.assertContains(page, own.fingerprint().replace(":", ""))
            self.assertContains(self.client.get("/shop/phones/"), "bin/serve --tls")
