"""A press joint: its sizes, force and temperature limits.

Press apart opens one, Press together makes one.
"""
