-- +goose Up
CREATE TABLE fonts (
    id      TEXT PRIMARY KEY,
    file    TEXT NOT NULL,
    added   INTEGER NOT NULL,
    removed INTEGER,
    bytes   BLOB NOT NULL
) STRICT;

-- +goose Down
DROP TABLE fonts;
