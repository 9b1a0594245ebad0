from django.apps import AppConfig


class PracticeConfig(AppConfig):
    name = "practice"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from practice.veil import hides
        from stations.veil import HIDES

        HIDES.append(hides)
