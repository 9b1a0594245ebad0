from django.apps import AppConfig
from django.db.models.signals import post_delete, post_migrate, post_save


class ShopConfig(AppConfig):
    name = "shop"

    def ready(self) -> None:
        from shop.sessions import listen
        from shop.shelves import install, restock

        listen()
        for signal in (post_save, post_delete):
            signal.connect(restock, dispatch_uid=f"restock-{id(signal)}")
        post_migrate.connect(install, sender=self, dispatch_uid="people-renamed")
