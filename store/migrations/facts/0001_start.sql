-- +goose Up
-- Everything here can be read again from the sources; the file may be deleted.
CREATE TABLE stamps (
    source TEXT PRIMARY KEY,
    data   BLOB NOT NULL
);
CREATE TABLE facts (
    key  TEXT PRIMARY KEY,
    data BLOB NOT NULL
);
CREATE TABLE texts (
    hash TEXT PRIMARY KEY,
    data BLOB NOT NULL
);
CREATE TABLE surveys (
    id   INTEGER PRIMARY KEY,
    data BLOB NOT NULL
);
