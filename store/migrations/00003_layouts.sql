-- +goose Up
-- How pieces lie on their sheets, by what was to be laid: a layout that was
-- printed must be the one that is cut, after a restart too.
CREATE TABLE layouts (
  key    TEXT PRIMARY KEY,
  answer TEXT NOT NULL,                 -- JSON
  at     INTEGER NOT NULL               -- unix milliseconds
) STRICT, WITHOUT ROWID;

-- How far the run of a sheet came, by what was to be cut: it can go on from there
-- after a restart.
CREATE TABLE runs (
  key   TEXT PRIMARY KEY,
  state TEXT NOT NULL,                  -- JSON
  at    INTEGER NOT NULL                -- unix milliseconds
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE runs;
DROP TABLE layouts;
