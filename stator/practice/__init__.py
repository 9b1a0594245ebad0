"""Practice: the real stations with engines that do not exist, fed by simulated parts whose true values are shown at the end."""
