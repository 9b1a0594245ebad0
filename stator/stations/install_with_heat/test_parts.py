"""Tests of the parts of a heat: temperature trends, thermometers, text and drawings."""

from __future__ import annotations

import re
from datetime import UTC, datetime, timedelta
from unittest.mock import patch

from django.test import SimpleTestCase, TestCase
from django.utils import timezone

from shopmath.amounts import chance, duration, mm, newton_metres, newtons, rough
from shopmath.estimate import Estimate
from shopmath.thermal import temperature_at_c
from stator.engines.models import Seat
from stator.shop.models import Chiller, Gauge, Heater, Shop
from stator.stations.install_with_heat import shared_messages, thermometers
from stator.stations.install_with_heat.live_temperatures import TemperatureTrend, Warmth
from stator.stations.install_with_heat.single_seat import drawing
from stator.stations.install_with_heat.thermometers import Means
from stator.ui.number_format import lasting, show, step_of, time_step_of
from tests.factories import Hands, job, person

START = datetime(2026, 5, 4, 9, tzinfo=UTC)
OVEN = Estimate(500, 700, 900, "oven")


def after(seconds: float) -> datetime:
    return START + timedelta(seconds=seconds)


def read(seconds: float, c: float, trusted: bool = True, u: float = 1.0) -> Warmth:
    return Warmth(after(seconds), c, u, trusted)


class Drifts(SimpleTestCase):
    def drift(self, *readings: Warmth) -> TemperatureTrend:
        return TemperatureTrend(read(0, 20), 120.0, OVEN, readings)

    def test_without_a_reading_it_goes_by_the_table_and_the_uncertainty_grows(self):
        here = self.drift().at(after(600))
        self.assertAlmostEqual(here.c, temperature_at_c(600, 20, 120, 700))
        self.assertGreater(here.u_k, self.drift().at(after(60)).u_k)

    def test_a_reading_pins_it_and_the_uncertainty_starts_anew(self):
        here = self.drift(read(600, 70))
        self.assertEqual(here.at(after(600)).c, 70)
        self.assertLess(here.at(after(620)).u_k, self.drift().at(after(620)).u_k)

    def test_two_readings_give_it_its_own_rate(self):
        slow = self.drift(read(300, temperature_at_c(300, 20, 120, 1100)), read(600, temperature_at_c(600, 20, 120, 1100)))
        self.assertAlmostEqual(slow.rate().likely, 1100, places=6)
        self.assertTrue(slow.fitted)

    def test_readings_too_close_together_or_going_the_wrong_way_fit_nothing(self):
        for second in (read(310, 71), read(700, 55), read(700, 140)):
            self.assertFalse(self.drift(read(300, 70), second).fitted)

    def test_a_reading_that_cannot_be_trusted_moves_nothing(self):
        self.assertAlmostEqual(self.drift(read(300, 110, trusted=False)).at(after(600)).c, self.drift().at(after(600)).c)

    def test_when_it_gets_there(self):
        drift = self.drift()
        left = drift.reaches_in_s(95, after(0))
        self.assertAlmostEqual(drift.at(after(left)).c, 95, places=6)
        self.assertEqual(drift.reaches_in_s(30, after(3000)), 0.0)
        self.assertIsNone(drift.reaches_in_s(130, after(0)))

    def test_a_reading_of_later_does_not_change_what_was_earlier(self):
        self.assertAlmostEqual(self.drift(read(600, 90)).at(after(300)).c, self.drift(read(600, 90)).at(after(300)).c)


class Thermometers(TestCase):
    def setUp(self):
        job()
        self.gun, self.probe = Gauge.objects.get(kind="infrared"), Gauge.objects.get(kind="contact")

    def test_a_gun_on_paint_is_corrected_a_little_and_trusted(self):
        found = thermometers.worth(100.0, Means("paint", self.gun), 20.0)
        self.assertTrue(found["trusted"])
        self.assertAlmostEqual(found["true_c"], 100, delta=2)
        self.assertLess(found["high_c"] - found["low_c"], 16)  # a gun repeats to 2 K or so

    def test_a_gun_on_bare_metal_is_a_band_that_says_little(self):
        found = thermometers.worth(55.0, Means("bare", self.gun), 22.0)
        self.assertFalse(found["trusted"])
        self.assertTrue(found["low_c"] < 104 and found["high_c"] > 189)

    def test_a_contact_probe_says_what_it_shows_give_or_take_its_own(self):
        found = thermometers.worth(90.0, Means("contact", self.probe), 20.0)
        self.assertEqual(found["true_c"], 90.0)
        self.assertTrue(88 > found["low_c"] > 84)

    def test_every_surface_is_offered_for_the_gun_and_a_drop_of_water_always(self):
        keys = [option.key for option in thermometers.means_of((self.gun, self.probe))]
        self.assertEqual(len(keys), len(thermometers.SURFACES) + 2)
        self.assertEqual([option.key for option in thermometers.means_of(())], ["drop"])

    def test_a_drop_that_dances_is_over_a_hundred_and_fifty(self):
        self.assertEqual(thermometers.drop_worth("dances")["low_c"], 150)


