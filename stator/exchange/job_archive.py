"""Contents of a job's ZIP, or the reason why it is refused. Nothing in the file is trusted."""

from __future__ import annotations

import io
import re
import zipfile
from typing import Any

from django.utils.translation import gettext as _
from pydantic import ValidationError

from shopmath.validation import BadInput
from stator.exchange.hash_chain_check import check_file
from stator.exchange.import_schema import Choices, JobFile, check_result, said_of
from stator.exchange.job_export import SCHEMA, VERSION
from stator.exchange.zip_errors import UNREADABLE
from stator.jobs.photos import LARGEST_BYTES
from stator.ui import strict_json

MOST_FILES, MOST_BYTES, MOST_JSON, MOST_RATIO = 400, 150_000_000, 30_000_000, 100
NAMES = re.compile(r"^(job\.json|readings\.csv|sheet\.pdf|drawings/[\w.-]{1,80}\.svg|photos/\d{3,4}\.jpg)$", re.ASCII)


def refused(words: str) -> BadInput:
    return BadInput("file", _("{words} Nothing was taken.").format(words=words))


def opened(data: bytes) -> dict[str, bytes]:
    """Return what is in a job's ZIP, by name; refused when it is damaged, hostile or something else."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as found:
            infos = found.infolist()
            if len(infos) > MOST_FILES or sum(info.file_size for info in infos) > MOST_BYTES:
                raise refused(
                    _("That file unpacks to more than {most_files} files or {most} MB.").format(
                        most_files=MOST_FILES, most=MOST_BYTES // 1000000
                    )
                )
            if len({info.filename for info in infos}) != len(infos):
                raise refused(_("It holds two files of one name."))
            for info in infos:
                _check(info)
            needed = [info for info in infos if info.filename == "job.json" or info.filename.startswith("photos/")]
            return {info.filename: found.read(info) for info in needed}
    except BadInput:
        raise
    except UNREADABLE as error:
        raise refused(_("That file is damaged, or no ZIP.")) from error


def _check(info: zipfile.ZipInfo) -> None:
    if not NAMES.match(info.filename):
        raise refused(_("{filename} has no place in a job.").format(filename=strict_json.shown(info.filename)))
    if info.file_size > 1_000_000 and info.file_size > MOST_RATIO * max(info.compress_size, 1):
        raise refused(_("{filename} would unpack to a hundred times its size.").format(filename=info.filename))
    if info.filename.startswith("photos/") and info.file_size > LARGEST_BYTES:
        raise refused(_("{filename} is over 25 MB.").format(filename=info.filename))
    if info.flag_bits & 1:
        raise refused(_("It is locked with a password."))
    if info.compress_type not in (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED):
        raise refused(_("{filename} is packed in a way that is not read here.").format(filename=info.filename))


def said_in(files: dict[str, bytes]) -> tuple[JobFile, dict[str, Any]]:
    """Return the validated job of a file, and the result of checking its digests."""
    try:
        value = strict_json.read(files.get("job.json", b""), MOST_JSON)
    except BadInput as error:
        raise refused(_("There is no readable job.json in it. {reason}").format(reason=error.message)) from error
    if not isinstance(value, dict) or value.get("schema") != SCHEMA:
        raise refused(_("This is no job of Stator's."))
    if value.get("version") != VERSION:
        words = _("The file has version {found} of a job. This Stator reads version {version}.")
        raise refused(words.format(found=str(value.get("version"))[:20], version=VERSION))
    try:
        said = JobFile.model_validate(value)
    except ValidationError as error:
        raise refused(said_of(error)) from error
    for index, entry in enumerate(said.entries, 1):
        for what, check, found in (("choices", Choices.model_validate, entry.choices), ("result", check_result, entry.result)):
            try:
                check(found)
            except ValidationError as error:
                raise refused(said_of(error, f"entries {index}, {what}")) from error
    photos = {name: data for name, data in files.items() if name.startswith("photos/")}
    return said, check_file(value, photos)
