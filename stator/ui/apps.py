from django.apps import AppConfig
from django.utils.translation import gettext

from shopmath.validation import in_other_words


class UiConfig(AppConfig):
    name = "stator.ui"

    def ready(self) -> None:
        in_other_words(gettext)
