"""Tests of the pages around a job: card, work plan, photos, tray and search."""

from __future__ import annotations

import io
import re
from pathlib import Path

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import DatabaseError, transaction
from django.test import TestCase
from django.utils import timezone
from PIL import Image

from stator.engines.card_copy import copied, save_as_template
from stator.engines.models import EngineCard, Mark, Seat
from stator.jobs import log
from stator.jobs.models import Job, Photo, Timer, TrayPlace
from stator.shop.models import Blades, Driver, Press, Shop
from stator.stations.split_crankcase.tests import Halves, face
from stator.workbench.registry import current_station
from tests.factories import Hands, job, person, press


def photo_file(name="slip.jpg", size=(64, 48), **more):
    out = io.BytesIO()
    Image.new("RGB", size, "#777").save(out, "JPEG", **more)
    return SimpleUploadedFile(name, out.getvalue(), "image/jpeg")


class Around(TestCase):
    def setUp(self):
        self.job = job(order="bottom-end", x_mm=-30, y_mm=4)
        self.client.force_login(person())
        self.card = self.job.card


class Cards(Around):
    def test_a_finished_job_keeps_the_card_it_was_done_by(self):
        face(self.card)
        save_as_template(self.card)
        Job.objects.update(gone_at=timezone.now())
        answer = self.client.post("/jobs/0412/card/", {"part": "wheel", "wheel-nut_torque_nm": "60"})
        self.assertContains(answer, "nothing in it changes", status_code=403)
        saved = EngineCard.objects.get(on_shelf=True)
        self.client.post(f"/cards/{saved.pk}/", {"part": "wheel", "wheel-nut_torque_nm": "60"})
        saved.refresh_from_db()
        self.card.refresh_from_db()
        self.assertEqual((saved.nut_torque_nm, self.card.nut_torque_nm, saved.version), (60, None, 2))

    def test_a_copy_has_everything_and_its_seals_point_at_its_own_seats(self):
        face(self.card)
        self.card.seals.create(name="Crank seal", seat=self.card.seats.get(), shaft_mm=20, bore_mm=35, width_mm=7)
        copy = copied(self.card)
        self.assertEqual((copy.marks.count(), copy.family), (10, self.card.family))
        self.assertEqual(copy.seals.get().seat, copy.seats.get())
        self.assertNotEqual(copy.seals.get().seat, self.card.seats.get())

    def test_the_shelf_holds_the_latest_version_once(self):
        first, second = save_as_template(self.card), save_as_template(self.card)
        self.assertEqual((first.version, second.version), (1, 2))
        self.assertEqual([card.pk for card in EngineCard.objects.filter(on_shelf=True)], [second.pk])
        self.assertContains(self.client.post(f"/cards/{self.card.pk}/to-shelf/", follow=True), "on the shelf, version 3")

    def test_the_card_of_a_job_that_was_handed_over_can_still_be_copied_to_the_shelf(self):
        Job.objects.filter(card=self.card).update(gone_at=timezone.now())
        for version in (1, 2):
            self.assertContains(self.client.post(f"/cards/{self.card.pk}/to-shelf/", follow=True), f"on the shelf, version {version}")
        with self.assertRaises(DatabaseError), transaction.atomic():
            EngineCard.objects.filter(pk=self.card.pk).update(version=9, name="Changed")

    def test_a_tap_puts_a_bolt_with_the_figures_of_the_last_and_a_name_of_its_own(self):
        for x in ("-40", "35.5"):
            self.client.post(
                f"/cards/{self.card.pk}/face/", {"place": "bolt", "mark-x_mm": x, "mark-y_mm": "20", "mark-length_mm": "1 1/2 in"}
            )
        first, second = Mark.objects.all()
        self.assertEqual((first.name, second.name, second.x_mm, round(second.length_mm, 1), second.assumed), ("1", "2", 35.5, 38.1, True))
        page = self.client.get(f"/cards/{self.card.pk}/face/", headers={"HX-Request": "true"}).content.decode()
        self.assertIn('value="38.1"', page)
        self.assertIn("bolt taken", page)

    def test_a_mark_is_moved_named_sourced_and_taken_off(self):
        self.client.post(f"/cards/{self.card.pk}/face/", {"place": "dowel", "mark-x_mm": "1", "mark-y_mm": "2"})
        mark = Mark.objects.get()
        fields = {
            "mark": mark.pk,
            "mark-what": "dowel",
            "mark-name": "front dowel",
            "mark-x_mm": "5",
            "mark-y_mm": "2",
            "mark-engaged_mm": "7",
        }
        self.client.post(f"/cards/{self.card.pk}/face/", {**fields, "mark-source": "measured"})
        mark.refresh_from_db()
        self.assertEqual((mark.name, mark.x_mm, mark.engaged_mm, mark.assumed), ("front dowel", 5, 7, False))
        answer = self.client.post(f"/cards/{self.card.pk}/face/", {"mark": mark.pk, "off": "1"}, headers={"HX-Request": "true"})
        self.assertFalse(Mark.objects.exists())
        back = dict(re.findall(r'type="hidden" name="(mark-\w+)" value="([^"]*)"', answer.content.decode()))
        self.client.post(f"/cards/{self.card.pk}/face/", {**back, "place": "dowel"})
        self.assertEqual(Mark.objects.get().name, "front dowel")

    def test_a_place_off_the_face_is_refused_beside_its_field_and_kept(self):
        headers = {"HX-Request": "true"}
        answer = self.client.post(f"/cards/{self.card.pk}/face/", {"place": "bolt", "mark-x_mm": "300", "mark-y_mm": "0"}, headers=headers)
        self.assertContains(answer, "300 mm lies off it")
        self.assertContains(answer, 'value="300"')
        self.assertFalse(Mark.objects.exists())

    def test_a_seat_is_put_on_the_face(self):
        seat = Seat.objects.get()
        self.client.post(f"/cards/{self.card.pk}/face/", {"place": f"seat-{seat.pk}", "mark-x_mm": "12", "mark-y_mm": "-8"})
        seat.refresh_from_db()
        self.assertEqual((seat.x_mm, seat.y_mm, Mark.objects.count()), (12, -8, 0))

    def test_a_picture_lies_under_the_face_and_no_other_file_does(self):
        self.client.post(f"/cards/{self.card.pk}/underlay/", {"underlay": photo_file(size=(80, 40))})
        self.card.refresh_from_db()
        self.assertEqual((self.card.face_h_mm, self.client.get(f"/cards/{self.card.pk}/underlay.jpg").status_code), (120, 200))
        bad = SimpleUploadedFile("x.jpg", b"MZ not a picture", "image/jpeg")
        self.assertContains(
            self.client.post(f"/cards/{self.card.pk}/underlay/", {"underlay": bad}, follow=True), "no picture Stator can read"
        )

    def test_parts_of_the_card_are_judged_in_words(self):
        for fields, words in [
            ({"part": "seal", "seal-shaft_mm": "40", "seal-bore_mm": "25", "seal-width_mm": "7"}, "must be larger than the shaft"),
            (
                {"part": "spec", "spec-name": "End float", "spec-kind": "length", "spec-low": "20 C", "spec-source_kind": "manual"},
                "unit of temperature",
            ),
            ({"part": "facts", "facts-name": "", "facts-case_material": "adc12"}, "Fill this in; it is needed."),
            ({"part": "wheel", "wheel-boss_pitch_mm": "26"}, "26 mm was understood; it must be above 0.3 mm"),
        ]:
            with self.subTest(words):
                self.assertContains(self.client.post("/jobs/0412/card/", fields), words)

    def test_a_seat_with_work_in_the_log_stays_on_the_card(self):
        hands = Hands(self.job)
        hands.keep("room", "18")
        fields = {"part": "seat", "id": hands.seat.pk}
        self.assertContains(self.client.post(f"/cards/{self.card.pk}/remove/", fields), "Take Main, drive side off the card?")
        answer = self.client.post(f"/cards/{self.card.pk}/remove/", {**fields, "sure": "1"}, follow=True)
        self.assertContains(answer, "work on it is written in the log")
        self.assertTrue(Seat.objects.exists())

    def test_what_is_taken_is_told_from_what_is_known(self):
        self.assertContains(self.client.get("/jobs/0412/card/?part=facts"), "The case metal is assumed (typical value)")
        self.client.post(
            "/jobs/0412/card/",
            {
                "part": "facts",
                "facts-name": "Corrie",
                "facts-layout": "single",
                "facts-case_material": "adc12",
                "facts-left_name": "l",
                "facts-right_name": "r",
                "facts-face_w_mm": "240",
                "facts-face_h_mm": "200",
            },
        )
        self.card.refresh_from_db()
        self.assertEqual((self.card.name, self.card.case_material_assumed, self.card.face_assumed), ("Corrie", False, True))


