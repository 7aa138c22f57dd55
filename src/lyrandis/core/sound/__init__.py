"""What a recording tells: A-weighted power, the shots in it, their level, decay and tone."""
