from django.apps import AppConfig
from django.db.models.signals import post_migrate


class EnginesConfig(AppConfig):
    name = "stator.engines"

    def ready(self) -> None:
        from stator.engines.card_loader import install

        post_migrate.connect(install, sender=self, dispatch_uid="stamp-the-cards")
