"""Customer links: unguessable, limited in time, revocable, for one job report only."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta

from django.http import Http404
from django.utils import timezone

from stator.jobs.models import Job, OwnerLink
from stator.shop.audit_log import audit
from stator.shop.models import Person

DAYS = (7, 30, 90)


def _digest(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def create_link(job: Job, person: Person, days: int) -> str:
    """Return the token of a new link. It is shown once, and only its digest is stored."""
    token = secrets.token_urlsafe(32)
    OwnerLink.objects.create(job=job, digest=_digest(token), made_by=person, expires_at=timezone.now() + timedelta(days=days))
    audit(person, f"gave a link for {days} days to the sheet of", job.tag)
    return token


def revoke_link(link: OwnerLink) -> None:
    OwnerLink.objects.filter(pk=link.pk, revoked_at=None).update(revoked_at=timezone.now())
    audit("the shop", "took back a link to the sheet of", link.job.tag)


def opened(token: str) -> OwnerLink:
    """Return the link of a token if it is valid; otherwise None, without a reason."""
    link = OwnerLink.objects.filter(digest=_digest(token)).first()
    if link is None or not link.holds(timezone.now()):
        raise Http404
    return link
