"""Validation of photos: decoded, rotated, scaled down, stripped of location and camera, and encoded again."""

from __future__ import annotations

import io
import secrets
import threading
from dataclasses import dataclass
from functools import cache
from hashlib import sha256

from django.core.files.base import ContentFile
from django.core.files.uploadedfile import UploadedFile
from django.db.models import Q, QuerySet
from django.utils.translation import gettext as _
from PIL import Image, ImageOps, UnidentifiedImageError

from shopmath.validation import BadInput
from stator.engines.models import EngineCard, Seat, Subject
from stator.engines.parts import Part, of_every_engine
from stator.jobs.models import Entry, Job, Photo, Record, RunStation
from stator.jobs.permissions import require_open_job
from stator.shop.models import Person

LARGEST_BYTES = 25_000_000
LARGEST_PX = {"JPEG": 110_000_000, "HEIF": 50_000_000, "PNG": 30_000_000, "WEBP": 20_000_000}  # a JPEG is opened smaller than it is
LARGEST_PROFILE = 64_000  # bytes of colour profile that are carried on; a larger one is left out
SIDE_PX, THUMB_PX = 2000, 320
FORMATS = ("JPEG", "PNG", "WEBP", "HEIF")
_one_at_a_time = threading.Lock()  # a 12 megapixel picture takes some hundred megabytes while it is open


@cache
def _readers() -> None:
    """Load the decoder of each format with the first photo, because it takes a tenth of the server's memory."""
    from pi_heif import register_heif_opener

    register_heif_opener()
    Image.init()


def clean(data: bytes, side_px: int = SIDE_PX) -> tuple[bytes, tuple[int, int]]:
    """The picture again as a JPEG, no larger than `side_px`, without any of the file's other content."""
    try:
        _readers()
        with _one_at_a_time, Image.open(io.BytesIO(data), formats=FORMATS) as source:
            highest = LARGEST_PX[source.format or "PNG"]
            if source.width * source.height > highest:
                raise BadInput(
                    "photo",
                    _("That picture has more than {most} million pixels. Take it at a smaller size.").format(most=highest // 1000000),
                )
            profile = source.info.get("icc_profile")
            source.draft("RGB", (2 * side_px, 2 * side_px))
            small = source if source.mode in ("RGB", "L") else source.convert("RGB")
            small.thumbnail((side_px, side_px))  # before it is turned: a copy of the small one costs little
            photo = ImageOps.exif_transpose(small).convert("RGB")
            out = io.BytesIO()
            more = {"icc_profile": profile} if profile and len(profile) <= LARGEST_PROFILE else {}
            photo.save(out, "JPEG", quality=85, optimize=True, progressive=True, exif=b"", **more)
            return out.getvalue(), photo.size
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, Image.DecompressionBombError) as error:
        if isinstance(error, BadInput):
            raise
        raise BadInput("photo", _("That file is no picture Stator can read. Send a JPEG, PNG, WebP or HEIC photo.")) from error


@dataclass(frozen=True)
class Cleaned:
    """Return a photo for storage with its thumbnail."""

    image: bytes
    thumb: bytes
    size: tuple[int, int]


def reencoded_photo(data: bytes) -> Cleaned:
    """Check and clean one picture. Takes a moment: never inside a transaction."""
    if len(data) > LARGEST_BYTES:
        raise BadInput("photo", _("That file is over 25 MB. Send a smaller picture."))
    image, size = clean(data)
    return Cleaned(image, clean(image, THUMB_PX)[0], size)


def keep_photo(
    job: Job,
    station: RunStation | None,
    picture: Cleaned,
    caption: str,
    person: Person,
    *,
    subject: Subject | None = None,
    digest: str = "",
) -> Photo:
    """Save a photo of a job. Its files are deleted if the transaction is rolled back.

    `digest` is that of the photo in the shop that saved it first.
    """
    require_open_job(job)
    name = secrets.token_urlsafe(16)
    photo = Photo(job=job, station=station, caption=caption[:120], width=picture.size[0], height=picture.size[1], by=person)
    photo.subject, photo.digest = subject, digest or sha256(picture.image).hexdigest()
    photo.image.save(f"{name}.jpg", ContentFile(picture.image), save=False)
    photo.thumb.save(f"{name}-s.jpg", ContentFile(picture.thumb), save=False)
    try:
        photo.save()
        job.touch()
    except BaseException:
        photo.forget_files()
        raise
    return photo


def cleaned_upload(upload: UploadedFile) -> Cleaned:
    """Check and clean one upload."""
    if (upload.size or 0) > LARGEST_BYTES:
        raise BadInput("photo", _("That file is over 25 MB. Send a smaller picture."))
    return reencoded_photo(upload.read())


def add_photo(job: Job, station: RunStation | None, upload: UploadedFile, caption: str, person: Person) -> Photo:
    """Check, clean and keep one upload."""
    return keep_photo(job, station, cleaned_upload(upload), caption, person)


def parts_of(card: EngineCard) -> list[Part]:
    """Return the parts that a photo can show: seats, seals and fitted parts of the card, and parts of every engine."""
    places = [each.part for kind in ("seats", "seals", "fitted") for each in getattr(card, kind).all()]
    return [*places, *of_every_engine(card.cylinder_count)]


def named_by(photo: Photo) -> Entry | None:
    """Return the signed entry whose record names a photo; such a photo cannot be deleted."""
    if not photo.digest:
        return None
    signed = Record.objects.filter(entry__job=photo.job_id).select_related("entry__station", "entry__seat")
    return next((each.entry for each in signed if photo.digest in each.content.get("photos", ())), None)


def photos_of(stage: RunStation, seat: Seat | None) -> QuerySet[Photo]:
    """Return the photos of a station; at one seat without those of other parts."""
    taken = Photo.objects.filter(station=stage)
    return taken.filter(Q(subject=None) | Q(subject__kind=seat.part.kind, subject__uid=seat.part.uid)) if seat else taken
