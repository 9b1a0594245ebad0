"""Faults under load with the real server in a data folder of its own: `bin/soak`. Results are in docs/reliability.md."""

from __future__ import annotations

import http.client
import os
import random
import shutil
import socket
import subprocess
import sys
import tempfile
import threading
import time
import uuid
from collections import Counter
from collections.abc import Callable
from contextlib import closing, suppress
from pathlib import Path

from tests.stress_data import PORT, ROOT, Shop

SCALE = 1.0
ROWS: list[tuple[str, str, str]] = []
STRIP = "/jobs/0412/hand-over/"  # parts used: a list, each line kept
TRUE = "/jobs/0412/true/"


def count(full: int) -> int:
    return max(2, round(full * SCALE))


def row(what: str, tried: str, came: str) -> None:
    ROWS.append((what, tried, came))
    print(f"{what:58} {tried:>22}   {came}", flush=True)


# the parts


def kills(shop: Shop) -> None:
    """Readings one after another, the server killed in between: what was answered is there, once."""
    acknowledged, lost, doubled, tries = [], 0, 0, count(200)
    shop.start()
    pending: tuple[str, str] | None = None
    for number in range(tries):
        end = time.monotonic() + random.uniform(0.05, 0.4)
        killer = threading.Timer(end - time.monotonic(), shop.kill)
        killer.start()
        with suppress(OSError, http.client.HTTPException):
            while True:
                key, text = pending or (uuid.uuid4().hex, f"part {len(acknowledged)} of {number}")
                pending = (key, text)
                status, headers, _ = shop.ask("POST", f"{STRIP}keep/", {"ask": "parts-used", "text": text, "client_key": key})
                if status == 200 and headers.get("X-Kept") == "yes":
                    acknowledged.append(text)
                    pending = None
        killer.join()
        shop.start()
    shop.kill()
    saved = [text for (text,) in shop.sql("SELECT text FROM jobs_reading WHERE ask = 'parts-used' AND withdrawn_at IS NULL")]
    lost = len(set(acknowledged) - set(saved))
    doubled = len(saved) - len(set(saved))
    row("kill -9 while readings are kept", f"{tries} kills", f"{len(acknowledged)} acknowledged, {lost} lost, {doubled} doubled")


def more_jobs(shop: Shop, first: int, tries: int, station: str) -> None:
    """As many jobs, each with one station before it is handed over."""
    code = f"""
import django; django.setup()
from stator.jobs.models import Job, RunStation
from tests.factories import person
card = Job.objects.get(number=412).card
for number in range({first}, {first + tries}):
    made = Job.objects.create(number=number, card=card, complaint="x", work_order="crank", booked_in_by=person())
    RunStation.objects.create(job=made, order=0, key="{station}")
    RunStation.objects.create(job=made, order=1, key="hand-over")
"""
    shop.run("-c", code)


def signing(shop: Shop) -> None:
    """Killed while signing: signed with its station done, or not signed at all."""
    tries, torn, signed = count(60), 0, 0
    more_jobs(shop, 1000, tries, "flywheel-on")
    for number in range(tries):
        page = f"/jobs/{1000 + number}/hand-over/"
        shop.start()
        shop.ask("POST", f"/jobs/{1000 + number}/run/", {"key": "flywheel-on", "act": "leave", "words": "not wanted"})
        shop.ask("POST", f"{page}keep/", {"ask": "note", "text": "Fetched."})
        seen = shop.seen(page)
        killer = threading.Timer(random.uniform(0.0, 0.08), shop.kill)
        killer.start()
        with suppress(OSError, http.client.HTTPException):
            shop.ask("POST", f"{page}act/", {"action": "sign", "seen": seen, "client_key": uuid.uuid4().hex})
        killer.join()
        state, gone, at = shop.sql(
            "SELECT s.state, j.gone_at, (SELECT e.signed_at FROM jobs_entry e WHERE e.station_id = s.id) FROM jobs_runstation s"
            f" JOIN jobs_job j ON j.id = s.job_id WHERE j.number = {1000 + number} AND s.key = 'hand-over'"
        )[0]
        torn += len({bool(gone), bool(at), state == "done"}) != 1
        signed += bool(at)
    row("kill -9 while an engine is signed out", f"{tries} kills", f"{signed} signed and closed whole, {torn} torn")


