-- photographs of joints, by the hash of their bytes, which an entry of the book names
CREATE TABLE photograph (
  sha256 TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  body BLOB NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TRIGGER photograph_no_update BEFORE UPDATE ON photograph
BEGIN SELECT RAISE(ABORT, 'photographs are kept as they were taken'); END;

CREATE TRIGGER photograph_no_delete BEFORE DELETE ON photograph
BEGIN SELECT RAISE(ABORT, 'photographs are kept as they were taken'); END;

PRAGMA user_version = 3;
