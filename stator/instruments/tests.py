from __future__ import annotations

import cmath
import contextlib
import io
import math
import statistics
import threading
from itertools import pairwise

from django.core.management import CommandError, call_command
from django.test import Client, SimpleTestCase, TestCase

from shopmath.runout import fit
from shopmath.thermal.infrared import infrared_true_c
from shopmath.truing import RunoutVector, decompose
from stator.instruments.gauge_hub import LETS_GO_S, LISTENER, Listener
from stator.instruments.gauge_reader import FLOOD, PEAKS, SILENT_S, Reader
from stator.instruments.protocol import InvalidLine, WrongUnit, read_line
from stator.shop.models import Gauge, Shop
from stator.simulators.case import Case
from stator.simulators.crank import Crank
from stator.simulators.flywheel_balance import Wheel
from stator.simulators.press import Ram
from stator.simulators.registry import PARTS
from tests.factories import job, person
from tests.simulated_gauges import Saying, StandIns, until


class TheLine(SimpleTestCase):
    def test_number_unit_and_label(self):
        for said, text, canonical, label in (
            ("+0.034 mm", "+0.034 mm", 0.034, ""),
            ("0.0013 in run-out", "0.0013 in", 0.03302, "run-out"),
            ("  -12,5um ", "-12,5 um", -0.0125, ""),
            ("0.5", "0.5 mm", 0.5, ""),
            ("0.5 left@45", "0.5 mm", 0.5, "left@45"),
            (".25", ".25 mm", 0.25, ""),
            ("−0.25 mm", "-0.25 mm", -0.25, ""),
        ):
            with self.subTest(said):
                line = read_line(said, "length", "mm")
                self.assertEqual((line.text, line.label), (text, label))
                self.assertAlmostEqual(line.canonical, canonical)

    def test_other_kinds_in_their_own_units(self):
        self.assertAlmostEqual(read_line("212 F", "temperature", "C").canonical, 100)
        self.assertAlmostEqual(read_line("61.2 kN ram", "force", "N").canonical, 61200)
        self.assertAlmostEqual(read_line("194", "angle", "deg").canonical, 194)

    def test_what_is_no_reading_is_said_as_it_came(self):
        for said in ("ERR 5", "", "--", "1.2.3", "OPEN", "0.1 0.2 0.3 mm mm x\x07", "9" * 400, "nan", "inf mm", "0x1F"):
            with self.subTest(said), self.assertRaises(InvalidLine):
                read_line(said, "length", "mm")

    def test_a_reading_of_something_else_is_named(self):
        with self.assertRaises(WrongUnit) as caught:
            read_line("21.5 C", "length", "mm")
        self.assertEqual(str(caught.exception), "It said '21.5 C': that is temperature, and here it measures length.")


class Clock:
    now = 100.0

    def __call__(self):
        return self.now


class AReader(SimpleTestCase):
    """One reader fed by hand, on a clock of its own."""

    def setUp(self):
        self.clock = Clock()
        self.reader = Reader("Dial", "loop://", "length", "mm", clock=self.clock)
        self.reader._opened_at = self.clock.now

    def after(self, seconds):
        self.clock.now += seconds
        return self.reader.standing()

    def test_it_says_how_it_is_doing(self):
        self.assertEqual(self.reader.standing().key, "starting")
        self.reader.take("0.034 mm")
        self.assertEqual((self.after(1).key, self.reader.last.line.canonical), ("live", 0.034))

    def test_a_stream_that_stops_is_silent_and_says_how_long(self):
        self.reader.take("0.034 mm")
        standing = self.after(SILENT_S + 2)
        self.assertEqual((standing.key, standing.words[:33]), ("silent", "Dial has said nothing for 5 s: lo"))
        self.reader.take("0.035 mm")
        self.assertEqual(self.reader.standing().key, "live")

    def test_a_gauge_with_a_button_may_be_silent_for_hours(self):
        self.reader.on_button = True
        self.reader.take("0.034 mm")
        self.assertEqual(self.after(3600).key, "live")

    def test_garbage_and_wrong_units_are_said_and_leave_the_readings_alone(self):
        self.reader.take("0.034 mm")
        self.reader.take("ERR 3")
        self.assertEqual(self.reader.standing().key, "garbage")
        self.reader.take("20 C")
        standing = self.reader.standing()
        self.assertEqual((standing.key, self.reader.bad_lines, len(self.reader.heard)), ("wrong unit", 2, 1))
        self.assertIn("Nothing was kept", standing.words)
        self.clock.now += 0.1
        self.reader.take("0.036 mm")
        self.assertEqual(self.reader.standing().key, "live")

    def test_peaks_belong_to_the_page_that_waits(self):
        self.reader.take("3")
        self.assertEqual(self.reader.peak("a"), 3.0)
        self.reader.take("9")
        self.reader.take("4")
        self.assertEqual((self.reader.peak("a"), self.reader.peak("b")), (9.0, 4.0))
        for index in range(2 * PEAKS):
            self.reader.peak(f"other {index}")
        self.assertEqual(self.reader.peak("a"), 4.0)  # forgotten: it begins anew

    def test_levers_and_remarks_are_heard_and_no_more_than_a_page_can_show(self):
        self.reader.take("# stand-in crank")
        for index in range(40):
            self.reader.take(f"#can do{index} = Do it {index}")
        self.assertEqual((self.reader.remark, len(self.reader.levers), self.reader.levers["do0"]), ("stand-in crank", 12, "Do it 0"))

    def test_memory_is_bounded(self):
        for index in range(500):
            self.reader.take(f"{index}")
        self.assertEqual((len(self.reader.heard), self.reader.last.seq), (self.reader.heard.maxlen, 500))
        self.assertEqual([each.seq for each in self.reader.since(498)], [499, 500])