def on_supports(shop: Shop) -> None:
    """The crank on its supports, its first reading asked."""
    for key in ("support-place.left", "gauge-place.left", "support-place.right", "gauge-place.right"):
        shop.ask("POST", f"{TRUE}keep/", {"ask": key, "text": "92" if "support" in key else "34"})


def devices(shop: Shop) -> None:
    """Two devices answer one question at once, and one signs while the other writes."""
    shop.start()
    tries, both, gone = count(200), 0, 0
    on_supports(shop)
    for number in range(tries):
        for (pk,) in shop.sql("SELECT id FROM jobs_reading WHERE ask = 'shaft-reading.left.0' AND withdrawn_at IS NULL"):
            shop.ask("POST", f"{TRUE}undo/", {"reading": pk})
        texts = [f"0.{who}{number:03d}" for who in (1, 2)]
        _together([lambda who=who, text=text: _answer(shop, who, text) for who, text in enumerate(texts)])
        found = shop.sql(f"SELECT withdrawn_at IS NULL, came_second FROM jobs_reading WHERE text IN {tuple(texts)}")
        both += sum(stands for stands, _ in found) != 1
        gone += len(found) != 2
    row("two devices answer one question at once", f"{tries} pairs", f"{both} where not exactly one stands, {gone} where one is not kept")
    races(shop)
    shop.kill()


def _answer(shop: Shop, who: int, text: str) -> None:
    values = {"ask": "shaft-reading.left.0", "text": text, "saw": "0", "attempt": "1", "client_key": uuid.uuid4().hex}
    shop.ask("POST", f"{TRUE}keep/", values, who=who)


def _together(requests: list[Callable]) -> None:
    gate = threading.Barrier(len(requests))

    def run(act: Callable) -> None:
        gate.wait()
        with suppress(OSError, http.client.HTTPException):
            act()

    threads = [threading.Thread(target=run, args=(act,)) for act in requests]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()


def races(shop: Shop) -> None:
    """Test that an entry is signed as the signer's page showed it while another device adds a note."""
    tries, wrong, signed = count(200), 0, 0
    more_jobs(shop, 2000, tries, "strip")
    for number in range(tries):
        page = f"/jobs/{2000 + number}/strip/"
        for key, text in (("crank-out", "lifted"), ("part.strip-1", ""), ("note", "one")):
            shop.ask("POST", f"{page}keep/", {"ask": key, "text": text})
        shop.ask("POST", f"{page}tick/", {"key": "tray", "on": "1"})
        seen = shop.seen(page)
        _together(
            [
                lambda page=page, seen=seen: shop.ask("POST", f"{page}act/", {"action": "sign", "seen": seen}),
                lambda page=page: shop.ask("POST", f"{page}keep/", {"ask": "note", "text": "two"}, who=1),
            ]
        )
        entry = shop.sql(
            "SELECT e.signed_at, (SELECT count(*) FROM jobs_reading r WHERE r.entry_id = e.id AND r.text = 'two') FROM jobs_entry e"
            f" JOIN jobs_job j ON j.id = e.job_id WHERE j.number = {2000 + number}"
        )[0]
        signed += bool(entry[0])
        wrong += bool(entry[0] and entry[1])
    row(
        "one signs while another device writes",
        f"{tries} races",
        f"{signed} signed as shown, {tries - signed} refused, {wrong} signed unseen",
    )


