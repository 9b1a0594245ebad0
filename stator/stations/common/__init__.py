"""What several rooms share, none of which belongs to one of them: the joint face as a drawing, the press joint of a crank."""