class OverTheWire(SimpleTestCase):
    """Real sockets."""

    def setUp(self):
        self.saying = Saying()
        self.addCleanup(self.saying.close)
        self.reader = Reader("Dial", self.saying.address, "length", "mm")
        self.addCleanup(self.reader.stop)
        self.reader.start()

    def test_a_lost_line_is_said_and_opened_again_with_nothing_lost(self):
        self.saying.answer(lambda: self.reader).say("0.034 mm")
        until(lambda: self.reader.last)
        self.saying.hang_up()
        standing = until(lambda: (now := self.reader.standing()).key == "lost" and now)
        self.assertIn("Type the reading meanwhile", standing.words)
        self.assertEqual(self.reader.last.line.canonical, 0.034)
        self.saying.answer(lambda: self.reader).say("0.040 mm")
        until(lambda: self.reader.last.line.canonical == 0.040)
        self.assertEqual((self.reader.standing().key, self.reader.last.seq), ("live", 2))

    def test_a_reading_cut_in_two_by_the_wire_is_put_together(self):
        self.saying.answer(lambda: self.reader)
        self.saying.line.sendall(b"+01.2")
        self.saying.line.sendall(b"34 mm\r\n")
        until(lambda: self.reader.last)
        self.assertEqual((self.reader.last.line.canonical, self.reader.bad_lines), (1.234, 0))

    def test_a_flood_is_followed_by_its_latest_and_said(self):
        self.saying.answer(lambda: self.reader).say(*[f"{index}" for index in range(1, 3 * FLOOD)])
        until(lambda: self.reader.flooded_at > 0)
        until(lambda: self.saying.say("0.5 mm") or self.reader.last.line.canonical == 0.5)
        self.assertLessEqual(len(self.reader.heard), self.reader.heard.maxlen)
        self.assertIn("only its latest counts", self.reader.standing().words)

    def test_bytes_that_are_no_text_do_no_harm(self):
        self.saying.answer(lambda: self.reader)
        self.saying.line.sendall(bytes(range(128, 256)) * 8 + b"\r\n0.034 mm\r\n")
        until(lambda: self.reader.last)
        self.assertGreaterEqual(self.reader.bad_lines, 1)

    def test_a_port_that_nobody_answers_is_said_in_words(self):
        closed = Saying()
        closed.close()
        reader = Reader("Gun", closed.address, "temperature", "C")
        self.addCleanup(reader.stop)
        reader.start()
        standing = until(lambda: (now := reader.standing()).key == "lost" and now)
        self.assertTrue(standing.words.startswith("No line to Gun. Nobody answers there."))


