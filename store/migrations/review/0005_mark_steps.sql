-- +goose Up
-- What a step of marking changed, so that it can be taken back without taking
-- back what somebody else marked since. A mark that was not there is NULL.
CREATE TABLE mark_steps (
    id       INTEGER PRIMARY KEY AUTOINCREMENT,
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    at       INTEGER NOT NULL
);
CREATE TABLE mark_changes (
    step     INTEGER NOT NULL REFERENCES mark_steps (id) ON DELETE CASCADE,
    path     TEXT NOT NULL,
    old_hash TEXT,
    old_at   INTEGER,
    old_by   TEXT,
    new_hash TEXT,
    new_at   INTEGER,
    PRIMARY KEY (step, path)
) WITHOUT ROWID;
