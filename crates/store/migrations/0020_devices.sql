-- Devices that were let in on the network, and thermometers that may write. Of what they show only a hash is kept. They belong to this machine: no copy of the
-- bakery holds them.
CREATE TABLE device (
    id         INTEGER PRIMARY KEY,
    name       TEXT NOT NULL,
    role       TEXT NOT NULL CHECK (role IN ('full', 'bench', 'thermometer')),
    token_hash TEXT NOT NULL UNIQUE, -- SHA-256 (FIPS 180-4), hexadecimal
    let_in_at  TEXT NOT NULL,        -- UTC, ISO 8601, to the millisecond
    seen_at    TEXT
) STRICT;
