"""Tests of questions that can be answered without network, and of readings that are sent later."""

from __future__ import annotations

import json
import re
from datetime import timedelta
from types import SimpleNamespace

from django.utils import timezone

from stator.engines.models import EngineCard
from stator.jobs.models import Job, Reading
from stator.stations.framework.page_components import Question
from stator.workbench.offline import in_turn
from stator.workbench.test_navigation import Around
from tests.factories import job


class Along(Around):
    def along(self, page):
        answer = self.client.get(page, follow=True).content.decode()
        return json.loads(re.search(r'id="taken-along" type="application/json">(.*?)</script>', answer)[1])

    def crank(self, *more):
        made = job(413, order="crank")
        EngineCard.objects.filter(pk=made.card_id).update(stroke_mm=58, crank="built_up")
        places = [(f"{what}.{side}", at) for side in ("left", "right") for what, at in (("support-place", "92"), ("gauge-place", "34"))]
        for question, text in (*places, *more):
            self.client.post("/jobs/0413/true/keep/", {"ask": question, "text": text})
        return made

    def test_a_turn_of_the_crank_goes_along_in_its_order_and_what_is_kept_does_not(self):
        self.crank(("shaft-reading.left.0", "0.01"))
        page = self.along("/jobs/0413/true/")
        self.assertEqual(page["turn"][:2], ["shaft-reading.left.45", "shaft-reading.left.90"])
        self.assertEqual(page["questions"]["shaft-reading.left.45"]["words"], "Drive side at 45°")

    def test_places_read_twice_come_round_after_round(self):
        turns = [Question(key, key, times=2) for key in "ab"]
        heard = {"a": ["1"]}
        work = SimpleNamespace(answers=SimpleNamespace(live=lambda key: heard.get(key, [])))
        self.assertEqual(in_turn(work, [Question("c", "c"), *turns]), ["c", "b", "a", "b"])

    def test_what_moves_a_clock_and_what_is_chosen_stays(self):
        made = job(414, order="flywheel")
        EngineCard.objects.filter(pk=made.card_id).update(taper_ratio=8, nut_d_mm=12, nut_torque_nm=55)
        page = "/jobs/0414/flywheel-off/"
        self.assertEqual(next(iter(self.along(page)["questions"])), "puller-diameter")
        answers = ("M27x1", "right", "M27x1", "right", "6", "M12x1.25")
        for text in answers:
            self.assertNotIn("puller-hand", self.along(page)["turn"])  # a choice
            self.client.post(f"{page}keep/", {"ask": self.client.get(page).context["ask"].key, "text": text})
        for check in self.client.get(page).context["work"].checks():
            self.client.post(f"{page}tick/", {"key": check.key, "on": "1"})
        self.assertEqual(self.client.get(page).context["ask"].key, "pulling-torque")
        self.assertNotIn("pulling-torque", self.along(page)["questions"])  # its reading begins a wait

    def test_what_a_correction_replaced_is_said_again_when_its_answer_was_lost(self):
        self.crank()
        values = {"ask": "shaft-reading.left.0", "saw": "0", "attempt": "1", "client_key": "k1"}
        later = {"X-Later": "1", "X-Partial": "1"}
        self.client.post("/jobs/0413/true/keep/", {**values, "text": "0.01"}, headers=later)
        first, again = (self.client.post("/jobs/0413/true/keep/", {**values, "text": "0.011"}, headers=later).json() for _ in range(2))
        self.assertEqual(first["said"], "0.01 had been kept here before; 0.011 stands in its place.")
        self.assertEqual(again, first)

    def test_a_job_that_was_handed_over_takes_nothing_along(self):
        made = self.crank()
        Job.objects.filter(pk=made.pk).update(gone_at=timezone.now())
        self.assertEqual(self.along("/jobs/0413/true/")["turn"], [])


class Late(Around):
    def keep(self, at, text="47.02"):
        page = self.client.get("/jobs/0412/heat-and-drop/", follow=True)
        question = page.context["ask"]
        values = {"ask": question.key, "text": text, "client_key": f"k{at}", "attempt": page.context["work"].answers.attempt, "at": str(at)}
        return self.client.post(f"{page.context['work'].address}keep/", values, headers={"x-later": "1"}).json()

    def ms(self, **ago):
        return round((timezone.now() - timedelta(**ago)).timestamp() * 1000)

    def test_a_reading_has_the_time_at_which_it_was_typed(self):
        self.assertEqual(self.keep(self.ms(minutes=40), "20"), {"kept": True, "said": ""})
        saved = Reading.objects.get()
        self.assertAlmostEqual((timezone.now() - saved.taken_at).total_seconds(), 2400, delta=60)
        self.assertContains(self.client.get("/jobs/0412/heat-and-drop/", follow=True, headers={"x-panel": "sheet"}), "sent later")

    def test_a_time_that_cannot_be_is_refused_in_words(self):
        for at in (self.ms(days=20), self.ms(hours=-2), "soon"):
            said = self.keep(at, "20")
            self.assertEqual((said["kept"], "cannot be right" in said["said"]), (False, True), at)
        self.assertFalse(Reading.objects.exists())
