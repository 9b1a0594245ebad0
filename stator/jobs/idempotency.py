"""Idempotent requests: each is one transaction and is executed once, however often it is sent.

A page sends a key with every POST. The transaction stores an `Act` row with this key and a digest of the content. The same content again
returns the earlier result. Other content with a known key is a new request with a new key, so that a page restored by the browser, or a
value corrected after its response was lost, never counts as the earlier one.
"""

from __future__ import annotations

import uuid
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from functools import wraps
from hashlib import file_digest, sha256
from threading import RLock
from typing import Any

from django.core.exceptions import PermissionDenied
from django.db import transaction
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect

from stator.jobs.models import Act, Job
from stator.jobs.permissions import JobClosed
from stator.shop.models import Person

FIELD = "client_key"  # of the form
NOT_SAID = (FIELD, "csrfmiddlewaretoken", "heard", "at")  # what differs between two sendings of the same
MOST = 40
_TURN = RLock()  # of this process: who waits here is let in turn, who waits for the database's lock tries again after growing pauses


@dataclass
class IdempotentRequest:
    """A request in progress.

    `repeats` is the earlier identical request, `corrects` the one with the same key and other content.
    """

    key: str
    repeats: Act | None = None
    corrects: Act | None = None
    job: Job | None = None
    outcome: dict[str, Any] = field(default_factory=dict)
    refused: bool = False

    @property
    def led_to(self) -> str:
        """Return where the answer to the act that this one repeats led."""
        return str(self.repeats.outcome.get("goes", "")) if self.repeats else ""


def new_key() -> str:
    return uuid.uuid4().hex


def key_of(request: HttpRequest) -> str:
    """Return the key that the page sent, or a new key if it sent none."""
    return request.POST.get(FIELD, "")[:MOST] or new_key()


def digest_of(request: HttpRequest) -> str:
    """Return a digest of the content, the sender and the address, without what differs when the same request is sent twice."""
    said = sha256(f"{request.user.pk} {request.path}".encode())
    for name in sorted(set(request.POST) - set(NOT_SAID)):
        said.update(repr((name, request.POST.getlist(name))).encode())
    for name in sorted(request.FILES):
        for file in request.FILES.getlist(name):
            said.update(repr((name, file.name, file_digest(file.file, "sha256").hexdigest())).encode())  # type: ignore[arg-type]
            file.seek(0)
    return said.hexdigest()


@contextmanager
def find_previous_request(person: Person, key: str, digest: str, address: str, job: Job | None = None) -> Iterator[IdempotentRequest]:
    """Run a request in one transaction: store it when it was executed, roll it back when it was refused."""
    with _TURN, transaction.atomic():
        known = list(Act.objects.filter(sent_key=key).order_by("pk"))
        last = next((each for each in reversed(known) if (each.address, each.person_id) == (address[:200], person.pk)), None)
        same = last if last and last.digest == digest else None
        doing = IdempotentRequest(key, same, last if last and not same else None, job)
        if not same and known:
            doing.key = f"{key}.{uuid.uuid4().hex[:12]}"
        yield doing
        if doing.refused:
            transaction.set_rollback(True)
        elif not same:
            revision = next((found for (found,) in Job.every.filter(pk=doing.job.pk).values_list("revision")), None) if doing.job else None
            Act.objects.create(
                key=doing.key,
                sent_key=key,
                digest=digest,
                address=address[:200],
                person=person,
                job=doing.job if revision is not None else None,
                revision=revision or 0,
                outcome=doing.outcome,
            )


def sent(request: HttpRequest) -> Any:
    """`once` for what a page has sent."""
    return find_previous_request(request.user, key_of(request), digest_of(request), request.path)  # type: ignore[arg-type]


def idempotent(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """Make a view idempotent that redirects after its POST.

    A response with status 200 means that nothing was saved.
    """

    @wraps(view)
    def wrapped(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        if request.method != "POST":
            return view(request, *args, **kwargs)
        with sent(request) as doing:
            if doing.led_to:
                return HttpResponseRedirect(doing.led_to)
            request.act = doing  # type: ignore[attr-defined]
            try:
                response = view(request, *args, **kwargs)
            except JobClosed as error:
                raise PermissionDenied(error.message) from error
            led_to = response.headers.get("Location", "")
            doing.refused = not led_to and response.headers.get("X-Kept") != "yes"
            doing.outcome.setdefault("goes", led_to or request.path)  # sent again, the page as it is now
        return response

    return wrapped


def link_request_to_job(request: HttpRequest, job: Job | None) -> None:
    """Record which job a request concerns."""
    doing: IdempotentRequest | None = getattr(request, "act", None)
    if doing is not None:
        doing.job = job
