"""Tests with learners who follow the real station: its verdicts lead each exercise to its goal without damage."""

from __future__ import annotations

from django.test import TestCase

from shopmath.runout import fit
from shopmath.seals import CLOCKS
from stator.jobs import clock
from stator.jobs.models import Job, RunStation
from stator.practice import attempts
from stator.shop.defaults import stock_shelves
from stator.simulators.crank import ENDS
from stator.simulators.operators.crank import TURN
from stator.simulators.seals import LETTERS, PLACES
from stator.simulators.twin_crank import BLOW_DEG
from stator.stations.framework import bind
from stator.workbench.registry import STATION_BY_KEY
from tests.factories import Hands, person

SEEDS = (3, 11)


class Follows(Hands):
    """A learner at the station of an attempt who answers its questions with what the part shows."""

    def __init__(self, exercise, level, seed):
        self.who = person("bram", "mechanic")
        self.attempt = attempts.begin(self.who, exercise, level, seed)
        self.kind, self.job, self.seat = attempts.exercise_of(self.attempt), self.attempt.job, None
        seat = "" if self.kind.seat is None else f"{self.kind.seat}/"
        self.address = f"/jobs/{self.job.tag}/{self.kind.station}/{seat}"
        for warning in self.work().checks():
            self.post("tick", key=warning.key, on="1")

    def key(self, ask):
        return ask

    def work(self):
        job = Job.every.get(pk=self.job.pk)
        station, stage = STATION_BY_KEY[self.kind.station], RunStation.objects.select_related("job__card").get(job=job)
        station = station.whole if self.kind.seat == 0 else station
        return bind(station, stage.job, stage, None, self.who, clock.now(job))

    def do(self, control, share=1.0, **typed):
        attempts.do(self.attempt, control, share, typed)
        return attempts.standing(self.attempt)

    @property
    def part(self):
        return attempts.standing(self.attempt)

    def answers(self, ask, value):
        """Answer a question; repeat the answer if the station asks whether it is meant."""
        before = len(self.work().answers.live(ask))
        self.keep(ask, value)
        if len(self.work().answers.live(ask)) == before:
            self.post("keep", ask=ask, text=value, suspect=value)

    def asked(self):
        question = self.work().next_question
        return question.key if question else ""

    def ends(self):
        attempts.finish(self.attempt)
        return self.attempt.result


