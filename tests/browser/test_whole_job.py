"""A whole job from the flywheel to handover through the interface only, with the number of acts.

The job and its card are fixed: a two-stroke single of the usual layout, scrapped bearings, ten bolts. Measured values are prepared;
questions and actions come from the page. An act is an Enter, a tap or the choice of a key.
"""

from __future__ import annotations

import sys

from stator.engines.layouts import apply_layout
from stator.engines.models import EngineCard, Mark, Seal, Seat
from stator.jobs.models import Job
from stator.shop.defaults import add_usual_tools
from stator.workbench.registry import WORK_ORDERS
from tests.browser.practice_steps import Practised
from tests.factories import job

ENGINE = {"stroke_mm": 54, "taper_ratio": 8, "cone": "taper", "nut_d_mm": 12, "nut_torque_nm": 55, "shaft_d_mm": 20}


class WholeJob(Practised):
    cost = 90

    def setUp(self):
        super().setUp()
        self.made = job(order="bottom-end")
        self.made.card.seats.all().delete()
        apply_layout(self.made.card, "two-stroke-single")
        EngineCard.objects.filter(pk=self.made.card_id).update(**ENGINE)
        Seat.objects.update(marking_assumed=False)
        Seal.objects.update(sizes_assumed=False)
        for number in range(1, 11):
            Mark.objects.create(
                card=self.made.card, what="bolt", name=str(number), x_mm=-90 + 18 * number, y_mm=70 - 140 * (number % 2), torque_nm=10
            )
        add_usual_tools()

    def test_takes_no_more_than_three_hundred_acts(self):
        stations = WORK_ORDERS["bottom-end"][1][1:]
        self.go(f"/jobs/0412/{stations[0]}/")
        counted = {}
        for key in stations:
            begun = self.acts
            self.goes_on(key)
            counted[key] = self.acts - begun
        print("acts of the job:", ", ".join(f"{key} {number}" for key, number in counted.items()), file=sys.stderr)
        self.assertTrue(Job.objects.get().is_closed)
        self.tells("the whole job")
        self.assertQuiet()
