"""Measurement of the response of a practice crank that is turned by hand, for `bin/bench`."""

from __future__ import annotations

import uuid

from django.test import Client

from stator.benchmarks.timing import spread
from stator.practice import attempts
from stator.practice.models import Attempt
from stator.shop.models import Person


def needle() -> None:
    """Measure the time from turning a practice crank to the needle on the page, early in an attempt and after two hundred moves."""
    skipper = Person.objects.get(username="skipper")
    client = Client()
    client.force_login(skipper)
    attempt = attempts.begin(skipper, "read-dial", "hard", 7)
    assert attempt.job is not None
    address = f"/practice/{attempt.job.tag}/hands/"

    def turn() -> None:
        values = {"lever": "on", "client_key": uuid.uuid4().hex}
        assert b"hands-turns" in client.post(address, values, headers={"HX-Request": "true"}).content

    for told in ("a needle turned to its page", "the same after two hundred turns"):
        median, high = spread(turn)
        print(f"{told:40} {median:7.2f} ms   95 % {high:6.2f}   (target 50)")
        Attempt.objects.filter(pk=attempt.pk).update(pulls=[{"lever": "on", "share": 1.0, "at_s": 1.0}] * 200)
    attempts.finish(Attempt.objects.get(pk=attempt.pk))
