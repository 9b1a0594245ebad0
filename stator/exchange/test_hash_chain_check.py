"""Tests of the hash chain: changes after signing are detected in the database and in a file; the report is the same elsewhere."""

from __future__ import annotations

import io
import json
import re
import tempfile
import zipfile
from pathlib import Path

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection, transaction
from django.db.utils import DatabaseError
from django.test import override_settings
from django.utils import timezone

from stator.engines.models import Spec
from stator.exchange.job_import import job_from_zip
from stator.exchange.job_zip import job_as_zip
from stator.exchange.report.data import report_of
from stator.exchange.report.pdf import _data
from stator.exchange.report.views import JOB
from stator.exchange.signing import own_fingerprint
from stator.exchange.test_whole_job import Whole
from stator.jobs import immutability
from stator.jobs.hash_chain import broken, links_of
from stator.jobs.models import Entry, Photo, Reading
from stator.jobs.photos import add_photo
from stator.jobs.tests import picture
from stator.shop.models import Gauge, Person
from stator.stations.center_crank.tests import Centrer
from stator.stations.framework.provenance import render_provenance
from tests.factories import job, person

AGREES = re.compile(r"The file is complete and unchanged since it was signed with the key ([0-9A-F]{4} ){7}[0-9A-F]{4}\.")
KEYS = Path(tempfile.mkdtemp(prefix="stator-keys-"))
ELSEWHERE = override_settings(SIGNING_KEY=KEYS / "another-shop")


class Chained(Whole):
    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        cls.made.run.create(order=97, key="centre")
        add_photo(cls.made, cls.made.run.get(key="centre"), SimpleUploadedFile("c.jpg", picture("JPEG", (80, 40))), "Gap", person())
        Spec.objects.create(card=cls.made.card, name="End float", property="end-float", low=0.10, high=0.20, source="page 61")
        cls.centre(cls, "0.15")
        cls.data = job_as_zip(JOB.get(pk=cls.made.pk), person(), timezone.now())
        cls.fingerprint = own_fingerprint()

    def centre(self, value):
        hands = Centrer(self.made)
        for key, text in (("side-gap.left", "0.15"), ("side-gap.right", "0.16"), ("spin", "free"), ("end-float", value)):
            hands.answer(key, text)
        hands.choose(proof="none")
        hands.answer("reason", "No plates.")
        hands.act("sign")

    def told(self, data=None):
        made = job_from_zip(data or self.data, person())
        return render_provenance(made.origin)

    def entry(self, document, station="centre"):
        return next(each for each in document["entries"] if each["station"] == station and each["signed_at"])


