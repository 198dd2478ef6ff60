"""Migrations: ordered, named, each in one transaction with its ledger row. Never edited once landed."""

from __future__ import annotations

FIRST = """
CREATE TABLE job (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  rules TEXT NOT NULL,
  remarks TEXT NOT NULL,
  habits TEXT NOT NULL,
  notes TEXT NOT NULL,
  revision INTEGER NOT NULL,
  opened INTEGER NOT NULL
) STRICT;
CREATE TABLE structure (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  grade_in REAL NOT NULL,
  ceiling_in REAL NOT NULL,
  under_floor_in REAL,
  PRIMARY KEY (job_id, id)
) STRICT;
CREATE TABLE panel (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  structure TEXT NOT NULL,
  height_in REAL NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, structure) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE box (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  structure TEXT NOT NULL,
  kind TEXT NOT NULL,
  height_in REAL NOT NULL,
  clamps INTEGER NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, structure) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE run (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  circuit TEXT NOT NULL,
  start TEXT NOT NULL,
  volts INTEGER NOT NULL,
  breaker_a REAL NOT NULL,
  load_a REAL NOT NULL,
  wire_size TEXT NOT NULL,
  material TEXT NOT NULL,
  insulation TEXT NOT NULL,
  conductors INTEGER NOT NULL,
  neutral INTEGER NOT NULL,
  nameplate INTEGER NOT NULL,
  gfci INTEGER NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
CREATE TABLE leg (
  job_id TEXT NOT NULL,
  run_id TEXT NOT NULL,
  place INTEGER NOT NULL,
  go TEXT NOT NULL,
  length_in REAL NOT NULL,
  lies_in TEXT NOT NULL,
  method TEXT NOT NULL,
  size TEXT NOT NULL,
  depth_in REAL,
  bends_deg TEXT NOT NULL,
  sleeve INTEGER NOT NULL,
  met INTEGER NOT NULL,
  ribbon INTEGER NOT NULL,
  expansion INTEGER NOT NULL,
  facts TEXT NOT NULL,
  end_kind TEXT NOT NULL,
  end_node TEXT,
  PRIMARY KEY (job_id, run_id, place),
  FOREIGN KEY (job_id, run_id) REFERENCES run(job_id, id) ON DELETE CASCADE
) STRICT;
CREATE TABLE history (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  seq INTEGER NOT NULL,
  label TEXT NOT NULL,
  changes TEXT NOT NULL,
  undone INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY (job_id, seq)
) STRICT;
"""

MIGRATIONS: tuple[tuple[str, str], ...] = (("0001-first", FIRST),)