class TradeWords(SimpleTestCase):
    def test_sureness_is_never_rounded_up(self):
        cases = {1.0: "more than 95 %", 0.951: "more than 95 %", 0.95: "95 %", 0.9499: "90 %", 0.5: "50 %", 0.001: "less than 5 %"}
        for confidence, words in cases.items():
            self.assertEqual(show(chance(confidence)), words)

    def test_more_than_99_percent_needs_a_temperature_read_by_contact(self):
        texts = [show(chance(value, measured=True)) for value in (1.0, 0.991, 0.99, 0.96, 0.93)]
        self.assertEqual(texts, ["more than 99 %", "more than 99 %", "more than 95 %", "more than 95 %", "90 %"])

    def test_a_time_is_shown_no_finer_than_a_fifth_of_its_half_width(self):
        for seconds, half, words in (
            (1471, 750, "24 min"),
            (1471, 125, "24:30"),
            (1471, 50, "24:30"),
            (1471, 49, "24:30"),
            (1471, 24, "24:30"),
            (233, 50, "3:50"),
            (90, 0, "1:30"),
            (1800, 300, "30 min"),
            (9000, 3000, "2 h 30 min"),
            (7200, 3000, "2 h"),
        ):
            self.assertEqual(show(duration(seconds, half)), words, (seconds, half))

    def test_a_promise_is_rounded_down_and_a_minimum_up(self):
        self.assertEqual([show(duration(239, 60, toward)) for toward in ("down", "nearest", "up")], ["3:50", "4 min", "4 min"])
        self.assertEqual([show(duration(231, 60, toward)) for toward in ("down", "nearest", "up")], ["3:50", "3:50", "4 min"])
        self.assertEqual([show(rough(newton_metres(48.6), toward)) for toward in ("down", "up")], ["48 N·m", "49 N·m"])

    def test_the_steps_at_their_edges(self):
        self.assertEqual(
            [step_of(half) for half in (0.0049, 0.005, 0.0099, 0.01, 0.0249, 0.025, 25.0)], [0.0005, 0.001, 0.001, 0.002, 0.002, 0.005, 5.0]
        )
        halves = (1, 25, 49, 50, 149, 150, 299, 300, 599, 600, 1499, 1500)
        self.assertEqual([time_step_of(half) for half in halves], [5, 5, 5, 10, 10, 30, 30, 60, 60, 120, 120, 300])

    def test_forces_from_friction_have_two_digits(self):
        self.assertEqual([show(rough(newtons(value))) for value in (1_234, 12_340, 98_700, 455)], ["1.2 kN", "12 kN", "99 kN", "0.46 kN"])

    def test_an_uncertain_size_has_no_digit_finer_than_its_uncertainty_allows(self):
        self.assertEqual(
            [show(mm(0.1234, 0.001, half)) for half in (0.004, 0.03, 0.12)], ["0.123 ± 0.004 mm", "0.125 ± 0.030 mm", "0.12 ± 0.12 mm"]
        )

    def test_times_and_temperatures(self):
        self.assertEqual((lasting(412), lasting(3850), lasting(None)), ("6:52", "1:04:10", "an unknown time"))
        self.assertEqual([show(shared_messages.soon(time)) for time in (3, 41, 400)], ["5 s", "40 s", "6:40"])


