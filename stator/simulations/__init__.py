"""Judgements of the core against parts with hidden truth: how often what it says is what is so.

Everything is drawn from a printed seed.
"""
