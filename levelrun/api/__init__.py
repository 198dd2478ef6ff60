"""The HTTP edge: thin routes, Pydantic at the border, problem+json for every error."""
