"""Simulations of the core with hidden true values: how often its verdicts are right.

Everything is drawn from a printed seed.
"""
