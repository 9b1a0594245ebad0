"""Tests of the core. Hypothesis may draw slowly, because a busy machine is not a failure."""

from hypothesis import HealthCheck, settings

settings.register_profile("bench", deadline=None, suppress_health_check=[HealthCheck.too_slow], derandomize=True)
settings.load_profile("bench")
