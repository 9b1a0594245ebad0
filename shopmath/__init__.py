"""Rules and numbers of the bench: fits, heat, forces, run-out, balance. No interface code, no clock, no files but its own tables."""

__version__ = "0.1.0"
