-- +goose Up
-- Which card an envelope is made for.
CREATE TABLE envelopes (
    envelope TEXT PRIMARY KEY REFERENCES cards(id),
    card     TEXT NOT NULL REFERENCES cards(id)
) STRICT;
CREATE INDEX envelopes_card ON envelopes(card);

-- +goose Down
DROP TABLE envelopes;
