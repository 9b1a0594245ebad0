"""Tests of every exercise at its real station: measurements are accepted, the best moves reach the goal, the debriefing agrees."""

from __future__ import annotations

import json
from datetime import timedelta
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import DatabaseError, transaction
from django.test import TestCase
from django.utils import timezone

from stator.jobs import clock
from stator.jobs.models import Job, Timer
from stator.practice import attempts, messages
from stator.practice.control_form import TypedForm
from stator.practice.demo import month
from stator.practice.exercises.balance import where_to_drill
from stator.practice.exercises.base import ControlAction
from stator.practice.exercises.registry import EXERCISES
from stator.practice.models import Attempt, Given, Learner
from stator.shop.models import Blades
from stator.simulators.seals import LETTERS
from stator.ui.units import Units
from tests.factories import job, person

MOST_MOVES = 120
SEEDS = range(1, 26)


def best_moves(kind, seed, level):
    """Return the moves of a learner who always does what is best, with what is typed."""
    part, pulls, at_s = kind.part(seed, level), [], 0.0
    for _ in range(MOST_MOVES):
        best = kind.best(part)
        if not best and kind.timed and not kind.reached(part, {}):
            part.passes(120.0)
            at_s += 120.0
            continue
        if not best and kind.key == "seals" and not kind.reached(part, {}):
            letter = next(each for each in LETTERS if each not in {seated.letter for seated in part.seated.values()})
            for control in (f"take-{letter}", f"place-{part.made_for(letter)}"):
                pulls.append(ControlAction(control))
                kind.pull(part, pulls[-1])
            continue
        if not best:
            break
        typed = {"mark": where_to_drill(part), "bit": 4.0, "depth": min(12.0, part.gmm / 8)} if kind.key == "balance" else {}
        pull = ControlAction(best[0], 1.0 if not kind.hard else 0.5, at_s, typed)
        pulls.append(pull)
        kind.pull(part, pull)
    return pulls


