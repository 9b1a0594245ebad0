"""Languages that have a catalogue of their own: each is offered as soon as it is there and compiled."""

from __future__ import annotations

from pathlib import Path


def catalogues(folder: Path) -> list[tuple[str, str]]:
    """Return code and name of every language in a locale folder, in its own words if Django knows them."""
    from django.conf.locale import LANG_INFO  # settings are being read: nothing of Django's that needs them

    found = []
    for compiled in sorted(folder.glob("*/LC_MESSAGES/django.mo")):
        code = compiled.parent.parent.name.lower().replace("_", "-")
        info = LANG_INFO.get(code) or LANG_INFO.get(code.split("-")[0]) or {}
        found.append((code, str(info.get("name_local", code))))
    return found
