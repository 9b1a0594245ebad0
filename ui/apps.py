from django.apps import AppConfig
from django.utils.translation import gettext

from shopmath.checks import in_other_words


class UiConfig(AppConfig):
    name = "ui"

    def ready(self) -> None:
        in_other_words(gettext)
