"""Command line: serve, check a job file, back up the data, print the schema, the OpenAPI document, made pages.

The server and what it needs are imported only by the commands that use them, so that the others answer at once.
"""

from __future__ import annotations

import argparse
import gc
import json
import os
import shutil
import socket
import sys
import tempfile
import threading
from collections.abc import Sequence
from contextlib import closing
from pathlib import Path
from typing import TYPE_CHECKING

from levelrun import __version__

if TYPE_CHECKING:
    from levelrun.api.here.opened import Certificate
    from levelrun.core.job import Job
    from levelrun.core.plan import Plan
    from levelrun.exchange.text import Told

DEFAULT_DATA = Path("~/.local/share/levelrun").expanduser()
DEFAULT_PORT = 8765
GARBAGE = (100_000, 50, 100)  # plans are kept; searching them for garbage at every edit costs more
LOOPBACK = ("127.0.0.1", "localhost", "::1")


class CommandError(Exception):
    """A command cannot do what was asked; its text is the one line that is printed."""


def main(argv: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit status: 0 fine, 1 a stop was found, 2 refused."""
    args = _parser().parse_args(argv)
    try:
        return int(args.run(args))
    except Exception as error:
        if not _is_told(error):
            raise
        print(f"levelrun: {error}", file=sys.stderr)
        return 2


def _is_told(error: Exception) -> bool:
    """Whether an error is one whose text is meant for a person."""
    from levelrun.core.errors import LevelRunError
    from levelrun.store.errors import StoreError

    return isinstance(error, CommandError | LevelRunError | StoreError | OSError)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="levelrun", description="Plans each run of cable or pipe in a building.")
    parser.add_argument("--version", action="version", version=f"levelrun {__version__}")
    commands = parser.add_subparsers(required=True, metavar="command")
    serve = commands.add_parser("serve", help="serve the interface on this machine")
    serve.add_argument("--host", default="127.0.0.1", help="a loopback address")
    serve.add_argument("--port", type=int, help=f"default: LEVELRUN_PORT, else {DEFAULT_PORT}")
    serve.add_argument("--data", type=Path, default=DEFAULT_DATA, help="folder of the data file")
    serve.add_argument("--demo", action="store_true", help="add the demo job where there is no job yet")
    serve.add_argument("--read-only", action="store_true", help="change nothing: jobs can be read and exported")
    serve.add_argument(
        "--here", nargs="?", const="", metavar="ADDRESS",
        help="open it to paired phones on the network this machine is on, at its address there",
    )  # fmt: skip
    serve.add_argument("--cert", type=Path, help="certificate for --here, a PEM file; then calls are encrypted")
    serve.add_argument("--cert-key", type=Path, help="its key, where that is in a file of its own")
    serve.add_argument("--cert-name", default="", help="the name that it is made out to, for the code that pairs")
    serve.set_defaults(run=_serve)
    check = commands.add_parser("check", help="print the findings of a job file; exit 1 on a stop")
    check.add_argument("file", help="a job file, a job as text (.txt), or - for standard input")
    check.add_argument("--json", action="store_true", help="print the whole plan as JSON")
    check.set_defaults(run=_check)
    backup = commands.add_parser("backup", help="write a whole copy of the data, also while it is served")
    backup.add_argument("file", type=Path)
    backup.add_argument("--data", type=Path, default=DEFAULT_DATA, help="folder of the data file")
    backup.set_defaults(run=_backup)
    commands.add_parser("schema", help="print the JSON Schema of a job file").set_defaults(run=_schema)
    docs = commands.add_parser("docs", help="write the pages made from the data into a folder")
    docs.add_argument("folder", type=Path)
    docs.add_argument("--tests", type=Path, default=Path("tests"))
    docs.set_defaults(run=_docs)
    commands.add_parser("openapi", help="print the OpenAPI document").set_defaults(run=_openapi)
    return parser


def _port(said: int | None) -> int:
    """The port asked for. Raises CommandError that says what is allowed."""
    text = str(said) if said is not None else os.environ.get("LEVELRUN_PORT", str(DEFAULT_PORT))
    port = int(text) if text.isascii() and text.isdigit() and len(text) < 6 else 0
    if not 1 <= port <= 65535:
        where = "--port" if said is not None else "LEVELRUN_PORT"
        raise CommandError(f"{where} {text!r} is no port; allowed: 1 to 65535")
    return port


def _listening(host: str, port: int) -> socket.socket:
    """The socket, taken before anything is said or opened. Raises CommandError where it is not free."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    found = socket.socket(family, socket.SOCK_STREAM, socket.IPPROTO_TCP)  # named, so that answers are not held back
    found.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        found.bind((host, port))
    except OSError as error:
        found.close()
        raise CommandError(
            f"{host}:{port} is not free ({error.strerror}); stop what uses it, or choose another with --port"
        ) from None
    return found


def _serve(args: argparse.Namespace) -> int:
    if args.host not in LOOPBACK:
        raise CommandError(f"--host {args.host} is not loopback; allowed: {', '.join(LOOPBACK)}")
    port = _port(args.port)
    with closing(_listening(args.host, port)) as listening:
        import uvicorn

        from levelrun.api.app import create_app
        from levelrun.api.long import ready

        app = create_app(
            args.data, read_only=args.read_only, port=port, here=_here(args), certificate=_certificate(args)
        )
        threading.Thread(target=app.state.worker.warm, args=(ready,), daemon=True).start()
        if args.demo and not app.state.jobs.list():
            from levelrun.samples import keep_sample_pictures, sample

            app.state.jobs.create(sample("quince-hollow"))
            keep_sample_pictures(app.state.pictures)
        shown = f"[{args.host}]" if ":" in args.host else args.host
        print(f"Level Run at http://{shown}:{port}  (data in {args.data})", flush=True)
        if args.here is not None:
            print("Open to paired phones: the code is under Phones, in the menu of jobs.", flush=True)
        if app.state.jobs.db.read_only:
            print("The data file cannot be written: jobs can be read and exported, not changed.", flush=True)
        gc.set_threshold(*GARBAGE)
        server = uvicorn.Server(
            uvicorn.Config(app, log_level="warning", timeout_graceful_shutdown=3, proxy_headers=False)
        )
        server.run(sockets=[listening])
    return 0


def _here(args: argparse.Namespace) -> str | None:
    """The address at which phones are let in. Raises CommandError where there is none."""
    if args.here is None:
        if args.cert is not None:
            raise CommandError("--cert is for --here: on this machine alone nothing is encrypted")
        return None
    from levelrun.api.here.opened import address_of_this_machine

    found: str = args.here or address_of_this_machine()
    if found in LOOPBACK or found in ("0.0.0.0", "::"):
        raise CommandError(f"--here {found} is not the address of this machine on a network; allowed: one of its own")
    return found


def _certificate(args: argparse.Namespace) -> Certificate | None:
    if args.cert is None:
        return None
    from levelrun.api.here.opened import Certificate

    key = args.cert_key or args.cert
    for file in (args.cert, key):
        if not file.is_file():
            raise CommandError(f"{file} is not there; name a PEM file")
    return Certificate(cert=args.cert, key=key, name=args.cert_name)


def _check(args: argparse.Namespace) -> int:
    from levelrun.core.plan import plan

    data = sys.stdin.buffer.read() if args.file == "-" else Path(args.file).read_bytes()
    job, told = _read(args.file, data)
    planned = plan(job)
    if args.json:
        from levelrun.api.contract import answer_of

        print(answer_of(job, told=told).model_dump_json(indent=1, by_alias=True))
    else:
        for item in told:
            print(f"line {item.line}: {item.text}")
        print(findings_table(job, planned))
    return 1 if planned.stops else 0


def _read(name: str, data: bytes) -> tuple[Job, list[Told]]:
    """A job file, or a job as text with what is told of its lines: by the name, else by what it begins with."""
    from levelrun.exchange.job_file import read_job
    from levelrun.exchange.text import JobTextError, reading

    if name.endswith(".txt") or (name == "-" and not data.lstrip().startswith(b"{")):
        try:
            return reading(data.decode("utf-8", "replace"))
        except JobTextError as error:
            raise CommandError("\n".join(f"line {e.line}, {e.at + 1}: {e.message}" for e in error.errors)) from None
    return read_job(data), []


def findings_table(job: Job, planned: Plan) -> str:
    """The findings as a table of plain text, worst first."""
    from levelrun.core.plan import names_of

    names = names_of(job)
    rows = [("", "about", "leg", "finding", "measured", "limit", "section")]
    rows += [
        (
            f.severity,
            names.get(f.subject, f.subject),
            "" if f.leg is None else str(f.leg + 1),
            f.title,
            f.measured,
            f.limit if len(f.limit) < 40 else f"{f.limit[:37]}...",
            f.section,
        )
        for f in planned.findings
    ]
    widths = [max(len(row[column]) for row in rows) for column in range(7)]
    lines = ["  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=True)).rstrip() for row in rows]
    notes = len(planned.findings) - planned.stops - planned.checks
    lines.append(f"{planned.stops} stop, {planned.checks} check, {notes} note, by {planned.rules_title}")
    return "\n".join(lines)


def _backup(args: argparse.Namespace) -> int:
    from levelrun.store.db import Database

    source = args.data / "levelrun.sqlite3"
    if not source.exists():
        raise CommandError(f"{source} is not there; name its folder with --data")
    with closing(Database(source, read_only=True)) as db:
        db.backup(args.file)
    print(args.file)
    pictures = args.data / "pictures"
    if pictures.is_dir():
        beside = args.file.with_name(f"{args.file.name}.pictures")
        shutil.copytree(pictures, beside, dirs_exist_ok=True, ignore=shutil.ignore_patterns("*.part"))
        print(beside)
    return 0


def _schema(args: argparse.Namespace) -> int:
    from levelrun.exchange.job_file import job_schema

    print(json.dumps(job_schema(), indent=2))
    return 0


def _docs(args: argparse.Namespace) -> int:
    from levelrun.exchange.pages import write_pages

    for path in write_pages(args.folder, args.tests):
        print(path)
    return 0


def _openapi(args: argparse.Namespace) -> int:
    from levelrun.api.app import create_app

    with tempfile.TemporaryDirectory() as folder:
        print(json.dumps(create_app(Path(folder)).openapi(), indent=1))
    return 0


if __name__ == "__main__":
    sys.exit(main())
