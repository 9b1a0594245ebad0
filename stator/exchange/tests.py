from __future__ import annotations

import json
from datetime import timedelta

from django.test import TestCase
from django.utils import timezone

from shopmath.quantity import parse
from stator.exchange.job_export import job_as_json
from stator.jobs import log
from tests.factories import Hands, job, person


class Export(TestCase):
    def test_a_job_leaves_as_json_with_units_in_its_names(self):
        hands = Hands(job())
        hands.keep("seat", "1.8496 in")
        log.save_reading(hands.entry, person(), "room", parse("64.4 F", "temperature"), "f1", at=timezone.now() - timedelta(hours=1))
        answer = hands.client.get("/jobs/0412/export.json")
        data = json.loads(answer.content)
        self.assertEqual((data["schema"], data["version"]), ("stator-job", 5))
        self.assertEqual((data["engine_card"]["schema"], data["engine_card"]["seats"][0]["code"], data["tray"]), ("stator-card", "N7", []))
        seat, room = data["entries"][0]["readings"]  # in the order they were kept, whatever the clock said
        self.assertEqual((room["typed"], round(room["canonical"], 1), room["canonical_unit"]), ("64.4 F", 18.0, "degC"))
        self.assertEqual((seat["typed"], seat["unit"], seat["gauge"]), ("1.8496 in", "inch", "Bore gauge"))
        self.assertEqual(data, json.loads(json.dumps(job_as_json(hands.job))))
