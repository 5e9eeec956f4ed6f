-- +goose Up
CREATE TABLE results (
    key     TEXT PRIMARY KEY,
    picture BLOB NOT NULL,
    at      INTEGER NOT NULL
) STRICT;

-- +goose Down
DROP TABLE results;
