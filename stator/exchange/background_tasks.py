"""Background tasks for long operations, with progress for the page that waits."""

from __future__ import annotations

import contextlib
import contextvars
import logging
import secrets
import tempfile
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import IO

from django.db import connections
from django.utils import timezone, translation
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy

from shopmath.validation import BadInput

Tell = Callable[[str, float], None]  # what is being done, and how much of all is done, 0 to 1
KEPT_S, MOST = 600.0, 24  # finished ones are kept for so long, and so many at most
BROKEN = gettext_lazy("It could not be made; the reason is in the server's log.")
LOG = logging.getLogger(__name__)


def no_progress(words: str, share: float) -> None:
    """Ignore the progress."""


@dataclass(frozen=True)
class TaskOutput:
    """The output of a task: a file, or an address with a message."""

    data: bytes = b""
    name: str = ""
    kind: str = ""
    inline: bool = False
    goes: str = ""
    words: str = ""


@dataclass
class BackgroundTask:
    """One thing being made, for one asker."""

    asker: str
    what: str
    token: str = field(default_factory=lambda: secrets.token_urlsafe(18))
    words: str = field(default_factory=lambda: _("Beginning"))
    share: float = 0.0
    made: TaskOutput | None = None
    refused: str = ""
    file: IO[bytes] | None = None
    at: float = field(default_factory=time.monotonic)

    @property
    def over(self) -> bool:
        return self.made is not None or bool(self.refused)

    def tell(self, words: str, share: float) -> None:
        self.words, self.share = words, max(self.share, min(share, 1.0))

    def run(self, make: Callable[[Tell], TaskOutput]) -> None:
        try:
            made = make(self.tell)
            if made.data:
                self.file = tempfile.NamedTemporaryFile(prefix="stator-made-")  # noqa: SIM115  closed, and so removed, when forgotten
                self.file.write(made.data)
                self.file.flush()
                made = TaskOutput(b"", made.name, made.kind, made.inline)
            self.made = made
        except BadInput as error:
            self.refused = error.message
        except Exception:
            LOG.exception("making %s", self.what)
            self.refused = str(BROKEN)
        finally:
            self.at = time.monotonic()
            connections.close_all()

    def forget(self) -> None:
        if self.file:
            with contextlib.suppress(OSError):
                self.file.close()


class TaskRegistry:
    """Everything being made in this process."""

    def __init__(self) -> None:
        self._all: dict[str, BackgroundTask] = {}
        self._lock = threading.Lock()

    def begin(self, asker: str, what: str, make: Callable[[Tell], TaskOutput]) -> BackgroundTask:
        """Begin a task. The same task of the same person is not started twice."""
        with self._lock:
            self._tidy()
            same = next((each for each in self._all.values() if (each.asker, each.what) == (asker, what) and not each.over), None)
            if same:
                return same
            if sum(not each.over for each in self._all.values()) >= MOST:
                raise BadInput("making", _("Too much is being made at once. Wait a moment and ask again."))
            making = BackgroundTask(asker, what)
            self._all[making.token] = making
        as_asked = contextvars.copy_context()  # in the units of who asked
        spoken, zone = translation.get_language(), timezone.get_current_timezone()  # which Django does not carry into a thread

        def run() -> None:
            with translation.override(spoken), timezone.override(zone):
                making.run(make)

        threading.Thread(target=as_asked.run, args=(run,), daemon=True).start()
        return making

    def found(self, asker: str, token: str) -> BackgroundTask | None:
        making = self._all.get(token)
        return making if making and making.asker == asker else None

    def _tidy(self) -> None:
        """Forget what was finished long ago, and the oldest of too many."""
        over = sorted((each for each in self._all.values() if each.over), key=lambda each: each.at)
        for index, each in enumerate(over):
            if time.monotonic() - each.at > KEPT_S or index < len(over) - MOST:
                each.forget()
                del self._all[each.token]


BENCH = TaskRegistry()
