"""Rules and numbers of the workshop: fits, heat, forces, runout, balance.

No interface code, no clock, no files but its own tables.
"""

from shopmath.validation import BadInput

__all__ = ["BadInput"]
__version__ = "0.2.0"
