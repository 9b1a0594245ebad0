"""Hands that work at simulated parts by themselves: ones that do what Stator's calls say, and ones that go by eye, force or the clock."""
