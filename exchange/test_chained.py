"""A job's records are chained: what was changed after signing is found, in the database and in a file; the sheet is the same elsewhere."""

from __future__ import annotations

import json
import re

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection, transaction
from django.db.utils import DatabaseError
from django.test import override_settings
from django.utils import timezone

from engines.models import Spec
from exchange.job_in import job_from_zip
from exchange.job_zip import job_as_zip
from exchange.report.data import report_of
from exchange.report.pdf import _data
from exchange.report.views import JOB
from exchange.test_whole_job import Whole
from jobs import seal
from jobs.chain import broken, links_of
from jobs.models import Entry, Photo, Reading
from jobs.photos import add_photo
from jobs.tests import picture
from stations.centre.tests import Centrer
from stations.provenance import said
from tests.shed import job, person

ELSEWHERE = override_settings(SECRET_KEY="another shop's own secret, long enough to be one")


class Chained(Whole):
    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        cls.made.run.create(order=97, key="centre")
        add_photo(cls.made, cls.made.run.get(key="centre"), SimpleUploadedFile("c.jpg", picture("JPEG", (80, 40))), "Gap", person())
        Spec.objects.create(card=cls.made.card, name="End float", property="end-float", low=0.10, high=0.20, source="page 61")
        cls.centre(cls, "0.15")
        cls.data = job_as_zip(JOB.get(pk=cls.made.pk), person(), timezone.now())

    def centre(self, value):
        hands = Centrer(self.made)
        for ask, text in (("side-gap.left", "0.15"), ("side-gap.right", "0.16"), ("spin", "free"), ("end-float", value)):
            hands.answer(ask, text)
        hands.choose(proof="none")
        hands.answer("reason", "No plates.")
        hands.act("sign")

    def told(self, data=None):
        made = job_from_zip(data or self.data, person())
        return said(made.origin)

    def entry(self, document, station="centre"):
        return next(each for each in document["entries"] if each["station"] == station and each["signed_at"])


class InAFile(Chained):
    def test_a_shop_knows_its_own_file_again(self):
        self.assertEqual(self.told(), "This shop wrote the file, and it is unchanged.")

    def test_another_shop_is_told_that_the_digests_agree_and_no_more(self):
        with ELSEWHERE:
            self.assertEqual(self.told(), "Its digests agree; authorship unproven.")
            page = Centrer(self.made).client.get(f"/jobs/{Entry.objects.latest('pk').job.tag}/log/").content.decode()
        self.assertIn("authorship unproven", page)
        self.assertIn("end float by dial", page)

    def test_it_still_agrees_when_it_is_handed_on(self):
        with ELSEWHERE:
            second = job_from_zip(self.data, person())
            handed_on = job_as_zip(JOB.get(pk=second.pk), person(), timezone.now())
        with override_settings(SECRET_KEY="a third shop's own secret, long enough to be one"):
            self.assertEqual(self.told(handed_on), "Its digests agree; authorship unproven.")

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
        self.assertIn("Centre (a picture is missing or another one)", told)

    def test_a_file_of_its_own_with_another_picture_is_not_known_again(self):
        name = f"photos/{list(self.made.photos.order_by('pk').values_list('caption', flat=True)).index('As it came') + 1:03d}.jpg"
        self.assertEqual(self.told(self.spoilt(**{name: picture("JPEG", (90, 40))})), "Its digests agree; authorship unproven.")

    def test_of_a_file_without_digests_nothing_is_claimed(self):
        def older(document):
            document["version"] = 3
            for entry in document["entries"]:
                del entry["digest"]

        self.assertEqual(self.told(self.spoilt(older)), "It carries no digests: whether it was changed cannot be told.")


class InTheDatabase(Chained):
    def test_every_signed_entry_is_a_link_and_the_chain_holds(self):
        links = links_of(self.made)
        self.assertEqual([link.previous for link in links], ["", links[0].told])
        self.assertEqual(broken(links), [])
        with ELSEWHERE:
            self.assertEqual(broken(links_of(job_from_zip(self.data, person()))), [])

    def test_a_reading_changed_behind_its_back_breaks_it(self):
        with seal.lifted():
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


class TheSameSheet(Chained):
    def plain(self, made):
        page = Centrer(self.made).client.get(f"/jobs/{made.tag}/sheet/").content.decode()
        body = re.sub(r"<style.*?</style>|<svg.*?</svg>|<img[^>]*>|<form.*?</form>|<[^>]+>", " ", page[page.index("<main") :], flags=re.S)
        body = re.sub(r"Read in from file.*?unproven\.", "", body.replace(made.tag, "NUMBER"), flags=re.S)
        return " ".join(body.split())

    def test_sheet_and_pdf_are_the_same_to_the_letter_but_for_where_it_came_from(self):
        with ELSEWHERE:
            elsewhere = job_from_zip(self.data, person())
            self.assertEqual(self.plain(elsewhere), self.plain(self.made))
            there, here = (json.dumps(self.pdf(made), indent=1) for made in (elsewhere, self.made))
        self.assertEqual(there, here)

    def pdf(self, made):
        said = _data(report_of(JOB.get(pk=made.pk), person(), timezone.now()), "a4")
        said.pop("origin")
        return json.loads(json.dumps(said).replace(made.tag, "NUMBER"))
