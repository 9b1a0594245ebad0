"""The sentences of each exercise."""
