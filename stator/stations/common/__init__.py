"""Code that several stations share: the drawing of a mating surface, and the press joint of a crank."""
