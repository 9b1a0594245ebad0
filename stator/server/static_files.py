"""Static files of a release: which are collected, and their addresses."""

from __future__ import annotations

from functools import cache

from django.contrib.staticfiles.apps import StaticFilesConfig
from whitenoise.storage import CompressedManifestStaticFilesStorage


class ReleasedStaticFilesStorage(CompressedManifestStaticFilesStorage):  # type: ignore[misc]  # its package says no types
    """Static files of a release, whose addresses are computed once because they do not change while it runs."""

    def url(self, name: str | None, force: bool = False) -> str:
        return self._addresses(name, force)

    @cache  # noqa: B019  one for as long as the server runs
    def _addresses(self, name: str | None, force: bool) -> str:
        return str(super().url(name, force))


class ReleasedFiles(StaticFilesConfig):
    """Find static files except those of packages that no page uses."""

    ignore_patterns = [*StaticFilesConfig.ignore_patterns, "htmax-*", "htmx-4*", "htmx-2.js", "django_htmx/ext/*"]
