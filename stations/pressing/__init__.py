"""What Apart and Together share: the sizes of a press joint, its plan against the press, the set-up drawn, the peak kept."""