def restores(shop: Shop) -> None:
    """Killed at any moment of a restore: the old folder or the new one, whole."""
    tries, neither, old, new = count(100), 0, 0, 0
    file = shop.root / "b.zip"
    photos = shop.data / "photos" / "0412"
    photos.mkdir(parents=True, exist_ok=True)
    for number in range(40):
        (photos / f"{number}.jpg").write_bytes(os.urandom(200_000))
    shop.run("manage.py", "backup", str(file))
    whole = {path.name: path.read_bytes() for path in photos.iterdir()}
    start = time.monotonic()
    shop.run("manage.py", "restore", str(file), "--yes")
    takes = time.monotonic() - start
    for number in range(tries):
        (shop.data / "photos" / "0412" / "mark.jpg").write_bytes(b"old")
        process = subprocess.Popen(
            [sys.executable, "-W", "ignore", "manage.py", "restore", str(file), "--yes"],
            env=shop.env,
            cwd=ROOT,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        with suppress(subprocess.TimeoutExpired):
            process.wait(takes * (0.3 + 0.8 * number / tries))
        process.kill()
        process.wait()
        shop.run("manage.py", "check")  # any start finishes what was left
        found = {path.name: path.read_bytes() for path in (shop.data / "photos" / "0412").glob("*.jpg")}
        marked = found.pop("mark.jpg", None) is not None
        sound = found == whole and shop.sql("PRAGMA integrity_check") == [("ok",)]
        neither += not sound
        old, new = old + marked, new + (not marked)
        for aside in shop.root.glob("stator.before-*"):
            shutil.rmtree(aside)
    row("kill -9 while a backup is put back", f"{tries} kills", f"{old} the old folder, {new} the new one, {neither} neither")


def slow(shop: Shop) -> None:
    """Test that slow connections do not block a normal request."""
    shop.start()
    lines = []
    for number in range(200):
        with suppress(OSError):
            line = socket.create_connection(("127.0.0.1", PORT), timeout=5)
            head = (
                "POST /sign-in/ HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 90000\r\n\r\n"
                if number % 2
                else "GET / HTTP/1.1\r\nHost: 127"
            )
            line.sendall(head.encode())
            lines.append(line)
    worst, asked, end = 0.0, 0, time.monotonic() + 60 * max(SCALE, 0.25)
    dropped = 0
    while time.monotonic() < end:
        for line in list(lines):
            try:
                line.sendall(b"x")
            except OSError:
                lines.remove(line)
                dropped += 1
        start = time.monotonic()
        try:
            shop.ask("GET", "/", timeout=30)
            worst = max(worst, time.monotonic() - start)
        except OSError:
            worst = float("inf")
        asked += 1
        time.sleep(0.3)
    for line in lines:
        line.close()
    row("200 connections that drip a byte at a time", f"{asked} normal requests", f"slowest {worst:.2f} s, {dropped} of 200 shown out")
    big = time.monotonic()
    with closing(socket.create_connection(("127.0.0.1", PORT), timeout=10)) as line:
        line.sendall(b"POST /jobs/read/ HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 900000000\r\n\r\n")
        text = line.recv(200).split(b"\r\n")[0].decode()
    row("900 MB offered by someone not signed in", "1", f"{text} after {time.monotonic() - big:.2f} s, nothing read")
    shop.kill()


def unread(shop: Shop) -> None:
    """Test that connections that send requests and read nothing are closed and do not block a normal request."""
    shop.start()
    files = [path for path in (shop.data / "static").rglob("*") if path.suffix in (".js", ".css", ".woff2")]
    largest = max(files, key=lambda path: path.stat().st_size)
    path = f"/static/{largest.relative_to(shop.data / 'static').as_posix()}"
    lines = []
    for _ in range(40):
        line = socket.socket()
        line.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 4096)
        line.connect(("127.0.0.1", PORT))
        line.sendall(f"GET {path} HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n".encode() * 103)
        lines.append(line)
    worst, asked, end = 0.0, 0, time.monotonic() + max(40 * SCALE, 5)
    while time.monotonic() < end:
        start = time.monotonic()
        shop.ask("GET", "/", timeout=30)
        worst, asked = max(worst, time.monotonic() - start), asked + 1
        time.sleep(0.2)
    for line in lines:
        line.close()
    row("40 connections that send 103 requests and read nothing", f"{asked} normal requests", f"slowest {worst:.2f} s")
    shop.kill()


def uploads(shop: Shop) -> None:
    """Test that large bodies from invalid sessions, and too many from one address, use limited disk space."""
    shop.start()
    temporary = Path(tempfile.gettempdir())
    before = shutil.disk_usage(temporary).free
    answers: Counter[str] = Counter()
    lines = []
    for number in range(8):
        cookie = f"sessionid={'a' * 32}" if number < 4 else f"sessionid={shop.cookies[0]}"
        line = socket.create_connection(("127.0.0.1", PORT), timeout=10)
        head = f"POST /jobs/read/ HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookie}\r\nContent-Length: 310000000\r\n\r\n"
        line.sendall(head.encode())
        lines.append(line)
        line.settimeout(2)
        try:
            answers[line.recv(60).split(b"\r\n")[0].decode()] += 1
        except TimeoutError:
            answers["taken"] += 1
    status = shop.ask("GET", "/")[0]
    used = before - shutil.disk_usage(temporary).free
    for line in lines:
        line.close()
    text = ", ".join(f"{count} {answer}" for answer, count in sorted(answers.items()))
    row("8 uploads of 310 MB, 4 with made-up sessions", "1", f"{text}; a page meanwhile: {status}; {used / 1e6:.0f} MB used")
    shop.kill()


