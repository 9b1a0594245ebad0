"""Measurement of speed and size: `bin/bench`. It prints numbers next to their targets and never fails."""

from __future__ import annotations

import gzip
import io
import os
import re
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from stator.benchmarks.timing import beside, spread


def pace() -> None:
    """Measure a fixed piece of Python, because machines, and days of one machine, differ by a factor of four."""
    median, high = spread(lambda: sum(number * number for number in range(100_000)))
    print(f"{'this machine: 100 000 squares summed':40} {median:7.2f} ms   95 % {high:6.2f}   (by which days compare)")


def imports() -> None:
    def fastest(code: str) -> float:
        times = []
        for _ in range(7):
            start = time.perf_counter()
            subprocess.run([sys.executable, "-c", code], check=True)
            times.append(time.perf_counter() - start)
        return min(times)

    modules = "shopmath.quantity, shopmath.verdict, shopmath.iso286, shopmath.bearings, shopmath.thermal.plan, shopmath.materials"
    cost = fastest(f"import {modules}") - fastest("pass")
    print(f"import of shopmath over bare Python      {1000 * cost:7.0f} ms   (target 300)")


def core() -> None:
    from shopmath.quantity import parse
    from shopmath.runout import fit
    from shopmath.thermal.ordering import HeatPart, one_heat
    from shopmath.thermal.plan import plan
    from shopmath.thermal.schedule import replan
    from shopmath.thermal.seat import curve, example_setup
    from shopmath.truing import PressedCrank, RunoutVector, decompose

    setup = example_setup()
    turn, readings = list(range(0, 360, 45)), [0.021, 0.034, 0.031, 0.012, -0.013, -0.027, -0.025, -0.008]
    crank = PressedCrank(-92, 92, -34, 34, 29)

    def whole() -> None:
        found = plan(setup)
        curve(setup, found.target_c, found.chill_c, 900.0)

    start = time.perf_counter()
    parse("2.5 thou", "length")
    first = 1000 * (time.perf_counter() - start)
    parts = [HeatPart(f"p{i}", 20 + i, 60.0 + 25 * i, 20 + i, i % 4 == 0, (f"p{i - 1}",) if i % 3 == 2 else ()) for i in range(12)]
    for name, act, target in [
        ("heat plan with confidence and curve", whole, "5"),
        ("a quantity parsed", lambda: parse("2.5 thou", "length"), "-"),
        ("a turn of readings fitted", lambda: fit(turn, readings), "1"),
        ("two swings decomposed", lambda: decompose(RunoutVector(0.06, 75), RunoutVector(0.05, 262), crank, 0.0015), "1"),
        ("order of a heat with 12 parts", lambda: one_heat(parts), "10"),
        ("what is left of it, two in, 40 s on", lambda: replan(parts, ["p0", "p1"], 40.0), "10"),
    ]:
        median, high = spread(act)
        print(f"{name:40} {median:7.2f} ms   95 % {high:6.2f}   (target {target})")
    print(f"{'the first quantity, registry and all':40} {first:7.0f} ms")


