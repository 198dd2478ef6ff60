"""Command line: serve, demo data, check a job file, export, the interface's types."""

from __future__ import annotations

import argparse
import gc
import json
import os
import sys
import tempfile
from collections.abc import Sequence
from pathlib import Path

import uvicorn

from levelrun import __version__
from levelrun.api.app import create_app
from levelrun.api.guard import LOCAL
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import Plan, names_of, plan
from levelrun.exchange.job_file import job_schema, read_job
from levelrun.exchange.pages import write_pages
from levelrun.samples import sample
from levelrun.store import Database, Jobs

DEFAULT_DATA = Path("~/.local/share/levelrun").expanduser()


def main(argv: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit status."""
    args = _parser().parse_args(argv)
    try:
        return int(args.run(args))
    except (LevelRunError, OSError) as error:
        print(f"levelrun: {error}", file=sys.stderr)
        return 2


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="levelrun", description=__doc__)
    parser.add_argument("--version", action="version", version=f"levelrun {__version__}")
    commands = parser.add_subparsers(required=True, metavar="command")
    serve = commands.add_parser("serve", help="serve the interface on this machine")
    serve.add_argument("--host", default="127.0.0.1", help="a loopback address")
    serve.add_argument("--port", type=int, default=int(os.environ.get("LEVELRUN_PORT", "8765")))
    serve.add_argument("--data", type=Path, default=DEFAULT_DATA, help="folder of the data file")
    serve.add_argument("--demo", action="store_true", help="add the demo job where there is no job yet")
    serve.set_defaults(run=_serve)
    check = commands.add_parser("check", help="print the findings of a job file; exit 1 on a stop")
    check.add_argument("file", type=Path)
    check.set_defaults(run=_check)
    commands.add_parser("schema", help="print the JSON Schema of a job file").set_defaults(run=_schema)
    docs = commands.add_parser("docs", help="write the pages made from the data into a folder")
    docs.add_argument("folder", type=Path)
    docs.add_argument("--tests", type=Path, default=Path("tests"))
    docs.set_defaults(run=_docs)
    commands.add_parser("openapi", help="print the OpenAPI document").set_defaults(run=_openapi)
    return parser


def _serve(args: argparse.Namespace) -> int:
    if args.host not in LOCAL:
        raise LevelRunError(f"--host {args.host} is not loopback; allowed: 127.0.0.1, localhost, ::1")
    if args.demo:
        jobs = Jobs(Database(args.data / "levelrun.sqlite3"))
        if not jobs.list():
            jobs.create(sample("quince-hollow"))
    print(f"Level Run at http://{args.host}:{args.port}  (data in {args.data})", flush=True)
    gc.set_threshold(100_000, 50, 100)  # plans are kept; searching them for garbage at every edit costs more
    uvicorn.run(create_app(args.data), host=args.host, port=args.port, log_level="warning")
    return 0


def _check(args: argparse.Namespace) -> int:
    job = read_job(args.file.read_bytes())
    planned = plan(job)
    print(findings_table(job, planned))
    return 1 if planned.stops else 0


def findings_table(job: Job, planned: Plan) -> str:
    """The findings as a table of plain text, worst first."""
    names = names_of(job)
    rows = [("", "about", "leg", "finding", "measured", "limit", "section")]
    rows += [
        (
            f.severity,
            names[f.subject],
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


def _schema(args: argparse.Namespace) -> int:
    print(json.dumps(job_schema(), indent=2))
    return 0


def _docs(args: argparse.Namespace) -> int:
    for path in write_pages(args.folder, args.tests):
        print(path)
    return 0


def _openapi(args: argparse.Namespace) -> int:
    with tempfile.TemporaryDirectory() as folder:
        print(json.dumps(create_app(Path(folder)).openapi(), indent=1))
    return 0


if __name__ == "__main__":
    sys.exit(main())