class InAFile(Chained):
    def test_a_shop_knows_its_own_file_again(self):
        self.assertEqual(self.told(), "This shop wrote the file, and it is unchanged.")

    def test_another_shop_sees_whose_key_signed_it_and_that_it_is_complete(self):
        with ELSEWHERE:
            self.assertRegex(self.told(), AGREES)
            self.assertIn(self.fingerprint, self.told())
            page = Centrer(self.made).client.get(f"/jobs/{Entry.objects.latest('pk').job.tag}/log/").content.decode()
        self.assertIn(self.fingerprint, page)
        self.assertIn("end float by dial", page)

    def test_a_file_that_is_handed_on_is_signed_by_the_shop_that_hands_it_on(self):
        with ELSEWHERE:
            second = job_from_zip(self.data, person())
            handed_on = job_as_zip(JOB.get(pk=second.pk), person(), timezone.now())
            key = own_fingerprint()
        with override_settings(SIGNING_KEY=KEYS / "a-third-shop"):
            self.assertIn(key, self.told(handed_on))
            self.assertRegex(self.told(handed_on), AGREES)

    def test_the_key_is_made_once_and_only_its_owner_can_read_it(self):
        with override_settings(SIGNING_KEY=KEYS / "new-shop"):
            self.assertEqual(own_fingerprint(), own_fingerprint())
            self.assertEqual((KEYS / "new-shop").stat().st_mode & 0o777, 0o600)
        self.assertEqual([path.name for path in KEYS.glob(".*")], [])

    def test_another_signer_in_the_file_is_reported_as_changed(self):
        def forge(document):
            for entry in document["entries"]:
                if entry["signed_at"]:
                    entry["signed_by"] = "Somebody Else"

        self.assertIn("Centre (signed by Somebody Else, recorded as Una)", self.told(self.spoilt(forge)))

    def test_another_person_or_gauge_at_a_reading_is_reported_as_changed(self):
        for name, stated, words in (
            ("by", "Somebody Else", "measured by Somebody Else, recorded as Una"),
            ("gauge", "Best gauge", "measured with Best gauge, recorded as"),
        ):

            def forge(document, name=name, stated=stated):
                document["gauges"].append({**document["gauges"][0], "name": "Best gauge"})
                for reading in self.entry(document)["readings"]:
                    reading[name] = stated

            with self.subTest(name):
                self.assertIn(words, self.told(self.spoilt(forge)))

    def test_everything_that_a_page_shows_of_an_entry_is_covered(self):
        def change_time(document):
            self.entry(document)["readings"][0]["taken_at"] = "2026-11-25T10:00:00+00:00"

        def change_result(document):
            self.entry(document)["result"]["spin"] = "binds"

        def change_opener(document):
            self.entry(document)["opened_by"] = "Somebody Else"

        def change_core(document):
            self.entry(document)["core_version"] = "9.9"

        def add_fact(document):
            entry = self.entry(document)
            entry["derived"].append({**entry["readings"][0], "value": 0.1, "text": ""})

        for forge in (change_time, change_result, change_opener, change_core, add_fact):
            with self.subTest(forge.__name__):
                self.assertIn("Changed after it was signed: Centre", self.told(self.spoilt(forge)))

    def test_signed_entries_cut_off_the_end_are_reported(self):
        def cut(document):
            document["entries"].remove(self.entry(document))

        self.assertIn("the file (signed entries: 1 in the file, 2 stated)", self.told(self.spoilt(cut)))

        def cut_and_state(document):
            cut(document)
            document["chain"] = {"entries": 1, "last": self.entry(document, "seals")["digest"]["value"]}

        self.assertEqual(
            self.told(self.spoilt(cut_and_state)), "Changed after it was signed: the file (its signature does not match its content)."
        )

    def test_a_replacement_that_was_taken_out_is_reported(self):
        hands = Centrer(self.made)
        hands.post("supersede", reason="Read again.")
        hands.act("sign")
        self.assertEqual(Entry.objects.filter(job=self.made, station__key="centre").exclude(signed_at=None).count(), 2)
        self.data = job_as_zip(JOB.get(pk=self.made.pk), person(), timezone.now())

        def cut(document):
            document["entries"].remove(next(each for each in document["entries"] if each["supersedes"]))

        self.assertIn("the file (signed entries: 2 in the file, 3 stated)", self.told(self.spoilt(cut)))

    def test_a_file_without_a_signature_proves_nothing_and_says_so(self):
        self.assertIn("The file has no signature.", self.told(self.spoilt(lambda document: document.pop("signature"))))

    def test_who_is_renamed_later_changes_nothing_that_was_signed(self):
        Person.objects.filter(pk=person().pk).update(first_name="Renamed")
        Gauge.objects.filter(kind="feeler").update(name="Renamed gauge")
        self.assertEqual(broken(links_of(self.made)), [])
        self.data = job_as_zip(JOB.get(pk=self.made.pk), person(), timezone.now())
        self.assertEqual(self.told(), "This shop wrote the file, and it is unchanged.")
        with zipfile.ZipFile(io.BytesIO(self.data)) as found:
            centre = self.entry(json.loads(found.read("job.json")))
        self.assertEqual({reading["by"] for reading in centre["readings"]}, {"Una"})
        self.assertEqual(centre["signed_by"], "Una")

    def test_a_reading_changed_after_signing_is_named_with_both_values(self):
        def flatter(document):
            reading = next(each for each in self.entry(document)["readings"] if each["ask"] == "end-float")
            reading["typed"], reading["canonical"] = "0.12", 0.12

        self.assertEqual(
            self.told(self.spoilt(flatter)), "Changed after it was signed: Centre (End float by dial reads 0.12, signed as 0.15)."
        )

    def test_a_verdict_or_a_record_changed_is_named(self):
        def flatter(document):
            self.entry(document)["call"]["state"] = "out"

        self.assertEqual(self.told(self.spoilt(flatter)), "Changed after it was signed: Centre (its record or its verdict).")

        def reword(document):
            self.entry(document)["record"]["content"]["call"]["headline"] = "Perfect"

        self.assertIn("Centre (its record or its verdict)", self.told(self.spoilt(reword)))

    def test_an_entry_taken_out_is_missed_by_the_one_after_it(self):
        def without(document):
            document["entries"].remove(self.entry(document, "seals"))
            for number, entry in enumerate(document["entries"], 1):
                entry["number"] = number

        self.assertIn("Centre (an entry before it is missing)", self.told(self.spoilt(without)))

    def test_another_picture_in_its_place_is_noticed(self):
        photo = self.made.photos.get(caption="Gap")
        self.assertIn(photo.digest, Entry.objects.get(station__key="centre", job=self.made).record.content["photos"])
        name = f"photos/{list(self.made.photos.order_by('pk')).index(photo) + 1:03d}.jpg"
        told = self.told(self.spoilt(**{name: picture("JPEG", (90, 40))}))
        self.assertIn("Centre (a picture is missing or was replaced)", told)

    def test_a_picture_that_no_entry_names_is_covered_too(self):
        name = f"photos/{list(self.made.photos.order_by('pk').values_list('caption', flat=True)).index('As it came') + 1:03d}.jpg"
        told = self.told(self.spoilt(**{name: picture("JPEG", (90, 40))}))
        self.assertEqual(told, "Changed after it was signed: the file (a picture is missing or was replaced).")


