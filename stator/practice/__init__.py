"""Practice: the stations themselves on engines that do not exist, fed by simulated parts whose truth is opened at the end."""
