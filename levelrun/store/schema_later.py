"""Later steps of the database: what lies between buildings, what is bought. Literal, never changed once they ran."""

from __future__ import annotations

BETWEEN_BUILDINGS = """
CREATE TABLE yard (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  points TEXT NOT NULL,
  width_in REAL NOT NULL,
  depth_in REAL,
  height_in REAL NOT NULL,
  private INTEGER NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
CREATE TABLE trench (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  points TEXT NOT NULL,
  start TEXT,
  ends_at TEXT,
  width_in REAL NOT NULL,
  dig TEXT NOT NULL,
  bedding_in REAL NOT NULL,
  rock INTEGER NOT NULL,
  concrete INTEGER NOT NULL,
  moves INTEGER,
  readings TEXT NOT NULL,
  done TEXT NOT NULL,
  ticket TEXT NOT NULL,
  ticket_from TEXT NOT NULL,
  ticket_to TEXT NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, start) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (job_id, ends_at) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE span (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  points TEXT NOT NULL,
  start TEXT,
  ends_at TEXT,
  start_end TEXT NOT NULL,
  end_end TEXT NOT NULL,
  sag_in REAL,
  listed INTEGER,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, start) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (job_id, ends_at) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE electrode (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  structure TEXT NOT NULL,
  kind TEXT NOT NULL,
  x_in REAL NOT NULL,
  y_in REAL NOT NULL,
  length_in REAL NOT NULL,
  diameter_in REAL NOT NULL,
  bonded INTEGER NOT NULL,
  wire TEXT NOT NULL,
  ohms REAL,
  driven_on TEXT NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, structure) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE service (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  structure TEXT NOT NULL,
  entry TEXT NOT NULL,
  rating_a REAL NOT NULL,
  wire_size TEXT NOT NULL,
  material TEXT NOT NULL,
  meter_in REAL,
  attach_in REAL,
  drip_in REAL,
  mast TEXT NOT NULL,
  outside_disconnect INTEGER,
  stub_set INTEGER,
  water_bond INTEGER,
  gas_bond INTEGER,
  intersystem INTEGER,
  surge INTEGER,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, structure) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE hold (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  kind TEXT NOT NULL,
  holds TEXT NOT NULL,
  lifted_by TEXT NOT NULL,
  lifted_on TEXT NOT NULL,
  remarks TEXT NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, holds) REFERENCES trench(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
ALTER TABLE leg ADD COLUMN along TEXT;
ALTER TABLE structure ADD COLUMN ground_in REAL NOT NULL DEFAULT 0
"""

BUYING = """
CREATE TABLE price (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  item TEXT NOT NULL,
  supplier TEXT NOT NULL,
  pack REAL NOT NULL,
  unit TEXT NOT NULL,
  dollars REAL NOT NULL,
  said_on TEXT NOT NULL,
  out INTEGER NOT NULL,
  days INTEGER NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
CREATE TABLE stock (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  item TEXT NOT NULL,
  amount REAL NOT NULL,
  remarks TEXT NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
CREATE TABLE want (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  item TEXT NOT NULL,
  supplier TEXT NOT NULL,
  packs TEXT NOT NULL,
  by_foot INTEGER NOT NULL,
  instead TEXT NOT NULL,
  needed_on TEXT NOT NULL,
  due_on TEXT NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
CREATE TABLE purchase (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  item TEXT NOT NULL,
  state TEXT NOT NULL,
  at TEXT NOT NULL,
  who TEXT NOT NULL,
  supplier TEXT NOT NULL,
  pack REAL NOT NULL,
  amount REAL NOT NULL,
  paid REAL,
  PRIMARY KEY (job_id, id)
) STRICT
"""

ROUGH_IN = """
CREATE TABLE hold_of (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  kind TEXT NOT NULL,
  holds TEXT NOT NULL,
  lifted_by TEXT NOT NULL,
  lifted_on TEXT NOT NULL,
  remarks TEXT NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
INSERT INTO hold_of SELECT job_id, id, place, kind, holds, lifted_by, lifted_on, remarks FROM hold;
DROP TABLE hold;
ALTER TABLE hold_of RENAME TO hold;
CREATE TABLE card (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  node TEXT NOT NULL,
  done TEXT NOT NULL,
  torque TEXT NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
CREATE TABLE built (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  state TEXT NOT NULL,
  what TEXT NOT NULL,
  node TEXT,
  circuit TEXT,
  room TEXT,
  surface TEXT NOT NULL,
  points TEXT NOT NULL,
  was TEXT NOT NULL,
  seen_on TEXT NOT NULL,
  remarks TEXT NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, room) REFERENCES room(job_id, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (job_id, circuit) REFERENCES circuit(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE closing (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  room TEXT NOT NULL,
  surface TEXT NOT NULL,
  closed_on TEXT NOT NULL,
  why TEXT NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, room) REFERENCES room(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE photo (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  file TEXT NOT NULL,
  wide INTEGER NOT NULL,
  tall INTEGER NOT NULL,
  room TEXT,
  surface TEXT NOT NULL,
  trench TEXT,
  node TEXT,
  at_in REAL NOT NULL,
  height_in REAL NOT NULL,
  taken_on TEXT NOT NULL,
  hour TEXT NOT NULL,
  who TEXT NOT NULL,
  remarks TEXT NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, room) REFERENCES room(job_id, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (job_id, trench) REFERENCES trench(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE visit (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  kind TEXT NOT NULL,
  visits TEXT NOT NULL,
  comes_on TEXT NOT NULL,
  hour TEXT NOT NULL,
  who TEXT NOT NULL,
  result TEXT NOT NULL,
  ticket TEXT NOT NULL,
  remarks TEXT NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
CREATE TABLE fault (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  visit TEXT NOT NULL,
  text TEXT NOT NULL,
  section TEXT NOT NULL,
  node TEXT,
  mended_on TEXT NOT NULL,
  mended_by TEXT NOT NULL,
  seen_on TEXT NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, visit) REFERENCES visit(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE phone (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  key_hash TEXT NOT NULL UNIQUE,
  made_at TEXT NOT NULL,
  seen_at TEXT NOT NULL,
  revoked INTEGER NOT NULL DEFAULT 0
) STRICT
"""

PROVED = """
CREATE TABLE measured (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  tested TEXT NOT NULL,
  step TEXT NOT NULL,
  value REAL,
  word TEXT NOT NULL,
  meter TEXT NOT NULL,
  read_on TEXT NOT NULL,
  hour TEXT NOT NULL,
  who TEXT NOT NULL,
  remarks TEXT NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT
"""
