"""A reader of one gauge in one thread: its latest readings in memory, and the state of its connection."""

from __future__ import annotations

import threading
import time
from collections import OrderedDict, deque
from collections.abc import Callable
from dataclasses import dataclass

import serial
from django.core.exceptions import ValidationError
from django.utils.translation import gettext as _

from stator.instruments.protocol import LONGEST, InvalidLine, Line, WrongUnit, read_line
from stator.shop.gauge_ports import check_port

KEPT = 60  # readings held in memory
SILENT_S = 3.0  # a stream that says nothing for so long has stopped
AGAIN_S = 1.0  # between tries to open the line
FLOOD = 200  # lines a second past which most are thrown away
PEAKS = 16  # waiting pages whose peak is remembered

LIVE, SILENT, LOST, GARBAGE, WRONG, STARTING = "live", "silent", "lost", "garbage", "wrong unit", "starting"


@dataclass(frozen=True)
class GaugeReading:
    """A reading with its number in the stream and when it came."""

    seq: int
    line: Line
    at: float


@dataclass(frozen=True)
class ConnectionState:
    """The state of a gauge's connection: a key, and its message."""

    key: str
    words: str


class Reader(threading.Thread):
    """Listens to one gauge until it is stopped; opens its line again whenever that is lost."""

    def __init__(
        self,
        name: str,
        port: str,
        kind: str,
        unit: str,
        *,
        baud: int = 9600,
        on_button: bool = False,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        super().__init__(name=f"gauge {name}", daemon=True)
        self.called, self.port, self.kind, self.unit, self.baud, self.on_button = name, port, kind, unit, baud, on_button
        self.clock = clock
        self.heard: deque[GaugeReading] = deque(maxlen=KEPT)
        self.levers: dict[str, str] = {}
        self.remark = ""
        self.bad_lines = 0
        self.flooded_at = -1e9
        self._wrong: tuple[float, ConnectionState] | None = None
        self._lost = ""
        self._opened_at: float | None = None
        self._line: serial.Serial | None = None
        self._peaks: OrderedDict[str, float] = OrderedDict()
        self._seq = 0
        self._over = threading.Event()
        self._lock = threading.Lock()

    # what pages ask

    @property
    def last(self) -> GaugeReading | None:
        return self.heard[-1] if self.heard else None

    @property
    def is_open(self) -> bool:
        return self._opened_at is not None

    def standing(self) -> ConnectionState:
        """Return how it is doing now."""
        now, last = self.clock(), self.last
        if self._opened_at is None:
            return (
                ConnectionState(LOST, _("No line to {called}. {lost}").format(called=self.called, lost=self._lost))
                if self._lost
                else ConnectionState(STARTING, f"{self.called}: opening.")
            )
        fresh = last is not None and last.at >= self._opened_at
        if self._wrong and now - self._wrong[0] < SILENT_S and (last is None or last.at <= self._wrong[0]):
            return self._wrong[1]
        if self.on_button:
            return ConnectionState(LIVE, _("{called} is connected: its button keeps the reading.").format(called=self.called))
        quiet = now - (last.at if last and fresh else self._opened_at)
        if quiet > SILENT_S:
            return ConnectionState(
                SILENT,
                _("{called} has said nothing for {quiet} s: look at its cable and battery, or type the reading.").format(
                    called=self.called, quiet=round(quiet)
                ),
            )
        if not fresh:
            return ConnectionState(STARTING, _("{called} is open, nothing said yet.").format(called=self.called))
        if now - self.flooded_at < SILENT_S:
            return ConnectionState(
                LIVE,
                _("{called} speaks faster than {flood} lines a second: only its latest counts.").format(called=self.called, flood=FLOOD),
            )
        return ConnectionState(LIVE, _("{called} is live.").format(called=self.called))

    def since(self, seq: int) -> list[GaugeReading]:
        """Readings after a number, oldest first."""
        return [each for each in self.heard.copy() if each.seq > seq]

    def peak(self, mark: str) -> float | None:
        """The highest reading since a waiting page, known by its mark, first asked."""
        with self._lock:
            if mark not in self._peaks:
                self._peaks[mark] = self.last.line.canonical if self.last else float("-inf")
                while len(self._peaks) > PEAKS:
                    self._peaks.popitem(last=False)
            found = self._peaks[mark]
        return None if found == float("-inf") else found

    def send_command(self, control: str) -> None:
        """Send one of the words it offered."""
        line = self._line
        if control in self.levers and line is not None:
            line.write(f"{control}\n".encode())

    def stop(self) -> None:
        self._over.set()

    # what the line says

    def run(self) -> None:
        while not self._over.is_set():
            raw = None
            try:
                check_port(self.port)  # what may be listened to can change after a port was typed
                with serial.serial_for_url(self.port, baudrate=self.baud, timeout=0.3) as line:
                    raw = getattr(line, "_socket", None)
                    self._line, self._opened_at, self.levers = line, self.clock(), {}
                    self._listen(line)
            except ValidationError as error:
                self._lost = error.messages[0]
            except (serial.SerialException, OSError, ValueError) as error:
                self._lost = _("{error} Type the reading meanwhile; it is tried every second.").format(error=_plainly(error))
            finally:
                if raw is not None:
                    raw.close()  # pyserial leaves a socket open that the far end has shut
                self._line = self._opened_at = None
            self._over.wait(AGAIN_S)

    def _listen(self, line: serial.Serial) -> None:
        rest, second, lines = b"", self.clock(), 0
        while not self._over.is_set():
            rest += line.readline(LONGEST * 4)
            if not rest.endswith(b"\n"):
                if len(rest) > LONGEST * 4:
                    self.take(rest.decode("utf-8", "replace"))
                    rest = b""
                continue
            said, rest = rest.decode("utf-8", "replace"), b""
            if self.clock() - second > 1:
                second, lines = self.clock(), 0
            lines += 1
            if lines > FLOOD:
                self.flooded_at = self.clock()
                line.reset_input_buffer()
                self._over.wait(max(0.0, 1 - (self.clock() - second)))
                line.reset_input_buffer()
                line.readline(LONGEST * 4)  # the rest of a line cut in two
            self.take(said)

    def take(self, said: str) -> None:
        """Process one line."""
        said = said.strip()
        if not said:
            return
        if said.startswith("#"):
            self._remark(said[1:].strip())
            return
        try:
            line = read_line(said, self.kind, self.unit)
        except (InvalidLine, WrongUnit) as error:
            self.bad_lines += 1
            key = WRONG if isinstance(error, WrongUnit) else GARBAGE
            self._wrong = (
                self.clock(),
                ConnectionState(key, _("{error} Nothing was kept; type the reading, or set the gauge right.").format(error=error)),
            )
            return
        with self._lock:
            self._seq += 1
            self.heard.append(GaugeReading(self._seq, line, self.clock()))
            for mark in self._peaks:
                self._peaks[mark] = max(self._peaks[mark], line.canonical)

    def _remark(self, words: str) -> None:
        if words.startswith("can ") and "=" in words:
            control, _, does = words[4:].partition("=")
            if len(self.levers) < 12:
                self.levers[control.strip()[:40]] = does.strip()[:40]
        else:
            self.remark = words[:120]


def _plainly(error: Exception) -> str:
    """Return what went wrong with a line, without the library's own words."""
    text = str(error).lower()
    if "refused" in text:
        return _("Nobody answers there.")
    if "no such file" in text or "could not open port" in text or "cannot find" in text:
        return _("There is no such port: is it plugged in?")
    if "denied" in text:
        return _("This machine may not open that port.")
    return _("The connection was lost.")
