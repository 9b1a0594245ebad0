"""Texts of every page, and those that no language changes."""

from __future__ import annotations

import re
from html import unescape
from urllib.parse import urlencode

from django.apps import apps
from django.db.models import CharField, JSONField, TextField

from stator.engines.models import EngineCard
from stator.jobs.models import Entry, Job
from stator.quick_checks.registry import CHECKS

NAMES = re.compile(r"^[A-Z][a-z]+/[A-Z]\w+")  # of time zones
PASSAGE = re.compile(r"(?<![\w'])[a-z]{3,} [a-z]{3,}(?![\w'])", re.IGNORECASE)
HIDDEN = re.compile(r"<(script|style|kbd)\b.*?</\1>|<!--.*?-->", re.S)
SAID = re.compile(r'\b(?:aria-label|placeholder|title|alt)="([^"]*)"')


def told(page: str) -> list[str]:
    """Every piece of text that a page shows or reads out."""
    page = HIDDEN.sub(" ", page)
    found = [*SAID.findall(page), *re.split(r"<[^>]*>", page)]
    return [" ".join(unescape(each).split()) for each in found]


def typed() -> set[str]:
    """Return what somebody typed, which no language changes: names, complaints, notes, and the texts of records."""
    found: set[str] = set()
    for model in apps.get_models():
        fields = [field.attname for field in model._meta.concrete_fields if isinstance(field, CharField | TextField)]
        for row in model._default_manager.values_list(*fields) if fields else ():
            found.update(str(each) for each in row if each)
        for field in model._meta.concrete_fields:
            if isinstance(field, JSONField):
                for value in model._default_manager.values_list(field.attname, flat=True):
                    found.update(_texts(value))
    return {each for each in found if " " in each}


def _texts(value: object) -> set[str]:
    if isinstance(value, str):
        return {value}
    if isinstance(value, dict):
        return set().union(*(_texts(each) for each in value.values())) if value else set()
    return set().union(*(_texts(each) for each in value)) if isinstance(value, list) and value else set()


def pages() -> list[str]:
    """Every kind of page there is, at least once."""
    found = [
        "/",
        "/book-in/",
        "/cards/",
        "/shop/",
        "/shop/tools/",
        "/shop/people/",
        "/shop/password/",
        "/shop/me/",
        "/held/",
        "/find/?q=0412",
        "/gauges/",
        "/keys/",
        "/photos/1/",
    ]
    found += [f"/check/{check.key}/?{urlencode(check.example)}" for check in CHECKS]
    found.append("/check/fit/")
    found += [
        f"/shop/{shelf}/"
        for shelf in ("heaters", "chillers", "gauges", "pullers", "drivers", "presses", "blades", "compounds", "splitters")
    ]
    for card in EngineCard.objects.all()[:3]:
        found += [f"/cards/{card.pk}/", f"/cards/{card.pk}/trend/"]
    for job in Job.objects.prefetch_related("run"):
        at = f"/jobs/{job.tag}/"
        found += [f"{at}{page}/" for page in ("log", "sheet", "tray", "tray/labels", "run", "card", "about", "pictures", "parts")]
        found += [f"{at}card/?part={part}" for part in ("facts", "wheel", "seat", "seal", "fitted", "spec")] if job.number == 412 else []
        seat = job.card.seats.first()
        for stage in job.run.all():
            found.append(f"{at}{stage.key}/")
            found += [f"{at}{stage.key}/{seat.pk}/"] if seat and stage.key in ("heat-and-drop", "bearings-out") else []
    found += [f"/entries/{entry.pk}/sheet/" for entry in Entry.objects.all()[:6]]
    return found


def kinds_of(addresses: list[str]) -> list[str]:
    """Return one address of each kind: the last of those that differ in numbers alone."""
    kinds: dict[str, str] = {}
    for address in addresses:
        path, _, query = address.partition("?")
        kind = "/".join(part for part in path.strip("/").split("/") if not part.isdigit()) + f"?{query}"
        kinds[kind] = address
    return list(kinds.values())


def unaccented(opened: dict[str, str]) -> dict[str, str]:
    """Return the untranslated sentences of pages in the test language, with the first page of each."""
    known = sorted(typed(), key=len, reverse=True)
    left: dict[str, str] = {}
    looked_at: set[str] = set()
    for address, page in opened.items():
        fresh = set(told(page)) - looked_at
        looked_at |= fresh
        for text in fresh:
            if NAMES.search(text):
                continue
            rest = text
            for each in known:
                if each in rest:
                    rest = rest.replace(each, "")
            if "~" not in rest and any(all(each not in name for name in known) for each in PASSAGE.findall(rest)):
                left.setdefault(text, address)
    return left