class TwoPhotos(Around):
    def test_pictures_of_a_job_are_held_side_by_side_the_older_first_and_those_of_the_same_part_are_offered_first(self):
        uid = self.card.seats.get().uid
        for name, part in (("found", f"seat:{uid}"), ("bench", ""), ("left", f"seat:{uid}")):
            values = {"photo": photo_file(f"{name}.jpg"), "caption": name, "station": "bearings-out", "part": part}
            self.client.post("/jobs/0412/photos/", values)
        found, bench, left = Photo.objects.order_by("pk")
        page = self.client.get(f"/photos/{found.pk}/")
        self.assertEqual([each.caption for each in page.context["beside"]], ["left", "bench"])
        self.assertEqual(self.client.get(re.findall(r"/photos/\d+/small.jpg", page.content.decode())[0]).status_code, 200)
        page = self.client.get(f"/photos/{left.pk}/beside/{found.pk}/")
        self.assertEqual([photo.caption for photo, _, _ in page.context["pair"]], ["found", "left"])
        other = job(413)
        Photo.objects.filter(pk=bench.pk).update(job=other)
        self.assertEqual(self.client.get(f"/photos/{left.pk}/beside/{bench.pk}/").status_code, 404)


class TheRun(Around):
    def post(self, **fields):
        return self.client.post("/jobs/0412/run/", fields, follow=True)

    def test_a_station_is_left_out_with_a_reason_and_taken_up_again(self):
        self.assertContains(self.post(key="flywheel-off", act="leave", words=" "), "Say in a few words why")
        self.assertContains(self.post(key="flywheel-off", act="leave", words="came without it"), "came without it (Una)")
        self.assertEqual(current_station(Job.objects.get()).key, "split")
        self.post(key="flywheel-off", act="take")
        self.assertEqual(current_station(Job.objects.get()).key, "flywheel-off")

    def test_what_is_signed_or_open_is_not_left_out(self):
        self.client.post("/jobs/0412/flywheel-on/keep/", {"ask": "key-condition", "text": "sound", "client_key": "n"})
        self.assertContains(self.post(key="flywheel-on", act="leave", words="no"), "Sign them, or withdraw them")
        self.job.run.filter(key="flywheel-on").update(state="done")
        self.assertContains(self.post(key="flywheel-on", act="leave", words="no"), "This station is signed and cannot be skipped")
        self.assertContains(self.post(key="book-in", act="leave", words="no"), "cannot be skipped")

    def test_a_station_is_added_at_its_place_in_working_order(self):
        self.assertContains(self.post(key="balance", act="add", words=""), "Say in a few words why it is added")
        self.post(key="balance", act="add", words="shakes since")
        keys = [stage.key for stage in self.job.run.all()]
        self.assertEqual(keys.index("balance"), keys.index("flywheel-on") - 1)
        self.assertContains(self.post(key="balance", act="add", words="again"), "in the run already")

    def test_what_waits_is_seen_on_the_bench(self):
        self.post(key="split", act="wait", words="the splitter, lent out")
        self.post(key="flywheel-off", act="leave", words="off already")
        self.assertContains(self.client.get("/"), "Waits for the splitter, lent out.")
        self.post(key="split", act="take")
        self.assertNotContains(self.client.get("/"), "lent out")

    def test_handed_over_it_leaves_the_bench_and_is_found_again(self):
        self.job.run.exclude(key="hand-over").update(state="skipped", because="fetched as it was (Una)")
        self.client.post("/jobs/0412/hand-over/keep/", {"ask": "note", "text": "Fetched.", "client_key": "h"})
        press(self.client, "/jobs/0412/hand-over/", "sign")
        self.assertNotContains(self.client.get("/"), "0412")
        self.assertContains(self.client.get("/find/?q=corrie+rumbles"), "0412")
        self.assertContains(self.client.get("/find/?q=6204"), "0412")
        self.assertContains(self.client.get("/find/?q=corrie+6999"), "Nothing here has all of that")


