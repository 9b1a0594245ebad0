"""Tests of the messages of a heat by code: facts in, verdict out, without a database or a page."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

from django.test import SimpleTestCase

from shopmath.thermal.seat import HEATED_BY_U_K
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard, Fitted, Seat
from stator.engines.parts import ENGINE
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts, GaugeSnapshot, MeasuredReading, Origin
from stator.jobs.models import Timer
from stator.shop.equipment_snapshot import EquipmentSnapshot
from stator.shop.models import Chiller, Gauge, Heater, Shop
from stator.stations.framework import State, StationInput
from stator.stations.install_with_heat.shaft_assembly import verdict as of_assembly
from stator.stations.install_with_heat.shaft_assembly.analysis import INSIDE, OUTSIDE, Assembly
from stator.stations.install_with_heat.shaft_assembly.analysis import Code as Put
from stator.stations.install_with_heat.single_seat import verdict
from stator.stations.install_with_heat.single_seat.analysis import Code, Phase, one_seat
from stator.stations.install_with_heat.single_seat.station import result

NOW = datetime(2026, 5, 4, 10, tzinfo=UTC)
FEELER = GaugeSnapshot("Feelers", 0.01)
OVEN = Heater(pk=1, name="Oven", method="oven", fan=True)
FREEZER = Chiller(pk=1, name="Freezer", method="freezer", temperature_c=-18)
PROBE = Gauge(pk=1, name="Probe", kind="contact", resolution=0.1, repeatability=0.5)
GUN = Gauge(pk=2, name="Gun", kind="infrared", resolution=0.5, repeatability=0.5, emissivity=0.95)
NOTHING = dict.fromkeys(EquipmentSnapshot.__dataclass_fields__, ())
SHELVES = EquipmentSnapshot(**{**NOTHING, "heaters": (OVEN,), "chillers": (FREEZER,), "gauges": (PROBE, GUN)})


def seat_of(**more):
    card = EngineCard(name="Corrie 272", case_material="al-si7-mg", case_material_assumed=False)
    return Seat(card=card, **{"name": "Main", "role": "main", "designation": "6204 C3", "code": "N7", "uid": "main", **more})


def clock(key, minutes):
    return Timer(key=key, attempt=1, started_at=NOW - timedelta(minutes=minutes))


def read(slot, value, minutes=0, **more):
    at = NOW - timedelta(minutes=minutes)
    number = round(1000 - minutes)
    return MeasuredReading(slot, value if not isinstance(value, str) else None, str(value), at=at, number=number, **more)


class OneHeat(SimpleTestCase):
    """Tests with a main bearing in its seat; readings and running timers are set, the rest follows."""

    def setUp(self):
        self.seat = seat_of()

    def slot(self, what, clock=None):
        return FactKey(self.seat.part, what, Location(clock=clock))

    def found(self, *taken, clocks=(), known=(), **chosen):
        own = EntryData(tuple(taken), chosen=chosen)
        return one_seat(
            StationInput(self.seat.card, Facts(derived=known), own, SHELVES, Shop(handling_s=20), self.seat, timers=tuple(clocks), now=NOW)
        )

    def said(self, *taken, **more):
        return verdict.verdict(self.found(*taken, **more), [])

    def fact(self, what, text="", value=None, station="inspect"):
        origin = Origin.DECIDED if value is None else Origin.MEASURED
        return Fact(self.slot(what), value, text, origin, uncertainty=0.004, station=station)

    def outcome(self, text):
        return read(self.slot(Property.FIT_OUTCOME), text)

    def gaps(self, *sizes):
        return [read(self.slot(Property.SEATING_GAP, at), size, gauge=FEELER) for at, size in zip((12, 3, 6, 9), sizes, strict=True)]


class Planned(OneHeat):
    def test_a_usual_main_drops_in_and_says_how_it_is_brought_there(self):
        found = self.said()
        self.assertEqual((found.state, found.code, found.reason, found.next), (State.IN, Code.GOES, "to_spare", "oven_chill"))
        self.assertGreater(found.values["least"].value, 0)
        self.assertEqual(found.detail, "cold_first")  # a ring in still cold air takes longer than a case in an oven

    def test_without_a_heater_or_a_freezer_the_step_says_only_what_is_there(self):
        self.assertEqual(self.said(chiller="none").next, "oven" if self.said(chiller="none").state == State.IN else "widen")
        self.seat.code = "F7"
        self.assertEqual(self.said(heater="none", chiller="none").next, "push")
        self.assertEqual(self.said(heater="none").next, "chill")

    def test_without_any_heat_the_help_names_it_first(self):
        found = self.said(heater="none", chiller="none")
        self.assertEqual(found.state, State.OUT)
        self.assertIn("the case in an oven, 100 °C", str(found.values["helps"][0]))

    def test_a_class_is_spread_evenly_and_a_measured_pair_is_not(self):
        by_class = self.found().plan.setup
        self.assertEqual((by_class.bore_even, by_class.inner_even), (True, True))
        size = FactKey(self.seat.part, Property.SEAT_SIZE)
        measured = self.found(read(size, 46.985, gauge=FEELER)).plan.setup
        self.assertEqual((measured.bore_even, measured.inner_even), (False, True))

    def test_a_flame_takes_over_no_setting_of_the_oven(self):
        torch = Heater(pk=5, name="Torch", method="torch")
        equipment = replace(SHELVES, heaters=(OVEN, torch))
        own = EntryData((read(FactKey(ENGINE, Property.HEATER_SETTING), 95),), chosen={"heater": "5"})
        given = StationInput(self.seat.card, Facts(), own, equipment, Shop(handling_s=20), self.seat, now=NOW)
        self.assertIsNone(one_seat(given).planned.heat_c)

    def test_a_flame_is_less_even_than_a_hot_plate_and_that_than_an_oven(self):
        bands = [HEATED_BY_U_K[method] for method in ("oven", "hot_plate", "heat_gun", "torch")]
        self.assertEqual(bands, sorted(bands))

    def test_a_ring_that_may_creep_when_warm_is_warned_of_and_compound_ends_it(self):
        found = self.found()
        creeping = [each.words for each in verdict.warnings(found) if each.key == "creeps"]
        self.assertRegex(creeping[0], r"this fit is −0\.03\d mm to 0\.00\d mm: the ring may creep")
        glued = self.found(known=(self.fact(Property.SEAT_MEND, "compound"),))
        self.assertNotIn("creeps", [each.key for each in verdict.warnings(glued)])

    def test_it_says_which_way_a_main_goes_when_the_hot_half_is_lifted(self):
        traces = {each.label: each for each in verdict.sources(self.found())}
        self.assertIn("with the crank", traces["When the hot half is lifted it"].value)

    def test_a_fit_too_tight_for_the_heat_is_out_with_what_would_help(self):
        found = self.said(read(FactKey(ENGINE, Property.HEAT_TARGET), 25.0), chiller="none")
        self.assertEqual((found.state, found.code, found.reason, found.detail), (State.OUT, Code.WONT, "chance_no_room", "helps"))

    def test_what_is_left_in_stops_an_oven_that_is_too_hot_for_it(self):
        self.seat.left_in = ["nitrile_seal"]
        found = self.said(read(FactKey(ENGINE, Property.HEATER_SETTING), 140.0))
        self.assertEqual((found.state, found.reason, found.values["limit"].value), (State.STOP, "oven_too_hot", 100))

    def test_a_seat_signed_as_out_gets_no_bearing_until_it_is_measured_or_glued(self):
        out = self.fact(Property.SEAT_VERDICT, "out")
        self.assertEqual(self.said(known=[out]).code, Code.SEAT_IS_OUT)
        self.assertEqual(self.said(read(self.slot(Property.SEAT_SIZE), 46.98, gauge=FEELER), known=[out]).code, Code.GOES)
        self.assertEqual(self.said(known=[out, self.fact(Property.SEAT_MEND, "compound")]).code, Code.GOES)

    def test_a_seat_measured_larger_than_the_ring_holds_nothing(self):
        self.assertEqual(self.said(read(self.slot(Property.SEAT_SIZE), 47.02, gauge=FEELER)).code, Code.NOTHING_HOLDS)

    def test_the_size_that_inspect_found_is_planned_with_until_a_mend_changes_it(self):
        size = self.fact(Property.SEAT_SIZE, value=46.981)
        self.assertEqual(self.found(known=[size]).measured_at, "inspect")
        self.assertEqual(self.found(known=[size, self.fact(Property.SEAT_MEND, "sleeve")]).measured_at, "")
        here = self.found(read(self.slot(Property.SEAT_SIZE), 46.98, gauge=FEELER), known=[size])
        self.assertEqual((here.measured_at, here.seat_known.size[0]), ("", 46.98))

    def test_what_it_rests_on_is_named_until_it_is_known(self):
        self.seat.code_assumed = True
        self.assertEqual([each.code for each in self.said().assumed], ["code", "air"])
        known = self.said(read(FactKey(ENGINE, Property.AIR_TEMPERATURE), 18.0), read(self.slot(Property.SEAT_SIZE), 46.98, gauge=FEELER))
        self.assertEqual(known.assumed, ())

    def test_a_marking_nobody_knows_is_no_plan(self):
        self.seat.designation = "69999"
        self.assertEqual((self.said().state, self.said().code), (State.STOP, Code.NO_PLAN))


class Under(OneHeat):
    def hot(self, shown, minutes=0.0, **values):
        values = {"true_c": shown, "low_c": shown - 2, "high_c": shown + 2, "trusted": True, "means": "contact", **values}
        return read(self.slot(Property.HOT_TEMPERATURE), shown, minutes, kind="temperature", corrected=values)

    def test_it_waits_for_what_is_not_in_yet_and_for_what_is_not_there_yet(self):
        self.assertEqual(self.said(clocks=[clock("chill", 5)]).next, "not_in_wait")
        self.assertEqual(self.said(clocks=[clock("chill", 200)]).next, "not_in")
        found = self.said(clocks=[clock("chill", 5), clock("heat", 1)])
        self.assertEqual((found.state, found.code, found.next), (State.WAIT, Code.NOT_YET, "wait"))
        self.assertEqual(len(found.values["waits"]), 2)

    def test_ready_it_says_out(self):
        found = self.said(clocks=[clock("chill", 200), clock("heat", 200)])
        self.assertEqual((found.state, found.code, found.next), (State.IN, Code.GOES, "out_oven"))

    def test_enough_before_its_time_it_says_now_or_later(self):
        found = self.said(self.hot(70.0), clocks=[clock("chill", 200), clock("heat", 8)])
        self.assertEqual((found.state, found.reason, found.next), (State.IN, "already", "now_or_later"))

    def test_over_a_limit_it_is_stop_whatever_else(self):
        found = self.said(self.hot(171.0), clocks=[clock("chill", 200), clock("heat", 30)])
        self.assertEqual((found.state, found.reason, found.next), (State.STOP, "too_hot", "out_of_heat"))

    def test_a_reading_too_coarse_carries_no_call(self):
        found = self.said(self.hot(100.0, trusted=False, means="bare"), clocks=[clock("chill", 200), clock("heat", 30)])
        self.assertEqual((found.state, found.reason), (State.TOO_CLOSE, "coarse"))

    def test_the_window_is_open_then_unsure_then_shut(self):
        codes = []
        for minutes in (0.2, 6, 60):
            clocks = [clock("chill", 200 + minutes), clock("heat", 200 + minutes), clock("window", minutes)]
            found = self.said(clocks=clocks)
            codes.append(found.code)
        self.assertEqual((codes[0], codes[-1]), (Code.GOES, Code.SHUT))
        self.assertEqual(sorted(codes, key=list(Code).index), [*codes])  # never back from worse to better


class Home(OneHeat):
    def window(self):
        return [clock("chill", 200), clock("heat", 200), clock("window", 2)]

    def after(self, *taken):
        return self.said(*taken, clocks=self.window())

    def test_stuck_it_is_out_and_nothing_counts_as_home(self):
        for text, code in (("jammed", Code.JAMMED), ("crooked", Code.CROOKED)):
            self.assertEqual((self.after(self.outcome(text)).state, self.after(self.outcome(text)).code), (State.OUT, code))
            self.assertFalse(self.found(self.outcome(text), clocks=self.window()).is_home)

    def test_in_but_not_felt_it_asks_whether_it_is_home(self):
        self.assertEqual(self.after(self.outcome("dropped")).code, Code.IS_IT_HOME)

    def test_four_gaps_tell(self):
        for sizes, state, code, home in (
            ((0, 0, 0, 0), State.IN, Code.SEATED, True),
            ((0, 0.03, 0, 0), State.TOO_CLOSE, Code.UNSURE, True),
            ((0, 0.05, 0.2, 0.05), State.OUT, Code.NOT_HOME, False),
        ):
            taken = [self.outcome("tapped"), *self.gaps(*sizes)]
            found = self.after(*taken)
            self.assertEqual((found.state, found.code), (state, code), sizes)
            self.assertEqual(bool(list(verdict.derived(self.found(*taken, clocks=self.window())))), home, sizes)

    def test_a_wider_gap_cold_counts_and_a_driver_that_was_needed_is_remembered(self):
        taken = [self.outcome("tapped"), *self.gaps(0, 0, 0, 0)]
        self.assertEqual(self.after(*taken).detail, "agree_tapped")
        cold = read(self.slot(Property.SEATING_GAP_COLD), 0.12, gauge=FEELER)
        self.assertEqual(self.after(*taken, cold).code, Code.NOT_HOME)

    def test_a_loose_circlip_is_not_home_however_the_gaps_are(self):
        self.seat.stop = Seat.Stop.CIRCLIP
        taken = [self.outcome("dropped"), *self.gaps(0, 0, 0, 0), read(self.slot(Property.CIRCLIP), "loose")]
        self.assertEqual(self.after(*taken).code, Code.CIRCLIP_LOOSE)
        self.assertFalse(self.found(*taken, clocks=self.window()).is_home)

    def test_a_through_bore_is_judged_by_even_depths(self):
        self.seat.stop = Seat.Stop.THROUGH
        sizes = {12: 3.02, 3: 3.02, 6: 3.32, 9: 3.02}
        depths = [read(self.slot(Property.SEATING_DEPTH, at), size, gauge=FEELER) for at, size in sizes.items()]
        self.assertEqual(self.after(self.outcome("dropped"), *depths).code, Code.NOT_HOME)

    def test_what_a_file_carries_says_what_was_planned_and_what_came_of_it(self):
        found = self.found(self.outcome("dropped"), *self.gaps(0, 0, 0, 0), clocks=self.window())
        told = result(found)
        self.assertEqual((found.phase, told["outcome"], told["seated_state"], told["heater"]), (Phase.AFTER, "dropped", "in", "Oven"))


class PutTogether(SimpleTestCase):
    """Tests with a shaft and its parts, and a rubber bushing in its boss."""

    def spindle(self, *taken, **more):
        sizes = {"d_mm": 12, "length_mm": 62, "turned": "flat", "angle_deg": 90, "order": "washer, rocker", "depth_mm": 0, **more}
        part = Fitted(name="Rocker spindle", uid="spindle", **sizes)
        return Assembly(
            part, EntryData(tuple(read(FactKey(part.part, what, at), value, gauge=FEELER) for what, at, value in taken)), "drive side"
        )

    def said(self, found):
        return of_assembly.verdict(found, [])

    def test_its_direction_is_judged_within_what_the_card_allows(self):
        for degrees, state in ((92.0, State.IN), (94.6, State.TOO_CLOSE), (80.0, State.OUT), (-270.0, State.IN)):
            found = self.said(self.spindle((Property.DIRECTION, Location(), degrees)))
            self.assertEqual(found.state, state, degrees)
        self.assertEqual(self.said(self.spindle((Property.DIRECTION, Location(), 80.0))).next, "turn")

    def test_the_worse_of_direction_and_depth_is_said(self):
        found = self.said(self.spindle((Property.DIRECTION, Location(), 90.0), (Property.END_DEPTH, Location(), 0.9)))
        self.assertEqual((found.state, found.code, found.next), (State.OUT, Put.NOT_AS_DRAWN, "to_depth"))

    def test_what_is_wrong_without_measuring_goes_first(self):
        measured = (Property.END_DEPTH, Location(), 0.0)
        self.assertEqual(self.said(self.spindle(measured, (Property.SPINDLE_PLAY, Location(), "none"))).code, Put.BINDS)
        both = self.spindle(measured, (Property.SPINDLE_PLAY, Location(), "slack"), (Property.PIECES_ORDER, Location(), "other"))
        self.assertEqual([each.value for each in both.faults], [Put.OTHER_ORDER, Put.KNOCKS])

    def test_rubber_is_in_the_middle_or_is_pushed_half_the_difference(self):
        rubber = {"kind": Fitted.Kind.RUBBER, "angle_deg": None, "order": "", "depth_within_mm": 0.5}
        ends = ((Property.STANDS_OUT, INSIDE, 2.0), (Property.STANDS_OUT, OUTSIDE, 3.4))
        found = self.spindle(*ends, **rubber)
        self.assertAlmostEqual(found.off_middle_mm, -0.7)
        self.assertEqual((self.said(found).state, self.said(found).next), (State.OUT, "short_side"))
        self.assertEqual(self.said(self.spindle(*ends, (Property.BUSH_LUBRICANT, Location(), "oil"), **rubber)).state, State.STOP)
