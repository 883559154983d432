-- What a day is planned over besides trays and ovens; as most home kitchens have it until somebody says.
ALTER TABLE kitchen ADD COLUMN hands INTEGER NOT NULL DEFAULT 1;
ALTER TABLE kitchen ADD COLUMN mixers INTEGER NOT NULL DEFAULT 1;
ALTER TABLE kitchen ADD COLUMN fridge_places INTEGER NOT NULL DEFAULT 6;
ALTER TABLE kitchen ADD COLUMN freezer_places INTEGER NOT NULL DEFAULT 4;
ALTER TABLE kitchen ADD COLUMN cooling_places INTEGER NOT NULL DEFAULT 8;
