"""Simulated parts and gauges: each has hidden true values, behaves like the real one, and sends what its gauge would send.

They depend on `shopmath` only, and use no clock and no randomness except given seconds and their own seed. The simulated gauges send their
readings over a line.
"""