class TheCallsLeadThere(TestCase):
    def setUp(self):
        stock_shelves()

    def test_the_outer_webs_of_a_twin(self):
        for seed in SEEDS:
            hands = Follows("outer-web", "middle", seed)
            hands.choose(how="swing")
            for _round in range(8):
                for end in ENDS:
                    part = hands.part
                    turn = fit(TURN, [part.read(end, angle) for angle in TURN])
                    for _time in range(hands.work().analysis.turns):
                        hands.answers(f"shaft-tir.{end}", f"{turn.tir_mm:.3f} mm")
                    hands.answers(f"high-spot.{end}", f"{turn.high_spot_deg:.0f}")
                found = hands.work().analysis
                if found.is_done:
                    break
                side, shaft = found.worst
                way = "ccw" if shaft.turn.direction == "counter-clockwise" else "cw"
                hands.do(f"{side}-{way}", min(1.0, shaft.turn.turn_deg / BLOW_DEG))
                hands.act("again")
            result = hands.ends()
            self.assertTrue(result["reached"] or result["left"] < 0.045, (seed, result["left"]))
            self.assertGreaterEqual(2 * result["right"], len(result["moves"]))

    def test_a_flywheel_comes_off_under_the_torque_that_the_station_stops_at(self):
        sizes = {
            "puller-diameter": "puller-across",
            "puller-pitch": "puller-pitch",
            "boss-diameter": "boss-bore",
            "boss-pitch": "boss-pitch",
            "centre-screw-diameter": "screw-across",
            "centre-screw-pitch": "screw-pitch",
            "puller-turns": "turns",
        }
        for seed in range(1, 4):
            hands = Follows("free-wheel", "middle", seed)
            for _question in range(14):
                question = hands.asked()
                if not question or question.startswith("pulling-torque"):
                    break
                if question.startswith(("puller-hand", "boss-hand")):
                    hands.answers(question, "right")
                    continue
                shown = hands.kind.shows(hands.do(sizes[question.partition(".")[0]])).amount
                hands.answers(question, f"{shown.value:.3f}")
            stop_nm = hands.work().analysis.pull.stop_nm
            self.assertLess(stop_nm, hands.part.truth.strips_nm, seed)  # the call is on the safe side of what the thread stands
            for _move in range(80):
                part = hands.part
                if part.is_free:
                    break
                hands.do("more" if part.torque_nm + part.MORE_NM <= stop_nm else "wait")
            result = hands.ends()
            self.assertEqual((result["reached"], result["damage"]), (True, []), seed)

    def test_three_seals_by_their_sizes_and_depths(self):
        hands = Follows("seals", "middle", 5)
        for letter in LETTERS:
            hands.do(f"take-{letter}")
            of = hands.work().analysis.in_hand
            for what in ("shaft", "bore"):
                seen = [hands.do(what).shown for _ in range(5)]
                hands.answers(f"seal-{what}.{of.seal.uid}", f"{sum(seen) / 5:.2f}")
            if any(action.key == "other" for action in hands.work().actions()):
                hands.act("other")
            seal = hands.work().analysis.in_hand.seal
            place = next(each for each in PLACES if (seal.shaft_mm, seal.bore_mm) == PLACES[each])
            hands.do(f"place-{place}")
            hands.answers(f"seal-keeps.{seal.uid}", "oil")
            if not hands.part.inside[letter]:
                hands.do("round")
            hands.answers(f"seal-lip.{seal.uid}", "inside")
            hands.do("drive")
            for _tap in range(8):
                depths = {clock: hands.do(f"depth-{clock}").shown for clock in CLOCKS}
                for hour, depth in depths.items():
                    hands.answers(f"seal-depth.{seal.uid}.{hour}h", f"{depth:.2f}")
                seating = hands.work().analysis.in_hand.seating
                if seating is None or seating.square.state == "in":
                    break
                hands.do(f"tap-{min(depths, key=depths.get)}")
            if hands.work().actions() and hands.work().actions()[0].key == "next":
                hands.act("next")
        self.assertEqual({place for place in PLACES if hands.part.is_right(place)}, set(PLACES))
        self.assertEqual(hands.ends()["damage"], [])

    def test_a_crank_is_shimmed_to_the_manual_that_its_number_names(self):
        for seed in SEEDS:
            hands = Follows("end-float", "middle", seed)
            true_values = hands.part.truth
            crank = {"gasket-crushed": "gasket", "crank-shoulders": "crank"}
            places = {"face-to-bearing.left": "left", "face-to-bearing.right": "right", **crank}
            for key, place in places.items():
                seen = [hands.do(f"measure-{place}").shown_mm for _ in range(3)]
                hands.answers(key, f"{sum(seen) / 3:.3f} mm")
            hands.keep("shims-fitted", "")
            for key, limit in zip(("end-float-least", "end-float-most"), true_values.limits_mm, strict=True):
                hands.answers(key, f"{limit:.2f} mm")
            pieces = hands.work().analysis.pieces
            self.assertTrue(pieces or hands.part.is_within)
            for number, piece in enumerate(pieces, 1):
                before = sum(hands.part.shims)
                thick = sum(hands.do(f"add-{piece:g}").shims) - before
                hands.answers(f"shim-thickness.s{number}", f"{thick:.3f} mm")
            self.assertIn(hands.work().analysis.call.state, ("in", "too_close"))
            result = hands.ends()
            self.assertEqual((result["reached"], result["damage"]), (True, []), seed)

    def test_a_wheel_is_balanced_by_its_stops_its_mass_and_the_planned_holes(self):
        hands = Follows("balance", "easy", 4)
        hands.answers("shook", "yes")
        hands.answers("wheel-sound", "sound")
        hands.answers("rim-diameter", "190 mm")
        for _go in range(4):
            while not hands.work().analysis.marks_tell and not hands.work().analysis.needs_proof:
                hands.keep("stop-angle", f"{hands.do('roll').shown:.0f}")
            found = hands.work().analysis
            if found.needs_proof:
                break
            light = found.light_deg
            if found.value("trial-radius") is None:
                hands.answers("trial-radius", "80 mm")
            hands.answers("trial-stays", f"{_least(hands, light, ('stays', 'turns')):.2f} g")
            hands.answers("trial-turns", f"{_least(hands, light, ('turns',)):.2f} g")
            if hands.work().analysis.needs_proof:
                break
            if found.value("drill-radius") is None:
                hands.answers("drill-radius", "80 mm")
                hands.keep("finish-radius", "")
                hands.answers("rim-depth", "18 mm")
                hands.keep("keep-out", "")
                hands.answers("drills", "4 6 8")
            for number, hole in enumerate(hands.work().analysis.plan.holes, 1):
                made = hands.do("drill", mark=hole.angle_deg % 360, bit=hole.diameter_mm, depth=hole.depth_mm).shown
                hands.answers(f"hole-depth.s{number}", f"{made:.1f} mm")
            hands.act("again")
        result = hands.ends()
        self.assertTrue(result["reached"], result["left"])
        self.assertEqual(result["damage"], [])
        self.assertGreaterEqual(result["right"], len(result["moves"]) - 1)

    def test_a_case_is_levelled_push_by_push(self):
        hands = Follows("split", "easy", 6)
        hands.act("rest")
        hands.answers("counted", "8")
        for _screw in range(3):
            hands.keep(hands.asked(), "")
        hands.act("begin")
        share = 0.25
        for _round in range(40):
            if hands.do("push", share).is_free:
                break
            for place in PLACES_OF_GAPS:
                gap = hands.do(f"gap-{place}").shown_mm()
                hands.answers(f"gap.{uid_of(hands, place)}", f"{gap:.2f} mm")
            move = hands.work().analysis.move
            if move and move.kind == "tap":
                hands.do(f"tap-{move.place}")
            if move and move.kind == "back":
                hands.do("ease")
            share = 0.5 if move and move.kind == "go_on" and move.turns >= 0.5 else 0.25
            hands.act("next")
        result = hands.ends()
        self.assertEqual((result["reached"], result["damage"]), (True, []))

    def test_five_bearings_fall_at_the_temperature_that_the_heat_is_planned_for(self):
        hands = Follows("hot-half", "easy", 8)
        target = hands.work().analysis.plan.target_c
        hands.do("set-125" if target < 110 else "set-140")
        hands.do("oven")
        for _look in range(60):
            if hands.do("paint").shown_c >= target:
                break
            attempts.go_on(hands.attempt, 60)
        attempts.go_on(hands.attempt, 120)  # thick bosses lag behind
        hands.do("out")
        for name in "ABCDE":
            hands.do(f"drop-{name}")
        result = hands.ends()
        self.assertEqual((result["reached"], result["damage"]), (True, []))


PLACES_OF_GAPS = ("front", "top", "rear", "sump")


def uid_of(hands, place):
    """The identity of a place to measure, by its name on the card."""
    return hands.job.card.marks.get(name=place).uid


def _least(hands, mark_deg, said):
    """Return the lowest mass at a mark with which the flywheel answers so, g."""
    for tenth in range(60):
        if hands.do("let-go", mark=mark_deg % 360, mass=tenth / 10).said in said:
            return tenth / 10
    return 6.0
