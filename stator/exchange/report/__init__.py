"""What leaves the shop with an engine: as found beside as left, every call with who and when, on screen, on paper and as PDF."""
