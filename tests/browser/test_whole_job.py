"""A whole job, from the flywheel to the hand-over, through the interface alone: how many acts it takes.

The job and its card are fixed: a two-stroke single of the usual lay-out, its bearings scrapped, ten bolts. The hands know what they
measure; which question comes, and what may be done, the page says. An act is an Enter, a tap or the choice of a key.
"""

from __future__ import annotations

import re
import sys
from datetime import timedelta
from unittest import mock

from engines.layouts import lay_out
from engines.models import EngineCard, Mark, Seal, Seat
from jobs import clock
from jobs.models import Job
from shop.defaults import add_usual_tools
from stations.registry import WORK_ORDERS
from tests.browser.test_acts import Counted
from tests.shed import job

ENGINE = {"stroke_mm": 54, "taper_ratio": 8, "cone": "taper", "nut_d_mm": 12, "nut_torque_nm": 55, "shaft_d_mm": 20}
MEASURED = {  # by the beginning of the question's address; a list is gone through, its last is repeated
    "against-advice": ["agreed with the owner"],
    "air-temperature": ["20"],
    "bearing-decision": ["scrap"],
    "bolt-torque-wanted": ["10"],
    "boss-diameter": ["M27x1"],
    "centre-screw-diameter": ["M12x1.25"],
    "counted": ["10"],
    "crank-shoulders": ["69.05"],
    "end-float-least": ["0.10"],
    "end-float-most": ["0.35"],
    "end-thread-diameter": ["M12x1.25"],
    "expected": ["10"],
    "gap.": ["1.0", "2.75", "4.5", "6.25", "8.0", "9.75"],
    "home-gap": ["0.13"],
    "hot-temperature": ["100"],
    "puller-diameter": ["M27x1"],
    "scored": ["no"],
    "screw-torque": ["6"],
    "screw-turns-done": ["5", "11"],
    "seating-gap": ["0"],
    "seal-depth": ["0.2"],
}
BEFORE_A_QUESTION = {
    "Dowels are free": "apart",
    "Is it home?": "home",
    "Open the door": "open",
}  # what is done though more could be measured
ONCE = ("pulling-torque", "hot-temperature", "width-as-it-goes")  # measured as often as one likes: once here
MAY_WAIT = ("note", "loose-part", "part.strip", "seating-gap-cold", "bearing-marking")  # not asked of hands that have nothing to say
LOOK = """() => {
  const shown = (one) => one.offsetParent !== null;
  const text = (name) => document.querySelector(name)?.textContent.trim() || "";
  return {
    plate: text(".plate h2"),
    ask: document.querySelector("#strip-field")?.dataset.ask || document.querySelector(".strip-options [name=ask]")?.value || "",
    example: document.querySelector("#strip-field")?.placeholder || "",
    empty: text(".strip-ask p").includes("leaves it out"),
    options: [...document.querySelectorAll(".strip-options [name=text]")].map((one) => one.value),
    again: document.querySelector(".again")?.dataset.again || "",
    before: Boolean(document.querySelector(".as-before")),
    gates: [...document.querySelectorAll(".tick.gate[aria-pressed=false]")].filter(shown).length,
    refused: document.querySelectorAll(".actions [aria-disabled]").length,
    ticks: document.querySelectorAll(".tick[aria-pressed=false]").length,
    actions: [...document.querySelectorAll(".actions [name=action]:not([aria-disabled])")].map((one) => one.value),
    main: document.querySelector(".actions .main:not([aria-disabled])")?.value || "",
    onward: Boolean(document.querySelector(".strip-entry a.main")),
  };
}"""


