-- +goose Up
CREATE TABLE charters (
    codebase INTEGER PRIMARY KEY REFERENCES codebases (id) ON DELETE CASCADE,
    version  INTEGER NOT NULL,
    text     TEXT NOT NULL,
    changed  INTEGER NOT NULL
);

-- What the lead says against what was computed.
CREATE TABLE overrules (
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    kind     TEXT NOT NULL CHECK (kind IN ('role', 'feature', 'purpose', 'rename')),
    target   TEXT NOT NULL,
    value    TEXT NOT NULL,
    at       INTEGER NOT NULL,
    by       TEXT NOT NULL,
    PRIMARY KEY (codebase, kind, target)
) WITHOUT ROWID;
