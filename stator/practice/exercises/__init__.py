"""Exercises: each is a simulated part at a real station with its controls, its goal and its debriefing."""
