"""Level Run for the phones on this network: opened by hand, each phone paired once, each revocable."""
