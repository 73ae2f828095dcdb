PRAGMA user_version = 2;

-- what kind of thing lies on the shelf, and since which entry of the book the count stands
ALTER TABLE shelf ADD COLUMN kind TEXT NOT NULL DEFAULT 'part';
ALTER TABLE shelf ADD COLUMN since INTEGER NOT NULL DEFAULT 0;
UPDATE shelf SET since = coalesce((SELECT max(number) FROM entry), 0);

ALTER TABLE part ADD COLUMN variants TEXT NOT NULL DEFAULT '';
ALTER TABLE part ADD COLUMN spares INTEGER NOT NULL DEFAULT 0;

ALTER TABLE build ADD COLUMN variant TEXT NOT NULL DEFAULT '';

-- what is known of parts, by code: parameters in words, as the maker's files say them
CREATE TABLE parameter (
  code TEXT NOT NULL,
  name TEXT NOT NULL,
  value TEXT NOT NULL,
  PRIMARY KEY (code, name)
) STRICT, WITHOUT ROWID;

-- what the maker keeps with the workspace, such as the offers of sellers
CREATE TABLE keepsake (
  kind TEXT PRIMARY KEY,
  body TEXT NOT NULL
) STRICT, WITHOUT ROWID;
