"""What a job takes: counted, planned into coils and sticks, priced, other ways of it, what it costs in hours."""
