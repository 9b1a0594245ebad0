from django.apps import AppConfig
from django.db.models.signals import post_migrate


class ShopConfig(AppConfig):
    name = "stator.shop"

    def ready(self) -> None:
        from stator.shop.equipment_snapshot import install
        from stator.shop.sessions import listen

        listen()
        post_migrate.connect(install, sender=self, dispatch_uid="people-renamed")
