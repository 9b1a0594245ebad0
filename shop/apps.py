from django.apps import AppConfig
from django.db.models.signals import post_migrate


class ShopConfig(AppConfig):
    name = "shop"

    def ready(self) -> None:
        from shop.sessions import listen
        from shop.shelves import install

        listen()
        post_migrate.connect(install, sender=self, dispatch_uid="people-renamed")
