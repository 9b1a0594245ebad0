from django.apps import AppConfig
from django.db.models.signals import post_migrate, pre_migrate


class JobsConfig(AppConfig):
    name = "jobs"

    def ready(self) -> None:
        from jobs import search
        from jobs.seal import install, remove

        pre_migrate.connect(remove, sender=self, dispatch_uid="unseal-the-log")
        post_migrate.connect(install, sender=self, dispatch_uid="seal-the-log")
        post_migrate.connect(search.install, sender=self, dispatch_uid="words-of-jobs")
