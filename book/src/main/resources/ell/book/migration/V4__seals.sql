-- what the tables that are no entries held, sealed each time they change, in a chain of its own that
-- also knows where the chain of the entries ended then
CREATE TABLE seal (
  number INTEGER PRIMARY KEY,
  at TEXT NOT NULL,
  what TEXT NOT NULL,
  entries INTEGER NOT NULL,
  head BLOB NOT NULL,
  body BLOB NOT NULL,
  hash BLOB NOT NULL
) STRICT;

CREATE TRIGGER seal_no_update BEFORE UPDATE ON seal
BEGIN SELECT RAISE(ABORT, 'the book is append-only'); END;

CREATE TRIGGER seal_no_delete BEFORE DELETE ON seal
BEGIN SELECT RAISE(ABORT, 'the book is append-only'); END;

CREATE TRIGGER seal_no_replace BEFORE INSERT ON seal
WHEN EXISTS (SELECT 1 FROM seal WHERE number = NEW.number)
BEGIN SELECT RAISE(ABORT, 'the book is append-only'); END;

PRAGMA user_version = 4;
