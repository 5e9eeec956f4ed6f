-- +goose Up
-- How a stock is cut, where a person has found better settings than the usual.
CREATE TABLE settings (
  stock    TEXT PRIMARY KEY,
  settings TEXT NOT NULL                -- JSON
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE settings;
