"""A press joint at the bench: its sizes, the force it takes, the heat it stands.

Apart parts one, Together makes one.
"""
