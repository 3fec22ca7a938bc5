-- +goose Up
-- Pages that people write to be read: guides, reports, decisions, drafts of a
-- regrouping. What is taken away is kept a while, so that it can be taken back.
CREATE TABLE pages (
    id       INTEGER PRIMARY KEY,
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    kind     TEXT NOT NULL CHECK (kind IN ('guide', 'report', 'decision', 'regrouping')),
    title    TEXT NOT NULL,
    text     TEXT NOT NULL,
    version  INTEGER NOT NULL DEFAULT 1,
    gone     INTEGER NOT NULL DEFAULT 0,
    at       INTEGER NOT NULL,
    by       TEXT NOT NULL
);
CREATE INDEX pages_of ON pages (codebase, gone);