class EveryExercise(TestCase):
    def test_it_has_its_words(self):
        for key, kind in EXERCISES.items():
            said = messages.SAID[key]
            for level in messages.LEVEL:
                self.assertIn(level, said.levels, key)
                for seed in SEEDS:
                    part = kind.part(seed, level)
                    self.assertEqual(set(kind.truth(part)) - set(said.truth), set(), key)
            for control in kind.levers:
                self.assertTrue(control in said.levers or control.partition("-")[0] in said.groups, control)
            self.assertEqual({each.key for each in kind.typed} - set(said.typed), set(), key)

    def test_a_seed_and_its_moves_give_the_same_part_every_time(self):
        for key, kind in EXERCISES.items():
            pulls = [ControlAction(control, 0.5, 10.0 * number) for number, control in enumerate(kind.levers)]
            one, other = (kind.standing(4, "hard", pulls, at_s=400.0) for _ in range(2))
            self.assertEqual((kind.truth(one), kind.shows(one)), (kind.truth(other), kind.shows(other)), key)

    def test_the_best_moves_reach_the_goal(self):
        for key, kind in EXERCISES.items():
            if not kind.works:
                continue
            reached = rightly = 0
            for seed in SEEDS:
                pulls = best_moves(kind, seed, "middle")
                result = kind.came_to(seed, "middle", pulls, {}, {})
                reached += result["reached"] or result["beyond"]
                rightly += result["right"] == len(result["moves"])
            self.assertGreaterEqual((reached, rightly), (len(SEEDS) - 2, len(SEEDS) - 2), key)

    def test_its_page_is_worked_and_debriefed(self):
        bram = person("bram", "mechanic")
        self.client.force_login(bram)
        for key, kind in EXERCISES.items():
            begun = self.client.post("/practice/", {"start": f"{key}:hard"})
            address = begun["Location"]
            self.assertEqual(self.client.get(address).status_code, 200, key)
            attempt = Attempt.objects.get(person=bram, ended_at=None)
            self.assertEqual(sorted(attempts.read_of(attempt.job)), sorted(question for question, _text in kind.presets), key)
            hands = f"/practice/{attempt.job.tag}/hands/"
            for control in kind.levers:
                answer = self.client.post(hands, {"lever": control}, headers={"HX-Request": "true"})
                self.assertEqual(answer.status_code, 200, (key, control))
            self.assertEqual(self.client.get(address).status_code, 200, key)
            page = self.client.post(f"/practice/{attempt.job.tag}/finish/", follow=True)
            self.assertContains(page, "What it really was")
            self.assertEqual(Job.every.count(), 0, key)
        self.assertContains(self.client.get("/practice/"), "How it went")

    def test_a_number_typed_beside_the_levers_is_refused_in_words_and_kept(self):
        una = person()
        self.client.force_login(una)
        attempt = attempts.begin(una, "balance", "middle", 3)
        answer = self.client.post(f"/practice/{attempt.job.tag}/hands/", {"lever": "drill", "mark": "900", "depth": "4"})
        self.assertContains(answer, "Mark: 900° was understood; it may be up to 360°")
        self.assertContains(answer, 'value="900"')
        attempt.refresh_from_db()
        self.assertEqual(attempt.pulls, [])

    def test_what_a_learner_types_is_any_unit_and_what_is_empty_stays_as_it_was(self):
        kind = EXERCISES["balance"]
        for said, values in (
            ({"mark": "90", "mass": "1.5", "bit": "6", "depth": "4"}, {"mark": 90, "mass": 1.5, "bit": 6, "depth": 4}),
            ({"mass": "0.0015 kg", "depth": "0.25 in"}, {"mark": 0, "mass": 1.5, "bit": 6, "depth": 6.35}),
            ({"depth": "4,5"}, {"mark": 0, "mass": 1, "bit": 6, "depth": 4.5}),
        ):
            with self.subTest(said):
                form = TypedForm(kind, said)
                self.assertEqual((form.wrong(), form.values()), ("", values))
        for said, refused in (
            ({"mass": "0"}, "Mass: 0 g was understood; it must be above 0 g and may be up to 20 g."),
            ({"bit": "2"}, "Drill: 2 mm was understood; it must be above 2.9 mm and may be up to 10 mm."),
            ({"depth": "deep"}, "Depth: "),
        ):
            with self.subTest(said):
                self.assertIn(refused, TypedForm(kind, said).wrong())

    def test_sizes_are_told_and_typed_in_the_reader_s_units(self):
        una = person()
        una.units = Units.INCH
        una.save()
        self.client.force_login(una)
        flywheel, crank = attempts.begin(una, "balance", "middle", 3), attempts.begin(una, "true-crank", "middle", 3)
        hands = f"/practice/{flywheel.job.tag}/hands/"
        page = self.client.get(hands).content.decode()
        self.assertIn("Depth, in", page)
        self.assertIn("Mass, g", page)
        self.assertIn("sit 3.15 in out, where the rim is 0.71 in thick", page)
        self.client.post(hands, {"lever": "drill", "mark": "90", "bit": "0.25", "depth": "5 mm", "mass": ""})
        flywheel.refresh_from_db()
        self.assertEqual(flywheel.pulls[0]["typed"], {"mark": 90.0, "mass": 1.0, "bit": 6.35, "depth": 5.0})
        self.assertContains(
            self.client.get(f"/practice/{crank.job.tag}/hands/"), "Supports stand 3.62 in out, gauges 1.34 in; a line: 0.08 thou"
        )
        shims = attempts.begin(una, "end-float", "easy", 9)
        self.assertContains(self.client.get(f"/practice/{shims.job.tag}/hands/"), "3.9 thou</button>")
        half = attempts.begin(una, "hot-half", "easy", 5)
        self.assertContains(self.client.get(f"/practice/{half.job.tag}/hands/"), "230 °F</button>")


class Waits(TestCase):
    def begin(self, exercise="hot-half"):
        self.client.force_login(person("bram", "mechanic"))
        return attempts.begin(person("bram", "mechanic"), exercise, "easy", 5)

    def pace(self, attempt, **data):
        self.client.post(f"/practice/{attempt.job.tag}/pace/", data)
        attempt.refresh_from_db()
        attempt.job.refresh_from_db()

    def test_they_go_on_at_once_and_the_half_warms_by_it(self):
        attempt = self.begin()
        attempts.do(attempt, "oven", 1.0, {})
        cold = attempts.standing(attempt).true_c
        for _ in range(3):
            self.pace(attempt, on="300")
        self.assertGreater(attempts.standing(attempt).true_c, cold + 60)
        self.assertAlmostEqual((clock.now(attempt.job) - timezone.now()).total_seconds(), 900, delta=5)

    def test_they_run_ten_times_as_fast_and_as_usual_again_without_a_jump(self):
        attempt = self.begin()
        self.pace(attempt, fast="1")
        self.assertContains(self.client.get(f"/jobs/{attempt.job.tag}/heat-and-drop/0/"), f'data-pace="{clock.PACE}"')
        later = timezone.now() + timedelta(seconds=30)
        with mock.patch.object(timezone, "now", lambda: later):
            self.assertAlmostEqual((clock.now(attempt.job) - later).total_seconds(), 270, delta=5)
            self.pace(attempt, fast="0")
            self.assertAlmostEqual((clock.now(attempt.job) - later).total_seconds(), 270, delta=5)

    def test_a_job_of_the_shop_never_runs_ahead(self):
        real = job(412)
        with self.assertRaises(DatabaseError), transaction.atomic():
            Job.every.filter(pk=real.pk).update(ahead_s=60)

    def test_a_lever_that_takes_its_time_moves_the_clock(self):
        attempt = self.begin("free-wheel")
        attempts.do(attempt, "more", 1.0, {})
        before = clock.now(attempt.job)
        attempts.do(attempt, "wait", 1.0, {})
        self.assertGreater((clock.now(attempt.job) - before).total_seconds(), 500)
        self.assertLess(attempts.standing(attempt).holds, 1.0)
        self.assertEqual(Timer.objects.count(), 0)


