PRAGMA application_id = 1164733473;
PRAGMA user_version = 1;

CREATE TABLE revision (
  id INTEGER PRIMARY KEY,
  design TEXT NOT NULL,
  name TEXT NOT NULL,
  imported TEXT NOT NULL,
  UNIQUE (design, name)
) STRICT;

CREATE TABLE part (
  revision INTEGER NOT NULL REFERENCES revision (id),
  position INTEGER NOT NULL,
  reference TEXT NOT NULL,
  value TEXT NOT NULL,
  package TEXT NOT NULL,
  code TEXT NOT NULL,
  description TEXT NOT NULL,
  fitted INTEGER NOT NULL,
  key INTEGER NOT NULL,
  alternates TEXT NOT NULL,
  block TEXT NOT NULL,
  x REAL,
  y REAL,
  rotation REAL,
  side INTEGER,
  mass REAL,
  cost REAL,
  PRIMARY KEY (revision, position)
) STRICT, WITHOUT ROWID;

CREATE TABLE joint (
  revision INTEGER NOT NULL REFERENCES revision (id),
  position INTEGER NOT NULL,
  part TEXT NOT NULL,
  pin TEXT NOT NULL,
  net TEXT NOT NULL,
  x REAL NOT NULL,
  y REAL NOT NULL,
  reach TEXT NOT NULL,
  hole INTEGER NOT NULL,
  drill REAL NOT NULL,
  plated INTEGER NOT NULL,
  width REAL NOT NULL,
  height REAL NOT NULL,
  rotation REAL NOT NULL,
  middle INTEGER NOT NULL,
  mask INTEGER NOT NULL,
  PRIMARY KEY (revision, position)
) STRICT, WITHOUT ROWID;

CREATE TABLE corner (
  revision INTEGER NOT NULL REFERENCES revision (id),
  loop INTEGER NOT NULL,
  position INTEGER NOT NULL,
  x REAL NOT NULL,
  y REAL NOT NULL,
  PRIMARY KEY (revision, loop, position)
) STRICT, WITHOUT ROWID;

-- what the maker corrected for a revision, as JSON: the power ladder, the simulated bench's faults
CREATE TABLE document (
  revision INTEGER NOT NULL REFERENCES revision (id),
  kind TEXT NOT NULL,
  body TEXT NOT NULL,
  PRIMARY KEY (revision, kind)
) STRICT, WITHOUT ROWID;

CREATE TABLE build (
  id INTEGER PRIMARY KEY,
  revision INTEGER NOT NULL REFERENCES revision (id),
  method TEXT NOT NULL,
  alloy TEXT NOT NULL,
  made TEXT NOT NULL
) STRICT;

CREATE TABLE board (
  serial TEXT PRIMARY KEY,
  build INTEGER NOT NULL REFERENCES build (id),
  position INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE shelf (
  position INTEGER PRIMARY KEY,
  line INTEGER NOT NULL,
  code TEXT NOT NULL,
  quantity INTEGER NOT NULL,
  bin TEXT NOT NULL,
  on_order INTEGER NOT NULL,
  expected TEXT,
  expiry TEXT
) STRICT;

CREATE TABLE entry (
  number INTEGER PRIMARY KEY,
  at TEXT NOT NULL,
  board TEXT NOT NULL,
  body TEXT NOT NULL,
  hash BLOB NOT NULL
) STRICT;

CREATE INDEX entry_by_board ON entry (board, number);

CREATE TRIGGER entry_no_update BEFORE UPDATE ON entry
BEGIN SELECT RAISE(ABORT, 'the book is append-only'); END;

CREATE TRIGGER entry_no_delete BEFORE DELETE ON entry
BEGIN SELECT RAISE(ABORT, 'the book is append-only'); END;

-- INSERT OR REPLACE would get past the two above
CREATE TRIGGER entry_no_replace BEFORE INSERT ON entry
WHEN EXISTS (SELECT 1 FROM entry WHERE number = NEW.number)
BEGIN SELECT RAISE(ABORT, 'the book is append-only'); END;