class Choices(TestCase):
    """Methods change the computation, not only the words."""

    def setUp(self):
        self.hands = Hands(job())

    def test_a_hot_plate_settles_below_its_setting_and_takes_its_own_time(self):
        self.hands.choose(heater=str(Heater.objects.get(method="hot_plate").pk))
        self.hands.keep("heat", "150")
        heating = self.hands.work().analysis.plan.setup.heating
        self.assertTrue(90 < heating.surroundings_c < 150)
        self.assertIn("hot plate", heating.time_constant.basis)

    def test_a_heat_gun_opens_the_boss_by_the_shop_s_own_share(self):
        self.hands.choose(heater=str(Heater.objects.get(method="heat_gun").pk))
        Shop.objects.update(local_opening=0.5)
        work = self.hands.work()
        self.assertEqual(work.analysis.plan.setup.heating.opening, 0.5)
        self.assertIsNone(work.analysis.plan.soak)
        self.assertIn("by thermometer", work.displayed_verdict().next_step)
        self.assertNotIn("heater-setting", [question.key for question in work.questions()])
        self.assertIn("boss alone opens 50 %", next(each for each in work.sources() if each.label == "Case opens").source)

    def test_freeze_spray_and_dry_ice_bring_their_own_cautions(self):
        for method, word in (("spray", "remove heat sources"), ("dry_ice", "can suffocate")):
            self.hands.choose(chiller=str(Chiller.objects.get(method=method).pk))
            self.assertTrue(any(word in warning.words and warning.required for warning in self.hands.work().checks()), method)

    def test_no_heat_and_no_cold_leaves_nothing_to_wait_for(self):
        Seat.objects.update(code="F7")
        hands = Hands(self.hands.job)
        hands.choose(heater="none", chiller="none")
        hands.tick_all()
        work = hands.work()
        self.assertEqual([action.key for action in work.actions()], ["open"])
        hands.act("open")
        self.assertEqual(hands.work().analysis.phase, "window")

    def test_a_painted_case_has_paint_among_its_limits(self):
        made = job(777, painted=True)
        self.assertIn("paint", [limit.what for limit in Hands(made).work().analysis.plan.setup.hot_limits])

    def test_an_oven_that_also_cooks_food_asks_before_it_opens(self):
        Heater.objects.filter(method="oven").update(cooks_food=True)
        self.assertTrue(any(warning.key == "food" and warning.required for warning in self.hands.work().checks()))

    def test_a_choice_that_is_not_on_the_shelf_is_refused(self):
        self.assertIn("not on the shelf", self.hands.choose(heater="999"))

    def test_a_retired_oven_is_offered_no_more(self):
        oven = Heater.objects.get(method="oven")
        oven.retired = True
        oven.save()
        self.assertNotIn(oven.name, [option.words for option in self.hands.work().methods()[0].options])

    def test_the_target_of_one_s_own_replaces_the_plan_s(self):
        self.hands.keep("target", "95")
        self.assertEqual(self.hands.work().analysis.plan.target_c, 95)


class Drawn(TestCase):
    """Tests that the drawing agrees with the numbers."""

    def drawn(self, **seat):
        hands = Hands(job(500 + Seat.objects.count(), **seat))
        return hands, str(hands.work().drawing(0.0))

    def x(self, line, end):
        return float(re.search(rf'x{end}="([\d.]+)"', line)[1])

    def gap(self, text):
        return float(re.search(r'class="label reading-label ink big"[^>]*>([−\d.]+)<', text)[1].replace("−", "-"))

    def test_the_gap_written_is_half_the_clearance_of_the_moment(self):
        hands, text = self.drawn()
        self.assertAlmostEqual(self.gap(text), hands.work().analysis.plan.leaving.clearance_mm / 2, delta=0.0011)
        later = str(hands.work().drawing(600.0))
        self.assertLess(self.gap(later), self.gap(text))
        self.assertIn("10:00 after coming out", later)

    def test_the_line_for_the_time_to_install_is_drawn_at_the_time_that_is_written(self):
        hands, _ = self.drawn()
        for shift_s in (0, 20, 40):
            with patch.object(drawing, "sure_until_s", lambda *each, shift_s=shift_s: 200.0 + shift_s):
                text = str(hands.work().drawing(0.0))
            minutes, seconds = re.search(r"fits until (\d+)(?::(\d\d)| min)", text).groups()
            (axis,), (line,) = (re.findall(rf'<line [^>]*class="{name}"[^>]*>', text)[:1] for name in ("wanted", "hot bold"))
            left, right, at = self.x(axis, 1), self.x(axis, 2), self.x(line, 1)
            drawn_s = (at - left) / (right - left) * drawing.span_s(hands.work().analysis)
            self.assertAlmostEqual(drawn_s, 60 * int(minutes) + int(seconds or 0), delta=2)

    def test_the_exaggeration_is_written_beside_it_and_fits_the_paper(self):
        _, text = self.drawn()
        self.assertRegex(text, r"a side, drawn ×(5|10|20|50|100|200)\b")
        for largest in (0.004, 0.05, 0.3):
            factor = drawing.exaggeration(largest, 6.7)
            self.assertTrue(factor == drawing.FACTORS[0] or factor * largest / 2 * 6.7 <= drawing.WIDEST_GAP_PX)

    def test_a_cold_tight_fit_is_drawn_as_an_overlap(self):
        hands, _ = self.drawn()
        hands.choose(heater="none", chiller="none")
        text = str(hands.work().drawing())
        self.assertIn("overlap a side", text)
        self.assertLess(self.gap(text), 0)

    def test_each_kind_of_stop_is_drawn(self):
        drawings = {stop: self.drawn(stop=stop)[1] for stop in ("shoulder", "circlip", "plate", "through")}
        self.assertIn('class="groove"', drawings["circlip"])
        self.assertNotIn('class="groove"', drawings["shoulder"])
        self.assertNotEqual(drawings["shoulder"], drawings["through"])

    def test_the_place_to_measure_next_is_marked_and_can_be_tapped(self):
        hands, _ = self.drawn()
        hands.keep("room", "18")
        text = str(hands.work().drawing())
        self.assertIn("here, cold", text)
        self.assertIn(f'href="{hands.address}?ask={hands.key("seat")}"', text)

    def test_a_device_that_says_what_paper_it_has_gets_that_alone(self):
        hands, _ = self.drawn()
        del hands.client.cookies["paper"]
        both = hands.page()
        self.assertTrue('class="wide"' in both and 'class="narrow"' in both)
        hands.client.cookies["paper"] = "narrow"
        self.assertNotIn('class="wide"', hands.page())

    def test_a_shaft_is_drawn_with_the_bearing_round_it(self):
        _, text = self.drawn(on="shaft", half="crank", designation="6205", code="k5")
        self.assertIn("Shaft", text)
        self.assertIn("⌀ 25 k5", text)

    def test_without_a_plan_it_says_why(self):
        hands, _ = self.drawn()
        Seat.objects.filter(pk=hands.seat.pk).update(designation="69999")
        self.assertIn("Nothing to draw until the sizes are settled", str(Hands(hands.job).work().drawing()))


