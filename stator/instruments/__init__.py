"""Gauges that send readings: real ones on a serial line, and simulated ones that ship with Stator."""