class JudgeFirst(TestCase):
    def test_the_call_is_hidden_until_the_learner_has_said(self):
        una = person()
        self.client.force_login(una)
        attempt = attempts.begin(una, "read-dial", "easy", 8, judges=True)
        address, tag = f"/jobs/{attempt.job.tag}/true/", attempt.job.tag
        self.assertContains(self.client.get(address), 'id="plate"')
        for question, text in (
            ("support-place.left", "92"),
            ("gauge-place.left", "34"),
            ("support-place.right", "92"),
            ("gauge-place.right", "34"),
        ):
            self.client.post(f"{address}keep/", {"ask": question, "text": text})
        for end in ("left", "right"):
            self.client.post(f"{address}keep/", {"ask": f"shaft-tir.{end}", "text": "0.21"})
            self.client.post(f"{address}keep/", {"ask": f"high-spot.{end}", "text": "75"})
        page = self.client.get(address)
        self.assertNotContains(page, 'id="plate"')
        self.assertNotContains(page, "Not OK")
        self.assertContains(page, "judge/")
        self.assertContains(self.client.get(f"/practice/{tag}/judge/"), "Out of the limit")
        shown = self.client.post(f"/practice/{tag}/judge/", {"said": "out"}, follow=True)
        self.assertContains(shown, 'id="plate"')
        attempt.refresh_from_db()
        self.assertEqual([each["said"] for each in attempt.calls], ["out"])
        self.client.post(f"/practice/{tag}/finish/")
        attempt.refresh_from_db()
        self.assertEqual(attempt.result["calls"]["all"], 1)


class AnEmptyShop(TestCase):
    def test_shims_are_lent_to_practice_alone(self):
        una = person()
        self.client.force_login(una)
        attempt = attempts.begin(una, "end-float", "easy", 9)
        address, part = f"/jobs/{attempt.job.tag}/end-float/", attempts.standing(attempt)
        low, high = part.truth.limits_mm
        for key, value in (
            ("face-to-bearing.left", part.truth.left_mm),
            ("face-to-bearing.right", part.truth.right_mm),
            ("gasket-crushed", part.truth.gasket_mm),
            ("crank-shoulders", part.truth.crank_mm),
        ):
            self.client.post(f"{address}keep/", {"ask": key, "text": f"{value:.3f}"})
        self.client.post(f"{address}keep/", {"ask": "shims-fitted", "text": ""})
        self.client.post(f"{address}keep/", {"ask": "end-float-least", "text": f"{low:.2f}"})
        page = self.client.post(f"{address}keep/", {"ask": "end-float-most", "text": f"{high:.2f}"}, follow=True)
        self.assertContains(page, "Measure the shim")
        self.assertEqual(Blades.objects.count(), 0)


class TheShop(TestCase):
    def test_it_sees_those_who_agreed_and_no_others(self):
        bram, una = person("bram", "mechanic"), person()
        for each in (bram, una):
            attempt = attempts.begin(each, "seals", "easy", 3)
            attempts.finish(attempt)
        self.client.force_login(una)
        his = Attempt.objects.get(person=bram)
        self.assertNotContains(self.client.get("/practice/shop/"), "Bram")
        self.assertEqual(self.client.get(f"/practice/gone/{his.pk}/").status_code, 404)
        self.client.force_login(bram)
        self.assertEqual(self.client.get("/practice/shop/").status_code, 403)
        self.client.post("/practice/let-see/", {"shown": "1"})
        self.client.force_login(una)
        self.assertContains(self.client.get("/practice/shop/"), "Bram")
        self.assertContains(self.client.get(f"/practice/gone/{his.pk}/"), "Bram")
        Learner.objects.update(shown=False)
        self.assertNotContains(self.client.get("/practice/shop/"), "Bram")

    def test_goes_never_finished_are_taken_away_after_a_time(self):
        attempt = attempts.begin(person(), "split", "easy", 3)
        Attempt.objects.filter(pk=attempt.pk).update(started_at=timezone.now() - timedelta(days=90))
        self.assertEqual((attempts.take_away_old(), Job.every.count(), Attempt.objects.count()), (1, 0, 0))


