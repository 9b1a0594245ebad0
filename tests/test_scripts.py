"""Tests of the scripts in bin/: which Python they use."""

from __future__ import annotations

import os
import subprocess
import tempfile
from pathlib import Path

from django.test import SimpleTestCase

LIB = Path(__file__).parent.parent / "bin" / "lib.sh"
SYSTEM = Path("/usr/bin/python3")
TELLS = '#!/bin/sh\ncase "$2" in *print*) echo {version} ;; *) exit 0 ;; esac\n'


class WhichPython(SimpleTestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def first_on_the_path(self, version):
        (self.folder / "python3").write_text(TELLS.format(version=version))
        (self.folder / "python3").chmod(0o755)

    def taken(self, **variables):
        rest = {name: value for name, value in os.environ.items() if name != "PYTHON"}
        path = f"{self.folder}:{os.environ['PATH']}"
        run = ["bash", "-c", f'. "{LIB}"; echo "$py"']
        return subprocess.run(run, env={**rest, "PATH": path, **variables}, capture_output=True, text=True, check=True).stdout.strip()

    def version(self):
        tell = 'import sys; print("%d.%d" % sys.version_info[:2])'
        return subprocess.run([SYSTEM, "-c", tell], capture_output=True, text=True, check=True).stdout.strip()

    def test_one_that_is_named_is_taken(self):
        self.first_on_the_path("9.9")
        self.assertEqual(self.taken(PYTHON=str(self.folder / "python3")), str(self.folder / "python3"))

    def test_the_first_on_the_path_is_taken_where_the_systems_own_is_of_another_version(self):
        self.first_on_the_path("9.9")
        self.assertEqual(self.taken(), "python3")

    def test_the_systems_own_is_taken_where_it_is_of_the_same_version(self):
        if not SYSTEM.exists():
            self.skipTest("this system has no Python of its own")
        self.first_on_the_path(self.version())
        self.assertEqual(self.taken(), str(SYSTEM))
