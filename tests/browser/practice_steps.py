"""An experienced mechanic for browser tests: measured values are prepared, questions and actions come from the page."""

from __future__ import annotations

import re
from datetime import timedelta
from unittest import mock

from stator.jobs import clock
from tests.browser.test_acts import Counted

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
    "Crank has come home": "home",
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
    empty: text(".strip-ask p").includes("skips it"),
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


class Practised(Counted):
    """A mechanic who completes stations by following the page."""

    measures = MEASURED
    last = "hand-over"  # the station after which nothing is left to do

    def setUp(self):
        super().setUp()
        self.ahead = timedelta()
        real = clock.now
        self.enterContext(mock.patch.object(clock, "now", lambda made=None: real(made) + self.ahead))
        self.heard = {}

    def measured(self, ask, example):
        """Return the answer to a question: the next of its list, or the example of the page."""
        name = next((each for each in sorted(self.measures, key=len, reverse=True) if ask.startswith(each)), None)
        if name is None:
            self.heard[ask] = 0
            return example
        place = ask if name == "gap." else name
        found = self.measures[name]
        self.heard[place] = self.heard.get(place, -1) + 1
        return found[min(self.heard[place], len(found) - 1)]

    def does(self, what):
        """Do one act and wait for the page."""
        self.acts += 1
        self.page.evaluate("document.getElementById('work').dataset.old = '1'")
        what()
        self.page.wait_for_function("() => document.body && !document.querySelector('#work[data-old]') && !document.body.dataset.sending")
        self.page.wait_for_load_state()

    def types_in(self, text):
        self.page.locator("#strip-field").fill(text)
        self.page.keyboard.press("Enter")

    def presses(self, selector):
        self.page.locator(selector).first.click()

    def step(self, page):
        """The next act that a practised hand would do here."""
        question, press = page["ask"], self.presses
        needed = BEFORE_A_QUESTION.get(page["plate"])
        if page["gates"]:
            return lambda: press(".tick.gate[aria-pressed=false]:visible")
        if needed in page["actions"]:
            return lambda: press(f".actions [value={needed}]")
        if page["refused"] and not page["actions"] and page["ticks"] and (not question or question.startswith("hot-temperature")):
            return lambda: press(".tick[aria-pressed=false]")
        may_wait = question.startswith(MAY_WAIT) or (question.startswith(ONCE) and question in self.heard)
        if question and question != "word" and not (may_wait and (page["main"] or "sign" in page["actions"])):
            if page["before"]:
                return lambda: press(".as-before")
            if page["options"]:
                said = self.measured(question, page["options"][0])
                return lambda: press(f".strip-options [name=text][value='{said}']")
            name = question.split(".")[0]
            if page["again"].endswith(" all") and (
                page["again"] != "skip all" or not any(name.startswith(each.rstrip(".")) for each in self.measures)
            ):
                return lambda: press(".again:visible")
            known = name in {each.rstrip(".") for each in self.measures}
            return lambda: self.types_in("skip" if page["empty"] and not known else self.measured(question, page["example"]))
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
                self.assertEqual(key, self.last, f"nothing to do at {page}")
                break
            self.does(act)
        else:
            self.fail(f"{key} does not end: {page}")

    def goes_on(self, key):
        """Complete a station, seat after seat if it has seats, and continue with the next one."""
        self.page.wait_for_url(re.compile(f"/{key}/"))
        while f"/{key}/" in self.page.url:
            self.goes_through(key)
            if not self.page.locator(".strip-entry a.main").count():
                break
            self.does(lambda: self.presses(".strip-entry a.main"))
