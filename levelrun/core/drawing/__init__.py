"""Drawing models: plain coordinates in inches, no pixels. Screen, print and files draw the same."""
