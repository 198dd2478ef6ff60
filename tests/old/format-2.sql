BEGIN TRANSACTION;
CREATE TABLE box (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  structure TEXT NOT NULL,
  kind TEXT NOT NULL,
  height_in REAL NOT NULL,
  clamps INTEGER NOT NULL, room TEXT, side INTEGER, at_in REAL, x_in REAL, y_in REAL, fixed INTEGER NOT NULL DEFAULT 0, model TEXT NOT NULL DEFAULT '', gangs INTEGER NOT NULL DEFAULT 1, ways INTEGER NOT NULL DEFAULT 2, set_out_in REAL NOT NULL DEFAULT 0.5, clear_in REAL, blocking INTEGER NOT NULL DEFAULT 0, outdoors INTEGER NOT NULL DEFAULT 0, air_tight INTEGER NOT NULL DEFAULT 0, fan_rated INTEGER NOT NULL DEFAULT 0, serves TEXT NOT NULL DEFAULT '', load_w REAL, continuous INTEGER, protects TEXT NOT NULL DEFAULT '', nema TEXT NOT NULL DEFAULT '', covered INTEGER NOT NULL DEFAULT 0, interlock INTEGER NOT NULL DEFAULT 0, marked INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, structure) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
INSERT INTO "box" VALUES('bc9062ecebce','x0',0,'R-1','shed','receptacle',48.0,1,'m1',0,62.125,NULL,NULL,1,'',1,2,0.0,NULL,0,0,0,0,'',NULL,NULL,'','',0,0,0);
INSERT INTO "box" VALUES('bc9062ecebce','b1',1,'S-1','shed','switch',46.125,1,'m1',2,110.125,NULL,NULL,0,'',1,2,0.0,NULL,0,0,0,0,'',NULL,NULL,'','',0,0,0);
INSERT INTO "box" VALUES('bc9062ecebce','b2',2,'L-1','shed','light',84.0,1,'m1',NULL,NULL,72.0,60.0,0,'',1,2,0.5,NULL,0,0,0,0,'',NULL,NULL,'','',0,0,0);
INSERT INTO "box" VALUES('bc9062ecebce','b3',3,'J-9','shed','junction',72.0,1,NULL,NULL,NULL,NULL,NULL,0,'',1,2,0.5,NULL,0,0,0,0,'',NULL,NULL,'','',0,0,0);
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
  feeds TEXT, least_ampacity_a REAL, largest_breaker_a REAL,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, panel) REFERENCES panel(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
INSERT INTO "circuit" VALUES('bc9062ecebce','c2',1,'Lights Shed','pa',4,'',1,120,15.0,'plain',NULL,0,1,'14','cu','NM-B','',1,0,NULL,NULL,NULL);
INSERT INTO "circuit" VALUES('bc9062ecebce','c1',0,'Lights and outlet','pa',1,'',1,120,20.0,'gfci',NULL,0,1,'12','cu','NM-B','',1,0,NULL,NULL,NULL);
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
CREATE TABLE history (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  seq INTEGER NOT NULL,
  label TEXT NOT NULL,
  changes TEXT NOT NULL,
  undone INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY (job_id, seq)
) STRICT;
INSERT INTO "history" VALUES('bc9062ecebce',1,'step','[{"kind": "runs", "id": "r1", "before": {"id": "r1", "name": "Lights and outlet", "circuit": "1", "start": "pa", "volts": 120, "breaker_a": 20.0, "load_a": 5.0, "wire_size": "12", "material": "cu", "insulation": "THWN-2", "conductors": 2, "neutral": true, "nameplate": false, "gfci": false, "legs": [{"go": "up", "length_in": 24.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "over", "length_in": 96.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "down", "length_in": 24.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "box", "node": "x0"}}]}, "after": {"id": "r1", "name": "Lights and outlet", "circuit": "1", "start": "pa", "volts": 120, "breaker_a": 20.0, "load_a": 9.0, "wire_size": "10", "material": "cu", "insulation": "THWN-2", "conductors": 2, "neutral": true, "nameplate": false, "gfci": false, "legs": [{"go": "up", "length_in": 24.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "over", "length_in": 96.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "down", "length_in": 24.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "box", "node": "x0"}}]}}]',0);
INSERT INTO "history" VALUES('bc9062ecebce',2,'step','[{"kind": "runs", "id": "w1", "before": null, "after": {"id": "w1", "name": "Pump", "circuit": "5/7", "start": "pa", "volts": 240, "breaker_a": 30.0, "load_a": 17.0, "wire_size": "10", "material": "cu", "insulation": "THWN-2", "conductors": 2, "neutral": false, "nameplate": true, "gfci": false, "legs": []}}]',0);
INSERT INTO "history" VALUES('bc9062ecebce',3,'step','[{"kind": "boxes", "id": "b3", "before": null, "after": {"id": "b3", "name": "J-9", "structure": "shed", "room": null, "side": null, "at_in": null, "x_in": null, "y_in": null, "kind": "junction", "height_in": 72.0, "fixed": false, "clamps": true, "model": "", "gangs": 1, "ways": 2, "set_out_in": 0.5, "clear_in": null, "blocking": false, "outdoors": false, "air_tight": false, "fan_rated": false, "serves": "", "load_w": null, "continuous": null, "protects": "", "nema": "", "covered": false, "interlock": false, "marked": false}}, {"kind": "runs", "id": "w1", "before": {"id": "w1", "name": "Pump", "circuit": "5/7", "start": "pa", "volts": 240, "breaker_a": 30.0, "load_a": 17.0, "wire_size": "10", "material": "cu", "insulation": "THWN-2", "conductors": 2, "neutral": false, "nameplate": true, "gfci": false, "legs": []}, "after": {"id": "w1", "name": "Pump", "circuit": "5/7", "start": "pa", "volts": 240, "breaker_a": 30.0, "load_a": 17.0, "wire_size": "10", "material": "cu", "insulation": "THWN-2", "conductors": 2, "neutral": false, "nameplate": true, "gfci": false, "legs": [{"go": "up", "length_in": 24.0, "place": "stud_wall", "method": "NM-B", "size": "10-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "over", "length_in": 96.0, "place": "stud_wall", "method": "NM-B", "size": "10-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "box", "node": "b3"}}]}}]',0);
INSERT INTO "history" VALUES('bc9062ecebce',4,'step','[{"kind": "circuits", "id": "c2", "before": {"id": "c2", "name": "Lights Shed", "panel": "pa", "space": 2, "half": "", "poles": 1, "volts": 120, "breaker_a": 15.0, "protection": "plain", "partner": null, "tied": false, "neutral": true, "wire_size": "14", "material": "cu", "method": "NM-B", "whip_size": "", "equipment_ground": true, "nameplate": false, "least_ampacity_a": null, "largest_breaker_a": null, "feeds": null, "chain": [{"box": "b1", "after": null, "length_in": null}, {"box": "b2", "after": "b1", "length_in": null}]}, "after": {"id": "c2", "name": "Lights Shed", "panel": "pa", "space": 4, "half": "", "poles": 1, "volts": 120, "breaker_a": 15.0, "protection": "plain", "partner": null, "tied": false, "neutral": true, "wire_size": "14", "material": "cu", "method": "NM-B", "whip_size": "", "equipment_ground": true, "nameplate": false, "least_ampacity_a": null, "largest_breaker_a": null, "feeds": null, "chain": [{"box": "b1", "after": null, "length_in": null}, {"box": "b2", "after": "b1", "length_in": null}]}}]',0);
INSERT INTO "history" VALUES('bc9062ecebce',5,'step','[{"kind": "runs", "id": "r1", "before": {"id": "r1", "name": "Lights and outlet", "circuit": "1", "start": "pa", "volts": 120, "breaker_a": 20.0, "load_a": 9.0, "wire_size": "10", "material": "cu", "insulation": "THWN-2", "conductors": 2, "neutral": true, "nameplate": false, "gfci": false, "legs": [{"go": "up", "length_in": 24.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "over", "length_in": 96.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "down", "length_in": 24.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "box", "node": "x0"}}]}, "after": {"id": "r1", "name": "Lights and outlet", "circuit": "1", "start": "pa", "volts": 120, "breaker_a": 20.0, "load_a": 9.0, "wire_size": "10", "material": "cu", "insulation": "THWN-2", "conductors": 2, "neutral": true, "nameplate": false, "gfci": false, "legs": [{"go": "up", "length_in": 30.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "over", "length_in": 96.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "none", "node": null}}, {"go": "down", "length_in": 24.0, "place": "stud_wall", "method": "NM-B", "size": "12-2", "depth_in": null, "bends_deg": [], "sleeve": false, "met": false, "ribbon": false, "expansion": false, "facts": {"moisture": null, "exposed": null, "damage": null, "sunlight": null, "ambient_c": null, "insulation": null, "above_roof_in": null, "above": null}, "end": {"kind": "box", "node": "x0"}}]}}]',1);
INSERT INTO "history" VALUES('bc9062ecebce',6,'step','[{"kind": "circuits", "id": "c1", "before": {"id": "c1", "name": "Lights and outlet", "panel": "pa", "space": 1, "half": "", "poles": 1, "volts": 120, "breaker_a": 20.0, "protection": "gfci", "partner": null, "tied": false, "neutral": true, "wire_size": "12", "material": "cu", "method": "NM-B", "whip_size": "", "equipment_ground": true, "nameplate": false, "least_ampacity_a": null, "largest_breaker_a": null, "feeds": null, "chain": [{"box": "x0", "after": null, "length_in": null}]}, "after": {"id": "c1", "name": "Bench", "panel": "pa", "space": 1, "half": "", "poles": 1, "volts": 120, "breaker_a": 20.0, "protection": "gfci", "partner": null, "tied": false, "neutral": true, "wire_size": "12", "material": "cu", "method": "NM-B", "whip_size": "", "equipment_ground": true, "nameplate": false, "least_ampacity_a": null, "largest_breaker_a": null, "feeds": null, "chain": [{"box": "x0", "after": null, "length_in": null}]}}]',1);
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
;
INSERT INTO "hop" VALUES('bc9062ecebce','c2',0,'b1',NULL,NULL);
INSERT INTO "hop" VALUES('bc9062ecebce','c2',1,'b2','b1',NULL);
INSERT INTO "hop" VALUES('bc9062ecebce','c1',0,'x0',NULL,NULL);
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
INSERT INTO "job" VALUES('bc9062ecebce','Shed','us-2023','','{"panel_makeup_in": 42.0, "box_makeup_in": 8.0, "outside_makeup_in": 12.0, "loop_in": 6.0, "waste_percent": 5.0, "first_staple_in": 8.0, "staple_spacing_in": 48.0, "temperature_swing_f": 100.0, "dollars_per_hour": 65.0, "pole": {"receptacle": {"mark": "top", "at_in": 16.0}, "switch": {"mark": "top", "at_in": 48.0}, "counter": {"mark": "bottom", "at_in": 42.0}, "vanity": {"mark": "top", "at_in": 44.0}, "garage": {"mark": "bottom", "at_in": 48.0}, "outdoor": {"mark": "centre", "at_in": 24.0}, "wall_light": {"mark": "centre", "at_in": 80.0}, "hole_line_in": 24.0}, "air_tight_outside": false, "opener_from_door_in": 132.0, "boxes_per_circuit": 10, "light_wire": "14"}','[]',9,1);
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
INSERT INTO "leg" VALUES('bc9062ecebce','w1',0,'up',24.0,'stud_wall','NM-B','10-2',NULL,'[]',0,0,0,0,'{}','none',NULL);
INSERT INTO "leg" VALUES('bc9062ecebce','w1',1,'over',96.0,'stud_wall','NM-B','10-2',NULL,'[]',0,0,0,0,'{}','box','b3');
INSERT INTO "leg" VALUES('bc9062ecebce','r1',0,'up',24.0,'stud_wall','NM-B','12-2',NULL,'[]',0,0,0,0,'{}','none',NULL);
INSERT INTO "leg" VALUES('bc9062ecebce','r1',1,'over',96.0,'stud_wall','NM-B','12-2',NULL,'[]',0,0,0,0,'{}','none',NULL);
INSERT INTO "leg" VALUES('bc9062ecebce','r1',2,'down',24.0,'stud_wall','NM-B','12-2',NULL,'[]',0,0,0,0,'{}','box','x0');
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
INSERT INTO "level" VALUES('bc9062ecebce','shed',0,'shed-floor','Main floor','floor',0.0,84.0,'y',9.25,16.0);
CREATE TABLE migration (name TEXT PRIMARY KEY) STRICT;
INSERT INTO "migration" VALUES('0001-first');
INSERT INTO "migration" VALUES('0002-building');
INSERT INTO "migration" VALUES('0003-circuits');
INSERT INTO "migration" VALUES('0004-steps');
INSERT INTO "migration" VALUES('0005-nameplates');
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
INSERT INTO "opening" VALUES('bc9062ecebce','o1',0,'m1',2,'door',48.0,48.0,82.0,0.0,'left',1);
CREATE TABLE panel (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  structure TEXT NOT NULL,
  height_in REAL NOT NULL, room TEXT, side INTEGER, at_in REAL, x_in REAL, y_in REAL, width_in REAL NOT NULL DEFAULT 14.5, tall_in REAL NOT NULL DEFAULT 30, spaces INTEGER NOT NULL DEFAULT 20, main_a REAL DEFAULT 100, bus_a REAL NOT NULL DEFAULT 125, main_at TEXT NOT NULL DEFAULT 'top', tandem_spaces TEXT NOT NULL DEFAULT '[]', bonded INTEGER NOT NULL DEFAULT 1, ground_bar INTEGER NOT NULL DEFAULT 1, neutral_holes INTEGER NOT NULL DEFAULT 20, lug_max TEXT NOT NULL DEFAULT '1/0', calculation TEXT NOT NULL DEFAULT 'standard', floor_area_ft2 REAL, disconnect_elsewhere INTEGER,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, structure) REFERENCES structure(job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
INSERT INTO "panel" VALUES('bc9062ecebce','pa',0,'Panel A','shed',48.0,'m1',1,60.0,NULL,NULL,14.5,30.0,6,30.0,60.0,'top','[]',1,1,20,'1/0','standard',NULL,NULL);
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
INSERT INTO "room" VALUES('bc9062ecebce','m1',0,'shed-floor','Shed','storage','[[0.0, 120.0], [144.0, 120.0], [144.0, 0.0], [0.0, 0.0]]','[{"stud": "2x4", "spacing_in": 16.0, "first_stud_in": 0.0, "bearing": false, "finish": "none", "insulation": "none"}, {"stud": "2x4", "spacing_in": 16.0, "first_stud_in": 0.0, "bearing": false, "finish": "none", "insulation": "none"}, {"stud": "2x4", "spacing_in": 16.0, "first_stud_in": 0.0, "bearing": false, "finish": "none", "insulation": "none"}, {"stud": "2x4", "spacing_in": 16.0, "first_stud_in": 0.0, "bearing": false, "finish": "none", "insulation": "none"}]',NULL,NULL,NULL,1);
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
INSERT INTO "run" VALUES('bc9062ecebce','w1',1,'Pump','5/7','pa',240,30.0,17.0,'10','cu','THWN-2',2,0,1,0);
INSERT INTO "run" VALUES('bc9062ecebce','r1',0,'Lights and outlet','1','pa',120,20.0,9.0,'10','cu','THWN-2',2,1,0,0);
CREATE TABLE step (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  revision INTEGER NOT NULL,
  PRIMARY KEY (job_id, id)
) STRICT
;
CREATE TABLE structure (
  job_id TEXT NOT NULL REFERENCES job(id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  grade_in REAL NOT NULL, x_in REAL NOT NULL DEFAULT 0, y_in REAL NOT NULL DEFAULT 0,
  PRIMARY KEY (job_id, id)
) STRICT;
INSERT INTO "structure" VALUES('bc9062ecebce','shed',0,'Shed','shed',-4.0,0.0,0.0);
COMMIT;
