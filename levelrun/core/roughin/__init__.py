"""The record of the work: what is behind the wall, how boxes are made up, what is held and what was seen."""