class Pictures(Around):
    def test_several_at_once_belong_to_a_station_and_are_seen_beside_its_drawing(self):
        files = [photo_file("a.jpg"), photo_file("b.jpg"), SimpleUploadedFile("c.jpg", b"junk", "image/jpeg")]
        answer = self.client.post(
            "/jobs/0412/photos/", {"photo": files, "station": "split", "caption": "left", "back": "/jobs/0412/pictures/"}, follow=True
        )
        self.assertContains(answer, "c.jpg: That file is no picture")
        self.assertEqual([photo.station.key for photo in Photo.objects.all()], ["split", "split"])
        self.assertContains(self.client.get("/jobs/0412/split/"), "Photos 2")
        self.assertNotContains(self.client.get("/jobs/0412/strip/"), "Photos 2")
        self.assertContains(self.client.get("/jobs/0412/split/photographed/"), "<figure", count=2)
        self.assertContains(self.client.get("/jobs/0412/strip/photographed/"), "None of this station yet")

    def test_place_and_camera_are_gone_and_it_stands_upright(self):
        exif = Image.Exif()
        exif[0x0112] = 6  # lies on its side
        exif[0x010F] = "Phone"
        exif.get_ifd(0x8825)[1] = "N"
        self.client.post("/jobs/0412/photos/", {"photo": photo_file(exif=exif)})
        photo = Photo.objects.get()
        self.assertEqual((photo.width, photo.height), (48, 64))
        with photo.image.open("rb") as file, Image.open(file) as saved:
            self.assertEqual(dict(saved.getexif()), {})

    def test_a_heic_from_a_phone_becomes_a_jpeg(self):
        from pillow_heif import from_pillow

        out = io.BytesIO()
        from_pillow(Image.new("RGB", (32, 24), "#555")).save(out)
        self.client.post("/jobs/0412/photos/", {"photo": SimpleUploadedFile("IMG.HEIC", out.getvalue(), "image/heic")})
        self.assertEqual(Path(Photo.objects.get().image.name).suffix, ".jpg")

    def test_pins_are_numbered_noted_and_pulled(self):
        self.client.post("/jobs/0412/photos/", {"photo": photo_file()})
        page = f"/photos/{Photo.objects.get().pk}/"
        for note in ("washer stuck here", "seal backwards"):
            self.client.post(page, {"note": note, "x": "0.25", "y": "0.5"})
        self.assertContains(self.client.post(page, {"note": "", "x": "0.1", "y": "0.1"}), "Say what is there")
        self.assertContains(self.client.post(page, {"note": "here", "x": "1.4", "y": "0.1"}), "off the picture")
        self.assertContains(self.client.post(page, {"note": "here", "x": "", "y": ""}), 'value="here"')
        self.client.post(page, {"off": "1"})
        self.assertContains(self.client.post(f"{page}remove/"), "cannot be brought back")
        self.assertEqual([(pin.number, pin.note) for pin in Photo.objects.get().pins.all()], [(2, "seal backwards")])


