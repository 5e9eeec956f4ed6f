-- +goose Up
-- How pieces lie on their sheets, by what was to be laid: a layout that was
-- printed must be the one that is cut, after a restart too.
CREATE TABLE layouts (
  key    TEXT PRIMARY KEY,
  answer TEXT NOT NULL,                 -- JSON
  at     INTEGER NOT NULL               -- unix milliseconds
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE layouts;