class TheListener(TestCase):
    def setUp(self):
        self.made = job()
        self.dial = Gauge.objects.get(kind="dial")
        self.saying = Saying()
        self.addCleanup(self.saying.close)
        self.addCleanup(LISTENER.stop)
        self.client = Client()
        self.client.force_login(person())

    def on(self, **fields):
        Gauge.objects.filter(pk=self.dial.pk).update(**{"port": self.saying.address, **fields})
        LISTENER.start()

    def reader(self):
        return LISTENER.reader(self.dial.pk)

    def _say_again_and_again(self):
        self.saying.line, _ = self.saying.server.accept()
        with contextlib.suppress(OSError, AssertionError):
            while True:
                self.saying.say("0.034 mm run-out", "21 C")
                threading.Event().wait(0.1)

    def live(self, device="phone", **more):
        answer = self.client.get(
            f"/gauges/{self.dial.pk}/", {"device": device, "place": "0412 True", "ask": "shaft-reading.left.0", **more}
        )
        self.assertEqual(answer.status_code, 200)
        return answer.json()

    def test_readers_follow_the_shelves(self):
        listener = Listener()
        self.addCleanup(listener.stop)
        listener.start()
        self.assertIsNone(listener.reader(self.dial.pk))
        Gauge.objects.filter(pk=self.dial.pk).update(port=self.saying.address)
        listener.sync(Shop.current())
        first = listener.reader(self.dial.pk)
        self.assertTrue(first.is_alive())
        listener.sync(Shop.current())
        self.assertIs(listener.reader(self.dial.pk), first)
        Gauge.objects.filter(pk=self.dial.pk).update(retired=True)
        listener.sync(Shop.current())
        self.assertIsNone(listener.reader(self.dial.pk))

    def test_a_process_that_does_not_listen_says_so(self):
        Gauge.objects.filter(pk=self.dial.pk).update(port=self.saying.address)
        self.assertEqual(self.live()["state"], "deaf")
        self.assertContains(self.client.get("/gauges/"), "not started with manage.py serve")

    def test_the_page_that_waits_hears_the_latest_with_its_number(self):
        self.on(resolution=0.002)
        self.saying.answer(self.reader).say("+0.0341 mm left@0")
        until(lambda: LISTENER.reader(self.dial.pk).last)
        said = self.live()
        self.assertEqual((said["state"], said["seq"], said["text"], said["shown"]), ("live", 1, "+0.0341 mm", "0.034 mm"))
        self.assertEqual((said["mine"], said["label"], said["button"]), (True, "left@0", False))

    def test_one_gauge_feeds_one_page_until_another_takes_it(self):
        self.on()
        self.saying.answer(self.reader).say("0.034 mm")
        self.assertTrue(self.live("phone")["mine"])
        other = self.live("laptop")
        self.assertEqual((other["mine"], other["state"]), (False, "elsewhere"))
        self.assertIn("Dial gauge feeds another page: 0412 True", other["words"])
        self.assertNotIn("text", other)
        self.assertTrue(self.live("laptop", take="1")["mine"])
        self.assertFalse(self.live("phone")["mine"])
        LISTENER._holds[self.dial.pk].at -= LETS_GO_S + 1  # the laptop was shut
        self.assertTrue(self.live("phone")["mine"])
        self.assertContains(self.client.get("/gauges/"), "Sends to 0412 True")

    def test_a_peak_is_told_in_the_gauges_unit(self):
        self.on(kind="load", resolution=100)
        self.saying.answer(self.reader).say("12.5 kN")
        until(lambda: LISTENER.reader(self.dial.pk).last)
        self.live(mark="7-peak-0")
        self.saying.say("31.4 kN", "23.6 kN")
        until(lambda: LISTENER.reader(self.dial.pk).last.seq == 3)
        said = self.live(mark="7-peak-0")
        self.assertEqual((said["shown"], said["peak"]), ("23.6 kN", "31.4 kN"))

    def test_lines_of_a_button_come_one_after_another_and_none_is_passed_over(self):
        self.on(on_button=True)
        self.saying.answer(self.reader).say("0.01 mm", "0.02 mm", "0.03 mm")
        until(lambda: LISTENER.reader(self.dial.pk).last and LISTENER.reader(self.dial.pk).last.seq == 3)
        self.assertEqual(self.live()["seq"], 3)
        self.assertEqual([self.live(since=str(seq))["text"] for seq in (0, 1, 2)], ["0.01 mm", "0.02 mm", "0.03 mm"])

    def test_only_what_it_offered_can_be_pulled(self):
        self.on()
        self.saying.answer(self.reader).say("# a crank", "#can turn = Turn on 45°", "0.1")
        until(lambda: LISTENER.reader(self.dial.pk).levers)
        self.assertEqual(self.live()["levers"], [["turn", "Turn on 45°"]])
        self.client.post(f"/gauges/{self.dial.pk}/lever/", {"lever": "rm -rf"})
        self.client.post(f"/gauges/{self.dial.pk}/lever/", {"lever": "turn"}, headers={"X-Partial": "1"})
        self.assertEqual(self.saying.line.recv(100), b"turn\n")

    def test_strangers_hear_nothing(self):
        self.on()
        self.assertEqual(Client().get(f"/gauges/{self.dial.pk}/", headers={"X-Partial": "1"}).status_code, 401)
        self.assertEqual(self.client.get("/gauges/999/").status_code, 404)

    def test_asking_five_times_a_second_costs_three_questions(self):
        self.on()
        self.live()
        with self.assertNumQueries(3):  # session, person, whether the shelves changed
            self.live()

    def test_a_reading_that_was_heard_says_so_in_the_log(self):
        stage = self.made.run.get(key="heat-and-drop")
        seat = self.made.card.seats.get()
        address = f"/jobs/0412/heat-and-drop/{seat.pk}/keep/"
        self.client.post(address, {"ask": "air-temperature", "text": "18 C", "client_key": "a", "heard": "1"})
        self.client.post(address, {"ask": f"seat-size.{seat.uid}", "text": "46.980", "client_key": "b", "heard": ""})
        found = {reading.ask: reading.extra.get("heard") for reading in stage.entries.get().readings.all()}
        self.assertEqual(found["air-temperature"], True)
        self.assertNotIn("heard", stage.entries.get().readings.exclude(ask="air-temperature").first().extra)

    def test_setting_a_line_up_prints_what_it_says(self):
        self.saying.server.settimeout(10)
        out = io.StringIO()
        threading.Thread(target=self._say_again_and_again, daemon=True).start()
        call_command("listen", self.saying.address, "--seconds", "1.5", stdout=out)
        self.assertIn("0.034 mm  0.034  run-out", out.getvalue())
        self.assertIn("that is temperature", out.getvalue())
        with self.assertRaises(CommandError):
            call_command("listen", "spy://x", stdout=out)