class TheTray(Around):
    def test_a_place_is_kept_once_opened_by_its_label_and_emptied(self):
        for _ in range(2):
            self.client.post(
                "/jobs/0412/tray/", {"name": "thin washer", "count": "2", "where_from": "output, 1st", "half": "left", "client_key": "t1"}
            )
        place = TrayPlace.objects.get()
        labels = self.client.get("/jobs/0412/tray/labels/")
        self.assertContains(labels, '<svg viewBox="0 0')
        self.assertContains(labels, "thin washer")
        self.client.post("/jobs/0412/tray/1/", {"act": "photo", "photo": photo_file()})
        self.client.post("/jobs/0412/tray/1/", {"act": "empty"})
        place.refresh_from_db()
        self.assertTrue(place.emptied_at and place.photo)
        self.client.post("/jobs/0412/tray/1/", {"act": "empty"})
        place.refresh_from_db()
        self.assertIsNone(place.emptied_at)
        self.assertContains(self.client.post("/jobs/0412/tray/1/", {"act": "gone"}), "leaves the tray for good")
        self.assertContains(self.client.post("/jobs/0412/tray/", {"name": "x", "count": "0"}), "A place holds 1 to 200")
        self.assertContains(self.client.post("/jobs/0412/tray/1/", {"act": "photo"}), "No picture was chosen")


