"""Simulated gauges that send the same protocol over TCP.

They are independent of Stator's pages.
"""