class Truths(SimpleTestCase):
    """Tests that simulated gauges send the true values of their parts."""

    def turn(self, crank):
        values = []
        for _ in range(8):
            values.append(statistics.mean(float(crank.after(0.1).split()[0]) for _ in range(20)))
            crank.pull("turn")
        return fit(range(0, 360, 45), values)

    def test_a_turned_crank_gives_its_own_misalignment_back(self):
        crank = Crank(7)
        left = self.turn(crank)
        crank.pull("other")
        right = self.turn(crank)
        found = decompose(RunoutVector(left.tir_mm, left.high_spot_deg), RunoutVector(right.tir_mm, right.high_spot_deg), crank.geometry)
        self.assertAlmostEqual(found.twist_deg, crank.truth.bent.twist_deg, places=2)
        self.assertAlmostEqual(found.offset_mm, crank.truth.bent.offset_mm, places=2)

    def test_a_blow_takes_twist_away_and_never_twice_the_same(self):
        crank = Crank(7)
        twists = [crank.truth.bent.twist_deg]
        for _ in range(3):
            crank.pull("ahead")
            twists.append(crank.truth.bent.twist_deg)
        blows = [before - after for before, after in pairwise(twists)]
        self.assertTrue(all(0.03 < blow < 0.1 for blow in blows))
        self.assertEqual(len(set(blows)), 3)

    def test_a_case_cools_toward_the_room_and_bare_metal_lies(self):
        case = Case(7)
        at_dot = float(case.after(0).split()[0])
        self.assertAlmostEqual(infrared_true_c(at_dot, 0.95, 0.93, 21), case.true_c, delta=1.5)
        case.pull("bare")
        self.assertLess(float(case.after(0).split()[0]), at_dot - 40)
        for _ in range(100):
            case.after(70)
        self.assertAlmostEqual(case.true_c, 21, delta=1)
        case.pull("oven")
        case.after(600)
        self.assertGreater(case.true_c, 80)

    def test_a_pin_lets_go_at_its_force_and_slides_at_less(self):
        ram = Ram(7)
        said = []
        for _ in range(12):
            ram.pull("pump")
            said.append(float(ram.after(0.1).split()[0]))
            ram.after(0.1)
        self.assertAlmostEqual(max(said), ram.breaks_n / 1000, delta=0.3)
        self.assertAlmostEqual(said[-1], 0.75 * ram.breaks_n / 1000, delta=0.3)

    def test_a_wheel_speaks_once_a_stop_and_stops_near_its_heavy_spot(self):
        flywheel = Wheel(7)
        self.assertIsNone(flywheel.after(0.1))
        stops = []
        for _ in range(30):
            flywheel.pull("roll")
            stops.append(float(flywheel.after(0.1).split()[0]))
            self.assertIsNone(flywheel.after(0.1))
        mean = math.degrees(math.atan2(*(sum(f(math.radians(s)) for s in stops) for f in (math.sin, math.cos)))) % 360
        self.assertAlmostEqual(mean, math.degrees(cmath.phase(flywheel.heavy)) % 360, delta=8)

    def test_all_four_speak_and_take_their_levers_over_the_wire(self):
        shed = StandIns()
        self.addCleanup(shed.stop)
        kinds = {"crank": "length", "case": "temperature", "ram": "force", "wheel": "angle"}
        self.assertEqual([thing.name for thing in PARTS], list(kinds))
        for name, kind in kinds.items():
            reader = Reader(name, shed.port(name), kind, "mm", on_button=name == "wheel")
            self.addCleanup(reader.stop)
            reader.start()
            until(lambda reader=reader: reader.levers)
            if name == "wheel":
                reader.send_command("roll")
            until(lambda reader=reader: reader.last)
            self.assertEqual((reader.bad_lines, len(reader.levers)), (0, len(shed.thing(name).levers)))
            self.assertIn("Stand-in", reader.remark)
