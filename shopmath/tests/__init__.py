"""The core's tests. Hypothesis draws as slowly as the machine lets it: a busy one is no failure."""

from hypothesis import HealthCheck, settings

settings.register_profile("bench", deadline=None, suppress_health_check=[HealthCheck.too_slow], derandomize=True)
settings.load_profile("bench")
