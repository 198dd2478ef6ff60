"""Migrations: ordered, named, each in one transaction with its ledger row. Never edited once landed.

One that moves what was said from one table to another has a function beside its statements, run after them.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Callable

from levelrun.store.from_two import circuits_take_runs
from levelrun.store.schema_later import BETWEEN_BUILDINGS, BUYING, PROVED, ROUGH_IN

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

BUILDING = """
CREATE TABLE level (
  job_id TEXT NOT NULL,
  structure_id TEXT NOT NULL,
  place INTEGER NOT NULL,
  id TEXT NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  floor_in REAL NOT NULL,
  height_in REAL NOT NULL,
  joists TEXT NOT NULL,
  joist_depth_in REAL NOT NULL,
  joist_spacing_in REAL NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, structure_id) REFERENCES structure(job_id, id) ON DELETE CASCADE
) STRICT;
INSERT INTO level SELECT job_id, id, 0, id || '-floor', 'Main floor', 'floor', 0, max(ceiling_in, 12), 'y', 9.25, 16
  FROM structure WHERE kind != 'yard';
INSERT INTO level SELECT job_id, id, 1, id || '-crawl', 'Crawl space', 'crawl', under_floor_in,
  max(-under_floor_in - 12, 12), 'y', 9.25, 16 FROM structure WHERE kind != 'yard' AND under_floor_in IS NOT NULL;