class TheInstructorsFile(TestCase):
    def sent(self, content):
        self.client.force_login(person())
        return self.client.post("/practice/bring/", {"file": SimpleUploadedFile("e.json", content.encode())}, follow=True)

    def test_any_go_comes_out_and_comes_in_again_as_the_same_part(self):
        for key in EXERCISES:
            attempt = attempts.begin(person(), key, "hard", 11)
            part = attempts.standing(attempt)
            attempts.finish(attempt)
            self.client.force_login(person())
            text = self.client.get(f"/practice/gone/{attempt.pk}/file/").content.decode()
            self.assertContains(self.sent(text), "can be practised now")
            given = Given.objects.get(exercise=key)
            again = attempts.begin(person(), key, "hard", 11, given=given)
            self.assertEqual(EXERCISES[key].truth(attempts.standing(again)), EXERCISES[key].truth(part), key)
            attempts.finish(again)

    def test_goal_and_gauge_of_a_file_are_what_the_station_and_the_debrief_go_by(self):
        bent = {"twist_deg": 0.1, "pinch_deg": 0.0, "offset_mm": 0.001, "skew_deg": 0.0}
        file = {"stator-exercise": 1, "exercise": "true-crank", "name": "A coarse dial", "words": "Mind its step.", "truth": {"bent": bent}}
        self.sent(json.dumps({**file, "gauge": {"step_mm": 0.01}, "goal": 0.05}))
        self.client.post("/practice/", {"given": str(Given.objects.get().pk)})
        attempt = Attempt.objects.get()
        shown = attempts.standing(attempt).shows_mm()
        self.assertAlmostEqual(shown / 0.01, round(shown / 0.01), places=6)
        self.assertEqual(attempt.job.card.specs.get().high, 0.05)
        attempts.finish(attempt)
        self.assertEqual(attempt.result["limit"], 0.05)

    def test_bad_ones_are_refused_with_the_reason(self):
        head = '{"stator-exercise": 1, "exercise": "%s", "name": "x", "truth": %s%s}'
        for content, reason in (
            ("{", "no JSON"),
            ("{}", "stator-exercise"),
            (head % ("melt", "{}", ""), "exercise"),
            (head % ("split", '{"leads": 9, "toward_deg": 0}', ""), "truth.leads"),
            (head % ("split", '{"leads": 0.5, "toward_deg": 0, "colour": 1}', ""), "truth.colour"),
            (head % ("split", '{"leads": 0.5, "toward_deg": 0}', ', "goal": 2'), "goal"),
            (head % ("split", '{"leads": 0.5, "toward_deg": 0}', ', "gauge": {"step_mm": 0.01}'), "gauge"),
            (
                head % ("seals", '{"made_for": ["drive", "drive", "output"], "inside_up": [true, true, true], "leans_mm": 0}', ""),
                "made_for",
            ),
            (head % ("hot-half", '{"tight_um": {"A": 20}, "tau_s": 500}', ""), "tight_um"),
        ):
            self.assertContains(self.sent(content), "was refused, nothing of it is kept")
            self.assertContains(self.sent(content), reason)
        self.assertEqual(Given.objects.count(), 0)

    def test_a_mechanic_brings_none(self):
        self.client.force_login(person("bram", "mechanic"))
        self.assertEqual(self.client.post("/practice/bring/").status_code, 403)


class TheDemo(TestCase):
    def test_an_apprentice_gets_better_in_a_month(self):
        made = month(person("wren", "mechanic"), timezone.now())
        goes = list(Attempt.objects.order_by("started_at"))
        self.assertEqual(len(goes), made)
        early, late = goes[: made // 3], goes[-made // 3 :]
        self.assertLess(
            sum(each.result["reached"] for each in early) / len(early), sum(each.result["reached"] for each in late) / len(late)
        )
        self.client.force_login(person())
        self.assertContains(self.client.get("/practice/shop/"), "Wren")
        for each in goes:
            self.assertEqual(self.client.get(f"/practice/gone/{each.pk}/").status_code, 200)
