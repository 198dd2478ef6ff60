"""Wire size: ampacity and what decides it."""
