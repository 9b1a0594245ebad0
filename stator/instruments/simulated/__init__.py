"""Stand-ins for gauges: small simulated instruments that speak the same line over TCP.

They know nothing of Stator's pages.
"""
