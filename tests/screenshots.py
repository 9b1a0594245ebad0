"""The pictures in docs/screenshots, from the demo: `bin/screenshots`, or `bin/screenshots practice split` for some of them."""

from __future__ import annotations

import os
import re
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path
from typing import Any
from urllib.parse import quote

from tests.browser.chromium import ARGS, CHROMIUM

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
PASSWORD = "only-for-pictures-1"
PORT = 8918


def shots() -> list[dict[str, Any]]:
    """Name, address, what to do first, and on which device."""
    return [
        {"name": "bench", "path": "/", "click": ["text=Do not show this again"]},
        {"name": "bench-phone", "path": "/", "phone": True},
        {"name": "quick-check", "path": "/check/fit/?designation=6205+C3&code=N7"},
        {"name": "card", "path": "/jobs/0423/card/"},
        {"name": "flywheel-off", "path": "/jobs/0412/flywheel-off/"},
        {"name": "split", "path": "/jobs/0423/"},
        {"name": "strip", "path": "/jobs/0422/"},
        {"name": "bearings-out", "path": "/jobs/0421/"},
        {"name": "heat-running", "path": "/jobs/0412/"},
        {"name": "fit-cold", "path": "/jobs/0431/fit-cold/"},
        {"name": "inspect", "path": "/jobs/0425/"},
        {"name": "true", "path": "/jobs/0424/", "inches": True},
        {"name": "end-float", "path": "/jobs/0427/end-float/"},
        {"name": "crank-in", "path": "/jobs/0427/crank-in/"},
        {"name": "close", "path": "/jobs/0427/close/"},
        {"name": "centre", "path": "/jobs/0427/centre/", "inches": True},
        {"name": "balance", "path": "/jobs/0429/"},
        {"name": "practice", "path": "/practice/shop/", "click": [".learners tr:nth-child(3) a"]},
        {"name": "sheet", "path": "/jobs/0427/sheet/"},
    ]


def take(base: str) -> None:
    from playwright.sync_api import sync_playwright

    FOLDER.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=ARGS)
        for shot in shots():
            if sys.argv[1:] and shot["name"] not in sys.argv[1:]:
                continue
            phone = shot.get("phone", False)
            context = browser.new_context(
                viewport={"width": 390, "height": 844} if phone else {"width": 1280, "height": 800},
                is_mobile=phone,
                has_touch=phone,
                color_scheme="dark" if shot.get("dark") else "light",
                reduced_motion="reduce",
            )
            page = context.new_page()
            page.goto(f"{base}/sign-in/?next={quote(shot['path'])}")
            page.fill("#id_username", "skipper")
            page.fill("#id_password", PASSWORD)
            page.click("button.main")
            page.locator("h1").first.wait_for()
            for target in shot.get("click", []):
                page.click(target)
            if shot.get("inches"):
                page.keyboard.press("=")
                page.get_by_text(re.compile(r"\d (thou|in|ft-lb)\b")).first.wait_for(state="attached")
            if "until" in shot:
                page.locator(shot["until"]).wait_for()
            page.evaluate("document.fonts.ready")
            page.screenshot(path=FOLDER / f"{shot['name']}.png", full_page=shot.get("full", False))
            if shot.get("inches"):
                page.keyboard.press("=")
                page.get_by_text(re.compile(r"\d (mm|N·m)\b")).first.wait_for(state="attached")
            context.close()
        browser.close()


def main() -> None:
    with tempfile.TemporaryDirectory(prefix="stator-pictures-") as data:
        env = {**os.environ, "STATOR_DATA": data, "STATOR_PLAIN_HTTP": "1", "DJANGO_SETTINGS_MODULE": "stator.settings"}
        for command in (
            ["migrate", "-v0"],
            ["load_demo", "--password", PASSWORD],
            ["load_practice"],
            ["collectstatic", "--noinput", "-v0"],
        ):
            subprocess.run([sys.executable, "manage.py", *command], env=env, check=True)
        stand_ins = subprocess.Popen([sys.executable, "-m", "stator.instruments.simulated"], stdout=subprocess.DEVNULL)
        server = subprocess.Popen([sys.executable, "manage.py", "serve", "--listen", f"127.0.0.1:{PORT}"], env=env)
        try:
            for _ in range(100):
                try:
                    urllib.request.urlopen(f"http://127.0.0.1:{PORT}/alive/").read()
                    break
                except OSError:
                    time.sleep(0.1)
            take(f"http://127.0.0.1:{PORT}")
        finally:
            for process in (server, stand_ins):
                process.terminate()
                process.wait()


if __name__ == "__main__":
    main()