class TheShelves(Around):
    def test_each_kind_of_thing_is_kept_in_any_unit(self):
        for shelf, fields in {
            "drivers": {"name": "Tube", "kind": "tube", "outside_mm": "1 3/4 in", "inside_mm": "36"},
            "splitters": {"name": "Splitter", "thread_mm": "6", "pitch_mm": "1", "screws": "2", "push_pitch_mm": "16 tpi"},
            "extractors": {"name": "Collets", "kind": "collet", "low_mm": "8", "high_mm": "32"},
            "pull-in": {"name": "Pull-in", "thread_mm": "12", "thread_pitch_mm": "1.25", "pitch_mm": "1.5"},
            "presses": {"name": "Press", "capacity_text": "12 t"},
            "blades": {"name": "Feelers", "kind": "feeler", "sizes_mm": "0.05 0,10 2 thou; .15"},
            "compounds": {"name": "Sealant", "kind": "solvent", "open_s": "10 min", "cure_s": "24 h"},
        }.items():
            with self.subTest(shelf):
                answer = self.client.post(f"/shop/{shelf}/", fields)
                self.assertEqual(answer.status_code, 302, answer.content.decode()[-2500:])
        self.assertAlmostEqual(Driver.objects.get().outside_mm, 44.45)
        self.assertEqual(Blades.objects.get().sizes_mm, [0.05, 0.0508, 0.1, 0.15])
        self.assertAlmostEqual(Press.objects.get().capacity_n, 117_679.8, places=0)
        self.assertContains(self.client.get("/shop/tools/"), "118 kN")
        self.assertContains(self.client.get("/shop/"), "10 min")

    def test_a_bare_ton_is_asked_back_until_the_shop_has_its_own(self):
        fields = {"name": "Press", "capacity_text": "12 ton"}
        self.assertContains(self.client.post("/shop/presses/", fields), "short ton")
        Shop.objects.update(ton="short ton")
        self.client.post("/shop/presses/", fields)
        self.assertAlmostEqual(Press.objects.get().capacity_n / 1000, 106.8, places=1)

    def test_a_driver_is_hollow_and_a_blade_has_a_thickness(self):
        driver = {"name": "T", "kind": "tube", "outside_mm": "20", "inside_mm": "30"}
        self.assertContains(self.client.post("/shop/drivers/", driver), "smaller than the outside")
        blades = {"name": "B", "kind": "shim", "sizes_mm": "0.05 thick"}
        self.assertContains(self.client.post("/shop/blades/", blades), "thick")


class Found(TestCase):
    def test_a_job_is_found_by_an_answer_as_the_station_says_it_not_as_it_is_kept(self):
        hands = Hands(job())
        hands.choose(heater="none", chiller="none")
        hands.tick_all()
        hands.act("open")
        self.assertNotContains(hands.client.get("/find/?q=tapped+home"), "0412")
        hands.keep("outcome", "tapped")
        self.assertContains(hands.client.get("/find/?q=tapped+home"), "0412")
        self.assertContains(hands.client.get("/find/?q=home"), "0412")


