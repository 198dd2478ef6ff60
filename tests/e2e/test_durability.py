"""kill -9 in a burst of edits: every acknowledged edit is there afterwards."""

import http.client
import json
import threading

from tests.e2e.conftest import Server, call


def post(server: Server, path: str, body: object) -> tuple[int, dict]:  # type: ignore[type-arg]
    connection = http.client.HTTPConnection("127.0.0.1", server.port, timeout=60)
    connection.request("POST", path, json.dumps(body), {"content-type": "application/json"})
    answer = connection.getresponse()
    return answer.status, json.loads(answer.read())


def test_acknowledged_edits_outlive_kill_9(server: Server) -> None:
    job = call(server, "GET", "/api/jobs")[0]["id"]  # type: ignore[index]
    acknowledged: list[float] = []

    def burst() -> None:
        revision = 1
        for step in range(1, 2000):
            edit = {"op": "set_leg", "way": "h14", "leg": 2, "set": {"length_in": 300 + step / 16}}
            try:
                status, body = post(server, f"/api/jobs/{job}/edits", {"revision": revision, "edits": [edit]})
            except (OSError, http.client.HTTPException, ValueError):
                return
            assert status == 200
            revision = body["head"]["revision"]
            acknowledged.append(300 + step / 16)

    worker = threading.Thread(target=burst)
    worker.start()
    while len(acknowledged) < 25 and worker.is_alive():
        worker.join(0.01)
    assert len(acknowledged) >= 25
    server.kill()
    worker.join()
    server.start()
    after = call(server, "GET", f"/api/jobs/{job}")
    length = next(run for run in after["job"]["ways"] if run["id"] == "h14")["legs"][2]["length_in"]
    assert length >= acknowledged[-1]
    assert after["head"]["revision"] >= len(acknowledged) + 1
    assert post(server, f"/api/jobs/{job}/undo", {"revision": after["head"]["revision"]})[0] == 200