class InTheDatabase(Chained):
    def test_every_signed_entry_is_a_link_and_the_chain_holds(self):
        links = links_of(self.made)
        self.assertEqual([link.previous for link in links], ["", links[0].stated])
        self.assertEqual(broken(links), [])
        with ELSEWHERE:
            self.assertEqual(broken(links_of(job_from_zip(self.data, person()))), [])

    def test_a_reading_changed_behind_its_back_breaks_it(self):
        with immutability.without_triggers():
            Reading.objects.filter(entry__job=self.made, ask="end-float").update(text="0.12")
        self.assertEqual([link.name for link in broken(links_of(self.made))], [f"{self.made.tag} centre"])

    def test_a_digest_never_changes(self):
        with self.assertRaises(DatabaseError), transaction.atomic(), connection.cursor() as cursor:
            cursor.execute("UPDATE jobs_digest SET value = 'x'")

    def test_a_picture_that_a_signed_entry_names_is_kept(self):
        photo = self.made.photos.get(caption="Gap")
        hands = Centrer(self.made)
        answer = hands.client.post(f"/photos/{photo.pk}/remove/", {"sure": "1"}, follow=True).content.decode()
        self.assertIn("The signed entry of Centre names this picture: it is kept with it.", answer)
        with self.assertRaises(DatabaseError), transaction.atomic():
            photo.delete()
        free = self.made.photos.get(caption="As it came")
        hands.client.post(f"/photos/{free.pk}/remove/", {"sure": "1"})
        self.assertFalse(Photo.objects.filter(pk=free.pk).exists())

    def test_a_picture_of_another_seat_is_not_part_of_this_seats_record(self):
        made = job(number=500, order="bearings")
        seat = made.card.seats.get()
        client = Centrer(self.made).client
        where = {"station": "bearings-out", "part": f"seat:{seat.uid}", "caption": "Ring"}
        client.post(f"/jobs/{made.tag}/photos/", {**where, "photo": SimpleUploadedFile("s.jpg", picture("JPEG"), "image/jpeg")})
        self.assertEqual(made.photos.get().subject.part, seat.part)
        self.assertIn(f"<b>{seat.name}</b>", client.get(f"/jobs/{made.tag}/pictures/").content.decode())


class Replaced(Chained):
    """`INSERT OR REPLACE` runs no delete trigger."""

    def test_no_final_row_is_replaced(self):
        entry = Entry.objects.get(job=self.made, station__key="centre")
        reading = entry.readings.first()
        statements = {
            "digest by entry": self.copy("jobs_digest", entry.digest.pk, id=None, value="x"),
            "digest by row": self.copy("jobs_digest", entry.digest.pk, entry_id=0, value="x"),
            "record by entry": self.copy("jobs_record", entry.record.pk, id=None, content="{}"),
            "record by row": self.copy("jobs_record", entry.record.pk, entry_id=0, content="{}"),
            "reading by row": self.copy("jobs_reading", reading.pk, text="0.01", client_key="new"),
            "reading by key": self.copy("jobs_reading", reading.pk, id=None, text="0.01"),
            "entry by row": self.copy("jobs_entry", entry.pk, reason="Better."),
        }
        for name, statement in statements.items():
            with self.subTest(name), connection.cursor() as cursor, self.assertRaises(DatabaseError) as refusal:
                cursor.execute("SAVEPOINT one")
                try:
                    cursor.execute(statement)
                finally:
                    cursor.execute("ROLLBACK TO one")
            self.assertIn(immutability.SIGNED, str(refusal.exception))

    def copy(self, table: str, row: int, **changes) -> str:
        """Return the statement that replaces a row by a changed copy of itself."""
        with connection.cursor() as cursor:
            columns = [column.name for column in connection.introspection.get_table_description(cursor, table)]
        values = [f'"{name}"' if name not in changes else "NULL" if changes[name] is None else repr(changes[name]) for name in columns]
        names = ", ".join(f'"{name}"' for name in columns)
        return f"INSERT OR REPLACE INTO {table} ({names}) SELECT {', '.join(values)} FROM {table} WHERE id = {row}"


class TheSameSheet(Chained):
    def plain(self, made):
        page = Centrer(self.made).client.get(f"/jobs/{made.tag}/sheet/").content.decode()
        body = re.sub(r"<style.*?</style>|<svg.*?</svg>|<img[^>]*>|<form.*?</form>|<[^>]+>", " ", page[page.index("<main") :], flags=re.S)
        body = re.sub(r"Read in from file.*?signed with the key [0-9A-F ]+\.", "", body.replace(made.tag, "NUMBER"), flags=re.S)
        return " ".join(body.split())

    def test_sheet_and_pdf_are_the_same_to_the_letter_but_for_where_it_came_from(self):
        own = self.plain(self.made), json.dumps(self.pdf(self.made), indent=1)
        with ELSEWHERE:
            elsewhere = job_from_zip(self.data, person())
            self.assertEqual(self.plain(elsewhere), own[0])
            self.assertEqual(json.dumps(self.pdf(elsewhere), indent=1), own[1])

    def pdf(self, made):
        said = _data(report_of(JOB.get(pk=made.pk), person(), timezone.now()), "a4")
        said.pop("origin")
        return json.loads(json.dumps(said).replace(made.tag, "NUMBER"))