class ThroughAndCirclip(TestCase):
    """Tests of the checks after installation, which depend on what locates the bearing."""

    def home(self, **seat):
        hands = Hands(job(**seat))
        hands.tick_all()
        hands.choose(heater="none", chiller="none")
        hands.post("act", action="open")
        entry = hands.entry
        self.assertTrue(entry.timers.filter(key="window").exists())
        hands.keep("outcome", "tapped")
        return hands

    def test_a_through_bore_is_judged_by_even_depth(self):
        hands = self.home(stop="through", code="F7")
        for clock, depth in zip((12, 3, 6, 9), ("3.02", "3.04", "3.30", "3.02"), strict=True):
            hands.keep(f"depth{clock}", depth)
        self.assertEqual(hands.work().displayed_verdict().headline, "Not home")
        hands.keep("depth6", "3.04")
        self.assertEqual(hands.work().displayed_verdict().headline, "Seated")
        self.assertNotIn(hands.key("cold"), [question.key for question in hands.work().questions()])

    def test_a_circlip_that_is_loose_means_it_is_not_home(self):
        hands = self.home(stop="circlip", code="F7")
        for clock in (12, 3, 6, 9):
            hands.keep(f"gap{clock}", "0")
        hands.keep("circlip", "loose")
        self.assertEqual(hands.work().displayed_verdict().headline, "Circlip not home")
        hands.keep("circlip", "in")
        self.assertIn("needed the driver", hands.work().displayed_verdict().detail)

    def test_nothing_can_be_signed_before_it_is_said_what_happened(self):
        hands = Hands(job(999, name="Other"))
        self.assertIn("cannot be done at this point", hands.act("sign"))
        hands.keep("room", "18")
        self.assertEqual(hands.work().may_sign(), "Say what happened first.")

    def test_an_answer_that_is_none_of_the_few_is_answered_with_them(self):
        hands = self.home(code="F7")
        hands.post("undo")
        self.assertIn("none of these", hands.keep("outcome", "sideways"))

    def test_the_station_is_done_when_every_seat_is_signed(self):
        hands = self.home(code="F7")
        Seat.objects.create(card=hands.job.card, name="Second", designation="6203", code="F7")
        self.assertIn("Still to answer: gap to the shoulder, at 12 o", hands.work().may_sign())
        for clock in (12, 3, 6, 9):
            hands.keep(f"gap{clock}", "0")
        hands.act("sign")
        stage = hands.job.run.get(key="heat-and-drop")
        self.assertEqual(stage.state, "now")
        page = hands.page()
        self.assertIn("On to Second", page)
        self.assertEqual(hands.entry.signed_by, person())
        self.assertLess((timezone.now() - hands.entry.signed_at).total_seconds(), 60)
