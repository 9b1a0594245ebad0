"""Exercises: each is a simulated part at a real station, with what hands may do to it, its goal, and its debrief."""
