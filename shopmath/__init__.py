"""Rules and numbers of the bench: fits, heat, forces, run-out, balance.

No interface code, no clock, no files but its own tables.
"""

from shopmath.validation import BadInput

__all__ = ["BadInput"]
__version__ = "0.2.0"