class WholeJob(Counted):
    cost = 90

    def setUp(self):
        super().setUp()
        self.made = job(order="bottom-end")
        self.made.card.seats.all().delete()
        lay_out(self.made.card, "two-stroke-single")
        EngineCard.objects.filter(pk=self.made.card_id).update(**ENGINE)
        Seat.objects.update(marking_assumed=False)
        Seal.objects.update(sizes_assumed=False)
        for number in range(1, 11):
            Mark.objects.create(
                card=self.made.card, what="bolt", name=str(number), x_mm=-90 + 18 * number, y_mm=70 - 140 * (number % 2), torque_nm=10
            )
        add_usual_tools()
        self.ahead = timedelta()
        real = clock.now
        self.enterContext(mock.patch.object(clock, "now", lambda made=None: real(made) + self.ahead))
        self.heard = {}

    def measured(self, ask, example):
        """What the hands find at a question: the next of its list, else what the page gives as an example."""
        name = next((each for each in sorted(MEASURED, key=len, reverse=True) if ask.startswith(each)), None)
        if name is None:
            self.heard[ask] = 0
            return example
        place = ask if name == "gap." else name
        found = MEASURED[name]
        self.heard[place] = self.heard.get(place, -1) + 1
        return found[min(self.heard[place], len(found) - 1)]

    def does(self, what):
        """One act, and the page that answers it."""
        self.acts += 1
        self.page.evaluate("document.getElementById('work').dataset.old = '1'")
        what()
        self.page.wait_for_function("() => !document.querySelector('#work[data-old]') && !document.body.dataset.sending")
        self.page.wait_for_load_state()

    def types_in(self, text):
        self.page.locator("#strip-field").fill(text)
        self.page.keyboard.press("Enter")

    def presses(self, selector):
        self.page.locator(selector).first.click()

    def step(self, page):
        """The next act that a practised hand would do here."""
        ask, press = page["ask"], self.presses
        wanted = BEFORE_A_QUESTION.get(page["plate"])
        if page["gates"]:
            return lambda: press(".tick.gate[aria-pressed=false]:visible")
        if wanted in page["actions"]:
            return lambda: press(f".actions [value={wanted}]")
        if page["refused"] and not page["actions"] and page["ticks"] and (not ask or ask.startswith("hot-temperature")):
            return lambda: press(".tick[aria-pressed=false]")
        may_wait = ask.startswith(MAY_WAIT) or (ask.startswith(ONCE) and ask in self.heard)
        if ask and ask != "word" and not (may_wait and (page["main"] or "sign" in page["actions"])):
            if page["before"]:
                return lambda: press(".as-before")
            if page["options"]:
                said = self.measured(ask, page["options"][0])
                return lambda: press(f".strip-options [name=text][value='{said}']")
            name = ask.split(".")[0]
            if page["again"].endswith(" all") and (
                page["again"] != "skip all" or not any(name.startswith(each.rstrip(".")) for each in MEASURED)
            ):
                return lambda: press(".again:visible")
            return lambda: self.types_in(
                "skip" if page["empty"] and name not in {each.rstrip(".") for each in MEASURED} else self.measured(ask, page["example"])
            )
        key = page["main"] or ("sign" if "sign" in page["actions"] else next(iter(page["actions"]), ""))
        return (lambda: press(f".actions [value={key}]")) if key else None

    def goes_through(self, key):
        for _ in range(120):
            page = self.page.evaluate(LOOK)
            if page["plate"] == "Not yet":
                self.ahead += timedelta(minutes=10)
                self.page.reload()
                page = self.page.evaluate(LOOK)
            if page["onward"] or (f"/{key}/" not in self.page.url):
                break
            act = self.step(page)
            if act is None:
                self.assertEqual(key, "hand-over", f"nothing to do at {page}")
                break
            self.does(act)
        else:
            self.fail(f"{key} does not end: {page}")

    def test_takes_no_more_than_three_hundred_acts(self):
        stations = WORK_ORDERS["bottom-end"][1][1:]
        self.go(f"/jobs/0412/{stations[0]}/")
        counted = {}
        for key in stations:
            self.page.wait_for_url(re.compile(f"/{key}/"))
            begun = self.acts
            while f"/{key}/" in self.page.url:
                self.goes_through(key)
                if not self.page.locator(".strip-entry a.main").count():
                    break
                self.does(lambda: self.presses(".strip-entry a.main"))
            counted[key] = self.acts - begun
        print("acts of the job:", ", ".join(f"{key} {number}" for key, number in counted.items()), file=sys.stderr)
        self.assertTrue(Job.objects.get().is_closed)
        self.tells("the whole job")
        self.assertQuiet()