def syncs(shop: Shop) -> None:
    """Print how often data is flushed to disk per saved reading."""
    if not shutil.which("strace"):
        row("disk syncs a reading", "no strace here", "not counted")
        return
    shop.start()
    assert shop.server is not None
    out = shop.root / "strace"
    source = subprocess.Popen(
        ["strace", "-f", "-c", "-e", "trace=fsync,fdatasync", "-o", str(out), "-p", str(shop.server.pid)], stderr=subprocess.DEVNULL
    )
    time.sleep(1)
    tries = count(40)
    for number in range(tries):
        shop.ask("POST", f"{STRIP}keep/", {"ask": "parts-used", "text": f"synced {number}", "client_key": uuid.uuid4().hex})
    source.send_signal(2)
    source.wait()
    shop.kill()
    calls = sum(int(line.split()[3]) for line in out.read_text().splitlines() if line.strip().endswith("sync"))
    row("disk syncs while readings are acknowledged", f"{tries} readings", f"{calls} syncs")


def strip(shop: Shop) -> None:
    """Two values behind each other, as a gauge types them, on lines of every speed."""
    from playwright.sync_api import sync_playwright

    from tests.browser.chromium import ARGS, CHROMIUM

    shop.start()
    on_supports(shop)
    tries, dropped, misplaced = count(200), 0, 0
    with sync_playwright() as pw:
        browser = pw.chromium.launch(executable_path=CHROMIUM, args=ARGS)
        context = browser.new_context()
        context.add_cookies([{"name": "sessionid", "value": shop.cookies[0], "url": f"http://127.0.0.1:{PORT}"}])
        page = context.new_page()
        line = context.new_cdp_session(page)
        line.send("Network.enable")
        for number in range(tries):
            ms = (0, 150, 400, 1000)[number % 4]
            said = {"offline": False, "downloadThroughput": -1, "uploadThroughput": -1}
            line.send("Network.emulateNetworkConditions", {**said, "latency": 0})
            for (pk,) in shop.sql("SELECT id FROM jobs_reading WHERE ask LIKE 'shaft-reading.left.%' AND withdrawn_at IS NULL"):
                shop.ask("POST", f"{TRUE}undo/", {"reading": pk})
            page.goto(f"http://127.0.0.1:{PORT}{TRUE}")
            page.locator("#strip-field[data-ask='shaft-reading.left.0']").wait_for()
            line.send("Network.emulateNetworkConditions", {**said, "latency": ms})
            values = [f"0.{number:03d}{end}" for end in (1, 2)]
            for value in values:
                page.keyboard.type(value)
                page.keyboard.press("Enter")
            with suppress(Exception):
                page.locator(f"[data-latest='{values[1]}']").wait_for(timeout=10000)
            found = dict(shop.sql("SELECT text, ask FROM jobs_reading WHERE ask LIKE 'shaft-reading.left.%' AND withdrawn_at IS NULL"))
            dropped += sum(value not in found for value in values)
            misplaced += [found.get(value) for value in values] != ["shaft-reading.left.0", "shaft-reading.left.45"]
        browser.close()
    shop.kill()
    row("two values with Enter at 0, 150, 400 and 1000 ms", f"{tries} tries", f"{dropped} dropped, {misplaced} at another question")


PARTS = {part.__name__: part for part in (kills, signing, devices, slow, unread, uploads, syncs, strip, restores)}


def main(words: list[str]) -> None:
    global SCALE
    SCALE = 0.1 if "--tenth" in words else 1.0
    chosen = [word for word in words if word in PARTS] or list(PARTS)
    shop = Shop()
    try:
        shop.lay()
        for name in chosen:
            PARTS[name](shop)
    finally:
        with suppress(Exception):
            shop.kill()
        shutil.rmtree(shop.root, ignore_errors=True)
    print("\n| what was done | how often | what came of it |\n|---|---|---|")
    for found in ROWS:
        print(f"| {' | '.join(found)} |")


if __name__ == "__main__":
    main(sys.argv[1:])
