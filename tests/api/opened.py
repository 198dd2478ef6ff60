"""A job opened over HTTP as the interface has it: every answer patched onto what is here."""

from __future__ import annotations

from typing import Any

import jsonpatch
from fastapi.testclient import TestClient


class OpenJob:
    """What a page holds of a job: head, refs, the job as said, and the view of one stage."""

    def __init__(self, client: TestClient, opened: dict[str, Any], stage: str = "runs", **look: str) -> None:
        self.client, self.stage, self.look = client, stage, look
        self.head, self.refs, self.job = opened["head"], opened["refs"], opened["job"]
        self.view = self.fetched()

    @classmethod
    def demo(cls, client: TestClient, stage: str = "runs", **look: str) -> OpenJob:
        """Quince Hollow, just made."""
        answer = client.post("/api/jobs", json={"sample": "quince-hollow"})
        assert answer.status_code == 201, answer.text[:300]
        return cls(client, answer.json(), stage, **look)

    @property
    def url(self) -> str:
        return f"/api/jobs/{self.head['id']}"

    @property
    def step(self) -> dict[str, Any]:
        return {"revision": self.head["revision"], "stage": self.stage, "look": self.look}

    def fetched(self) -> dict[str, Any]:
        """The view as the server gives it whole."""
        found: dict[str, Any] = self.client.get(f"{self.url}/stages/{self.stage}", params=self.look).json()
        return found

    def send(self, *edits: dict[str, Any], **more: Any) -> Any:
        """Edits sent; the answer is not taken in."""
        return self.client.post(f"{self.url}/edits", json={**self.step, "edits": list(edits), **more})

    def edit(self, *edits: dict[str, Any], **more: Any) -> dict[str, Any]:
        """Edits made and taken in."""
        return self.taken(self.send(*edits, **more))

    def go(self, way: str, **more: Any) -> dict[str, Any]:
        """Undo or redo, taken in."""
        return self.taken(self.client.post(f"{self.url}/{way}", json={**self.step, **more}))

    def taken(self, answer: Any) -> dict[str, Any]:
        assert answer.status_code == 200, answer.text[:300]
        found: dict[str, Any] = answer.json()
        self.head = found["head"]
        if found["whole"]:
            self.refs, self.job, self.view = (found["whole"][key] for key in ("refs", "job", "view"))
        else:
            self.refs, self.job, self.view = (
                jsonpatch.apply_patch(had, found[key])
                for key, had in (("refs", self.refs), ("job", self.job), ("view", self.view))
            )
        return found
