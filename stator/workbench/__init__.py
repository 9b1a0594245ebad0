"""Pages around the stations: open jobs, station page, work plan, search, photos, parts tray, job details, check-in."""
