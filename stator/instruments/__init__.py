"""Gauges that send readings: real ones on a serial line, and the stand-ins that ship with Stator."""
