-- +goose Up
-- What a person notes about a supply of any kind: photos by digest, papers,
-- shapes and fonts by their names.
CREATE TABLE supplies (
  kind      TEXT NOT NULL,
  id        TEXT NOT NULL,
  name      TEXT NOT NULL,              -- empty: as it came
  tags      TEXT NOT NULL,              -- JSON array of strings
  favourite INTEGER NOT NULL,
  used      INTEGER NOT NULL,           -- unix milliseconds; 0 for never
  rights    TEXT NOT NULL,              -- free, personal or credit; empty for not noted
  credit    TEXT NOT NULL,
  PRIMARY KEY (kind, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE sketches (
  id       TEXT PRIMARY KEY,
  title    TEXT NOT NULL,
  face     TEXT NOT NULL,               -- empty for a whole card
  occasion TEXT NOT NULL,
  tags     TEXT NOT NULL,               -- JSON array of strings
  added    INTEGER NOT NULL,            -- unix milliseconds
  doc      BLOB NOT NULL                -- the document, JSON, deflated
) STRICT;

-- A picture that was taken out of the tray stays for the sake of undo.
ALTER TABLE pictures ADD COLUMN removed INTEGER;

-- +goose Down
ALTER TABLE pictures DROP COLUMN removed;
DROP TABLE sketches;
DROP TABLE supplies;
