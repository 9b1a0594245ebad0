from django.apps import AppConfig


class PracticeConfig(AppConfig):
    name = "stator.practice"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from stator.practice.hidden_verdict import hides
        from stator.stations.framework.hidden_verdict import hide_when

        hide_when(hides)
