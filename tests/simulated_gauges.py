"""Simulated gauges next to a test on their own ports, and a line that sends what a test chooses."""

from __future__ import annotations

import asyncio
import contextlib
import socket
import threading
import time
from collections.abc import Callable, Sequence

from stator.instruments.gauge_reader import Reader
from stator.instruments.simulated.server import GaugeServer, run
from stator.simulators.base import Part
from stator.simulators.registry import PARTS


def until(what: Callable[[], object], seconds: float = 10.0) -> object:
    """Wait for something to become true, no longer than it takes."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        if found := what():
            return found
        threading.Event().wait(0.02)
    raise AssertionError("It did not come true in time.")


class StandIns:
    """The usual four simulated gauges, or others, in a thread.

    `port(name)` is the address of one; `thing(name)` is its part with its true values.
    """

    def __init__(self, parts: Sequence[type[Part]] = PARTS) -> None:
        self.speakers: list[GaugeServer] = []
        self._parts = parts
        self._ready = threading.Event()
        self._thread = threading.Thread(target=self._run, daemon=True)
        self._thread.start()
        assert self._ready.wait(10)

    def _run(self) -> None:
        with contextlib.suppress(asyncio.CancelledError):
            asyncio.run(self._both())

    async def _both(self) -> None:
        self._loop, self._task = asyncio.get_running_loop(), asyncio.current_task()
        ready = asyncio.Event()
        program = asyncio.create_task(run([0] * len(self._parts), 7, ready, self.speakers, self._parts))
        await ready.wait()
        self._ready.set()
        await program

    def port(self, name: str) -> str:
        return f"socket://127.0.0.1:{self._of(name).port}"

    def thing(self, name: str):
        return self._of(name).thing

    def _of(self, name: str) -> GaugeServer:
        return next(speaker for speaker in self.speakers if speaker.thing.name == name)

    def stop(self) -> None:
        self._loop.call_soon_threadsafe(self._task.cancel)
        self._thread.join(5)


class Saying:
    """A line on which a test says what it likes; hanging up loses it."""

    def __init__(self) -> None:
        self.server = socket.create_server(("127.0.0.1", 0))
        self.address = f"socket://127.0.0.1:{self.server.getsockname()[1]}"
        self.line: socket.socket | None = None
        self._thread: threading.Thread | None = None

    def answer(self, reader: Callable[[], Reader | None]) -> Saying:
        """Accept the connection, and wait until the reader listens, because it discards what is sent while a line is opened."""
        self.hang_up()
        self.server.settimeout(10)
        self.line, _ = self.server.accept()
        until(lambda: (found := reader()) and found.is_open)
        return self

    def say(self, *lines: str) -> None:
        assert self.line is not None
        self.line.sendall("".join(f"{line}\r\n" for line in lines).encode())

    def stream(self, line: str) -> None:
        """Send a line again and again, as a gauge does, until `stop`: a page on a busy machine may ask late."""
        self.stop()
        self._ended = threading.Event()
        self._thread = threading.Thread(target=self._send, args=(line, self._ended), daemon=True)
        self._thread.start()

    def _send(self, line: str, ended: threading.Event) -> None:
        while not ended.is_set():
            with contextlib.suppress(OSError):
                self.say(line)
            ended.wait(0.3)

    def stop(self) -> None:
        """End the stream."""
        if self._thread:
            self._ended.set()
            self._thread.join()
        self._thread = None

    def hang_up(self) -> None:
        self.stop()
        if self.line:
            self.line.close()
        self.line = None

    def close(self) -> None:
        self.hang_up()
        self.server.close()
