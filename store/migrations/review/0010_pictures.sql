-- +goose Up
-- Pictures of screens that were put to a part or a route, with the boxes in them
-- that are tied to parts. What is taken away is kept a while, so that it can be
-- taken back.
CREATE TABLE pictures (
    id       INTEGER PRIMARY KEY,
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    path     TEXT NOT NULL,
    name     TEXT NOT NULL,
    png      BLOB NOT NULL,
    width    INTEGER NOT NULL,
    height   INTEGER NOT NULL,
    boxes    TEXT NOT NULL DEFAULT '[]',
    version  INTEGER NOT NULL DEFAULT 1,
    gone     INTEGER NOT NULL DEFAULT 0,
    at       INTEGER NOT NULL,
    by       TEXT NOT NULL
);
CREATE INDEX pictures_of ON pictures (codebase, path, name);
