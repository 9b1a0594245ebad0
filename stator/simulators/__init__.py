"""Simulated parts and gauges: each holds a truth that nobody sees, behaves as the real one would, and says what a gauge would say.

Pure: over `shopmath` alone, no clock but the seconds it is given, no dice but its own seed. The stand-ins speak for them over a line.
"""
