"""The job report: as found next to as left, every verdict with user and time; on screen, on paper and as PDF."""
