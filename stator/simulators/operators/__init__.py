"""Simulated operators: those that follow Stator, and those that go by eye, force or the clock."""
