"""Static files of a release: which are collected, and their addresses."""

from __future__ import annotations

from functools import cache

from django.contrib.staticfiles.apps import StaticFilesConfig
from whitenoise.storage import CompressedManifestStaticFilesStorage


class ReleasedStaticFilesStorage(CompressedManifestStaticFilesStorage):  # type: ignore[misc]  # its package says no types
    """The files of a release do not change while it runs: the address of each is worked out once."""

    def url(self, name: str | None, force: bool = False) -> str:
        return self._addresses(name, force)

    @cache  # noqa: B019  one for as long as the server runs
    def _addresses(self, name: str | None, force: bool) -> str:
        return str(super().url(name, force))


class ReleasedFiles(StaticFilesConfig):
    """Static files without those of packages that no page uses: each would be one more large file that anyone can request."""

    ignore_patterns = [*StaticFilesConfig.ignore_patterns, "htmax-*", "htmx-4*", "htmx-2.js", "django_htmx/ext/*"]
