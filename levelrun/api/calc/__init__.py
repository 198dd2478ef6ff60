"""The stateless calculations of /api/calc: the same code as the plan."""

from fastapi import APIRouter

from levelrun.api.calc import buying, outside, pipe, place, wire

router = APIRouter()
for part in (buying, outside, pipe, place, wire):
    router.include_router(part.router)