def pages(heading: str = "") -> dict[str, float]:
    """Measure each page as a multiple of an empty signed-in view of the same run, so that machines and shops can be compared."""
    from django.conf import settings
    from django.db import connection
    from django.http import HttpResponse
    from django.test import Client
    from django.test.utils import CaptureQueriesContext, override_settings
    from django.urls import path

    import stator.urls
    from stator.jobs.models import Entry, Job
    from stator.shop.models import Person

    if heading:
        print(f"\n{heading}")
    medians: dict[str, float] = {}
    urls = type(sys)("bench_urls")
    urls.urlpatterns = [path("empty/", lambda request: HttpResponse(request.user.username)), *stator.urls.urlpatterns]  # type: ignore[attr-defined]
    sys.modules["bench_urls"] = urls
    settings.ALLOWED_HOSTS.append("testserver")
    entry = Entry.objects.filter(seat__isnull=False, signed_at__isnull=False).first()
    running = Job.objects.get(number=412)
    seat = running.card.seats.order_by("pk")[0]
    work = f"/jobs/0412/heat-and-drop/{seat.pk}/"
    needed = ["/", work, f"{work}pulse/?rev=0&live=1", f"{work}picture/?t=120", "/jobs/0420/heat-and-drop/", "/jobs/0412/log/"]
    needed += ["/jobs/0412/card/", f"/entries/{entry.pk if entry else 0}/sheet/", "/book-in/", "/shop/"]
    needed += [
        "/jobs/0428/heat-and-drop/0/",
        "/jobs/0429/balance/",
        "/jobs/0427/flywheel-on/",
        "/jobs/0427/sheet/",
        "/shop/tools/",
        "/cards/",
        "/find/?q=corrie+6204",
        "/jobs/0423/split/",
        "/jobs/0422/strip/",
        "/jobs/0421/bearings-out/",
    ]
    needed += [
        "/jobs/0418/flywheel-off/",
        "/jobs/0424/true/",
        "/jobs/0415/true/",
        "/jobs/0425/inspect/",
        "/jobs/0426/apart/",
        "/gauges/",
        "/jobs/0423/run/",
        "/jobs/0423/pictures/",
        "/jobs/0422/tray/",
        "/jobs/0422/tray/labels/",
    ]
    with override_settings(ROOT_URLCONF="bench_urls"):
        client = Client()
        client.force_login(Person.objects.get(username="skipper"))
        client.cookies["paper"] = "wide"  # as a page that has run once says
        empty, _ = spread(lambda: client.get("/empty/"))
        print(f"{'an empty signed-in view':40} {empty:7.2f} ms")
        for page in needed:
            final = client.get(page, follow=True).request["PATH_INFO"] if "?" not in page else page
            median, high, times = beside(lambda final=final: client.get(final), lambda: client.get("/empty/"))  # type: ignore[misc]
            with CaptureQueriesContext(connection) as asked:
                client.get(final)
            medians[page] = times
            print(f"{page:40} {median:7.2f} ms   95 % {high:6.2f}   {times:4.1f} × empty   {len(asked):2d} queries (limit 15)")
        all_pages, worst = statistics.median(medians.values()), max(medians.values())
        print(f"{'all pages':40} median {all_pages:4.1f} × empty (guidance 9), worst {worst:4.1f} × empty (guidance 14)")
        median, high = spread(lambda: client.get("/jobs/0412/export.json"), 20)
        size = len(client.get("/jobs/0412/export.json").content) / 1000
        print(f"{'a job as JSON, a file':40} {median:7.2f} ms   95 % {high:6.2f}   {size:.0f} kB")
    return medians


