"""A twin with a three-part case: check-in, separation joint by joint, both ends of its crank pulled in, closed in time."""

from __future__ import annotations

from stator.engines.models import EngineCard, Seat
from stator.engines.models.case import center_sections
from stator.jobs.models import DerivedFact, Entry, Job, Timer
from stator.shop.defaults import add_usual_tools
from stator.shop.models import Compound
from stator.workbench.test_case_parts import cover
from tests.browser.practice_steps import MEASURED, Practised
from tests.factories import job

AT = ((-80, 50), (80, 50), (80, -50), (-80, -50))
STATIONS = ("split", "end-float", "crank-in", "close")
HERE = {
    **MEASURED,
    "counted": ["4"],
    "crank-shoulders": ["130.74"],
    "face-to-bearing": ["35.0"],
    "gasket-crushed": ["0"],
    "loose-half": ["left"],
    "screw-torque": ["4", "4", "4", "4", "4", "4", "30"],
    "screw-turns-done": ["1", "1", "2", "2", "3", "3", "4", "4"],
    "section-width": ["61.0"],
    "travel": ["6"],
}


class ThreeParts(Practised):
    cost = 60
    measures, last = HERE, "close"

    def book_in(self):
        self.go("/book-in/")
        self.page.locator(".orders label", has_text="Bottom end").click()
        self.page.get_by_label("Engine", exact=True).fill("Eider 440")
        self.page.get_by_label("What is wrong with it").fill("Howls at lift-off.")
        self.page.get_by_label("Start its card from").select_option(label="twin with a case of three parts")
        self.page.get_by_role("button", name="Book it in").click()
        self.sees("centre section to magneto side")

    def bolts(self, joint, first):
        """Four bolts on a joint, by their places; how long the first is goes for all."""
        self.page.evaluate("document.querySelector('#face').dataset.before = 'yes'")
        self.page.locator(".joints a", has_text=joint).click()
        settled = "!document.querySelector('.htmx-swapping, .htmx-settling, .htmx-added')"
        self.page.wait_for_function(f"() => !document.querySelector('#face').dataset.before && {settled}")  # its scripts have seen it
        self.page.locator(".joints a[aria-current]", has_text=joint).wait_for()
        self.page.locator("#next-t").fill("10 Nm")
        for number, (x, y) in enumerate(AT, first):
            self.page.locator("#next-x").fill(str(x))
            self.page.locator("#next-y").fill(str(y))
            self.page.get_by_role("button", name="Add it there").click()
            self.page.get_by_role("link", name=f"bolt {number}", exact=True).wait_for()

    def test_is_opened_pulled_together_and_closed_joint_by_joint(self):
        add_usual_tools()
        sealant = Compound.objects.create(name="Case sealant", kind="solvent", open_s=900)
        self.book_in()
        self.bolts("drive side to centre section", 1)
        self.bolts("centre section to magneto side", 5)
        self.assertAccessible()
        made, card = Job.objects.get(), EngineCard.objects.get()
        self.assertEqual(sorted(card.marks.values_list("joint", flat=True)), ["joint"] * 4 + [f"joint-{center_sections(card)[0].uid}"] * 4)
        Seat.objects.update(marking_assumed=False, code_assumed=False)
        made.run.exclude(key__in=("book-in", *STATIONS)).delete()
        for key in STATIONS:
            self.go(f"/jobs/{made.tag}/{key}/")
            if key == "close":
                self.page.get_by_label("Between the faces").select_option(str(sealant.pk))
                self.page.wait_for_load_state()
            self.goes_on(key)
        signed = Entry.objects.filter(signed_at__isnull=False).order_by("pk")
        self.assertEqual(signed[0].call_words, "The case is apart")
        self.assertEqual([each.station.key for each in signed], list(STATIONS))
        self.assertEqual(DerivedFact.objects.filter(property="halves-apart").count(), 2)
        self.assertEqual([each["turns"] for each in signed[2].result["ends"]], [4, 4])
        self.assertEqual(Timer.objects.filter(key="open").count(), 1)
        self.assertEqual(len(signed[3].result["order"]), 8)
        self.assertQuiet()


class ACover(Practised):
    """A clutch cover with two bearings comes off by hand; one of them stays on its shaft."""

    cost = 60
    measures, last = {**MEASURED, "counted": ["3", "10"], "came-out": ["dropped", "dropped", "with_shaft"]}, "bearings-out"

    def test_leaves_one_of_its_bearings_on_the_shaft(self):
        add_usual_tools()
        made = job(order="bottom-end")
        cover(made.card)
        made.run.exclude(key__in=("book-in", "split", "bearings-out")).delete()
        self.go(f"/jobs/{made.tag}/split/")
        self.sees("Clutch cover")
        for key in ("split", "bearings-out"):
            self.goes_on(key)
        signed = {str(each.seat or each.station.key): each.call_words for each in Entry.objects.filter(signed_at__isnull=False)}
        self.assertEqual((signed["split"], signed["Kick shaft"]), ("The case is apart", "It stayed on its shaft"))
        self.assertEqual(set(signed), {"split", "Main, drive side", "Clutch release", "Kick shaft"})
        self.assertQuiet()
