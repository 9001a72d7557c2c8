"""What is done to a plan by one press: a part and an edit in, the part after it out; asked for by one route."""
