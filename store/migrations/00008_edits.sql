-- +goose Up
CREATE TABLE edits (
    id      TEXT PRIMARY KEY,
    picture TEXT NOT NULL REFERENCES pictures(id),
    edits   BLOB NOT NULL
) STRICT;

-- +goose Down
DROP TABLE edits;
