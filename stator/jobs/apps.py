from django.apps import AppConfig
from django.db.models.signals import post_migrate, pre_migrate


class JobsConfig(AppConfig):
    name = "stator.jobs"

    def ready(self) -> None:
        from stator.jobs import search
        from stator.jobs.immutability import install, remove

        pre_migrate.connect(remove, sender=self, dispatch_uid="unseal-the-log")
        post_migrate.connect(install, sender=self, dispatch_uid="seal-the-log")
        post_migrate.connect(search.install, sender=self, dispatch_uid="words-of-jobs")
