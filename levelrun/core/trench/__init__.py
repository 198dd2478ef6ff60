"""Between buildings: trenches, spans, the yard, electrodes, the service."""
