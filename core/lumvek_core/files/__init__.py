"""Reading open file formats that come from outside. Every line is taken or named with the reason why not."""
