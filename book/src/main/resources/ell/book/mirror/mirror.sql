-- What a bench has seen of a book on a server, and what it wrote while the server did not answer. One file a
-- workspace and bench, beside nothing: it is no workspace, and what is seen in it can always be fetched anew.
CREATE TABLE revision (id INTEGER PRIMARY KEY, design TEXT NOT NULL, name TEXT NOT NULL, imported TEXT NOT NULL) STRICT;
CREATE TABLE part (
  revision INTEGER NOT NULL, position INTEGER NOT NULL, reference TEXT NOT NULL, value TEXT NOT NULL,
  package TEXT NOT NULL, code TEXT NOT NULL, description TEXT NOT NULL, fitted INTEGER NOT NULL,
  key INTEGER NOT NULL, alternates TEXT NOT NULL, block TEXT NOT NULL, x REAL, y REAL, rotation REAL,
  side INTEGER, mass REAL, cost REAL, variants TEXT NOT NULL, spares INTEGER NOT NULL,
  PRIMARY KEY (revision, position)) STRICT, WITHOUT ROWID;
CREATE TABLE joint (
  revision INTEGER NOT NULL, position INTEGER NOT NULL, part TEXT NOT NULL, pin TEXT NOT NULL,
  net TEXT NOT NULL, x REAL NOT NULL, y REAL NOT NULL, reach TEXT NOT NULL, hole INTEGER NOT NULL,
  drill REAL NOT NULL, plated INTEGER NOT NULL, width REAL NOT NULL, height REAL NOT NULL,
  rotation REAL NOT NULL, middle INTEGER NOT NULL, mask INTEGER NOT NULL,
  PRIMARY KEY (revision, position)) STRICT, WITHOUT ROWID;
CREATE TABLE corner (
  revision INTEGER NOT NULL, loop INTEGER NOT NULL, position INTEGER NOT NULL, x REAL NOT NULL, y REAL NOT NULL,
  PRIMARY KEY (revision, loop, position)) STRICT, WITHOUT ROWID;
CREATE TABLE document (
  revision INTEGER NOT NULL, kind TEXT NOT NULL, body TEXT NOT NULL, PRIMARY KEY (revision, kind)) STRICT, WITHOUT ROWID;
CREATE TABLE build (
  id INTEGER PRIMARY KEY, revision INTEGER NOT NULL, method TEXT NOT NULL, alloy TEXT NOT NULL,
  made TEXT NOT NULL, variant TEXT NOT NULL) STRICT;
CREATE TABLE board (serial TEXT PRIMARY KEY, build INTEGER NOT NULL, position INTEGER NOT NULL) STRICT, WITHOUT ROWID;
CREATE TABLE shelf (
  position INTEGER PRIMARY KEY, line INTEGER NOT NULL, code TEXT NOT NULL, quantity INTEGER NOT NULL,
  bin TEXT NOT NULL, on_order INTEGER NOT NULL, expected TEXT, expiry TEXT, kind TEXT NOT NULL,
  since INTEGER NOT NULL) STRICT;
CREATE TABLE parameter (
  code TEXT NOT NULL, name TEXT NOT NULL, value TEXT NOT NULL, PRIMARY KEY (code, name)) STRICT, WITHOUT ROWID;
CREATE TABLE keepsake (kind TEXT PRIMARY KEY, body TEXT NOT NULL) STRICT, WITHOUT ROWID;
CREATE TABLE photograph (sha256 TEXT PRIMARY KEY, name TEXT NOT NULL, body BLOB NOT NULL) STRICT, WITHOUT ROWID;
CREATE TABLE entry (
  number INTEGER PRIMARY KEY, at TEXT NOT NULL, board TEXT NOT NULL, body TEXT NOT NULL) STRICT;
CREATE INDEX entry_by_board ON entry (board, number);

-- up to which number every entry of every board was fetched
CREATE TABLE complete (one INTEGER PRIMARY KEY CHECK (one = 1), number INTEGER NOT NULL) STRICT;
INSERT INTO complete VALUES (1, 0);

-- which seal of what was seen last: what has another one now is fetched anew
CREATE TABLE seen (what TEXT PRIMARY KEY, seal INTEGER NOT NULL) STRICT, WITHOUT ROWID;

-- boards whose entries were fetched; of the others nothing is known here, which is not the same as nothing there
CREATE TABLE fetched (board TEXT PRIMARY KEY) STRICT, WITHOUT ROWID;

-- What was written while the server did not answer, in order. after: last number of the board on the server that
-- was known then. said: empty while it waits, else why it could not be taken over.
CREATE TABLE waiting (
  position INTEGER PRIMARY KEY,
  token TEXT NOT NULL UNIQUE,
  call INTEGER NOT NULL,
  number INTEGER NOT NULL,
  at TEXT NOT NULL,
  board TEXT NOT NULL,
  body TEXT NOT NULL,
  after INTEGER NOT NULL,
  said TEXT NOT NULL DEFAULT '') STRICT;

-- what became of it: the number that it has on the server, or why it was laid aside; nothing is thrown away
CREATE TABLE merged (
  token TEXT PRIMARY KEY, was INTEGER NOT NULL, now INTEGER NOT NULL, at TEXT NOT NULL, board TEXT NOT NULL,
  body TEXT NOT NULL, words TEXT NOT NULL) STRICT, WITHOUT ROWID;
PRAGMA user_version = 1;
