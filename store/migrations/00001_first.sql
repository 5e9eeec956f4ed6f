-- +goose Up
CREATE TABLE cards (
  id       TEXT PRIMARY KEY,
  head     INTEGER NOT NULL,
  changed  INTEGER NOT NULL,            -- unix milliseconds
  removed  INTEGER,                     -- unix milliseconds; NULL while on the table
  title    TEXT NOT NULL,
  words    TEXT NOT NULL,               -- title and all words, lower case, to search in
  kind     TEXT NOT NULL,
  width    REAL NOT NULL,
  height   REAL NOT NULL,
  stock    TEXT NOT NULL
) STRICT;

-- The revision log. Rows are only ever added: undo adds a row that equals an
-- earlier one. "back" is the row whose document undo goes to, "forth" the one
-- redo goes to.
CREATE TABLE revisions (
  card    TEXT NOT NULL REFERENCES cards(id),
  number  INTEGER NOT NULL,
  doc     BLOB NOT NULL,                -- the document, JSON, deflated
  label   TEXT NOT NULL,                -- the change that led here from "back"
  at      INTEGER NOT NULL,
  back    INTEGER,
  forth   INTEGER,
  PRIMARY KEY (card, number)
) STRICT, WITHOUT ROWID;

CREATE TABLE pictures (
  id      TEXT PRIMARY KEY,             -- SHA-256 of the bytes, hex
  name    TEXT NOT NULL,
  type    TEXT NOT NULL,
  width   INTEGER NOT NULL,
  height  INTEGER NOT NULL,
  added   INTEGER NOT NULL,
  bytes   BLOB NOT NULL                 -- the original, never altered
) STRICT;

CREATE TABLE previews (
  picture TEXT NOT NULL REFERENCES pictures(id),
  side    INTEGER NOT NULL,
  type    TEXT NOT NULL,
  bytes   BLOB NOT NULL,
  PRIMARY KEY (picture, side)
) STRICT;

-- +goose Down
DROP TABLE previews;
DROP TABLE pictures;
DROP TABLE revisions;
DROP TABLE cards;