class AboutIt(TestCase):
    def setUp(self):
        self.made = job()
        self.hands = Hands(self.made)
        self.client = self.hands.client

    def post(self, **said):
        return self.client.post("/jobs/0412/about/", said, follow=True)

    def test_whose_engine_it_is_is_kept_found_exported_and_printed(self):
        values = {"complaint": "Rumbles.", "customer": "Ferrymen's club", "registration": "TB 17", "frame_number": "K-0093"}
        self.post(act="save", **values)
        self.made.refresh_from_db()
        self.assertEqual((self.made.customer, self.made.engine_number), ("Ferrymen's club", ""))
        self.assertContains(self.client.get("/find/?q=ferrymen"), "0412")
        self.assertContains(self.client.get("/find/?q=k-0093"), "0412")
        self.assertContains(self.client.get("/jobs/0412/export.json"), "TB 17")
        self.assertContains(self.client.get("/jobs/0412/sheet/"), "Ferrymen&#x27;s club, registration TB 17, frame number K-0093")

    def test_what_another_device_changed_meanwhile_stays(self):
        page = self.client.get("/jobs/0412/about/").content.decode()
        shown = dict(re.findall(r'name="(initial-\w+)" value="([^"]*)"', page))
        Job.objects.update(customer="Ferrymen's club")  # on the phone
        self.post(act="save", complaint="Rumbles.", registration="TB 17", customer="", **{"initial-complaint": "Rumbles.", **shown})
        self.made.refresh_from_db()
        self.assertEqual((self.made.customer, self.made.registration), ("Ferrymen's club", "TB 17"))

    def test_one_that_never_began_is_deleted_and_one_that_did_is_not(self):
        self.hands.choose(wanted="generous")  # looked at, nothing written down
        self.assertContains(self.client.get("/jobs/0412/about/"), "Delete this job")
        other = Hands(job(413))
        other.keep("room", "18")
        self.assertContains(self.client.post("/jobs/0413/about/", {"act": "delete"}), "so it stays")
        self.post(act="delete")
        self.assertEqual(list(Job.objects.values_list("number", flat=True)), [413])

    def test_one_that_will_not_be_finished_is_closed_with_its_reason_and_an_owner_takes_it_back(self):
        self.hands.keep("room", "18")
        self.assertContains(self.post(act="end", because=" "), "Give the reason")
        self.post(act="end", because="no parts to be had")
        self.assertNotContains(self.client.get("/"), "0412")
        sheet = self.client.get("/jobs/0412/sheet/")
        self.assertContains(sheet, "<h2>Closed without being finished</h2>")
        self.assertContains(sheet, "<p>No parts to be had (Una).</p>")
        self.assertIn("is closed", self.hands.keep("room", "19"))
        bram = Hands(self.made, person("bram", "mechanic")).client
        self.assertEqual(bram.post("/jobs/0412/about/", {"act": "back"}).status_code, 403)
        self.post(act="back")
        self.assertContains(self.client.get("/"), "0412")

    def test_one_of_which_only_hands_did_something_has_begun_too(self):
        self.hands.tick_all()
        self.hands.act("chill")  # a clock runs, nothing was read
        self.assertContains(self.client.post("/jobs/0412/about/", {"act": "delete"}), "so it stays")
        split = Halves(job(414, order="bottom-end"))
        split.tick_all()
        log.record_move(log.open_entry(split.job.run.get(key="split"), None, person()), person(), "loaded")
        self.assertContains(self.client.post("/jobs/0414/about/", {"act": "delete"}), "so it stays")

    def test_a_reason_that_was_given_is_something_written_down(self):
        flywheel = Halves(job(415, order="bottom-end"))
        flywheel.address = "/jobs/0415/flywheel-on/"
        flywheel.go_on("closed", "closed at the other shed")
        self.assertContains(self.client.post("/jobs/0415/about/", {"act": "delete"}), "so it stays")

    def test_its_clocks_stop_when_it_is_closed_unfinished(self):
        self.hands.tick_all()
        self.hands.act("chill")
        self.hands.keep("room", "18")
        self.post(act="end", because="no parts to be had")
        self.assertEqual(Timer.objects.filter(job=self.made, ended_at=None).count(), 0)
