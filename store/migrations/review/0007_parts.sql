-- +goose Up
-- A change of one part of a review says nothing of what the others determine:
-- each part has a counter of its own.
CREATE TABLE touched (
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    part     TEXT NOT NULL,
    n        INTEGER NOT NULL,
    PRIMARY KEY (codebase, part)
) WITHOUT ROWID;
