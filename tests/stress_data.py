"""The shop that `bin/soak` works on: a data folder with one job, and its server."""

from __future__ import annotations

import http.client
import os
import re
import sqlite3
import subprocess
import sys
import tempfile
import time
from contextlib import closing, suppress
from pathlib import Path
from urllib.parse import urlencode

ROOT = Path(__file__).parent.parent
PORT = int(os.environ.get("STATOR_SOAK_PORT", "8931"))


class Shop:
    """A data folder with one job, and a server that can be killed."""

    def __init__(self) -> None:
        self.root = Path(tempfile.mkdtemp(prefix="stator-soak-"))
        self.data = self.root / "stator"
        self.env = {
            **os.environ,
            "STATOR_DATA": str(self.data),
            "STATOR_PLAIN_HTTP": "1",
            "STATOR_HOSTS": "127.0.0.1",
            "STATOR_BACKUPS_KEPT": "0",
            "DJANGO_SETTINGS_MODULE": "stator.settings",
            "PYTHONDONTWRITEBYTECODE": "",
            "PYTHONPYCACHEPREFIX": str(self.root / "compiled"),
        }
        self.server: subprocess.Popen | None = None
        self.cookie = ""

    def run(self, *words: str) -> subprocess.CompletedProcess:
        command = [sys.executable, "-W", "ignore", *words]
        return subprocess.run(command, env=self.env, cwd=ROOT, capture_output=True, text=True, check=False)

    def lay(self) -> None:
        code = """
import django; django.setup()
from django.core.management import call_command
call_command("migrate", verbosity=0)
call_command("collectstatic", interactive=False, verbosity=0)
from django.conf import settings
from django.test import Client
from stator.engines.models import EngineCard
from tests.factories import job, person
made = job(412, order="crank")
EngineCard.objects.update(stroke_mm=58, crank="built_up")
for name in ("una", "bram"):
    client = Client()
    client.force_login(person(name), backend="django.contrib.auth.backends.ModelBackend")
    print(client.cookies["sessionid"].value)
"""
        done = self.run("-c", code)
        if done.returncode:
            raise SystemExit(done.stderr[-2000:])
        self.cookies = done.stdout.split()[-2:]

    def start(self) -> None:
        command = [sys.executable, "-W", "ignore", "manage.py", "serve", "--listen", f"127.0.0.1:{PORT}"]
        self.server = subprocess.Popen(command, env=self.env, cwd=ROOT, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        for _ in range(400):
            with suppress(OSError, http.client.HTTPException):
                if self.ask("GET", "/alive/")[0] == 200:
                    return
            time.sleep(0.05)
        raise SystemExit("the server does not answer")

    def kill(self) -> None:
        assert self.server is not None
        self.server.kill()
        self.server.wait()

    def ask(self, method: str, path: str, said: dict | None = None, who: int = 0, timeout: float = 20) -> tuple[int, dict, str]:
        """Status, headers and text of an answer."""
        with closing(http.client.HTTPConnection("127.0.0.1", PORT, timeout=timeout)) as line:
            token = "a" * 32
            headers = {"Cookie": f"sessionid={self.cookies[who]}; csrftoken={token}", "HX-Request": "true"}
            body = None
            if said is not None:
                headers |= {"Content-Type": "application/x-www-form-urlencoded", "X-CSRFToken": token}
                body = urlencode(said)
            line.request(method, path, body, headers)
            answer = line.getresponse()
            return answer.status, dict(answer.getheaders()), answer.read().decode("utf-8", "replace")

    def sql(self, words: str) -> list:
        with closing(sqlite3.connect(self.data / "stator.sqlite3", timeout=20)) as found:
            return found.execute(words).fetchall()

    def seen(self, page: str, who: int = 0) -> str:
        found = re.search(r'data-seen="([^"]*)"', self.ask("GET", page, who=who)[2])
        return found[1] if found else ""
