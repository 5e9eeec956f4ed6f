-- +goose Up
CREATE TABLE art (
    id     TEXT PRIMARY KEY,
    name   TEXT NOT NULL,
    width  REAL NOT NULL,
    height REAL NOT NULL,
    parts  INTEGER NOT NULL,
    added  INTEGER NOT NULL,
    doc    BLOB NOT NULL
) STRICT;

-- +goose Down
DROP TABLE art;
