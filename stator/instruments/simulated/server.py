"""The simulated gauges as one program: each sends its lines to its clients, and receives controls from them."""

from __future__ import annotations

import asyncio
import contextlib
from collections.abc import Sequence

from stator.simulators.base import Part
from stator.simulators.registry import PARTS

FIRST_PORT = 5331
HOST = "127.0.0.1"
GREET_S = 2.0


class GaugeServer:
    """One thing on one port."""

    def __init__(self, thing: Part) -> None:
        self.thing = thing
        self.port = 0
        self._writers: dict[asyncio.StreamWriter, float] = {}  # seconds to the next greeting

    async def start(self, port: int) -> asyncio.Server:
        server = await asyncio.start_server(self._meet, HOST, port)
        self.port = server.sockets[0].getsockname()[1]
        return server

    def greeting(self) -> bytes:
        """Return what the gauge is and can do.

        It is sent repeatedly because a line that was just opened may lose its first bytes.
        """
        controls = "".join(f"#can {word} = {does}\r\n" for word, does in self.thing.levers.items())
        return f"# {self.thing.remark}\r\n{controls}".encode()

    async def _meet(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        self._writers[writer] = 0.0
        try:
            while said := await reader.readline():
                word = said.decode("utf-8", "replace").strip()
                if word in self.thing.levers:
                    self.thing.pull(word)
                else:
                    writer.write(f"# cannot {word[:20]}\r\n".encode())
        except (ConnectionError, ValueError, asyncio.CancelledError):
            pass
        finally:
            self._writers.pop(writer, None)
            writer.close()

    async def speak(self) -> None:
        """Send a line at the rate of the gauge while the program runs."""
        while True:
            await asyncio.sleep(self.thing.every_s)
            line = self.thing.after(self.thing.every_s)
            for writer, wait in list(self._writers.items()):
                said = f"{line}\r\n".encode() if line else b""
                if wait <= 0:
                    said, wait = self.greeting() + said, GREET_S
                self._writers[writer] = wait - self.thing.every_s
                with contextlib.suppress(ConnectionError):
                    writer.write(said)


async def run(
    ports: Sequence[int],
    seed: int = 7,
    ready: asyncio.Event | None = None,
    speakers: list[GaugeServer] | None = None,
    parts: Sequence[type[Part]] = PARTS,
) -> None:
    """Each part on its port, until cancelled. A port of 0 takes any free one."""
    made = [GaugeServer(thing(seed)) for thing in parts]
    servers = [await speaker.start(port) for speaker, port in zip(made, ports, strict=True)]
    if speakers is not None:
        speakers.extend(made)
    if ready:
        ready.set()
    try:
        await asyncio.gather(*(speaker.speak() for speaker in made))
    finally:
        for server in servers:
            server.close()