def facts() -> None:
    """Measure how a job's facts grow with three hundred readings, and the size of a signed record."""
    import json

    from django.db import transaction

    from shopmath.quantity import parse
    from stator.engines.fact_keys import FactKey, Location
    from stator.engines.parts import JOINT
    from stator.engines.properties import Property
    from stator.jobs import log
    from stator.jobs.fact_loader import facts_of
    from stator.jobs.facts import Facts
    from stator.jobs.models import Job, Record
    from stator.shop.models import Person

    job, una = Job.objects.get(number=412), Person.objects.get(username="skipper")
    size = parse("0.30", "length", "mm")
    with transaction.atomic():
        entry = log.open_entry(job.run.get(key="close"), None, una)
        for number in range(300):
            fact_key = FactKey(JOINT, Property.GASKET_THICKNESS, Location(stage=number % 99))
            log.save_reading(entry, una, fact_key.key, size, f"bench-{number}", attempt=1 + number // 99, slot=fact_key)
        read = facts_of(job).taken
        median, high = spread(lambda: Facts(read).all_of(Property.GASKET_THICKNESS))
        print(f"{f'facts of {len(read)} readings in memory':40} {median:7.2f} ms   95 % {high:6.2f}   (target 5)")
        median, high = spread(lambda: facts_of(job))
        print(f"{'the same out of the database':40} {median:7.2f} ms   95 % {high:6.2f}")
        transaction.set_rollback(True)
    sizes = sorted(len(json.dumps(each.content)) + len(bytes(each.drawing)) for each in Record.objects.all())
    print(f"{'a record, its drawing packed':40} {sizes[len(sizes) // 2] / 1000:7.1f} kB  largest {sizes[-1] / 1000:.1f} kB of {len(sizes)}")


def run_screen() -> None:
    """Measure a heat for a case half: from Enter to the next part on the screen, and the page's request every four seconds."""
    import re
    import uuid
    from datetime import timedelta

    from django.test import Client

    from stator.jobs.models import Timer
    from stator.shop.models import Person

    client = Client()
    client.force_login(Person.objects.get(username="skipper"))
    client.cookies["paper"] = "wide"
    heat = Timer.objects.get(job__number=428, key="heat")
    Timer.objects.filter(pk=heat.pk).update(started_at=heat.started_at - timedelta(minutes=45))
    sheet, partial = "/jobs/0428/heat-and-drop/0/", {"HX-Request": "true"}
    page = client.post(f"{sheet}act/", {"action": "open"}, headers=partial).content.decode()
    median, high = spread(lambda: client.get(f"{sheet}pulse/?rev=0&live=1", headers=partial))
    print(f"{'the run screen asked for anew':40} {median:7.2f} ms   95 % {high:6.2f}   (target 100)")
    times = []
    while found := re.search(r'name="ask" value="((?:fit-outcome|circlip)[\w.-]+)"', page):
        values = {"ask": found[1], "text": "in" if found[1].startswith("circlip") else "dropped", "client_key": uuid.uuid4().hex}
        begun = time.perf_counter()
        page = client.post(f"{sheet}keep/", values, headers=partial).content.decode()
        times.append(1000 * (time.perf_counter() - begun))
    label = f"Enter on each of {len(times)} parts, to the next"
    print(f"{label:40} {statistics.median(times):7.2f} ms   worst {max(times):6.2f}   (target 100)")


def leaving() -> None:
    """Measure the job report as PDF and the whole job as ZIP, with 300 readings and 40 photos."""
    import uuid

    from django.core.files.base import ContentFile
    from django.utils import timezone
    from PIL import Image

    from stator.exchange.job_zip import job_as_zip
    from stator.exchange.report.data import report_of
    from stator.exchange.report.pdf import report_pdf
    from stator.exchange.report.views import JOB
    from stator.jobs.models import Job, Photo, Reading
    from stator.shop.models import Person

    job, who = Job.objects.get(number=427), Person.objects.get(username="skipper")
    entry = job.entries.filter(signed_at=None).first()
    have = Reading.objects.filter(entry__job=job).count()
    Reading.objects.bulk_create(
        Reading(entry=entry, ask=f"extra{n}", text="0.1", kind="length", unit="mm", canonical=0.1, by=who, client_key=uuid.uuid4().hex)
        for n in range(max(0, 300 - have))
    )
    photos = []
    for size in ((2000, 1500), (320, 240)):
        out = io.BytesIO()
        Image.effect_noise(size, 40).convert("RGB").save(out, "JPEG", quality=85)
        photos.append(out.getvalue())
    for index in range(40):
        photo = Photo(job=job, caption=f"Picture {index}", width=2000, height=1500, by=who)
        photo.image.save(f"bench{index}.jpg", ContentFile(photos[0]), save=False)
        photo.thumb.save(f"bench{index}-s.jpg", ContentFile(photos[1]), save=False)
        photo.save()

    def sheet() -> bytes:
        return report_pdf(report_of(JOB.get(pk=job.pk), who, timezone.now()))

    median, high = spread(sheet, 5)
    print(f"{'sheet as PDF, 300 readings, 40 photos':40} {median:7.0f} ms   95 % {high:6.0f}   (target 2000)")
    median, high = spread(lambda: job_as_zip(JOB.get(pk=job.pk), who, timezone.now()), 5)
    print(f"{'the whole job as ZIP':40} {median:7.0f} ms   95 % {high:6.0f}")


def durable(data: str) -> None:
    """Measure the cost of a durable commit: `synchronous` FULL compared with NORMAL."""
    import sqlite3
    from contextlib import closing

    for name in ("NORMAL", "FULL"):
        with closing(sqlite3.connect(f"{data}/sync-{name}.sqlite3", isolation_level=None)) as at:
            at.execute("PRAGMA journal_mode=WAL")
            at.execute(f"PRAGMA synchronous={name}")
            at.execute("CREATE TABLE reading (text TEXT)")
            median, high = spread(lambda at=at: at.execute("INSERT INTO reading VALUES ('46.98')"))  # type: ignore[misc]
        print(f"{f'one commit, synchronous={name}':40} {median:7.2f} ms   95 % {high:6.2f}")


def large() -> None:
    """The same pages in a shop of many years, against their time in one that shows as much and has few."""
    from stator.benchmarks import sample_data
    from stator.jobs.immutability import without_triggers
    from stator.jobs.models import Job, Photo, Reading

    with without_triggers():  # years of closed jobs, written at once
        sample_data.fill(sample_data.AT_FIRST, sample_data.ON_BENCH)
    small = pages(f"In a shop of {Job.objects.count()} jobs")
    start = time.perf_counter()
    with without_triggers():
        sample_data.fill(sample_data.JOBS - sample_data.AT_FIRST)
    print(f"\nfilled with {Reading.objects.count()} readings and {Photo.objects.count()} photos in {time.perf_counter() - start:.0f} s")
    found = pages(f"In a shop of {Job.objects.count()} jobs")
    print()
    for page, times in found.items():
        print(f"{page:40} {times:5.1f} × empty, {times / small[page]:4.1f} × what it was in the shop of few (target 1.5)")


def served(port: int, data: str) -> None:
    """First-load bytes and memory, from the real server."""
    command = [sys.executable, "manage.py", "serve", "--listen", f"127.0.0.1:{port}"]
    server = subprocess.Popen(command, env={**os.environ, "STATOR_DATA": data, "DJANGO_SETTINGS_MODULE": "stator.settings"})
    base = f"http://127.0.0.1:{port}"
    try:
        for _ in range(100):
            try:
                urllib.request.urlopen(f"{base}/alive/").read()
                break
            except OSError:
                time.sleep(0.1)
        from django.test import Client

        from stator.benchmarks import concurrent_writers
        from stator.shop.models import Person

        client = Client()
        client.force_login(Person.objects.get(username="skipper"))
        client.get("/book-in/", headers={"host": "127.0.0.1"})  # brings the token that a form sends
        cookie = "; ".join(f"{name}={morsel.value}" for name, morsel in client.cookies.items())

        def fetch(path: str) -> tuple[bytes, int]:
            request = urllib.request.Request(f"{base}{path}", headers={"Cookie": cookie, "Accept-Encoding": "gzip"})
            with urllib.request.urlopen(request) as answer:
                body = answer.read()
                return (gzip.decompress(body) if answer.headers.get("Content-Encoding") == "gzip" else body), len(body)

        page, size = fetch("/jobs/0412/heat-and-drop/1/")
        total = size
        files = set(re.findall(r'(?:src|href)="(/static/[^"]+)"', page.decode()))
        for file in sorted(files):
            body, length = fetch(file)
            total += length
            if file.endswith(".css"):
                for font in re.findall(r"url\(\"?([^)\"]+woff2)\"?\)", body.decode()):
                    address = urllib.request.urlparse(urllib.parse.urljoin(f"{base}{file}", font)).path  # type: ignore[attr-defined]
                    if address not in files:
                        total += fetch(address)[1]
        print(f"{'first load of the working screen':40} {total / 1000:7.0f} kB   (target 200; {size / 1000:.0f} kB of it the page)")
        concurrent_writers.measure(base, cookie)
        for _ in range(40):
            fetch("/")
            fetch("/jobs/0412/heat-and-drop/1/")
        status = Path(f"/proc/{server.pid}/status").read_text()
        found = re.search(r"VmRSS:\s+(\d+)", status)
        print(f"{'server memory':40} {int(found[1]) / 1000 if found else 0:7.0f} MB   (target 150)")
    finally:
        server.terminate()
        server.wait()


def main() -> None:
    with tempfile.TemporaryDirectory(prefix="stator-bench-") as data:
        os.environ.update(STATOR_DATA=data, STATOR_PLAIN_HTTP="1", DJANGO_SETTINGS_MODULE="stator.settings")
        pace()
        imports()
        core()
        import django
        from django.core.management import call_command

        django.setup()
        from stator.benchmarks import practice_times, save_times
        from stator.server.gc_tuning import tune_garbage_collection

        call_command("migrate", verbosity=0)
        call_command("load_demo")
        call_command("collectstatic", interactive=False, verbosity=0)
        durable(data)
        tune_garbage_collection()
        pages()
        facts()
        save_times.kept()
        practice_times.needle()
        run_screen()
        leaving()
        served(int(os.environ.get("STATOR_BENCH_PORT", "8917")), data)
        large()


if __name__ == "__main__":
    main()
