-- +goose Up
CREATE TABLE kept (
    name  TEXT PRIMARY KEY,
    value TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE kept;