ALTER TABLE structure DROP COLUMN ceiling_in;
ALTER TABLE structure DROP COLUMN under_floor_in;
ALTER TABLE structure ADD COLUMN x_in REAL NOT NULL DEFAULT 0;
ALTER TABLE structure ADD COLUMN y_in REAL NOT NULL DEFAULT 0;
CREATE TABLE room (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  level TEXT NOT NULL,
  name TEXT NOT NULL,
  use TEXT NOT NULL,
  corners TEXT NOT NULL,
  sides TEXT NOT NULL,
  moisture TEXT,
  damage INTEGER,
  ambient_c REAL,
  bays INTEGER NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, level) REFERENCES level(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE opening (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  room TEXT NOT NULL,
  side INTEGER NOT NULL,
  kind TEXT NOT NULL,
  at_in REAL NOT NULL,
  width_in REAL NOT NULL,
  head_in REAL NOT NULL,
  sill_in REAL NOT NULL,
  hinge TEXT NOT NULL,
  swings_in INTEGER NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, room) REFERENCES room(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE fixture (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  room TEXT NOT NULL,
  side INTEGER NOT NULL,
  kind TEXT NOT NULL,
  at_in REAL NOT NULL,
  width_in REAL NOT NULL,
  depth_in REAL NOT NULL,
  height_in REAL NOT NULL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, room) REFERENCES room(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
ALTER TABLE panel ADD COLUMN room TEXT;
ALTER TABLE panel ADD COLUMN side INTEGER;
ALTER TABLE panel ADD COLUMN at_in REAL;
ALTER TABLE panel ADD COLUMN x_in REAL;
ALTER TABLE panel ADD COLUMN y_in REAL;
ALTER TABLE panel ADD COLUMN width_in REAL NOT NULL DEFAULT 14.5;
ALTER TABLE panel ADD COLUMN tall_in REAL NOT NULL DEFAULT 30;
ALTER TABLE panel ADD COLUMN spaces INTEGER NOT NULL DEFAULT 20;
ALTER TABLE panel ADD COLUMN main_a REAL DEFAULT 100;
ALTER TABLE panel ADD COLUMN bus_a REAL NOT NULL DEFAULT 125;
ALTER TABLE panel ADD COLUMN main_at TEXT NOT NULL DEFAULT 'top';
ALTER TABLE panel ADD COLUMN tandem_spaces TEXT NOT NULL DEFAULT '[]';
ALTER TABLE panel ADD COLUMN bonded INTEGER NOT NULL DEFAULT 1;
ALTER TABLE panel ADD COLUMN ground_bar INTEGER NOT NULL DEFAULT 1;
ALTER TABLE panel ADD COLUMN neutral_holes INTEGER NOT NULL DEFAULT 20;
ALTER TABLE panel ADD COLUMN lug_max TEXT NOT NULL DEFAULT '1/0';
ALTER TABLE panel ADD COLUMN calculation TEXT NOT NULL DEFAULT 'standard';
ALTER TABLE panel ADD COLUMN floor_area_ft2 REAL;
ALTER TABLE box ADD COLUMN room TEXT;
ALTER TABLE box ADD COLUMN side INTEGER;
ALTER TABLE box ADD COLUMN at_in REAL;
ALTER TABLE box ADD COLUMN x_in REAL;
ALTER TABLE box ADD COLUMN y_in REAL;
ALTER TABLE box ADD COLUMN fixed INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN model TEXT NOT NULL DEFAULT '';
ALTER TABLE box ADD COLUMN gangs INTEGER NOT NULL DEFAULT 1;
ALTER TABLE box ADD COLUMN ways INTEGER NOT NULL DEFAULT 2;
ALTER TABLE box ADD COLUMN set_out_in REAL NOT NULL DEFAULT 0.5;
ALTER TABLE box ADD COLUMN clear_in REAL;
ALTER TABLE box ADD COLUMN blocking INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN outdoors INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN air_tight INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN fan_rated INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN serves TEXT NOT NULL DEFAULT '';
ALTER TABLE box ADD COLUMN load_w REAL;
ALTER TABLE box ADD COLUMN continuous INTEGER;
ALTER TABLE box ADD COLUMN protects TEXT NOT NULL DEFAULT '';
ALTER TABLE box ADD COLUMN nema TEXT NOT NULL DEFAULT '';
ALTER TABLE box ADD COLUMN covered INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN interlock INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN marked INTEGER NOT NULL DEFAULT 0
"""

CIRCUITS = """
CREATE TABLE circuit (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  panel TEXT NOT NULL,
  space INTEGER,
  half TEXT NOT NULL,
  poles INTEGER NOT NULL,
  volts INTEGER NOT NULL,
  breaker_a REAL NOT NULL,
  protection TEXT NOT NULL,
  partner TEXT,
  tied INTEGER NOT NULL,
  neutral INTEGER NOT NULL,
  wire_size TEXT NOT NULL,
  material TEXT NOT NULL,
  method TEXT NOT NULL,
  whip_size TEXT NOT NULL,
  equipment_ground INTEGER NOT NULL,
  nameplate INTEGER NOT NULL,
  feeds TEXT,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, panel) REFERENCES panel(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
CREATE TABLE hop (
  job_id TEXT NOT NULL,
  circuit_id TEXT NOT NULL,
  place INTEGER NOT NULL,
  box TEXT NOT NULL,
  after TEXT,
  length_in REAL,
  PRIMARY KEY (job_id, circuit_id, place),
  FOREIGN KEY (job_id, circuit_id) REFERENCES circuit(job_id, id) ON DELETE CASCADE
) STRICT
"""

STEPS = """
CREATE TABLE step (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  revision INTEGER NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT
"""

NAMEPLATES = """
ALTER TABLE circuit ADD COLUMN least_ampacity_a REAL;
ALTER TABLE circuit ADD COLUMN largest_breaker_a REAL;
ALTER TABLE panel ADD COLUMN disconnect_elsewhere INTEGER
"""

WAYS = """
CREATE TABLE way (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  start TEXT NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT;
ALTER TABLE leg RENAME TO leg_of_run;
CREATE TABLE leg (
  job_id TEXT NOT NULL,
  way_id TEXT NOT NULL,
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
  PRIMARY KEY (job_id, way_id, place),
  FOREIGN KEY (job_id, way_id) REFERENCES way(job_id, id) ON DELETE CASCADE
) STRICT;
INSERT INTO way (job_id, id, place, name, start) SELECT job_id, id, place, name, start FROM run;
INSERT INTO leg (job_id, way_id, place, go, length_in, lies_in, method, size, depth_in, bends_deg, sleeve, met,
    ribbon, expansion, facts, end_kind, end_node)
  SELECT job_id, run_id, place, go, length_in, lies_in, method, size, depth_in, bends_deg, sleeve, met, ribbon,
    expansion, facts, end_kind, end_node FROM leg_of_run;
DROP TABLE leg_of_run;
ALTER TABLE circuit ADD COLUMN insulation TEXT NOT NULL DEFAULT 'THWN-2';
ALTER TABLE circuit ADD COLUMN ground_size TEXT NOT NULL DEFAULT '';
ALTER TABLE circuit ADD COLUMN load_a REAL;
ALTER TABLE hop ADD COLUMN path TEXT NOT NULL DEFAULT '[]';
ALTER TABLE hop ADD COLUMN wire_size TEXT NOT NULL DEFAULT '';
ALTER TABLE hop ADD COLUMN conductors INTEGER;
"""

PLACES_IN_WORDS = """
ALTER TABLE panel ADD COLUMN where_said TEXT NOT NULL DEFAULT '';
ALTER TABLE panel ADD COLUMN taken TEXT NOT NULL DEFAULT '[]';
ALTER TABLE panel ADD COLUMN free_said INTEGER;
ALTER TABLE box ADD COLUMN where_said TEXT NOT NULL DEFAULT '';
ALTER TABLE box ADD COLUMN use TEXT NOT NULL DEFAULT ''
"""

SAID_OF_PARTS = """
ALTER TABLE structure ADD COLUMN dwelling INTEGER;
ALTER TABLE structure ADD COLUMN existing INTEGER NOT NULL DEFAULT 0;
ALTER TABLE structure ADD COLUMN laid_out INTEGER NOT NULL DEFAULT 0;
ALTER TABLE room ADD COLUMN laid_out INTEGER NOT NULL DEFAULT 0;
ALTER TABLE panel ADD COLUMN ground_holes INTEGER;
ALTER TABLE panel ADD COLUMN hole_max TEXT NOT NULL DEFAULT '';
ALTER TABLE panel ADD COLUMN make TEXT NOT NULL DEFAULT '';
ALTER TABLE box ADD COLUMN cover TEXT NOT NULL DEFAULT '';
UPDATE box SET cover = 'in_use' WHERE covered = 1;
ALTER TABLE box DROP COLUMN covered;
ALTER TABLE box ADD COLUMN surface INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN rating_a REAL;
ALTER TABLE box ADD COLUMN monoxide INTEGER NOT NULL DEFAULT 0;
ALTER TABLE box ADD COLUMN fused INTEGER;
ALTER TABLE box ADD COLUMN line_at TEXT NOT NULL DEFAULT '';
ALTER TABLE box ADD COLUMN spare_in REAL;
ALTER TABLE circuit ADD COLUMN locks INTEGER NOT NULL DEFAULT 0;
ALTER TABLE way ADD COLUMN start_edge TEXT NOT NULL DEFAULT '';
ALTER TABLE leg ADD COLUMN end_edge TEXT NOT NULL DEFAULT ''
"""

SET_OUT = """
ALTER TABLE structure ADD COLUMN siding_in REAL;
ALTER TABLE room ADD COLUMN ceiling_out_in REAL;
ALTER TABLE panel ADD COLUMN set_out_in REAL;
ALTER TABLE fixture ADD COLUMN off_in REAL NOT NULL DEFAULT 0;
UPDATE panel SET lug_max = '' WHERE lug_max = '1/0'
"""

THROUGH_THE_FRAME = """
ALTER TABLE level ADD COLUMN joist_kind TEXT NOT NULL DEFAULT 'solid';
ALTER TABLE room ADD COLUMN closed INTEGER NOT NULL DEFAULT 0;
ALTER TABLE fixture ADD COLUMN foot_in REAL NOT NULL DEFAULT 0;
ALTER TABLE leg ADD COLUMN fished INTEGER NOT NULL DEFAULT 0;
ALTER TABLE hop ADD COLUMN school TEXT NOT NULL DEFAULT '';
ALTER TABLE hop ADD COLUMN via TEXT NOT NULL DEFAULT '[]';
ALTER TABLE hop ADD COLUMN pulled_in REAL
"""

SHAPED_PIPE = """
ALTER TABLE way ADD COLUMN day_f REAL;
ALTER TABLE leg ADD COLUMN shapes TEXT NOT NULL DEFAULT '[]';
ALTER TABLE leg ADD COLUMN radius_in REAL;
ALTER TABLE leg ADD COLUMN feed TEXT NOT NULL DEFAULT '';
ALTER TABLE leg ADD COLUMN stands_off INTEGER NOT NULL DEFAULT 0;
ALTER TABLE circuit ADD COLUMN nonlinear INTEGER NOT NULL DEFAULT 0
"""

OLD_BOXES = """
ALTER TABLE box ADD COLUMN old INTEGER NOT NULL DEFAULT 0
"""

MEANT = """
ALTER TABLE trench ADD COLUMN meant_in REAL;
ALTER TABLE trench ADD COLUMN meant_method TEXT NOT NULL DEFAULT '';
ALTER TABLE trench ADD COLUMN meant_size TEXT NOT NULL DEFAULT ''
"""

SUPPOSED = """
ALTER TABLE leg ADD COLUMN supposed INTEGER NOT NULL DEFAULT 0
"""

SWITCHED = """
ALTER TABLE box ADD COLUMN switched TEXT NOT NULL DEFAULT ''
"""

Step = Callable[[sqlite3.Connection], None]
Migration = tuple[str, str] | tuple[str, str, Step]
MIGRATIONS: tuple[Migration, ...] = (
    ("0001-first", FIRST),
    ("0002-building", BUILDING),
    ("0003-circuits", CIRCUITS),
    ("0004-steps", STEPS),
    ("0005-nameplates", NAMEPLATES),
    ("0006-ways", WAYS, circuits_take_runs),
    ("0007-places-in-words", PLACES_IN_WORDS),
    ("0008-said-of-parts", SAID_OF_PARTS),
    ("0009-set-out", SET_OUT),
    ("0010-through-the-frame", THROUGH_THE_FRAME),
    ("0011-shaped-pipe", SHAPED_PIPE),
    ("0012-between-buildings", BETWEEN_BUILDINGS),
    ("0013-buying", BUYING),
    ("0014-rough-in", ROUGH_IN),
    ("0015-proved", PROVED),
    ("0016-old-boxes", OLD_BOXES),
    ("0017-meant-for-a-trench", MEANT),
    ("0018-supposed-places", SUPPOSED),
    ("0019-switched-outlets", SWITCHED),
)
