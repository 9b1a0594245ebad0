"""Tests that a record never changes with equipment, the card or another shop."""

from __future__ import annotations

import io
import json
import re
import zipfile

from django.test import SimpleTestCase, TestCase
from django.utils import timezone

from shopmath.validation import BadInput
from stator.engines.models import Mark, Spec
from stator.exchange.job_import import job_from_zip
from stator.exchange.job_zip import job_as_zip
from stator.exchange.report.data import report_of
from stator.exchange.report.views import JOB
from stator.jobs.models import Entry
from stator.shop.models import Blades, Splitter
from stator.stations.set_end_play.tests import Stacker
from stator.stations.split_crankcase.tests import Halves, face
from stator.ui.static_svg import standalone_svg
from tests.factories import job, person


class Frozen(TestCase):
    """A split signed with the shop's own splitter."""

    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(self.made.card)
        self.splitter = Splitter.objects.create(name="Shed's bar", thread_mm=6, pitch_mm=1, push_pitch_mm=1.5, screws=2)
        self.hands = Halves(self.made)
        self.hands.choose(splitter=str(self.splitter.pk))
        self.hands.bolts()
        self.hands.answer("counted", "5")
        self.hands.answer("screw-turns", "9")
        self.hands.tick_all()
        self.hands.act("begin")
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        self.hands.act("apart")
        self.hands.answer("loose-part.split-1", "")
        self.hands.answer("note", "")
        self.hands.act("sign")
        self.entry = self.hands.entry

    def report(self, made=None):
        return report_of(JOB.get(pk=(made or self.made).pk), person(), timezone.now())

    def seen(self):
        """Tests of pages and files that show a record."""
        report = self.report()
        page = re.sub(r'value="[^"]*"', "", self.hands.page().split('id="drawing"')[1].split('class="strip')[0])  # keys of forms
        drawing = self.hands.client.get(f"/entries/{self.entry.pk}/drawing.svg").content
        return page, drawing, report.figures, report.calls, self.hands.readings()

    def on_paper(self, entry):
        page = self.hands.client.get(f"/entries/{entry.pk}/sheet/").content.decode()
        return page.split("<main")[1].split("<footer>")[0]

    def test_it_keeps_the_call_its_sentences_what_it_rests_on_and_what_it_was_done_with(self):
        content = self.entry.record.content
        self.assertEqual((content["call"]["state"], content["call"]["code"]), ("in", "apart"))
        self.assertEqual(content["equipment"][0]["figures"]["thread_mm"], 6)
        self.assertIn("Gap at front", [each["words"] for each in content["readings"]])
        self.assertEqual(len([each for each in content["checks"] if each["by"] == "Una"]), len(content["checks"]))
        self.assertTrue(content["checks"])

    def test_what_changes_on_the_shelves_and_on_the_card_changes_nothing_in_it(self):
        before = self.seen()
        Splitter.objects.update(thread_mm=12, retired=True)
        Mark.objects.filter(name="front").update(x_mm=1, name="moved")
        Mark.objects.filter(name="1").delete()
        self.assertEqual(self.seen(), before)

    def test_a_retired_shim_kit_leaves_a_signed_end_float_as_it_was(self):
        Spec.objects.create(card=self.made.card, name="End float", property="end-float", low=0.10, high=0.20, source="page 61")
        stack = Stacker(self.made)
        Blades.objects.update_or_create(name="Shims", defaults={"kind": "shim", "sizes_mm": [0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5]})
        stack.whole(side="left")
        before = self.on_paper(stack.entry)
        for kit in Blades.objects.all():
            kit.retired = True
            kit.save()
        self.assertEqual(self.on_paper(stack.entry), before)

    def test_computed_again_it_shows_what_today_s_core_makes_of_it_and_keeps_the_record(self):
        self.assertContains(self.hands.client.get(f"/entries/{self.entry.pk}/again/"), "everything comes out the same")
        self.splitter.thread_mm = 12
        self.splitter.save()
        page = self.hands.client.get(f"/entries/{self.entry.pk}/again/")
        self.assertContains(page, "this differs")
        self.assertContains(page, "Screws hold")

    def test_read_in_elsewhere_it_is_the_same_record(self):
        data = job_as_zip(JOB.get(pk=self.made.pk), person(), timezone.now())
        again = job_from_zip(data, person())
        taken = Entry.objects.get(job=again, station__key="split")
        self.assertEqual(taken.record.content, self.entry.record.content)
        self.assertEqual(bytes(taken.record.drawing), bytes(self.entry.record.drawing))
        self.assertEqual(self.report(again).figures, self.report().figures)

    def test_a_drawing_of_a_file_can_do_nothing(self):
        hostile = (
            '<svg viewBox="0 0 9 9" onload="x()"><script>x()</script><a href="javascript:x()"><text x="1" y="1">words</text></a>'
            '<image href="https://elsewhere.example/a.png" width="9" height="9"/><rect width="9" height="9" fill="url(https://e.example)"/></svg>'
        )
        data = io.BytesIO(job_as_zip(JOB.get(pk=self.made.pk), person(), timezone.now()))
        with zipfile.ZipFile(data) as found:
            said = json.loads(found.read("job.json"))
        said["entries"][0]["record"]["drawing"] = hostile
        spoilt = io.BytesIO()
        with zipfile.ZipFile(spoilt, "w") as made:
            made.writestr("job.json", json.dumps(said))
        again = job_from_zip(spoilt.getvalue(), person())
        answer = self.hands.client.get(f"/entries/{Entry.objects.get(job=again).pk}/drawing.svg")
        self.assertIn("sandbox", answer["Content-Security-Policy"])
        for word in ("script", "onload", "javascript", "example"):
            self.assertNotIn(word, answer.content.decode())
        self.assertIn("words", answer.content.decode())
        self.assertContains(self.hands.client.get(f"/jobs/{again.tag}/split/"), 'src="/entries/')


class Inked(SimpleTestCase):
    def test_looks_are_written_into_the_drawing_and_stay_when_it_is_taken_again(self):
        once = standalone_svg('<svg viewBox="0 0 9 9" class="sheet"><line x1="0" y1="0" x2="9" y2="9" class="ink bold"/></svg>')
        self.assertIn('stroke="#3b2f93" stroke-width="2.6"', once)
        self.assertNotIn("class", once)
        self.assertEqual(standalone_svg(once), once)

    def test_what_is_no_drawing_is_refused(self):
        for text in ("", "<p>no</p>", '<!DOCTYPE svg [<!ENTITY a "b">]><svg>&a;</svg>', "<svg><g></svg>"):
            with self.subTest(text), self.assertRaises(BadInput):
                standalone_svg(text)
